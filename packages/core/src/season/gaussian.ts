import { CholeskyDecomposition, Matrix } from "ml-matrix";
import type { Doubt } from "./qualities";

/**
 * What a kitchen does that the computer does not know, per quality: a Gaussian process on what was measured less what was baked in the computer.
 * Covariance of two bakes: offset² + slope² Σ x·x' + lean² z·z' + bend² exp(−|x − x'|² / 2 l²), and day² where they are of one block; noise² beside.
 * How strong each part is, is not fitted but weighed: every setting of a small grid counts by its marginal likelihood times what is usual, so that few
 * bakes leave wide ranges. Source: C. E. Rasmussen and C. K. I. Williams, Gaussian Processes for Machine Learning, 2006, eq. 2.25 to 2.30.
 */
export interface Told {
  x: readonly number[];
  /** What it leans on, standardised; 0 where there is none. */
  z: number;
  /** Measured less what the computer says, in the quality's unit. */
  y: number;
  /** Bakes of one day, oven, packet or taster share it; null for what belongs to none. */
  block: string | null;
}
export interface Guess {
  mean: number;
  sd: number;
  /** Half of the 90 % range, of the mixture of all settings. */
  low: number;
  high: number;
}
export interface Known {
  /** Of the bake itself, without the scatter of a single one; with it where asked. */
  at: (x: readonly number[], z: number, single?: boolean) => Guess;
  /** The difference of two bakes, their common doubt taken out. */
  between: (a: Place, b: Place) => Guess;
  /** Standard deviation of a single bake about its own mean. */
  noise: number;
  /** Log of the mean likelihood over the settings. */
  evidence: number;
}
export interface Place {
  x: readonly number[];
  z: number;
}

interface Setting {
  slope: number;
  bend: number;
  noise: number;
  length: number;
}
const STRENGTHS = [0.5, 1.2, 2.8] as const;
const BENDS = [0.5, 1.6, 4] as const;
const NOISES = [0.7, 1.1, 1.8] as const;
const LENGTHS = [1.1, 2.2] as const;
/** How much less likely the ends of a grid are than its middle, before anything was baked. */
const AT_END = 0.5;
/** Blocks differ by about as much as two bakes of one block. */
const DAY = 0.7;
/** z of a range that holds 90 %. */
const Z90 = 1.6449;

const settingsOf = ({ slope, bend, noise }: Doubt): { setting: Setting; prior: number }[] =>
  STRENGTHS.flatMap((s) =>
    BENDS.flatMap((b) =>
      NOISES.flatMap((n) =>
        LENGTHS.map((length) => ({
          setting: { slope: s * slope, bend: b * bend, noise: n * noise, length },
          prior: (s === STRENGTHS[1] ? 1 : AT_END) * (b === BENDS[1] ? 1 : AT_END) * (n === NOISES[1] ? 1 : AT_END),
        })),
      ),
    ),
  );

/** A mixture of normals as one: mean, deviation and the 90 % range by its own quantiles. */
export function mixed(parts: readonly { weight: number; mean: number; variance: number }[]): Guess {
  const mean = parts.reduce((sum, one) => sum + one.weight * one.mean, 0);
  const variance = parts.reduce((sum, one) => sum + one.weight * (one.variance + (one.mean - mean) ** 2), 0);
  const sd = Math.sqrt(Math.max(0, variance));
  const under = (value: number): number => parts.reduce((sum, one) => sum + one.weight * normalBelow((value - one.mean) / Math.sqrt(Math.max(1e-18, one.variance))), 0); // prettier-ignore
  const quantile = (share: number): number => {
    let [low, high] = [mean - 8 * sd - 1e-9, mean + 8 * sd + 1e-9];
    for (let k = 0; k < 40; k++) {
      const mid = (low + high) / 2;
      if (under(mid) < share) low = mid;
      else high = mid;
    }
    return (low + high) / 2;
  };
  return { mean, sd, low: quantile(0.05), high: quantile(0.95) };
}

/** Share of the standard normal under a value. Source: M. Abramowitz and I. A. Stegun, 7.1.26, within 1.5e-7. */
export function normalBelow(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const erf =
    1 - ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.exp(-x * x);
  return z < 0 ? (1 - erf) / 2 : (1 + erf) / 2;
}
export const normalDensity = (z: number): number => Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI);

