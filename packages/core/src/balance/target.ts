import { type Consistency, consistencyOf, stiffnessOf } from "../body/consistency";
import { mainLiquid } from "../body/next-class";
import { sortLines } from "../formula/components";
import type { Opened } from "../formula/open";
import { massOf, resolve } from "../formula/resolve";
import { measurable } from "../measure/amounts";
import type { Range } from "../measure/range-schema";
import { drunkBy } from "../body/water";
import { builtInShelf } from "../pantry/catalogue";
import { ingredientOf, type Shelf } from "../pantry/shelf";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";
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

/** A flour as it is in this kitchen: the ingredient with the thirst that the bowl shows, and how far that can be. */
export interface LearntFlour {
  ingredient: Ingredient;
  /** The flour it is learnt from. */
  from: string;
  /** How many times as much it drinks as the table has; `range` over all that gives the word. */
  factor: number;
  range: { low: number; high: number };
}

/** A flour of another mill drinks by so much less and more; beyond it something else is different than it is written. */
const THIRST: Range = { low: 0.6, mid: 1, high: 1.6 };
const THIRST_STEP = 0.02;

/**
 * “Mine is like this”: the flour that drinks most, with the thirst at which this very batter reads as a word. The factor is the nearest to 1 of all
 * that do, a quarter of the way into them, so that the flour moves no further than the bowl shows. Null where the word is there already, where no
 * flour drinks, or where no mill's flour would do it. Throws what `resolve` throws.
 */
export function learntFlour(word: Consistency, input: Opened, shelf: Shelf = builtInShelf): LearntFlour | null {
  const items = resolve(sortLines(input.lines, input.components, shelf).batter, shelf);
  const method = input.process?.method ?? profileOf(input.kind ?? "loaf").method;
  const minutes = Math.max(10, input.process?.restMinutes ?? 0);
  const drinker = items
    .filter(({ ingredient }) => isFlour(ingredient) && ingredient.absorbs)
    .sort((a, b) => drunkBy([b], minutes) - drunkBy([a], minutes))[0]?.ingredient;
  if (!drinker?.absorbs) return null;
  const { fast, slow } = drinker.absorbs;
  const thirsty = (factor: number): Ingredient => ({ ...drinker, absorbs: { fast: fast * factor, slow: slow * factor } });
  const has = (factor: number): boolean => {
    const ingredient = thirsty(factor);
    return (
      consistencyOf(
        stiffnessOf(
          items.map((item) => (item.ingredient === drinker ? { ...item, ingredient } : item)),
          method,
          minutes,
        ),
      ) === word
    );
  };
  if (has(1)) return null;
  const fits: number[] = [];
  for (let factor = THIRST.low; factor <= THIRST.high + 1e-9; factor += THIRST_STEP) if (has(factor)) fits.push(factor);
  const low = fits[0];
  const high = fits.at(-1);
  if (low === undefined || high === undefined) return null;
  const factor = Math.round(100 * (low > 1 ? low + (high - low) / 4 : high - (high - low) / 4)) / 100;
  return { ingredient: mine(thirsty(factor), shelf), from: drinker.id, factor, range: { low, high } };
}

const OWN = "my-";

/** The baker's own beside the one of the shelf; learnt anew it takes the same place. */
function mine(flour: Ingredient, shelf: Shelf): Ingredient {
  const own = flour.id.startsWith(OWN);
  const base = own ? flour : (shelf.get(flour.id) ?? flour);
  return {
    ...flour,
    id: own ? flour.id : `${OWN}${flour.id}`.slice(0, 60),
    name: own ? base.name : `${base.name}, mine`,
    aliases: own ? base.aliases : [`my ${base.name.toLowerCase()}`],
    source: "estimate",
    confidence: "B",
  };
}
