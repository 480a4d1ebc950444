import { aroundKitchen, panMaterial, panOf } from "./surroundings";
import { desorb } from "./desorb";
import { enter } from "./enter";
import { conduct } from "./conduct";
import { sweepColumns, sweepLayers } from "./heat";
import { seep } from "./seep";
import { riseOfSteam } from "./boil";
import { type Model, standardModel } from "./model";
import { level, retemper, rise, type StepTables } from "./rise";
import { type Flow, type Run, tridiagonal } from "./run";
import { cut, type Grid, type SectionShape, stack, WATER_DENSITY, widen } from "./section";
import { flowOut, meltingShare } from "./spread";
import { stageRates } from "./gas-rates";
import { brush, slabsOf } from "./slabs";
import { FLOWS_BELOW, onHob, relativeConsistency, type Start, topsLater } from "./start";
import { GAS_CONSTANT, KELVIN, WATER_CAPACITY, boilingC, pressurePa, releaseTable, tableOf } from "./steam-tables";

/** A round vessel with so small a half-width is a cup; a tin so narrow against its wall domes like a loaf. */
const CUP_UNDER_M = 0.06;
const LOAF_ASPECT = 2.4;
/** Liquid seeps in steps of about so long, s. */
const SEEPS_EVERY_S = 20;
/** Wall that heats with the batter, over its depth at the start. */
const WALL_OVER_DEPTH = 1.5;
/** A syrup holds no more sugar than this at its boiling point, mol/kg; the rest lies undissolved. */
const MOST_MOLAL = 12;

/** Area of a top over its footprint: a cup's cap stands over its rim, a loaf domes, a sheet stays level. */
function topFactor(shape: SectionShape, model: Model): number {
  if (shape.rim <= 0) return model.topFree;
  if (shape.form === "axial" && shape.reach < CUP_UNDER_M) return model.topCup;
  return (2 * shape.reach) / Math.max(shape.rim, 1e-3) < LOAF_ASPECT ? model.topLoaf : model.topBroad;
}

/** Makes the run of a start: cuts the section, fills it with gas and heat, warms the pan. */
export function prepare(start: Start, grid: Grid, model: Model = standardModel): Run {
  const { risen, vessel, oven, batterC } = start;
  const pressure = pressurePa(oven.altitudeM ?? 0);
  const section = cut(start.shape, slabsOf(start), grid, risen.bound.length);
  if (start.brushed && !topsLater(start)) brush(section, start.brushed.waterKg);
  const { cells, layers, columns, dry, water, perDry, celsius, batter } = section;
  for (let cell = 0; cell < cells; cell++) {
    const mass = dry[cell]! + water[cell]!;
    section.enthalpy[cell] = (dry[cell]! * perDry.capacity[cell]! + water[cell]! * WATER_CAPACITY) * celsius[cell]!;
    if (batter[cell] === 0) continue;
    section.carbonDioxide[cell] = mass * risen.carbonDioxide;
    section.air[cell] = mass * risen.air;
    risen.bound.forEach((mol, r) => (section.bound[r * cells + cell] = mass * mol));
  }
  const { capacity } = panMaterial(vessel);
  const panC = vessel.warmC ?? (vessel.preheated || onHob(start) ? (start.course[0]?.celsius ?? oven.celsius) : start.kitchenC);
  const wallShare = start.shape.rim > 0 ? Math.min(start.shape.rim / Math.max(section.height[0]!, 1e-6), WALL_OVER_DEPTH) : 0;
  for (let j = 0; j < columns; j++) {
    section.base[j] = panC;
    section.baseCapacity[j] = capacity * section.area[j]!;
  }
  const face = section.face[columns - 1]! * (1 + start.shape.ends);
  for (let i = 0; i < layers; i++) {
    section.wall[i] = panC;
    section.wallCapacity[i] = Math.max(1e-3, capacity * face * section.thickness[(columns - 1) * layers + i]! * wallShare);
  }
  const run: Run = {
    section,
    model,
    pan: panOf(vessel, start.stiffness, model),
    around: aroundKitchen(start.kitchenC, model),
    pressurePa: pressure,
    boilingC: boilingC(pressure),
    boilingSpread: Math.max(model.boilingSpread, model.boilingPerMolal * Math.min(MOST_MOLAL, start.material.sugarMolality)),
    topFactor: topFactor(start.shape, model),
    consistency: relativeConsistency(start.stiffness, model),
    levels: start.stiffness < FLOWS_BELOW && start.shape.rim > 0,
    setting: true,
    flow: flowOf(start),
    flown: 1,
    sinceSeep: 0,
    live: new Uint8Array(section.stages).fill(1),
    topC: new Float64Array(columns).fill(batterC),
    baseC: new Float64Array(columns).fill(batterC),
    sideC: new Float64Array(layers).fill(batterC),
    waterActivity: new Float64Array(cells),
    resistivity: new Float64Array(cells),
    vapour: new Float64Array(cells),
    capacity: new Float64Array(cells),
    sensible: new Float64Array(cells),
    boilsFrom: new Float64Array(cells),
    condenses: new Float64Array(cells),
    steam: new Float64Array(cells),
    steamJ: new Float64Array(cells),
    account: { heatIn: 0, vapourOutKg: 0, vapourOutJ: 0 },
    flows: new Float64Array(columns),
    crossed: new Float64Array(Math.max(layers, columns)),
    spacing: new Float64Array(Math.max(layers, columns)),
    faces: new Float64Array(cells),
    solver: tridiagonal(Math.max(layers, columns) + 2),
  };
  const [first] = start.course;
  if (first) enter(run, start, first, null, model);
  return run;
}

