import type { Allergen } from "../pantry/ingredient-schema";
import data from "./data/regions.json";

export const regionIds = ["eu", "uk", "us", "ca", "au"] as const;
export type RegionId = (typeof regionIds)[number];

/** What the law of a place asks of a label, as far as it is arithmetic and words; each with its source and how old that reading is. */
export interface Region {
  name: string;
  /** The word by which each allergen is told in the list of ingredients. */
  allergens: Partial<Record<Allergen | "oats", string>>;
  /** The word of the statement under the list, where it is another one. */
  statement?: Partial<Record<Allergen | "oats", string>>;
  /** Told here although this law does not ask for it. */
  alsoName?: Partial<Record<Allergen, string>>;
  /** Kernels that are no nuts in this law. */
  notNuts: readonly string[];
  /** What a statement under the list begins with; null where there is none and the list itself sets them off. */
  contains: string | null;
  /** Whether the share of what the name of the food names is told behind it, in per cent of what is sold; null where no law asks. */
  percent: "named" | null;
  /** Added water as it went in, as what is left of it in the finished food, or as it went in less what was lost. */
  water: "ingoing" | "finished" | "ingoing-less-lost";
  waterMayGoUnderPercent: number;
  additives: "class" | "name" | "number";
  classFirst: boolean;
  energy: "kJ" | "kcal" | "both";
  carbohydrate: "available" | "total";
  salt: "salt" | "sodium";
  per: "100 g" | "serving";
  gluten: { limit: string; words: string; oats: "allowed" | "allowed-if-special" | "named" | "never"; source: string };
  source: string;
  asOf: string;
}

export const regions = data.regions as Record<RegionId, Region>;

/** Kernels by a part of an ingredient's id, and what each is called on a label. */
export const nutNames = data.nuts as Record<string, string>;
