import type { FillBehaviour } from "./filling";
import { fillFactor } from "./filling";
import type { Measure, Term } from "./grammar/amounts";
import { exactly, product, scaled } from "./range";
import type { Range } from "./range-schema";
import { gramsPer, millilitresPer, spokenSpread } from "./units";
import type { Measures, UnitId } from "./units";
import type { Filling } from "./filling";

/** What weighing must know of an ingredient; the pantry's entries have it. */
export interface Measurable {
  behaviour: FillBehaviour;
  /** g per mL, spooned and levelled. */
  gPerMl: Range;
  /** The mass of one piece by its size word; the first is the usual one. */
  pieces?: { size: string; grams: Range; measures?: readonly Measures[] }[];
  /** Grams in a usual can or packet. */
  canG?: number;
  packetG?: number;
  /** What sort of food it is, where that is known. */
  family?: string;
}

export interface Amount {
  /** A range when the text gave one ("2–3"), otherwise exact. */
  quantity: Range;
  unit: UnitId;
  filling?: Filling;
  /** "large", "medium", "juice", "zest", … for pieces. */
  size?: string;
}

/** Lighter fruit and nuts, g, are weighed and not counted. */
const COUNTED_G = 9;
const weighed: ReadonlySet<string> = new Set(["fruit", "dried-fruit", "nut", "vegetable"]);
/** Whether a bare figure counts pieces of it: eggs, apples and cloves of garlic, not berries. */
export const isCounted = (what: Measurable | undefined): boolean =>
  what?.pieces?.some(({ size, grams }) => size !== "stick" && (grams.mid >= COUNTED_G || !weighed.has(what.family ?? ""))) === true;

/** More than this, g, is no amount of a kitchen. */
export const MOST_G = 1_000_000;

/**
 * Grams of an amount with the spread of this way of measuring, or null when the ingredient has no mass for that unit or the amount is
 * beyond reason. Masses are taken as weighed on a kitchen scale (exact here).
 */
export function weigh(amount: Amount, what: Measurable, measures: Measures): Range | null {
  const grams = gramsBy(amount, what, measures);
  return grams !== null && grams.high <= MOST_G && grams.low >= 0 ? grams : null;
}

/** Grams of everything that a measure adds up or takes off; null as soon as one part has no mass. */
export function weighMeasure(measure: Measure, what: Measurable, measures: Measures): Range | null {
  const parts = measure.map((term) => ({ term, grams: weigh(term, what, measures) }));
  if (parts.some(({ grams }) => grams === null)) return null;
  const along = (pick: (grams: Range, sign: Term["sign"]) => number): number =>
    parts.reduce((all, { term, grams }) => all + (grams ? term.sign * pick(grams, term.sign) : 0), 0);
  // What is filled the same way is off the same way: ends go with ends.
  const low = along((grams, sign) => (sign > 0 ? grams.low : grams.high));
  const mid = along((grams) => grams.mid);
  const high = along((grams, sign) => (sign > 0 ? grams.high : grams.low));
  return mid > 0 && high <= MOST_G ? { low: Math.max(0, Math.min(low, mid)), mid, high: Math.max(high, mid) } : null;
}

function gramsBy(amount: Amount, what: Measurable, measures: Measures): Range | null {
  const { quantity, unit } = amount;
  const mass = gramsPer[unit];
  if (mass !== undefined) return scaled(quantity, mass);
  const volume = millilitresPer[unit];
  if (volume !== undefined) {
    const spoken = spokenSpread[unit];
    const loose: Range = spoken ? { low: spoken.low, mid: 1, high: spoken.high } : exactly(1);
    const filled = fillFactor(what.behaviour, amount.filling);
    return product(product(scaled(quantity, volume[measures]), product(what.gPerMl, filled)), loose);
  }
  if (unit === "can" || unit === "packet") {
    const full = unit === "can" ? what.canG : what.packetG;
    if (full === undefined) return null;
    const usual = unit === "can" ? { low: full * 0.95, mid: full, high: full * 1.05 } : exactly(full);
    return product(product(quantity, usual), sizeFactor[amount.size ?? "medium"] ?? exactly(1));
  }
  const piece = pieceOf(what, amount.size, measures);
  return piece === null ? null : product(quantity, piece);
}

function pieceOf(what: Measurable, size: string | undefined, measures: Measures): Range | null {
  const fits = (what.pieces ?? []).filter((piece) => piece.measures === undefined || piece.measures.includes(measures));
  const usual = fits.find((piece) => piece.size !== "juice" && piece.size !== "zest") ?? fits[0];
  if (size === undefined) return usual?.grams ?? null;
  const named = fits.find((piece) => piece.size === size);
  if (named) return named.grams;
  if (size === "juice" || size === "zest") return null;
  // A size that the table does not have, by the usual one.
  const factor = sizeFactor[size];
  if (factor === undefined || !usual) return usual?.grams ?? null;
  const { low, mid, high } = usual.grams;
  return { low: low * factor.low, mid: mid * factor.mid, high: high * factor.high };
}

/** A small or large one against the usual one; vegetables and fruit by trade sizes, confidence C. */
const sizeFactor: Record<string, Range> = {
  small: { low: 0.55, mid: 0.72, high: 0.9 },
  medium: exactly(1),
  large: { low: 1.1, mid: 1.35, high: 1.7 },
  "extra-large": { low: 1.25, mid: 1.6, high: 2 },
  jumbo: { low: 1.3, mid: 1.7, high: 2.2 },
  mini: { low: 0.3, mid: 0.45, high: 0.65 },
};
