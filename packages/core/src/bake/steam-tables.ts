import { ATMOSPHERE_PA, GAS_CONSTANT, KELVIN, solubility, WATER_KG_PER_MOL } from "../physics";
import { componentTable } from "./material";

export { ATMOSPHERE_PA, GAS_CONSTANT, KELVIN, solubility, WATER_KG_PER_MOL };

/** Properties of water, vapour and carbon dioxide that the kernel reads from tables by temperature. SI units, °C. */

const CELSIUS_TOP = 330;
/** Steps of the tables, per kelvin. */
export const PER_KELVIN = 4;
const SIZE = CELSIUS_TOP * PER_KELVIN + 2;

/** Heat capacity of water that the enthalpies stand on, J/kgK. */
export const WATER_CAPACITY = componentTable.water.capacity;

/** Heat of vaporisation, J/kg. */
export const latentHeat = (celsius: number): number => 2.501e6 - 2370 * celsius;
/** Enthalpy of vapour over liquid water at 0 °C, J/kg. */
export const vapourEnthalpy = (celsius: number): number => latentHeat(celsius) + WATER_CAPACITY * celsius;

/** Saturation pressure over water, Pa: Tetens' form up to boiling and Clausius–Clapeyron above it, both exact at 100 °C; within 1 %. */
export function saturationPa(celsius: number): number {
  const t = celsius;
  return t <= 100
    ? (ATMOSPHERE_PA * Math.exp((17.27 * t) / (t + 237.3))) / Math.exp(1727 / 337.3)
    : ATMOSPHERE_PA * Math.exp(4894 * (1 / (100 + KELVIN) - 1 / (t + KELVIN)));
}

/** Temperature at which water boils under a pressure, °C: the inverse of the saturation pressure, by bisection. */
export function boilingC(pa: number): number {
  let low = 20;
  let high = 130;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (saturationPa(middle) < pa) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Air pressure at a height above the sea, Pa (standard atmosphere). */
export const pressurePa = (altitudeM: number): number => ATMOSPHERE_PA * (1 - 2.25577e-5 * altitudeM) ** 5.25588;

/** A function of temperature as a table. */
export function tableOf(f: (celsius: number) => number): Float64Array {
  const values = new Float64Array(SIZE);
  for (let i = 0; i < SIZE; i++) values[i] = f(i / PER_KELVIN);
  return values;
}

export const saturationTable = tableOf(saturationPa);
export const solubilityTable = tableOf(solubility);
/** Conductivity by vapour in a bubble at a_w 1 and without the factor for its own flow, W/mK: D L M/(R T) dp/dT. */
export const vapourConductivityTable = tableOf((celsius) => {
  const kelvin = celsius + KELVIN;
  const diffusivity = 2.2e-5 * (kelvin / KELVIN) ** 1.75;
  const slope = (saturationPa(celsius + 0.05) - saturationPa(celsius - 0.05)) / 0.1;
  return (diffusivity * latentHeat(celsius) * WATER_KG_PER_MOL * slope) / (GAS_CONSTANT * kelvin);
});

/** Reactions and setting are over long before this, °C: their tables stay level above it. */
const REACTIONS_TOP_C = 125;

/** A table of 1 − exp(−k(T) dt) for a step length. */
export function releaseTable(rate: (celsius: number) => number, dt: number): Float64Array {
  const values = new Float64Array(SIZE);
  const top = REACTIONS_TOP_C * PER_KELVIN;
  for (let i = 0; i <= top; i++) values[i] = 1 - Math.exp(-rate(i / PER_KELVIN) * dt);
  return values.fill(values[top]!, top);
}

/** 1 − e^(−x) up to x = 32 in steps of 1/64, for water activity. */
const DECAY_PER_ONE = 64;
const decayTable = Float64Array.from({ length: 32 * DECAY_PER_ONE + 2 }, (_, i) => 1 - Math.exp(-i / DECAY_PER_ONE));
export function approach(x: number): number {
  if (x >= 32) return 1;
  const place = x * DECAY_PER_ONE;
  const at = place | 0;
  return decayTable[at]! + (place - at) * (decayTable[at + 1]! - decayTable[at]!);
}

/** The fractional place of a temperature in the tables, kept inside them. */
export const placeOf = (celsius: number): number =>
  celsius <= 0 ? 0 : celsius >= CELSIUS_TOP ? CELSIUS_TOP * PER_KELVIN : celsius * PER_KELVIN;
