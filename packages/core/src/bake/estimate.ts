import { type Range, range, scaled, within } from "../measure/range";
import type { Oven } from "../pantry/vessel";
import type { Gas } from "../lift/gas";
import { benchGas } from "../lift/gas";
import type { FilledVessel } from "./geometry";

/**
 * The first estimate of the bake, until it is simulated: minutes ≈ 400·L/(T − 80) with L in mm = batter volume over wetted
 * and open surface and T the temperature of a still oven. Range ±25 %.
 */
const MINUTES_FACTOR = 400;
const MINUTES_SPREAD = 0.25;
const BASE_C = 80;

/** A fan bakes like a still oven so much hotter, K. On a hob each half is heated by contact for (d/2)²/α, one side after the other. */
const MODE_GAIN: Record<NonNullable<Oven["mode"]>, number> = { still: 0, fan: 20, "air-fryer": 35, hob: 0 };

/** Thermal diffusivity of batter, mm²/s (moist foods 0.12–0.15). */
const DIFFUSIVITY = 0.135;

export function estimateMinutes(filling: FilledVessel, oven: Oven): Range {
  if (oven.mode === "hob") return within((2 * (filling.depthMm / 2) ** 2) / DIFFUSIVITY / 60, MINUTES_SPREAD);
  const depth = (filling.batterMl * 1000) / filling.surfaceMm2;
  const driving = Math.max(20, oven.celsius + MODE_GAIN[oven.mode ?? "still"] - BASE_C);
  return within((MINUTES_FACTOR * depth) / driving, MINUTES_SPREAD);
}

/** Volume of a mmol of gas with its steam near setting (85 °C, water activity 0.95), mL. */
const ML_PER_MMOL_SET = 64;
/** Share of the gas that the crumb still holds when it sets, and how far that is known. */
const HELD = range(0.26, 0.34, 0.42);
/** A crumb cannot be stretched without end: mL of gas per g of batter that are not exceeded. */
const MOST_GAS_ML_PER_G = 1.35;
/** Gas of the bench that is still in the batter when it goes into the oven. */
const BENCH_KEPT = 0.6;

/** Volume after the oven, mL, from the gas of the oven, what is left from the bench, and air. */
export function estimateBakedVolume(
  gas: Gas,
  airMl: number,
  condensedMl: number,
  massG: number,
  benchS: number,
  kitchenC: number,
): Range {
  const chemical = gas.sources.reduce((all, source) => all + source.mmol, 0);
  const bench = benchGas(gas, benchS, kitchenC);
  const airMmol = airMl / 24;
  const mmol = chemical - bench + BENCH_KEPT * bench + gas.fizz.mid + airMmol;
  const most = MOST_GAS_ML_PER_G * massG;
  const held = (share: number): number => condensedMl + most * (1 - Math.exp((-share * mmol * ML_PER_MMOL_SET) / most));
  return range(held(HELD.low), held(HELD.mid), held(HELD.high));
}

/** A set crumb stands higher in the middle than on the average, where walls hold its edge. */
const DOME = 1.12;
/** Free pieces grow sideways as well: so much of the growth goes up. */
const FREE_UP = 0.6;

/** Height of the crown over the base, mm. */
export function crownOf(filling: FilledVessel, bakedMl: Range): Range {
  if (filling.heightMm === null) {
    const growth = bakedMl.mid / filling.batterMl;
    return scaled(
      { low: bakedMl.low / bakedMl.mid, mid: 1, high: bakedMl.high / bakedMl.mid },
      filling.depthMm * growth ** FREE_UP,
    );
  }
  return scaled(bakedMl, (1000 * DOME) / filling.footprintMm2);
}
