import type { Range } from "../measure/range-schema";
import type { Item } from "../formula/resolve";
import type { Ingredient } from "../pantry/ingredient-schema";
import saturated from "./data/saturated.json";
import type { Values, Nutrition } from "./nutrition-schema";

export const valueNames = ["kj", "kcal", "fat", "saturated", "carbohydrate", "sugars", "fibre", "protein", "salt"] as const;
export type ValueName = (typeof valueNames)[number];
/** Energy of a gram, kJ and kcal: the factors of Regulation (EU) No 1169/2011, Annex XIV; the Atwater factors are the same but for fibre. */
export const energyFactors = {
  kj: { fat: 37, carbohydrate: 17, protein: 17, fibre: 8 },
  kcal: { fat: 9, carbohydrate: 4, protein: 4, fibre: 2 },
} as const;
/** How far a composition may be off, as a share, by how well it is known. */
const spreadOf: Record<Ingredient["confidence"], number> = { A: 0.08, B: 0.15, C: 0.35 };
const satOf = ({ id, family }: Ingredient): Range =>
  (saturated.byId as Record<string, Range>)[id] ??
  (saturated.byFamily as Record<string, Range>)[family] ?? { low: 0.05, mid: 0.2, high: 0.5 };
// prettier-ignore

const GRAMS_OF_SALT_PER_MG_SODIUM = 2.5 / 1000;
interface Sum {
  mid: number;
  /** Sum of squares of what may be off. */
  off: number;
}
const rangeFrom = ({ mid, off }: Sum, per: number, perOff: number): Range => {
  const value = mid / per;
  const spread = Math.hypot(Math.sqrt(off) / per, value * perOff);
  return { low: Math.max(0, value - spread), mid: value, high: value + spread };
};
/** Mass of every nutrient in so many ingredients, with what it may be off by: independent errors of table and scale. */
function sumsOf(items: readonly Item[]): Record<ValueName, Sum> {
  const sums = Object.fromEntries(valueNames.map((name) => [name, { mid: 0, off: 0 }])) as Record<ValueName, Sum>;
  for (const { ingredient, massG, grams } of items) {
    const c = ingredient.per100g;
    const weighing = massG > 0 ? (grams.high - grams.low) / 2 / massG : 0;
    const table = Math.hypot(spreadOf[ingredient.confidence], weighing);
    const add = (name: ValueName, mass: number, off: number): void => {
      sums[name].mid += mass;
      sums[name].off += off * off;
    };
    const of = (percent: number): number => (massG * percent) / 100;
    const sat = satOf(ingredient);
    const carbohydrate = of(c.sugars + c.starch);
    const masses = { fat: of(c.fat), carbohydrate, protein: of(c.protein), fibre: of(c.fibre) };
    for (const name of ["fat", "protein", "fibre", "carbohydrate"] as const) add(name, masses[name], table * masses[name]);
    add("sugars", of(c.sugars), table * of(c.sugars));
    add("saturated", masses.fat * sat.mid, masses.fat * Math.hypot(table * sat.mid, (sat.high - sat.low) / 2));
    const salt = of((ingredient.sodiumMg ?? 0) * GRAMS_OF_SALT_PER_MG_SODIUM);
    add("salt", salt, table * salt);
    for (const unit of ["kj", "kcal"] as const) {
      const factors = energyFactors[unit];
      const parts = (Object.keys(factors) as (keyof typeof factors)[]).map((name) => factors[name] * masses[name]);
      add(unit, parts.reduce((sum, part) => sum + part, 0), table * Math.hypot(...parts)); // prettier-ignore
    }
  }
  return sums;
}
/** Nutrition of what is eaten, per 100 g and per piece: nothing but water is lost in the bake. `netG` is what all pieces weigh. */
export function nutritionOf(items: readonly Item[], netG: Range, pieces: number): Nutrition {
  const sums = sumsOf(items);
  const netOff = netG.mid > 0 ? (netG.high - netG.low) / 2 / netG.mid : 0;
  const values = (per: number, off: number): Values =>
    Object.fromEntries(valueNames.map((name) => [name, rangeFrom(sums[name], per, off)])) as Values;
  const count = Math.max(1, pieces);
  return {
    per100g: values(Math.max(1e-9, netG.mid / 100), netOff),
    // A piece has its share of what went in, however much water has left it.
    perPiece: values(count, 0),
    pieceG: { low: netG.low / count, mid: netG.mid / count, high: netG.high / count },
  };
}
