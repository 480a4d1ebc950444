import type { Ingredient } from "../pantry/ingredient-schema";
import { isFlour } from "../pantry/ingredient";
import { isInclusion } from "../pantry/pieces";

/** How far an amount may be off before it counts as a slip: a share of it, and no less than so many grams. Kitchen rules, confidence C. */
const SHARES: { of: (i: Ingredient) => boolean; share: number; leastG: number }[] = [
  { of: ({ family }) => family === "leavener" || family === "acid", share: 0.04, leastG: 0.2 },
  { of: ({ family }) => family === "binder", share: 0.05, leastG: 0.2 },
  { of: ({ family }) => family === "salt", share: 0.08, leastG: 0.3 },
  { of: ({ family }) => family === "spice", share: 0.25, leastG: 0.5 },
  { of: isInclusion, share: 0.1, leastG: 5 },
  { of: ({ family }) => family === "egg", share: 0.06, leastG: 3 },
  { of: isFlour, share: 0.015, leastG: 2 },
];
const OTHER = { share: 0.02, leastG: 2 } as const;

/** Grams that an amount may be off either way: leaveners tight, pears loose. */
export function toleranceG(ingredient: Ingredient, grams: number): number {
  const { share, leastG } = SHARES.find((entry) => entry.of(ingredient)) ?? OTHER;
  return Math.max(leastG, share * grams);
}
