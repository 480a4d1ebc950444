import { inverse, Matrix } from "ml-matrix";
import type { Baked } from "./bakes";
import { type Guess, type Known, learn, leftOut, mixed, type Place, type Told } from "./gaussian";
import { type Liking, likedBy } from "./preference";
import type { Doubt, Quality } from "./qualities";
import type { Belief } from "./next-bake";

/** A bake that was made, with its bake in the computer and what came out, by quality. */
export interface Made {
  id: string;
  baked: Baked;
  values: ReadonlyMap<string, number>;
  /** What bakes of one day, oven, packet or taster share. */
  block: string | null;
  /** When it was baked, ms, where that is known. */
  at?: number;
}
/** What is believed of one quality. */
interface Learnt {
  quality: Quality;
  at: (baked: Baked, single?: boolean) => Guess;
  between: (a: Baked, b: Baked) => Guess;
  noise: number;
  checked: { within: number; of: number };
}
export interface Beliefs {
  of: (baked: Baked, quality: string, single?: boolean) => Guess;
  between: (a: Baked, b: Baked, quality: string) => Guess;
  /** Mean and deviation, each asked once. */
  plain: Belief;
  /** By quality: the scatter of a single bake, and how many lay in the range that the others gave of them. */
  model: { quality: string; noise: number; within: number; of: number }[];
}

const exactly = (value: number): Guess => ({ mean: value, sd: 0, low: value, high: value });

/** Doubts of a quality in its own unit: at the size of the present bake, or of what its results differ by. */
function doubtOf({ doubt, relative, how }: Quality, present: number, values: readonly number[]): Doubt {
  const mean = values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);
  const spread = Math.sqrt(values.reduce((sum, one) => sum + (one - mean) ** 2, 0) / Math.max(1, values.length));
  const size = how === "own" ? Math.max(spread, 0.05 * Math.abs(mean), 1e-3) : relative ? Math.max(1e-6, Math.abs(present)) : 1;
  return { offset: doubt.offset * size, slope: doubt.slope * size, bend: doubt.bend * size, noise: doubt.noise * size };
}

/** What a bake leans on, held against those that may be baked: 0 in their middle, 1 a standard deviation over it. */
function standardised(quality: string, sound: readonly Baked[]): (baked: Baked) => number {
  const all = sound.map(({ leans }) => leans.get(quality) ?? 0);
  const mean = all.reduce((a, b) => a + b, 0) / Math.max(1, all.length);
  const sd = Math.sqrt(all.reduce((sum, one) => sum + (one - mean) ** 2, 0) / Math.max(1, all.length));
  return ({ leans }) => (sd < 1e-9 ? 0 : ((leans.get(quality) ?? mean) - mean) / sd);
}

function fromBakes(quality: Quality, made: readonly Made[], sound: readonly Baked[], present: Baked): Learnt {
  const own = made.flatMap(({ values }) => values.get(quality.id) ?? []);
  const usual = quality.how === "own" && own.length > 0 ? own.reduce((a, b) => a + b, 0) / own.length : quality.usual;
  const doubt = doubtOf(quality, present.means.get(quality.id) ?? usual, own);
  const z = standardised(quality.id, sound);
  const mean = (baked: Baked): number => baked.means.get(quality.id) ?? usual;
  const told = made.flatMap(({ values, baked, block }): Told[] => {
    const value = values.get(quality.id);
    return value === undefined ? [] : [{ x: baked.x, z: z(baked), y: value - mean(baked), block }];
  });
  const known: Known = learn(told, doubt);
  const place = (baked: Baked): Place => ({ x: baked.x, z: z(baked) });
  const moved = (guess: Guess, by: number): Guess => ({ mean: guess.mean + by, sd: guess.sd, low: guess.low + by, high: guess.high + by });
  return {
    quality,
    at: (baked, single) => moved(known.at(baked.x, z(baked), single), mean(baked)),
    between: (a, b) => moved(known.between(place(a), place(b)), mean(b) - mean(a)),
    noise: known.noise,
    checked: leftOut(told, doubt),
  };
} // prettier-ignore

