import { z } from "zod";
import type { Gas } from "../lift/gas";
import { releasedAlong } from "../lift/kinetics";
import { GAS_CONSTANT, KELVIN, SETTING } from "../physics";
import type { Simulation } from "./simulation";

/** Gas released and crumb set over one time axis, from wetting through the bench to the end of the bake. */
export const raceSchema = z.object({
  /** Minutes from the oven door; negative on the bench. */
  minutes: z.array(z.number()),
  /** The core along a first estimate, °C. */
  coreC: z.array(z.number()),
  /** Share of all the gas that this formula ever gives off. */
  gas: z.array(z.number()),
  /** Share of the crumb that has set. */
  set: z.array(z.number()),
  /** Share of the gas that came before half of the crumb had set, and after. */
  beforeSet: z.number(),
});
export type Race = z.infer<typeof raceSchema>;

/** Shape of the core's rise: it lags, then runs up, and reaches the target at the end of the bake. */
const LAG_POWER = 1.7;
const POINTS = { bench: 12, oven: 48 };

/** Temperature of the core after a share of the bake, °C: T₀ + (T_end − T₀)·(1 − e^(−3.4 x^1.7))/(1 − e^(−3.4)). */
const coreAfter = (share: number, fromC: number, toC: number): number =>
  fromC + ((toC - fromC) * (1 - Math.exp(-3.4 * share ** LAG_POWER))) / (1 - Math.exp(-3.4));

export interface RaceInput {
  gas: Gas;
  benchSeconds: number;
  benchC: number;
  bakeMinutes: number;
  targetC: number;
  settingC: number;
}

/** The race along a first estimate of the core's temperature. Times in minutes, shares from 0 to 1. */
export function raceOf({ gas, benchSeconds, benchC, bakeMinutes, targetC, settingC }: RaceInput): Race {
  const seconds: number[] = [];
  const coreC: number[] = [];
  for (let i = 0; i < POINTS.bench; i++) {
    seconds.push((benchSeconds * i) / POINTS.bench);
    coreC.push(benchC);
  }
  for (let i = 0; i <= POINTS.oven; i++) {
    seconds.push(benchSeconds + (bakeMinutes * 60 * i) / POINTS.oven);
    coreC.push(coreAfter(i / POINTS.oven, benchC, targetC));
  }
  const whole = gas.sources.reduce((all, source) => all + source.mmol, 0) + gas.fizz.mid;
  const curves = gas.sources.map((source) => releasedAlong(source.reaction, seconds, coreC).map((share) => share * source.mmol));
  const share = seconds.map((_, i) =>
    whole > 0 ? (gas.fizz.mid + curves.reduce((all, curve) => all + (curve[i] ?? 0), 0)) / whole : 0,
  );
  const set = setAlong(seconds, coreC, settingC);
  const half = set.findIndex((s) => s >= 0.5);
  return {
    minutes: seconds.map((s) => (s - benchSeconds) / 60),
    coreC,
    gas: share,
    set,
    beforeSet: half < 0 ? (share.at(-1) ?? 0) : (share[half] ?? 0),
  };
}

function setAlong(seconds: readonly number[], celsius: readonly number[], settingC: number): number[] {
  let unset = 1;
  return seconds.map((time, i) => {
    if (i > 0) {
      const middle = ((celsius[i] ?? 0) + (celsius[i - 1] ?? 0)) / 2 + KELVIN;
      const rate = Math.exp((-SETTING.energy / GAS_CONSTANT) * (1 / middle - 1 / (settingC + KELVIN))) / SETTING.seconds;
      unset *= Math.exp(-rate * (time - (seconds[i - 1] ?? 0)));
    }
    return 1 - unset;
  });
}

/** The race along a simulated bake: the bench by its reactions, the oven as it was computed. */
export function raceOfSimulation(simulation: Simulation, gas: Gas, bench: { benchSeconds: number; benchC: number }): Race {
  const whole = gas.sources.reduce((all, source) => all + source.mmol, 0) + gas.fizz.mid;
  const seconds = Array.from({ length: POINTS.bench }, (_, i) => (bench.benchSeconds * i) / POINTS.bench);
  const celsius = seconds.map(() => bench.benchC);
  const curves = gas.sources.map(({ reaction, mmol }) => releasedAlong(reaction, seconds, celsius).map((share) => share * mmol));
  const onBench = seconds.map((_, i) =>
    whole > 0 ? (gas.fizz.mid + curves.reduce((all, curve) => all + (curve[i] ?? 0), 0)) / whole : 0,
  );
  const inOven = simulation.phases.lastIndexOf("oven") + 1;
  const set = simulation.set.slice(0, inOven);
  const released = simulation.gas.slice(0, inOven);
  const half = set.findIndex((share) => share >= 0.5);
  return {
    minutes: [...seconds.map((s) => (s - bench.benchSeconds) / 60), ...simulation.times.slice(0, inOven).map((s) => s / 60)],
    coreC: [...celsius, ...simulation.coreC.slice(0, inOven)],
    gas: [...onBench, ...released],
    set: [...seconds.map(() => 0), ...set],
    beforeSet: half < 0 ? (released.at(-1) ?? 0) : (released[half] ?? 0),
  };
}
