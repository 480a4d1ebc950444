import type { Analysis, Finding, Opened, Shelf, Simulation } from "@uprise/core";
import { isOfTheOven, ownOf } from "@uprise/core/page";
import { useMemo, useState } from "react";
import { opened } from "../../device/opened";
import { useAsked } from "../../device/use-asked";
import type { Args, Bench } from "../../workers/tasks";

export interface Read {
  analysis: Analysis | null;
  /** What keeps the formula from being read; an empty sheet is no fault. */
  fault: string | null;
  simulation: Simulation | null;
  /** What stands on the sheet now is still being read or baked, or baked finer than it is shown. */
  baking: boolean;
  /** Why there is no bake of what stands on the sheet. */
  unbaked: string | null;
}

const waiting = { input: null, fault: null } as const;

/** A reading of the sheet as it is, with the oven's numbers of the bake before until its own are here. */
function laidOver(quick: Analysis, before: Analysis | null): Analysis {
  if (!before?.bake) return quick;
  const { bake, race, fill } = before;
  const findings = [...quick.findings, ...before.findings.filter(isOfTheOven)];
  return { ...quick, bake, race, fill: { ...quick.fill, crownMm: fill.crownMm }, findings };
}

type Baked = { of: Args<"bake"> | null; data: Bench | null; current: boolean };
/** The finer of two answers to the same, else the one that was asked last. */
const newer = (coarse: Baked, fine: Baked): Baked => (fine.data && fine.of?.[0] === coarse.of?.[0] ? fine : coarse);

/**
 * All readings of a formula: at once without the oven, then with a coarse bake, then with a fine one. Nothing is computed on the page. `make`
 * opens the formula and may throw the core's errors; nothing is asked until the kitchen is `ready`.
 */
export function useBaked(make: () => Opened, shelf: Shelf, ready = true): Read {
  const { input, fault } = useMemo(() => (ready ? opened(make) : waiting), [make, ready]);
  const own = ownOf(shelf);
  const quick = useAsked("readings", input ? [input, own] : null);
  const coarse = useAsked("bake", input ? [input, own, "coarse"] : null);
  const fine = useAsked("bake", input && coarse.current && coarse.data?.simulation ? [input, own, "fine"] : null);
  // What was baked last stays until there is something newer, so that no finer number goes back to a coarser one of the same.
  const newest = newer(coarse, fine);
  const [last, setLast] = useState<Baked>(newest);
  if (newest.current && newest.data && newest !== last) setLast(newest);
  return useMemo((): Read => {
    const here = input !== null && last.data !== null && last.of?.[0] === input;
    const readable = quick.current ? quick.data : null;
    const analysis = here
      ? last.data?.analysis
      : readable
        ? laidOver(readable, last.data?.analysis ?? null)
        : (last.data?.analysis ?? quick.data);
    const why = quick.fault ?? (coarse.fault?.code ? coarse.fault : null);
    const empty = why?.code === "no-batch" || why?.code === "empty-formula";
    const broken = coarse.fault && coarse.fault.code === null ? coarse.fault.message : fine.fault ? fine.fault.message : null;
    return {
      analysis: input && !why ? (analysis ?? null) : null,
      fault: fault ?? (why && !empty ? why.message : null),
      simulation: input && !why ? (last.data?.simulation ?? null) : null,
      baking: !ready || (input !== null && !why && (quick.pending || coarse.pending || fine.pending)),
      unbaked: broken ?? (here ? (last.data?.analysis.unbaked ?? null) : null),
    };
  }, [ready, input, fault, quick, coarse, fine, last]);
}

/** What would mend each finding, asked of the oven; null until it is here, and where nobody asks. */
export function useWaysOut(
  make: () => Opened,
  shelf: Shelf,
  on: boolean,
): { findings: readonly Finding[] | null; pending: boolean } {
  const { input } = useMemo(() => opened(make), [make]);
  const { data, current, pending } = useAsked("ways", on && input ? [input, ownOf(shelf)] : null);
  return { findings: current ? data : null, pending };
}
