import {
  allergenSchema,
  dayOvenSchema,
  formulaComponentSchema,
  formulaSchema,
  kindSchema,
  figuresAre,
  languages,
  measuresSchema,
  ovenSchema,
  processSchema,
  causeFamilies,
  goals,
  measuredSchema,
  rangeSchema,
  seasonAsked,
  seasonAskedShape,
  seenSchema,
  settingsSchema,
  slipSchema,
  vesselSchema,
  wholeWishes,
} from "@uprise/core";
import { z } from "zod";

/** Limits of a pasted text: more than a book of recipes in one paste is a slip. */
export const textLimits = { signs: 100_000, lines: 1000, lineSigns: 4000 } as const;

export const textSchema = z
  .string()
  .max(textLimits.signs, { error: "A text of up to 100 000 characters would be right." })
  .refine((text) => text.split("\n").length <= textLimits.lines, { error: "A text of up to 1000 lines would be right." })
  .refine((text) => text.split("\n").every((line) => line.length <= textLimits.lineSigns), {
    error: "Lines of up to 4000 characters would be right; is a line break missing?",
  });

export const readRequestSchema = z.object({
  text: textSchema,
  measures: measuresSchema.optional(),
  title: z.string().max(160).optional(),
  /** What it is written in, where that is known; else it is found. */
  language: z.enum(languages).optional(),
  /** Which of several batches of a table is meant, from 0; else the first is taken, and said to be. */
  batch: z.number().int().min(0).max(11).optional(),
  /** What its figures without a unit are; else they are taken for grams, and asked about. */
  figures: z.enum(figuresAre).optional(),
});
export type ReadRequest = z.infer<typeof readRequestSchema>;

const grams = z
  .number({ error: "An amount is a number of grams, such as 250." })
  .min(0, { error: "An amount of 0 g or more would be right." })
  .max(1_000_000, { error: "An amount of up to 1 000 000 g would be right." });

/** A line without grams, or without an ingredient, is open: it is named in the answer and weighs nothing. */
export const requestLineSchema = z.object({
  ingredientId: z.string().min(1).optional(),
  grams: z
    .union([
      grams,
      rangeSchema.refine((r) => r.low >= 0 && r.low <= r.mid && r.mid <= r.high && r.high <= 1_000_000, {
        error: "Grams must be low ≤ mid ≤ high, from 0 to 1 000 000.",
      }),
    ])
    .optional(),
  name: z.string().max(200).optional(),
  locked: z.boolean().optional(),
  /** The component it stands in, one of `components`; absent, the batter. */
  component: z.string().min(1).max(64).optional(),
});

export const formulaFields = z.object({
  text: textSchema.optional(),
  lines: z.array(requestLineSchema).max(200).optional(),
  components: z.array(formulaComponentSchema).max(24).optional(),
  measures: measuresSchema.optional(),
  kind: kindSchema.optional(),
  vessel: vesselSchema.optional(),
  oven: ovenSchema.optional(),
  process: processSchema.optional(),
  batchG: z.number().positive().max(1_000_000).optional(),
});

export type FormulaFields = z.infer<typeof formulaFields>;
export const hasFormula = (body: FormulaFields): boolean =>
  body.text !== undefined || (body.lines?.length ?? 0) > 0 || body.batchG !== undefined;
export const noFormula = { error: "Send text, lines, or a kind with batchG.", path: ["lines"] };

/** What `analyse`, `simulate`, `balance` and `swap` have in common. */
export const formulaRequestSchema = formulaFields.refine(hasFormula, noFormula);
export type FormulaRequest = z.infer<typeof formulaRequestSchema>;

/** `simulate` may also be told when the bake is taken out, done or not. */
export const simulateRequestSchema = formulaFields
  .extend({
    minutes: z
      .number()
      .min(0.5, { error: "Minutes in the oven; from 0.5 to 240 would be right." })
      .max(240, { error: "Minutes in the oven; from 0.5 to 240 would be right." })
      .optional(),
  })
  .refine(hasFormula, noFormula);
export type SimulateRequest = z.infer<typeof simulateRequestSchema>;

const choices = {
  locked: z.array(z.string()).max(200).optional(),
  avoid: z.array(allergenSchema).optional(),
  onHand: z.array(z.string()).max(500).optional(),
};

export const balanceRequestSchema = formulaFields
  .extend({
    ...choices,
    /** Something wished of the whole formula, done in one proposal. */
    wish: z.enum(wholeWishes).optional(),
    /** By ingredient id, for a kilogram; any one currency. */
    prices: z.record(z.string(), z.number().positive()).optional(),
  })
  .refine(hasFormula, noFormula)
  .refine(({ wish, onHand }) => wish !== "on-hand" || onHand !== undefined, {
    error: "Say what is on hand: the ids of its ingredients in onHand.",
    path: ["onHand"],
  });
export type BalanceRequest = z.infer<typeof balanceRequestSchema>;

