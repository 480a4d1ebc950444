import type { Process } from "../formula/process-schema";
import type { Item } from "../formula/resolve";
import { airIn } from "../lift/air";

/** Densities at room temperature, g/mL: water, fat, sugar in solution, starch and fibre, protein, ash (food-engineering tables). */
const density = { water: 0.997, fat: 0.92, sugars: 1.59, starch: 1.5, fibre: 1.5, protein: 1.33, ash: 2.3, other: 1.2 } as const;

/** Volume of the batter without air, mL. */
export function condensedVolume(items: readonly Item[]): number {
  let ml = 0;
  for (const { ingredient, massG } of items) {
    const c = ingredient.per100g;
    for (const part of Object.keys(density) as (keyof typeof density)[]) ml += (massG * (c[part] ?? 0)) / 100 / density[part];
  }
  return ml;
}

/** Density of the batter as mixed, g/mL, with the air that its method beats in. */
export function batterDensity(items: readonly Item[], method: Process["method"]): number {
  const massG = items.reduce((g, item) => g + item.massG, 0);
  const ml = condensedVolume(items);
  return ml > 0 ? (massG / ml) * (1 - airIn(items, method)) : 1;
}
