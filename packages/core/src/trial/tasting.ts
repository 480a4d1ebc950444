import { seeded } from "../random";

/** A round of blind tasting: every taster scores every sample, by a code that tells nothing. */
export interface TastingResult {
  means: number[];
  /** Chance that differences as large as these come from noise alone, if no sample were better. */
  p: number;
  /** Friedman's statistic on the ranks. */
  friedman: number;
  exact: boolean;
  words: string;
}

const DRAWS = 20_000;
const ALL = 50_000;
const NOISE = 0.05;

/** Three-digit codes, none twice, none that looks like a rank; the same for the same seed. */
export function tastingCodes(samples: number, seed: number): string[] {
  const random = seeded(seed);
  const out = new Set<string>();
  while (out.size < samples) {
    const code = String(Math.floor(112 + random() * 880));
    if (!/^(\d)\1\1$/.test(code)) out.add(code);
  }
  return [...out];
}

/** The order in which a taster gets the samples: each order begins with another sample, so that no place is favoured. */
export function servingOrder(samples: number, taster: number, seed: number): number[] {
  const random = seeded(seed + 1);
  const base = Array.from({ length: samples }, (_, k) => k);
  for (let k = samples - 1; k > 0; k--) {
    const other = Math.floor(random() * (k + 1));
    [base[k], base[other]] = [base[other] ?? 0, base[k] ?? 0];
  }
  return base.map((_, k) => base[(k + taster) % samples] ?? 0);
}

const ranksOf = (scores: readonly number[]): number[] =>
  scores.map((score) => {
    const below = scores.filter((other) => other < score).length;
    const same = scores.filter((other) => other === score).length;
    return below + (same + 1) / 2;
  });

/** Friedman's statistic of ranks within tasters, corrected for ties; 0 where everything is tied. */
export function friedmanOf(scores: readonly (readonly number[])[]): number {
  const [n, k] = [scores.length, scores[0]?.length ?? 0];
  if (n === 0 || k < 2) return 0;
  const ranks = scores.map(ranksOf);
  const sums = Array.from({ length: k }, (_, j) => ranks.reduce((sum, row) => sum + (row[j] ?? 0), 0));
  const mean = (n * (k + 1)) / 2;
  const between = sums.reduce((sum, one) => sum + (one - mean) ** 2, 0);
  const within = ranks.reduce((sum, row) => sum + row.reduce((s, rank) => s + (rank - (k + 1) / 2) ** 2, 0), 0);
  return within === 0 ? 0 : ((k - 1) * between) / within;
}

const between = (rows: readonly (readonly number[])[]): number => {
  const k = rows[0]?.length ?? 0;
  const sums = Array.from({ length: k }, (_, j) => rows.reduce((sum, row) => sum + (row[j] ?? 0), 0));
  const mean = sums.reduce((a, b) => a + b, 0) / k;
  return sums.reduce((sum, one) => sum + (one - mean) ** 2, 0);
};

function* ordersOf(values: readonly number[]): Generator<number[]> {
  if (values.length <= 1) yield [...values];
  else for (const [k, first] of values.entries()) for (const rest of ordersOf([...values.slice(0, k), ...values.slice(k + 1)])) yield [first, ...rest]; // prettier-ignore
}

/**
 * Whether samples differ by more than noise: scores are exchanged within each taster in every way (or 20 000 drawn ones), and it is counted how often
 * the sums lie as far apart as they do. `scores[taster][sample]`; tasters who did not score everything are left out.
 */
export function tasted(scores: readonly (readonly (number | null)[])[], names: readonly string[], seed = 1): TastingResult | null {
  const rows = scores.filter((row): row is number[] => row.length === names.length && row.every((one) => one !== null));
  const k = names.length;
  if (rows.length < 2 || k < 2) return null;
  const observed = between(rows) - 1e-9;
  const orders = [...ordersOf(Array.from({ length: k }, (_, j) => j))];
  const exact = orders.length ** rows.length <= ALL;
  let [as, of] = [0, 0];
  const count = (chosen: readonly number[]): void => {
    of++;
    const shuffled = rows.map((row, t) => (orders[chosen[t] ?? 0] ?? []).map((j) => row[j] ?? 0));
    if (between(shuffled) >= observed) as++;
  };
  if (exact) {
    const chosen = rows.map(() => 0);
    for (let n = 0; n < orders.length ** rows.length; n++) {
      let rest = n;
      for (let t = 0; t < rows.length; t++) {
        chosen[t] = rest % orders.length;
        rest = Math.floor(rest / orders.length);
      }
      count(chosen);
    }
  } else {
    const random = seeded(seed);
    // The round as it was is one of the draws.
    count(rows.map(() => 0));
    for (let n = 1; n < DRAWS; n++) count(rows.map(() => Math.floor(random() * orders.length)));
  }
  const p = as / of;
  const means = names.map((_, j) => rows.reduce((sum, row) => sum + (row[j] ?? 0), 0) / rows.length);
  const best = names[means.indexOf(Math.max(...means))] ?? "";
  const words =
    p < NOISE
      ? `${best} was liked best, and that is more than noise: so large a difference comes by chance in ${(100 * p).toFixed(p < 0.01 ? 1 : 0)} of 100 such rounds.`
      : `${best} has the highest mean, but that may be noise: so large a difference comes by chance in ${Math.round(100 * p)} of 100 such rounds. More tasters would tell.`;
  return { means, p, friedman: friedmanOf(rows), exact, words };
}
