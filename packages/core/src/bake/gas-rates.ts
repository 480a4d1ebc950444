import type { Gas } from "../lift/gas";
import { fastRateAt, slowRateAt } from "../lift/kinetics";

/** Rates of the stages of a batter's gas, two for each source, 1/s at °C. */
export const stageRates = (gas: Gas): ((celsius: number) => number)[] =>
  gas.sources.flatMap(({ reaction }) => [
    (celsius: number) => fastRateAt(reaction, celsius),
    (celsius: number) => slowRateAt(reaction, celsius),
  ]);
