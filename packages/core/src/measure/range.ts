import type { Range } from "./range-schema";

export const exactly = (value: number): Range => ({ low: value, mid: value, high: value });
export const range = (low: number, mid: number, high: number): Range => ({ low, mid, high });
/** A range around `mid` of plus and minus `share` of it. */
export const within = (mid: number, share: number): Range => sorted(mid * (1 - share), mid, mid * (1 + share));
const sorted = (a: number, mid: number, b: number): Range => ({ low: Math.min(a, b), mid, high: Math.max(a, b) });
export const scaled = (r: Range, factor: number): Range => sorted(r.low * factor, r.mid * factor, r.high * factor);
export const shifted = (r: Range, by: number): Range => ({ low: r.low + by, mid: r.mid + by, high: r.high + by });
/** The product of two uncertain non-negative numbers that do not depend on each other: relative spreads add in quadrature. */
export function product(a: Range, b: Range): Range {
  const mid = a.mid * b.mid;
  if (mid === 0) return sorted(a.low * b.low, 0, a.high * b.high);
  const below = Math.hypot(1 - a.low / a.mid, 1 - b.low / b.mid);
  const above = Math.hypot(a.high / a.mid - 1, b.high / b.mid - 1);
  return sorted(mid * Math.max(0, 1 - below), mid, mid * (1 + above));
}
/** The sum of independent uncertain numbers: distances from the middle add in quadrature. */
export function sum(parts: readonly Range[]): Range {
  let mid = 0;
  let below = 0;
  let above = 0;
  for (const part of parts) {
    mid += part.mid;
    below += (part.mid - part.low) ** 2;
    above += (part.high - part.mid) ** 2;
  }
  return { low: mid - Math.sqrt(below), mid, high: mid + Math.sqrt(above) };
}
export const mapRange = (r: Range, f: (value: number) => number): Range => sorted(f(r.low), f(r.mid), f(r.high));
