import {
  type AnalyseInput,
  CoreError,
  type Formula,
  type Oven,
  ready,
  scaleLines,
  type Shelf,
  type SimulateOptions,
  type Simulation,
} from "@uprise/core";
import { useMemo } from "react";
import { useSimulation } from "./use-simulation";

/** What is changed in thought. */
export interface Change {
  warmerK: number;
  fuller: number;
  mode: NonNullable<Oven["mode"]>;
  altitudeM: number;
  standMinutes: number;
  material: "as it is" | "light-metal" | "dark-steel" | "glass" | "cast-iron";
}

const quick: SimulateOptions = { spread: 0, frames: 14 };

/** Nothing changed yet. */
export const noChange = (formula: Formula): Change => ({
  warmerK: 0,
  fuller: 1,
  mode: formula.oven.mode ?? "still",
  altitudeM: formula.oven.altitudeM ?? 0,
  standMinutes: formula.process.restMinutes ?? 0,
  material: "as it is",
});

/** The input with the change in it. */
export function changed(input: AnalyseInput, change: Change): AnalyseInput {
  const { vessel } = input;
  return {
    ...input,
    ...(input.lines && change.fuller !== 1 ? { lines: scaleLines(input.lines, change.fuller) } : {}),
    ...(input.oven
      ? {
          oven: {
            ...input.oven,
            celsius: Math.min(320, Math.max(60, input.oven.celsius + change.warmerK)),
            mode: change.mode,
            altitudeM: change.altitudeM,
          },
        }
      : {}),
    ...(vessel && change.material !== "as it is"
      ? { vessel: { ...vessel, material: change.material, preheated: change.material === "cast-iron" } }
      : {}),
    process: { ...input.process, restMinutes: change.standMinutes },
  };
}

/** The formula as it stands with the change taken. */
export function takeChange(formula: Formula, change: Change): Formula {
  const next = changed(formula, change);
  return {
    ...formula,
    lines: next.lines as Formula["lines"],
    vessel: next.vessel ?? formula.vessel,
    oven: next.oven ?? formula.oven,
    process: next.process ?? {},
  };
}

/** The bake as it would be with a change; null without one. */
export function useOther(
  open: () => AnalyseInput,
  shelf: Shelf,
  change: Change | null,
): { other: Simulation | null; pending: boolean } {
  const made = useMemo(() => {
    if (!change) return null;
    try {
      return ready(changed(open(), change), shelf);
    } catch (error) {
      if (error instanceof CoreError) return null;
      throw error;
    }
  }, [open, shelf, change]);
  const { simulation, pending } = useSimulation(made, quick);
  return { other: made ? simulation : null, pending };
}
