import { z } from "zod";
import type { Kind } from "../formula/kinds";
import { type Item, massOf } from "../formula/resolve";
import { type Range, rangeSchema } from "../measure/range-schema";
import type { Ingredient } from "../pantry/ingredient-schema";
import table from "./data/keeping.json";
import { coldReason, isWash, type KeptPart } from "./perishable";
import { waterActivity } from "./water-activity";

export const keepingSchema = z.object({
  /** Of the moistest part that mould can reach. */
  waterActivity: rangeSchema,
  /** At 20 °C, wrapped; null where it must not stand out at all. */
  counterDays: rangeSchema.nullable(),
  fridgeDays: rangeSchema,
  freezerMonths: rangeSchema.nullable(),
  /** What ends it first on the counter. */
  ends: z.enum(["staling", "mould", "crispness", "rancidity", "filling", "perishable"]),
  freeze: z.string(),
  thaw: z.string(),
  refresh: z.string(),
  why: z.array(z.string()),
});
export type Keeping = z.infer<typeof keepingSchema>;

/*
 * Days until mould is seen on a cake without preservatives, at 21 °C: log10 days = 6.42 − 0.0647 · ERH, ERH in per cent. A rule of bakery
 * research from stored cakes; days vary by half as much again either way with the kitchen's spores.
 */
const mouldDays = (activity: number): number => 10 ** (6.42 - 6.47 * activity);
const KITCHENS_DIFFER = 1.6;
/** Cold slows mould by about so much. */
const FRIDGE_SLOWS = 5;
const MOST_DAYS = 60;

/** Shares of a bake from which on it counts as wet with fruit, as rich in the fat of nuts. */
const FRUITY_SHARE = 0.15;
const NUT_FAT_SHARE = 0.08;
/** What the fat of nuts leaves of the months in a freezer; what meat and cheese leave of them. */
const NUT_FAT_KEEPS = 0.6;
const COLD_KEEPS = 0.6;
/** Drier than the first a bake is crisp and ends by what it draws from the air; drier than the second no mould grows. Water activity. */
const CRISP_UNDER = 0.6;
const MOULD_OVER = 0.8;

const shareOf = (items: readonly Item[], is: (ingredient: Ingredient) => boolean): number => {
  const all = items.reduce((g, { massG }) => g + massG, 0);
  return all > 0 ? items.reduce((g, { massG, ingredient }) => g + (is(ingredient) ? massG : 0), 0) / all : 0;
};

const atMost = (a: Range, b: Range): Range => ({
  low: Math.min(a.low, b.low),
  mid: Math.min(a.mid, b.mid),
  high: Math.min(a.high, b.high),
});
const atLeast = (a: Range, b: Range): Range => ({
  low: Math.max(a.low, b.low),
  mid: Math.max(a.mid, b.mid),
  high: Math.max(a.high, b.high),
});
const scaledBy = (range: Range, factor: number): Range => ({
  low: range.low * factor,
  mid: range.mid * factor,
  high: range.high * factor,
});

export type { KeptPart } from "./perishable";

