import { type SimulateOptions, simulateStart } from "../bake/simulate";
import type { Simulation } from "../bake/simulation-schema";
import { type Analysis, type BakedAnalysis, type Depth, type Glance, readings, ready } from "./readings";
import { CoreError } from "../errors";
import type { AnalyseInput } from "../formula/open";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";

export * from "./readings";
export type { AnalyseInput } from "../formula/open";

export interface Baked {
  analysis: BakedAnalysis;
  simulation: Simulation;
}

/** All readings and the bake that `fill`, `bake` and `race` are taken from. Throws as `ready` does. */
export function baked(
  input: AnalyseInput,
  shelf: Shelf = builtInShelf,
  options: SimulateOptions = {},
  depth: Depth = "findings",
): Baked {
  const { start, massSpread, conclude } = ready(input, shelf);
  const simulation = simulateStart(start, massSpread, options);
  return { analysis: conclude(simulation, depth), simulation };
}

/**
 * Everything Uprise knows of a formula in one pure call, with its bake where it can be baked, and what would mend each finding. Units and errors as
 * in `readings`.
 */
export function analyse(
  input: AnalyseInput,
  shelf: Shelf = builtInShelf,
  options: SimulateOptions = { frames: 0 },
  depth: Depth = "ways",
): Analysis {
  try {
    return baked(input, shelf, options, depth).analysis;
  } catch (error) {
    if (error instanceof CoreError && error.code === "not-a-batter")
      return { ...readings(input, shelf, depth === "ways"), unbaked: error.message };
    throw error;
  }
}

/** What a list shows of a formula: the bench's own numbers, fine. Errors as in `readings`. */
export function glance(input: AnalyseInput, shelf: Shelf = builtInShelf): Glance {
  const { given, open, final, recipe, lift, body, fill, bake, findings } = analyse(input, shelf, { frames: 0 }, "findings");
  return { given, open, final, ...(recipe ? { recipe } : {}), lift, body, fill, bake, findings };
}

/** The bake of a formula as it goes on in oven, tin and rack. Errors as in `readings`. */
export const simulate = (input: AnalyseInput, shelf: Shelf = builtInShelf, options: SimulateOptions = {}): Simulation =>
  baked(input, shelf, options, "plain").simulation;
