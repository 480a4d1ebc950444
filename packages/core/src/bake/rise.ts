import { type Run, solve } from "./run";
import { ATMOSPHERE_PA, GAS_CONSTANT, KELVIN, WATER_CAPACITY, placeOf, saturationTable, solubilityTable } from "./steam-tables";
import { WATER_DENSITY } from "./section";

/** Copies of imported constants: in tests an import is a call, and these are read in every cell of every step. */
const ATMOSPHERE = ATMOSPHERE_PA;
const GAS = GAS_CONSTANT;
const ZERO_C = KELVIN;
const DENSITY = WATER_DENSITY;
const CAPACITY = WATER_CAPACITY;
const saturations = saturationTable;
const solubilities = solubilityTable;

/** Tables of 1 − exp(−k(T) dt) for one step length: reaction stages, setting. */
export interface StepTables {
  release: Float64Array[];
  setting: Float64Array;
  /** Gas lost from a resting unset batter of ordinary consistency. */
  loss: Float64Array;
}

const MOST_STEAM = 0.9;
/** Amounts of bound gas under this are spent, mol per kg of dry matter. */
const SPENT = 1e-6;
/** Above this share a cell has set for good. */
const ALL_SET = 0.9999;

/**
 * Gas and setting in one step. Reactions run at the temperature of the cell; carbon dioxide shares itself between water and bubbles by
 * Henry's law; a soft bubble follows n R T/(P − a_w p_sat); an unset crumb loses gas, the faster the thinner it is and the more its
 * bubbles meet; films that are stretched too far tear and stay torn; a set crumb keeps its volume.
 */
export function rise(run: Run, tables: StepTables, dt: number): void {
  const { section, model, pressurePa, waterActivity, consistency } = run;
  const { cells, dry, water, celsius, set, carbonDioxide, air, gasVolume, torn, stages, perDry } = section;
  const { setShare, coalescence, bursting, burstFrom, tearing, tornLoss, gasTimeS } = model;
  const { setting, loss } = tables;
  const hold = 1 / Math.sqrt(consistency);
  const kh = solubilities;
  const psat = saturations;
  for (let r = 0; r < stages; r++) if (run.live[r] === 1) react(run, tables.release[r]!, r);
  if (!run.setting) return;
  run.setting = false;
  for (let cell = 0; cell < cells; cell++) {
    const share = set[cell]!;
    if (share >= ALL_SET) continue;
    run.setting = true;
    const t = celsius[cell]!;
    const place = placeOf(t);
    const at = place | 0;
    const part = place - at;
    const after = share + (1 - share) * (setting[at]! + part * (setting[at + 1]! - setting[at]!));
    set[cell] = after;
    if (share >= setShare) continue;
    const soft = softness(share, after, setShare);
    const w = water[cell]! / DENSITY;
    const condensed = w + dry[cell]! * perDry.volume[cell]!;
    const saturated = psat[at]! + part * (psat[at + 1]! - psat[at]!);
    const dryPa = pressurePa - Math.min(MOST_STEAM * pressurePa, waterActivity[cell]! * saturated);
    const holds = ((kh[at]! + part * (kh[at + 1]! - kh[at]!)) * 1000 * w * dryPa) / ATMOSPHERE;
    const all = carbonDioxide[cell]!;
    const other = air[cell]!;
    const half = (all - other - holds) / 2;
    const gas = half + Math.sqrt(half * half + all * other);
    const target = ((gas + other) * GAS * (t + ZERO_C)) / dryPa;
    // Backward Euler for the bubble and for what it loses.
    const follow = (dt * soft) / gasTimeS;
    const volume = (gasVolume[cell]! + target * follow) / (1 + follow);
    gasVolume[cell] = volume;
    const foam = volume / (volume + condensed);
    const burst = foam > burstFrom ? (foam - burstFrom) / (1 - burstFrom) : 0;
    const tears = tearing * burst * soft * dt;
    torn[cell] = (torn[cell]! + tears) / (1 + tears);
    const leak =
      loss[at]! +
      part * (loss[at + 1]! - loss[at]!) +
      coalescence * foam * foam * foam * foam +
      bursting * burst * burst +
      tornLoss * torn[cell]!;
    const rate = leak * hold * soft * dt;
    const lost = rate / (1 + rate);
    carbonDioxide[cell] = all - gas * lost;
    air[cell] = other - other * lost;
  }
}

/** Mean of 1 − S/S_c over a step in which a share of the crumb sets by first order; nothing after it has reached S_c. */
function softness(before: number, after: number, limit: number): number {
  const start = 1 - before / limit;
  if (after <= limit) return (start + 1 - after / limit) / 2;
  return (start / 2) * (Math.log((1 - before) / (1 - limit)) / Math.log((1 - before) / Math.max(1e-12, 1 - after)));
}

