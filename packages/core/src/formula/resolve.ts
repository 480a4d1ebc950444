import { CoreError } from "../errors";
import { exactly, sum } from "../measure/range";
import type { Range } from "../measure/range-schema";
import { type Shelf, ingredientOf } from "../pantry/shelf";
import { crumbPerGram } from "../pantry/crumb";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";
import type { WeighedLine } from "./components";
import type { Batch } from "./resolve-schema";

export type { WeighedLine } from "./components";
export interface Item {
  ingredient: Ingredient;
  /** The most likely mass, g. */
  massG: number;
  grams: Range;
  locked: boolean;
  /** Of that what has soaked and taken its water up, g. */
  soakedG?: number | undefined;
}
/** Looks every line up and joins lines of the same ingredient. Throws `unknown-ingredient`, `bad-amount`. */
export function resolve(lines: readonly WeighedLine[], shelf: Shelf): Item[] {
  const items = new Map<string, Item>();
  lines.forEach((line, index) => {
    const ingredient = ingredientOf(shelf, line.ingredientId, `lines.${index}.ingredientId`);
    const grams = typeof line.grams === "number" ? exactly(line.grams) : line.grams;
    if (!Number.isFinite(grams.mid) || grams.mid < 0) {
      throw new CoreError(
        "bad-amount",
        `${ingredient.name} has ${grams.mid} g; an amount of 0 g or more would be right.`,
        `lines.${index}.grams`,
      );
    }
    const before = items.get(ingredient.id);
    const all = before ? sum([before.grams, grams]) : grams;
    items.set(ingredient.id, {
      ingredient,
      grams: all,
      massG: all.mid,
      locked: (before?.locked ?? false) || line.locked === true,
      ...(line.soaked || before?.soakedG ? { soakedG: (before?.soakedG ?? 0) + (line.soaked ? grams.mid : 0) } : {}),
    });
  });
  return [...items.values()];
}
/** Grams of one component of the whole formula. */
export function totalOf(items: readonly Item[], component: keyof Ingredient["per100g"]): number {
  return items.reduce((total, item) => total + (item.massG * (item.ingredient.per100g[component] ?? 0)) / 100, 0);
}
/** Less flour than this, g, is a trace that no percentage can stand on. */
const TRACE_G = 0.01;
/** Flour and starch of a formula, g; 0 where there is only a trace. */
export function flourOf(items: readonly Item[]): number {
  const grams = items.reduce((g, item) => g + (isFlour(item.ingredient) ? item.massG : 0), 0);
  return grams < TRACE_G ? 0 : grams;
}
/** What builds the crumb of a formula, g: the base of every judgement in per cent; 0 where there is only a trace. */
export function crumbOf(items: readonly Item[]): number {
  const grams = items.reduce((g, item) => g + item.massG * crumbPerGram(item.ingredient), 0);
  return grams < TRACE_G ? 0 : grams;
}
export const massOf = (items: readonly Item[]): number => items.reduce((g, item) => g + item.massG, 0);
/** What the whole batch is made of, g and mg, with baker's percentages on flour and starch (0 where there is none). */
export function batchOf(items: readonly Item[]): Batch {
  const flourG = flourOf(items);
  return {
    massG: massOf(items),
    flourG,
    baseG: crumbOf(items),
    waterG: totalOf(items, "water"),
    fatG: totalOf(items, "fat"),
    sugarG: totalOf(items, "sugars"),
    proteinG: totalOf(items, "protein"),
    sodiumMg: items.reduce((mg, item) => mg + (item.massG * (item.ingredient.sodiumMg ?? 0)) / 100, 0),
    massRangeG: sum(items.map((item) => item.grams)),
    bakersPercent: items.map((item) => ({
      ingredientId: item.ingredient.id,
      percent: flourG > 0 ? (100 * item.massG) / flourG : 0,
    })),
  };
}
