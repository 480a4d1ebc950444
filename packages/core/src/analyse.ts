import { type SimulateOptions, simulateStart } from "./bake/simulate";
import type { Simulation } from "./bake/simulation";
import { type Analysis, readings, ready } from "./balance/readings";
import { CoreError } from "./errors";
import type { AnalyseInput } from "./formula/open";
import { builtInShelf, type Shelf } from "./pantry/catalogue";

export * from "./balance/readings";
export type { AnalyseInput } from "./formula/open";

export interface Baked {
  analysis: Analysis;
  simulation: Simulation;
}

/** All readings and the simulated bake that `fill` and `bake` are taken from. Throws as `ready` does. */
export function baked(input: AnalyseInput, shelf: Shelf = builtInShelf, options: SimulateOptions = {}): Baked {
  const { start, massSpread, conclude } = ready(input, shelf);
  const simulation = simulateStart(start, massSpread, options);
  return { analysis: conclude(simulation), simulation };
}

/** Everything Uprise knows of a formula in one pure call, the bake by simulation where it can be baked. Units and errors as in `readings`. */
export function analyse(input: AnalyseInput, shelf: Shelf = builtInShelf): Analysis {
  try {
    return baked(input, shelf, { frames: 0 }).analysis;
  } catch (error) {
    if (error instanceof CoreError && error.code === "not-a-batter") return readings(input, shelf);
    throw error;
  }
}

/** The bake of a formula as it goes on in oven, tin and rack. Errors as in `readings`. */
export const simulate = (input: AnalyseInput, shelf: Shelf = builtInShelf, options: SimulateOptions = {}): Simulation =>
  baked(input, shelf, options).simulation;
