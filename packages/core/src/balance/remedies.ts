import type { Body } from "../body/body";
import { gumIn } from "../body/binder";
import type { Consistency } from "../body/consistency";
import { liquidFor, mainLiquid } from "../body/next-class";
import type { Kind } from "../formula/kinds";
import type { Process } from "../formula/process-schema";
import { crumbOf, type Item, totalOf } from "../formula/resolve";
import type { LiftParts } from "../lift/lift";
import { gramsText, measurable } from "../measure/amounts";
import type { Measures } from "../measure/units";
import { builtInShelf } from "../pantry/catalogue";
import { ingredientOf } from "../pantry/shelf";
import { addedFatPerGram, addedSugarPerGram } from "../pantry/crumb";
import type { Ingredient } from "../pantry/ingredient-schema";
import { consistencyAgainst, profileOf, saltPerGram } from "./bands";
import type { FindingId } from "./finding";
import {
  colourWays,
  doubledWays,
  excessWays,
  liftWays,
  powderHighWays,
  sodaAndAcidWays,
  sourWays,
  unmetWays,
} from "./remedies-leavening";
import { floored, massIn, shortName, spoonsOf } from "./remedy-words";
import { type Again, type Way, withMass } from "./ways";

/** What a batter can have too much of, what of it a gram of a food brings, and the foods that are taken less of for it. */
export type Trimmed = "sugarPercent" | "fatPercent" | "saltPercent";
export const trimmed: Record<Trimmed, { of: (ingredient: Ingredient) => number; family: readonly Ingredient["family"][] }> = {
  sugarPercent: { of: addedSugarPerGram, family: ["sugar", "syrup"] },
  fatPercent: { of: addedFatPerGram, family: ["fat"] },
  saltPercent: { of: saltPerGram, family: ["salt"] },
};

/** Ways to bring added sugar, fat or salt down to so many grams: the richest line first, then every one alike. */
export function trimWays(items: readonly Item[], name: Trimmed, mostG: number): Way[] {
  const { of, family } = trimmed[name];
  const brings = (item: Item): number => item.massG * of(item.ingredient);
  const now = items.reduce((g, item) => g + brings(item), 0);
  const lines = items
    .filter((item) => family.includes(item.ingredient.family) && brings(item) > 0)
    .sort((a, b) => brings(b) - brings(a));
  const [richest] = lines;
  if (!richest) return [];
  const left = floored(0.995 * (richest.massG - (now - mostG) / of(richest.ingredient)));
  const ways: Way[] = [];
  const rounded = left > 20 ? Math.floor(left) : left;
  if (left > 0)
    ways.push({
      say: `drop the ${shortName(richest.ingredient)} to ${gramsText(rounded)}`,
      items: withMass(items, richest.ingredient, rounded),
    });
  const all = lines.reduce((g, item) => g + brings(item), 0);
  const share = (all - (now - mostG)) / all;
  if (lines.length > 1 && share > 0)
    ways.push({
      say: lines
        .map((item) => `drop the ${shortName(item.ingredient)} to ${gramsText(floored(0.99 * share * item.massG))}`)
        .join(" and "),
      items: lines.reduce((next, item) => withMass(next, item.ingredient, floored(0.99 * share * item.massG)), [...items]),
    });
  return ways;
}

/** How much of the main liquid to add or hold back for a word that the kind may have; computed, not guessed. `usual`: the most usual word first. */
export function liquidWays(items: readonly Item[], kind: Kind, process: Process, side: -1 | 1, usual = false): Way[] {
  const { consistencies: wanted, bands } = profileOf(kind);
  const water = ingredientOf(builtInShelf, "water");
  const towards = (fits: (word: Consistency) => boolean): { ingredient: Ingredient; fromG: number; toG: number } | null =>
    liquidFor(items, water, process, side < 0 ? "less" : "more", fits);
  const found = [
    ...(usual ? [towards((word) => word === wanted[0])] : []),
    towards((word) => consistencyAgainst(word, kind) === 0),
    ...(side > 0 ? [toBand(items, bands.waterPercent.low)] : []),
  ];
  return found.flatMap((change): Way[] => {
    if (!change || change.toG === change.fromG) return [];
    const { ingredient, fromG, toG } = change;
    const name = shortName(ingredient);
    const difference = gramsText(Math.abs(toG - fromG));
    return [
      {
        say: toG < fromG ? `hold back ${difference} of the ${name}` : `add ${difference} of ${name}`,
        items: withMass(items, ingredient, toG),
      },
    ];
  });
}

