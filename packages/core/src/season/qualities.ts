import type { Trial } from "../trial/trial";
import { lossOf, middleOf } from "../trial/measured";
import { type Scale, scales, worthOf } from "../trial/scales";
import type { Outcome } from "../trial/outcome";
import { crumbWater } from "../trial/outcome";

/** What a season may wish for or hold: measured, tasted on the scales of the log, or reckoned without a bake. */
export const measuredQualities = ["height", "loss", "minutes"] as const;
export const reckonedQualities = ["cost", "keeps", "sodium"] as const;
export const tastedQualities = ["score", ...scales.map(({ id }) => `scale-${id}`), "liked"];
export const qualityIds: readonly string[] = [...measuredQualities, ...reckonedQualities, ...tastedQualities];

/** How far what is true in a kitchen may lie from what the computer bakes, as standard deviations in the quality's own unit. */
export interface Doubt {
  /** The same for every bake of the season: a hot oven, tired powder, a strict judge. */
  offset: number;
  /** From the middle of a factor's range to its end, what the computer's slope may be off. */
  slope: number;
  /** Bends that no straight line follows. */
  bend: number;
  /** One bake against its own repeat. */
  noise: number;
}

export interface Quality {
  id: string;
  name: string;
  unit: string;
  /** 1 where more of it is better by nature, −1 where less is. */
  side: 1 | -1;
  digits: number;
  /** The least difference that anybody notices: under it another bake is not worth its flour. */
  least: number;
  how: "measured" | "reckoned" | "tasted" | "preferred";
  /** What a trial of the log says of it; null where it was not written down. */
  of: (trial: Trial) => number | null;
  /** What the bake in the computer says of it, in its own unit: the mean that a kitchen is held against. */
  baked?: (outcome: Outcome) => number;
  /** What of the bake in the computer it leans on, where there is no such number: how strongly is learnt. */
  leans?: (outcome: Outcome) => number;
  /** The mean before anything is known, where the computer says none. */
  usual: number;
  /** By the size of the thing: a share of the present bake's value where `relative`, else as it stands. */
  doubt: Doubt;
  relative?: boolean;
}

/*
 * Doubts are house rules, taken from how far the log's own ovens, eyes and tapes scatter: a tape reads to 2 mm and loaves of one batter differ by 3 %,
 * an oven moves minutes by a tenth, a step of a scale is about 0.3 of its worth and one judge is half a step off.
 */
const scaleQuality = ({ id, name, steps }: Scale): Quality => ({
  id: `scale-${id}`,
  name,
  unit: "of 1",
  side: 1,
  digits: 2,
  least: 0.06,
  how: "tasted",
  of: ({ scores }) => steps[scores[id] ?? -1]?.worth ?? null,
  ...(leanings[id] ? { leans: leanings[id] } : {}),
  usual: 0.75,
  doubt: { offset: 0.25, slope: 0.18, bend: 0.15, noise: 0.12 },
});
const leanings: Record<string, (outcome: Outcome) => number> = {
  moistness: crumbWater,
  "crumb-size": ({ simulation }) => simulation.cooledMm.middle,
  top: ({ simulation }) => simulation.cooledMm.middle - simulation.cooledMm.edge,
  crumble: ({ analysis }) => Math.min(1.5, analysis.body.binder.adequacy),
  soapy: ({ analysis }) => -analysis.lift.ph.mid,
  tangy: ({ analysis }) => analysis.lift.ph.mid,
};

const reckoned = { how: "reckoned", of: () => null, usual: 0, doubt: { offset: 0, slope: 0, bend: 0, noise: 0 } } as const;
const all: Quality[] = [
  { id: "height", name: "Height", unit: "mm", side: 1, digits: 0, least: 1.5, how: "measured", of: ({ measured }) => middleOf(measured), baked: ({ simulation }) => simulation.cooledMm.middle, usual: 0, doubt: { offset: 0.08, slope: 0.04, bend: 0.03, noise: 0.03 }, relative: true },
  { id: "loss", name: "Loss in the oven", unit: "%", side: -1, digits: 1, least: 0.3, how: "measured", of: ({ measured }) => lossOf(measured), baked: ({ simulation }) => simulation.loss.oven, usual: 0, doubt: { offset: 0.12, slope: 0.06, bend: 0.04, noise: 0.05 }, relative: true },
  { id: "minutes", name: "Minutes in the oven", unit: "min", side: -1, digits: 0, least: 1, how: "measured", of: ({ measured }) => measured.minutes ?? null, baked: ({ simulation }) => simulation.done.mid, usual: 0, doubt: { offset: 0.1, slope: 0.05, bend: 0.03, noise: 0.04 }, relative: true },
  { id: "cost", name: "Cost of a batch", unit: "by the packets", side: -1, digits: 2, least: 0.05, ...reckoned },
  { id: "keeps", name: "Keeps on the counter", unit: "days", side: 1, digits: 1, least: 0.25, ...reckoned },
  { id: "sodium", name: "Sodium", unit: "mg in 100 g", side: -1, digits: 0, least: 15, ...reckoned, baked: ({ analysis: { batch }, simulation: { loss } }) => (100 * batch.sodiumMg) / (batch.massG * (1 - loss.oven / 100)) },
  { id: "score", name: "As a whole, by the log's scales", unit: "of 1", side: 1, digits: 2, least: 0.03, how: "tasted", of: ({ scores, seen }) => worthOf(scores, seen), usual: 0.8, doubt: { offset: 0.15, slope: 0.1, bend: 0.08, noise: 0.06 } },
  { id: "liked", name: "Liked in blind tastings", unit: "(0 is usual)", side: 1, digits: 1, least: 0.25, how: "preferred", of: () => null, usual: 0, doubt: { offset: 0, slope: 0.8, bend: 0.6, noise: 1 } },
  ...scales.map(scaleQuality),
]; // prettier-ignore
const byId = new Map(all.map((quality) => [quality.id, quality]));
export const qualities: readonly Quality[] = all;

/** A quality by its id. Throws a plain error for one that is none: the schema lets no other through. */
export function qualityOf(id: string): Quality {
  const found = byId.get(id);
  if (!found) throw new Error(`no quality "${id}"`);
  return found;
}

/** A value with its unit, as it is said. */
export const qualityText = ({ digits, unit }: Quality, value: number): string => `${value.toFixed(digits)} ${unit}`;
