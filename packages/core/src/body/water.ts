import type { Item } from "../formula/resolve";
import type { Ingredient } from "../pantry/ingredient-schema";
import { isInclusion, releasedAtMixing } from "../pantry/pieces";

/** Time scale of the slow drinkers (bran, pulse protein, coconut fibre, whole oats), minutes. */
const SLOW_MINUTES = 60;
/** Time at which the fast capacity of the pantry's table is measured, minutes. */
const FAST_MINUTES = 10;

/** g of water an ingredient brings to the batter at mixing, per gram. */
export function waterGiven(ingredient: Ingredient): number {
  return (ingredient.per100g.water / 100) * releasedAtMixing(ingredient);
}

/** g of water that a gram of an ingredient drinks after some minutes; purées count their dry solids. */
export function capacityOf(ingredient: Ingredient, minutes: number): number {
  if (isInclusion(ingredient)) return 0;
  if (ingredient.holdsWater !== undefined) {
    return ((100 - ingredient.per100g.water - ingredient.per100g.fat) / 100) * ingredient.holdsWater;
  }
  if (!ingredient.absorbs) return 0;
  const { fast, slow } = ingredient.absorbs;
  const late = minutes <= FAST_MINUTES ? 0 : 1 - Math.exp(-(minutes - FAST_MINUTES) / SLOW_MINUTES);
  return fast + (slow - fast) * late;
}

/** g of water that a gram of dried fruit takes up in a soaker (fruit swells to about one and a half times its mass); confidence C. */
const FRUIT_TAKES_UP = 0.5;
/** Dried: less water than this, g per 100 g. */
const DRIED = 35;

/** g of water that a gram of what has soaked has taken up: all that it ever drinks. */
export function takenUpBy(ingredient: Ingredient): number {
  if (isInclusion(ingredient)) return ingredient.per100g.water < DRIED && ingredient.per100g.sugars > 30 ? FRUIT_TAKES_UP : 0;
  return capacityOf(ingredient, Infinity);
}

/** g of water that all items drink after some minutes; what has soaked has drunk before. */
export const drunkBy = (items: readonly Item[], minutes: number): number =>
  items.reduce((all, { ingredient, massG, soakedG = 0 }) => {
    const soaked = soakedG > 0 ? soakedG * takenUpBy(ingredient) : 0;
    return all + (massG - soakedG) * capacityOf(ingredient, minutes) + soaked;
  }, 0);

export const freeWaterOf = (items: readonly Item[]): number =>
  items.reduce((all, item) => all + item.massG * waterGiven(item.ingredient), 0);

/** Sugar that dissolves in the batter, g: pieces keep most of theirs. */
export const batterSugar = (items: readonly Item[]): number =>
  items.reduce((all, item) => all + (item.massG * releasedAtMixing(item.ingredient) * item.ingredient.per100g.sugars) / 100, 0);
