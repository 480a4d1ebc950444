import { inverse, Matrix } from "ml-matrix";
import type { Trial } from "../trial/trial";
import type { Baked } from "./bakes";
import { type Guess, type Known, learn, leftOut, mixed, type Place, type Told } from "./gaussian";
import { type Liking, likedBy, likingsOf } from "./preference";
import type { Doubt, Quality } from "./qualities";
import type { Belief } from "./next-bake";

/** A bake of the log that belongs to the season, with its bake in the computer. */
export interface Logged {
  trialId: string;
  trial: Trial;
  baked: Baked;
}
/** A round of blind tasting as the store keeps it. */
export interface Tasted {
  samples: readonly { trialId?: string | undefined }[];
  tasters: readonly { scores: readonly (number | null)[] }[];
}

/** What is believed of one quality. */
interface Learnt {
  quality: Quality;
  at: (baked: Baked, single?: boolean) => Guess;
  between: (a: Baked, b: Baked) => Guess;
  checked: { within: number; of: number };
}
export interface Beliefs {
  of: (baked: Baked, quality: string, single?: boolean) => Guess;
  between: (a: Baked, b: Baked, quality: string) => Guess;
  /** Mean and deviation, each asked once. */
  plain: Belief;
  checked: { within: number; of: number };
}

const exactly = (value: number): Guess => ({ mean: value, sd: 0, low: value, high: value });

/** Doubts of a quality in its own unit, at the size of the present bake. */
const doubtOf = ({ doubt, relative }: Quality, present: number): Doubt => {
  const size = relative ? Math.max(1e-6, Math.abs(present)) : 1;
  return { offset: doubt.offset * size, slope: doubt.slope * size, bend: doubt.bend * size, noise: doubt.noise * size };
};

/** What a bake leans on, held against those that may be baked: 0 in their middle, 1 a standard deviation over it. */
function standardised(quality: string, sound: readonly Baked[]): (baked: Baked) => number {
  const all = sound.map(({ leans }) => leans.get(quality) ?? 0);
  const mean = all.reduce((a, b) => a + b, 0) / Math.max(1, all.length);
  const sd = Math.sqrt(all.reduce((sum, one) => sum + (one - mean) ** 2, 0) / Math.max(1, all.length));
  return ({ leans }) => (sd < 1e-9 ? 0 : ((leans.get(quality) ?? mean) - mean) / sd);
}

function fromLog(quality: Quality, logged: readonly Logged[], sound: readonly Baked[], present: Baked): Learnt {
  const now = present.means.get(quality.id) ?? quality.usual;
  const doubt = doubtOf(quality, now);
  const z = standardised(quality.id, sound);
  const mean = (baked: Baked): number => baked.means.get(quality.id) ?? quality.usual;
  const told = logged.flatMap(({ trial, baked }): Told[] => {
    const value = quality.of(trial);
    return value === null ? [] : [{ x: baked.x, z: z(baked), y: value - mean(baked), block: trial.at.slice(0, 10) }];
  });
  const known: Known = learn(told, doubt);
  const place = (baked: Baked): Place => ({ x: baked.x, z: z(baked) });
  const moved = (guess: Guess, by: number): Guess => ({ mean: guess.mean + by, sd: guess.sd, low: guess.low + by, high: guess.high + by });
  return {
    quality,
    at: (baked, single) => moved(known.at(baked.x, z(baked), single), mean(baked)),
    between: (a, b) => moved(known.between(place(a), place(b)), mean(b) - mean(a)),
    checked: leftOut(told, doubt),
  };
} // prettier-ignore

/** How far bakes are alike in what people like of them. */
const ALIKE = 1.4;

/** Liking from blind tastings whose samples are bakes of this season; nothing but doubt where there are none. */
function fromTastings(quality: Quality, logged: readonly Logged[], tastings: readonly Tasted[]): Learnt {
  const { slope, bend } = quality.doubt;
  const covariance = (a: Baked, b: Baked): number => {
    const apart = a.x.reduce((sum, one, k) => sum + (one - (b.x[k] ?? 0)) ** 2, 0);
    return slope ** 2 * a.x.reduce((sum, one, k) => sum + one * (b.x[k] ?? 0), 0) + bend ** 2 * Math.exp(-apart / (2 * ALIKE * ALIKE));
  };
  const place = new Map(logged.map(({ trialId }, k) => [trialId, k]));
  const likings: Liking[] = tastings.flatMap(({ samples, tasters }) => {
    const at = samples.map(({ trialId }) => place.get(trialId ?? "") ?? -1);
    return tasters.flatMap(({ scores }) => likingsOf(scores, at)).filter(({ more, less }) => more >= 0 && less >= 0);
  });
  const points = logged.map(({ baked }) => baked);
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
    checked: { within: 0, of: 0 },
  };
} // prettier-ignore

const fromReckoning = (quality: Quality): Learnt => ({
  quality,
  at: (baked) => exactly(baked.means.get(quality.id) ?? 0),
  between: (a, b) => exactly((b.means.get(quality.id) ?? 0) - (a.means.get(quality.id) ?? 0)),
  checked: { within: 0, of: 0 },
});

/** What the log and the tastings tell of every quality that a season asks for. */
export function beliefsOf(qualities: readonly Quality[], logged: readonly Logged[], tastings: readonly Tasted[], sound: readonly Baked[], present: Baked): Beliefs {
  const learnt = new Map(
    qualities.map((quality) => [
      quality.id,
      quality.how === "reckoned" ? fromReckoning(quality) : quality.how === "preferred" ? fromTastings(quality, logged, tastings) : fromLog(quality, logged, sound, present),
    ]),
  );
  const find = (id: string): Learnt => {
    const found = learnt.get(id);
    if (!found) throw new Error(`no quality "${id}" in this season`);
    return found;
  };
  const once = new Map<Baked, Map<string, Guess>>();
  const plain = (baked: Baked, id: string): Guess => {
    const mine = once.get(baked) ?? new Map<string, Guess>();
    once.set(baked, mine);
    const before = mine.get(id) ?? find(id).at(baked);
    mine.set(id, before);
    return before;
  };
  const checked = [...learnt.values()].map((one) => one.checked);
  return {
    of: (baked, id, single) => (single ? find(id).at(baked, true) : plain(baked, id)),
    between: (a, b, id) => find(id).between(a, b),
    plain,
    checked: { within: checked.reduce((sum, { within }) => sum + within, 0), of: checked.reduce((sum, { of }) => sum + of, 0) },
  };
} // prettier-ignore
