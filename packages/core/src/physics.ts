/** Constants of nature that more than one part of the core stands on, each once. Units in the names or beside them. */

/** J/(mol K); CODATA. */
export const GAS_CONSTANT = 8.314462;
/** 0 °C in kelvin, by definition. */
export const KELVIN = 273.15;
/** Standard atmosphere, Pa, by definition. */
export const ATMOSPHERE_PA = 101325;
/** kg/mol; water. */
export const WATER_KG_PER_MOL = 0.018015;

/** Volume of a mmol of dry gas at 25 °C and 1 atm, mL: R T/P. */
export const ML_PER_MMOL_25C = (GAS_CONSTANT * (25 + KELVIN) * 1000) / ATMOSPHERE_PA;

/** Grams of salt that carry a gram of sodium: 58.44 over 22.99 g/mol. */
export const SALT_PER_SODIUM = 58.44 / 22.99;

/**
 * How a crumb sets: dS/dt = (1 − S)/seconds · exp(−energy/R (1/T − 1/T_set)). Seconds at the setting temperature (20 to 80) and J/mol
 * (180 to 320 kJ/mol): gelatinisation and egg protein, food-science kinetics, confidence C. The simulation and the estimate share them.
 */
export const SETTING = { seconds: 40, energy: 260e3 } as const;

/** Solubility of carbon dioxide in water, mol/(L atm), at °C: the points of the table, linear in its logarithm between and beyond. */
const henryPoints: [number, number][] = [
  [4, 0.0585],
  [22, 0.0345],
  [40, 0.0216],
  [60, 0.0136],
  [80, 0.0091],
];
export function solubility(celsius: number): number {
  const last = henryPoints.length - 1;
  let i = 0;
  while (i < last - 1 && celsius > (henryPoints[i + 1]?.[0] ?? 0)) i++;
  const [t0, s0] = henryPoints[i] ?? [0, 1];
  const [t1, s1] = henryPoints[i + 1] ?? [1, 1];
  return Math.exp(Math.log(s0) + ((Math.log(s1) - Math.log(s0)) * (celsius - t0)) / (t1 - t0));
}
