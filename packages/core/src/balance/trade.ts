import type { Item } from "../formula/resolve";
import { sodaPerGram } from "../lift/charge";
import { acidPerGram } from "../lift/ledger";
import { binderPerGram } from "../body/binder";
import type { Ingredient } from "../pantry/ingredient-schema";
import trades from "./data/trades.json";

/** What stands for what, and by which measure: the trade's rule, before any arithmetic. */
interface Trade {
  of: string[];
  by: string[];
  /** Mass by a ratio; the same fat, sugars, acid, binder; the gas it gave; or what the kind usually has. */
  basis: "mass" | "dry" | "fat" | "sugars" | "gas" | "acid" | "binder" | "kind";
  ratio?: number;
  lost?: string[];
}

const table = trades as (Trade & { source: string; confidence: string })[];

const names = ({ id, family }: Ingredient): string[] => [id, family];

/** Foods of these families are one food at another water: milks, fruit, egg and vegetables, fresh, dried and as powder. */
const KIN: readonly (readonly Ingredient["family"][])[] = [
  ["dairy", "cultured", "plant-milk"],
  ["fruit", "dried-fruit"],
  ["egg"],
  ["vegetable"],
];
/** g of water in 100 g up to which a food is a dried or powdered one, and from which it is a fresh one. */
const DRIED = 35;
const FRESH = 45;

/** A milk that is boiled down has so many times the solids beside its fat. */
const CONCENTRATED = 1.7;
/** A juice with so many times the acid of another is a souring, not a drink. */
const SOURER = 3;

const apart = (a: number, b: number): number => Math.max(a, b) / Math.max(0.01, Math.min(a, b));
const dry = ({ per100g: { water } }: Ingredient): number => 100 - water;
/** Cream is no milk boiled down: what is beside its fat is as in milk. */
const besideFat = (one: Ingredient): number => dry(one) - one.per100g.fat;
const isBoiledDown = (a: Ingredient, b: Ingredient): boolean =>
  apart(besideFat(a), besideFat(b)) >= CONCENTRATED && apart(dry(a), dry(b)) < 1.5 * apart(besideFat(a), besideFat(b));

/** Whether one is the dried, powdered or concentrated form of the other. */
const isOtherWater = (a: Ingredient, b: Ingredient): boolean =>
  (KIN.some((kin) => kin.includes(a.family) && kin.includes(b.family)) &&
    Math.min(a.per100g.water, b.per100g.water) <= DRIED &&
    Math.max(a.per100g.water, b.per100g.water) >= FRESH) ||
  (a.family === "dairy" && b.family === "dairy" && isBoiledDown(a, b));

/** Juices of which one is sour and the other is drunk: what matters of the sour one is its acid. */
const isOtherAcid = (a: Ingredient, b: Ingredient): boolean =>
  a.family === "juice" && b.family === "juice" && apart(acidPerGram(a), acidPerGram(b)) >= SOURER;

/** Grams of a gum, or of what is bought in place of egg, stand for what they bind. */
const binds = (one: Ingredient): boolean => (one.family === "binder" || one.family === "egg-substitute") && binderPerGram(one) > 0;

/**
 * The rule that is most of all about these two: ids before families. Where there is none, the rule for the way back, turned round; forms of one food by
 * their dry matter; a binder by what it binds; else same kind for same kind, gram for gram.
 */
export function tradeOf(of: Ingredient, by: Ingredient): Trade {
  const there = ruleOf(of, by);
  if (there) return there;
  const back = ruleOf(by, of);
  if (back?.basis === "mass" && back.ratio !== undefined && back.ratio > 0) return { of: [of.id], by: [by.id], basis: "mass", ratio: 1 / back.ratio };
  if (isOtherWater(of, by)) return { of: [of.id], by: [by.id], basis: "dry" };
  if (isOtherAcid(of, by)) return { of: [of.id], by: [by.id], basis: "acid" };
  if ((binds(of) || binds(by)) && binderPerGram(of) > 0 && binderPerGram(by) > 0) return { of: [of.id], by: [by.id], basis: "binder" };
  return { of: [of.id], by: [by.id], basis: "mass", ratio: 1 };
} // prettier-ignore

function ruleOf(of: Ingredient, by: Ingredient): Trade | null {
  let best: { trade: Trade; rank: number } | null = null;
  for (const trade of table) {
    const a = names(of).findIndex((name) => trade.of.includes(name));
    const b = names(by).findIndex((name) => trade.by.includes(name));
    if (a < 0 || b < 0) continue;
    const rank = a + b;
    if (!best || rank < best.rank) best = { trade, rank };
  }
  return best?.trade ?? null;
}

/** Fats whose fat differs by less than this share are weighed alike. */
const ALIKE = 0.06;

/** What a trade needs to know of the batter: mmol of soda and of acid that is not a powder's own, and the gas of the kind, mmol. */
export interface TradeContext {
  freeAcidMmol: number;
  kindMmol: number;
}

/** g of `by` for so many g of `of`, by the trade's rule. */
export function tradedGrams(of: Ingredient, grams: number, by: Ingredient, context: TradeContext): number {
  const { basis, ratio = 1 } = tradeOf(of, by);
  const same = (per: (i: Ingredient) => number): number => {
    const [a, b] = [per(of), per(by)];
    return b > 0 ? (grams * a) / b : grams;
  };
  switch (basis) {
    case "mass":
      return grams * ratio;
    case "dry":
      return same(dry);
    case "fat": {
      const [a, b] = [of.per100g.fat, by.per100g.fat];
      return Math.abs(a - b) <= ALIKE * Math.max(a, b) ? grams : same((i) => i.per100g.fat);
    }
    case "sugars":
      return ratio * same((i) => i.per100g.sugars);
    case "acid":
      return same(acidPerGram);
    case "binder":
      return same(binderPerGram);
    case "kind":
      return context.kindMmol / sodaPerGram(by);
    case "gas": {
      const mmol = grams * sodaPerGram(of);
      // Soda gives what its acids let it; most of it counts all the same, since some acid comes late.
      const given = of.id === "soda" ? Math.max(SODA_COUNTS * mmol, Math.min(mmol, context.freeAcidMmol)) : mmol;
      return given / sodaPerGram(by);
    }
  }
}

const SODA_COUNTS = 0.75;

/** mmol of acid in a batter that is not inside a baking powder. */
export const freeAcid = (items: readonly Item[]): number =>
  items.reduce((all, { ingredient, massG }) => (ingredient.leavening?.powder ? all : all + massG * acidPerGram(ingredient)), 0);
