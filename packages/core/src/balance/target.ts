import { type Consistency, consistencyOf, stiffnessOf } from "../body/consistency";
import { mainLiquid } from "../body/next-class";
import { sortLines } from "../formula/components";
import type { Opened } from "../formula/open";
import { massOf, resolve } from "../formula/resolve";
import { measurable } from "../measure/amounts";
import { builtInShelf, ingredientOf, type Shelf } from "../pantry/catalogue";
import { profileOf } from "./bands";
import { withMass } from "./ways";

/** How much of the main liquid gives a batter the body that one wants, g; `range` is from where to where it has it. */
export interface Target {
  ingredientId: string;
  fromG: number;
  toG: number;
  range: { low: number; high: number };
}

const STEPS = 240;

/**
 * “Water until it holds a ball”: the main liquid (water where there is none) at which the batter reads as a word, the middle of all amounts that
 * do, found by trying them. Null where no amount does, or where the liquid is locked. Throws what `resolve` throws.
 */
export function targetOf(word: Consistency, input: Opened, shelf: Shelf = builtInShelf): Target | null {
  const items = resolve(sortLines(input.lines, input.components, shelf).batter, shelf);
  const liquid = mainLiquid(items);
  if (liquid?.locked) return null;
  const ingredient = liquid?.ingredient ?? ingredientOf(shelf, "water");
  const method = input.process?.method ?? profileOf(input.kind ?? "loaf").method;
  const minutes = Math.max(10, input.process?.restMinutes ?? 0);
  const rest = massOf(items) - (liquid?.massG ?? 0);
  const has = (grams: number): boolean => consistencyOf(stiffnessOf(withMass(items, ingredient, grams), method, minutes)) === word;
  let low: number | null = null;
  let high = 0;
  for (let step = 0; step <= STEPS; step++) {
    const grams = (2 * rest * step) / STEPS;
    if (!has(grams)) continue;
    low ??= grams;
    high = grams;
  }
  if (low === null) return null;
  const toG = measurable((low + high) / 2);
  return has(toG) ? { ingredientId: ingredient.id, fromG: liquid?.massG ?? 0, toG, range: { low, high } } : null;
}