/** How long a bake keeps on the counter, in the fridge and frozen: by its kind, its water activity and what is in it; nothing that bacteria grow in stands at room temperature. Days and months with their honest spread. */
export function keepingOf(kind: Kind, parts: readonly KeptPart[], targetCoreC = 96): Keeping {
  const usual = (table.byKind as Record<Kind, { counterDays: Range; fridgeDays: Range; freezerMonths: Range }>)[kind];
  const exposed = parts.filter(({ items, place }) => place !== "apart" && items.length > 0);
  const all = exposed.flatMap(({ items }) => items);
  const wholeG = massOf(all);
  const activities = exposed.filter((part) => !isWash(part, wholeG)).map(({ items, lostG }) => waterActivity(items, lostG));
  const moistest = activities.reduce<Range>((a, b) => (b.mid > a.mid ? b : a), activities[0] ?? { low: 0, mid: 0, high: 0 });
  const fruit = shareOf(all, ({ family }) => family === "fruit" || family === "vegetable" || family === "puree");
  const nutFat = all.reduce((g, { massG, ingredient }) => g + (["nut", "nut-flour", "seed"].includes(ingredient.family) ? (massG * ingredient.per100g.fat) / 100 : 0), 0) / Math.max(1, wholeG);
  const cold = exposed.flatMap((part) => {
    const why = coldReason(part, wholeG, targetCoreC);
    return why === null ? [] : [{ why, fresh: part.place === "after", batter: part.place === "batter" }];
  });
  const fresh = cold.some((one) => one.fresh);
  const lasting = cold.length > 0 ? null : lastingOf(usual, moistest, nutFat > NUT_FAT_SHARE);
  const months = scaledBy(usual.freezerMonths, (nutFat > NUT_FAT_SHARE ? NUT_FAT_KEEPS : 1) * (cold.length > 0 ? COLD_KEEPS : 1));
  const ends = lasting?.ends ?? (cold.some((one) => one.batter) ? "perishable" : "filling");
  const crisp = ends === "crispness" || ends === "rancidity";
  return {
    waterActivity: moistest,
    counterDays: lasting?.counter ?? null,
    fridgeDays: lasting?.fridge ?? atMost(usual.fridgeDays, fresh ? table.cold.freshDays : table.cold.cookedDays),
    freezerMonths: fresh ? null : months,
    ends,
    freeze: fresh
      ? "Not with what is on it: freeze the crumb alone, and finish it when it has thawed."
      : `Freeze it the day it is baked, when it is cold${kind === "loaf" || kind === "tray-bread" ? ", in slices with paper between them" : ""}; wrap it tight and write the day on it.`,
    thaw: cold.length > 0 ? "Thaw it in the fridge, overnight." : kind === "loaf" ? "Slices go from the freezer into the toaster; a whole loaf thaws wrapped, two to three hours." : "Thaw it wrapped, one to two hours, so that its own water goes back into the crumb.",
    refresh: crisp ? "5 min at 150 °C dry it crisp again." : kind === "bar" ? "Nothing is needed." : "5 to 8 min at 160 °C, or a toaster: starch that has set softens again above 60 °C, once.",
    why: [
      ...(cold.length > 0 ? cold.map(({ why }) => why) : [endsWords[ends](moistest)]),
      ...(fruit > FRUITY_SHARE && !crisp ? [`${Math.round(100 * fruit)} % of it is fruit or vegetable: around the pieces the crumb is wetter than this figure, and mould begins there.`] : []),
      ...(nutFat > NUT_FAT_SHARE ? ["Much of its fat is from nuts or seeds, which turns rancid in the freezer too: the shorter time stands."] : []),
      "These spans are kitchen knowledge, not a test of this bake; where it is sold, your local rules decide.",
    ],
  };
} // prettier-ignore

const endsWords: Record<Keeping["ends"], (activity: Range) => string> = {
  staling: () => "A crumb without gluten turns dry and short before it moulds: its starch sets again, fastest in the fridge.",
  mould: ({ mid }) => `At a water activity of ${mid.toFixed(2)} mould comes first.`,
  crispness: () => "It is too dry for mould: it ends when it has drawn water from the air and bends. A tight tin keeps it.",
  rancidity: () => "It is too dry for mould: the fat of its nuts or seeds turns rancid first.",
  filling: () => "",
  perishable: () => "",
};

/** What ends a bake that nothing dangerous grows in, and when: the mechanism that comes first. */
function lastingOf(usual: { counterDays: Range; fridgeDays: Range }, moistest: Range, nutty: boolean): { counter: Range; fridge: Range; ends: Keeping["ends"] } {
  const { crispDays, rancidDays, softDays } = table.dry;
  if (moistest.mid < CRISP_UNDER) {
    const rancid = nutty && rancidDays.mid < crispDays.mid;
    const counter = nutty ? atMost(crispDays, rancidDays) : crispDays;
    return { counter, fridge: counter, ends: rancid ? "rancidity" : "crispness" };
  }
  if (moistest.mid < MOULD_OVER) {
    const counter = atLeast(usual.counterDays, softDays);
    return { counter, fridge: atLeast(usual.fridgeDays, counter), ends: "staling" };
  }
  const mould: Range = {
    low: Math.min(MOST_DAYS, mouldDays(moistest.high) / KITCHENS_DIFFER),
    mid: Math.min(MOST_DAYS, mouldDays(moistest.mid)),
    high: Math.min(MOST_DAYS, mouldDays(moistest.low) * KITCHENS_DIFFER),
  };
  return {
    counter: atMost(usual.counterDays, mould),
    fridge: atMost(usual.fridgeDays, scaledBy(mould, FRIDGE_SLOWS)),
    ends: mould.mid < usual.counterDays.mid ? "mould" : "staling",
  };
} // prettier-ignore
