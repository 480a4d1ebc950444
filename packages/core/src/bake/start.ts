import type { Gas } from "../lift/gas";
import type { Oven, Vessel } from "../pantry/vessel-schema";
import type { Risen } from "./bench";
import type { JudgedBy } from "./judged";
import type { Leg } from "./course";
import type { Material } from "./material";
import type { Model } from "./model";
import { depthOf, type Grid, type SectionShape, WATER_DENSITY } from "./section";

/** One vessel of batter before the oven. SI units and °C. */
export interface Start {
  shape: SectionShape;
  vessel: Vessel;
  oven: Oven;
  material: Material;
  massKg: number;
  risen: Risen;
  gas: Gas;
  batterC: number;
  kitchenC: number;
  settingC: number;
  /** The reading of `stiffnessOf`. */
  stiffness: number;
  targetC: number;
  /** What it stands by without a wall, Pa, and the share of fat that melts and lets it flow. */
  yieldPa: number;
  fatShare: number;
  cutIn: boolean;
  /** How much faster its crust browns than that of an ordinary muffin batter. */
  browns: number;
  /** What it is judged by beside its inside. */
  judged: JudgedBy;
  /** Somebody said that its inside alone counts: it is not left in for its colour. */
  insideAlone?: boolean;
  /** The stages it is baked in; one until it is done where nothing is laid out. */
  course: readonly Leg[];
  /** What is under, in and on the batter. */
  layers?: readonly Layer[];
  /** What is brushed on: its water, kg, and how much faster the top browns. */
  brushed?: Brushed;
  /** It cools upside down in its tin, hung by the wall. */
  hangs?: boolean;
  /** s in its tin after the oven, where they are said; Infinity, until it is cold. */
  inTinS?: number;
  /** W/m²K, where it is not that of the oven's mode. */
  convection?: number;
}

/** A filling or a topping of one vessel. SI units and °C. */
export interface Layer {
  place: "base" | "inside" | "top";
  material: Material;
  massKg: number;
  celsius: number;
  /** Air between its crumbs, m³ in a kilogram. */
  gasM3PerKg: number;
}

export interface Brushed {
  waterKg: number;
  faster: number;
}

/** What lies on top is put on when a later stage begins. */
export const topsLater = ({ course }: Pick<Start, "course">): boolean => course.some(({ topped }) => topped);

/** The same with everything that heats it so much hotter, K: an oven that is off is off in all its stages. */
export const hotterBy = (start: Start, by: number): Start => ({
  ...start,
  oven: { ...start.oven, celsius: start.oven.celsius + by },
  course: start.course.map((leg) => (leg.heat === "counter" ? leg : { ...leg, celsius: leg.celsius + by })),
});

/** The same with its last stage open until it is done; itself where it is. */
export function untilDone(start: Start): Start {
  const last = start.course.at(-1);
  if (!last || (last.lastsS === null && last.until === null)) return start;
  return { ...start, course: [...start.course.slice(0, -1), { ...last, lastsS: null, until: null }] };
}

/** Baked on a plate alone, one side after the other. */
export const onHob = ({ course, oven }: Pick<Start, "course" | "oven">): boolean => oven.mode === "hob" && course.length === 1;

/** kg of everything in the vessel. */
export const wholeKg = ({ massKg, layers = [], brushed }: Pick<Start, "massKg" | "layers" | "brushed">): number =>
  layers.reduce((kg, layer) => kg + layer.massKg, massKg + (brushed?.waterKg ?? 0));

export interface Steps {
  grid: Grid;
  /** The longest step and the first one, s: it grows from this after the batter has met heat. */
  dt: number;
  firstDt: number;
}

/** A batter flows level in its tin below this reading, the slower the stiffer; above it is dough and stands. */
export const FLOWS_BELOW = 3.1;
/** Reading of an ordinary muffin batter, at which the relative consistency is 1. */
const ORDINARY = 1.1;

