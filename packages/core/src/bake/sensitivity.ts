import type { Range } from "../measure/range-schema";
import { type Model, modelTable, standardModel } from "./model";
import { bakeThrough } from "./through";
import { hotterBy, type Start, type Steps } from "./start";
import { evenSteps, quantile } from "../lift/ph";
import { convectionOf } from "./surroundings";

/** How far an oven that nobody has measured is off, K; one whose profile is known, and the share of its swing that reaches the crumb. */
const UNKNOWN_OVEN_K = 10;
const KNOWN_OVEN_K = 3;
const SWING_SHARE = 0.25;
/** Kitchens say that 10 K make 8 to 12 %; the model reckons with 5 to 8. The range is not narrower than they say, per K. */
const KITCHEN_PER_K = 0.009;
/** Under this, as a share of the minutes, no range goes: mixing, filling and reading the clock. */
const LEAST = 0.05;

export interface Sensitivity {
  input: string;
  change: string;
  /** % more minutes by that change. */
  percent: number;
}

/** A grid rough enough to be run several times; only ratios of its minutes are used. */
export const rough = ({ grid, dt, firstDt }: Steps): Steps => ({
  grid: { ...grid, layers: Math.max(12, grid.layers >> 1), columns: Math.min(6, grid.columns) },
  dt: dt * 2,
  firstDt: Math.min(5, firstDt * 2),
});

/** What the runs below leave open at most, as ln: told before they are made, so that what they find lies within it. */
const OPEN = { oven: 0.28, hob: 0.45, perMass: 1.5 };

/** ln of the factor by which the minutes of a coarse bake may be off either way, before anything is varied. */
export const openSpread = ({ oven }: Start, massSpread: number): number =>
  Math.hypot(oven.mode === "hob" ? OPEN.hob : OPEN.oven, OPEN.perMass * massSpread);

interface Case {
  input: string;
  change: string;
  start: Start;
  model: Model;
  /** ln of the factor that kitchens know it to make at least. */
  atLeast?: number;
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
    { input: known ? "oven, measured" : "oven, not measured", change: `as if ${offK.toFixed(0)} °C cooler`, start: hotterBy(start, -offK), model, ...(oven.mode === "hob" ? {} : { atLeast: KITCHEN_PER_K * offK }) },
    { input: "heat through batter", change: "less of it by steam, at the low end of what is known", start, model: { ...model, condensedShare: half("condensedShare") } },
    { input: "steam that escapes", change: "more of it, halfway to the high end", start, model: { ...model, steamEscape: (modelTable.steamEscape.high + modelTable.steamEscape.value) / 2 } },
  ]; // prettier-ignore
  if (oven.mode !== "hob") {
    cases.push({
      input: "air in the oven",
      change: `stiller by ${Math.round(100 * (1 - still / air.h))} %`,
      start: { ...start, convection: still },
      model,
    });
  } else {
    cases.push({
      input: "contact with the plate",
      change: `poorer by ${Math.round(100 * (1 - half("griddleContact") / model.griddleContact))} %`,
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
  const grid = rough(steps);
  const base = bakeThrough(start, grid).doneS;
  if (base === null) return { sensitivity: [], spread: LEAST };
  let square = LEAST ** 2;
  const sensitivity = casesOf(start, massSpread).map(({ input, change, start: moved, model, atLeast }): Sensitivity => {
    const done = bakeThrough(moved, grid, { model }).doneS ?? 2 * base;
    const log = Math.max(Math.log(done / base), atLeast ?? 0);
    square += log ** 2;
    return { input, change, percent: Math.round(1000 * (Math.exp(log) - 1)) / 10 };
  });
  return { sensitivity, spread: Math.sqrt(square) };
}

/** A range around minutes whose factor is log-symmetric. */
export const rangeOf = (minutes: number, spread: number): Range => ({
  low: minutes * Math.exp(-spread),
  mid: minutes,
  high: minutes * Math.exp(spread),
});

/** What is varied together, each between the ends of its range; the oven by how far it may be off. */
const VARIED = ["condensedShare", "vapourShare", "steamEscape", "contact", "crustDiffusivity", "doorDropK"] as const;
/** The range holds four in five of the runs. */
const TAIL = 0.1;

/**
 * Minutes of the coarse runs numbered `from` to `to` (the end not among them) of an even sequence over oven, air, mass and the constants that matter, as factors
 * of the middle. A run is the same whoever does it, so that they can be shared out. Null where the bake is not done.
 */
export function sampledFactors(start: Start, steps: Steps, massSpread: number, from: number, to: number): number[] | null {
  const grid = rough(steps);
  const base = bakeThrough(start, grid).doneS;
  if (base === null) return null;
  const { oven } = start;
  const air = convectionOf(oven.mode ?? "still");
  const offK = Math.hypot(oven.biasK !== undefined ? KNOWN_OVEN_K : UNKNOWN_OVEN_K, SWING_SHARE * (oven.swingK ?? 0));
  const evens = evenSteps(VARIED.length + 3);
  const found: number[] = [];
  for (let run = from; run < to; run++) {
    // −1 to 1, denser in the middle: the sum of what is known and what is not.
    const spread = (dimension: number): number => {
      const u = 2 * ((0.5 + run * (evens[dimension] ?? 0)) % 1) - 1;
      return Math.sign(u) * (1 - Math.sqrt(1 - Math.abs(u)));
    };
    const between = ({ low, mid, high }: Range, by: number): number => (by < 0 ? mid + (mid - low) * by : mid + (high - mid) * by);
    const model = { ...standardModel };
    VARIED.forEach((name, k) => {
      const { low, value, high } = modelTable[name];
      model[name] = between({ low, mid: value, high }, spread(k));
    });
    const k = VARIED.length;
    const moved: Start = {
      ...hotterBy(start, 2 * offK * spread(k)),
      convection: between({ low: air.low, mid: air.h, high: air.high }, spread(k + 1)),
      massKg: start.massKg * (1 + 2 * massSpread * spread(k + 2)),
    };
    found.push((bakeThrough(moved, grid, { model }).doneS ?? 2 * base) / base);
  }
  return found;
}

/** The range that holds four in five of such factors: nine in ten are over `low`, nine in ten under `high`. */
export function rangeOfFactors(factors: readonly number[]): { low: number; high: number } {
  const found = [...factors].sort((a, b) => a - b);
  return { low: Math.min(1 - LEAST, quantile(found, TAIL)), high: Math.max(1 + LEAST, quantile(found, 1 - TAIL)) };
}

/** The range by so many runs, done here. Null where the bake is not done. */
export function sampledRange(start: Start, steps: Steps, massSpread: number, runs: number): { low: number; high: number } | null {
  const factors = sampledFactors(start, steps, massSpread, 1, runs + 1);
  return factors && rangeOfFactors(factors);
}
