import { componentTable, type Material } from "./material";
import { geometricMesh, gradedMesh } from "./mesh";

/**
 * One vessel (or cup, or piece) cut into columns from the middle to the wall and layers from the base to the top. SI units; extensive
 * amounts are those of the whole vessel. Cell (column j, layer i) stands at j·layers + i.
 */
export interface Section {
  layers: number;
  columns: number;
  cells: number;
  /** Per column at the scale of the base: area, lateral face towards the wall, distance of its inner and outer edge from the middle, and between them. */
  area: Float64Array;
  face: Float64Array;
  inner: Float64Array;
  outer: Float64Array;
  width: Float64Array;
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
  /** Share of the films between bubbles that tore while the crumb was over-expanded and soft; they do not heal. */
  torn: Float64Array;
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
  /** What a kilogram of dry matter brings, and the water that came with it. */
  perDry: PerDry;
  /** 1 where a cell is batter, 0 where it is a filling or a topping. */
  batter: Uint8Array;
}

/** Of every cell: J/K, m³ and W/mK·m³ of a kilogram of its dry matter, and the kg of water that came with it. A layer keeps its own. */
export interface PerDry {
  capacity: Float64Array;
  volume: Float64Array;
  conductance: Float64Array;
  water: Float64Array;
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
  /** How the height falls from the middle to the edge; level where it is absent. */
  profile?: Profile;
}

/** A ball flattened to a dome, h ∝ √(1 − x²), or a heap that has come to rest, h ∝ √(1 − x). */
export type Profile = "dome" | "heap";

/** Middle over mean height of a profile, on a round foot. */
export const PEAK: Record<Profile, number> = { dome: 3 / 2, heap: 15 / 8 };

/** Mean height of a ring between two shares of the radius, over the mean of the whole round foot. */
function ringHeight(profile: Profile, from: number, to: number): number {
  // Antiderivatives of x·h(x): dome −(1 − x²)^(3/2)/3; heap with u = 1 − x, −(2/3) u^(3/2) + (2/5) u^(5/2).
  const whole = (x: number): number => {
    const u = Math.max(0, 1 - x);
    return profile === "dome" ? -(Math.max(0, 1 - x * x) ** 1.5) / 3 : -(2 / 3) * u ** 1.5 + (2 / 5) * u ** 2.5;
  };
  return (2 * (whole(to) - whole(from)) * PEAK[profile]) / (to * to - from * from);
}

/** The same across a plane section, over its mean. */
function stripHeight(profile: Profile, from: number, to: number): number {
  const whole = (x: number): number =>
    profile === "dome"
      ? (x * Math.sqrt(Math.max(0, 1 - x * x)) + Math.asin(Math.min(1, x))) / 2
      : -(2 / 3) * Math.max(0, 1 - x) ** 1.5;
  return (whole(to) - whole(from)) / (to - from) / (whole(1) - whole(0));
}

/** What lies in the vessel from the base up: the batter, and what is under, in and on it. */
export interface Slab {
  material: Material;
  massKg: number;
  /** Volume of gas in a kilogram at the start, m³. */
  gasM3PerKg: number;
  batter: boolean;
  celsius: number;
}

export interface Grid {
  layers: number;
  columns: number;
  /** Thickness of the lowest and of the topmost layer and width of the outermost column, m. */
  baseM: number;
  topM: number;
  wallM: number;
}

export const WATER_DENSITY = componentTable.water.density;

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

/** Least rows of a slab of batter and of any other, where there are several. */
const LEAST_ROWS = { batter: 5, other: 2 };

const volumePerKg = ({ material, gasM3PerKg }: Slab): number => material.dryVolume + material.water / WATER_DENSITY + gasM3PerKg;

/** Rows of every slab and how thick each is, m; thin at the base and at the top. */
function meshOf(depths: readonly number[], slabs: readonly Slab[], { layers, baseM, topM }: Grid): number[][] {
  const whole = depths.reduce((all, depth) => all + depth, 0);
  if (depths.length === 1) return [gradedMesh(whole, baseM, topM, layers)];
  return depths.map((depth, k) => {
    const rows = Math.max(slabs[k]?.batter ? LEAST_ROWS.batter : LEAST_ROWS.other, Math.round((layers * depth) / whole));
    if (k === 0) return geometricMesh(depth, baseM, rows);
    if (k === depths.length - 1) return geometricMesh(depth, topM, rows).reverse();
    return Array.from({ length: rows }, () => depth / rows);
  });
}

