import { z } from "zod";
import { editSchema } from "../formula/edits-schema";
import { formulaSchema } from "../formula/formula";
import { rangeSchema } from "../measure/range-schema";
import { qualityIds } from "./qualities";

const id = z.string().min(1).max(64);
const ends = { low: z.number().min(0).max(1_000_000), high: z.number().min(0).max(1_000_000) };

/** What may move, and how far: g of a line, a line's share of a blend in %, °C, minutes, or one of several ways. */
export const factorSchema = z
  .discriminatedUnion("what", [
    z.object({ what: z.literal("line"), id, name: z.string().max(120), lineId: id, ...ends }),
    z.object({ what: z.literal("share"), id, name: z.string().max(120), lineId: id, ...ends }),
    z.object({ what: z.literal("oven"), id, name: z.string().max(120), ...ends }),
    z.object({ what: z.literal("rest"), id, name: z.string().max(120), ...ends }),
    z.object({ what: z.literal("minutes"), id, name: z.string().max(120), ...ends }),
    z.object({
      what: z.literal("choice"),
      id,
      name: z.string().max(120),
      options: z
        .array(z.object({ name: z.string().trim().min(1).max(80), edits: z.array(editSchema).max(10) }))
        .min(2, { error: "Two ways or more would be right." })
        .max(4, { error: "Up to four ways would be right." }),
    }),
  ])
  .refine((factor) => factor.what === "choice" || factor.low < factor.high, {
    error: "It must be able to move: the low end under the high end would be right.",
    path: ["high"],
  });
export type Factor = z.infer<typeof factorSchema>;

const quality = z.string().refine((one) => qualityIds.includes(one), { error: `A quality is one of: ${qualityIds.join(", ")}.` });
/** A value of each factor by its id: g, %, °C, minutes, or the number of the way from 0. */
export const pointSchema = z.record(z.string().max(64), z.number());
export type Point = z.infer<typeof pointSchema>;

export const seasonRunSchema = z.object({
  id,
  point: pointSchema,
  kind: z.enum(["first", "repeat", "next"]),
  /** Which day (or whatever is blocked) it belongs to, from 0. */
  block: z.number().int().min(0).max(60),
  /** What it was to tell, in words, as it was chosen. */
  why: z.string().max(600),
});
export type SeasonRun = z.infer<typeof seasonRunSchema>;

export const MOST_FACTORS = 8;
/** A season as it is kept: what is wished, what must hold, what may move, how many bakes, and those that were chosen. */
export const seasonSchema = z
  .object({
    title: z.string().trim().min(1, { error: "A season needs a name, such as “A taller pear loaf”." }).max(160),
    formulaId: z.string().max(80).optional(),
    formulaVersion: z.number().int().optional(),
    /** The present bake, from which all others are told. */
    formula: formulaSchema,
    wishes: z
      .array(z.object({ quality, side: z.union([z.literal(1), z.literal(-1)]) }))
      .min(1, { error: "One wish at least: what should be better?" })
      .max(3, { error: "Up to three wishes would be right; more of them cannot be told apart in a season." }),
    holds: z
      .array(z.object({ quality, least: z.number().optional(), most: z.number().optional() }))
      .max(6),
    factors: z
      .array(factorSchema)
      .min(1, { error: "One thing at least must be able to move." })
      .max(MOST_FACTORS, { error: `Up to ${MOST_FACTORS} things that move would be right.` }),
    bakes: z.number().int().min(3, { error: "Three bakes or more would be right." }).max(40, { error: "Up to 40 bakes would be right." }),
    /** So many bakes make a block (a day, an oven, a packet); 0 where nothing is blocked. */
    perBlock: z.number().int().min(0).max(12),
    /** What a block is, in a word. */
    blockedBy: z.enum(["day", "oven", "packet", "taster"]),
    seed: z.number().int().min(0).max(1_000_000),
    runs: z.array(seasonRunSchema).max(60),
    notes: z.string().max(8000),
  })
  .superRefine(({ factors, formula }, context) => {
    const shares = factors.filter(({ what }) => what === "share").length;
    if (shares === 1)
      context.addIssue({ code: "custom", path: ["factors"], message: "A share is of a blend: two lines of it or more would be right." });
    if (new Set(factors.map(({ id: one }) => one)).size < factors.length)
      context.addIssue({ code: "custom", path: ["factors"], message: "Each thing that moves needs an id of its own." });
    for (const [k, factor] of factors.entries())
      if ((factor.what === "line" || factor.what === "share") && !formula.lines.some((line) => line.id === factor.lineId && line.grams))
        context.addIssue({ code: "custom", path: ["factors", k, "lineId"], message: "The id of a weighed line of the formula would be right." });
  }); // prettier-ignore
