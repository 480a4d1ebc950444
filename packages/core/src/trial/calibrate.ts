import { z } from "zod";
import { ready } from "../balance/readings";
import { simulateStart } from "../bake/simulate";
import { hotterBy } from "../bake/start";
import { brownWord } from "../bake/browning";
import { CoreError } from "../errors";
import type { Opened } from "../formula/open";
import { rangeSchema, type Range } from "../measure/range-schema";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { isFlour } from "../pantry/ingredient";
import { gramsIn, scaledGroup } from "./groups";
import { lossOf, middleOf } from "./measured";
import type { Measured } from "./measured-schema";
import { coreAtOut } from "./outcome";

/** A trial as the calibration reads it: the formula in the oven as it was thought to be, and what was measured. */
export interface Logged {
  input: Opened;
  measured: Measured;
  ovenId?: string | undefined;
  /** Months since the powder was opened. */
  powderAgeMonths?: number | undefined;
  /** How good it came out, 0 to 1. */
  worth?: number | undefined;
  /** Volumes that were filled as always and then weighed. */
  cups?: readonly { ingredientId: string; meantG: number; weighedG: number }[] | undefined;
  /** Symptoms tell that something else was wrong: such a bake teaches nothing of the oven. */
  spoilt?: boolean | undefined;
}

export const learntKinds = ["oven", "cup", "powder", "colour", "minutes"] as const;

export const learntSchema = z.object({
  /** `oven:<id>:<mode>`, `cup:<ingredient>`, `powder`, `colour`, `minutes`. */
  id: z.string(),
  kind: z.enum(learntKinds),
  /** Which oven or ingredient. */
  of: z.string(),
  mode: z.string().optional(),
  /** K for an oven, a factor for a cup, the share left at a year for powder, minutes at 150 °C for colour, a factor for minutes. Eight of ten lie within. */
  value: rangeSchema,
  /** What was thought before anything was logged. */
  before: rangeSchema,
  from: z.number().int(),
  words: z.string(),
});
export type Learnt = z.infer<typeof learntSchema>;

/** What is thought before: an oven is off by 12 K either way, a cup by a tenth, powder loses 0 to 9 % a month (one standard deviation or ends). */
const PRIOR = { ovenK: 12, cup: 0.1, minutes: 0.1, decayMost: 0.16 };
/** How well one bake tells: core, loss and height against the simulation, one cup against the next. */
const SIGMA = { coreK: 3.5, lossPoints: 1.6, height: 0.13, cup: 0.05, minutes: 0.08, ovenK: 4 };
/** How far model, probe, scale and thermometer are off in all bakes of a kitchen together: more bakes do not make that smaller. */
const SHARED = { coreK: 2.5, lossPoints: 1.3, ovenK: 3 };
/** From this width of its range on an oven is not known well enough to be asked no more, K. */
const UNSURE_K = 12;
/** The model itself is off by so much in height, the same for a whole kitchen. */
const HEIGHT_OFF = [-0.2, -0.1, 0, 0.1, 0.2];
const HEIGHT_OFF_SIGMA = 0.1;
const OVENS_K = [-36, -18, 0, 18, 36] as const;
const STRENGTHS = [0.35, 0.6, 0.8, 1] as const;
const EIGHT_OF_TEN = 1.2816;
const LEAST_BAKES = 2;
const YEAR_MONTHS = 12;

interface Point {
  at: number;
  log: number;
}

function rangeOf(points: readonly Point[]): Range {
  const top = Math.max(...points.map(({ log }) => log));
  const weights = points.map(({ log }) => Math.exp(log - top));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  const quantile = (share: number): number => {
    let below = 0;
    for (const [k, weight] of weights.entries()) {
      below += weight / whole;
      if (below >= share) return points[k]?.at ?? 0;
    }
    return points.at(-1)?.at ?? 0;
  };
  const mean = points.reduce((sum, { at }, k) => sum + (at * (weights[k] ?? 0)) / whole, 0);
  return { low: Math.min(mean, quantile(0.1)), mid: mean, high: Math.max(mean, quantile(0.9)) };
}

/** The value of a curve through points at one place between them; its ends go on as lines. */
function through(xs: readonly number[], ys: readonly number[], x: number): number {
  let k = 0;
  while (k < xs.length - 2 && x > (xs[k + 1] ?? Infinity)) k++;
  const [x0 = 0, x1 = 1, y0 = 0, y1 = 0] = [xs[k], xs[k + 1], ys[k], ys[k + 1]];
  return y0 + ((y1 - y0) * (x - x0)) / (x1 - x0);
}

