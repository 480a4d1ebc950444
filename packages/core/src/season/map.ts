import { Matrix, solve } from "ml-matrix";
import type { Baked } from "./bakes";
import type { Beliefs } from "./beliefs";
import { termsOf } from "./first-bakes";
import { wishesOf } from "./next-bake";
import type { Season, SeasonState } from "./season-schema";
import { coordinates, isNamed } from "./space";

const SIDE = 11;
/** Keeps the fit of a surface that has more terms than points from running away. */
const CALM = 1e-3;

/**
 * The first wish over the two factors that tell most, everything else as now. Between the points that were baked in the computer its number is read from a
 * surface of second order laid through them; what the kitchen adds is the model's own.
 */
export function mapOf(season: Season, sound: readonly Baked[], present: Baked, beliefs: Beliefs): SeasonState["map"] {
  const [wish] = wishesOf(season);
  const numeric = season.factors.flatMap((factor) => (isNamed(factor) || factor.kind === "share" ? [] : [{ id: factor.id, low: factor.low ?? 0, high: factor.high ?? 0 }]));
  if (!wish || numeric.length < 2) return null;
  const terms = termsOf(season.factors);
  const rows = sound.map(({ x }) => terms.row(x));
  const surface = (value: (baked: Baked) => number): ((x: readonly number[]) => number) => {
    const X = new Matrix(rows);
    const left = X.transpose().mmul(X);
    for (let k = 0; k < left.rows; k++) left.set(k, k, left.get(k, k) + CALM);
    const weights = solve(left, X.transpose().mmul(Matrix.columnVector(sound.map(value)))).to1DArray();
    return (x) => terms.row(x).reduce((sum, one, k) => sum + one * (weights[k] ?? 0), 0);
  };
  const mean = surface((baked) => baked.means.get(wish.quality) ?? 0);
  const leans = surface((baked) => baked.leans.get(wish.quality) ?? 0);
  const believed = surface((baked) => beliefs.plain(baked, wish.quality).mean);
  const at = (values: Record<string, number>): number[] => coordinates(season.factors, { ...present.settings, ...values });
  const told = numeric
    .map((factor) => ({ factor, by: Math.abs(believed(at({ [factor.id]: factor.high })) - believed(at({ [factor.id]: factor.low }))) }))
    .sort((a, b) => b.by - a.by);
  const [x, y] = [told[0]?.factor, told[1]?.factor];
  if (!x || !y) return null;
  const along = ({ low, high }: { low: number; high: number }): number[] => Array.from({ length: SIDE }, (_, k) => low + ((high - low) * k) / (SIDE - 1));
  const [xs, ys] = [along(x), along(y)];
  const hasMean = present.means.get(wish.quality) != null;
  const grid = ys.map((b) =>
    xs.map((a) => {
      const place = at({ [x.id]: a, [y.id]: b });
      const made: Baked = {
        ...present,
        x: place,
        means: new Map([[wish.quality, hasMean ? mean(place) : null]]),
        leans: new Map([[wish.quality, leans(place)]]),
      };
      return beliefs.plain(made, wish.quality);
    }),
  );
  return { x: x.id, y: y.id, xs, ys, mean: grid.map((row) => row.map((one) => one.mean)), sd: grid.map((row) => row.map((one) => one.sd)) };
} // prettier-ignore
