import type { Ingredient } from "./ingredient-schema";

export const families = [
  "flour",
  "pulse-flour",
  "nut-flour",
  "starch",
  "blend",
  "wheat",
  "binder",
  "leavener",
  "acid",
  "dairy",
  "cultured",
  "cheese",
  "plant-milk",
  "egg",
  "egg-substitute",
  "fat",
  "sugar",
  "syrup",
  "fruit",
  "vegetable",
  "puree",
  "dried-fruit",
  "juice",
  "vinegar",
  "water",
  "fizzy",
  "cocoa",
  "chocolate",
  "nut",
  "seed",
  "spice",
  "flavour",
  "salt",
  "additive",
  "meat",
] as const;
// prettier-ignore

export type Family = (typeof families)[number];
export const allergens = [
  "milk",
  "egg",
  "nuts",
  "peanuts",
  "soy",
  "sesame",
  "lupin",
  "mustard",
  "celery",
  "fish",
  "crustaceans",
  "molluscs",
  "sulphites",
  "wheat",
  "rye",
  "barley",
] as const;
export const leaveningAcidIds = [
  "mcp",
  "mcp-coated",
  "sapp",
  "sas",
  "salp",
  "dcp",
  "tartrate",
  "gdl",
  "tartaric",
  "citric",
  "malic",
  "fumaric",
  "adipic",
] as const;
// prettier-ignore
export type LeaveningAcidId = (typeof leaveningAcidIds)[number];
export const solutionAcidIds = ["lactic", "acetic", "citric", "malic", "tartaric", "gluconic", "ascorbic", "phosphoric"] as const;
// prettier-ignore
export type SolutionAcidId = (typeof solutionAcidIds)[number];
export const powderIds = ["sulfate", "pyrophosphate", "phosphate", "tartrate"] as const;
export type PowderId = (typeof powderIds)[number];
export const sources = ["composition-table", "maker-label", "definition", "estimate"] as const;
const flourFamilies = new Set<string>(["flour", "pulse-flour", "nut-flour", "starch", "blend", "wheat"]);
/** Whether an ingredient is part of the flour and starch that baker's percentages stand on. */
export const isFlour = (ingredient: Ingredient): boolean => flourFamilies.has(ingredient.family);
