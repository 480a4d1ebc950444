import { type BakedAnalysis, ready } from "../balance/readings";
import { simulateStart } from "../bake/simulate";
import type { Simulation } from "../bake/simulation-schema";
import type { Opened } from "../formula/open";
import type { Shelf } from "../pantry/shelf";

/** A bake as it went, or would go. */
export interface Outcome {
  input: Opened;
  analysis: BakedAnalysis;
  simulation: Simulation;
}

/** The range is not asked for here, and its runs are left out. */
const QUICK = { spread: 0.1, rough: true };

/** Bakes an input until it is done, or for so many minutes, on the rough grid: what is compared is rough on both sides. Throws as `readings` does. */
export function bakeOf(input: Opened, shelf: Shelf, minutes?: number, frames = 0): Outcome {
  const { start, massSpread, conclude } = ready(input, shelf);
  const simulation = simulateStart(start, massSpread, { ...QUICK, frames, ...(minutes === undefined ? {} : { minutes }) });
  return { input, analysis: conclude(simulation, "plain"), simulation };
}

/** °C inside when it leaves the oven. */
export const coreAtOut = ({ coreC, phases }: Simulation): number =>
  coreC[phases.filter((phase) => phase === "oven").length - 1] ?? 0;

/** Water of the crumb when it leaves the oven, % of what is left. */
export const crumbWater = ({ analysis: { batch }, simulation: { loss } }: Outcome): number =>
  (100 * (batch.waterG / Math.max(1, batch.massG) - loss.oven / 100)) / (1 - loss.oven / 100);