/** The main liquid raised until the water of the whole reaches a percentage of what builds the crumb. */
function toBand(items: readonly Item[], percent: number): { ingredient: Ingredient; fromG: number; toG: number } | null {
  const ingredient = mainLiquid(items)?.ingredient ?? ingredientOf(builtInShelf, "water");
  const missing = (1.05 * percent * crumbOf(items)) / 100 - totalOf(items, "water");
  if (missing <= 0) return null;
  const fromG = massIn(items, ingredient.id);
  return { ingredient, fromG, toG: fromG + measurable(missing / (ingredient.per100g.water / 100)) };
}

/** Binders that do the work of so many grams of xanthan, each with what it drinks left to the batter. */
export function binderWays(items: readonly Item[], xanthanG: number): Way[] {
  return (
    [
      ["xanthan", 1],
      ["psyllium-husk", 5],
      ["ground-flax", 12],
      ["guar", 1.2],
      ["chia", 12],
    ] as const
  ).map(([id, times]) => {
    const ingredient = ingredientOf(builtInShelf, id);
    const grams = measurable(xanthanG * times);
    return {
      say: `add ${spoonsOf(grams, ingredient, "metric")} of ${shortName(ingredient)}`,
      items: withMass(items, ingredient, massIn(items, id) + grams),
    };
  });
}

/** A blend that binds already: the gum that was added goes. */
export function gumWays(items: readonly Item[]): Way[] {
  const added = items.filter((item) => item.ingredient.family === "binder");
  if (added.length === 0) return [];
  return [
    {
      say: `leave the ${added.map((item) => shortName(item.ingredient)).join(" and the ")} out`,
      items: added.reduce((all, item) => withMass(all, item.ingredient, 0), [...items]),
    },
  ];
}

/** The gums brought to the middle of what is wanted, % on so many g of flour, to what a scale of tenths shows. */
export function lessGumWays(items: readonly Item[], wanted: { low: number; high: number }, flour: number): Way[] {
  const share = ((wanted.low + wanted.high) / 200) * (flour / Math.max(1e-9, gumIn(items)));
  const added = items.filter((item) => item.ingredient.family === "binder");
  const to = (item: Item): number => Math.round(10 * share * item.massG) / 10;
  if (added.every((item) => to(item) === 0)) return gumWays(items);
  return [
    {
      say: `take ${added.map((item) => `${gramsText(to(item))} of ${shortName(item.ingredient)}`).join(" and ")}`,
      items: added.reduce((all, item) => withMass(all, item.ingredient, to(item)), [...items]),
    },
  ];
}

/** What a way out is looked for in. */
export interface Situation {
  items: readonly Item[];
  kind: Kind;
  process: Process;
  measures: Measures;
  lift: LiftParts;
  body: Body;
  again: Again;
  /** What may be added; without it anything may. */
  may?: ((ingredient: Ingredient) => boolean) | undefined;
}

/** Every way out of a finding that is known, proven or not, in the order in which a baker would try them. */
export function waysOut(id: FindingId, { items, kind, process, measures, lift: { ledger }, body, again, may }: Situation): Way[] {
  const base = crumbOf(items);
  const { bands, binderPercent } = profileOf(kind);
  switch (id) {
    case "soda-unmet":
      return [
        ...unmetWays(items, base, ledger.residualSodaG, ledger.residualMmol, measures),
        ...sourWays(items, base, ledger.residualMmol, measures),
      ];
    case "acid-excess":
      return excessWays(items, base, ledger.acid.mid - ledger.soda.mid, measures, again);
    case "powder-high":
      return powderHighWays(items, base, measures);
    case "leavening-counted-twice":
      return doubledWays(items, base);
    case "lift-low": {
      const powder = liftWays(items, base, measures, again, may);
      return powder.length > 0 ? powder : sodaAndAcidWays(items, base, measures, ledger.acid.mid - ledger.soda.mid, again, may);
    }
    case "no-binder": {
      const middle = (binderPercent.low + binderPercent.high) / 2;
      return binderWays(items, measurable(((middle - body.binder.percent) / 100) * base));
    }
    case "binder-doubled":
      return gumWays(items);
    case "binder-high":
      return lessGumWays(items, binderPercent, base);
    case "too-wet":
    case "too-dry":
      return liquidWays(items, kind, process, id === "too-wet" ? -1 : 1, true);
    case "sugar-high":
      return trimWays(items, "sugarPercent", (bands.sugarPercent.high / 100) * base);
    case "fat-high":
      return trimWays(items, "fatPercent", (bands.fatPercent.high / 100) * base);
    case "salt-high":
      return trimWays(items, "saltPercent", (bands.saltPercent.high / 100) * base);
    case "colour-shift":
      return colourWays(items, measures, again);
    default:
      return [];
  }
}
