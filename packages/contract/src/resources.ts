import {
  bakeEventSchema,
  bakePhases,
  bakeRecordSchema,
  FORMULA_SHAPE,
  formulaSchema,
  ingredientSchema,
  neededMeasures,
  ovenModes,
  packetSchema,
  causeFamilies,
  measuredSchema,
  seenSchema,
  learntSchema,
  seasonSchema,
  trialSchema,
  vesselSchema,
  glanceSchema,
  nutrients,
} from "@uprise/core";
import { z } from "zod";
import { deviceKinds, deviceMessageSchema, planRequestSchema } from "./requests";

export const idSchema = z
  .string()
  .regex(/^[A-Za-z0-9_-]{1,64}$/, { error: "An id has 1 to 64 letters, digits, hyphens or underscores." });

/** What every stored thing has beside its body. `version` goes into `If-Match` (as `"3"`). */
const stored = { id: idSchema, version: z.number().int().min(1), createdAt: z.string(), updatedAt: z.string() };

export const pageQuerySchema = z.object({
  q: z.string().max(200).optional(),
  page: z.coerce.number().int().min(1).default(1),
  pageSize: z.coerce.number().int().min(1).max(500).default(50),
});

const flag = z.enum(["true", "false"]).transform((value) => value === "true");

/** Lists of the kitchen: `own=true` leaves out what ships with Uprise. */
export const kitchenQuerySchema = pageQuerySchema.extend({ own: flag.optional() });
/** The list of formulas: `whole=true` sends each formula with its summary. */
export const formulasQuerySchema = pageQuerySchema.extend({ whole: flag.optional() });

export const pageOf = <T extends z.ZodType>(item: T) =>
  z.object({ items: z.array(item), page: z.number().int(), pageSize: z.number().int(), total: z.number().int() });

export const reasonSchema = z.string().trim().max(300);

/** A formula as it is sent: the design, and why this version is saved. `id` may be chosen by the sender. */
export const formulaInputSchema = formulaSchema.extend({
  // A script that was written for the shape before sends what is still a formula.
  shape: z.literal([1, FORMULA_SHAPE]),
  id: idSchema.optional(),
  reason: reasonSchema.optional(),
});
export type FormulaInput = z.infer<typeof formulaInputSchema>;

export const storedFormulaSchema = z.object({ ...stored, formula: formulaSchema });
export type StoredFormula = z.infer<typeof storedFormulaSchema>;

export const formulaSummarySchema = z.object({
  ...stored,
  title: z.string(),
  kind: formulaSchema.shape.kind,
  lines: z.number().int(),
  massG: z.number(),
  /** Where the list was asked for whole formulas. */
  formula: formulaSchema.optional(),
  /** What the bench computes of it, in the kitchen as it is; absent until it is computed, null where it cannot be read. */
  glance: glanceSchema.nullable().optional(),
});
export type FormulaSummary = z.infer<typeof formulaSummarySchema>;

export const formulaVersionSchema = z.object({
  number: z.number().int(),
  reason: z.string(),
  savedAt: z.string(),
  formula: formulaSchema,
});
export type FormulaVersion = z.infer<typeof formulaVersionSchema>;

export const ingredientInputSchema = ingredientSchema.refine(
  (entry) => Math.abs(Object.values(entry.per100g).reduce((all, part) => all + part, 0) - 100) <= 3,
  { error: "Composition adds up to 100 g within 3 g.", path: ["per100g"] },
);
export const storedIngredientSchema = z.object({ ...stored, own: z.boolean(), ingredient: ingredientSchema });
export type StoredIngredient = z.infer<typeof storedIngredientSchema>;

export const vesselInputSchema = z.object({
  id: idSchema.optional(),
  name: z.string().trim().min(1, { error: "A name by which you know it." }).max(120, { error: "A name of up to 120 signs." }),
  vessel: vesselSchema,
});
export type VesselInput = z.infer<typeof vesselInputSchema>;

const measureWords = {
  lengthMm: "Measure it inside, in millimetres; 23 cm is 230.",
  diameterMm: "Measure it inside, in millimetres; 23 cm is 230.",
  heightMm: "Measure the height inside, in millimetres; 7 cm is 70.",
} as const;

