import { SALT_PER_SODIUM } from "../physics";
import { binderPerGram } from "../body/binder";
import type { Kind } from "../formula/kinds";
import { ML_PER_MMOL_25C } from "../lift/acids";
import { sodaPerGram } from "../lift/charge";
import { acidPerGram } from "../lift/ledger";
import { addedFatPerGram, addedSugarPerGram, crumbPerGram } from "../pantry/crumb";
import { type Ingredient, isFlour } from "../pantry/ingredient";
import { type BandName, profileOf } from "./bands";
import { findingLimits } from "./finding";
import type { Limit } from "./programme";

const share =
  (part: keyof Ingredient["per100g"]) =>
  (i: Ingredient): number =>
    (i.per100g[part] ?? 0) / 100;

/** g of each quantity that a gram of an ingredient brings; soda and acid in mmol, binder in g of xanthan. */
export const perGram = {
  mass: () => 1,
  flour: (i: Ingredient): number => (isFlour(i) ? 1 : 0),
  base: crumbPerGram,
  addedFat: addedFatPerGram,
  addedSugar: addedSugarPerGram,
  water: share("water"),
  fat: share("fat"),
  sugar: share("sugars"),
  egg: (i: Ingredient): number => (i.family === "egg" ? 1 : 0),
  salt: (i: Ingredient): number => (i.leavening ? 0 : ((i.sodiumMg ?? 0) * SALT_PER_SODIUM) / 1e5),
  soda: sodaPerGram,
  acid: acidPerGram,
  binder: binderPerGram,
  powder: (i: Ingredient): number => (i.leavening?.powder ? (i.leavening.share ?? 1) : 0),
} as const;
export type QuantityName = keyof typeof perGram;

/** Where the acid balance is aimed at: well inside of what the verdict calls balanced, so that rounding does not leave it. */
const NEUTRALISED = { low: 0.9, high: 1.28 };
/** Bands are aimed at with this margin of their width, for the same reason; gas well inside, since the edge is no aim for a baker. */
const MARGIN = 0.02;
const GAS_MARGIN = 0.15;

const bandQuantity: Record<Exclude<BandName, "gasMlPer100g">, QuantityName> = {
  waterPercent: "water",
  fatPercent: "addedFat",
  sugarPercent: "addedSugar",
  eggPercent: "egg",
  saltPercent: "salt",
};
const bandWord: Record<BandName, string> = {
  waterPercent: "water",
  fatPercent: "fat",
  sugarPercent: "sugar",
  eggPercent: "egg",
  saltPercent: "salt",
  gasMlPer100g: "gas",
};

/** Lower and upper limit of quantity − percent·base, as two rows that are linear in mass. */
function percentLimits(
  id: string,
  name: string,
  of: (i: Ingredient) => number,
  base: (i: Ingredient) => number,
  low: number,
  high: number,
): Limit[] {
  const rows: Limit[] = [];
  if (low > 0)
    rows.push({ id: `${id}-low`, name: `${name} at least ${low} %`, coefficient: (i) => of(i) - (low / 100) * base(i), min: 0 });
  rows.push({ id: `${id}-high`, name: `${name} at most ${high} %`, coefficient: (i) => of(i) - (high / 100) * base(i), max: 0 });
  return rows;
}

/** The bands of a kind, the acid balance and the habits of powder and soda, as rows. `bands` names those that must be met. */
export function bandLimits(kind: Kind, bands: readonly BandName[]): Limit[] {
  const profile = profileOf(kind);
  const rows: Limit[] = [];
  for (const band of bands) {
    const { low, high } = profile.bands[band];
    const edge = (band === "gasMlPer100g" ? GAS_MARGIN : MARGIN) * (high - low);
    if (band === "gasMlPer100g") {
      const ml = ML_PER_MMOL_25C;
      if (low > 0)
        rows.push({
          id: "gas-low",
          name: `gas at least ${low} mL`,
          coefficient: (i) => ml * sodaPerGram(i) - (low + edge) / 100,
          min: 0,
        });
      rows.push({
        id: "gas-high",
        name: `gas at most ${high} mL`,
        coefficient: (i) => ml * sodaPerGram(i) - (high - edge) / 100,
        max: 0,
      });
    } else {
      rows.push(
        ...percentLimits(band, bandWord[band], perGram[bandQuantity[band]], perGram.base, low > 0 ? low + edge : 0, high - edge),
      );
    }
  }
  return rows;
}

export const acidLimits = (): Limit[] => [
  { id: "acid-low", name: "acid for the soda", coefficient: (i) => acidPerGram(i) - NEUTRALISED.low * sodaPerGram(i), min: 0 },
  { id: "acid-high", name: "soda for the acid", coefficient: (i) => acidPerGram(i) - NEUTRALISED.high * sodaPerGram(i), max: 0 },
];

export const leaveningLimits = (): Limit[] => [
  ...percentLimits("powder", "powder", perGram.powder, perGram.base, 0, 0.97 * findingLimits.powderHigh),
  ...percentLimits("soda", "soda", (i) => (i.id === "soda" ? 1 : 0), perGram.base, 0, 0.97 * findingLimits.sodaHigh),
];

export function binderLimits(kind: Kind): Limit[] {
  const { low, high } = profileOf(kind).binderPercent;
  return percentLimits("binder", "binder", perGram.binder, perGram.base, low, Math.max(2 * high, 0.8));
}

/** A quantity stays within a share of what it was; with a weight it may be missed at that cost a gram or mmol. */
export function keepLimit(name: QuantityName, was: number, tolerance: number, weight?: number): Limit {
  return {
    id: `keep-${name}`,
    name,
    coefficient: perGram[name],
    min: was * (1 - tolerance),
    max: was * (1 + tolerance),
    ...(weight === undefined ? {} : { weight }),
  };
}