const normal = (observed: number, predicted: number, sigma: number): number => -0.5 * ((observed - predicted) / sigma) ** 2;

/**
 * Log likelihood of residuals that have an error of their own (`sigma`) and one that all share (`shared`), which is summed over: normal with covariance
 * σ² I + τ² 11ᵀ, by the formula of Sherman and Morrison.
 */
export function sharedNormal(residuals: readonly number[], sigma: number, shared: number): number {
  const sum = residuals.reduce((all, one) => all + one, 0);
  const squares = residuals.reduce((all, one) => all + one * one, 0);
  return -0.5 * (squares - (sum * sum * shared ** 2) / (sigma ** 2 + residuals.length * shared ** 2)) / sigma ** 2; // prettier-ignore
}

/** Logs are read again and again as they grow; what was baked for a trial is kept, the oldest let go. */
const baked = new Map<string, number[]>();
const KEPT = 400;

/** What the lines are on this shelf. */
const eaten = ({ lines }: Opened, shelf: Shelf) => lines.map(({ ingredientId }) => shelf.get(ingredientId ?? ""));

function once(key: unknown, bake: () => number[]): number[] {
  const text = JSON.stringify(key);
  const there = baked.get(text);
  if (there) return there;
  const found = bake();
  baked.set(text, found);
  const oldest = baked.keys().next().value;
  if (baked.size > KEPT && oldest !== undefined) baked.delete(oldest);
  return found;
}

/** A bake in ovens of several strengths, for as long as it was baked: core and loss in each. */
function inOvens({ input, measured: { minutes } }: Logged, shelf: Shelf): { core: number[]; loss: number[] } {
  const all = once(["ovens", input, minutes, eaten(input, shelf)], () => {
    const { start, massSpread } = ready(input, shelf);
    const options = { frames: 0, spread: 0, rough: true, withoutCooling: true, minutes };
    const runs = OVENS_K.map((biasK) => simulateStart(hotterBy(start, biasK), massSpread, options));
    return [...runs.map(coreAtOut), ...runs.map(({ loss }) => loss.oven)];
  });
  return { core: all.slice(0, OVENS_K.length), loss: all.slice(OVENS_K.length) };
}

function ovenOf(trials: readonly Logged[], shelf: Shelf, id: string, mode: string): Learnt | null {
  const usable = trials.filter(({ measured, spoilt }) => !spoilt && measured.minutes !== undefined && (measured.coreC !== undefined || lossOf(measured) !== null)); // prettier-ignore
  if (usable.length < LEAST_BAKES) return null;
  const curves = usable.flatMap((trial) => {
    try {
      return [{ trial, ...inOvens(trial, shelf) }];
    } catch (error) {
      if (error instanceof CoreError) return [];
      throw error;
    }
  });
  const points: Point[] = [];
  for (let at = -40; at <= 40; at += 1) {
    const off = { core: [] as number[], loss: [] as number[], read: [] as number[] };
    for (const { trial, core, loss } of curves) {
      const { coreC, ovenC } = trial.measured;
      const lost = lossOf(trial.measured);
      if (coreC !== undefined) off.core.push(coreC - through(OVENS_K, core, at));
      if (lost !== null) off.loss.push(lost - through(OVENS_K, loss, at));
      if (ovenC !== undefined && trial.input.oven)
        off.read.push(ovenC - trial.input.oven.celsius - (trial.input.oven.biasK ?? 0) - at);
    }
    const log =
      normal(at, 0, PRIOR.ovenK) +
      sharedNormal(off.core, SIGMA.coreK, SHARED.coreK) +
      sharedNormal(off.loss, SIGMA.lossPoints, SHARED.lossPoints) +
      sharedNormal(off.read, SIGMA.ovenK, SHARED.ovenK);
    points.push({ at, log });
  }
  const value = rangeOf(points);
  const off = Math.round(Math.abs(value.mid));
  const sure = value.low > 2 || value.high < -2;
  const read = usable.some(({ measured }) => measured.ovenC !== undefined);
  const ask = !read && value.high - value.low > UNSURE_K ? " A thermometer on the rack for twenty minutes would tell it best." : "";
  const words = `Your oven seems ${off} °C ${value.mid >= 0 ? "hotter" : "cooler"} than thought, between ${signed(value.low)} and ${signed(value.high)}, from ${usable.length} bakes${sure ? "" : "; it may well be true"}.${ask}`;
  return {
    id: `oven:${id}:${mode}`,
    kind: "oven",
    of: id,
    mode,
    value,
    before: priorRange(PRIOR.ovenK),
    from: usable.length,
    words,
  };
}

