import { Matrix, inverse } from "ml-matrix";
import { seeded } from "../random";

/**
 * Optimal designs by exchange: of rows that may be baked, those n (some more than once) whose information matrix M = X'X + fixed'fixed + diag(ridge) has
 * the largest determinant (D: effects known best), or whose mean variance of prediction over all rows is least (I: the map known best).
 * Sources: V. V. Fedorov, Theory of Optimal Experiments, 1972 (the exchange and its gain); W. DuMouchel and B. Jones, Technometrics 36, 1994 (the
 * ridge: terms that may matter weigh in without asking for a bake each).
 */
export interface DesignAsked {
  rows: readonly (readonly number[])[];
  runs: number;
  /** What has been baked already. */
  fixed?: readonly (readonly number[])[];
  /** Added to the diagonal of M, one number a term; what is not known at all has 0. */
  ridge?: readonly number[];
  criterion?: "D" | "I";
  starts?: number;
  seed?: number;
  /** Told what share is done; true from it ends the work with the best so far. */
  tell?: (done: number) => boolean;
}
export interface Design {
  /** Which rows, in no order. */
  chosen: number[];
  /** |X'X / n|^(1/p) of the chosen and the fixed: 1 is a design of orthogonal columns of ±1. */
  dEfficiency: number;
  /** Mean x'M⁻¹x over all rows, in units of the variance of one bake. */
  meanVariance: number;
}

const STARTS = 8;
const MOST_PASSES = 60;
/** Keeps M invertible while terms outnumber runs; far under anything that is told. */
const TINY = 1e-7;
/** An exchange that gains less ends the walk. */
const LEAST_GAIN = 1e-9;

const dot = (a: readonly number[], b: readonly number[]): number => {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += (a[k] as number) * (b[k] as number);
  return sum;
};
const times = (matrix: readonly (readonly number[])[], row: readonly number[]): number[] => matrix.map((line) => dot(line, row));

function informationOf(rows: readonly (readonly number[])[], terms: number, ridge: readonly number[]): number[][] {
  const out = Array.from({ length: terms }, (_, i) => Array.from({ length: terms }, (__, j) => (i === j ? TINY + (ridge[i] ?? 0) : 0)));
  for (const row of rows) for (let i = 0; i < terms; i++) for (let j = 0; j < terms; j++) (out[i] as number[])[j] = (out[i]?.[j] ?? 0) + (row[i] ?? 0) * (row[j] ?? 0);
  return out;
} // prettier-ignore

/** ln of the determinant of a symmetric matrix that is positive definite, by its triangular factor. */
export function logDeterminant(matrix: readonly (readonly number[])[]): number {
  const n = matrix.length;
  const l = matrix.map((row) => [...row]);
  let sum = 0;
  for (let j = 0; j < n; j++) {
    let pivot = l[j]?.[j] ?? 0;
    for (let k = 0; k < j; k++) pivot -= (l[j]?.[k] ?? 0) ** 2;
    if (pivot <= 0) return -Infinity;
    const root = Math.sqrt(pivot);
    (l[j] as number[])[j] = root;
    sum += 2 * Math.log(root);
    for (let i = j + 1; i < n; i++) {
      let value = matrix[i]?.[j] ?? 0;
      for (let k = 0; k < j; k++) value -= (l[i]?.[k] ?? 0) * (l[j]?.[k] ?? 0);
      (l[i] as number[])[j] = value / root;
    }
  }
  return sum;
}

/** Sum of the outer products of all rows over their number: what I-optimality weighs the inverse with. */
const momentsOf = (rows: readonly (readonly number[])[], terms: number): number[][] =>
  informationOf(rows, terms, []).map((line) => line.map((value) => value / Math.max(1, rows.length)));

/** |X'X / n|^(1/p) of rows: 1 where columns of ±1 are independent of each other, 0 where some effect cannot be told at all. */
export function dEfficiencyOf(rows: readonly (readonly number[])[]): number {
  const terms = rows[0]?.length ?? 0;
  return Math.exp(logDeterminant(informationOf(rows, terms, [])) / Math.max(1, terms)) / Math.max(1, rows.length);
}

