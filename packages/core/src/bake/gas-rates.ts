import type { Gas } from "../lift/gas";
import { fastRateAt, slowRateAt } from "../lift/kinetics";

export interface StageRate {
  /** All that it depends on: stages of one key have one rate. */
  key: string;
  /** 1/s at °C. */
  at: (celsius: number) => number;
}

/** Rates of the stages of a batter's gas, two for each source. */
export const stageRates = (gas: Gas): StageRate[] =>
  gas.sources.flatMap(({ reaction }) => [
    { key: `fast ${reaction.fastRate}`, at: (celsius: number) => fastRateAt(reaction, celsius) },
    {
      key: `slow ${reaction.actC} ${reaction.actRate} ${reaction.energy}`,
      at: (celsius: number) => slowRateAt(reaction, celsius),
    },
  ]);