const priorRange = (sigma: number, mid = 0): Range => ({ low: mid - EIGHT_OF_TEN * sigma, mid, high: mid + EIGHT_OF_TEN * sigma });

/** A normal mean from observations of known spread, with a normal prior. */
function meanOf(values: readonly number[], sigma: number, prior: number): Range {
  const precision = 1 / prior ** 2 + values.length / sigma ** 2;
  const mid = values.reduce((sum, value) => sum + value, 0) / sigma ** 2 / precision;
  const half = EIGHT_OF_TEN / Math.sqrt(precision);
  return { low: mid - half, mid, high: mid + half };
}

const exp = ({ low, mid, high }: Range): Range => ({ low: Math.exp(low), mid: Math.exp(mid), high: Math.exp(high) });
/** A whole number with a true minus. */
const signed = (value: number): string => String(Math.round(value)).replace("-", "−");
const percent = (factor: number): number => Math.round(100 * (factor - 1));

function cupsOf(trials: readonly Logged[], shelf: Shelf): Learnt[] {
  const byIngredient = new Map<string, number[]>();
  for (const { cups = [] } of trials)
    for (const { ingredientId, meantG, weighedG } of cups)
      if (meantG > 0 && weighedG > 0) byIngredient.set(ingredientId, [...(byIngredient.get(ingredientId) ?? []), Math.log(weighedG / meantG)]);
  return [...byIngredient].map(([ingredientId, logs]): Learnt => {
    const value = exp(meanOf(logs, SIGMA.cup, PRIOR.cup));
    const off = percent(value.mid);
    const ingredient = shelf.get(ingredientId);
    const name = ingredient?.name.toLowerCase() ?? ingredientId;
    const filled = ingredient && !isFlour(ingredient) ? "spoon" : "cup";
    return {
      id: `cup:${ingredientId}`, kind: "cup", of: ingredientId, value, before: exp(priorRange(PRIOR.cup)), from: logs.length,
      words: `Your ${filled} of ${name} weighs ${Math.abs(off)} % ${off >= 0 ? "more" : "less"} than the table says, between ${signed(percent(value.low))} and ${signed(percent(value.high))} %, from ${logs.length} ${logs.length === 1 ? "weighing" : "weighings"}.`,
    };
  });
} // prettier-ignore

function powderOf(trials: readonly Logged[], shelf: Shelf): Learnt | null {
  const usable = trials.filter(({ measured, powderAgeMonths, input, spoilt }) => !spoilt && middleOf(measured) !== null && powderAgeMonths !== undefined && gramsIn(input, "powder", shelf) > 0); // prettier-ignore
  if (usable.length < LEAST_BAKES + 1) return null;
  const curves = usable.flatMap((trial) => {
    try {
      const { minutes } = trial.measured;
      const heights = once(["powder", trial.input, minutes, eaten(trial.input, shelf)], () =>
        STRENGTHS.map((strength) => {
          const { start, massSpread } = ready(scaledGroup(trial.input, "powder", strength, shelf), shelf);
          return simulateStart(start, massSpread, { frames: 0, spread: 0, rough: true, minutes }).cooledMm.middle;
        }),
      );
      return [{ trial, heights }];
    } catch (error) {
      if (error instanceof CoreError) return [];
      throw error;
    }
  });
  // What is looked for is how fast it fades; that the model stands a little high or low in this kitchen is summed over.
  const points: Point[] = [];
  for (let rate = 0; rate <= PRIOR.decayMost; rate += 0.004) {
    const logs = HEIGHT_OFF.map((off) =>
      curves.reduce(
        (sum, { trial, heights }) => {
          const strength = Math.exp(-rate * (trial.powderAgeMonths ?? 0));
          const predicted = Math.max(1, through(STRENGTHS, heights, strength)) * Math.exp(off);
          return sum + normal(Math.log((middleOf(trial.measured) ?? predicted) / predicted), 0, SIGMA.height);
        },
        normal(off, 0, HEIGHT_OFF_SIGMA),
      ),
    );
    const top = Math.max(...logs);
    points.push({ at: rate, log: top + Math.log(logs.reduce((sum, log) => sum + Math.exp(log - top), 0)) - rate / 0.05 });
  }
  const rate = rangeOf(points);
  const left = (perMonth: number): number => Math.exp(-perMonth * YEAR_MONTHS);
  const value = { low: left(rate.high), mid: left(rate.mid), high: left(rate.low) };
  return {
    id: "powder", kind: "powder", of: "powder", value, before: { low: left(0.115), mid: left(0.05), high: left(0.005) }, from: curves.length,
    words: `A year after it is opened your powder has ${Math.round(100 * value.mid)} % of its strength, between ${Math.round(100 * value.low)} and ${Math.round(100 * value.high)}, from ${curves.length} bakes.`,
  };
} // prettier-ignore

