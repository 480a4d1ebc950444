import type { Shelf } from "../pantry/shelf";
import { type AsideOf, type ComponentPlace, placeOf } from "./components";
import type { FormulaComponent } from "./components-schema";
import { batchOf, type Item, massOf, resolve, totalOf, type WeighedLine } from "./resolve";
import type { ComponentMass } from "./component-mass-schema";

/** The batter among the components. */
export const BATTER = "batter";
/** A component that is weighed: what is in it, and what it comes to. */
export interface Weighed {
  component: FormulaComponent;
  place: ComponentPlace | "batter";
  items: Item[];
  mass: ComponentMass;
}
function massesOf(
  component: FormulaComponent,
  items: readonly Item[],
): Pick<ComponentMass, "massG" | "weighedG" | "waterG" | "fatG" | "sugarG" | "proteinG" | "sodiumMg" | "leastG"> {
  const { massG: weighedG, waterG, fatG, sugarG, proteinG, sodiumMg } = batchOf(items);
  const rest = { fatG, sugarG, proteinG, sodiumMg };
  const { cookedG } = component;
  if (cookedG === undefined || weighedG <= 0) return { massG: weighedG, weighedG, waterG, ...rest };
  // Cooking takes water away, or brings it where something was boiled: all else stays.
  const dry = weighedG - waterG;
  const massG = Math.max(cookedG, dry);
  return { massG, weighedG, waterG: massG - dry, ...rest, ...(cookedG < dry - 0.5 ? { leastG: dry } : {}) };
}
const weighed = (component: FormulaComponent, lines: readonly WeighedLine[], shelf: Shelf): Weighed => {
  const items = resolve(lines, shelf);
  const place = placeOf(component);
  return {
    component,
    place,
    items,
    mass: { id: component.id, name: component.name, role: component.role, place, ...massesOf(component, items) },
  };
};
/** Each component that is beside the batter, weighed. Throws `unknown-ingredient`, `bad-amount`. */
export const weighedAsides = (asides: readonly AsideOf[], shelf: Shelf): Weighed[] =>
  asides.map(({ component, lines }) => weighed(component, lines, shelf));
/**
 * The mass of every component, the batter first and its soakers apart; as they are weighed they add up to the whole. g and mg. Throws as
 * `weighedAsides`.
 */
export function componentMasses(
  batter: readonly WeighedLine[],
  asides: readonly Weighed[],
  components: readonly FormulaComponent[],
  shelf: Shelf,
): ComponentMass[] {
  const within = components.filter(({ role }) => role === "batter" || role === "soaker");
  const own = batter.filter((line) => !within.some(({ id }) => id === line.component));
  const first: FormulaComponent = { id: BATTER, name: "Batter", role: "batter" };
  return [
    weighed(first, own, shelf).mass,
    ...within.map((component) => {
      const lines = batter.filter((line) => line.component === component.id);
      return weighed(component, lines, shelf).mass;
    }),
    ...asides.map(({ mass }) => mass),
  ];
}
/** A component's items with the water that cooking has left in them; the mass is that of the cooked thing. */
export function cookedItems({ items, mass }: Weighed): Item[] {
  const water = totalOf(items, "water");
  const gone = massOf(items) - mass.massG;
  if (Math.abs(gone) < 1e-9 || water <= 0) return items;
  // The water that is gone is gone from each in proportion to what it had.
  return items.map((item) => {
    const had = item.massG * (item.ingredient.per100g.water / 100);
    const left = item.massG - (gone * had) / water;
    const scale = left > 0 ? item.massG / left : 0;
    const c = item.ingredient.per100g;
    const dry = { ...c, water: 0 };
    const per100g = Object.fromEntries(Object.entries(dry).map(([key, value]) => [key, value * scale])) as typeof c;
    per100g.water = left > 0 ? Math.max(0, 100 * (1 - (item.massG - had) / left)) : 0;
    return { ...item, massG: left, ingredient: { ...item.ingredient, per100g } };
  });
}
