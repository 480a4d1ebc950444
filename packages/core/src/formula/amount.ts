import type { Filling } from "../measure/filling";
import { householdText } from "../measure/amounts";
import { mainMeasure } from "../measure/line";
import { itemsOf, readLine } from "../measure/several";
import { plainText } from "../measure/quantity";
import { exactly } from "../measure/range";
import type { Range } from "../measure/range-schema";
import type { Measures, UnitId } from "../measure/units";
import { unitLabel } from "../measure/units";
import { weighMeasure } from "../measure/weigh";
import type { Ingredient } from "../pantry/ingredient-schema";

/** How amounts stand on the sheet. */
export const amountModes = ["grams", "household", "percent"] as const;
export type AmountMode = (typeof amountModes)[number];

export interface AmountContext {
  measures: Measures;
  mode: AmountMode;
  /** What a percentage stands on, g. */
  flourG: number;
}

export type ReadAmount = { grams: Range; unit: UnitId; filling?: Filling } | { error: string };

/** Reads an amount typed on the sheet: "120", "1½ tsp", "2 large", "45 %". A bare number is in the unit of the sheet's mode. */
export function readAmount(text: string, ingredient: Ingredient, { measures, mode, flourG }: AmountContext): ReadAmount {
  const plain = plainText(text);
  const bare = /^\d*\.?\d+$/.exec(plain) ? Number(plain) : null;
  const percent = /^(\d*\.?\d+)\s*%$/.exec(plain);
  const share = percent ? Number(percent[1]) : bare !== null && mode === "percent" ? bare : null;
  if (share !== null) {
    return flourG > 0
      ? { grams: exactly((share / 100) * flourG), unit: "g" }
      : { error: "A percentage needs flour or starch to stand on; give grams first." };
  }
  if (bare !== null && mode !== "household") return limited({ grams: exactly(bare), unit: "g" });
  const measure = readLine(`${plain} of it`).measures[0];
  const first = measure?.[0];
  const grams = measure ? weighMeasure(measure, ingredient, measures) : null;
  if (!first) return { error: `“${text.trim()}” is no amount; 120 g, 1½ tsp or 45 % would be right.` };
  if (!grams) return { error: `${ingredient.name} has no usual mass for ${unitLabel[first.unit]}; give grams.` };
  return limited({ grams, unit: first.unit, ...(first.filling ? { filling: first.filling } : {}) });
}

/** What the words of a recipe weigh of an ingredient, where they hold one thing; null where they give no amount for it. */
export function weighedIn(source: string, ingredient: Ingredient, measures: Measures): { grams: Range; unit: UnitId } | null {
  const items = itemsOf(source);
  const measure = items.length === 1 ? mainMeasure(items[0]?.measures ?? []) : undefined;
  const grams = measure ? weighMeasure(measure, ingredient, measures) : null;
  const unit = measure?.[0]?.unit;
  return grams && unit !== undefined ? { grams, unit } : null;
}

const limited = (amount: { grams: Range; unit: UnitId; filling?: Filling }): ReadAmount =>
  amount.grams.mid <= 1_000_000 ? amount : { error: "That is more than 1000 kg; check the unit." };

/** An amount as the sheet shows it in its mode: figure and unit. */
export function amountText(
  grams: number,
  ingredient: Ingredient,
  { measures, mode, flourG }: AmountContext,
): { figure: string; unit: string } {
  if (mode === "household") return { figure: householdText(grams, ingredient, measures), unit: "" };
  if (mode === "percent" && flourG > 0)
    return { figure: trimmed((100 * grams) / flourG, grams < 0.02 * flourG ? 2 : 1), unit: "%" };
  return { figure: trimmed(grams, grams < 20 ? 1 : 0), unit: "g" };
}

const trimmed = (value: number, digits: number): string => String(Number(value.toFixed(digits)));
