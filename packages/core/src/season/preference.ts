import { inverse, Matrix, solve } from "ml-matrix";
import { normalBelow, normalDensity } from "./gaussian";

/** That one sample was liked more than another by one taster: numbers of the samples. */
export interface Liking {
  more: number;
  less: number;
}

/**
 * How well samples are liked, from comparisons of two: P(a before b) = Φ((f_a − f_b) / √2), f a Gaussian process with the given covariance. The mode by
 * Newton's steps and the curvature there as the precision (Laplace). Source: W. Chu and Z. Ghahramani, Preference learning with Gaussian processes, 2005,
 * eq. 3 to 9. The answer has mean and covariance of f at the samples, in units of one taster's scatter. Ties say nothing and are left out before.
 */
export function likedBy(likings: readonly Liking[], covariance: readonly (readonly number[])[]): { mean: number[]; covariance: number[][] } {
  const n = covariance.length;
  const prior = new Matrix(covariance.map((row, i) => row.map((value, j) => value + (i === j ? 1e-8 : 0))));
  const precision = inverse(prior);
  let f = Array<number>(n).fill(0);
  let curvature = Matrix.zeros(n, n);
  for (let step = 0; step < 60; step++) {
    const gradient = Array<number>(n).fill(0);
    curvature = Matrix.zeros(n, n);
    for (const { more, less } of likings) {
      const z = ((f[more] ?? 0) - (f[less] ?? 0)) / Math.SQRT2;
      const ratio = normalDensity(z) / Math.max(1e-12, normalBelow(z));
      const bend = (ratio * (ratio + z)) / 2;
      gradient[more] = (gradient[more] ?? 0) + ratio / Math.SQRT2;
      gradient[less] = (gradient[less] ?? 0) - ratio / Math.SQRT2;
      for (const [i, j, sign] of [[more, more, 1], [less, less, 1], [more, less, -1], [less, more, -1]] as const) curvature.set(i, j, curvature.get(i, j) + sign * bend);
    }
    // Newton: (K⁻¹ + W) f' = W f + g.
    const right = Matrix.columnVector(f.map((_, i) => f.reduce((sum, value, j) => sum + curvature.get(i, j) * value, 0) + (gradient[i] ?? 0)));
    const next = solve(Matrix.add(precision, curvature), right).to1DArray();
    const moved = Math.max(0, ...next.map((value, i) => Math.abs(value - (f[i] ?? 0))));
    f = next;
    if (moved < 1e-8) break;
  }
  return { mean: f, covariance: inverse(Matrix.add(precision, curvature)).to2DArray() };
} // prettier-ignore

/** Who liked what more, from one taster's scores of all samples; equal scores and missing ones say nothing. */
export function likingsOf(scores: readonly (number | null)[], samples: readonly number[]): Liking[] {
  return scores.flatMap((score, k) =>
    scores.flatMap((other, j) =>
      score !== null && other !== null && score > other && samples[k] !== undefined && samples[j] !== undefined && samples[k] !== samples[j]
        ? [{ more: samples[k], less: samples[j] }]
        : [],
    ),
  ); // prettier-ignore
}