/** Cuts a filled vessel into cells and allocates everything that a bake needs. */
export function cut(shape: SectionShape, slabs: readonly Slab[], grid: Grid, stages: number): Section {
  const { columns } = grid;
  const floats = (n: number): Float64Array => new Float64Array(n);
  const widths = geometricMesh(shape.reach, grid.wallM, columns).reverse();
  let volume = 0;
  const levels = slabs.map((slab) => depthOf(shape, (volume += slab.massKg * volumePerKg(slab))));
  const mesh = meshOf(
    levels.map((level, k) => level - (levels[k - 1] ?? 0)),
    slabs,
    grid,
  );
  const layers = mesh.reduce((all, rows) => all + rows.length, 0);
  const cells = layers * columns;
  const section: Section = {
    layers,
    columns,
    cells,
    area: floats(columns),
    face: floats(columns),
    inner: floats(columns),
    outer: floats(columns),
    width: Float64Array.from(widths),
    dry: floats(cells),
    water: floats(cells),
    enthalpy: floats(cells),
    celsius: floats(cells),
    set: floats(cells),
    carbonDioxide: floats(cells),
    air: floats(cells),
    gasVolume: floats(cells),
    torn: floats(cells),
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
    perDry: { capacity: floats(cells), volume: floats(cells), conductance: floats(cells), water: floats(cells) },
    batter: new Uint8Array(cells),
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
  const { profile, reach } = shape;
  const heights = widths.map((_, j) => {
    if (!profile) return 1;
    const from = (section.inner[j] ?? 0) / reach;
    const to = (section.outer[j] ?? 0) / reach;
    return shape.form === "axial" ? ringHeight(profile, from, to) : stripHeight(profile, from, to);
  });
  let z = 0;
  let row = 0;
  slabs.forEach((slab, k) => {
    for (const slice of mesh[k] ?? []) {
      const inSlice = volumeTo(shape, z + slice) - volumeTo(shape, z);
      z += slice;
      fillRow(section, row++, slab, inSlice, heights);
    }
  });
  stack(section);
  return section;
}

/** Fills one row of cells with so many m³ of a slab, higher and lower as the profile has it. */
export function fillRow(section: Section, row: number, slab: Slab, volume: number, heights: readonly number[]): void {
  const { material, gasM3PerKg, celsius, batter } = slab;
  const { columns, layers, area, perDry } = section;
  const whole = baseArea(section.shape);
  const perVolume = 1 / volumePerKg(slab);
  for (let j = 0; j < columns; j++) {
    const cell = j * layers + row;
    const mass = ((volume * (area[j] ?? 0)) / whole) * perVolume * (heights[j] ?? 1);
    section.dry[cell] = mass * material.dry;
    section.water[cell] = mass * material.water;
    section.gasVolume[cell] = mass * gasM3PerKg;
    section.celsius[cell] = celsius;
    section.batter[cell] = batter ? 1 : 0;
    // What is no batter neither rises nor flows.
    section.set[cell] = batter ? 0 : 1;
    perDry.capacity[cell] = material.dryCapacity / material.dry;
    perDry.volume[cell] = material.dryVolume / material.dry;
    perDry.conductance[cell] = material.dryConductance / material.dry;
    perDry.water[cell] = material.water / material.dry;
  }
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
      const volume = perDry[cell]! * dry[cell]! + water[cell]! / WATER_DENSITY + gasVolume[cell]!;
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
    volume += section.gasVolume[cell]! + section.dry[cell]! * section.perDry.volume[cell]! + section.water[cell]! / WATER_DENSITY;
  }
  return volume;
}

/** Free pieces widen as they grow, area ~ volume^spread, and as they flow: by the factor that the flow has reached. */
export function widen(section: Section, flown: number): void {
  section.widening.fill(flown * (volumeOf(section) / section.firstVolume) ** section.shape.spread);
}

/** Turns a bake over: every column upside down. */
export function turnOver(section: Section): void {
  const { layers, columns, cells, stages } = section;
  const { dry, water, enthalpy, celsius, set, carbonDioxide, air, gasVolume, torn, bound, perDry, batter } = section;
  const { capacity, volume, conductance, water: firstWater } = perDry;
  const swap = (values: Float64Array | Uint8Array, a: number, b: number): void => {
    const kept = values[a]!;
    values[a] = values[b]!;
    values[b] = kept;
  };
  for (let j = 0; j < columns; j++) {
    for (let i = 0; i < layers >> 1; i++) {
      const a = j * layers + i;
      const b = j * layers + layers - 1 - i;
      for (const values of [
        dry,
        water,
        enthalpy,
        celsius,
        set,
        carbonDioxide,
        air,
        gasVolume,
        torn,
        capacity,
        volume,
        conductance,
        firstWater,
        batter,
      ])
        swap(values, a, b);
      for (let r = 0; r < stages; r++) swap(bound, r * cells + a, r * cells + b);
    }
  }
  stack(section);
}
