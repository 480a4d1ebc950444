import { z } from "zod";
import { fillingSchema } from "../measure/filling";
import { rangeSchema } from "../measure/range";
import { measuresSchema, unitSchema } from "../measure/units";
import { ovenSchema, vesselSchema } from "../pantry/vessel";
import { kindSchema } from "./kinds";
import { processSchema } from "./process";

/** One line of a designed formula. `grams` counts; `unit` and `filling` remember how the baker measures it. */
export const formulaLineSchema = z.object({
  id: z.string().min(1).max(64),
  ingredientId: z.string().min(1).max(80),
  grams: rangeSchema.refine((r) => r.low >= 0 && r.low <= r.mid && r.mid <= r.high && r.high <= 1_000_000, {
    error: "Grams must be low ≤ mid ≤ high, from 0 to 1 000 000.",
  }),
  unit: unitSchema.optional(),
  filling: fillingSchema.optional(),
  /** What this line is called here, where it is not the pantry's name. */
  name: z.string().max(120).optional(),
  note: z.string().max(500).optional(),
  locked: z.boolean().optional(),
});
export type FormulaLine = z.infer<typeof formulaLineSchema>;

/** A part of a base batter: its share, what is added to it, what it becomes and in which pan. */
export const partSchema = z.object({
  id: z.string().min(1).max(64),
  name: z.string().trim().min(1, { error: "A part needs a name, such as “with raisins”." }).max(80),
  share: z
    .number()
    .min(0, { error: "A share is from 0 to 1." })
    .max(1, { error: "A share is from 0 to 1; 0.5 is half of the batter." }),
  additions: z.array(formulaLineSchema).max(50),
  kind: kindSchema,
  vessel: vesselSchema,
  oven: ovenSchema,
});
export type Part = z.infer<typeof partSchema>;

/** What is designed: the stored body of a formula. `shape` counts the changes of this shape, for migrations. */
export const formulaSchema = z.object({
  shape: z.literal(1),
  title: z.string().trim().min(1, { error: "A formula needs a name, such as “Pear loaf”." }).max(160),
  kind: kindSchema,
  measures: measuresSchema,
  lines: z.array(formulaLineSchema).max(200),
  vessel: vesselSchema,
  oven: ovenSchema,
  process: processSchema,
  notes: z.string().max(20_000),
  /** Where one base batter becomes several things. */
  parts: z.array(partSchema).max(12).optional(),
});
export type Formula = z.infer<typeof formulaSchema>;