/** What is poured on a griddle has flowed, what is set close cannot, and a log is held by its length. */
function flowOf({ shape, vessel, yieldPa, fatShare, cutIn, material, risen }: Start): Flow | null {
  if (shape.rim > 0 || shape.spread <= 0 || shape.form !== "axial" || vessel.shape === "griddle") return null;
  const density = 1 / (material.dryVolume + material.water / WATER_DENSITY + risen.gasM3);
  return { yieldPa, melts: meltingShare(fatShare, cutIn), density };
}

export function tablesFor(start: Pick<Start, "gas" | "settingC">, model: Model, dt: number): StepTables {
  const { setEnergy, setSeconds, loss } = model;
  const settingK = start.settingC + KELVIN;
  const setting = (celsius: number): number =>
    Math.exp((-setEnergy / GAS_CONSTANT) * (1 / (celsius + KELVIN) - 1 / settingK)) / setSeconds;
  return {
    release: stageRates(start.gas).map(({ key, at }) => kept(`${key} ${dt}`, () => releaseTable(at, dt))),
    setting: kept(`set ${start.settingC} ${setEnergy} ${setSeconds} ${dt}`, () => releaseTable(setting, dt)),
    loss: kept(`loss ${loss}`, () => tableOf((celsius) => loss * 2 ** ((Math.min(celsius, 80) - 22) / 20))),
  };
}

/** Few reactions make the gas of all batters: their tables are made once, and forgotten when there are this many. */
const MOST_TABLES = 200;
const tables = new Map<string, Float64Array>();

function kept(key: string, make: () => Float64Array): Float64Array {
  const known = tables.get(key);
  if (known) return known;
  if (tables.size >= MOST_TABLES) tables.clear();
  const made = make();
  tables.set(key, made);
  return made;
}

/** One step of everything. */
export function step(run: Run, tables: StepTables, dt: number): void {
  conduct(run);
  sweepColumns(run, dt);
  sweepLayers(run, dt);
  riseOfSteam(run);
  desorb(run, dt);
  run.sinceSeep += dt;
  if (run.sinceSeep >= SEEPS_EVERY_S) {
    seep(run, run.sinceSeep);
    run.sinceSeep = 0;
  }
  rise(run, tables, dt);
  flowOut(run, dt);
  if (run.section.shape.rim <= 0) widen(run.section, run.flown);
  stack(run.section);
  if (run.levels) {
    level(run, dt);
    if (run.levels) {
      retemper(run);
      stack(run.section);
    }
  }
}
