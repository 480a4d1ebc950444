import { MASS_OVER_GAS, perKelvin, type Run } from "./run";
import { WATER_DENSITY } from "./section";
import { PER_KELVIN, placeOf, saturationTable, vapourEnthalpy } from "./steam-tables";

/** Copies of imported constants: in tests an import is a call, and these are read in every cell of every step. */
const DENSITY = WATER_DENSITY;
const saturations = saturationTable;
const MASS_PER_GAS = MASS_OVER_GAS;
const TABLE_STEPS = PER_KELVIN;

/** The drying front seen from an open surface: set by `findTopFront` and `findSideFront`, read by the sweeps. */
export const front = { cell: -1, flux: 0, slope: 0 };
/** A cell with less than this share of its first water over what is bound is crust: the trickle that seeps into it is not all that evaporates. */
export const NEARLY_DRY = 0.03;
/** From this share of what a cell has on, its evaporation no longer grows with its temperature within a step. */
const HALF_OF = 0.5;

/** A crust with this share of gas or more lets vapour through like any crumb; a dense one in proportion, and never less than a tenth of it. */
const OPEN_CRUST = 0.2;
const DENSEST = 0.1;

/** Depth of open crust that resists vapour like so much of this cell, m. */
function asOpenCrust({ section }: Run, cell: number, depth: number): number {
  const { dry, water, gasVolume, perDry } = section;
  const gas = gasVolume[cell]!;
  const porous = gas / (gas + dry[cell]! * perDry.volume[cell]! + water[cell]! / DENSITY) / OPEN_CRUST;
  return depth / (porous >= 1 ? 1 : porous > DENSEST ? porous : DENSEST);
}

/** Vapour through the surface from a wet cell under crust that resists like so much open one, kg/m²s, and how it grows with temperature. */
function evaporation(run: Run, cell: number, dryDepth: number): void {
  const { model, around, section, waterActivity } = run;
  const t = section.celsius[cell]!;
  const place = placeOf(t);
  const at = place | 0;
  const p0 = saturations[at]!;
  const rise = saturations[at + 1]! - p0;
  const saturated = p0 + (place - at) * rise;
  const active = waterActivity[cell]!;
  const transfer = around.lets / (model.lewis / around.h + (model.skinResistanceM + dryDepth) / model.crustDiffusivity);
  front.cell = cell;
  front.flux = transfer * MASS_PER_GAS * (active * perKelvin(saturated, t) - perKelvin(around.vapourPa, around.airC));
  front.slope = transfer * MASS_PER_GAS * active * perKelvin(rise * TABLE_STEPS, t);
}

/** The first cell from the top down that is not crust: its evaporation stands in `front`; -1 where all is dry. */
export function findTopFront(run: Run, column: number): void {
  const { section, model } = run;
  const { layers, dry, water, thickness, perDry } = section;
  let depth = 0;
  front.cell = -1;
  for (let i = layers - 1; i >= 0; i--) {
    const cell = column * layers + i;
    const first = dry[cell]! * perDry.water[cell]!;
    const w = water[cell]!;
    if (first > 0 && w > (model.boundShare + NEARLY_DRY) * first) {
      evaporation(run, cell, depth + asOpenCrust(run, cell, thickness[cell]! * Math.max(0, 1 - w / first)));
      return;
    }
    depth += asOpenCrust(run, cell, thickness[cell]!);
  }
}

/** The same from the open side inwards, along one layer. */
export function findSideFront(run: Run, layer: number): void {
  const { section, model } = run;
  const { layers, columns, dry, water, inner, outer, perDry } = section;
  let depth = 0;
  front.cell = -1;
  for (let j = columns - 1; j >= 0; j--) {
    const cell = j * layers + layer;
    const first = dry[cell]! * perDry.water[cell]!;
    const w = water[cell]!;
    const width = outer[j]! - inner[j]!;
    if (first > 0 && w > (model.boundShare + NEARLY_DRY) * first) {
      evaporation(run, cell, depth + asOpenCrust(run, cell, width * Math.max(0, 1 - w / first)));
      return;
    }
    depth += asOpenCrust(run, cell, width);
  }
}

/** The front gives no more in a step than its cell has: what the sweep reckons with is what leaves. */
export function boundFront({ section, model }: Run, area: number, dt: number): void {
  const cell = front.cell;
  if (cell < 0 || front.flux <= 0) return;
  const spare = section.water[cell]! - model.boundShare * section.dry[cell]! * section.perDry.water[cell]!;
  const most = Math.max(0, spare) / (area * dt);
  if (front.flux < HALF_OF * most) return;
  front.flux = Math.min(front.flux, most);
  front.slope = 0;
}

/** Takes the vapour of a step out of the front's cell: mass and enthalpy, no more than the cell can give. */
export function dryOut(run: Run, area: number, warmer: number, dt: number): void {
  const { section, model, account } = run;
  const cell = front.cell;
  const spare = section.water[cell]! - model.boundShare * section.dry[cell]! * section.perDry.water[cell]!;
  const gone = Math.min(area * (front.flux + front.slope * warmer) * dt, Math.max(0, spare));
  const joules = gone * vapourEnthalpy(section.celsius[cell]!);
  section.water[cell]! -= gone;
  section.enthalpy[cell]! -= joules;
  account.vapourOutKg += gone;
  account.vapourOutJ += joules;
}
