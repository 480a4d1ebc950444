import type { Kind } from "../formula/kinds";
import type { Cause } from "./causes";
import type { ClueId } from "./clues";
import table from "./data/sound.json";

/** What a clue is in bakes with which nothing was wrong: normal, by kind where it is the formula's own. */
interface Sound {
  mean: number;
  sd: number;
  kinds?: Partial<Record<Kind, { mean: number; sd: number }>>;
}

/**
 * Clues in sound bakes. Those of the formula are counted over the kitchen windows and the beginnings of all kinds (`npm run sound` makes them); what is
 * measured or remembered has the spread of its measurement (kitchen knowledge, confidence C).
 */
const sound = table as unknown as Record<ClueId, Sound>;

/** A normal distribution by places, in standard deviations, and their weights. */
const PLACES = Array.from({ length: 25 }, (_, k) => (k - 12) / 4);
const WEIGHTS = PLACES.map((z) => Math.exp(-0.5 * z * z));
const WHOLE = WEIGHTS.reduce((sum, one) => sum + one, 0);
/** How much of the table's weight a clue is given, now that it counts from what a sound bake shows. */
const SHARE = 0.7;
const means = new Map<string, number>();

const shape = ({ at, per }: Cause["clues"][number], value: number): number => Math.tanh((value - at) / per);

/** What a sound bake of a kind has of a clue. */
export const soundClue = (of: ClueId, kind: Kind): { mean: number; sd: number } => sound[of].kinds?.[kind] ?? sound[of];

/** Whether a clue is counted from formulas, not from what is measured or how a kitchen is. */
export const isOfFormula = (of: ClueId): boolean => sound[of].kinds !== undefined;

/**
 * Log of how much likelier a value is with the cause than in a sound bake of the kind: the table's curve less its mean over sound bakes, so that what
 * every sound bake shows tells nothing.
 */
export function clueWeight(clue: Cause["clues"][number], value: number, kind: Kind): number {
  const key = `${clue.of} ${clue.at} ${clue.per} ${kind}`;
  let mean = means.get(key);
  if (mean === undefined) {
    const { mean: middle, sd } = soundClue(clue.of, kind);
    mean = PLACES.reduce((sum, z, k) => sum + (WEIGHTS[k] ?? 0) * shape(clue, middle + z * sd), 0) / WHOLE;
    means.set(key, mean);
  }
  return SHARE * clue.weight * (shape(clue, value) - mean);
}
