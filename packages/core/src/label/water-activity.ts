import type { Range } from "../measure/range-schema";
import { type Item, totalOf } from "../formula/resolve";

/*
 * Water of a crumb, part of it held by starch, protein and fibre and part in solution with sugars and salt, at one activity a:
 *   W = D · M(a) + S(a)
 *   M(a) = M0 C K a / ((1 − K a)(1 − K a + C K a))                  (sorption isotherm of starchy crumbs, g water per g dry, 25 °C)
 *   ln a = ln x_w − (Σ √k_i x_i)²                                     (solutions: Norrish, mixed after Chirife)
 * x are mole fractions; S the grams of water that the dissolved things need to have the activity a.
 */

/** Sorption of gelatinised starchy matter: monolayer g/g, and the two constants; means of published isotherms of breads and starches, ±15 %. */
const GAB = { monolayer: 0.088, c: 12, k: 0.78 } as const;

/** Molar mass g/mol, Norrish's constant, how many particles a molecule becomes. Sucrose 6.47, glucose and fructose 2.2, salt fitted to 10 % and to saturation. */
const solutes = {
  sucrose: { molar: 342.3, k: 6.47, ions: 1 },
  simple: { molar: 180.2, k: 2.2, ions: 1 },
  salt: { molar: 58.44, k: 1.8, ions: 2 },
} as const;
export type Solute = keyof typeof solutes;

/** Grams of sucrose that a gram of water dissolves at 25 °C; what is over it is crystals. */
const SUCROSE_DISSOLVES = 2.08;
const WATER_MOLAR = 18.015;

/** Activity of water in a solution of so many grams in a gram of water. */
export function solutionActivity(perGramWater: Partial<Record<Solute, number>>): number {
  const dissolved = { ...perGramWater, sucrose: Math.min(perGramWater.sucrose ?? 0, SUCROSE_DISSOLVES) };
  const moles = (Object.keys(solutes) as Solute[]).map((name) => {
    const { molar, k, ions } = solutes[name];
    return { root: Math.sqrt(k), n: ((dissolved[name] ?? 0) / molar) * ions };
  });
  const all = 1 / WATER_MOLAR + moles.reduce((sum, { n }) => sum + n, 0);
  const deviation = moles.reduce((sum, { root, n }) => sum + (root * n) / all, 0);
  return (1 / WATER_MOLAR / all) * Math.exp(-(deviation ** 2));
}

const sorbed = (a: number): number => {
  const { monolayer, c, k } = GAB;
  return (monolayer * c * k * a) / ((1 - k * a) * (1 - k * a + c * k * a));
};

/** The activities between which one is looked for. */
const [LEAST, MOST] = [0.05, 0.9999];

/** The root of a rising function between two ends, by halving. */
function rootOf(f: (x: number) => number, low: number, high: number, steps = 60): number {
  let [a, b] = [low, high];
  for (let k = 0; k < steps; k++) {
    const mid = (a + b) / 2;
    if (f(mid) > 0) b = mid;
    else a = mid;
  }
  return (a + b) / 2;
}

/** Water activity of a moist mass: grams of water, of dry matter that holds it, of sugars and salt. */
export function activityOf(waterG: number, dryG: number, dissolvedG: Partial<Record<Solute, number>>): number {
  if (waterG <= 0) return 0;
  const { sucrose = 0, simple = 0, salt = 0 } = dissolvedG;
  const activity = (water: number): number =>
    solutionActivity({ sucrose: sucrose / water, simple: simple / water, salt: salt / water });
  // More water in the solution makes it thinner: its activity rises, and with it what is held by the dry matter.
  const over = (water: number): number => dryG * sorbed(activity(water)) + water - waterG;
  const least = waterG * 1e-9;
  // Without anything dissolved, or where all of it stays crystals, the dry matter holds all the water.
  if (sucrose + simple + salt <= 0 || over(least) > 0) return rootOf((a) => dryG * sorbed(a) - waterG, LEAST, MOST);
  return Math.min(MOST, Math.max(LEAST, activity(rootOf(over, least, waterG))));
}

/** Sugars of these are mostly single: glucose, fructose, what honey and fruit have. */
const single = new Set(["syrup", "fruit", "dried-fruit", "juice", "puree", "vegetable"]);

/** How far the two equations and the tables are off together, in activity. */
const MODEL_OFF = 0.015;

/** Water activity of ingredients of which so much water has gone, g; low to high by what may be lost and what the model does not know. */
export function waterActivity(items: readonly Item[], lostG: Range): Range {
  const water = totalOf(items, "water");
  const dry = totalOf(items, "starch") + totalOf(items, "protein") + totalOf(items, "fibre");
  const simple = items.reduce((g, item) => g + (single.has(item.ingredient.family) ? (item.massG * item.ingredient.per100g.sugars) / 100 : 0), 0);
  const sucrose = totalOf(items, "sugars") - simple;
  const salt = items.reduce((g, item) => g + (item.massG / 100) * (item.ingredient.sodiumMg ?? 0) * (2.54 / 1000), 0);
  const at = (lost: number): number => activityOf(Math.max(0, water - lost), dry, { sucrose, simple, salt });
  const mid = at(lostG.mid);
  return { low: Math.max(0, at(lostG.high) - MODEL_OFF), mid, high: Math.min(0.995, at(lostG.low) + MODEL_OFF) };
} // prettier-ignore
