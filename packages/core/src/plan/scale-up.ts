import { z } from "zod";
import { baked } from "../balance/analyse";
import { defaultsOf } from "../balance/defaults";
import { readings } from "../balance/readings";
import { CoreError } from "../errors";
import { scaledWhole } from "../formula/scale";
import type { Opened } from "../formula/open";
import { gramsText } from "../measure/amounts";
import { rangeSchema } from "../measure/range-schema";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import type { Packet } from "../pantry/packet-schema";
import { stepsOf } from "./steps";
import type { WorkStep } from "./work-step-schema";

export const scaleUpSchema = z.object({
  /** How many times the formula as it stands. */
  factor: z.number(),
  pieces: z.number(),
  massG: z.number(),
  batches: z.number(),
  perBatch: z.object({
    massG: z.number(),
    pieces: z.number(),
    /** The last batch takes what is left. */
    lastPieces: z.number(),
    /** Of the bowl, with room to mix in. */
    bowlShare: z.number(),
    /** Minutes of hands from the first weighing to the door. */
    minutes: rangeSchema,
    /** Minutes from wetting it to the door for the last of it, and how many cost a tenth and a quarter of the oven's lift. */
    waits: z.number(),
    tenth: z.number().nullable(),
    quarter: z.number().nullable(),
  }),
  loads: z.number(),
  /** Minutes of one load, as the bench has them for these pieces, and of all one after the other. */
  loadMinutes: rangeSchema,
  ovenMinutes: z.number(),
  /** What an oven must give to heat and dry one load, kWh. */
  kWhPerLoad: z.number(),
  /** Factors near by that use whole packets of what weighs most. */
  wholePackets: z.array(z.object({ ingredientId: z.string(), packets: z.number(), factor: z.number(), pieces: z.number() })),
  /** What does not grow in proportion, each with its number. */
  otherwise: z.array(z.string()),
});
export type ScaleUp = z.infer<typeof scaleUpSchema>;

export interface Workshop {
  /** What the largest bowl or mixer holds to the rim, mL. */
  bowlMl: number;
  /** Pieces (tins, cups, places on sheets) that go into the ovens at once. */
  placesPerLoad: number;
}

/** A bowl is mixed in without spilling up to so much of it. */
const BOWL_FULL = 0.6;
/** Specific heat of batter, J/(g K), and what a gram of water takes to leave, J. */
const HEAT_J = 2.8;
const STEAM_J = 2400;
/** From the bowl to a crumb that is done, K. */
const WARMED_K = 75;
/** What a household oven gives, kW. */
const HOUSEHOLD_KW = 3;
/** A quarter spoon of leavening, g. */
const QUARTER_SPOON_G = 1.2;
const MOST_BATCHES = 60;
/** Whole packets are told where they change the plan by no more than this share. */
const NEAR_PACKETS = 0.25;

/** Minutes between two steps along what waits for what: everything after the wetting up to the door, one pair of hands. */
const afterWetting = (steps: readonly WorkStep[]): number => {
  const bake = steps.find(({ kind }) => kind === "bake");
  const at = steps.findIndex(({ id }) => id === bake?.within?.of);
  const door = steps.findIndex(({ kind }) => kind === "bake");
  return steps.slice(at < 0 ? door : at + 1, door).filter(({ kind }) => kind !== "preheat" && kind !== "pan" && kind !== "component").reduce((sum, { minutes }) => sum + minutes.mid, 0);
}; // prettier-ignore

const handsMinutes = (steps: readonly WorkStep[]): { low: number; mid: number; high: number } =>
  steps
    .slice(0, Math.max(0, steps.findIndex(({ kind }) => kind === "bake")))
    .filter(({ needs }) => needs === "hands" || needs === "mixer")
    .reduce((sum, { minutes: { low, mid, high } }) => ({ low: sum.low + low, mid: sum.mid + mid, high: sum.high + high }), { low: 0, mid: 0, high: 0 }); // prettier-ignore

/**
 * From a test bake to a day's worth: how many batches the bowl and the leavening allow, how many loads the oven takes, what uses whole packets, and
 * what does not grow in proportion. `times` is how many of the formula as it stands. Throws `bad-amount`, and as `readings`.
 */
