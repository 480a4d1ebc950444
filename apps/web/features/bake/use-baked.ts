import type { Analysis, Opened, Ready, Shelf, SimulateOptions, Simulation } from "@uprise/core";
import { carried, carryOf, readings, ready } from "@uprise/core";
import { CoreError } from "@uprise/core/page";
import { useMemo } from "react";
import { useSimulation } from "./use-simulation";

export interface Read {
  analysis: Analysis | null;
  /** What keeps the formula from being read; an empty sheet is no fault. */
  fault: string | null;
  simulation: Simulation | null;
  /** The bake is being computed for what stands on the sheet now. */
  baking: boolean;
  /** Why the bake could not be computed: what is shown is the estimate, marked as one. */
  unbaked: string | null;
}

/** Ready for the oven, with the estimate that stands until it is baked. */
type Bakeable = Ready & { first: Analysis };
type Quick = { analysis: Analysis | null; ready: Bakeable | null; fault: string | null };

/** The readings at once and, where it can be baked, what the worker needs. */
function quickly(make: () => Opened, shelf: Shelf): Quick {
  try {
    const input = make();
    try {
      const made = ready(input, shelf);
      const analysis = made.estimate();
      return { analysis, ready: { ...made, first: analysis }, fault: null };
    } catch (error) {
      if (!(error instanceof CoreError) || error.code !== "not-a-batter") throw error;
      return { analysis: readings(input, shelf), ready: null, fault: null };
    }
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    const empty = error.code === "no-batch" || error.code === "empty-formula";
    return { analysis: null, ready: null, fault: empty ? null : error.message };
  }
}

const whole: SimulateOptions = {};

/**
 * All readings of a formula: at once with an estimate of the bake as the last simulation corrects it, and with the simulation as soon as the
 * worker has it. `make` opens the formula and may throw the core's errors.
 */
export function useBaked(make: () => Opened, shelf: Shelf): Read {
  const quick = useMemo(() => quickly(make, shelf), [make, shelf]);
  const { simulation, of, pending, fault } = useSimulation(quick.ready, whole);
  const concluded = useMemo(() => (simulation && of ? of.conclude(simulation) : null), [simulation, of]);
  return useMemo((): Read => {
    const here = concluded !== null && of !== null && of === quick.ready;
    const meanwhile = quick.analysis && concluded && of ? carried(quick.analysis, carryOf(of.first, concluded)) : quick.analysis;
    return {
      analysis: here ? concluded : meanwhile,
      fault: quick.fault,
      simulation: quick.ready ? simulation : null,
      baking: quick.ready !== null && pending,
      unbaked: quick.ready && !pending ? fault : null,
    };
  }, [concluded, of, quick, fault, simulation, pending]);
}
