import { prepare, step, tablesFor } from "./kernel";
import { componentTable, type Material } from "./material";
import { type Model, standardModel } from "./model";
import type { Run } from "./run";
import { seep } from "./seep";
import type { Start } from "./start";
import { latentHeat, saturationPa, WATER_CAPACITY } from "./steam-tables";

/** A set crumb of carbohydrate, water and gas, 20 cm across; nothing in it rises or flows. */
const { density, capacity, conductivity } = componentTable.carbohydrate;
const WET = 0.4;
const GAS_M3 = 8e-4;
const RADIUS = 0.1;
const AREA = Math.PI * RADIUS ** 2;
const material: Material = {
  water: WET,
  dry: 1 - WET,
  dryCapacity: (1 - WET) * capacity,
  dryVolume: (1 - WET) / density,
  dryConductance: ((1 - WET) / density) * conductivity,
  sugarMolality: 0,
};
const volumePerKg = material.dryVolume + WET / componentTable.water.density + GAS_M3;

function crumb(massKg: number, celsius: number, layers: number, skinM: number, model: Model): { run: Run; start: Start } {
  const start: Start = {
    shape: { form: "axial", reach: RADIUS, length: 0, ends: 0, flare: 1, rim: 0, spread: 0, covered: 1 },
    vessel: { shape: "round", diameterMm: 200 },
    oven: { celsius },
    material,
    massKg,
    risen: { carbonDioxide: 0, air: 0, gasM3: GAS_M3, bound: [], whole: 0 },
    gas: { sources: [], fizz: { low: 0, mid: 0, high: 0 }, fizzLost: 0, carbonate: 0 },
    batterC: celsius,
    kitchenC: celsius,
    settingC: 20,
    stiffness: 3,
    targetC: 96,
    browns: 1,
    judged: "inside",
    course: [],
    yieldPa: 1000,
    fatShare: 0,
    cutIn: false,
  };
  const run = prepare(start, { layers, columns: 2, baseM: skinM, topM: skinM, wallM: 1 }, model);
  run.section.set.fill(1);
  return { run, start };
}

test("a slab that dries from above follows the analytical receding front, s²/2D + s/h = Δρ t/W", () => {
  // Everything but the front is switched off: no vapour inside, no capillarity, water of activity 1, heat without resistance.
  const model: Model = {
    ...standardModel,
    vapourShare: 0,
    capillarity: 0,
    wetDiffusivity: 0,
    skinResistanceM: 0,
    boundShare: 0.1,
    waterActivityRate: 1e6,
    crustConductivity: 500,
    condensedShare: 1000,
    surfaceEmissivity: 0,
    topFree: 1,
  };
  const { run, start } = crumb(0.5, 50, 60, 1e-3, model);
  const h = 60;
  run.around = { airC: 50, h, vapourPa: 0, plateC: 50, onRack: false, tilt: 0, grill: 0, cover: 0, lets: 1 };
  run.pan = { emissivity: 0, gathers: 1, resistance: 1e-6, plateContact: 1e6 };
  run.topFactor = 1;
  const tables = tablesFor(start, model, 20);
  // Water that a m³ of what becomes crust has to give: the slab keeps its gas and loses the volume of its water.
  const gives = material.water * (1 - model.boundShare);
  const perVolume = gives / (volumePerKg - gives / componentTable.water.density);
  const vapour = (saturationPa(50) * 0.018015) / 8.31446 / 323.15;
  for (const hours of [2, 4, 8]) {
    const until = hours * 3600;
    for (let second = hours === 2 ? 0 : until / 2; second < until - 1e-9; second += 20) step(run, tables, 20);
    const depth = run.account.vapourOutKg / AREA / perVolume;
    const t = depth ** 2 / (2 * model.crustDiffusivity) + (depth * model.lewis) / h;
    expect((t * perVolume) / vapour / until).toBeGreaterThan(0.93);
    expect((t * perVolume) / vapour / until).toBeLessThan(1.07);
  }
});

/** Error function by its series. */
function erf(x: number): number {
  let term = x;
  let all = x;
  for (let n = 1; n < 60; n++) {
    term *= (-x * x) / n;
    all += term / (2 * n + 1);
  }
  return (2 / Math.sqrt(Math.PI)) * all;
}

