import type { JudgedBy } from "../bake/judged";
import { SALT_PER_SODIUM } from "../physics";
import { consistencies, type Consistency, stiffnessRange } from "../body/consistency";
import { batchOf, type Item } from "../formula/resolve";
import type { Kind } from "../formula/kinds";
import type { Process } from "../formula/process-schema";
import { addedFatPerGram, addedSugarPerGram } from "../pantry/crumb";
import type { Ingredient } from "../pantry/ingredient-schema";
import type { Oven } from "../pantry/vessel-schema";
import table from "./data/kinds.json";

export const bandNames = ["waterPercent", "fatPercent", "sugarPercent", "eggPercent", "gasMlPer100g", "saltPercent"] as const;
export type BandName = (typeof bandNames)[number];

export interface Band {
  low: number;
  high: number;
}

/** What is usual for a kind of bake: percentages on what builds the crumb, fat and sugar as they are added, gas in mL at 25 °C per 100 g of batter. */
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
  /** What it is judged by beside its inside. */
  judgedBy: JudgedBy;
  sliced: boolean;
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
  const onBase = (grams: number): number => (batch.baseG > 0 ? (100 * grams) / batch.baseG : 0);
  const added = (perGram: (i: Item["ingredient"]) => number): number =>
    items.reduce((g, { ingredient, massG }) => g + massG * perGram(ingredient), 0);
  const egg = items.reduce((g, item) => g + (item.ingredient.family === eggFamily ? item.massG : 0), 0);
  return {
    waterPercent: onBase(batch.waterG),
    fatPercent: onBase(added(addedFatPerGram)),
    sugarPercent: onBase(added(addedSugarPerGram)),
    eggPercent: onBase(egg),
    gasMlPer100g,
    saltPercent: onBase(saltOf(items)),
  };
}

/** Salt in a gram of what is no leavener, g. */
export const saltPerGram = ({ leavening, sodiumMg = 0 }: Ingredient): number =>
  leavening ? 0 : (sodiumMg * SALT_PER_SODIUM) / 100 / 1000;

/** Salt added as such or in cheese and butter, g; the sodium of leaveners is not salt to the tongue. */
export const saltOf = (items: readonly Item[]): number =>
  items.reduce((g, { ingredient, massG }) => g + massG * saltPerGram(ingredient), 0);

/** How far a batter's reading lies outside of what its kind may have, as a share of the edge; 0 inside. */
export function offBy(stiffness: number, kind: Kind): number {
  const ranges = profileOf(kind).consistencies.map(stiffnessRange);
  const low = Math.min(...ranges.map((range) => range.low));
  const high = Math.max(...ranges.map((range) => range.high));
  return stiffness < low ? 1 - stiffness / low : stiffness > high ? stiffness / high - 1 : 0;
}

/** −1 when a batter is thinner than any word its kind may have, 1 when stiffer, 0 inside. */
export function consistencyAgainst(word: Consistency, kind: Kind): -1 | 0 | 1 {
  const places = profileOf(kind).consistencies.map((c) => consistencies.indexOf(c));
  const at = consistencies.indexOf(word);
  if (at < Math.min(...places)) return -1;
  return at > Math.max(...places) ? 1 : 0;
}
