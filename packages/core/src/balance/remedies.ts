import type { Kind } from "../formula/kinds";
import type { Process } from "../formula/process";
import { crumbOf, type Item, totalOf } from "../formula/resolve";
import type { Body } from "../body/body";
import type { Consistency } from "../body/consistency";
import { liquidFor, mainLiquid } from "../body/next-class";
import { SODA_MMOL_PER_G } from "../lift/acids";
import { sodaPerGram } from "../lift/charge";
import { acidPerGram } from "../lift/ledger";
import type { LiftParts } from "../lift/lift";
import { gramsText, householdText, measurable } from "../measure/amounts";
import type { Measures } from "../measure/units";
import { builtInShelf, ingredientOf } from "../pantry/catalogue";
import { addedFatPerGram, addedSugarPerGram } from "../pantry/crumb";
import type { Ingredient } from "../pantry/ingredient";
import { type BandName, consistencyAgainst, profileOf } from "./bands";
import { type FindingId, findingLimits as limits } from "./finding";
import { type Again, holds, leastThat, type Way, withMass } from "./ways";

export const sodaSpoon = (grams: number, measures: Measures): string => {
  const spoons = householdText(grams, ingredientOf(builtInShelf, "soda"), measures);
  return spoons === "" ? gramsText(grams) : `${gramsText(grams)} (${spoons})`;
};

export const powderOf = (items: readonly Item[]): Ingredient =>
  items.find((item) => item.ingredient.family === "leavener" && item.ingredient.leavening?.powder)?.ingredient ??
  ingredientOf(builtInShelf, "powder-aluminium-free");
/** A name as one says it: “baking powder”, not the sort behind the comma. */
export const shortName = ({ name }: Ingredient): string => (name.split(",")[0] ?? name).toLowerCase();
export const massIn = (items: readonly Item[], id: string): number => items.find((item) => item.ingredient.id === id)?.massG ?? 0;
export const spoonsOf = (grams: number, ingredient: Ingredient, measures: Measures): string => {
  const spoons = householdText(grams, ingredient, measures);
  return spoons === "" ? gramsText(grams) : `${gramsText(grams)} (${spoons})`;
};
/** Rounded down to what a scale shows, so that a limit is kept. */
export const floored = (grams: number): number => Math.floor(grams * 10 + 1e-6) / 10;
/** No more vinegar or lemon than this is eaten: about a tablespoon a cup of flour, as a share of the flour. */
const MOST_SOUR = 0.12;

/** Ways out of soda without acid: less soda with powder for the lift, the milk soured, a little vinegar. */
export function unmetWays(
  items: readonly Item[],
  base: number,
  residualG: number,
  residualMmol: number,
  measures: Measures,
): Way[] {
  const sodaItem = items.find((item) => item.ingredient.id === "soda");
  const powder = powderOf(items);
  const ways: Way[] = [];
  const after = (sodaG: number, powderG: number): Item[] => {
    const less = sodaItem ? withMass(items, sodaItem.ingredient, sodaG) : [...items];
    return powderG > 0 ? withMass(less, powder, massIn(items, powder.id) + powderG) : less;
  };
  if (sodaItem) {
    const left = floored(Math.max(0, sodaItem.massG - residualG));
    const whole = residualMmol / sodaPerGram(powder);
    const room = floored(Math.max(0, (0.97 * limits.powderHigh * base) / 100 - massIn(items, powder.id)));
    const drop = left >= LEAST_SODA ? `drop the soda to ${sodaSpoon(left, measures)}` : "leave the soda out";
    // Half of the soda's gas is what its acid would have let it give; more where the lift would be missed.
    for (const more of [0.5, 0.75, 1, 0].map((share) => Math.min(measurable(share * whole), room)))
      ways.push({
        say: more > 0 ? `${drop} and add ${spoonsOf(more, powder, measures)} of baking powder` : drop,
        items: after(left >= LEAST_SODA ? left : 0, more),
      });
    // Powder alone, for as much gas as the soda would have given with acid for most of it.
    const alone = Math.min(room, measurable((SODA_GAVE * sodaItem.massG * sodaPerGram(sodaItem.ingredient)) / sodaPerGram(powder)));
    if (alone > 0)
      ways.push({
        say: `leave the soda out and add ${spoonsOf(alone, powder, measures)} of baking powder`,
        items: after(0, alone),
      });
    // A little less still, where rounding left some.
    ways.push({ say: `drop the soda to ${sodaSpoon(floored(0.85 * left), measures)}`, items: after(floored(0.85 * left), 0) });
  }
  const milk = items.find(
    (item) => (item.ingredient.family === "dairy" || item.ingredient.family === "plant-milk") && item.ingredient.per100g.water > 80,
  );
  const buttermilk = ingredientOf(builtInShelf, "buttermilk");
  const sour = measurable(residualMmol / BUTTERMILK_MMOL);
  if (milk && milk.massG >= sour)
    ways.push({
      say: `swap ${gramsText(sour)} of the ${shortName(milk.ingredient)} for buttermilk`,
      items: withMass(withMass(items, milk.ingredient, milk.massG - sour), buttermilk, massIn(items, buttermilk.id) + sour),
    });
  const vinegar = ingredientOf(builtInShelf, "vinegar");
  const drops = measurable(residualMmol / VINEGAR_MMOL);
  if (drops <= MOST_SOUR * base - massIn(items, vinegar.id))
    ways.push({
      say: `stir in ${gramsText(drops)} of 5 % vinegar and hold back as much liquid`,
      items: withMass(
        milk ? withMass(items, milk.ingredient, milk.massG - drops) : items,
        vinegar,
        massIn(items, vinegar.id) + drops,
      ),
    });
  return ways;
}