/** One stage of one reaction in every cell; it is put to sleep once nothing is left. */
function react(run: Run, table: Float64Array, r: number): void {
  const { cells, dry, celsius, carbonDioxide, bound } = run.section;
  const first = r * cells;
  let live = 0;
  for (let cell = 0; cell < cells; cell++) {
    const left = bound[first + cell]!;
    if (left <= SPENT * dry[cell]!) continue;
    const place = placeOf(celsius[cell]!);
    const at = place | 0;
    const freed = left * (table[at]! + (place - at) * (table[at + 1]! - table[at]!));
    bound[first + cell] = left - freed;
    carbonDioxide[cell]! += freed;
    live = 1;
  }
  run.live[r] = live;
}

/**
 * Unset batter flows from high columns to low ones: A dH/dt = Σ g (H′ − H), g = 2·10⁻³ m/s × unset height of the face × length over distance,
 * implicit in H. What flows takes its contents along, layer by layer. The unset height of a face is that of its more set side.
 */
export function level(run: Run, dt: number): void {
  const { section, model, solver, flows, faces } = run;
  const { layers, columns, area, face, inner, outer, set, thickness, height } = section;
  const { lower, middle, upper, right, x } = solver;
  let unset = 0;
  for (let j = 0; j < columns; j++) {
    middle[j] = area[j]!;
    right[j] = area[j]! * height[j]!;
    lower[j] = 0;
    upper[j] = 0;
  }
  const softer = 1 / model.setShare;
  for (let j = 0; j < columns - 1; j++) {
    let soft = 0;
    for (let i = 0; i < layers; i++) {
      const cell = j * layers + i;
      const next = cell + layers;
      const share = 1 - (set[cell]! > set[next]! ? set[cell]! : set[next]!) * softer;
      const open = share > 0 ? (share * (thickness[cell]! + thickness[next]!)) / 2 : 0;
      faces[cell] = open;
      soft += open;
    }
    unset += soft;
    const g = (2 * dt * (model.levelling / run.consistency) * soft * face[j]!) / (outer[j + 1]! - inner[j]!);
    flows[j] = g;
    middle[j]! += g;
    middle[j + 1]! += g;
    upper[j] = -g;
    lower[j + 1] = -g;
  }
  if (unset <= 0) {
    run.levels = false;
    return;
  }
  solve(solver, columns);
  for (let j = 0; j < columns - 1; j++) {
    const volume = flows[j]! * (x[j]! - x[j + 1]!);
    if (volume === 0) continue;
    let weights = 0;
    for (let i = 0; i < layers; i++) weights += faces[j * layers + i]!;
    for (let i = 0; i < layers; i++) {
      const open = faces[j * layers + i]!;
      if (open <= 0) continue;
      const from = volume > 0 ? j * layers + i : (j + 1) * layers + i;
      const to = volume > 0 ? from + layers : from - layers;
      move(run, from, to, (Math.abs(volume) * open) / weights);
    }
  }
}

/** At most this share of a cell flows in one step, and none of one that has less than this share of its neighbour's dry matter by area. */
const MOST_FLOW = 0.9;
const LEAST_LEFT = 0.15;

function move(run: Run, from: number, to: number, volume: number): void {
  const { section } = run;
  const { cells, dry, water, enthalpy, set, carbonDioxide, air, gasVolume, torn, bound, stages, perDry } = section;
  const { area, layers } = section;
  if (dry[from]! * area[(to / layers) | 0]! < LEAST_LEFT * dry[to]! * area[(from / layers) | 0]!) return;
  const own = water[from]! / DENSITY + dry[from]! * perDry.volume[from]! + gasVolume[from]!;
  const share = Math.min(MOST_FLOW, volume / own);
  const mass = dry[from]! * share;
  set[to] = (set[to]! * dry[to]! + set[from]! * mass) / (dry[to]! + mass);
  torn[to] = (torn[to]! * dry[to]! + torn[from]! * mass) / (dry[to]! + mass);
  dry[from]! -= mass;
  dry[to]! += mass;
  pass(water, from, to, share);
  pass(enthalpy, from, to, share);
  pass(carbonDioxide, from, to, share);
  pass(air, from, to, share);
  pass(gasVolume, from, to, share);
  for (let r = 0; r < stages; r++) pass(bound, r * cells + from, r * cells + to, share);
}

function pass(values: Float64Array, from: number, to: number, share: number): void {
  const amount = values[from]! * share;
  values[from]! -= amount;
  values[to]! += amount;
}

/** After batter has flowed its cells have new temperatures: mixing has no latent heat. */
export function retemper(run: Run): void {
  const { section } = run;
  const { cells, dry, water, enthalpy, celsius, perDry } = section;
  for (let cell = 0; cell < cells; cell++) {
    celsius[cell] = enthalpy[cell]! / (dry[cell]! * perDry.capacity[cell]! + water[cell]! * CAPACITY);
  }
}
