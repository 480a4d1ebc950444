import { capital } from "../measure/list-words";
import type { Trial } from "../trial/trial";
import { lossOf, middleOf } from "../trial/measured";
import { type Scale, scales, worthOf } from "../trial/scales";

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
  how: "measured" | "reckoned" | "tasted" | "preferred" | "own";
  /** What a trial of the log says of it; null where it was not written down. One's `own` is in no trial: its doubts are in units of what its results differ by. */
  of: (trial: Trial) => number | null;
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
  id,
  name,
  unit: "of 1",
  side: 1,
  digits: 2,
  least: 0.06,
  how: "tasted",
  of: ({ scores }) => steps[scores[id] ?? -1]?.worth ?? null,
  usual: 0.75,
  doubt: { offset: 0.25, slope: 0.18, bend: 0.15, noise: 0.12 },
});
const reckoned = { how: "reckoned", of: () => null, usual: 0, doubt: { offset: 0, slope: 0, bend: 0, noise: 0 } } as const;
const all: Quality[] = [
  { id: "height", name: "Height", unit: "mm", side: 1, digits: 0, least: 2, how: "measured", of: ({ measured }) => middleOf(measured), usual: 0, doubt: { offset: 0.08, slope: 0.04, bend: 0.03, noise: 0.03 }, relative: true },
  { id: "loss", name: "Loss in the oven", unit: "%", side: -1, digits: 1, least: 0.3, how: "measured", of: ({ measured }) => lossOf(measured), usual: 0, doubt: { offset: 0.12, slope: 0.06, bend: 0.04, noise: 0.05 }, relative: true },
  { id: "minutes", name: "Minutes in the oven", unit: "min", side: -1, digits: 0, least: 1, how: "measured", of: ({ measured }) => measured.minutes ?? null, usual: 0, doubt: { offset: 0.1, slope: 0.05, bend: 0.03, noise: 0.04 }, relative: true },
  { id: "cost", name: "Cost of a batch", unit: "by the packets", side: -1, digits: 2, least: 0.05, ...reckoned },
  { id: "keeps", name: "Keeps on the counter", unit: "days", side: 1, digits: 1, least: 0.25, ...reckoned },
  { id: "sodium", name: "Sodium", unit: "mg in 100 g", side: -1, digits: 0, least: 15, ...reckoned },
  { id: "score", name: "As a whole, by the log's scales", unit: "of 1", side: 1, digits: 2, least: 0.03, how: "tasted", of: ({ scores, seen }) => worthOf(scores, seen), usual: 0.8, doubt: { offset: 0.15, slope: 0.1, bend: 0.08, noise: 0.06 } },
  { id: "liked", name: "Liked in blind tastings", unit: "(0 is usual)", side: 1, digits: 1, least: 0.25, how: "preferred", of: () => null, usual: 0, doubt: { offset: 0, slope: 0.8, bend: 0.6, noise: 1 } },
  ...scales.map(scaleQuality),
]; // prettier-ignore
const byId = new Map(all.map((quality) => [quality.id, quality]));
export const qualities: readonly Quality[] = all;

/** A quality that the log has no scale for: its numbers come with the results, and how large they are is taken from them. */
const ownQuality = (id: string): Quality => ({
  id,
  name: capital(id).replace(/-/g, " "),
  unit: "",
  side: 1,
  digits: 2,
  least: 0.1,
  how: "own",
  of: () => null,
  usual: 0,
  doubt: { offset: 1, slope: 1, bend: 0.7, noise: 0.4 },
});

/** A quality by its id; one that the log does not know is one's own. */
export const qualityOf = (id: string): Quality => byId.get(id) ?? ownQuality(id);

/** A value with its unit, as it is said. */
export const qualityText = ({ digits, unit }: Quality, value: number): string => `${value.toFixed(digits)} ${unit}`.trimEnd();
