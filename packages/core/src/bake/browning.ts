import { GAS_CONSTANT, KELVIN } from "./steam-tables";

/** A crust is dry and browning begins here, °C; its index counts minutes at this reference, °C. */
export const CRUST_C = 105;
const REFERENCE_K = 150 + KELVIN;

/** Minutes-equivalent at 150 °C that a surface gathers in so many seconds. */
export const browned = (celsius: number, energy: number, seconds: number): number =>
  celsius <= CRUST_C ? 0 : (seconds / 60) * Math.exp((-energy / GAS_CONSTANT) * (1 / (celsius + KELVIN) - 1 / REFERENCE_K));

/** Minutes at 150 °C from which a crust is golden; confidence C. */
export const GOLDEN = 2;

/** Minutes at 150 °C under which a crust is pale, and from which it is dark. */
export const COLOUR = { pale: 0.4, dark: 16 };

/** Words for browning by minutes at 150 °C, up to which each holds; confidence C. */
const words: [word: string, upTo: number][] = [
  ["pale", COLOUR.pale],
  ["light gold", GOLDEN],
  ["golden", 7],
  ["deep brown", COLOUR.dark],
];

/** What a crust with so many minutes at 150 °C is called. */
export const brownWord = (minutes: number): string => words.find(([, upTo]) => minutes < upTo)?.[0] ?? "dark";
