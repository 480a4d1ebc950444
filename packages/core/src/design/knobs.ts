import { bandReadings, profileOf, typicalLines } from "../balance/bands";
import type { Kind } from "../formula/kinds";
import { resolve } from "../formula/resolve";
import type { Shelf } from "../pantry/shelf";

/** A value from its slider: what is usual in the middle, the ends a part of the way to the ends of its band. */
export function knobbed(usual: number, low: number, high: number, knob = 0.5): number {
  return knob <= 0.5 ? low + ((usual - low) * knob) / 0.5 : usual + ((high - usual) * (knob - 0.5)) / 0.5;
}

/** A slider from its value: the inverse of `knobbed`, kept from 0 to 1. */
export function knobOf(value: number, { usual, low, high }: Ends): number {
  const at = value <= usual ? (0.5 * (value - low)) / Math.max(1e-9, usual - low) : 0.5 + (0.5 * (value - usual)) / Math.max(1e-9, high - usual); // prettier-ignore
  return Math.min(1, Math.max(0, at));
}

export interface Ends {
  usual: number;
  low: number;
  high: number;
}

/** What is usual of fat and sugar for a kind, and where their sliders end, % of what builds the crumb. */
export function endsOf(kind: Kind, shelf: Shelf): { fat: Ends; sugar: Ends } {
  const { bands } = profileOf(kind);
  const usual = bandReadings(resolve(typicalLines(kind, 1000), shelf), 0);
  return {
    fat: {
      usual: usual.fatPercent,
      low: Math.max(bands.fatPercent.low * 1.04, 0.4 * usual.fatPercent),
      high: Math.min(0.94 * bands.fatPercent.high, 1.7 * usual.fatPercent),
    },
    sugar: {
      usual: usual.sugarPercent,
      low: bands.sugarPercent.low * 1.04,
      high: Math.min(0.94 * bands.sugarPercent.high, 1.8 * Math.max(usual.sugarPercent, 5)),
    },
  };
}
