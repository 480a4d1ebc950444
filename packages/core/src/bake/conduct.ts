import type { Run } from "./run";
import { WATER_DENSITY } from "./section";
import { approach, latentHeat, placeOf, saturationTable, vapourConductivityTable, WATER_CAPACITY } from "./steam-tables";

/** Copies of imported constants: in tests an import is a call, and these are read in every cell of every step. */
const DENSITY = WATER_DENSITY;
const CAPACITY = WATER_CAPACITY;
const saturations = saturationTable;
const vapourConductivities = vapourConductivityTable;

/** Conductivity of still air in a bubble, W/mK, and the greatest factor of the vapour's own flow. */
const AIR_CONDUCTIVITY = 0.028;
const MOST_FLOW = 10;
const WATER_CONDUCTIVITY = 0.653;
/** Share of the drying over which a crust's conductivity takes over. */
const CRUST_OVER = 0.3;

/** Capacities of `count` cells, J/K; on its boiling line heat makes steam and the capacity of a cell is that of the line. Whether any stands on it. */
export function heatCapacities(run: Run, start: number, count: number): boolean {
  const { section, capacity, sensible, boilsFrom, boilingC, boilingSpread } = run;
  const { dry, water, celsius, perDry } = section;
  const { capacity: perKg, water: firstPerDry } = perDry;
  const { boundShare } = run.model;
  const base = boilingC - boilingSpread - 1e-3;
  let any = false;
  for (let cell = start; cell < start + count; cell++) {
    const solids = dry[cell]!;
    const w = water[cell]!;
    let c = solids * perKg[cell]! + w * CAPACITY;
    sensible[cell] = c;
    const t = celsius[cell]!;
    if (t > base) {
      const first = solids * firstPerDry[cell]!;
      if (w > boundShare * first * 1.0001) {
        const rise = (boilingSpread * first) / w;
        if (t >= base + rise) {
          c += (latentHeat(base + rise) * w) / rise;
          boilsFrom[cell] = t;
          any = true;
        }
      }
    }
    capacity[cell] = c;
  }
  return any;
}

/**
 * Conductivity of every cell: condensed matter by volume, bubbles with the vapour that evaporates on their warm side and condenses on the
 * cold one, joined by Maxwell and Eucken with the bubbles dispersed.
 */
export function conduct(run: Run): void {
  const { section, model, pressurePa, waterActivity, resistivity, vapour } = run;
  const { cells, dry, water, gasVolume, celsius, perDry } = section;
  const { condensedShare, waterActivityRate, vapourShare, boundShare, crustConductivity } = model;
  const { water: firstPerDry, volume: dryVolume, conductance } = perDry;
  const psat = saturations;
  const vapours = vapourConductivities;
  for (let cell = 0; cell < cells; cell++) {
    const solids = dry[cell]!;
    const w = water[cell]!;
    const first = solids * firstPerDry[cell]!;
    const waterVolume = w / DENSITY;
    const condensed = waterVolume + solids * dryVolume[cell]!;
    const kc = (condensedShare * (waterVolume * WATER_CONDUCTIVITY + solids * conductance[cell]!)) / condensed;
    const gas = gasVolume[cell]!;
    let k = kc;
    let still = kc;
    const active = w > 0 ? approach((waterActivityRate * w) / solids) : 0;
    waterActivity[cell] = active;
    if (gas > 0) {
      const place = placeOf(celsius[cell]!);
      const at = place | 0;
      const part = place - at;
      const saturated = psat[at]! + part * (psat[at + 1]! - psat[at]!);
      const byVapour = vapours[at]! + part * (vapours[at + 1]! - vapours[at]!);
      const pw = active * saturated;
      const flow = pw >= 0.9 * pressurePa ? MOST_FLOW : pressurePa / (pressurePa - pw);
      const kb = AIR_CONDUCTIVITY + active * vapourShare * byVapour * flow;
      const share = gas / (gas + condensed);
      k = (kc * (2 * kc + kb - 2 * share * (kc - kb))) / (2 * kc + kb + share * (kc - kb));
      still =
        (kc * (2 * kc + AIR_CONDUCTIVITY - 2 * share * (kc - AIR_CONDUCTIVITY))) /
        (2 * kc + AIR_CONDUCTIVITY + share * (kc - AIR_CONDUCTIVITY));
    }
    let carried = k - still;
    if (first > 0) {
      const wet = (w / first - boundShare) / CRUST_OVER;
      if (wet < 1) {
        k = crustConductivity + (k - crustConductivity) * Math.max(0, wet);
        carried *= Math.max(0, wet);
      }
    }
    vapour[cell] = carried / k;
    resistivity[cell] = 1 / k;
  }
}
