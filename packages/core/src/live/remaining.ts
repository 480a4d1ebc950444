import { quantile } from "./quantile";
import type { Range } from "../measure/range-schema";
import type { Expected } from "./events-schema";

export interface ProbeReading {
  /** Minutes from the oven door. */
  minutes: number;
  celsius: number;
}

export interface Remaining {
  /** Minutes from the door until it is done, and from now. */
  doneAt: Range;
  left: Range;
  /** How much hotter than thought the oven works, K. */
  ovenK: Range;
  /** How many of the probe's readings spoke. */
  readings: number;
  /** Readings that no oven explains: the probe slipped, or sends nonsense. */
  ignored: number;
}

/** What a batter's own mass, shape and beginning leave open in the time of everything, relative (ln); B. */
const PACE_SPREAD = 0.09;
const PACES = [-0.27, -0.2, -0.15, -0.1, -0.06, -0.03, 0, 0.03, 0.06, 0.1, 0.15, 0.2, 0.27] as const;
/** A probe's tip stands seldom in the coldest place: share of the way from there to the boiling crust, and how likely. */
const DEPTHS = [
  { share: 0, weight: 0.4 },
  { share: 0.05, weight: 0.3 },
  { share: 0.1, weight: 0.2 },
  { share: 0.18, weight: 0.1 },
] as const;
/** How well the simulation follows a probe, K, with all that it leaves out; readings close in time share it. */
const SIGMA_K = 3;
/** Some readings are nonsense: so likely, anywhere in what a probe may show. */
const NONSENSE = 0.02;
const SPAN_K = 150;
/** Readings are drawn together into so many pieces of the bake. */
const PIECES = 24;
const BOILING_C = 100;
/** Finer ovens between those that were simulated, K. */
const STEP_K = 3;

/** The core of a simulated oven at any minute; past its end it goes on towards boiling. */
function coreAt(coreC: readonly number[], minute: number): number {
  const last = coreC.length - 1;
  if (minute <= last) {
    const k = Math.max(0, Math.floor(minute));
    const [from = 20, to = from] = [coreC[k], coreC[Math.min(last, k + 1)]];
    return from + (to - from) * (Math.max(0, minute) - k);
  }
  const [end = 20, before = end] = [coreC[last], coreC[Math.max(0, last - 3)]];
  const room = Math.max(0.5, BOILING_C - end);
  const slope = Math.max(0.02, (end - before) / 3);
  return end + room * (1 - Math.exp((-slope * (minute - last)) / room));
}

/** The core at a minute in an oven of a strength between those that were simulated, °C. */
export function coreOf({ ovens }: Pick<Expected, "ovens">, biasK: number, minute: number): number {
  const sorted = [...ovens].sort((a, b) => a.biasK - b.biasK);
  const above = sorted.findIndex((oven) => oven.biasK >= biasK);
  const hot = sorted[above < 0 ? sorted.length - 1 : Math.max(1, above)];
  const cold = sorted[above < 0 ? sorted.length - 2 : Math.max(0, above - 1)];
  if (!hot || !cold) return BOILING_C;
  return between(cold, hot, (biasK - cold.biasK) / (hot.biasK - cold.biasK), minute);
}

/** Each oven's curve runs on its own time to done, so that between two of them neither is smeared. */
function between(cold: Expected["ovens"][number], hot: Expected["ovens"][number], share: number, minute: number): number {
  const minutes = cold.minutes + share * (hot.minutes - cold.minutes);
  return (
    (1 - share) * coreAt(cold.coreC, (minute * cold.minutes) / minutes) +
    share * coreAt(hot.coreC, (minute * hot.minutes) / minutes)
  );
}

/** Readings in pieces of time, the middle one of each: a probe that sends too much counts no more than one that sends enough. */
function thinned(readings: readonly ProbeReading[], whole: number): ProbeReading[] {
  const pieces = new Map<number, ProbeReading[]>();
  for (const reading of readings) {
    if (!Number.isFinite(reading.celsius) || reading.celsius < -20 || reading.celsius > 130 || reading.minutes < 0) continue;
    const piece = Math.floor((reading.minutes / whole) * PIECES);
    pieces.set(piece, [...(pieces.get(piece) ?? []), reading]);
  }
  return [...pieces.values()].flatMap((piece) => {
    const sorted = [...piece].sort((a, b) => a.celsius - b.celsius);
    const middle = sorted[sorted.length >> 1];
    return middle ? [middle] : [];
  });
}

/**
 * When a bake is done by what its probe shows: of all ovens, paces and depths of the probe that are thinkable, those count that explain its readings
 * (Bayes' rule on a grid; a normal error with a share of nonsense). Minutes; the range holds four fifths. Without readings it is the expectation.
 */
export function remainingOf(
  expected: Pick<Expected, "ovens" | "biasSpreadK" | "minutes">,
  readings: readonly ProbeReading[],
  nowMinutes: number,
): Remaining {
  const used = thinned(readings, expected.minutes.mid);
  let best = -Infinity;
  const raw: { log: number; done: number; biasK: number; misfit: number }[] = [];
  const ovens = [...expected.ovens].sort((a, b) => a.biasK - b.biasK);
  for (let k = 0; k + 1 < ovens.length; k++) {
    const [cold, hot] = [ovens[k], ovens[k + 1]];
    if (!cold || !hot) continue;
    for (let biasK = cold.biasK; biasK < hot.biasK || (k + 2 === ovens.length && biasK === hot.biasK); biasK += STEP_K) {
      const share = (biasK - cold.biasK) / (hot.biasK - cold.biasK);
      const minutes = cold.minutes + share * (hot.minutes - cold.minutes);
      for (const pace of PACES) {
        const stretch = Math.exp(pace);
        const prior = -0.5 * (biasK / expected.biasSpreadK) ** 2 - 0.5 * (pace / PACE_SPREAD) ** 2;
        const cores = used.map((reading) => between(cold, hot, share, reading.minutes / stretch));
        for (const { share: depth, weight } of DEPTHS) {
          let log = prior + Math.log(weight);
          let misfit = 0;
          used.forEach((reading, n) => {
            const core = cores[n] ?? 0;
            const off = reading.celsius - (core + depth * Math.max(0, BOILING_C - core));
            const fits = ((1 - NONSENSE) * Math.exp(-0.5 * (off / SIGMA_K) ** 2)) / (SIGMA_K * 2.507);
            if (Math.abs(off) > 4 * SIGMA_K) misfit++;
            log += Math.log(fits + NONSENSE / SPAN_K);
          });
          best = Math.max(best, log);
          raw.push({ log, done: minutes * stretch, biasK, misfit });
        }
      }
    }
  }
  const kept = raw.map(({ log, done, biasK }) => ({ weight: Math.exp(log - best), done, biasK }));
  const range = (of: "done" | "biasK"): Range => ({
    low: quantile(kept, of, 0.1),
    mid: quantile(kept, of, 0.5),
    high: quantile(kept, of, 0.9),
  });
  const doneAt = range("done");
  const left = (minute: number): number => Math.max(0, minute - nowMinutes);
  const likeliest = raw.find(({ log }) => log === best);
  return {
    doneAt,
    left: { low: left(doneAt.low), mid: left(doneAt.mid), high: left(doneAt.high) },
    ovenK: range("biasK"),
    readings: used.length,
    ignored: likeliest?.misfit ?? 0,
  };
}
