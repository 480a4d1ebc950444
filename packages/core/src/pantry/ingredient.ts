import type { Ingredient } from "./ingredient-schema";

const flourFamilies = new Set<string>(["flour", "pulse-flour", "nut-flour", "starch", "blend", "wheat"]);
/** Whether an ingredient is part of the flour and starch that baker's percentages stand on. */
export const isFlour = (ingredient: Ingredient): boolean => flourFamilies.has(ingredient.family);