export const swapRequestSchema = formulaFields
  .extend({
    ...choices,
    replace: z.string().min(1, { error: "Say which ingredient to replace, by its id." }),
    with: z.string().min(1).optional(),
  })
  .refine(hasFormula, noFormula);
export type SwapRequest = z.infer<typeof swapRequestSchema>;

/** ISO 8601 with its offset: a kitchen's morning is a morning somewhere. */
const timeSchema = z.iso.datetime({
  offset: true,
  error: "A time with its offset, such as 2026-11-28T05:30:00+01:00, would be right.",
});
/** What went wrong with a bake of a formula: what was seen, what was measured, what slipped, what is known of the kitchen. */
export const faultsRequestSchema = formulaFields
  .extend({
    seen: z.array(seenSchema).max(60),
    measured: measuredSchema.optional(),
    slips: z.array(slipSchema).max(50).optional(),
    kitchen: z
      .object({
        powderAgeMonths: z.number().min(0).max(240).optional(),
        powderPastMonths: z.number().min(-240).max(240).optional(),
        ovenBiasK: z.number().min(-80).max(80).optional(),
        weighedShare: z.number().min(0).max(1).optional(),
        mixedLong: z.boolean().optional(),
      })
      .optional(),
  })
  .refine(hasFormula, noFormula);
export type FaultsRequest = z.infer<typeof faultsRequestSchema>;

export const nextRequestSchema = formulaFields
  .extend({
    goal: z.enum(goals, { error: `A goal is one of: ${goals.join(", ")}.` }),
    /** Changes that were tried before, by their title. */
    tried: z.array(z.string().max(120)).max(60).optional(),
  })
  .refine(hasFormula, noFormula);
export type NextRequest = z.infer<typeof nextRequestSchema>;

export const practiceRequestSchema = z.object({
  seed: z.number().int().min(0).max(2_000_000_000),
  /** Families of causes to choose from. */
  families: z.array(z.enum(causeFamilies)).max(20).optional(),
  /** With which nothing was wrong. */
  sound: z.boolean().optional(),
});
export type PracticeRequest = z.infer<typeof practiceRequestSchema>;

const plannedId = z
  .string()
  .regex(/^[A-Za-z0-9_-]{1,64}$/, { error: "An id has 1 to 64 letters, digits, hyphens or underscores." });

const dayBakeSchema = formulaFields.extend({
  id: plannedId,
  title: z.string().max(160).optional(),
  formulaId: plannedId.optional(),
  /** Pieces or batches wanted; absent, one batch. */
  pieces: z.number().int().min(1).max(2000).optional(),
  batches: z.number().int().min(1).max(40).optional(),
  /** How many vessels of its sort there are; absent, enough. */
  vessels: z.number().int().min(1).max(40).optional(),
  readyBy: timeSchema.optional(),
  earliest: timeSchema.optional(),
  /** Put there by hand: into the oven no earlier. */
  heldAt: timeSchema.optional(),
  /** What has begun or is done, for a plan made anew from `now`. */
  done: z
    .array(
      z.object({
        batch: z.number().int().min(1),
        stepId: z.string().max(80),
        start: timeSchema,
        end: timeSchema,
        ovenId: plannedId.optional(),
      }),
    )
    .max(2000)
    .optional(),
});

const dayFields = z.object({
  start: timeSchema,
  now: timeSchema.optional(),
  bakes: z
    .array(dayBakeSchema)
    .min(1, { error: "At least one bake would be right." })
    .max(24, { error: "Up to 24 bakes a day would be right." }),
  ovens: z.array(dayOvenSchema).max(8),
  hands: z.number().int().min(1, { error: "At least one pair of hands would be right." }).max(8),
  mixers: z.number().int().min(0).max(8).default(1),
});
const MOST_BATCHES = 60;
/** A day to be planned. */
export const planRequestSchema = dayFields
  .refine(({ bakes }) => new Set(bakes.map(({ id }) => id)).size === bakes.length, {
    error: "Every bake needs an id of its own.",
    path: ["bakes"],
  })
  .refine(({ bakes }) => bakes.every((bake) => bake.formulaId !== undefined || hasFormula(bake)), {
    error: "Every bake needs a formulaId, lines, a text, or a kind with batchG.",
    path: ["bakes"],
  })
  .refine(({ bakes }) => bakes.reduce((sum, { batches = 1 }) => sum + batches, 0) <= MOST_BATCHES, {
    error: `Up to ${MOST_BATCHES} batches a day would be right.`,
    path: ["bakes"],
  });
export type PlanRequest = z.infer<typeof planRequestSchema>;

/** A day as it is kept: its name, and what was asked. The plan itself is computed anew. */
export const planInputSchema = z.object({
  id: plannedId.optional(),
  title: z.string().trim().min(1, { error: "A day needs a name." }).max(120, { error: "A name of up to 120 signs." }),
  day: planRequestSchema,
});
export type PlanInput = z.infer<typeof planInputSchema>;

