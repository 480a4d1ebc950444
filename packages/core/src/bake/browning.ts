import { GAS_CONSTANT, KELVIN } from "./steam-tables";

/** A crust is dry and browning begins here, °C; its index counts minutes at this reference, °C. */
export const CRUST_C = 105;
const REFERENCE_K = 150 + KELVIN;

/** Minutes-equivalent at 150 °C that a surface gathers in so many seconds. */
export const browned = (celsius: number, energy: number, seconds: number): number =>
  celsius <= CRUST_C ? 0 : (seconds / 60) * Math.exp((-energy / GAS_CONSTANT) * (1 / (celsius + KELVIN) - 1 / REFERENCE_K));

/**
 * What makes a crust react faster or slower than that of an ordinary muffin batter (crumb pH 7.1, an eighth sugar, a twentieth protein): twice as fast for
 * so many units of pH, and by powers of sugar (with what starch gives of it) and protein. Food chemistry has the rate of Maillard's reaction about double
 * per unit from 6 to 9 and rise with either partner; sugar and caramel go together here. The acids that it makes hold it back: it is no more than `most`
 * times as fast, however much soda is left. Confidence C.
 */
const REACTS = {
  ph: 7.1,
  perTwice: 1.4,
  sugar: 0.12,
  starch: 0.05,
  sugarPower: 0.2,
  protein: 0.05,
  proteinPower: 0.5,
  least: 0.4,
  most: 2,
};

/** How much faster a crust browns at a temperature, from the crumb's pH and the batter's shares of sugar and protein. */
export function reactivity(ph: number, sugar: number, protein: number): number {
  const alkaline = 2 ** ((ph - REACTS.ph) / REACTS.perTwice);
  const sweet = ((sugar + REACTS.starch) / (REACTS.sugar + REACTS.starch)) ** REACTS.sugarPower;
  const amine = (protein / REACTS.protein) ** REACTS.proteinPower;
  return Math.min(REACTS.most, Math.max(REACTS.least, alkaline * sweet * amine));
}

/** Minutes at 150 °C from which a crust is golden; confidence C. */
export const GOLDEN = 2;

/** Minutes at 150 °C under which a crust is pale, and from which it is dark. */
export const COLOUR = { pale: 0.4, dark: 32 };

/** Words for browning by minutes at 150 °C, up to which each holds; confidence C. */
const words: [word: string, upTo: number][] = [
  ["pale", COLOUR.pale],
  ["light gold", GOLDEN],
  ["golden", 9],
  ["deep brown", COLOUR.dark],
];

/** What a crust with so many minutes at 150 °C is called. */
export const brownWord = (minutes: number): string => words.find(([, upTo]) => minutes < upTo)?.[0] ?? "dark";
