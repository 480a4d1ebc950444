import { type Consistency, consistencyOf, stiffnessOf } from "../body/consistency";
import { sortLines } from "../formula/components";
import type { Opened } from "../formula/open";
import { flourOf, type Item, massOf, resolve } from "../formula/resolve";
import { measurable } from "../measure/amounts";
import { builtInShelf } from "../pantry/catalogue";
import { ingredientOf, type Shelf } from "../pantry/shelf";
import { isFlour } from "../pantry/ingredient";
import type { Family } from "../pantry/ingredient-words";
import type { Ingredient } from "../pantry/ingredient-schema";
import { profileOf } from "./bands";

/** An amount that may answer a line without one, g, and what it is or does. */
export interface UsualAmount {
  grams: number;
  why: { usual: number } | { body: Consistency };
}

/**
 * What bakers usually take where the kind's typical formula has nothing of the family, % of flour and starch; kitchen knowledge,
 * confidence C.
 */
const usualPercent: Partial<Record<Family, number>> = {
  spice: 1,
  flavour: 1.5,
  seed: 8,
  nut: 20,
  fruit: 40,
  vegetable: 40,
  "dried-fruit": 25,
  puree: 60,
  chocolate: 25,
  cocoa: 10,
  cheese: 25,
  syrup: 20,
};

const isLiquid = ({ behaviour, per100g, family }: Ingredient): boolean =>
  behaviour === "liquid" && per100g.water > 70 && family !== "egg" && family !== "vinegar";

/** Families that stand in for one another in a typical formula. */
const like: Partial<Record<Family, Family[]>> = { sugar: ["sugar"], syrup: ["sugar"], "egg-substitute": ["egg"], acid: [] };

/**
 * Amounts to offer for a line of the batter that has none: what is usual for the kind on this flour, and for a liquid what gives the body that
 * the kind wants, computed. Empty where nothing is known. Throws what `resolve` throws.
 */
export function usualAmounts(ingredientId: string, input: Opened, shelf: Shelf = builtInShelf): UsualAmount[] {
  const ingredient = ingredientOf(shelf, ingredientId);
  const items = resolve(sortLines(input.lines, input.components, shelf).batter, shelf);
  const kind = input.kind ?? "loaf";
  if (isLiquid(ingredient)) return forBody(ingredient, items, input);
  const flour = flourOf(items);
  if (flour <= 0 || isFlour(ingredient)) return [];
  const families = like[ingredient.family] ?? [ingredient.family];
  const typical = profileOf(kind).typical.filter((line) => {
    const other = shelf.get(line.ingredientId);
    return line.ingredientId === ingredientId || (other !== undefined && families.includes(other.family) && !other.leavening);
  });
  const own = typical.find((line) => line.ingredientId === ingredientId);
  const percent =
    own?.percent ?? (typical.length > 0 ? Math.max(...typical.map((line) => line.percent)) : usualPercent[ingredient.family]);
  if (percent === undefined) return [];
  // What is there of the family already is not wanted twice.
  const there = items.reduce((g, item) => g + (families.includes(item.ingredient.family) ? item.massG : 0), 0);
  const grams = measurable((percent / 100) * flour - (typical.length > 0 ? there : 0));
  return grams > 0 ? [{ grams, why: { usual: percent } }] : [];
}

/** How much of a liquid brings the batter to each word that its kind may have. */
function forBody(ingredient: Ingredient, items: readonly Item[], input: Opened): UsualAmount[] {
  const mass = massOf(items);
  if (mass <= 0) return [];
  const minutes = Math.max(10, input.process?.restMinutes ?? 0);
  const word = (grams: number): Consistency =>
    consistencyOf(
      stiffnessOf(
        [...items, { ingredient, massG: grams, grams: { low: grams, mid: grams, high: grams }, locked: false }],
        input.process?.method ?? profileOf(input.kind ?? "loaf").method,
        minutes,
      ),
    );
  const step = mass / 200;
  const reached = new Map<Consistency, { from: number; to: number }>();
  for (let grams = step; grams <= 2 * mass; grams += step) {
    const at = word(grams);
    const before = reached.get(at);
    reached.set(at, { from: before?.from ?? grams, to: grams });
  }
  return profileOf(input.kind ?? "loaf").consistencies.flatMap((body): UsualAmount[] => {
    const found = reached.get(body);
    if (!found) return [];
    const grams = measurable((found.from + found.to) / 2);
    return grams > 0 && word(grams) === body ? [{ grams, why: { body } }] : [];
  });
}
