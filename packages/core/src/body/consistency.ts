import type { Process } from "../formula/process";
import type { Item } from "../formula/resolve";
import { batterSugar, drunkBy, freeWaterOf } from "./water";
import { isInclusion } from "../pantry/pieces";

export const consistencies = ["pourable", "spoonable", "scoopable", "soft-dough", "firm-dough", "crumbly"] as const;
export type Consistency = (typeof consistencies)[number];

/** Upper limits of the reading for each word, thin to stiff. Five fitted numbers, not a law; see docs/science/body.md. */
const limits: [Consistency, number][] = [
  ["pourable", 0.95],
  ["spoonable", 1.3],
  ["scoopable", 2.15],
  ["soft-dough", 3.1],
  ["firm-dough", 3.4],
];

/** From which reading to which a word holds, thin to stiff. */
export function stiffnessRange(word: Consistency): { low: number; high: number } {
  const at = consistencies.indexOf(word);
  return { low: limits[at - 1]?.[1] ?? 0, high: limits[at]?.[1] ?? Infinity };
}

export const consistencyOf = (reading: number): Consistency => limits.find(([, limit]) => reading < limit)?.[0] ?? "crumbly";

/** Densities, g/mL, and shares of the suspension model. */
const SOLIDS = 1.45;
const SUGAR = 1.59;
const FAT = 0.92;
const MAX_PACKING = 0.8;
const JAMMED = 0.985;
/** Where the particles begin to touch; the flowing branch never reads above it, so that more water never stiffens. */
const JAMMED_STIFFNESS = 3;

const wetFamilies = new Set(["fat", "dairy", "cultured", "plant-milk", "egg"]);

/**
 * Stiffness of a batter as a suspension of swollen particles in a syrup:
 * v = 0.17 log10(syrup) − 2.5·0.80·log10(1 − φ/0.80). `minutes` is the time the batter has stood. Unit: none.
 */
export function stiffnessOf(items: readonly Item[], method: Process["method"], minutes = 10): number {
  const water = freeWaterOf(items);
  // What the particles want; where there is less water than that they stay as bulky and take nearly all of it.
  const absorbed = 0.35 * drunkBy(items, minutes);
  const free = Math.max(water - Math.min(absorbed, 0.97 * water), 1e-6);
  const sugar = batterSugar(items);
  const dissolved = Math.min(sugar, 2 * free);
  const share = dissolved / (dissolved + free);
  let dry = 0;
  let liquidFat = 0;
  let solidFat = 0;
  let gum = 0;
  const coldFat = method === "creaming" || method === "cut-in";
  for (const { ingredient, massG } of items) {
    if (isInclusion(ingredient)) continue;
    const c = ingredient.per100g;
    const wet = wetFamilies.has(ingredient.family);
    const fat = (massG * c.fat) / 100;
    if (wet && coldFat && ingredient.family === "fat" && ingredient.state === "solid") solidFat += fat;
    else if (wet) liquidFat += fat;
    dry += (massG * (c.protein + c.starch + c.fibre + c.ash + (c.other ?? 0) + (wet ? 0 : c.fat))) / 100;
    gum += massG * (ingredient.gumShare ?? 0);
  }
  const gumsFactor = 0.94 * ((100 * gum) / free);
  const logSyrup = (13.9 * share * (0.5 + share) + gumsFactor) / Math.LN10;
  const solidFatMl = solidFat / FAT;
  const liquidFatMl = liquidFat / FAT;
  const particles = dry / SOLIDS + absorbed + (sugar - dissolved) / SUGAR + 0.8 * solidFatMl;
  const total = particles + free + 0.62 * dissolved + liquidFatMl + 0.2 * solidFatMl;
  const packed = total > 0 ? particles / total / MAX_PACKING : 0;
  if (packed >= JAMMED) return JAMMED_STIFFNESS + 40 * (packed - JAMMED);
  return Math.min(JAMMED_STIFFNESS, 0.17 * logSyrup - 2.5 * MAX_PACKING * Math.log10(1 - packed));
}
