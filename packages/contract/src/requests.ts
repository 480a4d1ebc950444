import { kindSchema, measuresSchema, ovenSchema, processSchema, rangeSchema, vesselSchema } from "@uprise/core";
import { z } from "zod";

export const readRequestSchema = z.object({
  text: z.string().max(100_000, { error: "A text of up to 100 000 characters would be right." }),
  measures: measuresSchema.optional(),
  title: z.string().max(160).optional(),
});
export type ReadRequest = z.infer<typeof readRequestSchema>;

const grams = z
  .number({ error: "An amount is a number of grams, such as 250." })
  .min(0, { error: "An amount of 0 g or more would be right." })
  .max(1_000_000, { error: "An amount of up to 1 000 000 g would be right." });

export const requestLineSchema = z.object({
  ingredientId: z.string().min(1),
  grams: z.union([grams, rangeSchema]),
  locked: z.boolean().optional(),
});

/** What `analyse`, `simulate`, `balance` and `swap` have in common. */
export const formulaRequestSchema = z
  .object({
    text: z.string().max(100_000).optional(),
    lines: z.array(requestLineSchema).max(200).optional(),
    measures: measuresSchema.optional(),
    kind: kindSchema.optional(),
    vessel: vesselSchema.optional(),
    oven: ovenSchema.optional(),
    process: processSchema.optional(),
    batchG: z.number().positive().max(1_000_000).optional(),
  })
  .refine((body) => body.text !== undefined || (body.lines?.length ?? 0) > 0 || body.batchG !== undefined, {
    error: "Send text, lines, or a kind with batchG.",
    path: ["lines"],
  });
export type FormulaRequest = z.infer<typeof formulaRequestSchema>;
