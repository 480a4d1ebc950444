import { type Gas, HANDLING_S } from "../lift/gas";
import { stageRates } from "./gas-rates";
import type { Material } from "./material";
import type { Model } from "./model";
import { WATER_DENSITY } from "./section";
import { ATMOSPHERE_PA, GAS_CONSTANT, KELVIN, saturationPa, solubility } from "./steam-tables";

/** A kilogram of batter when it goes into the oven: mol of gas, m³ of gas, and what is still bound by reaction stage. */
export interface Risen {
  carbonDioxide: number;
  air: number;
  gasM3: number;
  bound: number[];
  /** mol a kilogram had to give when it was wetted, fizz included. */
  whole: number;
}

const STEPS = 60;

/** Lets a kilogram of batter stand: gas comes by its reactions; stirring drives some out, and some goes through the surface of the bowl. `airShare` of its volume is air. */
export function stand(
  gas: Gas,
  massKg: number,
  airShare: number,
  seconds: number,
  celsius: number,
  material: Material,
  consistency: number,
  model: Model,
  pressure: number,
): Risen {
  const perKg = 1e-3 / massKg;
  const bound = gas.sources.flatMap(({ mmol, reaction }) => [
    mmol * perKg * reaction.fastShare,
    mmol * perKg * (1 - reaction.fastShare),
  ]);
  const fizz = gas.fizz.mid * perKg;
  const whole = bound.reduce((all, part) => all + part, 0) + fizz;
  const condensed = material.dryVolume + material.water / WATER_DENSITY;
  const dryPa = pressure - saturationPa(celsius);
  const volumePerMol = (GAS_CONSTANT * (celsius + KELVIN)) / dryPa;
  let air = (condensed * airShare) / (1 - airShare) / volumePerMol;
  let carbonDioxide = fizz;
  const holds = (solubility(celsius) * 1000 * (material.water / WATER_DENSITY) * dryPa) / ATMOSPHERE_PA;
  const inBubbles = (): number => {
    const half = (carbonDioxide - air - holds) / 2;
    return half + Math.sqrt(half * half + carbonDioxide * air);
  };
  const rates = stageRates(gas).map(({ at }) => at(celsius));
  const dt = seconds / STEPS;
  for (let step = 0; step < STEPS; step++) {
    const before = inBubbles();
    rates.forEach((rate, r) => {
      const freed = (bound[r] ?? 0) * (1 - Math.exp(-rate * dt));
      bound[r] = (bound[r] ?? 0) - freed;
      carbonDioxide += freed;
    });
    if (step * dt < HANDLING_S) carbonDioxide -= (1 - model.mixingKept) * Math.max(0, inBubbles() - before);
    const free = inBubbles();
    const volume = (free + air) * volumePerMol;
    const foam = volume / (volume + condensed);
    const rate = (model.loss * 2 ** ((celsius - 22) / 20) + model.coalescence * foam ** 4) / Math.sqrt(consistency);
    const lost = 1 - Math.exp(-rate * dt);
    carbonDioxide -= free * lost;
    air -= air * lost;
  }
  return { carbonDioxide, air, gasM3: (inBubbles() + air) * volumePerMol, bound, whole };
}
