import { baseArea, type Section, type Slab } from "./section";
import { type Layer, type Start, topsLater } from "./start";
import { WATER_CAPACITY } from "./steam-tables";

/** What lies in the vessel from the base up; a filling parts the batter in two halves. */
export function slabsOf(start: Start): Slab[] {
  const { material, massKg, risen, batterC, layers = [] } = start;
  const at = (place: Layer["place"]): Slab[] =>
    layers.filter((layer) => layer.place === place).map((layer) => ({ ...layer, batter: false }));
  const inside = at("inside");
  const batter = (share: number): Slab => ({
    material,
    massKg: massKg * share,
    gasM3PerKg: risen.gasM3,
    batter: true,
    celsius: batterC,
  });
  const middle = inside.length > 0 ? [batter(0.5), ...inside, batter(0.5)] : [batter(1)];
  return [...at("base"), ...middle, ...(topsLater(start) ? [] : at("top"))];
}

/** What is put on top in a later stage. */
export const slabsForLater = ({ layers = [] }: Start): Slab[] =>
  layers.filter(({ place }) => place === "top").map((layer) => ({ ...layer, batter: false }));

/** A wash lies on the top cells. */
export function brush(section: Section, waterKg: number): void {
  const { columns, layers, area, water, celsius, enthalpy, shape } = section;
  const whole = baseArea(shape);
  for (let j = 0; j < columns; j++) {
    const cell = j * layers + layers - 1;
    const more = (waterKg * area[j]!) / whole;
    water[cell]! += more;
    enthalpy[cell]! += more * WATER_CAPACITY * celsius[cell]!;
  }
}