export const slipRequestSchema = formulaFields.extend({ slip: slipSchema }).refine(hasFormula, noFormula);
export type SlipRequest = z.infer<typeof slipRequestSchema>;

/** A bake to be laid out: a stored formula by its id, or one as it stands. */
export const bakeInputSchema = z
  .object({
    id: plannedId.optional(),
    title: z.string().trim().min(1).max(160).optional(),
    formulaId: plannedId.optional(),
    formula: formulaSchema.optional(),
    /** Which version `formula` is, where it is one. */
    formulaVersion: z.number().int().min(1).optional(),
    planId: plannedId.optional(),
    planBakeId: plannedId.optional(),
    batch: z.number().int().min(1).optional(),
    /** Which part of a split batter; absent, the first, which mixes it. */
    partId: plannedId.optional(),
    ovenId: plannedId.optional(),
    /** A rehearsal: time runs so many times faster, from now or from when it began without a server. */
    rehearsal: z.object({ factor: z.number().min(1).max(600), from: z.iso.datetime({ offset: true }).optional() }).optional(),
  })
  .refine(({ formulaId, formula }) => formulaId !== undefined || formula !== undefined, {
    error: "A bake is of a formula: formulaId, or formula.",
    path: ["formulaId"],
  });
export type BakeInput = z.infer<typeof bakeInputSchema>;

/** Each event is checked by itself when it has arrived, so that one that is refused does not take its neighbours with it. */
export const bakeEventsSchema = z.object({
  events: z.array(z.unknown()).min(1).max(500, { error: "Up to 500 events at once would be right." }),
});
/** What became of events that were sent: the ids that are new, and those that are refused for good with the reason. */
export const appendedSchema = z.object({
  fresh: z.array(z.string()),
  refused: z.array(z.object({ id: z.string(), message: z.string() })),
});

export const deviceKinds = ["scale", "probe", "oven", "ph"] as const;
export const deviceInputSchema = z.object({
  id: plannedId.optional(),
  name: z.string().trim().min(1, { error: "A name by which you know it." }).max(80),
  kind: z.enum(deviceKinds),
  /** A stand-in that the server plays; else a bridge of the device sends its messages. */
  simulated: z.boolean().default(true),
});
export type DeviceInput = z.infer<typeof deviceInputSchema>;

/** One message of a device, one JSON object a line. */
export const deviceMessageSchema = z.object({
  device: plannedId,
  kind: z.enum(deviceKinds),
  at: timeSchema,
  value: z.number().min(-1000).max(100_000),
  unit: z.enum(["g", "C", "pH"]),
  stable: z.boolean().optional(),
  battery: z.number().min(0).max(1).optional(),
});
export type DeviceMessage = z.infer<typeof deviceMessageSchema>;

/** What a device may be told. `rehearse` plays the hand that pours, the bake that a probe stands in, or a fault. */
export const deviceCommandSchema = z.discriminatedUnion("command", [
  z.object({ command: z.literal("tare") }),
  z.object({ command: z.literal("unit"), unit: z.enum(["g", "C", "pH"]) }),
  z.object({ command: z.literal("set"), celsius: z.number().min(20).max(320) }),
  z.object({
    command: z.literal("rehearse"),
    pourG: z.number().min(-100_000).max(100_000).optional(),
    bakeId: plannedId.optional(),
    fault: z.enum(["none", "silent", "nonsense", "flood"]).optional(),
  }),
]);
export type DeviceCommand = z.infer<typeof deviceCommandSchema>;

const doneRunSchema = z.object({
  settings: settingsSchema,
  /** What came out of it, by quality. */
  values: z.record(z.string().max(40), z.number()).optional(),
});
const blocksSchema = z.union([
  z.number().int().min(1).max(12).transform((size) => ({ size, by: "day" as const })),
  seasonAskedShape.blocks.unwrap(),
]); // prettier-ignore
const seasonFields = formulaFields.extend({
  ...seasonAskedShape,
  /** How many bakes make a day, or what else is blocked. */
  blocks: blocksSchema.optional(),
  done: z.array(doneRunSchema).max(40).optional(),
});

/** A season of trials that is nowhere kept: what is wished, what may move and how far, how many bakes. */
export const seasonDesignRequestSchema = seasonFields.refine(hasFormula, noFormula).superRefine(seasonAsked);
export type SeasonDesignRequest = z.infer<typeof seasonDesignRequestSchema>;
/** What came out of its runs; `season` is the request of the design, with its runs or without. */
export const seasonNextRequestSchema = z.object({
  season: seasonDesignRequestSchema,
  results: z
    .array(z.object({ runId: z.string().max(64), values: z.record(z.string().max(40), z.number()).default({}), preferredTo: z.array(z.string().max(64)).max(60).optional() }))
    .max(60),
}); // prettier-ignore
export type SeasonNextRequest = z.infer<typeof seasonNextRequestSchema>;
