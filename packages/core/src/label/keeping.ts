import { z } from "zod";
import type { ComponentPlace } from "../formula/components";
import type { Kind } from "../formula/kinds";
import type { Item } from "../formula/resolve";
import { type Range, rangeSchema } from "../measure/range";
import type { Ingredient } from "../pantry/ingredient";
import table from "./data/keeping.json";
import { waterActivity } from "./water-activity";

export const keepingSchema = z.object({
  /** Of the moistest part that mould can reach. */
  waterActivity: rangeSchema,
  /** At 20 °C, wrapped; null where it must not stand out at all. */
  counterDays: rangeSchema.nullable(),
  fridgeDays: rangeSchema,
  freezerMonths: rangeSchema.nullable(),
  /** What ends it first on the counter. */
  ends: z.enum(["staling", "mould", "filling"]),
  freeze: z.string(),
  thaw: z.string(),
  refresh: z.string(),
  why: z.array(z.string()),
});
export type Keeping = z.infer<typeof keepingSchema>;

/** A part of a bake: what it is made of and how much water has gone from it. */
export interface KeptPart {
  items: readonly Item[];
  place: ComponentPlace | "batter";
  lostG: Range;
}

/*
 * Days until mould is seen on a cake without preservatives, at 21 °C: log10 days = 6.42 − 0.0647 · ERH, ERH in per cent. A rule of bakery
 * research from stored cakes; days vary by half as much again either way with the kitchen's spores.
 */
const mouldDays = (activity: number): number => 10 ** (6.42 - 6.47 * activity);
const KITCHENS_DIFFER = 1.6;
/** Cold slows mould by about so much. */
const FRIDGE_SLOWS = 5;
const MOST_DAYS = 60;

/** Moist things that bacteria grow on: dairy, egg and bean above this activity. */
const BACTERIA_ABOVE = 0.92;
/** Sourer than this, pH, keeps them down. */
const SOUR_ENOUGH = 4.6;
/** Shares of a part from which on it counts as perishable, as sour; of a bake, as wet with fruit, as rich in the fat of nuts. */
const PERISHABLE_SHARE = 0.25;
const SOUR_SHARE = 0.3;
const FRUITY_SHARE = 0.15;
const NUT_FAT_SHARE = 0.08;
/** What the fat of nuts leaves of the months in a freezer. */
const NUT_FAT_KEEPS = 0.6;
const perishable = new Set<Ingredient["family"]>(["dairy", "cultured", "cheese", "egg", "egg-substitute", "meat", "plant-milk"]);

const shareOf = (items: readonly Item[], is: (ingredient: Ingredient) => boolean): number => {
  const all = items.reduce((g, { massG }) => g + massG, 0);
  return all > 0 ? items.reduce((g, { massG, ingredient }) => g + (is(ingredient) ? massG : 0), 0) / all : 0;
};

const atMost = (a: Range, b: Range): Range => ({
  low: Math.min(a.low, b.low),
  mid: Math.min(a.mid, b.mid),
  high: Math.min(a.high, b.high),
});
const times = (range: Range, factor: number): Range => ({
  low: range.low * factor,
  mid: range.mid * factor,
  high: range.high * factor,
});

/** A part that is moist, holds milk, egg or meat, and is not cooked with the crumb: a cream on top, a fresh cheese inside. */
const mayHurt = ({ items, place, lostG }: KeptPart): boolean =>
  (place === "after" || place === "inside" || place === "top") &&
  shareOf(items, ({ family }) => perishable.has(family)) > PERISHABLE_SHARE &&
  shareOf(items, ({ ph }) => ph !== undefined && ph < SOUR_ENOUGH) < SOUR_SHARE &&
  waterActivity(items, lostG).high > BACTERIA_ABOVE;

/** How long a bake keeps on the counter, in the fridge and frozen: by its kind, its water activity and what is in it. Days and months with their honest spread. */
export function keepingOf(kind: Kind, parts: readonly KeptPart[]): Keeping {
  const usual = (table.byKind as Record<Kind, { counterDays: Range; fridgeDays: Range; freezerMonths: Range }>)[kind];
  const exposed = parts.filter(({ items, place }) => place !== "apart" && items.length > 0);
  const activities = exposed.map(({ items, lostG }) => waterActivity(items, lostG));
  const moistest = activities.reduce<Range>((a, b) => (b.mid > a.mid ? b : a), activities[0] ?? { low: 0, mid: 0, high: 0 });
  const all = exposed.flatMap(({ items }) => items);
  const hurting = exposed.some(mayHurt);
  const fruit = shareOf(all, ({ family }) => family === "fruit" || family === "vegetable" || family === "puree");
  const nutFat = all.reduce((g, { massG, ingredient }) => g + (["nut", "nut-flour", "seed"].includes(ingredient.family) ? (massG * ingredient.per100g.fat) / 100 : 0), 0) / Math.max(1, all.reduce((g, { massG }) => g + massG, 0));
  const mould: Range = {
    low: Math.min(MOST_DAYS, mouldDays(moistest.high) / KITCHENS_DIFFER),
    mid: Math.min(MOST_DAYS, mouldDays(moistest.mid)),
    high: Math.min(MOST_DAYS, mouldDays(moistest.low) * KITCHENS_DIFFER),
  };
  const counter = atMost(usual.counterDays, mould);
  const fridge = hurting ? atMost(usual.fridgeDays, { low: 1, mid: 2, high: 3 }) : atMost(usual.fridgeDays, times(mould, FRIDGE_SLOWS));
  const months = nutFat > NUT_FAT_SHARE ? times(usual.freezerMonths, NUT_FAT_KEEPS) : usual.freezerMonths;
  const ends = hurting ? "filling" : mould.mid < usual.counterDays.mid ? "mould" : "staling";
  return {
    waterActivity: moistest,
    counterDays: hurting ? null : counter,
    fridgeDays: fridge,
    freezerMonths: hurting ? null : months,
    ends,
    freeze: hurting
      ? "Not with this filling: freeze the crumb alone, and fill it when it has thawed."
      : `Freeze it the day it is baked, when it is cold${kind === "loaf" || kind === "tray-bread" ? ", in slices with paper between them" : ""}; wrap it tight and write the day on it.`,
    thaw: kind === "loaf" ? "Slices go from the freezer into the toaster; a whole loaf thaws wrapped, two to three hours." : "Thaw it wrapped, one to two hours, so that its own water goes back into the crumb.",
    refresh: kind === "bar" ? "Nothing is needed." : "5 to 8 min at 160 °C, or a toaster: starch that has set softens again above 60 °C, once.",
    why: [
      ends === "staling" ? "A crumb without gluten turns dry and short before it moulds: its starch sets again, fastest in the fridge." : ends === "mould" ? `At a water activity of ${moistest.mid.toFixed(2)} mould comes first.` : "Its moist part holds milk, egg or the like and is not sour: bacteria grow in it at room temperature.",
      ...(fruit > FRUITY_SHARE ? [`${Math.round(100 * fruit)} % of it is fruit or vegetable: around the pieces the crumb is wetter than this figure, and mould begins there.`] : []),
      ...(nutFat > NUT_FAT_SHARE ? ["Much of its fat is from nuts or seeds, which turns rancid in the freezer too: the shorter time stands."] : []),
    ],
  };
} // prettier-ignore
