import { z } from "zod";
import { rangeSchema } from "../measure/range-schema";
import { fidelities } from "./simulation";
import { signs } from "./signs";

export const fillSchema = z.object({
  /** Batter over the vessel's volume to the rim; 0 for pieces without a wall. */
  fillFraction: z.number(),
  depthMm: z.number(),
  /** The highest point in the oven; null where it is not baked. */
  crownMm: rangeSchema.nullable(),
  /** Batter or crumb runs over: poured so, or in the oven. */
  overflow: z.boolean(),
  pieces: z.number(),
  pieceG: z.number(),
  rimMm: z.number().nullable(),
  widthMm: z.number(),
});
export type Fill = z.infer<typeof fillSchema>;
/** A fill with its bake. */
export const bakedFillSchema = fillSchema.extend({ crownMm: rangeSchema });
export type BakedFill = z.infer<typeof bakedFillSchema>;
export const bakeSchema = z.object({
  minutes: rangeSchema,
  checkAtMinutes: z.number(),
  targetCoreC: z.number(),
  signs: z.array(z.string()),
  lossPercent: rangeSchema,
  restBeforeCuttingMinutes: z.number(),
  /** What it waits for when its inside is done, and the minute at which that is. */
  waitsFor: z.enum(["core", "colour", "dryness"]).optional(),
  setAtMinutes: z.number().optional(),
  /** From a simulation: when its inside is done, when it is golden where it is judged, and dry; null where it does not come to that. */
  setMinutes: rangeSchema.optional(),
  goldenMinutes: rangeSchema.nullable().optional(),
  dryMinutes: rangeSchema.nullable().optional(),
  /** The minute of every sign that came. */
  signMinutes: z.array(z.object({ sign: z.enum(signs), minutes: z.number() })).optional(),
  /** Minutes after the oven. */
  outOfTinMinutes: z.number().optional(),
  firstBiteMinutes: z.number().optional(),
  cleanCutMinutes: z.number().optional(),
  /** How brown it is when it leaves the oven. */
  top: z.string().optional(),
  base: z.string().optional(),
  /** How finely it was computed: what is coarse is wider, and within 3 % of the fine one. */
  fidelity: z.enum(fidelities),
});
export type Bake = z.infer<typeof bakeSchema>;
