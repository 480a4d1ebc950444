import { wallOf } from "./cool";
import { CUT_C, outcomeOf, tinS } from "./outcome";
import { openSpread, rangeOf, rough, sampledFactors, sampledRange, uncertaintyOf } from "./sensitivity";
import type { Fidelity } from "./simulation";
import type { Simulation } from "./simulation-schema";
import { coarser, type Start, stepsFor, untilDone } from "./start";
import { bakeThrough } from "./through";

export interface SimulateOptions {
  /** Takes it out after so many minutes, done or not. */
  minutes?: number | undefined;
  /** Without the runs that find the range: the range is then what this relative spread (ln) says. */
  spread?: number | undefined;
  /** The range by so many runs over all that is uncertain, in place of a few one by one. */
  runs?: number | undefined;
  /** About how many frames of the section to keep; 0 for none. */
  frames?: number | undefined;
  /** Fine where nothing is said. Coarse is there sooner, within 3 % of it, and its range holds the fine one. */
  fidelity?: Fidelity | undefined;
  /** On a grid whose minutes are off by some per cent: for comparing many such bakes of one formula with each other, never for telling. */
  rough?: boolean | undefined;
  /** Stops when it leaves the oven. */
  withoutCooling?: boolean | undefined;
}

const FRAMES = 36;
/** Done so many s before the last stage, that stage only dries it. */
const EARLY_S = 90;
const LONGEST_COOLING_S = 4 * 3600;
/** The first look, before the early end of the range. */
const LOOK_BEFORE = 0.95;

/** Bakes a start through oven, tin and rack and reads everything from it. */
export function simulateStart(start: Start, massSpread: number, options: SimulateOptions = {}): Simulation {
  const fidelity = options.fidelity ?? "fine";
  const own = stepsFor(start);
  const steps = options.rough ? rough(own) : fidelity === "coarse" ? coarser(own) : own;
  const cooling = { tinS: tinS(start), untilC: CUT_C - 2, longestS: LONGEST_COOLING_S };
  const trace = bakeThrough(start, steps, {
    minutes: options.minutes,
    frames: options.frames ?? FRAMES,
    ...(options.withoutCooling ? {} : { cooling }),
  });
  const outcome = outcomeOf(trace);
  // A last stage with its minutes ends by the clock: what it would have needed is asked of the same bake with that end left open.
  const openEnd = untilDone(start);
  const doneS = trace.doneS ?? (openEnd === start || options.minutes !== undefined ? null : bakeThrough(openEnd, steps).doneS);
  const doneMinutes = (doneS ?? trace.outS) / 60;
  const { spread, sensitivity } =
    options.spread !== undefined
      ? { spread: options.spread, sensitivity: [] }
      : fidelity === "coarse"
        ? { spread: openSpread(start, massSpread), sensitivity: [] }
        : uncertaintyOf(openEnd, steps, massSpread);
  const sampled = options.runs ? sampledRange(openEnd, steps, massSpread, options.runs) : null;
  const done = sampled
    ? { low: doneMinutes * sampled.low, mid: doneMinutes, high: doneMinutes * sampled.high }
    : rangeOf(doneMinutes, spread);
  const notes: string[] = [];
  if (!outcome.reached)
    notes.push(
      doneS !== null
        ? `As laid out it comes out after ${Math.round(outcome.minutes)} min, before it is done; it is done after about ${Math.round(doneMinutes)}.`
        : outcome.marks.core !== null
          ? `Its middle is done after about ${Math.round(outcome.marks.core)} min; it is not ${outcome.judged === "snaps" ? "dry" : "coloured"} after ${Math.round(outcome.minutes)}.`
          : options.minutes === undefined
            ? `The middle does not reach ${Math.round(start.targetC)} °C: this oven is too cool for it.`
            : `After ${Math.round(options.minutes)} min the middle stands at ${Math.round(trace.samples[trace.outSample]?.coreC ?? 0)} °C, under its ${Math.round(start.targetC)} °C.`,
    );
  const lastStage = trace.passed.at(-1);
  if (outcome.reached && lastStage && trace.passed.length > 1 && doneMinutes * 60 < lastStage.fromS - EARLY_S)
    notes.push(`It is done after ${Math.round(doneMinutes)} min, before its last stage begins.`);
  if (start.oven.biasK === undefined)
    notes.push("The oven is not measured: it may be 10 °C off, which moves the minutes by about a tenth.");
  if (start.hangs && wallOf(start.vessel) !== "holds")
    notes.push("Greased, lined or of rubber, its wall lets the crumb go: upside down it would slide out. A bare wall holds it.");
  if (outcome.pale) notes.push("It is taken out before it has its colour: waiting for it would dry it out.");
  if (outcome.gummy.share > 0.02) notes.push("Part of the crumb has not set or is over-wet when it leaves the oven.");
  if (outcome.gummy.side > 0.02)
    notes.push("Its open side is still soft when its faces are done, as of anything thick on a plate.");
  if (outcome.top === "over the rim") notes.push(`About ${outcome.overflowMl} mL stand over what the pan can hold.`);
  return { ...outcome, fidelity, done, checkAtMinutes: Math.max(1, Math.floor(LOOK_BEFORE * done.low)), sensitivity, notes };
}

/** Some of the many coarse runs over all that is uncertain, as factors of the minutes; see `sampledFactors`. */
export const sampleStart = (start: Start, massSpread: number, from: number, to: number): number[] | null =>
  sampledFactors(untilDone(start), stepsFor(start), massSpread, from, to);
