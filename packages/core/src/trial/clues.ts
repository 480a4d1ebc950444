import type { BakedAnalysis } from "../balance/readings";
import { profileOf } from "../balance/bands";
import type { Opened } from "../formula/open";
import { gramsOf } from "../formula/components";
import type { Shelf } from "../pantry/shelf";
import { stiffnessRange } from "../body/consistency";
import { groups } from "./groups";
import { lossOf } from "./measured";
import type { Measured } from "./measured-schema";

export const clueIds = [
  "sodaUnmetPercent", "neutralised", "ph", "crumbPh", "gasBand", "waterBand", "fatBand", "sugarBand", "eggBand", "saltBand", "bodyBand",
  "powderPercent", "powderAgeMonths", "powderPastMonths", "stoodShare", "binder", "slowDrinkers", "mixedLong", "batterC", "cupSpread",
  "weighedShare", "wetPieces", "pieces", "pulses", "fill", "crownOverRim", "panDark", "panInsulating",
  "ungreased", "ovenBiasK", "ovenReadK", "doorSeconds", "shelfHigh", "shelfLow", "coreShortK", "minutesShare", "lossRatio", "cutEarlyMinutes", "inPanOver",
] as const; // prettier-ignore
export type ClueId = (typeof clueIds)[number];
export type Clues = Partial<Record<ClueId, number>>;

/** What is known of the kitchen beside the formula. */
export interface KitchenFacts {
  /** Months since the powder was opened, and past its date. */
  powderAgeMonths?: number | undefined;
  powderPastMonths?: number | undefined;
  /** How much hotter the oven has been learnt to be than what the bake reckoned with, K. */
  ovenBiasK?: number | undefined;
  /** Share of the flour that went onto a scale. */
  weighedShare?: number | undefined;
  /** It was mixed longer than the method takes. */
  mixedLong?: boolean | undefined;
}

/** What a clue is called, and its unit, for the one who reads it. */
export const clueWords: Record<ClueId, { name: string; unit: string; digits: number }> = {
  sodaUnmetPercent: { name: "Soda without acid, of the batter", unit: "%", digits: 2 },
  neutralised: { name: "Acid over soda", unit: "", digits: 2 },
  ph: { name: "Crumb pH as computed", unit: "", digits: 1 },
  crumbPh: { name: "Crumb pH by strip", unit: "", digits: 1 },
  gasBand: { name: "Gas in its band (−1 to 1)", unit: "", digits: 1 },
  waterBand: { name: "Water in its band (−1 to 1)", unit: "", digits: 1 },
  fatBand: { name: "Fat in its band (−1 to 1)", unit: "", digits: 1 },
  sugarBand: { name: "Sugar in its band (−1 to 1)", unit: "", digits: 1 },
  eggBand: { name: "Egg in its band (−1 to 1)", unit: "", digits: 1 },
  saltBand: { name: "Salt in its band (−1 to 1)", unit: "", digits: 1 },
  bodyBand: { name: "Stiffness for its kind (−1 to 1)", unit: "", digits: 1 },
  powderPercent: { name: "Powder on flour", unit: "%", digits: 1 },
  powderAgeMonths: { name: "Powder open for", unit: "months", digits: 0 },
  powderPastMonths: { name: "Powder past its date by", unit: "months", digits: 0 },
  stoodShare: { name: "Standing over what its gas allows", unit: "", digits: 1 },
  binder: { name: "Binder over what is wanted", unit: "", digits: 2 },
  slowDrinkers: { name: "Flours that drink slowly", unit: "of the flour", digits: 2 },
  mixedLong: { name: "Mixed long", unit: "", digits: 0 },
  batterC: { name: "Batter", unit: "°C", digits: 0 },
  cupSpread: { name: "Spread of the flour by cups", unit: "of its mass", digits: 2 },
  weighedShare: { name: "Flour that was weighed", unit: "of it", digits: 2 },
  wetPieces: { name: "Wet pieces, of the batter", unit: "", digits: 2 },
  pieces: { name: "Pieces, of the batter", unit: "", digits: 2 },
  pulses: { name: "Pulse flours, of the flour", unit: "", digits: 2 },
  fill: { name: "Pan filled to", unit: "of its rim", digits: 2 },
  crownOverRim: { name: "Crown over the rim's height", unit: "", digits: 2 },
  panDark: { name: "Dark pan", unit: "", digits: 0 },
  panInsulating: { name: "Pan that insulates", unit: "", digits: 0 },
  ungreased: { name: "Pan not greased", unit: "", digits: 0 },
  ovenBiasK: { name: "Oven hotter than reckoned, as learnt", unit: "K", digits: 0 },
  ovenReadK: { name: "Oven over its dial, as read", unit: "K", digits: 0 },
  doorSeconds: { name: "Door open before it had set", unit: "s", digits: 0 },
  shelfHigh: { name: "High shelf", unit: "", digits: 0 },
  shelfLow: { name: "Low shelf", unit: "", digits: 0 },
  coreShortK: { name: "Core under its target", unit: "K", digits: 1 },
  minutesShare: { name: "Minutes over those predicted", unit: "", digits: 2 },
  lossRatio: { name: "Loss over that predicted", unit: "", digits: 2 },
  cutEarlyMinutes: { name: "Cut before it was clean by", unit: "min", digits: 0 },
  inPanOver: { name: "In the pan longer than it should be by", unit: "min", digits: 0 },
};

const flag = (on: boolean): number => (on ? 1 : 0);
const SLOW = /coconut-flour|rolled-oats|oat-flour|cornmeal|masa|chia|psyllium|pulse|lentil|chickpea/;

