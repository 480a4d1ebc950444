import type { ColourWay, Formula, Opened, Shelf, SimulateOptions, Simulation } from "@uprise/core";
import { applyEdit, ownOf } from "@uprise/core/page";
import { useEffect, useState } from "react";
import { ask, TaskError } from "../../device/workers";
import { opened } from "../../device/opened";

/** A way out as it was baked: null where it cannot be. */
export interface TriedWay {
  way: ColourWay;
  simulation: Simulation | null;
}

interface Answers {
  of: readonly ColourWay[] | null;
  tried: readonly TriedWay[];
  fault: string | null;
}

const quick: SimulateOptions = { spread: 0, frames: 0 };

/** The formula's input with a way taken; what is known of the very oven stays. */
function withWay(formula: Formula, open: () => Opened, way: ColourWay): Opened {
  const { vessel, oven, process } = way.edits.reduce(applyEdit, formula);
  const input = open();
  return { ...input, vessel, process, oven: { ...input.oven, ...oven } };
}

/** Bakes every way in the oven worker, one after the other; what is done so far stands in `tried`. Nothing is baked while `ways` is null. */
export function useWays(
  formula: Formula,
  open: () => Opened,
  shelf: Shelf,
  ways: readonly ColourWay[] | null,
): { tried: readonly TriedWay[]; pending: boolean; fault: string | null } {
  const [answers, setAnswers] = useState<Answers>({ of: null, tried: [], fault: null });
  useEffect(() => {
    if (!ways) return undefined;
    let here = true;
    const add = (way: ColourWay, simulation: Simulation | null, fault: string | null): void =>
      setAnswers((so) => {
        const before = so.of === ways ? so : { tried: [], fault: null };
        return { of: ways, tried: [...before.tried, { way, simulation }], fault: fault ?? before.fault };
      });
    void (async () => {
      for (const way of ways) {
        if (!here) return;
        const { input } = opened(() => withWay(formula, open, way));
        try {
          const simulation = input ? await ask("simulate", input, ownOf(shelf), quick) : null;
          if (here) add(way, simulation, null);
        } catch (error) {
          // What cannot be baked is no way; a worker that broke is told.
          if (here) add(way, null, error instanceof TaskError && error.fault.code !== null ? null : String(error));
        }
      }
    })();
    return () => {
      here = false;
    };
  }, [formula, open, shelf, ways]);
  const now = answers.of === ways ? answers : { tried: [], fault: null };
  return { tried: now.tried, pending: ways !== null && now.tried.length < ways.length, fault: now.fault };
}
