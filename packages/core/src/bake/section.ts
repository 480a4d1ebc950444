import { componentTable, type Material } from "./material";
import { geometricMesh, twoSidedMesh } from "./mesh";

/**
 * One vessel (or cup, or piece) cut into columns from the middle to the wall and layers from the base to the top. SI units; extensive
 * amounts are those of the whole vessel. Cell (column j, layer i) stands at j·layers + i.
 */
export interface Section {
  layers: number;
  columns: number;
  cells: number;
  /** Per column at the scale of the base: area, lateral face towards the wall, distance of its inner and outer edge from the middle. */
  area: Float64Array;
  face: Float64Array;
  inner: Float64Array;
  outer: Float64Array;
  /** Per cell, fixed but for levelling: dry mass, kg. */
  dry: Float64Array;
  /** Per cell: water kg, enthalpy J over dry and liquid at 0 °C, temperature °C, share set. */
  water: Float64Array;
  enthalpy: Float64Array;
  celsius: Float64Array;
  set: Float64Array;
  /** mol of carbon dioxide (gas and dissolved), mol of air, gas volume m³. */
  carbonDioxide: Float64Array;
  air: Float64Array;
  gasVolume: Float64Array;
  /** mol of carbon dioxide still bound, per reaction stage: stage r at r·cells. */
  bound: Float64Array;
  stages: number;
  /** Thickness m, height of the lower face m, area over the column's area at the base. */
  thickness: Float64Array;
  bottom: Float64Array;
  widening: Float64Array;
  /** Heights of the columns, m. */
  height: Float64Array;
  /** Pan nodes: base per column, wall per layer. °C and J/K. */
  base: Float64Array;
  baseCapacity: Float64Array;
  wall: Float64Array;
  wallCapacity: Float64Array;
  shape: SectionShape;
  /** Volume of the batter as it was poured, m³. */
  firstVolume: number;
  /** What a kilogram of its dry matter brings, and the water that came with it. */
  perDry: PerDry;
}

/** J/K, m³ and W/mK·m³ of a kilogram of dry matter, and the kg of water it had at the start. */
export interface PerDry {
  capacity: number;
  volume: number;
  conductance: number;
  water: number;
}

/** The outline that the section is cut from. Lengths in m. */
export interface SectionShape {
  form: "axial" | "plane";
  /** Distance from the middle to the wall at the base. */
  reach: number;
  /** Length of a plane section; walls of its ends are added to its sides by `ends`. */
  length: number;
  ends: number;
  /** Radius at the rim over that at the base; for a plane section the area. */
  flare: number;
  /** Height of the wall; 0 for pieces without one. */
  rim: number;
  /** Pieces without a wall widen as they grow: area ~ volume^spread. */
  spread: number;
  /** Share of the side that neighbours cover. */
  covered: number;
}

export interface Filling {
  massKg: number;
  /** Volume of gas in a kilogram of batter at the start, m³. */
  gasM3PerKg: number;
}

export interface Grid {
  layers: number;
  columns: number;
}

export const WATER_DENSITY = componentTable.water.density;
const FIRST_LAYER_M = 1e-3;
const FIRST_WALL_M = 3e-3;

/** Area of a horizontal cut at a height over that at the base. */
export function wideningAt(shape: SectionShape, height: number): number {
  if (shape.flare === 1 || shape.rim <= 0) return 1;
  const scale = 1 + (shape.flare - 1) * Math.min(1, Math.max(0, height / shape.rim));
  return shape.form === "axial" ? scale * scale : scale;
}

export function baseArea(shape: SectionShape): number {
  return shape.form === "axial" ? Math.PI * shape.reach * shape.reach : 2 * shape.reach * shape.length;
}