/** A pan that one describes by ruler or water: it must have the measures that its shape needs to hold anything. */
export const ownPanSchema = vesselInputSchema.superRefine(({ vessel }, context) => {
  for (const key of neededMeasures(vessel.shape))
    if (vessel[key] === undefined) context.addIssue({ code: "custom", path: ["vessel", key], message: measureWords[key] });
});

/** A bought blend as its packet tells it: the ingredients by falling weight, and what it holds of gum and powder, %. */
const perHundred = z
  .number({ error: "Grams in 100 g, as the table has them, or nothing where it is silent." })
  .min(0)
  .max(100, { error: "Grams in 100 g: 100 at most would be right." });
export const blendLabelSchema = z.object({
  name: z.string().trim().min(2, { error: "A name, as on the packet." }).max(100, { error: "A name of up to 100 signs." }),
  order: z.array(z.string()).min(1, { error: "What stands first on the label? One ingredient at least." }).max(30),
  gumPercent: z
    .number({ error: "A percentage from 0 to 10, or nothing where the label is silent." })
    .min(0)
    .max(10, { error: "A percentage from 0 to 10, or nothing where the label is silent." })
    .optional(),
  powderPercent: z
    .number({ error: "A percentage from 0 to 10, or nothing where the label is silent." })
    .min(0)
    .max(10, { error: "A percentage from 0 to 10, or nothing where the label is silent." })
    .optional(),
  nutrition: z.object(Object.fromEntries(nutrients.map((nutrient) => [nutrient, perHundred.optional()])) as Record<(typeof nutrients)[number], z.ZodOptional<typeof perHundred>>).optional(), // prettier-ignore
  percents: z.record(z.string(), z.number().min(0).max(100)).optional(),
});
export type BlendLabel = z.infer<typeof blendLabelSchema>;
export const storedVesselSchema = z.object({ ...stored, own: z.boolean(), name: z.string(), vessel: vesselSchema });
export type StoredVessel = z.infer<typeof storedVesselSchema>;

/** An oven as known: how far its inside differs from its dial, and how far it swings, in K. */
export const ovenProfileSchema = z.object({
  name: z.string().trim().min(1, { error: "A name by which you know it." }).max(120, { error: "A name of up to 120 signs." }),
  modes: z.array(z.enum(ovenModes)).min(1),
  biasK: z.number().min(-60).max(60),
  swingK: z.number().min(0).max(60),
  /** Minutes from cold to 180 °C, racks, and the inside in mm, where the baker knows them. */
  warmMinutes: z.number().min(0).max(90).optional(),
  racks: z.number().int().min(1).max(20).optional(),
  widthMm: z.number().min(100).max(2000).optional(),
  depthMm: z.number().min(100).max(2000).optional(),
});
export type OvenProfile = z.infer<typeof ovenProfileSchema>;
export const ovenInputSchema = ovenProfileSchema.extend({ id: idSchema.optional() });
export const storedOvenSchema = z.object({ ...stored, oven: ovenProfileSchema });
export type StoredOven = z.infer<typeof storedOvenSchema>;

export const packetInputSchema = packetSchema.extend({ id: idSchema.optional() });
export type PacketInput = z.infer<typeof packetInputSchema>;
export const storedPacketSchema = z.object({ ...stored, packet: packetSchema });
export type StoredPacket = z.infer<typeof storedPacketSchema>;

export const trialInputSchema = trialSchema.extend({ id: idSchema.optional() });
export type TrialInput = z.infer<typeof trialInputSchema>;
export const storedTrialSchema = z.object({ ...stored, trial: trialSchema });
export type StoredTrial = z.infer<typeof storedTrialSchema>;

