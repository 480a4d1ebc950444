import type { Ingredient } from "../pantry/ingredient-schema";
import { nutrients, type PrintedTable } from "../pantry/printed-table";
import type { Range } from "../measure/range-schema";
import { seeded } from "../random";

/** What is known of the parts of a blend beside their order. */
export interface BlendKnown {
  /** Of 100 g of the blend, as printed. */
  nutrition?: PrintedTable | undefined;
  /** The percentage of the blend that is printed beside an ingredient, by its place in the order. */
  percents?: readonly (number | undefined)[] | undefined;
}

export interface BlendShares {
  /** The share of each part; they add up to 1, the mid values fall. Nine in ten divisions that fit lie within low and high. */
  shares: Range[];
  /** No division in that order gives what is printed: the shares are then those of the order alone. */
  misfit: boolean;
}

/** Divisions that are tried; and so many at the least must carry the answer. */
const DRAWS = 6000;
const LEAST_DRAWS = 25;
/** How far tables of foods and labels lie apart: g of 100 g, and a share of the value. Source: label tolerances of food law, confidence B. */
const APART = { grams: 0.8, share: 0.12 };
/** A printed percentage is rounded, and may be of another moment than the mixing; percentage points. */
const ROUNDED = 1.5;

const nutrientOf = ({ per100g, sodiumMg = 0 }: Ingredient, nutrient: keyof PrintedTable): number =>
  nutrient === "salt" ? (2.5 * sodiumMg) / 1000 : (per100g[nutrient] ?? 0);

/** A division of a whole in falling order, all of them equally likely: gaps of sorted uniform numbers, sorted. */
function division(count: number, random: () => number): number[] {
  const cuts = [0, ...Array.from({ length: count - 1 }, random).sort((a, b) => a - b), 1];
  return cuts.slice(1).map((cut, k) => cut - (cuts[k] ?? 0)).sort((a, b) => b - a); // prettier-ignore
}

/** How little a division disagrees with what is printed: 0 where it agrees, in squared standard deviations. */
function disagreement(shares: readonly number[], parts: readonly Ingredient[], whole: number, { nutrition = {}, percents = [] }: BlendKnown): number {
  let sum = 0;
  for (const nutrient of nutrients) {
    const said = nutrition[nutrient];
    // Salt and sugar say nothing of flours that hold none.
    if (said === undefined || parts.every((part) => nutrientOf(part, nutrient) < 0.1)) continue;
    const made = whole * parts.reduce((all, part, k) => all + (shares[k] ?? 0) * nutrientOf(part, nutrient), 0);
    sum += ((made - said) / Math.hypot(APART.grams, APART.share * said)) ** 2;
  }
  percents.forEach((percent, k) => {
    if (percent !== undefined) sum += ((100 * whole * (shares[k] ?? 0) - percent) / ROUNDED) ** 2;
  });
  return sum;
} // prettier-ignore

function rangeOf(draws: readonly { value: number; weight: number }[]): Range {
  const sorted = [...draws].sort((a, b) => a.value - b.value);
  const all = sorted.reduce((sum, { weight }) => sum + weight, 0);
  const at = (share: number): number => {
    let passed = 0;
    for (const { value, weight } of sorted) if ((passed += weight) >= share * all) return value;
    return sorted.at(-1)?.value ?? 0;
  };
  const mid = sorted.reduce((sum, { value, weight }) => sum + value * weight, 0) / all;
  return { low: Math.min(mid, at(0.05)), mid, high: Math.max(mid, at(0.95)) };
}

/**
 * Likely shares of a blend's parts by the order of its label, its table and what percentages are printed: the mean over divisions of a whole in falling
 * order, each weighed by exp(−½ χ²) of what is printed. With the order alone they are the means of all divisions. `whole` is the share of the blend that
 * these parts are. The draws are the same for the same parts.
 */
export function blendShares(parts: readonly Ingredient[], known: BlendKnown, whole = 1): BlendShares {
  const random = seeded(parts.length * 7919);
  const drawn = Array.from({ length: DRAWS }, () => division(parts.length, random));
  const far = drawn.map((shares) => disagreement(shares, parts, whole, known));
  const least = Math.min(...far);
  const printed = [...Object.values(known.nutrition ?? {}), ...(known.percents ?? [])].filter((one) => one !== undefined).length;
  // A sum of n squares is rarely over 2n + 8; nothing in this order fits then.
  const misfit = least > 2 * printed + 8;
  let spread = 1;
  let weights = far.map(() => 1);
  if (!misfit && printed > 0)
    // Few draws that carry all would tell more than they know: what is printed is then believed a little less.
    do {
      weights = far.map((one) => Math.exp((least - one) / (2 * spread)));
      spread *= 1.5;
    } while (weights.reduce((a, b) => a + b, 0) ** 2 / weights.reduce((a, b) => a + b * b, 0) < LEAST_DRAWS);
  const shares = parts.map((_, k) => rangeOf(drawn.map((one, n) => ({ value: one[k] ?? 0, weight: weights[n] ?? 0 }))));
  return { shares, misfit };
}
