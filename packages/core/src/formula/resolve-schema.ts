import { z } from "zod";
import { rangeSchema } from "../measure/range-schema";

export const batchSchema = z.object({
  massG: z.number(),
  /** Flour, starch, meal and nut flour: the 100 % of the baker's percentage. */
  flourG: z.number(),
  /** What builds the crumb: flour with cocoa, milk powder, nut butter and the dry matter of purées; the base of bands and judgements. */
  baseG: z.number(),
  waterG: z.number(),
  fatG: z.number(),
  sugarG: z.number(),
  proteinG: z.number(),
  sodiumMg: z.number(),
  massRangeG: rangeSchema,
  bakersPercent: z.array(z.object({ ingredientId: z.string(), percent: z.number() })),
});
export type Batch = z.infer<typeof batchSchema>;
