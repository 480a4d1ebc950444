import { isFlour } from "./ingredient";
import type { Ingredient } from "./ingredient-schema";
import { isInclusion } from "./pieces";

/** What an ingredient is to the hands that mix: sieved with the dry, stirred with the wet, a fat or a sugar that may go with either, pieces that are folded in. */
export type MixingRole = "dry" | "wet" | "fat" | "sugar" | "piece";

/** What is dry and sieved together. */
const DRY: ReadonlySet<Ingredient["family"]> = new Set<Ingredient["family"]>([
  "binder",
  "leavener",
  "acid",
  "salt",
  "spice",
  "cocoa",
]);

export function mixingRole(ingredient: Ingredient): MixingRole {
  if (isInclusion(ingredient)) return "piece";
  if (ingredient.family === "sugar") return "sugar";
  if (isFlour(ingredient) || DRY.has(ingredient.family) || ingredient.behaviour === "powder") return "dry";
  return ingredient.family === "fat" ? "fat" : "wet";
}
