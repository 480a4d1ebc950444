import type { Body } from "../body/body";
import type { Process } from "../formula/process";
import { type Item, massOf } from "../formula/resolve";
import { airShare, type Gas, HANDLING_S } from "../lift/gas";
import type { Oven, Vessel } from "../pantry/vessel";
import { type Risen, stand } from "./bench";
import { type Material, materialOf } from "./material";
import { type Model, standardModel } from "./model";
import { outlineOf, reachOf } from "./outline";
import { type Grid, type SectionShape, depthOf, WATER_DENSITY } from "./section";
import { boilingC, pressurePa } from "./steam-tables";

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
  /** W/m²K, where it is not that of the oven's mode. */
  convection?: number;
}

export interface Steps {
  grid: Grid;
  /** Step and first minute's step, s. */
  dt: number;
  firstDt: number;
}

/** A batter flows level below this reading; above it is dough and stands. */
export const FLOWS_BELOW = 2.15;
/** Reading of an ordinary muffin batter, at which the relative consistency is 1. */
const ORDINARY = 1.1;

/** Consistency over that of a muffin batter, from the body's reading. */
export const relativeConsistency = (stiffness: number, model: Model): number => 10 ** (model.consistencyPower * (stiffness - ORDINARY));

/** A grid that keeps the time to done within 2 % of one twice as fine; thin things want more layers and short steps. */
export function stepsFor(start: Start): Steps {
  const volume = start.massKg * (start.material.dryVolume + start.material.water / WATER_DENSITY + start.risen.gasM3);
  const depth = depthOf(start.shape, volume);
  if (start.oven.mode === "hob") return { grid: { layers: 24, columns: 6 }, dt: 0.5, firstDt: 0.5 };
  if (depth < 0.012) return { grid: { layers: 24, columns: 8 }, dt: 2, firstDt: 1 };
  if (start.shape.rim <= 0) return { grid: { layers: 32, columns: 10 }, dt: 5, firstDt: 2 };
  if (start.vessel.preheated) return { grid: { layers: 32, columns: 8 }, dt: 4, firstDt: 1 };
  if (depth < 0.022) return { grid: { layers: 24, columns: 8 }, dt: 5, firstDt: 2 };
  if (depth < 0.026) return { grid: { layers: 24, columns: 8 }, dt: 8, firstDt: 2 };
  if (depth < 0.034) return { grid: { layers: 18, columns: 8 }, dt: 8, firstDt: 2 };
  return { grid: { layers: 16, columns: 8 }, dt: 10, firstDt: 2 };
}

/** Room where nothing is said, °C. */
const ROOM_C = 22;
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
  targetCoreC: number,
  model: Model = standardModel,
): Start {
  const massG = massOf(items);
  const { shape, pieces } = outlineOf(vessel, massG, massG / body.densityGPerMl);
  const kitchenC = process.kitchenC ?? ROOM_C;
  const batterC = process.batterC ?? kitchenC;
  const material = materialOf(items);
  const pressure = pressurePa(oven.altitudeM ?? 0);
  const seconds = HANDLING_S + (process.restMinutes ?? 0) * 60;
  const consistency = relativeConsistency(body.stiffness.mid, model);
  const risen = stand(
    gas,
    massG / 1000,
    airShare[process.method ?? "muffin"].mid,
    seconds,
    batterC,
    material,
    consistency,
    model,
    pressure,
  );
  const massKg = massG / pieces / 1000;
  return {
    shape: shape.rim > 0 ? shape : { ...shape, reach: reachOf(vessel, massKg * litres(material, risen)) },
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
    targetC: Math.min(targetCoreC, boilingC(pressure) - UNDER_BOILING),
  };
}

/** m³ of a kilogram of batter with its gas. */
const litres = (material: Material, risen: Risen): number => material.dryVolume + material.water / WATER_DENSITY + risen.gasM3;

const perPiece = (gas: Gas, pieces: number): Gas => ({
  ...gas,
  sources: gas.sources.map((source) => ({ ...source, mmol: source.mmol / pieces })),
});
