import type { Gas } from "../lift/gas";
import { componentTable, type Material } from "./material";
import { prepare, step, tablesFor } from "./kernel";
import { type Model, standardModel } from "./model";
import type { Run } from "./run";
import type { SectionShape } from "./section";
import type { Start } from "./start";

/** A dry solid of carbohydrate only: constant properties, no water, no gas. */
const { density, capacity, conductivity } = componentTable.carbohydrate;
const stone: Material = {
  water: 0,
  dry: 1,
  dryCapacity: capacity,
  dryVolume: 1 / density,
  dryConductance: conductivity / density,
  sugarMolality: 0,
};
const model: Model = { ...standardModel, condensedShare: 1, surfaceEmissivity: 0, doorDropK: 0 };
const noGas: Gas = { sources: [], fizz: { low: 0, mid: 0, high: 0 }, fizzLost: 0, carbonate: 0 };
const FILM = 20;
const HOT = 100;
const COLD = 20;

function solid(shape: Partial<SectionShape>, massKg: number, layers: number, columns: number): Run {
  const start: Start = {
    shape: { form: "axial", reach: 1, length: 0, ends: 0, flare: 1, rim: 0, spread: 0, covered: 1, ...shape },
    vessel: { shape: "round", diameterMm: 200 },
    oven: { celsius: HOT },
    material: stone,
    massKg,
    risen: { carbonDioxide: 0, air: 0, gasM3: 0, bound: [], whole: 0 },
    gas: noGas,
    batterC: COLD,
    kitchenC: COLD,
    settingC: 75,
    stiffness: 3,
    targetC: 96,
    browns: 1,
    judged: "inside",
    course: [],
    yieldPa: 1000,
    fatShare: 0,
    cutIn: false,
  };
  const run = prepare(start, { layers, columns, baseM: 1e-3, topM: 1e-3, wallM: 3e-3 }, model);
  run.around = { airC: HOT, h: FILM, vapourPa: 0, plateC: null, onRack: true, tilt: 0, grill: 0, cover: 0, lets: 1 };
  run.topFactor = 1;
  return run;
}

function after(run: Run, seconds: number, dt: number): void {
  const tables = tablesFor({ settingC: 75, gas: noGas }, model, dt);
  for (let second = 0; second < seconds - 1e-9; second += dt) step(run, tables, dt);
}

/** Root of f between a and b by bisection. */
function root(f: (x: number) => number, a: number, b: number): number {
  let [low, high] = [a, b];
  for (let i = 0; i < 200; i++) {
    const middle = (low + high) / 2;
    if (f(low) * f(middle) <= 0) high = middle;
    else low = middle;
  }
  return (low + high) / 2;
}

/** Bessel functions of the first kind by their power series. */
function bessel(order: 0 | 1, x: number): number {
  let term = order === 0 ? 1 : x / 2;
  let total = term;
  for (let k = 1; k < 60; k++) {
    term *= -((x / 2) ** 2) / (k * (k + order));
    total += term;
  }
  return total;
}

const alpha = conductivity / (density * capacity);

/** Series of a slab of half-thickness L with convection on both faces; x from the middle (textbook of heat conduction). */
function slabC(x: number, half: number, seconds: number): number {
  const biot = (FILM * half) / conductivity;
  let sum = 0;
  for (let n = 0; n < 12; n++) {
    const z = root((u) => u * Math.sin(u) - biot * Math.cos(u), n * Math.PI + 1e-9, n * Math.PI + Math.PI / 2);
    const c = (4 * Math.sin(z)) / (2 * z + Math.sin(2 * z));
    sum += c * Math.exp((-z * z * alpha * seconds) / half ** 2) * Math.cos((z * x) / half);
  }
  return HOT + (COLD - HOT) * sum;
}

/** Series of a long cylinder of radius R with convection. */
function cylinderC(r: number, radius: number, seconds: number): number {
  const biot = (FILM * radius) / conductivity;
  const f = (u: number): number => u * bessel(1, u) - biot * bessel(0, u);
  let sum = 0;
  let from = 1e-6;
  for (let n = 0; n < 6; n++) {
    let to = from + 0.05;
    while (f(from) * f(to) > 0) to += 0.05;
    const z = root(f, from, to);
    from = to + 1e-6;
    const c = (2 / z) * (bessel(1, z) / (bessel(0, z) ** 2 + bessel(1, z) ** 2));
    sum += c * Math.exp((-z * z * alpha * seconds) / radius ** 2) * bessel(0, (z * r) / radius);
  }
  return HOT + (COLD - HOT) * sum;
}

describe("conduction against series solutions", () => {
  it.each([600, 1800, 3600])("follows a slab with convection on both faces, after %d s", (seconds) => {
    const half = 0.02;
    const area = Math.PI;
    const run = solid({}, density * area * 2 * half, 32, 2);
    after(run, seconds, 5);
    const { bottom, thickness, celsius } = run.section;
    for (let i = 0; i < 32; i++) {
      const x = bottom[i]! + thickness[i]! / 2 - half;
      expect(Math.abs(celsius[i]! - slabC(x, half, seconds))).toBeLessThan(0.35);
    }
  });

  it.each([600, 1800, 3600])("follows a long cylinder with convection, after %d s", (seconds) => {
    const radius = 0.03;
    const run = solid({ reach: radius, covered: 0 }, density * Math.PI * radius ** 2 * 1, 1, 24);
    // A metre of it with its ends insulated: only the side sees the air.
    run.around.onRack = false;
    run.pan = { emissivity: 0, gathers: 1, resistance: 1e9, plateContact: 0 };
    run.topFactor = 1e-12;
    after(run, seconds, 5);
    const { inner, outer, celsius } = run.section;
    for (let j = 0; j < 24; j++) {
      const r = (inner[j]! + outer[j]!) / 2;
      expect(Math.abs(celsius[j]! - cylinderC(r, radius, seconds))).toBeLessThan(0.4);
    }
  });

  it("comes closer to the series with a finer grid", () => {
    const half = 0.02;
    const miss = (layers: number, dt: number): number => {
      const run = solid({}, density * Math.PI * 2 * half, layers, 1);
      after(run, 1800, dt);
      const i = layers >> 1;
      const x = run.section.bottom[i]! + run.section.thickness[i]! / 2 - half;
      return Math.abs(run.section.celsius[i]! - slabC(x, half, 1800));
    };
    expect(miss(32, 2.5)).toBeLessThan(0.6 * miss(8, 10));
  });

  it("is symmetric where heating is", () => {
    const run = solid({}, density * Math.PI * 0.04, 20, 3);
    after(run, 1200, 5);
    for (let cell = 0; cell < 20; cell++) expect(run.section.celsius[cell]).toBeCloseTo(run.section.celsius[19 - cell]!, 6);
  });
});
