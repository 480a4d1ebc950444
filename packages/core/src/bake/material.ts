import type { Item } from "../formula/resolve";

/**
 * Densities kg/m³, heat capacities J/kgK and conductivities W/mK of food components at 60 °C (correlations of Choi and Okos 1986).
 * Taken once: over 20 to 100 °C they move by less than the spread of any batter.
 */
export const componentTable = {
  water: { density: 983.7, capacity: 4190, conductivity: 0.653 },
  fat: { density: 900.5, capacity: 2055, conductivity: 0.1635 },
  carbohydrate: { density: 1580.5, capacity: 1645, conductivity: 0.269 },
  protein: { density: 1298.8, capacity: 2076, conductivity: 0.241 },
  ash: { density: 2407, capacity: 1193, conductivity: 0.403 },
} as const;

const SUCROSE_G_PER_MOL = 342.3;

/** What heat sees of a batter, per kilogram of it. SI units. */
export interface Material {
  /** kg of water and of everything else in a kilogram; they add up to 1. */
  water: number;
  dry: number;
  /** J/K, m³ and W/mK·m³ of the dry matter in a kilogram of batter. */
  dryCapacity: number;
  dryVolume: number;
  dryConductance: number;
  /** mol of sugar per kg of water. */
  sugarMolality: number;
}

const solids = ["fat", "carbohydrate", "protein", "ash"] as const;

/** The material of a batter. Other matter counts as carbohydrate. */
export function materialOf(items: readonly Item[]): Material {
  const parts = { water: 0, fat: 0, carbohydrate: 0, protein: 0, ash: 0 };
  let sugars = 0;
  for (const { ingredient, massG } of items) {
    const c = ingredient.per100g;
    parts.water += massG * c.water;
    parts.fat += massG * c.fat;
    parts.carbohydrate += massG * (c.sugars + c.starch + c.fibre + (c.other ?? 0));
    parts.protein += massG * c.protein;
    parts.ash += massG * c.ash;
    sugars += massG * c.sugars;
  }
  const whole = Object.values(parts).reduce((all, part) => all + part, 0);
  const material: Material = {
    water: parts.water / whole,
    dry: 1 - parts.water / whole,
    dryCapacity: 0,
    dryVolume: 0,
    dryConductance: 0,
    sugarMolality: parts.water > 0 ? ((sugars / parts.water) * 1000) / SUCROSE_G_PER_MOL : 0,
  };
  for (const name of solids) {
    const share = parts[name] / whole;
    const { density, capacity, conductivity } = componentTable[name];
    material.dryCapacity += share * capacity;
    material.dryVolume += share / density;
    material.dryConductance += (share / density) * conductivity;
  }
  return material;
}
