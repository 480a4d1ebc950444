import type { Simulation } from "@uprise/core";
import { contours } from "d3-contour";

type Section = Simulation["section"];
type Frame = Section["frames"][number];

/** Lower ends of the shades, °C; what is colder is left as paper. */
export const shadeFrom = [30, 45, 60, 70, 80, 90, 97, 105] as const;
/** A crumb flows until so much of it has set. */
const FLOWS_UNDER = 0.65;
/** What was hotter than this has dried: crust, °C. */
const CRUST_FROM = 103;

/** Rings of one area, each a flat list x, z, x, z … in mm, the middle at 0 and the base at 0; holes are rings too. */
export type Rings = number[][];

/** One moment of a bake, as areas to be drawn. */
export interface FrameDrawing {
  /** What is at least as hot as each of `shadeFrom`. */
  shades: Rings[];
  flowing: Rings;
  crust: Rings;
}

/** Points of the raster in half the width and in the height: fine enough that the lines are smooth at a phone's width. */
const HALF = 34;
const HIGH = 34;
const WIDE = 2 * HALF - 1;

/** How wide the section stands over its base at a height. */
function widthAt(section: Section, frame: Frame, z: number): number {
  if (section.rimMm === null) return frame.spread;
  return 1 + (section.flare - 1) * Math.min(1, Math.max(0, z / section.rimMm));
}

/** The value of a field at a height of one column, linear between the middles of its cells. */
function inColumn(section: Section, frame: Frame, field: ArrayLike<number>, column: number, z: number): number {
  const first = column * section.rows;
  let below = 0;
  let before = (frame.z[first] ?? 0) / 2;
  if (z <= before) return field[first] ?? 0;
  for (let i = 1; i < section.rows; i++) {
    below = frame.z[first + i - 1] ?? 0;
    const middle = (below + (frame.z[first + i] ?? 0)) / 2;
    if (z <= middle) {
      const share = (z - before) / Math.max(middle - before, 1e-6);
      return (field[first + i - 1] ?? 0) * (1 - share) + (field[first + i] ?? 0) * share;
    }
    before = middle;
  }
  return field[first + section.rows - 1] ?? 0;
}

/** A field of the cells on an even raster over the whole section; outside of it the nearest value goes on. */
function rasterOf(section: Section, frame: Frame, field: ArrayLike<number>, reach: number, tall: number): number[] {
  const middles = section.xMm.map((outer, j) => (outer + (j === 0 ? 0 : (section.xMm[j - 1] ?? 0))) / 2);
  const values = new Array<number>(WIDE * HIGH);
  for (let row = 0; row < HIGH; row++) {
    const z = (tall * row) / (HIGH - 1);
    const wide = widthAt(section, frame, z);
    for (let k = 0; k < HALF; k++) {
      const x = (reach * k) / (HALF - 1) / wide;
      let j = middles.findIndex((middle) => middle >= x);
      if (j < 0) j = middles.length - 1;
      const left = Math.max(0, j - 1);
      const [a, b] = [middles[left] ?? 0, middles[j] ?? 0];
      const share = j === left ? 0 : Math.min(1, Math.max(0, (x - a) / (b - a)));
      const value =
        inColumn(section, frame, field, left, z) * (1 - share) + (share > 0 ? inColumn(section, frame, field, j, z) * share : 0);
      values[row * WIDE + HALF - 1 + k] = value;
      values[row * WIDE + HALF - 1 - k] = value;
    }
  }
  return values;
}

const raster = contours().size([WIDE, HIGH]).smooth(true);

function ringsAbove(values: number[], threshold: number, reach: number, tall: number): Rings {
  const stepX = reach / (HALF - 1);
  const stepZ = tall / (HIGH - 1);
  const round = (mm: number): number => Math.round(mm * 10) / 10;
  return raster
    .contour(values, threshold)
    .coordinates.flat()
    .map((ring) => ring.flatMap(([x = 0, z = 0]) => [round((x - 0.5 - (HALF - 1)) * stepX), round((z - 0.5) * stepZ)]));
}

/** Every moment of a bake as smooth areas: isotherms, what flows, and the crust, which stays once it has dried. */
export function drawingsOf(section: Section): FrameDrawing[] {
  const hottest = new Float64Array(section.rows * section.columns);
  return section.frames.map((frame): FrameDrawing => {
    for (let cell = 0; cell < hottest.length; cell++) hottest[cell] = Math.max(hottest[cell] ?? 0, frame.celsius[cell] ?? 0);
    const tall = Math.max(...frame.z, 1);
    const widest = Math.max(widthAt(section, frame, tall), widthAt(section, frame, 0));
    const reach = (section.xMm.at(-1) ?? 1) * widest;
    const heat = rasterOf(section, frame, frame.celsius, reach, tall);
    const unset = rasterOf(section, frame, frame.set, reach, tall).map((set) => -set);
    const crust = rasterOf(section, frame, hottest, reach, tall);
    return {
      shades: shadeFrom.map((from) => ringsAbove(heat, from, reach, tall)),
      flowing: ringsAbove(unset, -FLOWS_UNDER, reach, tall),
      crust: ringsAbove(crust, CRUST_FROM, reach, tall),
    };
  });
}

/** Lines of one value over a grid, row by row: each threshold with its rings of points, in steps of the grid from 0. */
export function isolinesOf(columns: number, values: readonly number[], thresholds: readonly number[]): { value: number; rings: number[][][] }[] {
  const rows = values.length / columns;
  const inside = (at: number, most: number): number => Math.min(most - 1, Math.max(0, at - 0.5));
  return contours()
    .size([columns, rows])
    .thresholds([...thresholds])([...values])
    .map(({ value, coordinates }) => ({ value, rings: coordinates.flat().map((ring) => ring.map(([x = 0, y = 0]) => [inside(x, columns), inside(y, rows)])) }));
} // prettier-ignore
