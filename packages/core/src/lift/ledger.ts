import { asSodaG } from "./as-soda";
import type { Item } from "../formula/resolve";
import type { Ingredient } from "../pantry/ingredient-schema";
import { product, range, scaled, sum, within } from "../measure/range";
import type { Range } from "../measure/range-schema";
import { leaveningAcids, mmolPerGram } from "./acids";
import { acidFractions, givenUp, POWDER_SPREAD, titrationOf, type Titration } from "./charge";

/** Where a ledger's titration ends: the pH of a mild crumb. */
export const LEDGER_PH = 7.5;

export interface LedgerEntry {
  ingredientId: string;
  /** mmol of bicarbonate it brings. */
  soda: Range;
  /** mmol of acid it gives up on the way to pH 7.5, leavening acids by their neutralising value; negative if alkaline. */
  acid: Range;
  /** The part of `acid` that is dissolved already and reacts at once. */
  dissolved: number;
  /** What moves soda and acid together (mass, a powder's strength) and what moves the acid alone, as shares of themselves. */
  spread: { together: { low: number; high: number }[]; acid: { low: number; high: number } };
}

export interface Ledger {
  entries: LedgerEntry[];
  soda: Range;
  acid: Range;
  /** Acid over soda; 0 where there is no soda. */
  neutralised: Range;
  /** Soda that the batter's own buffers take up beyond that, hot, until it is as alkaline as a soda-led crumb gets; mmol. */
  reserve: number;
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
  const reserve = items.reduce((all, { ingredient, massG }) => all + massG * Math.max(0, reservePerGram(ingredient)), 0);
  return { entries, soda, acid, reserve, neutralised: ratio(entries), residualMmol, residualSodaG: asSodaG(residualMmol) };
}

/** pH to which a hot batter takes soda up by its buffers: protein, phosphate and starch of flour, egg and fruit. */
const RESERVE_PH = 8.6;

/** mmol of soda that a gram takes up between the ledger's pH and that of a soda-led crumb; crystals have given all by then. */
function reservePerGram(ingredient: Ingredient): number {
  const t = { ...titrationOf(ingredient), crystals: [] };
  return givenUp(t, RESERVE_PH) - givenUp(t, LEDGER_PH);
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
  const share = (r: Range): { low: number; high: number } =>
    r.mid === 0 ? { low: 0, high: 0 } : { low: 1 - r.low / r.mid, high: r.high / r.mid - 1 };
  const acid = sum([dissolved, crystalAcid]);
  const mid = dissolvedPerG + sum(crystals).mid;
  const strength = share(sum([range(dissolvedPerG * t.spread.low, dissolvedPerG, dissolvedPerG * t.spread.high), ...crystals]));
  return {
    ingredientId: ingredient.id,
    soda,
    acid,
    dissolved: dissolved.mid,
    spread: {
      together: [share(grams), ...(isPowder ? [{ low: POWDER_SPREAD, high: POWDER_SPREAD }] : [])],
      acid: mid === 0 ? { low: 0, high: 0 } : strength,
    },
  };
}

/** mmol per gram that the dissolved part gives up between its own pH and 7.5; crystals are counted by neutralising value. */
const dissolvedGivenUp = (t: Titration): number => givenUp({ ...t, crystals: [] }, LEDGER_PH);

/** Less soda than this, mmol, is none. */
const TRACE_MMOL = 1e-6;

/**
 * Acid over soda with its range: what is uncertain adds up in quadrature, and what moves an ingredient's soda and acid together (its mass, the
 * strength of a powder) moves the ratio only by as much as the two differ.
 */
function ratio(entries: readonly LedgerEntry[]): Range {
  const total = (of: "soda" | "acid"): number => entries.reduce((all, entry) => all + entry[of].mid, 0);
  const soda = total("soda");
  if (soda < TRACE_MMOL) return range(0, 0, 0);
  const mid = Math.max(0, total("acid")) / soda;
  let below = 0;
  let above = 0;
  const add = (effect: number, { low, high }: { low: number; high: number }): void => {
    const [down, up] = effect >= 0 ? [low, high] : [high, low];
    below += (effect * down) ** 2;
    above += (effect * up) ** 2;
  };
  for (const { soda: own, acid, spread } of entries) {
    for (const together of spread.together) add((acid.mid - mid * own.mid) / soda, together);
    add(acid.mid / soda, spread.acid);
  }
  return { low: Math.max(0, mid - Math.sqrt(below)), mid, high: mid + Math.sqrt(above) };
}

export const perHundred = (value: Range, massG: number): Range => scaled(value, massG > 0 ? 100 / massG : 0);
