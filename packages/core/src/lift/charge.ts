import type { LeaveningAcidId } from "../pantry/ingredient-words";
import type { Ingredient } from "../pantry/ingredient-schema";
import { powders } from "../pantry/catalogue";
import { releasedAtSetting } from "../pantry/pieces";
import { leaveningAcids, mmolPerGram, solutionAcids, SODA_MMOL_PER_G } from "./acids";

/**
 * Mean negative charge of an acid with the given pKa at a pH: Σ k β_k h^(n−k) / Σ β_k h^(n−k), with β_k the product of
 * the first k dissociation constants. Unit: charges per molecule.
 */
export function acidCharge(pKa: readonly number[], ph: number): number {
  let term = 1;
  let whole = 1;
  let charged = 0;
  for (let k = 0; k < pKa.length; k++) {
    term *= 10 ** (ph - (pKa[k] ?? 0));
    whole += term;
    charged += (k + 1) * term;
  }
  return charged / whole;
}

/** Dissociation of carbonic acid at 25 °C. */
export const CARBONIC_PKA = [6.35, 10.33] as const;

/** One ingredient's answer to pH, per gram. */
export interface Titration {
  /** Native pH. */
  ph: number;
  /** Dissolved acids: mmol per g with pKa and the charge at the native pH. */
  acids: { pKa: number[]; mmol: number; chargeAtOwn: number }[];
  /** Linear buffer, mmol per g and pH unit. */
  buffer: number;
  /** Crystals of leavening acid: groups in mmol per g, wholly protonated when dry. */
  crystals: { id: LeaveningAcidId; pKa: number; mmol: number }[];
  /** Soda, mmol per g. */
  soda: number;
  /** Low and high acidity against the typical one. */
  spread: { low: number; high: number };
}

/** How far the soda and acid of a powder are known, together: makers differ, old tins are weaker. */
export const POWDER_SPREAD = 0.08;

const cache = new WeakMap<Ingredient, Titration>();

/** pH to which ingredient acidity is titrated in the pantry's data. */
const TITRATED_TO = 8.2;

export function titrationOf(ingredient: Ingredient): Titration {
  const known = cache.get(ingredient);
  if (known) return known;
  const ph = ingredient.ph ?? 7;
  // Pieces give up only a share of their acid before the crumb sets.
  const released = releasedAtSetting(ingredient);
  const acids = Object.entries(ingredient.acids ?? {}).map(([id, per100]) => {
    const { pKa } = solutionAcids[id as keyof typeof solutionAcids];
    return { pKa, mmol: (released * per100) / 100, chargeAtOwn: acidCharge(pKa, ph) };
  });
  const titratable = (released * (ingredient.acidity?.mid ?? 0)) / 100;
  const explained = acids.reduce((all, a) => all + a.mmol * (acidCharge(a.pKa, TITRATED_TO) - a.chargeAtOwn), 0);
  const step = TITRATED_TO - ph;
  const left = Math.abs(step) < 0.3 ? 0 : (titratable - explained) / step;
  const buffer = ingredient.buffer !== undefined ? (released * ingredient.buffer) / 100 : Math.max(0, left);
  const titration: Titration = {
    ph,
    acids,
    buffer,
    crystals: crystalsOf(ingredient),
    soda: sodaPerGram(ingredient),
    spread: spreadOf(ingredient),
  };
  cache.set(ingredient, titration);
  return titration;
}

function spreadOf(ingredient: Ingredient): { low: number; high: number } {
  const acidity = ingredient.acidity;
  if (!acidity || acidity.mid === 0) return { low: 1, high: 1 };
  const a = acidity.low / acidity.mid;
  const b = acidity.high / acidity.mid;
  return { low: Math.max(0, Math.min(a, b)), high: Math.max(0, a, b) };
}

/** Mass fractions of leavening acids in an ingredient, its powder opened. */
export function acidFractions(ingredient: Ingredient): [keyof typeof leaveningAcids, number][] {
  const leavening = ingredient.leavening;
  if (!leavening) return [];
  const powder = leavening.powder ? powders.get(leavening.powder) : undefined;
  const share = leavening.share ?? 1;
  const own = Object.entries(leavening.acids ?? {}) as [keyof typeof leaveningAcids, number][];
  const opened = Object.entries(powder?.acids ?? {}) as [keyof typeof leaveningAcids, number][];
  return [...own, ...opened.map(([id, fraction]): [keyof typeof leaveningAcids, number] => [id, fraction * share])];
}

/** mmol of bicarbonate per gram of an ingredient, its powder opened. */
export function sodaPerGram(ingredient: Ingredient): number {
  const leavening = ingredient.leavening;
  if (!leavening) return 0;
  const powder = leavening.powder ? powders.get(leavening.powder) : undefined;
  return ((leavening.soda ?? 0) + (powder ? powder.soda * (leavening.share ?? 1) : 0)) * SODA_MMOL_PER_G;
}

function crystalsOf(ingredient: Ingredient): Titration["crystals"] {
  return acidFractions(ingredient).flatMap(([id, fraction]) => {
    const acid = leaveningAcids[id];
    return acid.groups.map((group) => ({ id, pKa: group.pKa, mmol: fraction * mmolPerGram(acid) * group.share }));
  });
}

/** mmol of protons that a gram gives up on its way from its own state to a pH; negative where it takes them. */
export function givenUp(t: Titration, ph: number): number {
  let given = t.buffer * (ph - t.ph);
  for (const acid of t.acids) given += acid.mmol * (acidCharge(acid.pKa, ph) - acid.chargeAtOwn);
  for (const crystal of t.crystals) given += crystal.mmol / (1 + 10 ** (crystal.pKa - ph));
  return given;
}
