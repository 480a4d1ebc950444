import { type Range } from "../measure/range";
import { type Model, modelTable, standardModel } from "./model";
import { bakeThrough } from "./through";
import type { Start, Steps } from "./start";
import { convectionOf } from "./surroundings";

/** How far an oven that nobody has measured is off, K; one whose profile is known, and the share of its swing that reaches the crumb. */
const UNKNOWN_OVEN_K = 10;
const KNOWN_OVEN_K = 3;
const SWING_SHARE = 0.25;
/** Under this, as a share of the minutes, no range goes: mixing, filling and reading the clock. */
const LEAST = 0.05;

export interface Sensitivity {
  input: string;
  change: string;
  /** % more minutes by that change. */
  percent: number;
}

/** A grid coarse enough to be run several times; only ratios of its minutes are used. */
const coarse = (steps: Steps): Steps => ({
  grid: { layers: Math.max(12, steps.grid.layers >> 1), columns: 6 },
  dt: steps.dt * 2,
  firstDt: Math.min(5, steps.firstDt * 2),
});

interface Case {
  input: string;
  change: string;
  start: Start;
  model: Model;
}

/** The inputs that leave the minutes open, each moved by one plausible step towards slower. */
function casesOf(start: Start, massSpread: number): Case[] {
  const { oven } = start;
  const model = standardModel;
  const known = oven.biasK !== undefined;
  const offK = Math.hypot(known ? KNOWN_OVEN_K : UNKNOWN_OVEN_K, SWING_SHARE * (oven.swingK ?? 0));
  const half = (name: keyof typeof modelTable): number => (modelTable[name].low + modelTable[name].value) / 2;
  const air = convectionOf(oven.mode ?? "still");
  const still = (air.h + air.low) / 2;
  const cases: Case[] = [
    { input: known ? "oven, measured" : "oven, not measured", change: `${offK.toFixed(0)} K cooler`, start: { ...start, oven: { ...oven, celsius: oven.celsius - offK } }, model },
    { input: "heat through batter", change: `${half("condensedShare").toFixed(2)} for ${model.condensedShare}`, start, model: { ...model, condensedShare: half("condensedShare") } },
    { input: "steam that escapes", change: `${((modelTable.steamEscape.high + modelTable.steamEscape.value) / 2).toFixed(2)} for ${model.steamEscape}`, start, model: { ...model, steamEscape: (modelTable.steamEscape.high + modelTable.steamEscape.value) / 2 } },
  ]; // prettier-ignore
  if (oven.mode !== "hob") {
    cases.push({
      input: "air in the oven",
      change: `${still.toFixed(1)} for ${air.h} W/m²K`,
      start: { ...start, convection: still },
      model,
    });
  } else {
    cases.push({
      input: "contact with the plate",
      change: `${half("griddleContact").toFixed(0)} for ${model.griddleContact} W/m²K`,
      start,
      model: { ...model, griddleContact: half("griddleContact") },
    });
  }
  if (massSpread > 0.002) {
    const factor = 1 + massSpread;
    cases.push({
      input: "mass of the batter",
      change: `${(100 * massSpread).toFixed(0)} % more`,
      start: { ...start, massKg: start.massKg * factor },
      model,
    });
  }
  return cases;
}

export interface Uncertainty {
  sensitivity: Sensitivity[];
  /** ln of the factor by which the minutes may be off either way. */
  spread: number;
}

/** What the uncertain inputs leave open, by a small deterministic set of coarse runs; independent, so they add in quadrature. */
export function uncertaintyOf(start: Start, steps: Steps, massSpread: number): Uncertainty {
  const rough = coarse(steps);
  const base = bakeThrough(start, rough).doneS;
  if (base === null) return { sensitivity: [], spread: LEAST };
  let square = LEAST ** 2;
  const sensitivity = casesOf(start, massSpread).map(({ input, change, start: moved, model }): Sensitivity => {
    const done = bakeThrough(moved, rough, { model }).doneS ?? 2 * base;
    const log = Math.log(done / base);
    square += log ** 2;
    return { input, change, percent: Math.round(1000 * (done / base - 1)) / 10 };
  });
  return { sensitivity, spread: Math.sqrt(square) };
}

/** A range around minutes whose factor is log-symmetric. */
export const rangeOf = (minutes: number, spread: number): Range => ({
  low: minutes * Math.exp(-spread),
  mid: minutes,
  high: minutes * Math.exp(spread),
});