export type Season = z.infer<typeof seasonSchema>;

const expectedSchema = z.record(z.string(), rangeSchema);
/** One bake of a season as it stands: what it changes, what is expected of it, what came out. */
export const runStateSchema = z.object({
  id: z.string(),
  kind: z.enum(["first", "repeat", "next", "logged"]),
  block: z.number().int(),
  point: pointSchema,
  why: z.string(),
  /** What differs from the present bake, in words; empty where nothing does. */
  changes: z.array(z.string()),
  formula: formulaSchema,
  /** Minutes for the oven, where minutes are a factor. */
  minutes: z.number().optional(),
  trialId: z.string().optional(),
  at: z.string().optional(),
  /** 90 % ranges by quality, of the bake itself and without the scatter of a single one. */
  expected: expectedSchema,
  /** What was measured or tasted, by quality. */
  results: z.record(z.string(), z.number()),
  /** The bake in the computer: height of middle and edge when it has cooled, and width, mm. */
  slice: z.object({ middleMm: z.number(), edgeMm: z.number(), widthMm: z.number() }).nullable(),
});
export type RunState = z.infer<typeof runStateSchema>;

export const seasonStateSchema = z.object({
  /** Points that were judged and baked in the computer, and how many of them are unsound, by why. */
  candidates: z.number().int(),
  unsound: z.array(z.object({ why: z.string(), count: z.number().int() })),
  runs: z.array(runStateSchema),
  /** Runs that are proposed and not yet kept: the first bakes where there are none, the next one where all are baked. */
  proposed: z.array(seasonRunSchema),
  design: z
    .object({ terms: z.array(z.string()), dEfficiency: z.number(), together: z.array(z.string()), words: z.string() })
    .nullable(),
  /** What moving a factor from its low to its high end does to each quality that is asked for. */
  learnt: z.array(
    z.object({
      factorId: z.string(),
      quality: z.string(),
      effect: rangeSchema,
      /** Whether the range leaves 0 out. */
      sure: z.boolean(),
      words: z.string(),
    }),
  ),
  /** The present bake and the best known one, by what is expected. */
  now: runStateSchema,
  best: runStateSchema.nullable(),
  next: z
    .object({ run: runStateSchema, gain: z.number(), gainWords: z.string(), holdsBy: z.number(), words: z.string() })
    .nullable(),
  stop: z.object({ isTime: z.boolean(), words: z.string() }),
  /** What can be had at once of several wishes: points that no other beats in all of them. */
  front: z.array(z.object({ point: pointSchema, changes: z.array(z.string()), expected: expectedSchema })),
  /** The first wish over the two factors that tell most: means and standard deviations, row by row of y. */
  map: z
    .object({
      x: z.string(),
      y: z.string(),
      xs: z.array(z.number()),
      ys: z.array(z.number()),
      mean: z.array(z.array(z.number())),
      sd: z.array(z.array(z.number())),
    })
    .nullable(),
  /** How many of the bakes lay in the 90 % range that all others gave of them. */
  checked: z.object({ within: z.number().int(), of: z.number().int() }),
});
export type SeasonState = z.infer<typeof seasonStateSchema>;