const SODA_GAVE = 0.75;
/** mmol of acid in a gram until the crumb is mild. */
const BUTTERMILK_MMOL = 0.088;
const VINEGAR_MMOL = 0.83;
/** Less soda than this is no spoon of anything, g: an eighth of a teaspoon. */
const LEAST_SODA = 0.5;

/** Ways out of acid without soda: first the dry acid that was put in on purpose, then the sour drops, then soda up to its habit. */
export function excessWays(
  items: readonly Item[],
  base: number,
  excess: number,
  measures: Measures,
  again: Again | undefined,
): Way[] {
  if (!again) return [];
  const ways: Way[] = [];
  const good = (next: readonly Item[]): boolean => holds("acid-excess", { items: next }, again);
  const sours = items
    .filter(
      ({ ingredient }) => ingredient.family === "acid" || ingredient.family === "vinegar" || ingredient.id.endsWith("lemon-juice"),
    )
    .sort((a, b) => (a.ingredient.family === "acid" ? -1 : 0) - (b.ingredient.family === "acid" ? -1 : 0));
  for (const { ingredient, massG } of sours) {
    const less = leastThat(0, massG, (by) => good(withMass(items, ingredient, massG - by)));
    if (less === null) continue;
    const left = floored(massG - less);
    const name = shortName(ingredient);
    ways.push(
      left < (ingredient.family === "acid" ? 0.5 : 2)
        ? { say: `leave the ${name} out`, items: withMass(items, ingredient, 0) }
        : { say: `drop the ${name} to ${spoonsOf(left, ingredient, measures)}`, items: withMass(items, ingredient, left) },
    );
  }
  const soda = ingredientOf(builtInShelf, "soda");
  const there = massIn(items, "soda");
  const most = Math.min(excess / SODA_MMOL_PER_G, (0.97 * limits.sodaHigh * base) / 100 - there);
  const more = most > 0 ? leastThat(0, most, (by) => good(withMass(items, soda, there + by))) : null;
  if (more !== null && more >= LEAST_SODA) {
    const grams = Math.ceil(more * 10) / 10;
    ways.push({ say: `add ${sodaSpoon(grams, measures)} of soda for a mild crumb`, items: withMass(items, soda, there + grams) });
  }
  return ways;
}

const INSIDE = 1.12;

/** Powders that may be at hand, the one that stands in the formula first. */
const powdersFor = (items: readonly Item[]): Ingredient[] => {
  const first = powderOf(items);
  const rest = ["powder-aluminium-free", "powder-double-acting", "powder-phosphate", "powder-single-acting"];
  return [first, ...rest.filter((id) => id !== first.id).map((id) => ingredientOf(builtInShelf, id))];
};

