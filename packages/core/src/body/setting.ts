import type { Item } from "../formula/resolve";
import type { Range } from "../measure/range-schema";

/** Where starch of unknown source sets, °C, and how far any of these temperatures is known, K. */
const BLEND_C = 70;
const KNOWN_WITHIN = 4;
/** Egg protein holds the batter before this, °C. */
const HIGHEST_C = 90;

/**
 * Temperature at which the crumb sets, °C: starch by its source, raised by sugar (20 K for pure syrup) and by dryness (25 K per unit of
 * water fraction under 0.30).
 */
export function settingOf(items: readonly Item[]): Range {
  let starch = 0;
  let weighted = 0;
  let water = 0;
  let sugar = 0;
  let mass = 0;
  for (const { ingredient, massG } of items) {
    const own = (massG * ingredient.per100g.starch) / 100;
    starch += own;
    weighted += own * (ingredient.gelatinisationC ?? BLEND_C);
    water += (massG * ingredient.per100g.water) / 100;
    sugar += (massG * ingredient.per100g.sugars) / 100;
    mass += massG;
  }
  const base = starch > 0 ? weighted / starch : BLEND_C;
  const syrup = sugar + water > 0 ? sugar / (sugar + water) : 0;
  const dryness = mass > 0 ? Math.max(0, 0.3 - water / mass) : 0;
  const mid = Math.min(HIGHEST_C, base + 20 * syrup + 25 * dryness);
  return { low: mid - KNOWN_WITHIN, mid, high: mid + KNOWN_WITHIN };
}