export function scaleUp(input: Opened, times: number, workshop: Workshop, packets: readonly Packet[] = [], shelf: Shelf = builtInShelf): ScaleUp {
  if (!(times > 0) || times > 1000) throw new CoreError("bad-amount", `${times} times the formula cannot be planned; from 0.1 to 1000 would be right.`, "times");
  if (!(workshop.bowlMl >= 200)) throw new CoreError("bad-amount", `A bowl of ${workshop.bowlMl} mL is too small; 200 mL or more would be right.`, "bowlMl");
  const one = baked(input, shelf, { frames: 0 }, "plain").analysis;
  const vessel = input.vessel ?? defaultsOf(input.kind ?? "loaf").vessel;
  const onePieces = Math.max(1, one.fill.pieces);
  const at = (factor: number) => {
    const { lines, components } = scaledWhole({ lines: input.lines, components: input.components }, factor);
    const scaledInput: Opened = { ...input, lines, ...(components ? { components } : {}), vessel: { ...vessel, pieces: Math.max(1, Math.min(500, Math.round(onePieces * factor))) } };
    // Pieces of the same size take the minutes of one: what is asked anew is what hands do before the door.
    const analysis = { ...readings(scaledInput, shelf), fill: one.fill, bake: one.bake, race: one.race };
    return { analysis, steps: stepsOf(scaledInput, analysis, null, shelf) };
  };
  const litres = one.batch.massG / one.body.densityGPerMl;
  const { tenth, quarter } = one.lift.standMinutes;
  const pieces = Math.max(1, Math.round(onePieces * times));
  const loads = Math.max(1, Math.ceil(pieces / Math.max(1, workshop.placesPerLoad)));
  // A batch is no larger than the bowl mixes and the oven takes at once.
  const inBowl = Math.max(1, Math.floor((workshop.bowlMl * BOWL_FULL * onePieces) / litres));
  let batches = Math.max(loads, Math.ceil(pieces / inBowl));
  let made = at(times / batches);
  // Smaller ones until the last piece has its lift, as long as that helps; a batch of one piece is as small as it gets.
  while (batches < MOST_BATCHES && quarter !== null && afterWetting(made.steps) > quarter && (onePieces * times) / batches > 1) {
    batches++;
    made = at(times / batches);
  }
  // Whole pieces in every batch; the last one takes what is left.
  const each = Math.ceil(pieces / batches);
  batches = Math.ceil(pieces / each);
  made = at(each / onePieces);
  const perBatch = { pieces: each, lastPieces: pieces - each * (batches - 1), massG: (one.batch.massG * each) / onePieces };
  const waits = afterWetting(made.steps);
  const bakeMinutes = one.bake.minutes.mid;
  const loadG = (one.batch.massG * times) / loads;
  const kWh = (loadG * (HEAT_J * WARMED_K + (STEAM_J * one.bake.lossPercent.mid) / 100)) / 3.6e6;
  const small = handsMinutes(at(1).steps);
  const grown = handsMinutes(made.steps);
  const needs = new Map<string, number>();
  for (const line of scaledWhole({ lines: input.lines }, times).lines)
    if (line.ingredientId !== undefined && line.grams !== undefined && line.off !== true)
      needs.set(line.ingredientId, (needs.get(line.ingredientId) ?? 0) + (typeof line.grams === "number" ? line.grams : line.grams.mid));
  const wholePackets = [...needs]
    .sort((a, b) => b[1] - a[1])
    .flatMap(([ingredientId, grams]) => {
      const packet = packets.filter((one) => one.ingredientId === ingredientId).sort((a, b) => b.sizeG - a.sizeG)[0];
      if (!packet || grams <= 0) return [];
      const count = Math.max(1, Math.round(grams / packet.sizeG));
      const factor = (times * count * packet.sizeG) / grams;
      return Math.abs(factor / times - 1) > NEAR_PACKETS ? [] : [{ ingredientId, packets: count, factor, pieces: Math.round(onePieces * factor) }];
    })
    .slice(0, 3);
  const much = (minutes: number): string => `${Math.round(minutes)} min`;
  return {
    factor: times,
    pieces,
    massG: one.batch.massG * times,
    batches,
    perBatch: { ...perBatch, bowlShare: (litres * each) / onePieces / workshop.bowlMl, minutes: grown, waits, tenth, quarter },
    loads,
    loadMinutes: one.bake.minutes,
    ovenMinutes: loads * bakeMinutes,
    kWhPerLoad: kWh,
    wholePackets,
    otherwise: [
      `Hands: ${much(small.mid)} for the formula as it stands, ${much(grown.mid)} for a batch of ${gramsText(perBatch.massG)}${each / onePieces > 1.15 ? `, which is ${Math.round((10 * each) / onePieces) / 10} times as much` : ""}; ${much(grown.mid * batches)} in all.`,
      quarter === null
        ? "Standing: this batter loses no lift worth telling while it waits."
        : `Standing: the last piece of a batch is in the oven ${much(waits)} after it was wetted; ${tenth === null ? "" : `${much(tenth)} cost a tenth of the oven's lift, `}${much(quarter)} a quarter${waits > quarter ? ": a second pair of hands, or a powder that waits for heat" : ""}.`,
      loads > 1
        ? `Oven: ${loads} loads of ${much(bakeMinutes)}, ${much(loads * bakeMinutes)} in all, and ${much(Math.max(0, (loads - 1) * bakeMinutes))} between the first and the last: mix a batch a load, not all at once.`
        : `Oven: one load, but a full one takes about ${kWh.toFixed(1)} kWh to heat and dry where the test took ${((kWh * one.batch.massG) / loadG).toFixed(1)}; a household oven of ${HOUSEHOLD_KW} kW gives that in ${much((kWh / HOUSEHOLD_KW) * 60)} at the least, so look later than the test says.`,
      `Leavening is weighed: a quarter spoon too much in the test is ${gramsText(QUARTER_SPOON_G * times)} here.`,
      "The time of one piece in the oven stays as it is, as long as air moves between them; so does its loss.",
    ],
  };
} // prettier-ignore
