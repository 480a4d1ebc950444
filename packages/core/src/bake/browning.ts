import { GAS_CONSTANT, KELVIN } from "./steam-tables";

/** Browning begins here, °C; its index counts minutes at this reference, °C. */
const FROM_C = 105;
const REFERENCE_K = 150 + KELVIN;

/** Minutes-equivalent at 150 °C that a surface gathers in so many seconds. */
export const browned = (celsius: number, energy: number, seconds: number): number =>
  celsius <= FROM_C ? 0 : (seconds / 60) * Math.exp((-energy / GAS_CONSTANT) * (1 / (celsius + KELVIN) - 1 / REFERENCE_K));
