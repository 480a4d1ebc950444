import { SALT_PER_SODIUM } from "../physics";
import { consistencies, type Consistency } from "../body/consistency";
import { batchOf, type Item } from "../formula/resolve";
import type { Kind } from "../formula/kinds";
import type { Process } from "../formula/process";
import type { Oven } from "../pantry/vessel";
import table from "./data/kinds.json";

export const bandNames = ["waterPercent", "fatPercent", "sugarPercent", "eggPercent", "gasMlPer100g", "saltPercent"] as const;
export type BandName = (typeof bandNames)[number];

export interface Band {
  low: number;
  high: number;
}

/** What is usual for a kind of bake: percentages on flour and starch, gas in mL at 25 °C per 100 g of batter. */
export interface KindProfile {
  kind: Kind;
  vesselId: string;
  celsius: number;
  mode: NonNullable<Oven["mode"]>;
  method: NonNullable<Process["method"]>;
  /** Words this batter may have, the most usual first. */
  consistencies: Consistency[];
  bands: Record<BandName, Band>;
  /** Binder wanted, in % xanthan on flour. */
  binderPercent: Band;
  targetCoreC: number;
  lossPercent: { low: number; mid: number; high: number };
  restBeforeCuttingMinutes: number;
  signs: string[];
  /** A typical formula in baker's percentages. */
  typical: { ingredientId: string; percent: number }[];
  why: string;
}

const profiles = new Map((table as KindProfile[]).map((profile) => [profile.kind, profile]));

export function profileOf(kind: Kind): KindProfile {
  const profile = profiles.get(kind);
  if (!profile) throw new Error(`kinds.json has no entry for ${kind}`);
  return profile;
}

/** A typical batter of a kind with so many grams in all. */
export function typicalLines(kind: Kind, batchG: number): { ingredientId: string; grams: number }[] {
  const { typical } = profileOf(kind);
  const whole = typical.reduce((all, line) => all + line.percent, 0);
  return typical.map(({ ingredientId, percent }) => ({ ingredientId, grams: (batchG * percent) / whole }));
}

const eggFamily = "egg";

/** Each band's reading of a formula, in the unit of the band. */
export function bandReadings(items: readonly Item[], gasMlPer100g: number): Record<BandName, number> {
  const batch = batchOf(items);
  const onFlour = (grams: number): number => (batch.flourG > 0 ? (100 * grams) / batch.flourG : 0);
  const egg = items.reduce((g, item) => g + (item.ingredient.family === eggFamily ? item.massG : 0), 0);
  return {
    waterPercent: onFlour(batch.waterG),
    fatPercent: onFlour(batch.fatG),
    sugarPercent: onFlour(batch.sugarG),
    eggPercent: onFlour(egg),
    gasMlPer100g,
    saltPercent: onFlour(saltOf(items)),
  };
}

/** Salt added as such or in cheese and butter, g; the sodium of leaveners is not salt to the tongue. */
export const saltOf = (items: readonly Item[]): number =>
  items.reduce(
    (g, { ingredient, massG }) =>
      ingredient.leavening ? g : g + (massG * (ingredient.sodiumMg ?? 0) * SALT_PER_SODIUM) / 100 / 1000,
    0,
  );

/** −1 when a batter is thinner than any word its kind may have, 1 when stiffer, 0 inside. */
export function consistencyAgainst(word: Consistency, kind: Kind): -1 | 0 | 1 {
  const places = profileOf(kind).consistencies.map((c) => consistencies.indexOf(c));
  const at = consistencies.indexOf(word);
  if (at < Math.min(...places)) return -1;
  return at > Math.max(...places) ? 1 : 0;
}
