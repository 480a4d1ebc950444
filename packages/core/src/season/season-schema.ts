import { z } from "zod";
import { formulaSchema } from "../formula/formula";
import { methods } from "../formula/process";
import { rangeSchema } from "../measure/range-schema";
import { vesselSchema } from "../pantry/vessel-schema";

const id = z.string().min(1).max(64);

/** What may be tried of pan or method: a name of the library or of a method, or a pan of one's own with its measures. */
const optionSchema = z.union([
  z.string().min(1).max(80),
  z.object({ name: z.string().trim().min(1).max(80), vessel: vesselSchema }),
]);

export const factorKinds = ["amount", "share", "oven", "minutes", "rest", "pan", "method"] as const;
/**
 * What may move, and how far: grams of a line (`amount`), a line's share of a blend in % (`share`; all of them add up), °C, minutes in the oven, minutes of
 * rest; or one of several pans or methods, the first of which is as now where the formula has it.
 */
export const factorSchema = z
  .object({
    id,
    kind: z.enum(factorKinds),
    name: z.string().max(120).optional(),
    ingredientId: z.string().max(80).optional(),
    /** Where several lines have that ingredient. */
    lineId: id.optional(),
    low: z.number().min(0).max(1_000_000).optional(),
    high: z.number().min(0).max(1_000_000).optional(),
    options: z.array(optionSchema).min(2, { error: "Two or more to choose from would be right." }).max(4, { error: "Up to four to choose from would be right." }).optional(),
  })
  .superRefine(({ kind, ingredientId, lineId, low, high, options }, context) => {
    const wrong = (path: string, message: string): void => context.addIssue({ code: "custom", path: [path], message });
    if (kind === "pan" || kind === "method") {
      if (!options) wrong("options", `Two or more ${kind === "pan" ? "pans" : "methods"} to choose from would be right.`);
      if (kind === "method" && options?.some((one) => !(methods as readonly unknown[]).includes(one))) wrong("options", `A method is one of: ${methods.join(", ")}.`);
      return;
    }
    if (low === undefined || high === undefined || low >= high) wrong("high", "It must be able to move: a low end under the high end would be right.");
    if ((kind === "amount" || kind === "share") && ingredientId === undefined && lineId === undefined) wrong("ingredientId", "The ingredient that may move would be right.");
  }); // prettier-ignore
export type Factor = z.infer<typeof factorSchema>;

/** A value of each factor by its id: g, %, °C, minutes, or the name of the pan or method. */
export const settingsSchema = z.record(z.string().max(64), z.union([z.number(), z.string().max(80)]));
export type Settings = z.infer<typeof settingsSchema>;

export const seasonGoalSchema = z
  .object({
    /** One that the log measures, tastes or reckons, or one's own. */
    quality: z
      .string()
      .regex(/^[A-Za-z][A-Za-z0-9 -]{0,39}$/, { error: "A quality is a word, such as height, moistness or score." }),
    wish: z.enum(["more", "less", "target"]).optional(),
    target: z.number().optional(),
    /** What must hold of it. */
    keep: z.object({ low: z.number().optional(), high: z.number().optional() }).optional(),
  })
  .superRefine(({ wish, target, keep }, context) => {
    if (wish === undefined && keep === undefined) context.addIssue({ code: "custom", path: ["wish"], message: "More, less or a target, or what must be kept, would be right." });
    if (wish === "target" && target === undefined) context.addIssue({ code: "custom", path: ["target"], message: "The number that is aimed at would be right." });
  }); // prettier-ignore
export type SeasonGoal = z.infer<typeof seasonGoalSchema>;

export const runKinds = ["first", "repeat", "next"] as const;
export const seasonRunSchema = z.object({
  id,
  settings: settingsSchema,
  kind: z.enum(runKinds).default("first"),
  /** Which day (or whatever is blocked) it belongs to, from 0. */
  block: z.number().int().min(0).max(60).default(0),
  /** What it was to tell, in words, as it was chosen. */
  why: z.string().max(600).default(""),
});
export type SeasonRun = z.infer<typeof seasonRunSchema>;

export const MOST_FACTORS = 8;
export const MOST_WISHES = 3;
export const blockings = ["day", "oven", "packet", "taster"] as const;

const askedShape = {
  goals: z.array(seasonGoalSchema).min(1, { error: "One goal at least: what should be better?" }).max(9),
  factors: z
    .array(factorSchema)
    .min(1, { error: "One thing at least must be able to move." })
    .max(MOST_FACTORS, { error: `Up to ${MOST_FACTORS} things that move would be right.` }),
  bakes: z.number().int().min(3, { error: "Three bakes or more would be right." }).max(40, { error: "Up to 40 bakes would be right." }),
  /** So many bakes make a block, and what a block is. */
  blocks: z.object({ size: z.number().int().min(1).max(12), by: z.enum(blockings).default("day") }).optional(),
  seed: z.number().int().min(0).max(1_000_000).default(1),
}; // prettier-ignore

