import { z } from "zod";

/**
 * A food that a recipe names beside its list: the butter for the tin in a step, the milk that oats are soaked in, what may stand in place of
 * something. It weighs nothing, and is told wherever what is eaten is told.
 */
export const namedFoodSchema = z.object({
  /** As the recipe writes it. */
  name: z.string().max(80),
  /** What it is, where the pantry knows it. */
  ingredientId: z.string().max(80).optional(),
  /** It may stand in place of something, and need not be there. */
  instead: z.literal(true).optional(),
  /** The words around it. */
  words: z.string().max(200),
});
export type NamedBeside = z.infer<typeof namedFoodSchema>;
