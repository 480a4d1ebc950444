import type { Body } from "../body/body";
import type { Weighed } from "../formula/component-mass";
import type { Process } from "../formula/process";
import { type Item, massOf } from "../formula/resolve";
import { airShare, type Gas, HANDLING_S } from "../lift/gas";
import { sum } from "../measure/range";
import type { Oven, Vessel } from "../pantry/vessel";
import { type Risen, stand } from "./bench";
import { layersOf } from "./layers";
import { type Material, materialOf } from "./material";
import { type Model, standardModel } from "./model";
import { outlineOf, reachOf } from "./outline";
import { WATER_DENSITY } from "./section";
import { relativeConsistency, type Start } from "./start";
import { boilingC, pressurePa } from "./steam-tables";

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
  asides: readonly Weighed[] = [],
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
  const here = shape.rim > 0 ? shape : { ...shape, reach: reachOf(vessel, massKg * litres(material, risen)) };
  const { layers, brushed } = layersOf(asides, here, pieces, kitchenC);
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
    targetC: Math.min(targetCoreC, boilingC(pressure) - UNDER_BOILING),
  };
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