export const MOST_SAMPLES = 6;
/** A blind tasting: samples under codes, and who scored them; the codes and orders follow from the seed. */
export const tastingSchema = z.object({
  title: z.string().trim().min(1, { error: "A round needs a name." }).max(120),
  question: z.string().max(200),
  seed: z.number().int().min(0).max(1_000_000),
  samples: z
    .array(z.object({ name: z.string().trim().min(1).max(120), trialId: z.string().max(80).optional() }))
    .min(2, { error: "Two samples or more would be right." })
    .max(MOST_SAMPLES, { error: `Up to ${MOST_SAMPLES} samples would be right; tongues tire.` }),
  tasters: z
    .array(
      z.object({ name: z.string().trim().min(1).max(80), scores: z.array(z.number().min(1).max(9).nullable()).max(MOST_SAMPLES) }),
    )
    .max(60),
});
export type Tasting = z.infer<typeof tastingSchema>;
export const tastingInputSchema = tastingSchema.extend({ id: idSchema.optional() });
export const storedTastingSchema = z.object({ ...stored, tasting: tastingSchema });
export type StoredTasting = z.infer<typeof storedTastingSchema>;

export const seasonInputSchema = seasonSchema.safeExtend({ id: idSchema.optional() });
export type SeasonInput = z.infer<typeof seasonInputSchema>;
export const storedSeasonSchema = z.object({ ...stored, season: seasonSchema });
export type StoredSeason = z.infer<typeof storedSeasonSchema>;

/** A made-up bake to practise on: what can be seen at once, what can be asked for, and the answer. */
export const practiceSchema = z.object({
  seed: z.number().int(),
  formula: formulaSchema,
  seen: z.array(seenSchema),
  measured: measuredSchema,
  kitchen: z.object({
    powderAgeMonths: z.number().optional(),
    weighedShare: z.number().optional(),
    mixedLong: z.boolean().optional(),
  }),
  /** Heights when it has cooled, planned and as it came out, and its width, mm. */
  planned: z.object({ heightsMm: z.array(z.number()), minutes: z.number(), targetCoreC: z.number(), lossPercent: z.number() }),
  heightsMm: z.array(z.number()),
  widthMm: z.number(),
  /** Of no family where nothing was wrong. */
  answer: z.object({ id: z.string(), family: z.enum(causeFamilies).nullable(), words: z.string(), tell: z.string() }),
});
export type Practice = z.infer<typeof practiceSchema>;

export const learntAnswerSchema = z.object({
  learnt: z.array(learntSchema.extend({ accepted: z.boolean() })),
  trials: z.number().int(),
});
export type LearntAnswer = z.infer<typeof learntAnswerSchema>;
export const acceptedSchema = z.object({ id: z.string().max(120) });

export const photoSchema = z.object({
  hash: z.string(),
  type: z.string(),
  bytes: z.number().int(),
  width: z.number().int(),
  height: z.number().int(),
});
export type Photo = z.infer<typeof photoSchema>;

export const storedPlanSchema = z.object({ ...stored, title: z.string(), day: planRequestSchema });
export type StoredPlan = z.infer<typeof storedPlanSchema>;

export const bakeSummarySchema = z.object({
  ...stored,
  title: z.string(),
  kind: formulaSchema.shape.kind,
  phase: z.enum(bakePhases),
  startedAt: z.string().nullable(),
  planId: z.string().optional(),
  planBakeId: z.string().optional(),
  batch: z.number().int().optional(),
  rehearsal: z.boolean(),
});
export type BakeSummary = z.infer<typeof bakeSummarySchema>;

/** A bake with everything that happened; its state is folded from the events by whoever shows it. */
export const storedBakeSchema = z.object({
  ...stored,
  record: bakeRecordSchema,
  events: z.array(bakeEventSchema),
  phase: z.enum(bakePhases),
  /** Where a stream goes on from. */
  last: z.number().int(),
});
export type StoredBake = z.infer<typeof storedBakeSchema>;

export const storedDeviceSchema = z.object({
  ...stored,
  name: z.string(),
  kind: z.enum(deviceKinds),
  simulated: z.boolean(),
  last: deviceMessageSchema.nullable(),
  /** Messages that were no messages, or too many. */
  dropped: z.number().int(),
});
export type StoredDevice = z.infer<typeof storedDeviceSchema>;

export const healthSchema = z.object({
  status: z.literal("ok"),
  version: z.string(),
  /** The newest shape of the database; this and what follows for those who are let in. */
  shape: z.string().optional(),
  freeBytes: z.number().optional(),
  /** Hours since the last copy in the data folder; null where there is none yet. */
  lastCopyHours: z.number().nullable().optional(),
  /** Why the last one could not be made, or what is missing from it. */
  copyFault: z.string().optional(),
});
