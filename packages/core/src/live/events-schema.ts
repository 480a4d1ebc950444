import { z } from "zod";
import { formulaSchema } from "../formula/formula";
import { rangeSchema } from "../measure/range-schema";
import { workStepSchema } from "../plan/work-step-schema";
import { judgedScores, probedBy, weighedBy } from "./event-kinds";

const base = {
  /** Made where it happened, so that what is sent twice counts once. */
  id: z
    .string()
    .regex(/^[A-Za-z0-9_.:-]{1,80}$/, { error: "An event's id has 1 to 80 letters, digits, hyphens, dots or underscores." }),
  /** When it really happened, ISO 8601. */
  at: z.iso.datetime({ offset: true, error: "A time with its offset, such as 2026-11-28T05:30:00Z, would be right." }),
};
const grams = z.number().min(0, { error: "An amount of 0 g or more would be right." }).max(1_000_000);
const celsius = z.number().min(-40).max(400, { error: "A temperature is in °C; up to 400 would be right." });
export const slipSchema = z.discriminatedUnion("what", [
  /** Another amount than the formula's went in. */
  z.object({ what: z.literal("amount"), ingredientId: z.string().min(1), grams, mixed: z.boolean().optional() }),
  z.object({ what: z.literal("forgotten"), ingredientId: z.string().min(1), mixed: z.boolean().optional() }),
  /** Something else went in in its place. */
  z.object({ what: z.literal("swapped"), ingredientId: z.string().min(1), with: z.string().min(1), grams: grams.optional(), mixed: z.boolean().optional() }), // prettier-ignore
]);
export type Slip = z.infer<typeof slipSchema>;
/** What happens at a bake. Only appended; the state is folded from all of them. */
export const bakeEventSchema = z.discriminatedUnion("kind", [
  z.object({ ...base, kind: z.literal("started") }),
  z.object({ ...base, kind: z.literal("weighed"), lineId: z.string().max(160), grams, by: z.enum(weighedBy) }),
  z.object({ ...base, kind: z.literal("slip"), slip: slipSchema, words: z.string().max(400) }),
  z.object({ ...base, kind: z.literal("remedy"), remedyId: z.string().max(80), words: z.string().max(600), lines: z.array(z.object({ ingredientId: z.string(), grams })).max(200).optional() }), // prettier-ignore
  z.object({ ...base, kind: z.literal("step"), stepId: z.string().max(80), done: z.boolean() }),
  z.object({
    ...base,
    kind: z.literal("measured"),
    what: z.enum(["batterC", "densityGPerMl", "falls", "ph", "massOutG", "heightMm"]),
    value: z.number(),
  }),
  z.object({ ...base, kind: z.literal("oven"), celsius }),
  /** What a probe in the middle shows: of a device, or read off and typed. */
  z.object({ ...base, kind: z.literal("probe"), celsius, by: z.enum(probedBy).optional() }),
  z.object({
    ...base,
    kind: z.literal("photo"),
    hash: z.string().regex(/^[0-9a-f]{64}$/, { error: "A photograph is named by its hash." }),
    off: z.boolean().optional(),
  }),
  z.object({ ...base, kind: z.literal("opened"), seconds: z.number().min(0).max(3600) }),
  z.object({ ...base, kind: z.literal("looked"), seen: z.string().max(200).optional() }),
  z.object({ ...base, kind: z.literal("turned") }),
  z.object({ ...base, kind: z.literal("out"), by: z.string().max(80).optional() }),
  z.object({ ...base, kind: z.literal("cut") }),
  /** What the bake took out of the packets of the store, g. */
  z.object({
    ...base,
    kind: z.literal("used"),
    packets: z.array(z.object({ packetId: z.string().max(80), name: z.string().max(120), grams })).max(200),
  }),
  z.object({ ...base, kind: z.literal("note"), text: z.string().max(2000) }),
  z.object({
    ...base,
    kind: z.literal("judged"),
    /** From 1 to 5: how bakes were judged before the log's own scales stood at the counter. */
    scores: z.partialRecord(z.enum(judgedScores), z.number().int().min(1).max(5)),
    /** Steps of the log's scales, by their ids. */
    scales: z.record(z.string().max(40), z.number().int().min(0).max(20)).optional(),
    notes: z.string().max(4000).optional(),
  }),
]);
// prettier-ignore
export type BakeEvent = z.infer<typeof bakeEventSchema>;
/** What the oven is thought to do, computed when the bake was laid out: minutes, and the core along them. */
export const expectedSchema = z.object({
  minutes: rangeSchema,
  checkAtMinutes: z.number(),
  targetCoreC: z.number(),
  /** °C inside at every whole minute from the door. */
  coreC: z.array(z.number()),
  /** The same in ovens that are so much hotter or colder than thought, K, with their minutes to done. */
  ovens: z.array(z.object({ biasK: z.number(), minutes: z.number(), coreC: z.array(z.number()) })).min(2),
  /** How far off the oven may well be, K (one standard deviation). */
  biasSpreadK: z.number().positive(),
  restBeforeCuttingMinutes: z.number(),
  signs: z.array(z.string()),
});
export type Expected = z.infer<typeof expectedSchema>;
/** Time that runs faster, for a rehearsal: everything of the bake is told by this clock. */
export const rehearsalSchema = z.object({ from: z.iso.datetime({ offset: true }), factor: z.number().min(1).max(600) });
/** A bake as it was laid out: a formula as it stood, its steps, and what is expected. Nothing of it changes; what happens is events. */
export const bakeRecordSchema = z.object({
  title: z.string(),
  formulaId: z.string().optional(),
  formulaVersion: z.number().int().optional(),
  formula: formulaSchema,
  steps: z.array(workStepSchema),
  expected: expectedSchema,
  planId: z.string().optional(),
  /** Which bake of the plan, and which batch of it. */
  planBakeId: z.string().optional(),
  batch: z.number().int().optional(),
  ovenId: z.string().optional(),
  /** Which part of a split batter it is. The one that mixes it for all has the whole formula, and names the parts that are still to be baked of it. */
  part: z
    .object({
      id: z.string(),
      others: z.array(z.object({ id: z.string(), name: z.string() })).max(12),
      whole: formulaSchema.optional(),
    })
    .optional(),
  rehearsal: rehearsalSchema.optional(),
});
export type BakeRecord = z.infer<typeof bakeRecordSchema>;