describe("a crust that boils its way into a wet slab on a hot plate (Stefan's problem, Neumann's solution)", () => {
  const PLATE_C = 160;
  const model: Model = {
    ...standardModel,
    vapourShare: 0,
    capillarity: 0,
    wetDiffusivity: 0,
    steamEscape: 1,
    wallEscape: 1,
    boilingSpread: 0.02,
    surfaceEmissivity: 0,
    // Neumann's plate holds its temperature whatever is laid on it.
    plateWatts: Infinity,
  };
  const gives = WET * (1 - model.boundShare);
  // Bound water stays; the slab keeps its gas and loses the volume of the water that goes.
  const crustPerKg = volumePerKg - gives / componentTable.water.density;
  const released = gives / crustPerKg;
  const heats = (material.dryCapacity + (WET - gives) * WATER_CAPACITY) / crustPerKg;
  const latent = latentHeat(100) * released;
  const stefan = (heats * (PLATE_C - 100)) / latent;
  const diffusivity = model.crustConductivity / heats;
  let [low, high] = [0, 2];
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (Math.sqrt(Math.PI) * middle * Math.exp(middle * middle) * erf(middle) < stefan) low = middle;
    else high = middle;
  }
  const lambda = (low + high) / 2;

  const crustAfter = (layers: number, skinM: number, dt: number, seconds: number[]): number[] => {
    const { run, start } = crumb(0.45, 99.9, layers, skinM, model);
    run.around = { airC: 99.9, h: 0, vapourPa: 1e5, plateC: PLATE_C, onRack: false, tilt: 0, grill: 0, cover: 0, lets: 0 };
    run.pan = { emissivity: 0, gathers: 1, resistance: 1e-6, plateContact: 1e6 };
    run.topFactor = 1;
    run.section.baseCapacity.fill(1e-3);
    const tables = tablesFor(start, model, dt);
    let second = 0;
    return seconds.map((until) => {
      for (; second < until - 1e-9; second += dt) step(run, tables, dt);
      return run.account.vapourOutKg / AREA / released;
    });
  };
  const times = [300, 900, 1800];
  test.each([
    [12, 1e-3, 5, 0.12],
    [24, 5e-4, 2, 0.06],
  ])("with %d layers, %d m thin at the base, steps of %d s, within a share of %d", (layers, skinM, dt, share) => {
    crustAfter(layers, skinM, dt, times).forEach((depth, i) => {
      const expected = 2 * lambda * Math.sqrt(diffusivity * (times[i] ?? 0));
      expect(Math.abs(depth / expected - 1)).toBeLessThan(share);
    });
  });
});

describe("liquid that comes back by capillarity", () => {
  const D = 8e-10;
  const model: Model = { ...standardModel, capillarity: D, wetDiffusivity: 0 };
  /** Mean water of the lower half, over the mean of all, when only that half was wet at first; and all of the water there is. */
  const lowerHalf = (dt: number, seconds: number): { share: number; kg: number } => {
    const { run } = crumb(0.2, 40, 24, 1, model);
    const { layers, columns, water, enthalpy, dry, celsius, perDry, cells } = run.section;
    for (let cell = 0; cell < cells; cell++) {
      if (cell % layers >= layers / 2) water[cell] = 1e-6 * dry[cell]!;
      enthalpy[cell] = (dry[cell]! * perDry.capacity[cell]! + water[cell]! * WATER_CAPACITY) * celsius[cell]!;
    }
    for (let second = 0; second < seconds - 1e-9; second += dt) seep(run, dt);
    let [low, all] = [0, 0];
    for (let cell = 0; cell < cells; cell++) {
      all += water[cell]!;
      if (cell % layers < layers / 2) low += water[cell]!;
    }
    expect(columns).toBe(2);
    return { share: low / all, kg: all };
  };
  test.each([10, 60, 300])("follows the cosine series of a closed slab in steps of %d s, and none is lost", (dt) => {
    const height = (0.2 * volumePerKg) / AREA;
    const before = lowerHalf(dt, 0);
    expect(before.share).toBeCloseTo(1, 4);
    for (const seconds of [1800, 7200]) {
      let expected = 0.5;
      for (let k = 0; k < 40; k++) {
        const n = (2 * k + 1) * Math.PI;
        expected += (4 / n ** 2) * Math.exp(-D * (n / height) ** 2 * seconds);
      }
      const { share, kg } = lowerHalf(dt, seconds);
      expect(Math.abs(share - expected)).toBeLessThan(0.005);
      expect(kg).toBeCloseTo(before.kg, 12);
    }
  });
});
