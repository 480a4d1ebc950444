import type { Item } from "../formula/resolve";
import type { Ingredient } from "../pantry/ingredient";
import { type Range, product, range, scaled, sum, within } from "../measure/range";
import { leaveningAcids, mmolPerGram } from "./acids";
import { acidFractions, givenUp, titrationOf, type Titration } from "./charge";

/** Where a ledger's titration ends: the pH of a mild crumb. */
export const LEDGER_PH = 7.5;

/** How far the soda of a powder is known: makers differ, old tins are weaker. */
const POWDER_SPREAD = 0.08;

export interface LedgerEntry {
  ingredientId: string;
  /** mmol of bicarbonate it brings. */
  soda: Range;
  /** mmol of acid it gives up on the way to pH 7.5, leavening acids by their neutralising value; negative if alkaline. */
  acid: Range;
  /** The part of `acid` that is dissolved already and reacts at once. */
  dissolved: number;
}

export interface Ledger {
  entries: LedgerEntry[];
  soda: Range;
  acid: Range;
  /** Acid over soda; 0 where there is no soda. */
  neutralised: Range;
  /** Soda that finds no acid, mmol and g. */
  residualMmol: number;
  residualSodaG: number;
}

const plus = (r: Range): Range => ({ low: Math.min(r.low, r.high), mid: r.mid, high: Math.max(r.low, r.high) });

/** Who brings soda and who brings acid, by ingredient, in mmol per batch. */
export function ledgerOf(items: readonly Item[]): Ledger {
  const entries: LedgerEntry[] = [];
  for (const item of items) {
    const entry = entryOf(item);
    if (entry.soda.mid !== 0 || Math.abs(entry.acid.mid) > 1e-9) entries.push(entry);
  }
  const soda = sum(entries.map((entry) => entry.soda));
  const acid = sum(entries.map((entry) => entry.acid));
  const residualMmol = Math.max(0, soda.mid - Math.max(0, acid.mid));
  return { entries, soda, acid, neutralised: ratio(acid, soda), residualMmol, residualSodaG: residualMmol * 0.084007 };
}

/** mmol of acid that a gram brings to the ledger: dissolved to pH 7.5, crystals by neutralising value. */
export const acidPerGram = (ingredient: Ingredient): number =>
  dissolvedGivenUp(titrationOf(ingredient)) +
  acidFractions(ingredient).reduce((all, [id, fraction]) => all + fraction * mmolPerGram(leaveningAcids[id]), 0);

function entryOf(item: Item): LedgerEntry {
  const { ingredient, grams } = item;
  const t = titrationOf(ingredient);
  const isPowder = ingredient.leavening?.powder !== undefined;
  const soda =
    t.soda === 0 ? range(0, 0, 0) : product(grams, isPowder ? within(t.soda, POWDER_SPREAD) : range(t.soda, t.soda, t.soda));
  const dissolvedPerG = dissolvedGivenUp(t);
  const dissolved = plus(product(grams, plus(range(dissolvedPerG * t.spread.low, dissolvedPerG, dissolvedPerG * t.spread.high))));
  const crystals = acidFractions(ingredient).map(([id, fraction]) => {
    const acid = leaveningAcids[id];
    return range(
      fraction * mmolPerGram(acid, acid.neutralisingValue.low),
      fraction * mmolPerGram(acid),
      fraction * mmolPerGram(acid, acid.neutralisingValue.high),
    );
  });
  const crystalAcid =
    crystals.length === 0
      ? range(0, 0, 0)
      : product(grams, isPowder ? product(sum(crystals), within(1, POWDER_SPREAD)) : sum(crystals));
  return { ingredientId: ingredient.id, soda, acid: sum([dissolved, crystalAcid]), dissolved: dissolved.mid };
}

/** mmol per gram that the dissolved part gives up between its own pH and 7.5; crystals are counted by neutralising value. */
const dissolvedGivenUp = (t: Titration): number => givenUp({ ...t, crystals: [] }, LEDGER_PH);

/** Less soda than this, mmol, is none. */
const TRACE_MMOL = 1e-6;

function ratio(acid: Range, soda: Range): Range {
  if (soda.mid < TRACE_MMOL) return range(0, 0, 0);
  const mid = Math.max(0, acid.mid) / soda.mid;
  if (mid === 0) return range(0, 0, Math.max(0, acid.high) / soda.mid);
  const sodaShare = (soda.high - soda.mid) / soda.mid;
  return {
    low: Math.max(0, mid * (1 - Math.hypot((acid.mid - acid.low) / acid.mid, sodaShare))),
    mid,
    high: mid * (1 + Math.hypot((acid.high - acid.mid) / acid.mid, sodaShare)),
  };
}

export const perHundred = (value: Range, massG: number): Range => scaled(value, massG > 0 ? 100 / massG : 0);
