import { z } from "zod";
import { rangeSchema } from "../measure/range-schema";

/** What a table of nutrition says: kJ and kcal by the factors of the region, g. */
export const valuesSchema = z.object({
  kj: rangeSchema,
  kcal: rangeSchema,
  fat: rangeSchema,
  saturated: rangeSchema,
  /** Without fibre. */
  carbohydrate: rangeSchema,
  sugars: rangeSchema,
  fibre: rangeSchema,
  protein: rangeSchema,
  /** Sodium times 2.5. */
  salt: rangeSchema,
});
export type Values = z.infer<typeof valuesSchema>;
export const nutritionSchema = z.object({ per100g: valuesSchema, perPiece: valuesSchema, pieceG: rangeSchema });
export type Nutrition = z.infer<typeof nutritionSchema>;