/** What the bakes that were made tell of all others. `doubt` in the quality's unit. */
export function learn(told: readonly Told[], doubt: Doubt): Known {
  const settings = settingsOf(doubt);
  const covariance = ({ slope, bend, length }: Setting, a: Place, b: Place): number => {
    let [along, apart] = [0, 0];
    for (let k = 0; k < a.x.length; k++) {
      const [p, q] = [a.x[k] ?? 0, b.x[k] ?? 0];
      along += p * q;
      apart += (p - q) ** 2;
    }
    return doubt.offset ** 2 + slope ** 2 * (along + a.z * b.z) + bend ** 2 * Math.exp(-apart / (2 * length * length));
  };
  const fitted = settings.map(({ setting, prior }) => {
    const day = DAY * setting.noise;
    if (told.length === 0) return { setting, log: Math.log(prior), factor: null, alpha: [] as number[] };
    const matrix = Matrix.zeros(told.length, told.length);
    told.forEach((a, i) =>
      told.forEach((b, j) =>
        matrix.set(i, j, covariance(setting, a, b) + (a.block !== null && a.block === b.block ? day * day : 0) + (i === j ? setting.noise ** 2 + (a.block === null ? day * day : 0) + 1e-12 : 0)),
      ),
    );
    const factor = new CholeskyDecomposition(matrix);
    const y = Matrix.columnVector(told.map((one) => one.y));
    const alpha = factor.solve(y).to1DArray();
    const lower = factor.lowerTriangularMatrix;
    let halfLog = 0;
    for (let k = 0; k < told.length; k++) halfLog += Math.log(lower.get(k, k));
    const fit = told.reduce((sum, one, k) => sum + one.y * (alpha[k] ?? 0), 0);
    return { setting, log: Math.log(prior) - fit / 2 - halfLog, factor, alpha };
  }); // prettier-ignore
  const most = Math.max(...fitted.map(({ log }) => log));
  const total = fitted.reduce((sum, { log }) => sum + Math.exp(log - most), 0);
  const weighed = fitted.map((one) => ({ ...one, weight: Math.exp(one.log - most) / total })).filter(({ weight }) => weight > 1e-4);
  const whole = weighed.reduce((sum, { weight }) => sum + weight, 0);
  const parts = weighed.map((one) => ({ ...one, weight: one.weight / whole }));
  /** Mean and variance of Σ w·f(place) in one setting. */
  const of = ({ setting, factor, alpha }: (typeof parts)[number], places: readonly { at: Place; times: number }[]): { mean: number; variance: number } => {
    let prior = 0;
    for (const a of places) for (const b of places) prior += a.times * b.times * covariance(setting, a.at, b.at);
    if (!factor) return { mean: 0, variance: prior };
    const k = told.map((one) => places.reduce((sum, { at, times }) => sum + times * covariance(setting, at, one), 0));
    const solved = factor.solve(Matrix.columnVector(k)).to1DArray();
    return {
      mean: k.reduce((sum, one, i) => sum + one * (alpha[i] ?? 0), 0),
      variance: Math.max(0, prior - k.reduce((sum, one, i) => sum + one * (solved[i] ?? 0), 0)),
    };
  }; // prettier-ignore
  return {
    at: (x, z, single = false) =>
      mixed(
        parts.map((part) => {
          const { mean, variance } = of(part, [{ at: { x, z }, times: 1 }]);
          return { weight: part.weight, mean, variance: variance + (single ? (1 + DAY * DAY) * part.setting.noise ** 2 : 0) };
        }),
      ),
    between: (a, b) =>
      mixed(
        parts.map((part) => ({
          weight: part.weight,
          ...of(part, [
            { at: b, times: 1 },
            { at: a, times: -1 },
          ]),
        })),
      ),
    noise: parts.reduce((sum, { weight, setting }) => sum + weight * setting.noise, 0),
    evidence: most + Math.log(total),
  };
}

/**
 * How often each bake lies in the range that all others give of it, with the scatter of a single bake: the check that ranges are honest.
 */
export function leftOut(told: readonly Told[], doubt: Doubt): { within: number; of: number } {
  if (told.length < 3) return { within: 0, of: 0 };
  const within = told.filter((one, k) => {
    const { low, high } = learn(
      told.filter((_, other) => other !== k),
      doubt,
    ).at(one.x, one.z, true);
    return one.y >= low && one.y <= high;
  }).length;
  return { within, of: told.length };
}

export { Z90 };