function colourOf(trials: readonly Logged[], shelf: Shelf): Learnt | null {
  const liked = trials.filter(({ worth, spoilt, measured }) => !spoilt && (worth ?? 0) >= 0.8 && measured.minutes !== undefined);
  if (liked.length < LEAST_BAKES + 1) return null;
  const logs = liked.flatMap(({ input, measured }) => {
    try {
      const { start, massSpread } = ready(input, shelf);
      const { browning } = simulateStart(start, massSpread, { frames: 0, spread: 0, rough: true, withoutCooling: true, minutes: measured.minutes });
      return browning.top > 0.05 ? [Math.log(browning.top / 4)] : [];
    } catch (error) {
      if (error instanceof CoreError) return [];
      throw error;
    }
  });
  if (logs.length < LEAST_BAKES + 1) return null;
  const spread = exp(meanOf(logs, 0.5, 0.7));
  const value = { low: 4 * spread.low, mid: 4 * spread.mid, high: 4 * spread.high };
  return {
    id: "colour", kind: "colour", of: "top", value, before: { low: 1.6, mid: 4, high: 9.8 }, from: logs.length,
    words: `You like a top that is ${brownWord(value.mid)}: what you scored well had ${value.mid.toFixed(1)} min at 150 °C on it, between ${value.low.toFixed(1)} and ${value.high.toFixed(1)}, from ${logs.length} bakes.`,
  };
} // prettier-ignore

/** How much longer than predicted a bake takes to its target in this kitchen, where the oven is known. */
function minutesOf(trials: readonly Logged[], shelf: Shelf, ovens: readonly Learnt[]): Learnt | null {
  const logs = trials.flatMap(({ input, measured, spoilt }) => {
    if (spoilt || measured.minutes === undefined || measured.coreC === undefined) return [];
    try {
      const { start, massSpread } = ready(input, shelf);
      if (Math.abs(measured.coreC - start.targetC) > 2) return [];
      const known = ovens.find(({ of, mode }) => of === (input.oven?.ovenId ?? "") && mode === (input.oven?.mode ?? "still"));
      const { minutes } = simulateStart(hotterBy(start, known?.value.mid ?? 0), massSpread, { frames: 0, spread: 0, rough: true, withoutCooling: true });
      return [Math.log(measured.minutes / minutes)];
    } catch (error) {
      if (error instanceof CoreError) return [];
      throw error;
    }
  });
  if (logs.length < LEAST_BAKES + 1) return null;
  const value = exp(meanOf(logs, SIGMA.minutes, PRIOR.minutes));
  const off = percent(value.mid);
  return {
    id: "minutes", kind: "minutes", of: "minutes", value, before: exp(priorRange(PRIOR.minutes)), from: logs.length,
    words: `With the oven as learnt your bakes take ${Math.abs(off)} % ${off >= 0 ? "longer" : "less"} than predicted, between ${signed(percent(value.low))} and ${signed(percent(value.high))} %, from ${logs.length} bakes.`,
  };
} // prettier-ignore

/**
 * What logged bakes tell of a kitchen: how far each oven is off in each mode, what the baker's cups weigh, how the powder fades, which colour is
 * liked, how long things take. Bayesian, each with its range; nothing is told from fewer than two bakes. Inputs are opened with the oven as it was
 * thought to be then. Bakes that went wrong otherwise are left out.
 */
export function calibrate(trials: readonly Logged[], shelf: Shelf = builtInShelf): Learnt[] {
  const byOven = new Map<string, { id: string; mode: string; trials: Logged[] }>();
  for (const trial of trials) {
    const id = trial.ovenId ?? trial.input.oven?.ovenId;
    if (id === undefined) continue;
    const mode = trial.input.oven?.mode ?? "still";
    const there = byOven.get(`${id}/${mode}`) ?? { id, mode, trials: [] };
    there.trials.push(trial);
    byOven.set(`${id}/${mode}`, there);
  }
  const ovens = [...byOven.values()].flatMap(({ id, mode, trials: of }) => ovenOf(of, shelf, id, mode) ?? []);
  return [
    ...ovens,
    ...cupsOf(trials, shelf),
    ...[powderOf(trials, shelf), colourOf(trials, shelf), minutesOf(trials, shelf, ovens)].filter((one) => one !== null),
  ];
}