/** How far bakes are alike in what people like of them. */
const ALIKE = 1.4;

/** Liking from comparisons of two bakes; nothing but doubt where there are none. `likings` by the number of the bake in `made`. */
function fromLikings(quality: Quality, made: readonly Made[], likings: readonly Liking[]): Learnt {
  const { slope, bend, noise } = quality.doubt;
  const covariance = (a: Baked, b: Baked): number => {
    const apart = a.x.reduce((sum, one, k) => sum + (one - (b.x[k] ?? 0)) ** 2, 0);
    return slope ** 2 * a.x.reduce((sum, one, k) => sum + one * (b.x[k] ?? 0), 0) + bend ** 2 * Math.exp(-apart / (2 * ALIKE * ALIKE));
  };
  const points = made.map(({ baked }) => baked);
  const prior = points.map((a) => points.map((b) => covariance(a, b)));
  const liked = likings.length === 0 ? null : likedBy(likings, prior);
  const solved = liked ? inverse(new Matrix(prior.map((row, i) => row.map((value, j) => value + (i === j ? 1e-8 : 0))))) : null;
  const guess = (places: readonly { at: Baked; times: number }[]): Guess => {
    let own = 0;
    for (const a of places) for (const b of places) own += a.times * b.times * covariance(a.at, b.at);
    if (!liked || !solved) return mixed([{ weight: 1, mean: 0, variance: own }]);
    const k = Matrix.rowVector(points.map((point) => places.reduce((sum, { at, times }) => sum + times * covariance(at, point), 0)));
    const weights = k.mmul(solved);
    const mean = weights.mmul(Matrix.columnVector(liked.mean)).get(0, 0);
    const known = weights.mmul(k.transpose()).get(0, 0) - weights.mmul(new Matrix(liked.covariance)).mmul(weights.transpose()).get(0, 0);
    return mixed([{ weight: 1, mean, variance: Math.max(0, own - known) }]);
  };
  return {
    quality,
    at: (baked) => guess([{ at: baked, times: 1 }]),
    between: (a, b) => guess([{ at: b, times: 1 }, { at: a, times: -1 }]),
    noise,
    checked: { within: 0, of: 0 },
  };
} // prettier-ignore

const fromReckoning = (quality: Quality): Learnt => ({
  quality,
  at: (baked) => exactly(baked.means.get(quality.id) ?? 0),
  between: (a, b) => exactly((b.means.get(quality.id) ?? 0) - (a.means.get(quality.id) ?? 0)),
  noise: 0,
  checked: { within: 0, of: 0 },
});

/** What the bakes that were made tell of every quality that a season asks for. */
export function beliefsOf(qualities: readonly Quality[], made: readonly Made[], likings: readonly Liking[], sound: readonly Baked[], present: Baked): Beliefs {
  const how = (quality: Quality): Learnt =>
    quality.how === "reckoned" ? fromReckoning(quality) : quality.how === "preferred" ? fromLikings(quality, made, likings) : fromBakes(quality, made, sound, present);
  const learnt = new Map(qualities.map((quality) => [quality.id, how(quality)]));
  const find = (id: string): Learnt => {
    const found = learnt.get(id);
    if (!found) throw new Error(`no quality "${id}" in this season`);
    return found;
  };
  const once = new Map<Baked, Map<string, Guess>>();
  const plain = (baked: Baked, id: string): Guess => {
    const mine = once.get(baked) ?? new Map<string, Guess>();
    once.set(baked, mine);
    const known = mine.get(id) ?? find(id).at(baked);
    mine.set(id, known);
    return known;
  };
  return {
    of: (baked, id, single) => (single ? find(id).at(baked, true) : plain(baked, id)),
    between: (a, b, id) => find(id).between(a, b),
    plain,
    model: [...learnt].map(([quality, { noise, checked }]) => ({ quality, noise, ...checked })),
  };
} // prettier-ignore
