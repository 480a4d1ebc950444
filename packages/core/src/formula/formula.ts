import { MOST_PAGES } from "./most-pages";
import { z } from "zod";
import { fillingSchema } from "../measure/filling-schema";
import { rangeSchema } from "../measure/range-schema";
import { stageSchema } from "../measure/reading-schema";
import { languages } from "../measure/languages/names";
import { figuresAre } from "../measure/reading";
import { measuresSchema, unitSchema } from "../measure/units-schema";
import { ovenModes } from "../pantry/vessel-words";
import { ovenSchema, vesselSchema } from "../pantry/vessel-schema";
import { formulaComponentSchema } from "./components-schema";
import { kindSchema } from "./kinds-schema";
import { FORMULA_SHAPE } from "./shapes";
import { namedFoodSchema } from "./named-schema";
import { processSchema } from "./process-schema";

/**
 * One line of a designed formula. `grams` counts; `unit` and `filling` remember how the baker measures it. A line without grams, or whose
 * ingredient is not known, is open: it keeps its place and weighs nothing until it is answered.
 */
export const formulaLineSchema = z.object({
  id: z.string().min(1).max(64),
  ingredientId: z.string().min(1).max(80).optional(),
  grams: rangeSchema
    .refine((r) => r.low >= 0 && r.low <= r.mid && r.mid <= r.high && r.high <= 1_000_000, {
      error: "Grams must be low ≤ mid ≤ high, from 0 to 1 000 000.",
    })
    .optional(),
  unit: unitSchema.optional(),
  filling: fillingSchema.optional(),
  /** What this line is called here, where it is not the pantry's name. */
  name: z.string().max(120, { error: "A name of up to 120 signs." }).optional(),
  note: z.string().max(500, { error: "A note of up to 500 signs." }).optional(),
  locked: z.boolean().optional(),
  /** The component it belongs to; absent, the batter. */
  component: z.string().min(1).max(64).optional(),
  /** It may be left out, and is until it is taken. */
  off: z.boolean().optional(),
  /** What was asked of it and not answered: it stands as the first answer would have it. */
  unsure: z.string().max(300).optional(),
  /** The words of the recipe that it came from. */
  source: z.string().max(500).optional(),
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
  /** Ids of the components that this part gets, in proportion to its share among those that get them; absent, all. */
  components: z.array(z.string()).max(24).optional(),
  kind: kindSchema,
  vessel: vesselSchema,
  oven: ovenSchema,
});
export type Part = z.infer<typeof partSchema>;
const minutesSchema = z.object({ low: z.number().min(0), high: z.number().max(10_000) });
/** What the recipe itself says of its bake, kept beside what is computed; masses in g, °C, minutes. */
export const saidSchema = z.object({
  minutes: minutesSchema.optional(),
  celsius: z.number().optional(),
  mode: z.enum(ovenModes).optional(),
  coreC: z.number().optional(),
  pieces: z.number().optional(),
  pieceG: z.number().optional(),
  stages: z.array(stageSchema).max(12).optional(),
  /** The pan as it was taken from the text, and whether the text names one. */
  vessel: vesselSchema,
  panNamed: z.boolean(),
  /** The batter as it was weighed then. */
  batterG: z.number().min(0),
});
export type Said = z.infer<typeof saidSchema>;
/** What the baker said of a pasted line by hand, by the line's own text. */
const mendingSchema = z.record(
  z.string().max(4100),
  z.object({
    ingredientId: z.string().max(80).optional(),
    grams: z.number().min(0).max(1_000_000).optional(),
    choice: z.record(z.string(), z.number()).optional(),
    taken: z.boolean().optional(),
    left: z.boolean().optional(),
  }),
);
/** The text a formula came from, whose cups it was read with, and what was answered by hand. */
export const pastedSchema = z.object({
  text: z.string().max(100_000),
  measures: measuresSchema,
  mending: mendingSchema.optional(),
  /** What it was said to be written in; else it is found. */
  language: z.enum(languages).optional(),
  /** Which of several batches of its table it is. */
  batch: z.number().int().min(0).max(11).optional(),
  /** What its figures without a unit are. */
  figures: z.enum(figuresAre).optional(),
  /** Photographs of the pages that it was read from, by the hash under which they are kept. */
  pages: z
    .array(z.string().regex(/^[0-9a-f]{64}$/))
    .max(MOST_PAGES)
    .optional(),
});
export type Pasted = z.infer<typeof pastedSchema>;
/** What is designed: the stored body of a formula. `shape` counts the changes of this shape, for migrations. */
export const formulaSchema = z.object({
  shape: z.literal(FORMULA_SHAPE),
  title: z.string().trim().min(1, { error: "A formula needs a name, such as “Pear loaf”." }).max(160),
  kind: kindSchema,
  measures: measuresSchema,
  /** What it has beside the batter, in the order of the sheet. */
  components: z.array(formulaComponentSchema).max(24).optional(),
  lines: z.array(formulaLineSchema).max(200),
  vessel: vesselSchema,
  oven: ovenSchema,
  process: processSchema,
  notes: z.string().max(20_000),
  /** Where one base batter becomes several things. */
  parts: z.array(partSchema).max(12).optional(),
  said: saidSchema.optional(),
  /** Foods that the recipe named beside its list. */
  named: z.array(namedFoodSchema).max(60).optional(),
  pasted: pastedSchema.optional(),
});
export type Formula = z.infer<typeof formulaSchema>;
