import type { Range } from "./range-schema";
import type { Measures } from "./units";
import { millilitresPer } from "./units";
import type { Measurable } from "./weigh";

/** A number of grams as a baker writes it: to 0.1 g under 20 g, to 1 g above, to 5 g above 500 g. */
export function gramsText(grams: number): string {
  const size = Math.abs(grams);
  if (size < 20) return `${Math.round(grams * 10) / 10} g`;
  return `${size < 500 ? Math.round(grams) : Math.round(grams / 5) * 5} g`;
}

const eighthSigns = ["", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"];
const thirdSigns = ["", "⅓", "⅔"];

/** A number in eighths with its vulgar fraction: 1.25 → "1¼". */
export function eighthsText(value: number): string {
  const eighths = Math.round(value * 8);
  const whole = Math.floor(eighths / 8);
  const sign = eighthSigns[eighths % 8] ?? "";
  return whole === 0 ? sign || "0" : `${whole}${sign}`;
}

/** A number of cups in quarters or thirds, whichever is nearer. */
function cupsText(value: number): string {
  const quarter = Math.round(value * 4) / 4;
  const third = Math.round(value * 3) / 3;
  if (Math.abs(quarter - value) <= Math.abs(third - value)) return eighthsText(quarter);
  const whole = Math.floor(third + 1e-9);
  const sign = thirdSigns[Math.round((third - whole) * 3)] ?? "";
  return whole === 0 ? sign : `${whole}${sign}`;
}

/**
 * Grams in the household measure a baker would take, spooned and levelled: eighths of a teaspoon, quarters of a
 * tablespoon, quarters and thirds of a cup; pieces where the thing comes in pieces. Empty under a sixteenth of a teaspoon.
 */
export function householdText(grams: number, what: Measurable, measures: Measures): string {
  const piece = what.pieces?.find((p) => p.measures === undefined || p.measures.includes(measures));
  if (piece && piece.size !== "juice" && piece.size !== "zest" && piece.grams.mid > 10) {
    const count = grams / piece.grams.mid;
    return `${eighthsText(Math.round(count * 4) / 4)} ${piece.size}`;
  }
  const ml = grams / what.gPerMl.mid;
  const spoon = millilitresPer.tsp?.[measures] ?? 5;
  const table = millilitresPer.tbsp?.[measures] ?? 15;
  const cup = millilitresPer.cup?.[measures] ?? 250;
  if (ml < spoon / 16) return grams > 0 ? "a pinch" : "";
  if (ml < 0.92 * table) return `${eighthsText(Math.max(1 / 8, ml / spoon))} tsp`;
  if (ml < 0.23 * cup) return `${eighthsText(Math.round((ml / table) * 4) / 4)} tbsp`;
  return `${cupsText(ml / cup)} cup${ml / cup > 1.1 ? "s" : ""}`;
}

/** Grams rounded to what a kitchen can measure: 0.1 g under 20 g, 1 g under 100 g, then 5 g. */
export function measurable(grams: number): number {
  if (grams < 20) return Math.round(grams * 10) / 10;
  return grams < 100 ? Math.round(grams) : Math.round(grams / 5) * 5;
}

/** Money as a shop writes it, with the currency's own letters; a thousandth of a unit is nothing. */
export const moneyText = (amount: number, currency: string): string => `${amount.toFixed(2)} ${currency}`;

/** A span of days or months in words, a day at the least: “1 to 4 days”. */
export const spanText = ({ low, high }: Range, unit: string): string => {
  const [from, to] = [Math.max(1, Math.floor(low)), Math.max(1, Math.floor(high))];
  return from === to ? `${from} ${unit}${from === 1 ? "" : "s"}` : `${from} to ${to} ${unit}s`;
};
