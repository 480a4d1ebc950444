import { cookedItems, type Weighed } from "../formula/component-mass";
import { massOf, totalOf } from "../formula/resolve";
import { materialOf } from "./material";
import { baseArea, type SectionShape, WATER_DENSITY } from "./section";
import type { Brushed, Layer } from "./start";

/** What is thinner than this over the whole top is brushed on, not laid on, m. */
const THIN_M = 1e-3;
/** A topping with less water than this is crumbs, with so much air between them (shares; bulk 0.6 to 0.7 g/mL). */
const CRUMBS = { water: 0.3, air: 0.35 };
/** Something that is all but water is no layer of its own. */
const LEAST_DRY = 0.02;
/**
 * Sugars and protein on a top, g/m², that give half of the most that a wash does, and the most: milk and egg about double the
 * rate of browning. Kitchen knowledge; confidence C.
 */
const WASH = { halfGPerM2: 15, most: 1.2 };

/** What of the components meets the batter in the oven, for one of so many pieces. */
export function layersOf(
  asides: readonly Weighed[],
  shape: SectionShape,
  pieces: number,
  kitchenC: number,
): { layers: Layer[]; brushed: Brushed | null } {
  const layers: Layer[] = [];
  let waterKg = 0;
  let coloursG = 0;
  const area = baseArea(shape);
  for (const aside of asides) {
    const { place, component } = aside;
    if (place !== "base" && place !== "inside" && place !== "top") continue;
    const items = cookedItems(aside).filter((item) => item.massG > 0);
    const massKg = massOf(items) / 1000 / pieces;
    if (massKg <= 0) continue;
    const material = materialOf(items);
    const condensed = material.dryVolume + material.water / WATER_DENSITY;
    const thin = (massKg * condensed) / area < THIN_M;
    if (place === "top" && (thin || material.dry < LEAST_DRY)) {
      waterKg += massKg * material.water;
      coloursG += (totalOf(items, "sugars") + totalOf(items, "protein")) / pieces;
      continue;
    }
    if (material.dry < LEAST_DRY) continue;
    const crumbs = material.water < CRUMBS.water && place === "top";
    layers.push({
      place,
      material,
      massKg,
      celsius: component.celsius ?? kitchenC,
      gasM3PerKg: crumbs ? (condensed * CRUMBS.air) / (1 - CRUMBS.air) : 0,
    });
  }
  const perM2 = coloursG / area;
  return {
    layers,
    brushed: waterKg > 0 || coloursG > 0 ? { waterKg, faster: 1 + (WASH.most * perM2) / (perM2 + WASH.halfGPerM2) } : null,
  };
}
