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
  basis: "mass" | "fat" | "sugars" | "gas" | "acid" | "binder" | "kind";
  ratio?: number;
  lost?: string[];
}

const table = trades as (Trade & { source: string; confidence: string })[];

const names = ({ id, family }: Ingredient): string[] => [id, family];

/** The rule that is most of all about these two: ids before families. Same kind for same kind, gram for gram, where there is none. */
export function tradeOf(of: Ingredient, by: Ingredient): Trade {
  let best: { trade: Trade; rank: number } | null = null;
  for (const trade of table) {
    const a = names(of).findIndex((name) => trade.of.includes(name));
    const b = names(by).findIndex((name) => trade.by.includes(name));
    if (a < 0 || b < 0) continue;
    const rank = a + b;
    if (!best || rank < best.rank) best = { trade, rank };
  }
  return best?.trade ?? { of: [of.id], by: [by.id], basis: "mass", ratio: 1 };
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