/** The design of so many runs. Throws a plain error for no rows or no runs. */
export function optimalDesign({ rows, runs, fixed = [], ridge = [], criterion = "D", starts = STARTS, seed = 1, tell }: DesignAsked): Design {
  const terms = rows[0]?.length ?? 0;
  if (terms === 0 || runs < 1) throw new Error("a design needs rows and runs");
  const random = seeded(seed);
  const moments = momentsOf(rows, terms);
  const measured = (chosen: readonly number[]): { log: number; trace: number } => {
    const information = informationOf([...fixed, ...chosen.map((k) => rows[k] ?? [])], terms, ridge);
    const inverted = inverse(new Matrix(information)).to2DArray();
    return { log: logDeterminant(information), trace: moments.reduce((sum, line, i) => sum + dot(line, inverted[i] ?? []), 0) };
  };
  let best: { chosen: number[]; worth: number } | null = null;
  for (let start = 0; start < starts; start++) {
    const chosen = Array.from({ length: runs }, () => Math.floor(random() * rows.length));
    walk(chosen);
    const { log, trace } = measured(chosen);
    const worth = criterion === "D" ? log : -trace;
    if (best === null || worth > best.worth + LEAST_GAIN) best = { chosen: [...chosen], worth };
    if (tell?.((start + 1) / starts)) break;
  }
  const { chosen } = best as { chosen: number[] };
  return {
    chosen,
    dEfficiency: dEfficiencyOf([...fixed, ...chosen.map((k) => rows[k] ?? [])]),
    meanVariance: measured(chosen).trace,
  };

  /** What the gain of an exchange is made of, for the runs as they are chosen: M⁻¹ of each row, its variance, and for I its part of the mean variance. */
  function aheadOf(chosen: readonly number[]): { seen: number[]; v: number; a: number; weighted: number[] }[] {
    const information = informationOf([...fixed, ...chosen.map((k) => rows[k] ?? [])], terms, ridge);
    const inverted = inverse(new Matrix(information)).to2DArray();
    return rows.map((row) => {
      const seen = times(inverted, row);
      const weighted = criterion === "I" ? times(moments, seen) : [];
      return { seen, v: dot(row, seen), a: criterion === "I" ? dot(seen, weighted) : 0, weighted };
    });
  }

  /** Exchanges the run that gains most for the row that gains most, until none gains. */
  function walk(chosen: number[]): void {
    let ahead = aheadOf(chosen);
    for (let pass = 0; pass < MOST_PASSES; pass++) {
      let gained = false;
      for (let i = 0; i < chosen.length; i++) {
        const from = chosen[i] ?? 0;
        const out = rows[from] ?? [];
        const { v: vOut, a: aOut, weighted } = ahead[from] ?? { v: 0, a: 0, weighted: [] };
        let [gain, at] = [LEAST_GAIN, -1];
        for (const [j, { seen, v, a }] of ahead.entries()) {
          const c = dot(out, seen);
          let more = v - (vOut * v - c * c) - vOut;
          if (criterion === "I") {
            // Woodbury: tr(W M⁻¹) less tr((S⁻¹ + U'M⁻¹U)⁻¹ U'AU), U the row that comes and the one that goes, A = M⁻¹WM⁻¹.
            const b = dot(seen, weighted);
            const [p, q, r] = [1 + v, c, vOut - 1];
            const determinant = p * r - q * q;
            more = Math.abs(determinant) < 1e-12 ? -Infinity : (r * a - 2 * q * b + p * aOut) / determinant;
          }
          if (more > gain) [gain, at] = [more, j];
        }
        if (at < 0 || at === from) continue;
        chosen[i] = at;
        gained = true;
        ahead = aheadOf(chosen);
      }
      if (!gained) return;
    }
  }
} // prettier-ignore

/**
 * Runs parted into blocks of a size so that what blocks differ by hides as little as may be: pairs of runs change places while the determinant of the
 * information within blocks grows. Source: R. D. Cook and C. J. Nachtsheim, Technometrics 31, 1989. The answer has the block of each run.
 */
export function blocked(rows: readonly (readonly number[])[], size: number): number[] {
  const blocks = rows.map((_, k) => Math.floor(k / Math.max(1, size)));
  const count = (blocks.at(-1) ?? 0) + 1;
  if (count < 2) return blocks;
  const terms = rows[0]?.length ?? 0;
  const within = (of: readonly number[]): number => {
    const centred: number[][] = [];
    for (let block = 0; block < count; block++) {
      const mine = rows.filter((_, k) => of[k] === block);
      const mean = Array.from({ length: terms }, (_, t) => mine.reduce((sum, row) => sum + (row[t] ?? 0), 0) / Math.max(1, mine.length));
      for (const row of mine) centred.push(row.map((value, t) => value - (mean[t] ?? 0)));
    }
    return logDeterminant(informationOf(centred, terms, Array<number>(terms).fill(1e-3)));
  };
  let now = within(blocks);
  for (let pass = 0; pass < 20; pass++) {
    let gained = false;
    for (let i = 0; i < blocks.length; i++)
      for (let j = i + 1; j < blocks.length; j++) {
        if (blocks[i] === blocks[j]) continue;
        [blocks[i], blocks[j]] = [blocks[j] ?? 0, blocks[i] ?? 0];
        const then = within(blocks);
        if (then > now + LEAST_GAIN) [now, gained] = [then, true];
        else [blocks[i], blocks[j]] = [blocks[j] ?? 0, blocks[i] ?? 0];
      }
    if (!gained) break;
  }
  return blocks;
} // prettier-ignore
