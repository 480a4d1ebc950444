import { z } from "zod";
import type { Process } from "../formula/process";
import { type Item, massOf } from "../formula/resolve";
import { type Range, rangeSchema, scaled, within } from "../measure/range";
import type { Oven, Vessel } from "../pantry/vessel";
import { airShare, type Gas, HANDLING_S } from "../lift/gas";
import { condensedVolume } from "../body/density";
import { brownWord } from "./browning";
import { crownOf, estimateBakedVolume, estimateMinutes } from "./estimate";
import { fillVessel } from "./geometry";
import { holdsWithCap } from "./outcome";
import { outlineOf } from "./outline";
import type { Simulation } from "./simulation";

export const fillSchema = z.object({
  /** Batter over the vessel's volume to the rim; 0 for pieces without a wall. */
  fillFraction: z.number(),
  depthMm: z.number(),
  crownMm: rangeSchema,
  overflow: z.boolean(),
  pieces: z.number(),
  pieceG: z.number(),
  rimMm: z.number().nullable(),
  widthMm: z.number(),
});
export type Fill = z.infer<typeof fillSchema>;

/** What a baker sees, feels or measures. */
const signs = ["core", "golden", "dry", "skewer", "springs", "edge"] as const;

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
  /** How the minutes were found. */
  method: z.enum(["estimate", "simulation"]),
});
export type Bake = z.infer<typeof bakeSchema>;

/** What the kind of bake says of its end. */
export interface BakeTargets {
  targetCoreC: number;
  signs: string[];
  lossPercent: { low: number; mid: number; high: number };
  restBeforeCuttingMinutes: number;
  /** It is cut in slices, which want a cool crumb; else it is eaten as soon as it does not burn. */
  sliced: boolean;
}

/** mL that the vessels hold with a crown over their rims, as the simulation judges it. */
function capacityWithCap(vessel: Vessel, massG: number, { batterMl }: { batterMl: number }): number {
  const { shape, pieces } = outlineOf(vessel, massG, batterMl);
  return holdsWithCap(shape) * pieces * 1e6;
}

/** Fill and first estimate of the bake. Lengths in mm, times in minutes. Throws `bad-vessel`. */
export function firstBake(
  items: readonly Item[],
  vessel: Vessel,
  oven: Oven,
  process: Process,
  density: number,
  gas: Gas,
  targets: BakeTargets,
): { fill: Fill; bake: Bake } {
  const massG = massOf(items);
  const filling = fillVessel(vessel, massG, density);
  const condensed = condensedVolume(items);
  const air = filling.batterMl * airShare[process.method ?? "muffin"].mid;
  const seconds = HANDLING_S + (process.restMinutes ?? 0) * 60;
  const baked = estimateBakedVolume(gas, air, condensed, massG, seconds, process.batterC ?? process.kitchenC ?? 22);
  const crown = crownOf(filling, baked);
  const minutes = estimateMinutes(filling, oven);
  const height = filling.heightMm;
  return {
    fill: {
      fillFraction: filling.fillFraction,
      depthMm: filling.depthMm,
      crownMm: crown,
      overflow: height !== null && (filling.fillFraction > 1 || baked.mid > capacityWithCap(vessel, massG, filling)),
      pieces: filling.pieces,
      pieceG: filling.pieceG,
      rimMm: height,
      widthMm: filling.widthMm,
    },
    bake: {
      minutes,
      checkAtMinutes: Math.max(1, Math.floor(minutes.low)),
      targetCoreC: targets.targetCoreC,
      signs: targets.signs,
      lossPercent: targets.lossPercent,
      restBeforeCuttingMinutes: targets.restBeforeCuttingMinutes,
      method: "estimate",
    },
  };
}

/** How well a simulated growth is known, as a share of it; loss of water, as a share. */
const GROWTH_SPREAD = 0.12;
const LOSS_SPREAD = 0.25;

/** It waits when it is out later than its inside was done, by more than a grid or a clock tells. */
const WAITS = 1.04;

function waitOf({ judged, marks, minutes }: Simulation): Pick<Bake, "waitsFor" | "setAtMinutes"> {
  if (judged === "inside" || marks.core === null || minutes <= WAITS * marks.core) return { waitsFor: "core" };
  return { waitsFor: judged === "snaps" ? "dryness" : "colour", setAtMinutes: marks.core };
}

/** Every sign with its minute; those that are judged with the range of the whole bake. */
function signsOf(simulation: Simulation): Partial<Bake> {
  const { marks, done, browning } = simulation;
  const about = (minute: number | null): Range | null =>
    minute === null ? null : scaled({ low: done.low / done.mid, mid: 1, high: done.high / done.mid }, minute);
  const set = about(marks.core);
  return {
    ...(set ? { setMinutes: set } : {}),
    goldenMinutes: about(marks.golden),
    dryMinutes: about(marks.dry),
    signMinutes: signs.flatMap((sign) => {
      const minutes = marks[sign];
      return minutes === null ? [] : [{ sign, minutes }];
    }),
    outOfTinMinutes: simulation.outOfTinMinutes,
    firstBiteMinutes: simulation.biteAfterMinutes,
    cleanCutMinutes: simulation.cutAfterMinutes,
    top: brownWord(browning.top),
    base: brownWord(browning.base),
  };
}

/** Fill and bake read from a simulation. Throws `bad-vessel`. */
export function simulatedBake(
  items: readonly Item[],
  vessel: Vessel,
  density: number,
  targets: BakeTargets,
  simulation: Simulation,
): { fill: Fill; bake: Bake } {
  const filling = fillVessel(vessel, massOf(items), density);
  const growth = GROWTH_SPREAD * Math.max(0, simulation.highestMm - filling.depthMm);
  return {
    fill: {
      fillFraction: filling.fillFraction,
      depthMm: filling.depthMm,
      crownMm: { low: simulation.highestMm - growth, mid: simulation.highestMm, high: simulation.highestMm + growth },
      overflow: filling.heightMm !== null && (filling.fillFraction > 1 || simulation.top === "over the rim"),
      pieces: filling.pieces,
      pieceG: filling.pieceG,
      rimMm: filling.heightMm,
      widthMm: filling.widthMm,
    },
    bake: {
      minutes: simulation.done,
      checkAtMinutes: simulation.checkAtMinutes,
      targetCoreC: simulation.targetC,
      signs: targets.signs,
      lossPercent: within(simulation.loss.oven, LOSS_SPREAD),
      restBeforeCuttingMinutes: targets.sliced ? simulation.cutAfterMinutes : simulation.biteAfterMinutes,
      ...waitOf(simulation),
      ...signsOf(simulation),
      method: "simulation",
    },
  };
}