/** A dough is stiffer than this by how dry it is, not by a thicker liquid between its bubbles: it holds gas no better. */
const HOLDS_AS_IF = 1.1;

/** Consistency over that of a muffin batter, from the body's reading. */
export const relativeConsistency = (stiffness: number, model: Model): number =>
  10 ** (model.consistencyPower * (Math.min(stiffness, HOLDS_AS_IF) - ORDINARY));

/** How deep the batter stands when it goes in, on the average, m. */
export const depthAtStart = ({ shape, massKg, material, risen }: Start): number =>
  depthOf(shape, massKg * (material.dryVolume + material.water / WATER_DENSITY + risen.gasM3));

const mm = (layers: number, columns: number, base: number, top: number, wall: number): Grid => ({
  layers,
  columns,
  baseM: base * 1e-3,
  topM: top * 1e-3,
  wallM: wall * 1e-3,
});

/** Grids and steps by what is baked, from the study in docs/science/ovens.md: each keeps the minutes within 2 % of one twice as fine. */
const STEPS = {
  plate: { grid: mm(26, 4, 0.15, 0.15, 3), dt: 1, firstDt: 0.25 },
  hotPan: { grid: mm(21, 16, 0.18, 0.15, 2), dt: 10, firstDt: 0.5 },
  hotPanThin: { grid: mm(26, 11, 0.18, 0.1, 2.2), dt: 5, firstDt: 0.5 },
  free: { grid: mm(16, 8, 0.5, 0.5, 1.5), dt: 5, firstDt: 0.5 },
  heap: { grid: mm(16, 10, 0.5, 0.5, 1.5), dt: 4, firstDt: 0.5 },
  cup: { grid: mm(16, 7, 0.7, 0.7, 1.8), dt: 12, firstDt: 2 },
  tin: { grid: mm(18, 8, 0.6, 0.3, 2), dt: 10, firstDt: 1 },
  deepTin: { grid: mm(16, 8, 1, 1, 2.5), dt: 18, firstDt: 2 },
};
const THIN_M = 0.02;
const DEEP_M = 0.028;
/** Half-widths up to which it is a narrow tin, and from which it is a cup and no mini cup. */
const NARROW_M = 0.05;
const CUP_M = 0.02;

/** How finely a start is computed. */
export function stepsFor(start: Start): Steps {
  const layers = (start.layers ?? []).reduce(
    (all, { massKg, material, gasM3PerKg }) => all + massKg * (material.dryVolume + material.water / WATER_DENSITY + gasM3PerKg),
    0,
  );
  const { material, massKg, risen, shape } = start;
  const depth = depthOf(shape, layers + massKg * (material.dryVolume + material.water / WATER_DENSITY + risen.gasM3));
  if (onHob(start)) return STEPS.plate;
  if (shape.rim <= 0) return shape.profile === "heap" ? STEPS.heap : STEPS.free;
  if (start.vessel.preheated) return depth < THIN_M ? STEPS.hotPanThin : STEPS.hotPan;
  if (shape.reach < NARROW_M) return shape.form === "axial" && shape.reach > CUP_M ? STEPS.cup : STEPS.tin;
  return depth > DEEP_M ? STEPS.deepTin : STEPS.tin;
}

/** The same with three quarters of the columns: minutes, crown and loss within 3 % (docs/science/ovens.md). */
export const coarser = (steps: Steps): Steps => ({
  ...steps,
  grid: { ...steps.grid, columns: Math.ceil(0.75 * steps.grid.columns) },
});

/** The same twice as fine in every direction, with steps of a quarter: what the error of a grid is told by. */
export const twiceAsFine = ({ grid, dt, firstDt }: Steps): Steps => ({
  grid: {
    layers: 2 * grid.layers,
    columns: 2 * grid.columns,
    baseM: grid.baseM / 2,
    topM: grid.topM / 2,
    wallM: grid.wallM / 2,
  },
  dt: dt / 4,
  firstDt: firstDt / 2,
});
