import type { Gas } from "../lift/gas";
import { releasedAlong } from "../lift/kinetics";
import type { Simulation } from "./simulation-schema";
import type { Race } from "./race-schema";

/** Points on the bench. */
const POINTS = 12;
/** The race along a bake: the bench by its reactions, the oven as it was computed. */
export function raceOf(simulation: Simulation, gas: Gas, bench: { benchSeconds: number; benchC: number }): Race {
  const whole = gas.sources.reduce((all, source) => all + source.mmol, 0) + gas.fizz.mid;
  const seconds = Array.from({ length: POINTS }, (_, i) => (bench.benchSeconds * i) / POINTS);
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
