import type { Item } from "../formula/resolve";
import { mainLiquid } from "../body/next-class";
import { SODA_MMOL_PER_G } from "../lift/acids";
import { sodaPerGram } from "../lift/charge";
import { acidPerGram } from "../lift/ledger";
import { gramsText, measurable } from "../measure/amounts";
import type { Measures } from "../measure/units";
import { builtInShelf } from "../pantry/catalogue";
import { ingredientOf } from "../pantry/shelf";
import type { Ingredient } from "../pantry/ingredient-schema";
import { findingLimits as limits } from "./finding";
import { floored, massIn, powderOf, shortName, sodaSpoon, spoonsOf } from "./remedy-words";
import { type Again, holds, leastThat, type Way, withMass } from "./ways";

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
export function excessWays(items: readonly Item[], base: number, excess: number, measures: Measures, again: Again): Way[] {
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
  again: Again,
  may: (ingredient: Ingredient) => boolean = () => true,
): Way[] {
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
  const left = first
    ? floored(Math.max(0, most(limits.powderUsual) - inBlends - others.reduce((g, item) => g + item.massG, 0)))
    : 0;
  const less = first && first.massG > left ? withMass(items, first.ingredient, left) : null;
  const ways: Way[] = [];
  const sodaG = most(limits.sodaUsual);
  const drop = soda && soda.massG > most(limits.sodaHigh);
  if (drop)
    ways.push({
      say: `drop the soda to ${sodaSpoon(sodaG, measures)}, which is ${limits.sodaUsual} %`,
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
export function colourWays(items: readonly Item[], measures: Measures, again: Again): Way[] {
  const soda = items.find((item) => item.ingredient.id === "soda");
  if (!soda) return [];
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
