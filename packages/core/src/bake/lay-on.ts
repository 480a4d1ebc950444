import { geometricMesh } from "./mesh";
import { type Run, tridiagonal } from "./run";
import { baseArea, fillRow, type Section, type Slab, stack, volumeOf, WATER_DENSITY } from "./section";
import { WATER_CAPACITY } from "./steam-tables";

const FIRST_M = 1e-3;
const ROWS = { least: 2, most: 6, eachM: 2.5e-3 };
const ALL_EVEN = 1;

/** An array over cells, columns of `before` rows each, in columns of `before + more`; the new cells hold `fill`. */
export function taller(values: Float64Array, columns: number, before: number, more: number, fill = 0): Float64Array {
  const grown = new Float64Array(columns * (before + more)).fill(fill);
  for (let j = 0; j < columns; j++) grown.set(values.subarray(j * before, (j + 1) * before), j * (before + more));
  return grown;
}

const perCell = [
  "dry",
  "water",
  "enthalpy",
  "celsius",
  "set",
  "carbonDioxide",
  "air",
  "gasVolume",
  "torn",
  "thickness",
  "bottom",
] as const;

/**
 * Puts a layer on a bake that has begun: rows are added on top of every column, what lies below is as it was. Returns how many rows. Mass, water
 * and enthalpy of the layer come in as they are; the pieces' growth is reckoned on without it.
 */
export function layOn(run: Run, slab: Slab): number {
  const { section } = run;
  const { columns, layers: before, stages } = section;
  const volume = slab.massKg * (slab.material.dryVolume + slab.material.water / WATER_DENSITY + slab.gasM3PerKg);
  const depth = volume / (baseArea(section.shape) * section.widening[before - 1]!);
  const rows = Math.min(ROWS.most, Math.max(ROWS.least, Math.round(depth / ROWS.eachM)));
  const layers = before + rows;
  const cells = columns * layers;
  const grow = (values: Float64Array, fill = 0): Float64Array => taller(values, columns, before, rows, fill);
  const bound = new Float64Array(cells * stages);
  for (let r = 0; r < stages; r++)
    bound.set(grow(section.bound.subarray(r * columns * before, (r + 1) * columns * before)), r * cells);
  const batter = new Uint8Array(cells);
  for (let j = 0; j < columns; j++) batter.set(section.batter.subarray(j * before, (j + 1) * before), j * layers);
  const wider = new Float64Array(cells);
  for (let j = 0; j < columns; j++) {
    wider.set(section.widening.subarray(j * before, (j + 1) * before), j * layers);
    wider.fill(section.widening[(j + 1) * before - 1]!, j * layers + before, (j + 1) * layers);
  }
  const grown: Partial<Section> = { layers, cells, bound, batter, widening: wider };
  for (const key of perCell) grown[key] = grow(section[key]);
  const { capacity, volume: dryVolume, conductance, water } = section.perDry;
  grown.perDry = { capacity: grow(capacity), volume: grow(dryVolume), conductance: grow(conductance), water: grow(water) };
  const edge = before - 1;
  const upward = (values: Float64Array): Float64Array => {
    const more = new Float64Array(layers).fill(values[edge]!);
    more.set(values);
    return more;
  };
  grown.wall = upward(section.wall);
  grown.wallCapacity = upward(section.wallCapacity);
  const held = volumeOf(section);
  Object.assign(section, grown);
  const even = Array.from({ length: columns }, () => ALL_EVEN);
  geometricMesh(depth, FIRST_M, rows)
    .reverse()
    .forEach((slice, k) => fillRow(section, before + k, slab, (volume * slice) / depth, even));
  for (let j = 0; j < columns; j++) {
    for (let i = before; i < layers; i++) {
      const cell = j * layers + i;
      section.enthalpy[cell] =
        (section.dry[cell]! * section.perDry.capacity[cell]! + section.water[cell]! * WATER_CAPACITY) * section.celsius[cell]!;
    }
  }
  section.firstVolume *= (held + volume) / held;
  stack(section);
  const scratch = [
    "waterActivity",
    "resistivity",
    "vapour",
    "capacity",
    "sensible",
    "boilsFrom",
    "condenses",
    "steam",
    "steamJ",
    "faces",
  ] as const;
  for (const key of scratch) run[key] = new Float64Array(cells);
  run.sideC = upward(run.sideC);
  run.crossed = new Float64Array(Math.max(layers, columns));
  run.spacing = new Float64Array(Math.max(layers, columns));
  run.solver = tridiagonal(Math.max(layers, columns) + 2);
  for (let j = 0; j < columns; j++) run.topC[j] = slab.celsius;
  return rows;
}