/** The powder that brings the gas of the kind: of the sort that is there, as much as is needed and no more than is usual. */
export function liftWays(
  items: readonly Item[],
  base: number,
  measures: Measures,
  again: Again | undefined,
  may: (ingredient: Ingredient) => boolean = () => true,
): Way[] {
  if (!again) return [];
  return powdersFor(items)
    .filter(may)
    .slice(0, 1)
    .flatMap((powder): Way[] => {
      const there = massIn(items, powder.id);
      const room = floored((0.97 * limits.powderHigh * base) / 100 - there);
      if (room <= 0) return [];
      const enough = (by: number): boolean =>
        !again({ items: withMass(items, powder, there + by) }).some(({ id }) => id === "lift-low");
      const least = leastThat(0, room, enough);
      if (least === null) return [];
      // Not to the very edge of what is usual: spoons and powders are not that exact.
      const more = Math.min(room, least * INSIDE);
      const grams = Math.min(room, measurable(more) < more ? measurable(more) + 0.5 : measurable(more));
      return [
        { say: `add ${spoonsOf(grams, powder, measures)} of ${shortName(powder)}`, items: withMass(items, powder, there + grams) },
      ];
    });
}

/** Ways to bring added sugar or fat down to so many grams: the richest line first, then every one alike. */
export function trimWays(items: readonly Item[], name: "sugarPercent" | "fatPercent" | BandName, mostG: number): Way[] {
  const of = name === "sugarPercent" ? addedSugarPerGram : addedFatPerGram;
  const brings = (item: Item): number => item.massG * of(item.ingredient);
  const now = items.reduce((g, item) => g + brings(item), 0);
  const family = name === "sugarPercent" ? ["sugar", "syrup"] : ["fat"];
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

/** Ways to bring powder and soda down to their habit. */
export function powderHighWays(items: readonly Item[], base: number, measures: Measures): Way[] {
  const most = (percent: number): number => floored((0.995 * percent * base) / 100);
  const soda = items.find((item) => item.ingredient.id === "soda");
  const powders = items.filter((item) => item.ingredient.leavening?.powder && (item.ingredient.leavening.share ?? 1) === 1);
  const inBlends = items.reduce((g, { ingredient, massG }) => {
    const { powder, share = 1 } = ingredient.leavening ?? {};
    return g + (powder && share < 1 ? massG * share : 0);
  }, 0);
  const [first, ...others] = powders;
  const left = first ? floored(Math.max(0, most(limits.powderHigh) - inBlends - others.reduce((g, item) => g + item.massG, 0))) : 0;
  const less = first && first.massG > left ? withMass(items, first.ingredient, left) : null;
  const ways: Way[] = [];
  const sodaG = most(limits.sodaHigh);
  const drop = soda && soda.massG > sodaG;
  if (drop)
    ways.push({
      say: `drop the soda to ${sodaSpoon(sodaG, measures)}, which is ${limits.sodaHigh} %`,
      items: withMass(items, soda.ingredient, sodaG),
    });
  if (first && less)
    ways.push({
      say:
        left < LEAST_SODA
          ? `leave the ${shortName(first.ingredient)} out`
          : `use ${spoonsOf(left, first.ingredient, measures)} of ${shortName(first.ingredient)} instead of ${gramsText(first.massG)}`,
      items: left < LEAST_SODA ? withMass(items, first.ingredient, 0) : less,
    });
  if (drop && first && less)
    ways.push({
      say: `drop the soda to ${sodaSpoon(sodaG, measures)} and the ${shortName(first.ingredient)} to ${gramsText(left)}`,
      items: withMass(less, soda.ingredient, sodaG),
    });
  return ways;
}

/** A blend that is leavened already: what was added beside it goes, or comes down to what is missing. */
export function doubledWays(items: readonly Item[], base: number): Way[] {
  const held = items.reduce((g, { ingredient, massG }) => {
    const { powder, share = 1 } = ingredient.leavening ?? {};
    return g + (powder && share < 1 ? massG * share : 0);
  }, 0);
  const added = items.filter(
    ({ ingredient }) => ingredient.id === "soda" || (ingredient.leavening?.powder && (ingredient.leavening.share ?? 1) === 1),
  );
  if (added.length === 0) return [];
  return [
    {
      say: `leave the ${added.map((item) => shortName(item.ingredient)).join(" and the ")} out; the blend alone is ${((100 * held) / base).toFixed(1)} % powder`,
      items: added.reduce((all, item) => withMass(all, item.ingredient, 0), [...items]),
    },
  ];
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

/** Soda with an acid of its own, where no powder is to be had: as much gas as is wanted, all of it met. */
export function sodaAndAcidWays(
  items: readonly Item[],
  base: number,
  measures: Measures,
  spareAcid: number,
  again: Again,
  may: (ingredient: Ingredient) => boolean = () => true,
): Way[] {
  const soda = ingredientOf(builtInShelf, "soda");
  const there = massIn(items, "soda");
  const room = (0.97 * limits.sodaHigh * base) / 100 - there;
  if (room <= LEAST_SODA) return [];
  return ["cream-of-tartar", "lemon-juice", "vinegar"].flatMap((id): Way[] => {
    const acid = ingredientOf(builtInShelf, id);
    if (!may(acid)) return [];
    const perGram = acidPerGram(acid);
    const wet = acid.per100g.water > 50;
    const with_ = (sodaG: number): Item[] => {
      const sourG = measurable(Math.max(0, sodaG * SODA_MMOL_PER_G * MEETS - Math.max(0, spareAcid)) / perGram);
      const next = withMass(withMass(items, soda, there + sodaG), acid, massIn(items, id) + sourG);
      const liquid = wet ? mainLiquid(items) : undefined;
      return liquid && liquid.massG > sourG ? withMass(next, liquid.ingredient, liquid.massG - sourG) : next;
    };
    const least = leastThat(0, room, (grams) => holds("lift-low", { items: with_(grams) }, again));
    if (least === null) return [];
    const grams = Math.ceil(least * 10) / 10;
    const next = with_(grams);
    return [
      {
        say: `add ${sodaSpoon(grams, measures)} of soda with ${spoonsOf(massIn(next, id) - massIn(items, id), acid, measures)} of ${shortName(acid)}`,
        items: next,
      },
    ];
  });
}

/** Acid for the soda, a little less than all of it, so that nothing is left sour. */
const MEETS = 0.95;

/** Dry and liquid acids for soda that must stay: all of what is unmet. */
export function sourWays(items: readonly Item[], base: number, residualMmol: number, measures: Measures): Way[] {
  return ["cream-of-tartar", "vinegar", "lemon-juice"].flatMap((id): Way[] => {
    const acid = ingredientOf(builtInShelf, id);
    const grams = measurable((MEETS * residualMmol) / acidPerGram(acid));
    if (grams < 0.5 || (acid.per100g.water > 50 && grams + massIn(items, id) > 2 * MOST_SOUR * base)) return [];
    const next = withMass(items, acid, massIn(items, id) + grams);
    const liquid = acid.per100g.water > 50 ? mainLiquid(items) : undefined;
    return [
      {
        say: `add ${spoonsOf(grams, acid, measures)} of ${shortName(acid)}`,
        items: liquid && liquid.massG > grams ? withMass(next, liquid.ingredient, liquid.massG - grams) : next,
      },
    ];
  });
}

/** Less soda until red fruit stays red and seeds stay brown. */
export function colourWays(items: readonly Item[], measures: Measures, again: Again | undefined): Way[] {
  const soda = items.find((item) => item.ingredient.id === "soda");
  if (!soda || !again) return [];
  const less = leastThat(0, soda.massG, (by) =>
    holds("colour-shift", { items: withMass(items, soda.ingredient, soda.massG - by) }, again),
  );
  if (less === null) return [];
  const left = floored(soda.massG - less);
  return [
    left < LEAST_SODA
      ? { say: "leave the soda out", items: withMass(items, soda.ingredient, 0) }
      : { say: `drop the soda to ${sodaSpoon(left, measures)}`, items: withMass(items, soda.ingredient, left) },
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
    case "too-wet":
    case "too-dry":
      return liquidWays(items, kind, process, id === "too-wet" ? -1 : 1, true);
    case "sugar-high":
      return trimWays(items, "sugarPercent", (bands.sugarPercent.high / 100) * base);
    case "fat-high":
      return trimWays(items, "fatPercent", (bands.fatPercent.high / 100) * base);
    case "colour-shift":
      return colourWays(items, measures, again);
    default:
      return [];
  }
}
