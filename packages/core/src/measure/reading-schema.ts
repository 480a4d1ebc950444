import { z } from "zod";
import { elsewheres } from "./elsewhere-words";
import { languages } from "./languages/names";
import { fillingSchema } from "./filling-schema";
import { rangeSchema } from "./range-schema";
import { unitSchema } from "./units-schema";
import { accountedAs, lineRoles, questionKinds, componentRoles, componentPlaces } from "./reading";

/** One line of the text as read. `grams` is null where no mass can be told. */
export const lineSchema = z.object({
  source: z.string(),
  role: z.enum(lineRoles),
  ingredientId: z.string().nullable(),
  name: z.string(),
  quantity: z.number().optional(),
  unit: unitSchema.optional(),
  filling: fillingSchema.optional(),
  preparation: z.string().optional(),
  grams: rangeSchema.nullable(),
  state: z.enum(["read", "asked", "unread"]),
  optional: z.boolean().optional(),
  /** The baker left it out. */
  left: z.boolean().optional(),
  /** It was only said (“a knob”), so that its mass is an estimate. */
  spoken: z.boolean().optional(),
  /** What may be taken instead, as written. */
  alternatives: z.array(z.string()).optional(),
  /** The component it belongs to; absent, the batter. */
  component: z.string().optional(),
  /** Which of the items of its source it is, where there are several. */
  item: z.number().int().optional(),
});
export type Line = z.infer<typeof lineSchema>;
export const componentSchema = z.object({
  id: z.string(),
  name: z.string(),
  role: z.enum(componentRoles),
  /** Where the text says that it is, in a way of its own. */
  place: z.enum(componentPlaces).optional(),
});
export type Component = z.infer<typeof componentSchema>;
export const choiceSchema = z.object({
  label: z.string(),
  grams: rangeSchema.optional(),
  ingredientId: z.string().optional(),
  celsius: z.number().optional(),
});
/** Something only the baker can decide; the first choice is what the reading assumes until it is answered. */
export const questionSchema = z.object({
  id: z.string(),
  kind: z.enum(questionKinds),
  /** Index into `lines`. */
  line: z.number().int().min(0),
  message: z.string(),
  choices: z.array(choiceSchema),
});
export type Question = z.infer<typeof questionSchema>;
export const readPanSchema = z.object({
  shape: z.enum(["rectangular", "round", "muffin", "ring", "free", "griddle"]),
  lengthMm: z.number().optional(),
  widthMm: z.number().optional(),
  heightMm: z.number().optional(),
  diameterMm: z.number().optional(),
  pieces: z.number().optional(),
  material: z.enum(["dark-steel", "cast-iron", "glass", "ceramic", "silicone"]).optional(),
  lining: z.enum(["greased", "greased-base", "paper", "paper-cups", "none"]).optional(),
  preheated: z.boolean().optional(),
  touching: z.boolean().optional(),
});
const minutesSchema = z.object({ low: z.number(), high: z.number() });
export const stageSchema = z.object({
  celsius: z.number().optional(),
  mode: z.string().optional(),
  minutes: minutesSchema,
  covered: z.boolean().optional(),
  free: z.boolean().optional(),
});
export const accountSchema = z.object({
  /** From this sign of the text up to that one. */
  from: z.number().int(),
  to: z.number().int(),
  as: z.enum(accountedAs),
  ref: z.number().int().optional(),
  why: z.string().optional(),
});
export const readRestSchema = z.object({
  minutes: minutesSchema,
  /** What rests or soaks, in the text's words. */
  of: z.string().optional(),
  place: z.string().optional(),
});
export type ReadRest = z.infer<typeof readRestSchema>;
export const readProcessSchema = z.object({
  method: z.enum(["muffin", "creaming", "cut-in", "one-bowl", "blender", "whisked"]).optional(),
  rests: z.array(readRestSchema),
  soaks: z.array(readRestSchema),
  /** It is cooked by a heat that is neither an oven nor a plate. */
  elsewhere: z.enum(elsewheres).optional(),
  /** How long it stays in its tin after the oven; `minutes` null: until it is cold. */
  tin: z.object({ minutes: minutesSchema.nullable() }).optional(),
  shape: z
    .object({
      count: z.number().optional(),
      pieceG: z.number().optional(),
      thicknessMm: z.number().optional(),
      diameterMm: z.number().optional(),
      cut: z.string().optional(),
    })
    .optional(),
});
export type ReadProcess = z.infer<typeof readProcessSchema>;
export const readingSchema = z.object({
  title: z.string().optional(),
  /** The language that the text was read in; absent, English. */
  language: z.enum(languages).optional(),
  /** Where a table has an amount for each of several batches: which, and which one was taken; `open` until the baker said which. */
  batches: z.object({ names: z.array(z.string()), taken: z.number().int(), open: z.literal(true).optional() }).optional(),
  lines: z.array(lineSchema),
  /** What it seems to be, by title, pan and words: a guess, `kindIsGuess` says so. One of the kinds of bake. */
  kind: z.string().optional(),
  kindIsGuess: z.literal(true).optional(),
  components: z.array(componentSchema).optional(),
  /** `dial` says that the text speaks of °F. */
  oven: z
    .object({ celsius: z.number(), mode: z.enum(["fan", "air-fryer"]).optional(), dial: z.literal("F").optional() })
    .optional(),
  minutes: minutesSchema.optional(),
  /** Where the text bakes in stages; `minutes` is then their sum. */
  stages: z.array(stageSchema).optional(),
  /** The core at which the text says that it is done, °C. */
  coreC: z.number().optional(),
  yield: z.object({ pieces: z.number().optional(), pieceG: z.number().optional() }).optional(),
  pan: readPanSchema.optional(),
  questions: z.array(questionSchema),
  /** How the text says that it is made. */
  process: readProcessSchema.optional(),
  /** What became of every stretch of the text as sent; `ref` is an index into `lines`. What is nowhere in it is blank, or chatter without quantity, food, heat, time or pan. */
  accounted: z.array(accountSchema).optional(),
});
export type Reading = z.infer<typeof readingSchema>;
