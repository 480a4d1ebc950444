import { z } from "zod";
import { formulaSchema } from "../formula/formula";
import { slipSchema } from "../live/events-schema";
import { measuredSchema } from "./measured-schema";
import { scoresSchema } from "./scales-schema";
import { seenSchema } from "./symptoms-schema";

/** What the bake was expected to be when it was judged: minutes, °C, %, mm, for laying beside what came out. */
export const predictedSchema = z.object({
  minutes: z.number(),
  coreC: z.number(),
  lossPercent: z.number(),
  /** Five heights across, edge to edge, and the width, mm. */
  heightsMm: z.array(z.number()).length(5),
  widthMm: z.number(),
  ph: z.number(),
});
export type Predicted = z.infer<typeof predictedSchema>;

export const trialSchema = z.object({
  title: z.string().trim().min(1, { error: "A trial needs a name, such as “Pear loaf, less soda”." }).max(160),
  formulaId: z.string().max(80).optional(),
  /** The version of the formula that was baked. */
  formulaVersion: z.number().int().optional(),
  bakeId: z.string().max(80).optional(),
  /** The formula as it was baked. */
  formula: formulaSchema,
  at: z.iso.datetime({ offset: true, error: "A time with its offset, such as 2026-11-28T05:30:00Z, would be right." }),
  ovenId: z.string().max(80).optional(),
  measured: measuredSchema,
  seen: z.array(seenSchema).max(60),
  scores: scoresSchema,
  slips: z.array(slipSchema).max(50).optional(),
  /** Sign by which it was taken out. */
  doneBy: z.string().max(80).optional(),
  notes: z.string().max(8000),
  /** Hashes of photographs. */
  photos: z.array(z.string().regex(/^[0-9a-f]{64}$/, { error: "A photograph is named by its hash." })).max(12),
  tags: z.array(z.string().trim().min(1).max(40)).max(12),
  powderAgeMonths: z.number().min(0).max(240).optional(),
  cups: z.array(z.object({ ingredientId: z.string().max(80), meantG: z.number().positive().max(100_000), weighedG: z.number().positive().max(100_000) })).max(20).optional(),
  predicted: predictedSchema.optional(),
}); // prettier-ignore
export type Trial = z.infer<typeof trialSchema>;
