import { isFlour } from "./ingredient";
import type { Ingredient } from "./ingredient-schema";
import { isInclusion } from "./pieces";

/** Coconut flour does the work of so many times its mass of another flour: the trade's rule is a third to a quarter of the mass. */
const COCONUT_COUNTS = 3;

/** Nuts and seeds ground to a paste: they set a crumb like their meal. */
export const isNutButter = ({ behaviour, per100g }: Ingredient): boolean =>
  behaviour === "paste" && per100g.fat > 30 && per100g.protein > 8;

/** Milk and whey as powder are part of the dry matter that builds. */
const isMilkPowder = ({ family, behaviour }: Ingredient): boolean =>
  (family === "dairy" || family === "plant-milk") && behaviour === "powder";

/**
 * g that build the crumb in a gram of an ingredient, the base of every percentage: flours, starches, meals, cocoa, milk powder and nut butters by
 * their mass, coconut flour three times, purées and mashed pulses by the starch, fibre and protein in them. Pieces build nothing.
 */
export function crumbPerGram(ingredient: Ingredient): number {
  const { id, family, per100g } = ingredient;
  if (id === "coconut-flour") return COCONUT_COUNTS;
  if (isFlour(ingredient)) return 1;
  if (isInclusion(ingredient)) return 0;
  if (id === "cocoa-nibs") return 0;
  if (family === "cocoa" || isMilkPowder(ingredient) || isNutButter(ingredient)) return 1;
  // A purée is counted where it holds its water; what is mostly sugar and water does not carry.
  if (ingredient.holdsWater !== undefined) return (per100g.starch + per100g.fibre + per100g.protein) / 100;
  return 0;
}

const ownFat = new Set<Ingredient["family"]>(["nut-flour", "nut", "seed", "cocoa", "chocolate", "flour", "pulse-flour", "starch"]);

/** g of added fat in a gram: what a nut, a seed, cocoa or a flour holds in itself is bound in its meal and counts apart. */
export const addedFatPerGram = (ingredient: Ingredient): number =>
  ownFat.has(ingredient.family) || isNutButter(ingredient) ? 0 : ingredient.per100g.fat / 100;

const milky = new Set<Ingredient["family"]>(["dairy", "cultured", "cheese"]);

/** g of sugar in a gram that counts as added: the sugar of milk does not. Condensed milk is sweetened. */
export const addedSugarPerGram = (ingredient: Ingredient): number =>
  milky.has(ingredient.family) && ingredient.per100g.sugars < 20
    ? 0
    : isMilkPowder(ingredient)
      ? 0
      : ingredient.per100g.sugars / 100;