/** What is asked of every season, wherever its formula stands. */
function soundly({ factors, goals }: { factors: Factor[]; goals: SeasonGoal[] }, context: z.RefinementCtx): void {
  const wrong = (path: PropertyKey[], message: string): void => context.addIssue({ code: "custom", path, message });
  if (factors.filter(({ kind }) => kind === "share").length === 1) wrong(["factors"], "A share is of a blend: two lines of it or more would be right.");
  if (new Set(factors.map(({ id: one }) => one)).size < factors.length) wrong(["factors"], "Each thing that moves needs an id of its own.");
  const wishes = goals.filter(({ wish }) => wish !== undefined).length;
  if (wishes === 0) wrong(["goals"], "One wish at least: what should be better?");
  if (wishes > MOST_WISHES) wrong(["goals"], `Up to ${MOST_WISHES} wishes would be right; more of them cannot be told apart in a season.`);
  if (new Set(goals.map(({ quality }) => quality)).size < goals.length) wrong(["goals"], "Each quality once would be right.");
} // prettier-ignore

/** What is asked for the first bakes, beside the fields of a formula. */
export const seasonAskedShape = { ...askedShape, runs: z.array(seasonRunSchema).max(60).default([]) };
export const seasonAsked = soundly;

/** A season as it is kept: what is wished, what must hold, what may move, how many bakes, and those that were chosen. */
export const seasonSchema = z
  .object({
    title: z.string().trim().min(1, { error: "A season needs a name, such as “A taller pear loaf”." }).max(160),
    formulaId: z.string().max(80).optional(),
    formulaVersion: z.number().int().optional(),
    /** The present bake, from which all others are told. */
    formula: formulaSchema,
    ...askedShape,
    runs: z.array(seasonRunSchema).max(60),
    /** When the runs were taken: what the log had before is no run of them, and counts beside them. */
    since: z.iso.datetime({ offset: true }).optional(),
    notes: z.string().max(8000),
  })
  .superRefine(soundly);
export type Season = z.infer<typeof seasonSchema>;

const expectedSchema = z.record(z.string(), rangeSchema);
/** One bake of a season as it stands: what it changes, what is expected of it, what came out. */
export const runStateSchema = z.object({
  id: z.string(),
  kind: z.enum([...runKinds, "logged"]),
  block: z.number().int(),
  settings: settingsSchema,
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
  slice: z.object({ middleMm: z.number(), edgeMm: z.number(), widthMm: z.number() }),
});
export type RunState = z.infer<typeof runStateSchema>;

export const seasonStateSchema = z.object({
  /** Points that were judged and baked in the computer, and how many of them are unsound, by why. */
  candidates: z.number().int(),
  unsound: z.array(z.object({ why: z.string(), count: z.number().int() })),
  /** Some of those that were refused, with what was found. */
  refused: z.array(z.object({ settings: settingsSchema, why: z.string() })),
  runs: z.array(runStateSchema),
  /** Runs that are proposed and not yet kept: the first bakes where there are none, the next one where all are baked. */
  proposed: z.array(runStateSchema),
  design: z
    .object({ criterion: z.enum(["D", "I"]), terms: z.array(z.string()), efficiency: z.number(), together: z.array(z.string()), words: z.string() })
    .nullable(),
  /** What moving a factor from its low to its high end does to each quality that is wished for. */
  learnt: z.array(z.object({ factorId: z.string(), quality: z.string(), effect: rangeSchema, /** Whether the range leaves 0 out. */ sure: z.boolean(), words: z.string() })),
  /** The present bake and the best that was baked, by what is known of them. */
  now: runStateSchema,
  best: runStateSchema.nullable(),
  next: z.object({ run: runStateSchema, gain: z.number(), gainWords: z.string(), /** How likely everything that must hold holds. */ holdsBy: z.number(), /** What it takes: minutes in the oven, and money by the packets where every ingredient has a price. */ minutes: z.number(), cost: z.object({ amount: z.number(), currency: z.string() }).nullable() }).nullable(),
  stop: z.object({ isTime: z.boolean(), words: z.string() }),
  /** What can be had at once of several wishes: points that no other beats in all of them. */
  front: z.array(runStateSchema),
  /** The first wish over the two factors that tell most: means and standard deviations, row by row of y. */
  map: z
    .object({ x: z.string(), y: z.string(), xs: z.array(z.number()), ys: z.array(z.number()), mean: z.array(z.array(z.number())), sd: z.array(z.array(z.number())) })
    .nullable(),
  /** By quality: the scatter of a single bake, and how many bakes lay in the 90 % range that all others gave of them. */
  model: z.array(z.object({ quality: z.string(), noise: z.number(), within: z.number().int(), of: z.number().int() })),
}); // prettier-ignore
export type SeasonState = z.infer<typeof seasonStateSchema>;
