import type { Process } from "../formula/process-schema";
import type { Item } from "../formula/resolve";
import { measurable } from "../measure/amounts";
import type { Ingredient } from "../pantry/ingredient-schema";
import { consistencies, type Consistency, consistencyOf, stiffnessOf } from "./consistency";

/** The liquid of a batter that a baker would add or hold back: the largest that is mostly water, egg aside. */
export const mainLiquid = (items: readonly Item[]): Item | undefined =>
  items
    .filter(({ ingredient }) => ingredient.behaviour === "liquid" && ingredient.per100g.water > 70 && ingredient.family !== "egg")
    .sort((a, b) => b.massG - a.massG)[0];

const withLiquid = (items: readonly Item[], liquid: Item | undefined, water: Ingredient, grams: number): Item[] => [
  ...items.filter((item) => item !== liquid),
  { ingredient: liquid?.ingredient ?? water, massG: grams, grams: { low: grams, mid: grams, high: grams }, locked: false },
];

/** How far more liquid is tried, as a share of the batter, and in how many steps. */
const REACH = 1.2;
const STEPS = 80;

/**
 * How many grams of the main liquid (water where there is none) bring the batter to a word that `wanted` accepts, thinner (more) or stiffer
 * (less); null when none does. Rounded to what a kitchen measures, to the side that is safe.
 */
export function liquidFor(
  items: readonly Item[],
  water: Ingredient,
  process: Process,
  way: "more" | "less",
  wanted: (word: Consistency) => boolean,
): { ingredient: Ingredient; fromG: number; toG: number } | null {
  const liquid = mainLiquid(items);
  const now = liquid?.massG ?? 0;
  const mass = items.reduce((g, item) => g + item.massG, 0);
  const minutes = Math.max(10, process.restMinutes ?? 0);
  const fits = (grams: number): boolean =>
    wanted(consistencyOf(stiffnessOf(withLiquid(items, liquid, water, grams), process.method, minutes)));
  let bad = now;
  let good = way === "more" ? now + REACH * mass : 0;
  if (!fits(good)) {
    // The far end may lie beyond the word: walk towards it.
    const step = (good - now) / STEPS;
    let at = now;
    for (let i = 0; i < STEPS && !fits(at); i++) at += step;
    if (!fits(at)) return null;
    good = at;
    bad = at - step;
  }
  for (let i = 0; i < 30; i++) {
    const middle = (bad + good) / 2;
    if (fits(middle)) good = middle;
    else bad = middle;
  }
  const step = good >= 100 ? 5 : good >= 20 ? 1 : 0.1;
  const safe = (way === "more" ? Math.ceil(good / step - 1e-9) : Math.floor(good / step + 1e-9)) * step;
  return { ingredient: liquid?.ingredient ?? water, fromG: now, toG: fits(safe) ? safe : measurable(good) };
}

export interface NextClass {
  consistency: Consistency;
  ingredientId: string;
  fromG: number;
  toG: number;
}

/** The neighbouring words of a batter and the main liquid each of them takes. */
export function nextClasses(items: readonly Item[], water: Ingredient, process: Process, now: Consistency): NextClass[] {
  const at = consistencies.indexOf(now);
  return [at - 1, at + 1].flatMap((index): NextClass[] => {
    const word = consistencies[index];
    if (!word) return [];
    const found = liquidFor(items, water, process, index < at ? "more" : "less", (c) => c === word);
    return found && Math.abs(found.toG - found.fromG) > 0.05
      ? [{ consistency: word, ingredientId: found.ingredient.id, fromG: found.fromG, toG: found.toG }]
      : [];
  });
}
