import type { Item } from "../formula/resolve";
import type { Range } from "../measure/range";
import { solubility } from "../physics";
import { acidCharge, CARBONIC_PKA, givenUp, titrationOf, type Titration } from "./charge";

/** Henry constant of CO2 on the bench, mol/(L·atm). */
const HENRY_22C = solubility(22);

/** CO2 over the batter on the bench (bubbles of nearly pure gas) and in a cooled crumb, atm. */
export const BENCH_CO2_ATM = 1;
export const CRUMB_CO2_ATM: Range = { low: 0.001, mid: 0.01, high: 0.05 };

export interface Mixture {
  parts: { titration: Titration; massG: number; factor: number }[];
  /** mmol of sodium ions that came with soda, and of the carbonate that came with it. */
  sodaMmol: number;
  waterL: number;
}

export function mixtureOf(items: readonly Item[], waterG: number): Mixture {
  const parts = items.map((item) => ({ titration: titrationOf(item.ingredient), massG: item.massG, factor: 1 }));
  return { parts, sodaMmol: parts.reduce((n, p) => n + p.massG * p.titration.soda, 0), waterL: Math.max(waterG, 1) / 1000 };
}

/** Negative charge of the carbonate that stays dissolved under a CO2 pressure, mmol; never more carbon than there was. */
function carbonateCharge(mixture: Mixture, ph: number, co2Atm: number): number {
  const h1 = 10 ** (ph - CARBONIC_PKA[0]);
  const h2 = h1 * 10 ** (ph - CARBONIC_PKA[1]);
  const open = HENRY_22C * co2Atm * (1 + h1 + h2) * 1000 * mixture.waterL;
  const carbon = Math.min(open, mixture.sodaMmol);
  return carbon * acidCharge(CARBONIC_PKA, ph);
}

/** A mixture with its linear buffers added up, so that only named acids and crystals are left to evaluate one by one. */
interface Compiled {
  mixture: Mixture;
  slope: number;
  offset: number;
  named: { titration: Titration; amount: number }[];
}

function compile(mixture: Mixture): Compiled {
  let slope = 0;
  let offset = 0;
  const named: Compiled["named"] = [];
  for (const { titration, massG, factor } of mixture.parts) {
    const amount = factor * massG;
    slope += amount * titration.buffer;
    offset += amount * titration.buffer * titration.ph;
    if (titration.acids.length > 0 || titration.crystals.length > 0) named.push({ titration: { ...titration, buffer: 0 }, amount });
  }
  return { mixture, slope, offset, named };
}

function balanceOf({ mixture, slope, offset, named }: Compiled, ph: number, co2Atm: number): number {
  let balance = mixture.sodaMmol - carbonateCharge(mixture, ph, co2Atm) - slope * ph + offset;
  for (const { titration, amount } of named) balance -= amount * givenUp(titration, ph);
  return balance + mixture.waterL * 1000 * (10 ** -ph - 10 ** (ph - 14));
}

/** Positive minus negative charge at a pH, mmol. It falls as pH rises. */
export const chargeBalance = (mixture: Mixture, ph: number, co2Atm: number): number => balanceOf(compile(mixture), ph, co2Atm);

/** Half a unit on either side of a guess holds the root of most neighbours of a solved mixture. */
const NEAR = 0.75;

/**
 * The pH at which the charges of a mixture cancel: bisection to half a unit, then the Illinois form of false position, closed to
 * 1e-10 mmol or 1e-13 pH. The balance is monotone, so there is one root between 0 and 14. `guess` only saves time.
 */
export function solvePh(mixture: Mixture, co2Atm: number, guess?: number): number {
  const compiled = compile(mixture);
  let low = 0;
  let high = 14;
  if (guess !== undefined) {
    if (balanceOf(compiled, guess - NEAR, co2Atm) > 0) low = guess - NEAR;
    if (balanceOf(compiled, guess + NEAR, co2Atm) < 0) high = guess + NEAR;
  }
  while (high - low > 2 * NEAR) {
    const middle = (low + high) / 2;
    if (balanceOf(compiled, middle, co2Atm) > 0) low = middle;
    else high = middle;
  }
  let fLow = balanceOf(compiled, low, co2Atm);
  let fHigh = balanceOf(compiled, high, co2Atm);
  let at = low;
  for (let i = 0; i < 80; i++) {
    at = fLow === fHigh ? (low + high) / 2 : (low * fHigh - high * fLow) / (fHigh - fLow);
    const f = balanceOf(compiled, at, co2Atm);
    if (Math.abs(f) < 1e-10 || high - low < 1e-13) return at;
    if (f > 0) {
      low = at;
      fLow = f;
      fHigh /= 2;
    } else {
      high = at;
      fHigh = f;
      fLow /= 2;
    }
    if (i % 4 === 3) {
      const middle = (low + high) / 2;
      const fMiddle = balanceOf(compiled, middle, co2Atm);
      if (fMiddle > 0) [low, fLow] = [middle, fMiddle];
      else [high, fHigh] = [middle, fMiddle];
    }
  }
  return at;
}

const SAMPLES = 16;

/** A point of the Kronecker sequence on the golden ratio's powers: even cover without a random number. */
const samplePoint = (sample: number, dimension: number): number => {
  const step = (Math.sqrt(5) - 1) / 2;
  const value = (sample + 1) * (step + (dimension + 1) * Math.SQRT2);
  return value - Math.floor(value);
};

const between = (u: number, low: number, high: number): number =>
  u < 0.5 ? low + (1 - low) * 2 * u : 1 + (high - 1) * (2 * u - 1);

/** pH of the mixed batter and of the cooled crumb, the range by a fixed set of samples over acidities, masses and CO2. */
export function phOf(items: readonly Item[], waterG: number): { batter: number; crumb: Range } {
  const mixture = mixtureOf(items, waterG);
  const mid = solvePh(mixture, CRUMB_CO2_ATM.mid);
  const batter = solvePh(mixture, BENCH_CO2_ATM);
  let low = mid;
  let high = mid;
  const spanLog = Math.log(CRUMB_CO2_ATM.high / CRUMB_CO2_ATM.low);
  for (let s = 0; s < SAMPLES; s++) {
    let sodaMmol = 0;
    const parts = mixture.parts.map((part, i) => {
      const spread = part.titration.spread;
      const grams = items[i]?.grams;
      const mass = grams && grams.mid > 0 ? between(samplePoint(s, 2 * i + 1), grams.low / grams.mid, grams.high / grams.mid) : 1;
      sodaMmol += part.massG * mass * part.titration.soda;
      return {
        titration: part.titration,
        massG: part.massG * mass,
        factor: between(samplePoint(s, 2 * i), spread.low, spread.high),
      };
    });
    const co2 = CRUMB_CO2_ATM.low * Math.exp(spanLog * samplePoint(s, 99));
    const ph = solvePh({ parts, sodaMmol, waterL: mixture.waterL }, co2, mid);
    low = Math.min(low, ph);
    high = Math.max(high, ph);
  }
  return { batter, crumb: { low, mid, high } };
}
