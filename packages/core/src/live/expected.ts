import { type BakedAnalysis, ready } from "../balance/readings";
import { simulateStart } from "../bake/simulate";
import type { Simulation } from "../bake/simulation-schema";
import { hotterBy, type Start } from "../bake/start";
import { CoreError } from "../errors";
import type { Opened } from "../formula/open";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
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

/** A bake as the counter needs it: its steps, and what ovens of several strengths would do. Throws as `readings`. */
export function readyForCounter(input: Opened, shelf: Shelf = builtInShelf, warmMinutes?: number): LaidOut {
  const { start, massSpread, conclude } = ready(input, shelf);
  const simulation = simulateStart(start, massSpread, { frames: 0 });
  const analysis = conclude(simulation);
  if (analysis.open.length > 0)
    throw new CoreError("empty-formula", `Not weighed yet: ${analysis.open.map(({ name }) => name).join(", ")}. Answer what is open before it is baked.`, "lines"); // prettier-ignore
  const coreC = minuteByMinute(simulation);
  return {
    analysis,
    steps: stepsOf(input, analysis, simulation, shelf, warmMinutes),
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
