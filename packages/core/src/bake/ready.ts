import type { Body } from "../body/body";
import { ladenYieldPa } from "../body/laden";
import type { Weighed } from "../formula/component-mass";
import type { Process } from "../formula/process-schema";
import { type Item, massOf, totalOf } from "../formula/resolve";
import { airIn } from "../lift/air";
import { type Gas, HANDLING_S } from "../lift/gas";
import { sum } from "../measure/range";
import type { Oven, Vessel } from "../pantry/vessel-schema";
import { type Risen, stand } from "./bench";
import { courseOf } from "./course";
import { reactivity } from "./browning";
import type { JudgedBy } from "./judged";
import { layersOf } from "./layers";
import { type Material, materialOf } from "./material";
import { type Model, standardModel } from "./model";
import { outlineOf, pieceOf } from "./outline";
import { WATER_DENSITY } from "./section";
import { relativeConsistency, type Start } from "./start";
import { boilingC, pressurePa } from "./steam-tables";

/** Room where nothing is said, °C. */
export const ROOM_C = 22;
/** A middle under thin air boils below the target; it is done this much under its boiling point, K. */
const UNDER_BOILING = 3.5;

/** One vessel of a formula, ready for the oven. */
export function startOf(
  items: readonly Item[],
  vessel: Vessel,
  oven: Oven,
  process: Process,
  body: Pick<Body, "densityGPerMl" | "settingC" | "stiffness">,
  gas: Gas,
  crumbPh: number,
  target: { targetCoreC: number; judgedBy: JudgedBy },
  asides: readonly Weighed[] = [],
  model: Model = standardModel,
): Start {
  const massG = massOf(items);
  const yieldPa = ladenYieldPa(items, body.stiffness.mid);
  const { shape, pieces } = outlineOf(vessel, massG, massG / body.densityGPerMl, yieldPa);
  const kitchenC = process.kitchenC ?? ROOM_C;
  const batterC = process.batterC ?? kitchenC;
  const material = materialOf(items);
  const pressure = pressurePa(oven.altitudeM ?? 0);
  const risen = risenOf(massG, airIn(items, process.method), oven, process, body, gas, material, model);
  const massKg = massG / pieces / 1000;
  const perKg = litres(material, risen);
  const here = shape.rim > 0 ? shape : pieceOf(vessel, massKg * perKg, 1 / perKg, yieldPa);
  const { layers, brushed } = layersOf(asides, here, pieces, kitchenC);
  const sugarShare = totalOf(items, "sugars") / massG;
  return {
    shape: here,
    ...(layers.length > 0 ? { layers } : {}),
    ...(brushed ? { brushed } : {}),
    vessel,
    oven,
    material,
    massKg,
    risen,
    gas: perPiece(gas, pieces),
    batterC,
    kitchenC,
    settingC: body.settingC.mid,
    stiffness: body.stiffness.mid,
    yieldPa,
    fatShare: totalOf(items, "fat") / massG,
    cutIn: process.method === "cut-in",
    browns: reactivity(crumbPh, sugarShare, totalOf(items, "protein") / massG),
    judged: process.doneWhen ?? judgedIn(target.judgedBy, vessel, here.rim > 0, sugarShare),
    ...(process.doneWhen === "inside" ? { insideAlone: true } : {}),
    ...(process.cooling === "upside-down" && here.rim > 0 ? { hangs: true } : {}),
    ...inTin(process),
    course: courseOf(process.stages, oven),
    targetC: Math.min(target.targetCoreC, boilingC(pressure) - UNDER_BOILING),
  };
}

/** How long it stays in its tin, where that is said; what hangs stays until it is cold. */
function inTin({ cooling, tinMinutes }: Process): Pick<Start, "inTinS"> {
  if (cooling === "in-tin" || cooling === "upside-down") return { inTinS: Infinity };
  return tinMinutes === undefined ? {} : { inTinS: tinMinutes * 60 };
}

/** A drop with less sugar than this share is no biscuit: it is judged by its top as a drop scone or a fritter is. */
const SWEET_DROP = 0.08;

/** Bread of a skillet is judged by its rim, in cups by its top, a drop that is not sweet too; a flatbread poured into a pan shows its edge. */
function judgedIn(by: JudgedBy, vessel: Vessel, walled: boolean, sugarShare: number): JudgedBy {
  if (by === "rim" && vessel.shape === "muffin") return "top";
  if (by === "edge" && !walled && sugarShare < SWEET_DROP) return "top";
  return by === "faces" && walled ? "edge" : by;
}

/** A kilogram of the batter as it is poured: after mixing, filling and standing, with the gas that survived them. */
function risenOf(
  massG: number,
  air: number,
  oven: Oven,
  process: Process,
  body: Pick<Body, "stiffness">,
  gas: Gas,
  material: Material,
  model: Model,
): Risen {
  const seconds = HANDLING_S + (process.restMinutes ?? 0) * 60;
  const celsius = process.batterC ?? process.kitchenC ?? ROOM_C;
  const consistency = relativeConsistency(body.stiffness.mid, model);
  return stand(gas, massG / 1000, air, seconds, celsius, material, consistency, model, pressurePa(oven.altitudeM ?? 0));
}

/** Density of the batter as it is poured, g/mL: what the fill reads and the bake begins with. */
export function pouredDensity(
  items: readonly Item[],
  oven: Oven,
  process: Process,
  body: Pick<Body, "stiffness">,
  gas: Gas,
  model: Model = standardModel,
): number {
  const material = materialOf(items);
  return (
    1 / (1000 * litres(material, risenOf(massOf(items), airIn(items, process.method), oven, process, body, gas, material, model)))
  );
}

/** m³ of a kilogram of batter with its gas. */
const litres = (material: Material, risen: Risen): number => material.dryVolume + material.water / WATER_DENSITY + risen.gasM3;

const perPiece = (gas: Gas, pieces: number): Gas => ({
  ...gas,
  sources: gas.sources.map((source) => ({ ...source, mmol: source.mmol / pieces })),
});

/** Relative half-range of the batch's mass. */
export function massSpreadOf(items: readonly Item[]): number {
  const mass = massOf(items);
  const range = sum(items.map((item) => item.grams));
  return mass > 0 ? (range.high - range.low) / 2 / mass : 0;
}
