import type { ColourWay, Formula, Opened, Shelf, Simulation } from "@uprise/core";
import { CoreError, applyEdit } from "@uprise/core/page";
import { ready } from "@uprise/core";
import { useEffect, useId, useMemo, useState } from "react";
import { ovenWorker } from "./oven-worker";

/** A way out as it was baked: null where it cannot be. */
export interface TriedWay {
  way: ColourWay;
  simulation: Simulation | null;
}

/** The formula's input with a way taken, ready for the oven; what is known of the very oven stays. Null where it cannot be baked. */
function withWay(formula: Formula, open: () => Opened, shelf: Shelf, way: ColourWay): ReturnType<typeof ready> | null {
  try {
    const { vessel, oven, process } = way.edits.reduce(applyEdit, formula);
    const input = open();
    return ready({ ...input, vessel, process, oven: { ...input.oven, ...oven } }, shelf);
  } catch (error) {
    if (error instanceof CoreError) return null;
    throw error;
  }
}

interface Answers {
  of: readonly unknown[] | null;
  baked: ReadonlyMap<number, Simulation | null>;
  fault: string | null;
}

/** Bakes every way in the worker, one after the other; what is done so far stands in `tried`. Nothing is baked while `ways` is null. */
export function useWays(
  formula: Formula,
  open: () => Opened,
  shelf: Shelf,
  ways: readonly ColourWay[] | null,
): { tried: TriedWay[]; pending: boolean; fault: string | null } {
  const id = useId();
  const made = useMemo(
    () => ways?.map((way) => ({ way, ready: withWay(formula, open, shelf, way) })) ?? null,
    [formula, open, shelf, ways],
  );
  const [answers, setAnswers] = useState<Answers>({ of: null, baked: new Map(), fault: null });
  useEffect(() => {
    if (!made) return undefined;
    const add = (k: number, simulation: Simulation | null, fault: string | null): void =>
      setAnswers((so) => {
        const before = so.of === made ? so : { of: made, baked: new Map<number, Simulation | null>(), fault: null };
        return { of: made, baked: new Map([...before.baked, [k, simulation]]), fault: fault ?? before.fault };
      });
    made.forEach(({ ready: there }, k) => {
      if (!there) return;
      ovenWorker.ask(
        `${id} ${k}`,
        { do: "bake", start: there.start, massSpread: there.massSpread, options: { spread: 0, frames: 0 } },
        (simulation) => add(k, simulation, null),
        (message) => add(k, null, message),
      );
    });
    return () => made.forEach((_, k) => ovenWorker.cancel(`${id} ${k}`));
  }, [made, id]);
  const here = answers.of === made ? answers : { baked: new Map<number, Simulation | null>(), fault: null };
  const tried = (made ?? []).flatMap(({ way, ready: there }, k): TriedWay[] => {
    const simulation = there ? here.baked.get(k) : null;
    return simulation === undefined ? [] : [{ way, simulation }];
  });
  return { tried, pending: made !== null && tried.length < made.length, fault: here.fault };
}
