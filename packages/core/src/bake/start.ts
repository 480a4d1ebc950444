import type { Gas } from "../lift/gas";
import type { Oven, Vessel } from "../pantry/vessel";
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
  /** What it is judged by beside its inside. */
  judged: JudgedBy;
  /** The stages it is baked in; one until it is done where nothing is laid out. */
  course: readonly Leg[];
  /** What is under, in and on the batter. */
  layers?: readonly Layer[];
  /** What is brushed on: its water, kg, and how much faster the top browns. */
  brushed?: Brushed;
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
  /** Step and first minute's step, s. */
  dt: number;
  firstDt: number;
}

/** A batter flows level in its tin below this reading, the slower the stiffer; above it is dough and stands. */
export const FLOWS_BELOW = 3.1;
/** Reading of an ordinary muffin batter, at which the relative consistency is 1. */
const ORDINARY = 1.1;

/** A dough is stiffer than this by how dry it is, not by a thicker liquid between its bubbles: it holds gas no better. */
const HOLDS_AS_IF = 1.7;

/** Consistency over that of a muffin batter, from the body's reading. */
export const relativeConsistency = (stiffness: number, model: Model): number =>
  10 ** (model.consistencyPower * (Math.min(stiffness, HOLDS_AS_IF) - ORDINARY));

/** How deep the batter stands when it goes in, on the average, m. */
export const depthAtStart = ({ shape, massKg, material, risen }: Start): number =>
  depthOf(shape, massKg * (material.dryVolume + material.water / WATER_DENSITY + risen.gasM3));

/** A grid that keeps the time to done within 2 % of one twice as fine; thin things want more layers and short steps. */
export function stepsFor(start: Start): Steps {
  const batter = start.massKg * (start.material.dryVolume + start.material.water / WATER_DENSITY + start.risen.gasM3);
  const volume = (start.layers ?? []).reduce(
    (all, { massKg, material, gasM3PerKg }) => all + massKg * (material.dryVolume + material.water / WATER_DENSITY + gasM3PerKg),
    batter,
  );
  const depth = depthOf(start.shape, volume);
  if (onHob(start)) return { grid: { layers: 32, columns: 6 }, dt: 0.5, firstDt: 0.5 };
  if (depth < 0.012) return { grid: { layers: 40, columns: 8 }, dt: 3, firstDt: 1 };
  if (start.shape.rim <= 0) return { grid: { layers: 32, columns: 10 }, dt: 5, firstDt: 2 };
  if (start.vessel.preheated && depth < 0.05) return { grid: { layers: 48, columns: 8 }, dt: 5, firstDt: 1 };
  if (depth < 0.022 && start.shape.reach < 0.025) return { grid: { layers: 24, columns: 8 }, dt: 5, firstDt: 2 };
  if (depth < 0.022) return { grid: { layers: 32, columns: 8 }, dt: 6, firstDt: 2 };
  if (depth < 0.026) return { grid: { layers: 24, columns: 8 }, dt: 8, firstDt: 2 };
  return { grid: { layers: 16, columns: 8 }, dt: 10, firstDt: 2 };
}