/** What of a bake tells for or against causes, as numbers; what is not known is not there. */
export function cluesOf(
  input: Opened,
  analysis: BakedAnalysis,
  shelf: Shelf,
  { measured = {}, kitchen = {} }: { measured?: Measured; kitchen?: KitchenFacts },
): Clues {
  const { lift, body, fill, bake, batch, bands, given } = analysis;
  const out: Clues = {};
  const batter = input.lines.flatMap((line) => {
    const ingredient = shelf.get(line.ingredientId ?? "");
    return ingredient && line.component === undefined ? [{ ingredient, grams: gramsOf(line), line }] : [];
  });
  const sum = (fits: (one: (typeof batter)[number]) => boolean): number => batter.reduce((g, one) => g + (fits(one) ? one.grams : 0), 0);
  const flour = sum(({ ingredient }) => groups.flour(ingredient));
  const powder = sum(({ ingredient }) => groups.powder(ingredient));
  out.sodaUnmetPercent = (100 * lift.residualSodaG) / Math.max(1, batch.massG);
  out.neutralised = lift.sodaMmol.mid > 1 ? lift.neutralised.mid : undefined;
  out.ph = lift.ph.mid;
  for (const [clue, name] of [["gasBand", "gasMlPer100g"], ["waterBand", "waterPercent"], ["fatBand", "fatPercent"], ["sugarBand", "sugarPercent"], ["eggBand", "eggPercent"], ["saltBand", "saltPercent"]] as const) {
    const band = bands.find((one) => one.name === name);
    if (band && band.high > band.low) out[clue] = (2 * band.value - band.low - band.high) / (band.high - band.low);
  }
  // A band that begins at nothing has no lower end: less of it is a style, not a lack.
  for (const clue of ["fatBand", "sugarBand", "eggBand", "saltBand"] as const) if ((out[clue] ?? 0) < -0.99) out[clue] = -0.9;
  const ranges = profileOf(given.kind).consistencies.map(stiffnessRange);
  const [softest, stiffest] = [Math.min(...ranges.map(({ low }) => low)), Math.max(...ranges.map(({ high }) => high))];
  out.bodyBand = stiffest > softest ? (2 * body.stiffness.mid - softest - stiffest) / (stiffest - softest) : 0;
  if (batch.baseG > 0) out.powderPercent = (100 * powder) / batch.baseG;
  out.binder = body.binder.adequacy;
  if (flour > 0) {
    out.slowDrinkers = sum(({ ingredient }) => groups.flour(ingredient) && SLOW.test(ingredient.id)) / flour;
    out.pulses = sum(({ ingredient }) => ingredient.family === "pulse-flour") / flour;
    const spread = batter.reduce((g, { ingredient, line }) => g + (groups.flour(ingredient) && typeof line.grams === "object" ? line.grams.high - line.grams.low : 0), 0);
    out.cupSpread = spread / (2 * flour);
  }
  out.wetPieces = sum(({ ingredient }) => ingredient.family === "fruit" || ingredient.family === "vegetable") / Math.max(1, batch.massG);
  out.pieces = sum(({ ingredient }) => ["fruit", "dried-fruit", "nut", "chocolate"].includes(ingredient.family)) / Math.max(1, batch.massG);
  if (fill.rimMm !== null) {
    out.fill = fill.fillFraction;
    out.crownOverRim = fill.crownMm.mid / Math.max(1, fill.rimMm);
  }
  out.panDark = flag(given.vessel.material === "dark-steel" || given.vessel.material === "cast-iron");
  out.panInsulating = flag(given.vessel.material === "glass" || given.vessel.material === "silicone" || given.vessel.material === "ceramic");
  out.ungreased = flag(given.vessel.lining === "none");
  out.shelfHigh = flag(given.oven.shelf === "high");
  out.shelfLow = flag(given.oven.shelf === "low");
  const quarter = lift.standMinutes.quarter;
  const stood = measured.stoodMinutes ?? given.process.restMinutes;
  if (stood !== undefined && quarter !== null && quarter > 0) out.stoodShare = stood / quarter;
  const batterC = measured.batterC ?? given.process.batterC;
  if (batterC !== undefined) out.batterC = batterC;
  if (measured.crumbPh !== undefined) out.crumbPh = measured.crumbPh;
  if (measured.coreC !== undefined) out.coreShortK = bake.targetCoreC - measured.coreC;
  if (measured.minutes !== undefined) out.minutesShare = measured.minutes / Math.max(1, bake.minutes.mid);
  const loss = lossOf(measured);
  if (loss !== null) out.lossRatio = loss / Math.max(1, bake.lossPercent.mid);
  if (measured.cutAfterMinutes !== undefined) out.cutEarlyMinutes = (bake.cleanCutMinutes ?? bake.restBeforeCuttingMinutes) - measured.cutAfterMinutes;
  if (measured.inPanMinutes !== undefined) out.inPanOver = measured.inPanMinutes - (bake.outOfTinMinutes ?? 10);
  if (measured.ovenC !== undefined) out.ovenReadK = measured.ovenC - given.oven.celsius - (given.oven.biasK ?? 0);
  if (measured.doorSeconds !== undefined) out.doorSeconds = measured.doorSeconds;
  if (kitchen.ovenBiasK !== undefined) out.ovenBiasK = kitchen.ovenBiasK;
  if (powder > 0) {
    if (kitchen.powderAgeMonths !== undefined) out.powderAgeMonths = kitchen.powderAgeMonths;
    if (kitchen.powderPastMonths !== undefined) out.powderPastMonths = kitchen.powderPastMonths;
  }
  if (kitchen.weighedShare !== undefined) out.weighedShare = kitchen.weighedShare;
  if (kitchen.mixedLong !== undefined) out.mixedLong = flag(kitchen.mixedLong);
  return out;
} // prettier-ignore
