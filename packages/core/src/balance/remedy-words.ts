import type { Item } from "../formula/resolve";
import { gramsText, householdText } from "../measure/amounts";
import type { Measures } from "../measure/units";
import { builtInShelf } from "../pantry/catalogue";
import { ingredientOf } from "../pantry/shelf";
import type { Ingredient } from "../pantry/ingredient-schema";

export const sodaSpoon = (grams: number, measures: Measures): string => {
  const spoons = householdText(grams, ingredientOf(builtInShelf, "soda"), measures);
  return spoons === "" ? gramsText(grams) : `${gramsText(grams)} (${spoons})`;
};

export const powderOf = (items: readonly Item[]): Ingredient =>
  items.find((item) => item.ingredient.family === "leavener" && item.ingredient.leavening?.powder)?.ingredient ??
  ingredientOf(builtInShelf, "powder-aluminium-free");

/** A name as one says it: “baking powder”, not the sort behind the comma. */
export const shortName = ({ name }: Ingredient): string => (name.split(",")[0] ?? name).toLowerCase();

export const massIn = (items: readonly Item[], id: string): number => items.find((item) => item.ingredient.id === id)?.massG ?? 0;

export const spoonsOf = (grams: number, ingredient: Ingredient, measures: Measures): string => {
  const spoons = householdText(grams, ingredient, measures);
  return spoons === "" ? gramsText(grams) : `${gramsText(grams)} (${spoons})`;
};

/** Rounded down to what a scale shows, so that a limit is kept. */
export const floored = (grams: number): number => Math.floor(grams * 10 + 1e-6) / 10;
