import type { FillBehaviour, Filling } from "./filling";
import { fillFactor } from "./filling";
import { type Range, exactly, product, scaled } from "./range";
import { type Measures, type UnitId, gramsPer, millilitresPer } from "./units";

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
}

export interface Amount {
  /** A range when the text gave one ("2–3"), otherwise exact. */
  quantity: Range;
  unit: UnitId;
  filling?: Filling;
  /** "large", "medium", "juice", "zest", … for pieces. */
  size?: string;
}

/**
 * Grams of an amount with the spread of this way of measuring, or null when the ingredient has no mass for that unit.
 * Masses are taken as weighed on a kitchen scale (exact here).
 */
export function weigh(amount: Amount, what: Measurable, measures: Measures): Range | null {
  const { quantity, unit } = amount;
  const mass = gramsPer[unit];
  if (mass !== undefined) return scaled(quantity, mass);
  const volume = millilitresPer[unit];
  if (volume !== undefined) {
    const loose: Range = unit === "pinch" || unit === "dash" ? { low: 0.6, mid: 1, high: 1.6 } : exactly(1);
    const filled = fillFactor(what.behaviour, amount.filling);
    return product(product(scaled(quantity, volume[measures]), product(what.gPerMl, filled)), loose);
  }
  if (unit === "can")
    return what.canG === undefined ? null : product(quantity, { low: what.canG * 0.95, mid: what.canG, high: what.canG * 1.05 });
  if (unit === "packet") return what.packetG === undefined ? null : scaled(quantity, what.packetG);
  const piece = pieceOf(what, amount.size, measures);
  return piece === null ? null : product(quantity, piece);
}

function pieceOf(what: Measurable, size: string | undefined, measures: Measures): Range | null {
  const fits = (what.pieces ?? []).filter((piece) => piece.measures === undefined || piece.measures.includes(measures));
  if (size !== undefined) {
    const named = fits.find((piece) => piece.size === size);
    if (named) return named.grams;
    if (size === "juice" || size === "zest") return null;
  }
  return fits[0]?.grams ?? null;
}
