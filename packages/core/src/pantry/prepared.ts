import { exactly } from "../measure/range";
import type { Range } from "../measure/range-schema";

/**
 * What a preparation makes of a thing: cooked and mashed it is another ingredient, with the share of its mass that stays; drained it is part of
 * its can. Kitchen habit and composition tables, confidence C.
 */
interface Preparation {
  of: string[];
  /** Every one of these words is said of it. */
  said: RegExp;
  becomes: string;
  keeps: Range;
  /** The amount as written is weighed as what it becomes, by this size word of its pieces where it has one. */
  weighedAs?: string;
}

const cooked = /\b(?:boiled|cooked|steamed|roasted|baked|stewed)\b/i;
const mashed = /\b(?:mashed|pur[eé]ed?|blended|blitzed|riced)\b/i;
const both = new RegExp(`(?=.*${cooked.source})(?=.*${mashed.source})|${mashed.source}`, "i");
/** Whose flesh goes in as well is no zest. */
const zested = /^(?!.*\b(?:flesh|segments?|pulp)\b).*\bzest(?:ed)?\b(?!.*juice)/i;
const juiced = /\bjuiced\b/i;
const all: Range = { low: 1, mid: 1, high: 1 };
const most: Range = { low: 0.9, mid: 0.95, high: 1 };

const preparations: Preparation[] = [
  { of: ["carrot"], said: both, becomes: "carrot-puree", keeps: most },
  { of: ["beetroot-raw"], said: mashed, becomes: "beetroot-puree", keeps: { low: 0.94, mid: 0.98, high: 1 } },
  { of: ["potato-raw"], said: new RegExp(`${cooked.source}|${mashed.source}`, "i"), becomes: "cooked-potato", keeps: most },
  { of: ["sweet-potato-raw"], said: both, becomes: "sweet-potato-puree", keeps: most },
  { of: ["pumpkin-raw"], said: both, becomes: "butternut-puree", keeps: most },
  { of: ["apple"], said: both, becomes: "apple-puree", keeps: most },
  { of: ["pear"], said: both, becomes: "pear-puree", keeps: most },
  { of: ["plum", "prunes"], said: mashed, becomes: "prune-puree", keeps: most },
  { of: ["mango"], said: mashed, becomes: "mango-puree", keeps: most },
  { of: ["raspberries", "strawberries", "blueberries", "blackberries"], said: mashed, becomes: "berry-puree", keeps: most },
  { of: ["spinach"], said: /\b(?:wilted|squeezed|cooked)\b/i, becomes: "spinach", keeps: { low: 0.4, mid: 0.6, high: 0.85 } },
  {
    of: ["rolled-oats", "jumbo-oats"],
    said: /\b(?:ground|blitzed|milled)\b.*\b(?:flour|fine|powder)\b/i,
    becomes: "oat-flour",
    keeps: { low: 1, mid: 1, high: 1 },
  },
  { of: ["lemon-juice", "lemon-whole"], said: zested, becomes: "lemon-zest", keeps: all, weighedAs: "zest" },
  { of: ["orange", "orange-juice"], said: zested, becomes: "orange-zest", keeps: all, weighedAs: "zest" },
  { of: ["lime-juice"], said: zested, becomes: "lime-zest", keeps: all, weighedAs: "zest" },
  { of: ["orange"], said: /\bjuiced?\b(?!.*\bin juice)/i, becomes: "orange-juice", keeps: all, weighedAs: "juice" },
  { of: ["apple"], said: juiced, becomes: "apple-juice", keeps: { low: 0.5, mid: 0.62, high: 0.72 } },
  { of: ["pear"], said: juiced, becomes: "pear-juice", keeps: { low: 0.46, mid: 0.58, high: 0.68 } },
  { of: ["carrot"], said: juiced, becomes: "carrot-juice", keeps: { low: 0.42, mid: 0.52, high: 0.62 } },
  {
    of: ["ginger-ground"],
    said: /\b(?:fresh(?:ly)?|grated|minced|peeled|chopped|root|thumb|knob|inch|cm)\b(?!.*\b(?:ground|dried)\b)/i,
    becomes: "ginger-fresh",
    keeps: all,
    weighedAs: "piece",
  },
  { of: ["egg"], said: /\bwhites? only\b/i, becomes: "egg-white", keeps: all, weighedAs: "piece" },
  { of: ["egg"], said: /\byolks? only\b/i, becomes: "egg-yolk", keeps: all, weighedAs: "piece" },
];

/** The ingredient that a preparation makes, with the share of the mass that stays; null where it stays what it is. */
export function preparedAs(ingredientId: string, said: string): { ingredientId: string; keeps: Range; weighedAs?: string } | null {
  const found = preparations.find((each) => each.of.includes(ingredientId) && each.said.test(said));
  if (!found) return null;
  const { becomes, keeps, weighedAs } = found;
  return { ingredientId: becomes, keeps, ...(weighedAs === undefined ? {} : { weighedAs }) };
}

/** The share of a can that is left when it is drained, by what is in it. */
const drainedShare: Record<string, Range> = {
  sweetcorn: { low: 0.75, mid: 0.83, high: 0.9 },
  olives: { low: 0.45, mid: 0.52, high: 0.6 },
};
const usualDrained: Range = { low: 0.54, mid: 0.6, high: 0.68 };

/** Whose can in the pantry is what it holds when it is drained. */
const cannedDry = new Set(["cooked-beans"]);

export const drained = (ingredientId: string, byCount = false): Range =>
  byCount && cannedDry.has(ingredientId) ? exactly(1) : (drainedShare[ingredientId] ?? usualDrained);