/** Depth at which a volume stands in the outline, m. */
export function depthOf(shape: SectionShape, volume: number): number {
  const area = baseArea(shape);
  let low = 0;
  let high = (2 * volume) / area + shape.rim;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (volumeTo(shape, middle) < volume) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Volume up to a height, m³. */
export function volumeTo(shape: SectionShape, height: number): number {
  const area = baseArea(shape);
  if (shape.flare === 1 || shape.rim <= 0) return area * height;
  const within = Math.min(height, shape.rim);
  const k = (shape.flare - 1) / shape.rim;
  const inside = shape.form === "axial" ? within + k * within ** 2 + (k * k * within ** 3) / 3 : within + (k * within ** 2) / 2;
  return area * (inside + Math.max(0, height - shape.rim) * wideningAt(shape, shape.rim));
}

/** Cuts a filled vessel into cells and allocates everything that a bake needs. */
export function cut(shape: SectionShape, material: Material, filling: Filling, grid: Grid, stages: number): Section {
  const { layers, columns } = grid;
  const cells = layers * columns;
  const floats = (n: number): Float64Array => new Float64Array(n);
  const widths = geometricMesh(shape.reach, FIRST_WALL_M, columns).reverse();
  const condensed = material.dryVolume + material.water / WATER_DENSITY;
  const volume = filling.massKg * (condensed + filling.gasM3PerKg);
  const depth = depthOf(shape, volume);
  const slices = twoSidedMesh(depth, FIRST_LAYER_M, layers);
  const section: Section = {
    layers,
    columns,
    cells,
    area: floats(columns),
    face: floats(columns),
    inner: floats(columns),
    outer: floats(columns),
    dry: floats(cells),
    water: floats(cells),
    enthalpy: floats(cells),
    celsius: floats(cells),
    set: floats(cells),
    carbonDioxide: floats(cells),
    air: floats(cells),
    gasVolume: floats(cells),
    bound: floats(cells * stages),
    stages,
    thickness: floats(cells),
    bottom: floats(cells),
    widening: floats(cells).fill(1),
    height: floats(columns),
    base: floats(columns),
    baseCapacity: floats(columns),
    wall: floats(layers),
    wallCapacity: floats(layers),
    shape,
    firstVolume: volume,
    perDry: {
      capacity: material.dryCapacity / material.dry,
      volume: material.dryVolume / material.dry,
      conductance: material.dryConductance / material.dry,
      water: material.water / material.dry,
    },
  };
  let edge = 0;
  widths.forEach((width, j) => {
    section.inner[j] = edge;
    edge += width;
    section.outer[j] = edge;
    const inner = section.inner[j] ?? 0;
    section.area[j] = shape.form === "axial" ? Math.PI * (edge * edge - inner * inner) : 2 * width * shape.length;
    section.face[j] = shape.form === "axial" ? 2 * Math.PI * edge : 2 * shape.length;
  });
  const whole = baseArea(shape);
  const perVolume = 1 / (condensed + filling.gasM3PerKg);
  let z = 0;
  slices.forEach((slice, i) => {
    const slab = volumeTo(shape, z + slice) - volumeTo(shape, z);
    z += slice;
    for (let j = 0; j < columns; j++) {
      const cell = j * layers + i;
      const mass = ((slab * (section.area[j] ?? 0)) / whole) * perVolume;
      section.dry[cell] = mass * material.dry;
      section.water[cell] = mass * material.water;
      section.gasVolume[cell] = mass * filling.gasM3PerKg;
    }
  });
  stack(section);
  return section;
}

/** Stands every column on the base again from the volumes of its cells: thickness, height, widening. */
export function stack(section: Section): void {
  const { layers, columns, area, thickness, bottom, widening, dry, water, gasVolume, height, shape } = section;
  const perDry = section.perDry.volume;
  const fixed = shape.rim <= 0 || shape.flare === 1;
  for (let j = 0; j < columns; j++) {
    let z = 0;
    for (let i = 0; i < layers; i++) {
      const cell = j * layers + i;
      const volume = perDry * dry[cell]! + water[cell]! / WATER_DENSITY + gasVolume[cell]!;
      if (!fixed) {
        const guess = volume / (area[j]! * widening[cell]!);
        widening[cell] = wideningAt(shape, z + guess / 2);
      }
      const dz = volume / (area[j]! * widening[cell]!);
      bottom[cell] = z;
      thickness[cell] = dz;
      z += dz;
    }
    height[j] = z;
  }
}

export function volumeOf(section: Section): number {
  let volume = 0;
  for (let cell = 0; cell < section.cells; cell++) {
    volume += section.gasVolume[cell]! + section.dry[cell]! * section.perDry.volume + section.water[cell]! / WATER_DENSITY;
  }
  return volume;
}

/** Free pieces widen as they grow: area ~ volume^spread. */
export function widen(section: Section): void {
  section.widening.fill((volumeOf(section) / section.firstVolume) ** section.shape.spread);
}

/** Turns a bake over: every column upside down. */
export function turnOver(section: Section): void {
  const { layers, columns, cells, stages } = section;
  const { dry, water, enthalpy, celsius, set, carbonDioxide, air, gasVolume, bound } = section;
  const swap = (values: Float64Array, a: number, b: number): void => {
    const kept = values[a]!;
    values[a] = values[b]!;
    values[b] = kept;
  };
  for (let j = 0; j < columns; j++) {
    for (let i = 0; i < layers >> 1; i++) {
      const a = j * layers + i;
      const b = j * layers + layers - 1 - i;
      for (const values of [dry, water, enthalpy, celsius, set, carbonDioxide, air, gasVolume]) swap(values, a, b);
      for (let r = 0; r < stages; r++) swap(bound, r * cells + a, r * cells + b);
    }
  }
  stack(section);
}
