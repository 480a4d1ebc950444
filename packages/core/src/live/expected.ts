import { baked } from "../balance/analyse";
import { type BakedAnalysis, ready } from "../balance/readings";
import { simulateStart } from "../bake/simulate";
import type { Simulation } from "../bake/simulation-schema";
import { hotterBy, type Start } from "../bake/start";
import { CoreError } from "../errors";
import type { Opened } from "../formula/open";
import type { OpenedPart } from "../formula/open-part";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { splitSteps } from "../plan/split-steps";
import { stepsOf } from "../plan/steps";
import type { WorkStep } from "../plan/work-step-schema";
import type { Expected } from "./events-schema";

/** Ovens that are tried beside the one that is thought of: so much hotter or colder inside, K. */
export const OVENS_K = [-36, -24, -12, 0, 12, 24, 36] as const;

/** What an oven of another strength would do. */
export interface OvenCurve {
  biasK: number;
  minutes: number;
  /** °C at every whole minute from the door. */
  coreC: number[];
}

/** The core at every whole minute until it is taken out. */
export function minuteByMinute({ times, phases, coreC }: Pick<Simulation, "times" | "phases" | "coreC">): number[] {
  const out: number[] = [];
  let k = 0;
  const last = phases.filter((phase) => phase === "oven").length - 1;
  for (let minute = 0; minute * 60 <= (times[last] ?? 0); minute++) {
    while (k < last && (times[k + 1] ?? Infinity) <= minute * 60) k++;
    const [t0 = 0, t1 = t0] = [times[k], times[Math.min(last, k + 1)]];
    const share = t1 > t0 ? Math.min(1, Math.max(0, (minute * 60 - t0) / (t1 - t0))) : 0;
    const [c0 = 0, c1 = c0] = [coreC[k], coreC[Math.min(last, k + 1)]];
    out.push(Math.round((c0 + share * (c1 - c0)) * 10) / 10);
  }
  return out;
}

export const ovenCurve = (start: Start, biasK: number): OvenCurve => {
  const simulation = simulateStart(hotterBy(start, biasK), 0, { frames: 0, spread: 0, withoutCooling: true });
  return { biasK, minutes: simulation.minutes, coreC: minuteByMinute(simulation) };
};

export interface LaidOut {
  analysis: BakedAnalysis;
  steps: WorkStep[];
  expected: Expected;
}

/** The batter that a part at the counter is taken from: the whole, and all its parts in their order. */
export interface CounterSplit {
  whole: Opened;
  parts: readonly OpenedPart[];
  partId: string;
}

/** The steps of one part: the first mixes the batter for all, the others begin with their share of it. */
function stepsOfPart({ whole, parts, partId }: CounterSplit, shelf: Shelf, warmMinutes: number | undefined): WorkStep[] {
  const { analysis, simulation } = baked(whole, shelf, { frames: 0 }, "plain");
  const split = splitSteps(whole, analysis, simulation, parts, shelf, warmMinutes);
  const own = split.parts.find(({ part }) => part.id === partId)?.steps ?? [];
  if (parts[0]?.id === partId) return [...split.bowl, ...own];
  const here = new Set(own.map(({ id }) => id));
  return own.map((step) => ({
    ...step,
    after: step.after.filter((id) => here.has(id)),
    ...(step.within ? { within: { ...step.within, of: own[0]?.id ?? step.within.of } } : {}),
  }));
}

/** A bake as the counter needs it: its steps, and what ovens of several strengths would do; of one part where the batter is split. Throws as `readings`. */
export function readyForCounter(input: Opened, shelf: Shelf = builtInShelf, warmMinutes?: number, split?: CounterSplit): LaidOut {
  const { start, massSpread, conclude } = ready(input, shelf);
  const simulation = simulateStart(start, massSpread, { frames: 0 });
  const analysis = conclude(simulation);
  if (analysis.open.length > 0)
    throw new CoreError("empty-formula", `Not weighed yet: ${analysis.open.map(({ name }) => name).join(", ")}. Answer what is open before it is baked.`, "lines"); // prettier-ignore
  const coreC = minuteByMinute(simulation);
  return {
    analysis,
    steps: split ? stepsOfPart(split, shelf, warmMinutes) : stepsOf(input, analysis, simulation, shelf, warmMinutes),
    expected: {
      minutes: { ...analysis.bake.minutes, mid: simulation.minutes },
      checkAtMinutes: analysis.bake.checkAtMinutes,
      targetCoreC: analysis.bake.targetCoreC,
      coreC,
      ovens: OVENS_K.map((biasK) => (biasK === 0 ? { biasK, minutes: simulation.minutes, coreC } : ovenCurve(start, biasK))),
      biasSpreadK: start.oven.biasK === undefined ? 12 : Math.max(4, (start.oven.swingK ?? 8) / 2),
      restBeforeCuttingMinutes: analysis.bake.restBeforeCuttingMinutes,
      signs: analysis.bake.signs,
    },
  };
}
