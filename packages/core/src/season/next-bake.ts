import type { Baked } from "./bakes";
import { normalBelow, normalDensity } from "./gaussian";
import type { Season, SeasonGoal } from "./season-schema";

/** What is known of a quality at a bake: mean and standard deviation in its own unit. */
export type Belief = (baked: Baked, quality: string) => { mean: number; sd: number };

/** Expected improvement of a normal over what is had already. Source: D. R. Jones, M. Schonlau, W. J. Welch, J. Global Optimization 13, 1998, eq. 15. */
export function expectedGain(mean: number, sd: number, had: number): number {
  if (sd < 1e-12) return Math.max(0, mean - had);
  const z = (mean - had) / sd;
  return (mean - had) * normalBelow(z) + sd * normalDensity(z);
}

/** How likely everything that must hold holds. */
export function holdsBy(season: Pick<Season, "goals">, baked: Baked, belief: Belief): number {
  return season.goals.reduce((chance, { quality, keep }) => {
    if (!keep) return chance;
    const { low: least, high: most } = keep;
    const { mean, sd } = belief(baked, quality);
    const under = (limit: number): number => (sd < 1e-12 ? (mean <= limit + 1e-9 ? 1 : 0) : normalBelow((limit - mean) / sd));
    const over = least === undefined ? 1 : sd < 1e-12 ? (mean >= least - 1e-9 ? 1 : 0) : 1 - under(least);
    return chance * Math.max(0, over - (most === undefined ? 0 : 1 - under(most)));
  }, 1);
}

/** Weights between several wishes: one after the other, and what lies between. */
export function weightsOf(wishes: number): number[][] {
  if (wishes === 1) return [[1]];
  if (wishes === 2) return [0.2, 0.35, 0.5, 0.65, 0.8].map((w) => [w, 1 - w]);
  return [[1 / 3, 1 / 3, 1 / 3], [0.6, 0.2, 0.2], [0.2, 0.6, 0.2], [0.2, 0.2, 0.6], [0.45, 0.45, 0.1], [0.45, 0.1, 0.45], [0.1, 0.45, 0.45]]; // prettier-ignore
}

/** Goals that wish for something. */
export const wishesOf = ({ goals }: Pick<Season, "goals">): SeasonGoal[] => goals.filter(({ wish }) => wish !== undefined);

/** How near to what is wished: the value, its negative, or its distance from what is aimed at (the mean and deviation of a folded normal). */
function nearness({ wish, target = 0 }: SeasonGoal, mean: number, sd: number): { mean: number; sd: number } {
  if (wish !== "target") return { mean: wish === "less" ? -mean : mean, sd };
  const off = mean - target;
  if (sd < 1e-12) return { mean: -Math.abs(off), sd: 0 };
  const far = 2 * sd * normalDensity(off / sd) + off * (1 - 2 * normalBelow(-off / sd));
  return { mean: -far, sd: Math.sqrt(Math.max(0, off * off + sd * sd - far * far)) };
}

/** A bake by one weighing of the wishes, in units of the least difference that is noticed. */
export function worth(season: Pick<Season, "goals">, scale: ReadonlyMap<string, number>, weights: readonly number[], baked: Baked, belief: Belief): { mean: number; sd: number } {
  let [mean, variance] = [0, 0];
  wishesOf(season).forEach((goal, k) => {
    const known = belief(baked, goal.quality);
    const of = nearness(goal, known.mean, known.sd);
    const by = (weights[k] ?? 0) / (scale.get(goal.quality) ?? 1);
    mean += by * of.mean;
    variance += (by * of.sd) ** 2;
  });
  return { mean, sd: Math.sqrt(variance) };
} // prettier-ignore

/** What must hold may fail by so much before a bake is no choice. */
const HOLDS = 0.5;

/** The best of some bakes for even weights, by what is expected; of those that may hold, or else the one that holds likeliest. */
export function bestOf<T extends Baked>(season: Season, scale: ReadonlyMap<string, number>, bakes: readonly T[], belief: Belief): T | null {
  const wishes = wishesOf(season).length;
  const even = Array<number>(wishes).fill(1 / wishes);
  const rated = bakes.map((baked) => ({ baked, holds: holdsBy(season, baked, belief), mean: worth(season, scale, even, baked, belief).mean }));
  const sound = rated.filter(({ holds }) => holds >= HOLDS);
  if (sound.length > 0) return sound.reduce((a, b) => (b.mean > a.mean ? b : a)).baked;
  return rated.length === 0 ? null : rated.reduce((a, b) => (b.holds > a.holds ? b : a)).baked;
} // prettier-ignore

/**
 * The bake that promises most over what is had: expected improvement times the chance that everything holds, averaged over the weights between
 * wishes. `gain` in units of the least difference that is noticed.
 */
export function nextBake(season: Season, scale: ReadonlyMap<string, number>, sound: readonly Baked[], had: readonly Baked[], belief: Belief): { baked: Baked; gain: number; holds: number } | null {
  const weights = weightsOf(wishesOf(season).length);
  const best = weights.map((one) => {
    const good = had.filter((baked) => holdsBy(season, baked, belief) >= HOLDS);
    return good.length === 0 ? null : Math.max(...good.map((baked) => worth(season, scale, one, baked, belief).mean));
  });
  let found: { baked: Baked; gain: number; holds: number } | null = null;
  for (const baked of sound) {
    const holds = holdsBy(season, baked, belief);
    const gain = weights.reduce((sum, one, k) => {
      const { mean, sd } = worth(season, scale, one, baked, belief);
      const from = best[k];
      // Where nothing that is had holds, what holds likeliest is worth most.
      return sum + (from === null || from === undefined ? holds * sd : holds * expectedGain(mean, sd, from)) / weights.length;
    }, 0);
    if (found === null || gain > found.gain) found = { baked, gain, holds };
  }
  return found;
} // prettier-ignore

/** Those of some bakes that no other beats in every wish, by what is expected. */
export function frontOf(season: Season, bakes: readonly Baked[], belief: Belief): Baked[] {
  const values = bakes.map((baked) => wishesOf(season).map((goal) => nearness(goal, belief(baked, goal.quality).mean, 0).mean));
  const beaten = (k: number): boolean =>
    values.some((other, j) => j !== k && other.every((value, q) => value >= (values[k]?.[q] ?? 0) - 1e-9) && other.some((value, q) => value > (values[k]?.[q] ?? 0) + 1e-9));
  return bakes.filter((_, k) => !beaten(k));
} // prettier-ignore
