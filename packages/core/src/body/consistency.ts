import type { Process } from "../formula/process-schema";
import type { Item } from "../formula/resolve";
import { batterSugar, capacityOf, drunkBy, freeWaterOf } from "./water";
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
/** The suspension sorts what flows; above this reading it says only that nothing flows any more, and the dough decides. */
const FLOWS_BELOW = 2.5;

/**
 * What a dough is judged by, fitted to hand-shaped doughs (C): the loading at which it stops being scooped, how fast the reading falls above
 * and rises under it, and from where on the flour is no longer wetted through and it rises faster still.
 */
const DOUGH = { loading: 1, word: 2.15, wetter: 5, drier: 1.55, dryBelow: 0.5, dry: 5 };
/** A gel, a purée, a curd is soft: it stiffens a dough by so much of the water it holds (C). A gum thickens the syrup besides and counts half. */
const GEL_STIFFENS = 0.75;
const GUM = 0.5;
const GUM_STIFFENS = 0.5;
/** What wets a dough beside water, by mass: cold fat that is rubbed in, fat that flows, sugar (C). */
const WETS = { coldFat: 0.45, softFat: 0.6, sugar: 0.2 };

const wetFamilies = new Set(["fat", "dairy", "cultured", "plant-milk", "egg"]);

/**
 * Stiffness of a dough, from the loading of what drinks with water, plastic fat and syrup: what is patted, rolled and kneaded holds together by
 * how far its flour is wetted, not by how it flows. It falls with every gram of water. Unit: as `stiffnessOf`.
 */
export function doughStiffness(wet: number, drunk: number): number {
  if (drunk <= 0) return 0;
  const loading = Math.max(wet / drunk, 1e-6);
  const { word, wetter, drier, dryBelow, dry } = DOUGH;
  if (loading > DOUGH.loading) return word - wetter * Math.log(loading / DOUGH.loading);
  return word + drier * Math.log(DOUGH.loading / Math.max(loading, dryBelow)) + dry * Math.max(0, Math.log(dryBelow / loading));
}

/**
 * Stiffness of a batter as a suspension of swollen particles in a syrup, v = 0.17 log10(syrup) − 2.5·0.80·log10(1 − φ/0.80), and from where
 * it no longer flows as a dough (`doughStiffness`); the greater of the two. `minutes` is the time the batter has stood. Unit: none.
 */
export function stiffnessOf(items: readonly Item[], method: Process["method"], minutes = 10): number {
  const water = freeWaterOf(items);
  // What the particles want; where there is less water than that they stay as bulky and take nearly all of it.
  const drunk = drunkBy(items, minutes);
  const absorbed = 0.35 * drunk;
  const free = Math.max(water - Math.min(absorbed, 0.97 * water), 1e-6);
  const sugar = batterSugar(items);
  const dissolved = Math.min(sugar, 2 * free);
  const share = dissolved / (dissolved + free);
  let dry = 0;
  let liquidFat = 0;
  let solidFat = 0;
  let gum = 0;
  let soft = 0;
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
    const holds = massG * capacityOf(ingredient, minutes);
    if ((ingredient.gumShare ?? 0) >= GUM) soft += (1 - GUM_STIFFENS) * holds;
    else if (ingredient.family === "binder" || ingredient.holdsWater !== undefined) soft += (1 - GEL_STIFFENS) * holds;
  }
  const gumsFactor = 0.94 * ((100 * gum) / free);
  const logSyrup = (13.9 * share * (0.5 + share) + gumsFactor) / Math.LN10;
  const solidFatMl = solidFat / FAT;
  const liquidFatMl = liquidFat / FAT;
  const particles = dry / SOLIDS + absorbed + (sugar - dissolved) / SUGAR + 0.8 * solidFatMl;
  const total = particles + free + 0.62 * dissolved + liquidFatMl + 0.2 * solidFatMl;
  const packed = total > 0 ? particles / total / MAX_PACKING : 0;
  const flowing = packed >= JAMMED ? FLOWS_BELOW : 0.17 * logSyrup - 2.5 * MAX_PACKING * Math.log10(1 - packed);
  const dough = doughStiffness(water + WETS.sugar * sugar + WETS.softFat * liquidFat + WETS.coldFat * solidFat, drunk - soft);
  return Math.max(Math.min(FLOWS_BELOW, flowing), dough);
}

/** Yield stress at each edge between two words, Pa (kitchen scale, C): what pours holds under 3, what is scooped up to 110, soft dough to 500. */
const YIELD: [reading: number, pa: number][] = [
  [0, 0.1],
  [0.95, 3],
  [1.3, 20],
  [2.15, 110],
  [3.1, 500],
  [3.4, 1000],
  [5, 5000],
];

/** Yield stress of a batter with a reading, Pa; between the edges in proportion on a log scale. */
export function yieldStressPa(reading: number): number {
  const next = YIELD.findIndex(([edge]) => reading < edge);
  const above = YIELD[next < 0 ? YIELD.length - 1 : Math.max(1, next)];
  const below = YIELD[(next < 0 ? YIELD.length - 1 : Math.max(1, next)) - 1];
  if (!above || !below) return 0;
  const share = Math.min(1, Math.max(0, (reading - below[0]) / (above[0] - below[0])));
  return below[1] * (above[1] / below[1]) ** share;
}
