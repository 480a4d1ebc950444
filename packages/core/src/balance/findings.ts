import type { Body } from "../body/body";
import { consistencyOf } from "../body/consistency";
import { liquidFor } from "../body/next-class";
import type { Kind } from "../formula/kinds";
import { kindName } from "../formula/kinds";
import type { Process } from "../formula/process";
import { crumbOf, type Item, massOf } from "../formula/resolve";
import { SODA_MMOL_PER_G } from "../lift/acids";
import { sodaPerGram } from "../lift/charge";
import { gramsText, householdText, measurable } from "../measure/amounts";
import type { Measures } from "../measure/units";
import { builtInShelf, ingredientOf } from "../pantry/catalogue";
import { addedFatPerGram, addedSugarPerGram } from "../pantry/crumb";
import { type Ingredient, isFlour } from "../pantry/ingredient";
import { type BandName, bandReadings, consistencyAgainst, offBy, profileOf } from "./bands";
import { type Finding, findingLimits as limits } from "./finding";
import type { Findable } from "./findable";
import type { OpenLine } from "../formula/components";
import { panFindings } from "./findings-pan";
import { type Again, fixOf, holds, leastThat, type Way, withMass } from "./ways";

const idsOf = (items: readonly Item[], test: (item: Item) => boolean): string[] =>
  items.filter(test).map((item) => item.ingredient.id);

/** Everything that deserves a word about a formula, the gravest first. */
export function findingsOf(read: Findable): Finding[] {
  // A line of nothing is not in the batter, whatever it would be.
  const given = { ...read, items: read.items.filter((item) => item.massG > 0) };
  const computed = [...liftFindings(given), ...binderFindings(given), ...bodyFindings(given), ...panFindings(given)];
  const open = read.open.some(({ matters }) => matters);
  const all = [
    ...openFindings(read),
    ...(open ? computed.map((finding): Finding => ({ ...finding, provisional: true })) : computed),
    ...cookedFindings(read),
    ...safetyFindings(given),
  ];
  return byGravity(all);
}

const gravity = { stop: 0, caution: 1, note: 2 };

/** The gravest first; among equals as they came. */
export const byGravity = (findings: readonly Finding[]): Finding[] =>
  [...findings].sort((a, b) => gravity[a.severity] - gravity[b.severity]);

const listed = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? "") : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;

/** What is not weighed yet is said first: everything else is without it. */
function openFindings({ open, asides }: Findable): Finding[] {
  const told = (lines: readonly OpenLine[]): string => listed(lines.map(({ name }) => `“${name}”`));
  // Nobody weighs what greases a tin or stands on the table.
  const beside = new Set(asides.filter(({ place }) => place === "apart").map(({ component }) => component.id));
  const matter = open.filter(({ matters }) => matters);
  const rest = open.filter(({ matters, component }) => !matters && !beside.has(component ?? ""));
  const out: Finding[] = [];
  if (matter.length > 0)
    out.push({
      id: "not-weighed",
      severity: "caution",
      message: `${told(matter)} ${matter.length === 1 ? "is" : "are"} still open: everything here is without ${matter.length === 1 ? "it" : "them"}.`,
      why: "A flour, a liquid or a leavener that is missing moves every reading; until it is there none of them is final.",
      fix: "Answer it on the sheet, or leave it out.",
      ingredientIds: [],
    });
  if (rest.length > 0)
    out.push({
      id: "not-weighed",
      severity: "note",
      message: `Without ${told(rest)}, still open.`,
      why: "It is on the sheet in its place and weighs nothing until it is answered.",
      ingredientIds: [],
    });
  return out;
}

function cookedFindings({ asides }: Findable): Finding[] {
  return asides.flatMap(({ mass: { name, leastG, weighedG } }): Finding[] =>
    leastG === undefined
      ? []
      : [
          {
            id: "cooked-mass",
            severity: "caution",
            message: `“${name}” cannot weigh that little once it is cooked: of its ${gramsText(weighedG)} ${gramsText(leastG)} are no water.`,
            why: "Cooking drives water out; sugar, starch and fat stay.",
            fix: `Weigh it again; more than ${gramsText(leastG)} would be right.`,
            ingredientIds: [],
          },
        ],
  );
}

const sodaSpoon = (grams: number, measures: Measures): string => {
  const spoons = householdText(grams, ingredientOf(builtInShelf, "soda"), measures);
  return spoons === "" ? gramsText(grams) : `${gramsText(grams)} (${spoons})`;
};

function liftFindings({ items, kind, measures, process, lift: { lift, ledger, gas }, again }: Findable): Finding[] {
  const out: Finding[] = [];
  const mass = massOf(items);
  const flour = crumbOf(items);
  const sodaIds = idsOf(items, (item) => sodaPerGram(item.ingredient) > 0);
  const residual = ledger.residualSodaG;
  if (lift.verdict === "short-of-acid" && residual > limits.sodaTasted * mass) {
    const soapy = residual > limits.sodaSoapy * mass;
    out.push({
      id: "soda-unmet",
      severity: soapy ? "stop" : "caution",
      message: `${gramsText(residual)} of soda finds no acid: expect a soapy edge and a dark crust.`,
      why: `The soda and powder bring ${mmol(ledger.soda.mid)} of bicarbonate and the acids meet ${mmol(Math.max(0, ledger.acid.mid))}. What is left stays as carbonate; the crumb comes to pH ${lift.ph.mid.toFixed(1)}.`,
      ...fixOf("soda-unmet", unmetWays(items, flour, residual, ledger.residualMmol, measures), again),
      ingredientIds: sodaIds,
    });
  }
  if (lift.verdict === "acid-heavy" && lift.ph.mid < limits.tangyPh) {
    const excess = ledger.acid.mid - ledger.soda.mid;
    out.push({
      id: "acid-excess",
      severity: lift.ph.mid < limits.tangyPh - 0.8 ? "caution" : "note",
      message: `${mmol(excess)} of acid finds no soda: the crumb comes to pH ${lift.ph.mid.toFixed(1)}, tangy and pale.`,
      why: `The acids bring ${mmol(ledger.acid.mid)} and the soda ${mmol(ledger.soda.mid)}. Where a tang is wanted this is no fault.`,
      ...fixOf("acid-excess", excessWays(items, flour, excess, measures, again), again),
      ingredientIds: ledger.entries.filter((e) => e.acid.mid > 0.1 * ledger.acid.mid).map((e) => e.ingredientId),
    });
  }
  out.push(...amountFindings(items, flour, measures, again));
  const readings = bandReadings(items, lift.gasMlPer100g.mid);
  const band = profileOf(kind).bands.gasMlPer100g;
  // A thin cake on the griddle is lifted by its steam: who leaves all leavening out means it.
  const bySteam = steamKinds.has(kind) && sodaIds.length === 0 && gas.fizz.mid <= 0;
  if (readings.gasMlPer100g < band.low && !bySteam) {
    out.push({
      id: "lift-low",
      severity: "caution",
      message: `${Math.round(readings.gasMlPer100g)} mL of gas per 100 g of batter is little for ${kindName[kind].toLowerCase()}: expect a low, close crumb.`,
      why: `${kindName[kind]} usually has ${band.low} to ${band.high} mL. ${profileOf(kind).why}`,
      ...fixOf("lift-low", liftWays(items, flour, measures, again), again),
      ingredientIds: sodaIds,
    });
  }
  const rest = process.restMinutes ?? 0;
  const quarter = lift.standMinutes.quarter;
  if (rest > 0 && quarter !== null && rest > quarter && gas.sources.length > 0) {
    out.push({
      id: "lift-early",
      severity: "caution",
      message: `After ${Math.round(rest)} min on the bench more than a quarter of the oven's lift is gone.`,
      why: `With these acids a quarter is gone after ${quarter < 10 ? quarter.toFixed(1) : Math.round(quarter)} min: acids that are already dissolved react at once, a double-acting powder keeps most for the oven.`,
      ...fixOf(
        "lift-early",
        [
          { say: "let the flours rest without the leavening and whisk it in at the end", process: { ...process, restMinutes: 0 } },
          {
            say: `bake within ${Math.max(1, Math.floor(quarter))} min`,
            process: { ...process, restMinutes: Math.max(1, Math.floor(quarter)) },
          },
        ],
        again,
      ),
      ingredientIds: sodaIds,
    });
  }
  out.push(...colourFindings(items, lift.ph));
  return out;
}

const mmol = (value: number): string => `${value < 10 ? value.toFixed(1) : Math.round(value)} mmol`;

/** Kinds that steam alone may lift. */
const steamKinds = new Set<Kind>(["pourable-batter", "flatbread"]);

const powderOf = (items: readonly Item[]): Ingredient =>
  items.find((item) => item.ingredient.family === "leavener" && item.ingredient.leavening?.powder)?.ingredient ??
  ingredientOf(builtInShelf, "powder-aluminium-free");
/** A name as one says it: “baking powder”, not the sort behind the comma. */
const shortName = ({ name }: Ingredient): string => (name.split(",")[0] ?? name).toLowerCase();
const massIn = (items: readonly Item[], id: string): number => items.find((item) => item.ingredient.id === id)?.massG ?? 0;
const spoonsOf = (grams: number, ingredient: Ingredient, measures: Measures): string => {
  const spoons = householdText(grams, ingredient, measures);
  return spoons === "" ? gramsText(grams) : `${gramsText(grams)} (${spoons})`;
};
/** Rounded down to what a scale shows, so that a limit is kept. */
const floored = (grams: number): number => Math.floor(grams * 10 + 1e-6) / 10;
/** No more vinegar or lemon than this is eaten: about a tablespoon a cup of flour, as a share of the flour. */
const MOST_SOUR = 0.12;

/** Ways out of soda without acid: less soda with powder for the lift, the milk soured, a little vinegar. */
function unmetWays(items: readonly Item[], base: number, residualG: number, residualMmol: number, measures: Measures): Way[] {
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

/** mmol of acid in a gram until the crumb is mild. */
const BUTTERMILK_MMOL = 0.088;
const VINEGAR_MMOL = 0.83;
/** Less soda than this is no spoon of anything, g: an eighth of a teaspoon. */
const LEAST_SODA = 0.5;

/** Ways out of acid without soda: first the dry acid that was put in on purpose, then the sour drops, then soda up to its habit. */
function excessWays(items: readonly Item[], base: number, excess: number, measures: Measures, again: Again | undefined): Way[] {
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

/** The powder that brings the gas of the kind: of the sort that is there, as much as is needed and no more than is usual. */
function liftWays(items: readonly Item[], base: number, measures: Measures, again: Again | undefined): Way[] {
  if (!again) return [];
  const powder = powderOf(items);
  const there = massIn(items, powder.id);
  const room = (0.97 * limits.powderHigh * base) / 100 - there;
  if (room <= 0) return [];
  const more = leastThat(0, room, (by) => holds("lift-low", { items: withMass(items, powder, there + by) }, again));
  if (more === null) return [];
  const grams = Math.min(floored(room), Math.ceil(measurable(more) * 10) / 10 + (measurable(more) < more ? 0.5 : 0));
  return [
    {
      say: `add ${spoonsOf(grams, powder, measures)} of ${shortName(powder)}`,
      items: withMass(items, powder, there + grams),
    },
    {
      say: `add ${spoonsOf(floored(room), powder, measures)} of ${shortName(powder)}`,
      items: withMass(items, powder, there + floored(room)),
    },
  ];
}

function amountFindings(items: readonly Item[], flour: number, measures: Measures, again: Again | undefined): Finding[] {
  const out: Finding[] = [];
  if (flour <= 0) return out;
  const blends = items.filter((item) => (item.ingredient.leavening?.share ?? 1) < 1 && item.ingredient.leavening?.powder);
  const powders = items.filter((item) => item.ingredient.leavening?.powder && (item.ingredient.leavening.share ?? 1) === 1);
  const powderG =
    powders.reduce((g, item) => g + item.massG, 0) +
    blends.reduce((g, item) => g + item.massG * (item.ingredient.leavening?.share ?? 0), 0);
  const soda = items.find((item) => item.ingredient.id === "soda");
  const powderPercent = (100 * powderG) / flour;
  const sodaPercent = soda ? (100 * soda.massG) / flour : 0;
  if (powderPercent > limits.powderHigh || sodaPercent > limits.sodaHigh) {
    const isSoda = sodaPercent > limits.sodaHigh;
    const most = isSoda ? limits.sodaHigh : limits.powderHigh;
    const mostG = floored((0.995 * most * flour) / 100);
    const [first] = powders;
    out.push({
      id: "powder-high",
      severity: "caution",
      message: isSoda
        ? `${gramsText(soda?.massG ?? 0)} of soda is ${sodaPercent.toFixed(1)} % of the flour; was half of it meant?`
        : `${gramsText(powderG)} of powder is ${powderPercent.toFixed(1)} % of the flour: more powder does not mean more rise.`,
      why: "Over-expanded bubbles join and burst before the crumb sets, the middle sinks, and the salts of the leavening are tasted.",
      ...fixOf(
        "powder-high",
        [
          isSoda && soda
            ? {
                say: `drop the soda to ${sodaSpoon(mostG, measures)}, which is ${most} %`,
                items: withMass(items, soda.ingredient, mostG),
              }
            : null,
          !isSoda && first
            ? {
                say: `use ${spoonsOf(Math.max(0, floored(mostG - (powderG - first.massG))), first.ingredient, measures)} of ${shortName(first.ingredient)} instead of ${gramsText(first.massG)}`,
                items: withMass(items, first.ingredient, floored(mostG - (powderG - first.massG))),
              }
            : null,
          // Where soda as well as powder is over its habit, both come down.
          isSoda && soda && first && powderPercent > limits.powderHigh
            ? {
                say: `drop the soda to ${sodaSpoon(mostG, measures)} and the ${shortName(first.ingredient)} to ${gramsText(floored((0.995 * limits.powderHigh * flour) / 100))}`,
                items: withMass(
                  withMass(items, soda.ingredient, mostG),
                  first.ingredient,
                  floored((0.995 * limits.powderHigh * flour) / 100),
                ),
              }
            : null,
        ],
        again,
      ),
      ingredientIds: [...powders, ...blends, ...(isSoda && soda ? [soda] : [])].map((item) => item.ingredient.id),
    });
  }
  if (blends.length > 0 && (powders.length > 0 || soda)) {
    const held = blends.reduce((g, item) => g + item.massG * (item.ingredient.leavening?.share ?? 0), 0);
    out.push({
      id: "leavening-counted-twice",
      severity: "caution",
      message: `The self-raising blend holds about ${gramsText(held)} of powder already.`,
      why: "A self-raising blend is leavened by its maker; powder or soda beside it adds to that. Both are counted here.",
      ...fixOf(
        "leavening-counted-twice",
        [
          {
            say: `leave the ${[...powders, ...(soda ? [soda] : [])].map((item) => shortName(item.ingredient)).join(" and the ")} out; the blend alone is ${((100 * held) / flour).toFixed(1)} % powder`,
            items: [...powders, ...(soda ? [soda] : [])].reduce((all, item) => withMass(all, item.ingredient, 0), [...items]),
          },
        ],
        again,
      ),
      ingredientIds: [...blends, ...powders].map((item) => item.ingredient.id),
    });
  }
  return out;
}

function colourFindings(items: readonly Item[], ph: { mid: number; high: number }): Finding[] {
  const red = idsOf(items, (item) => item.ingredient.pigments?.includes("anthocyanin") === true);
  const green = idsOf(items, (item) => item.ingredient.pigments?.includes("chlorogenic") === true);
  const out: Finding[] = [];
  if (red.length > 0 && ph.mid > limits.anthocyaninPh) {
    out.push({
      id: "colour-shift",
      severity: "note",
      message: `At pH ${ph.mid.toFixed(1)} red fruit turns mauve to grey-blue.`,
      why: "Anthocyanins are pink below pH 6, mauve near 7 and blue-grey above 7.5.",
      fix: "Use less soda, or a powder without spare soda, to come under pH 7.",
      ingredientIds: red,
    });
  }
  if (green.length > 0 && ph.high > limits.chlorogenicPh) {
    out.push({
      id: "colour-shift",
      severity: "note",
      message: "Sunflower seeds and some nuts may turn the crumb green while it cools.",
      why: `Their chlorogenic acid turns green in an alkaline crumb, above about pH 8; this one may reach ${ph.high.toFixed(1)}. It is harmless.`,
      fix: "A little lemon juice, or less soda, keeps it brown.",
      ingredientIds: green,
    });
  }
  return out;
}

/** From this share of pulse flour on, what it holds in itself holds a slice too. */
const PULSE_HOLDS = 0.5;

function binderFindings({ items, kind, body, again }: Findable): Finding[] {
  const { adequacy, percent, kind: word } = body.binder;
  const wanted = profileOf(kind).binderPercent;
  const flour = crumbOf(items);
  const out: Finding[] = [];
  const pulses = items.reduce((g, item) => g + (item.ingredient.family === "pulse-flour" ? item.massG : 0), 0);
  if (wanted.low > 0 && flour > 0 && adequacy < limits.binderLeast && pulses < PULSE_HOLDS * flour) {
    const grams = measurable(((wanted.low + wanted.high) / 200) * flour - (percent / 100) * flour);
    const way = (id: string, times: number): Way => {
      const ingredient = ingredientOf(builtInShelf, id);
      const g = measurable(grams * times);
      return {
        say: `add ${spoonsOf(g, ingredient, "metric")} of ${shortName(ingredient)}`,
        items: withMass(items, ingredient, massIn(items, id) + g),
      };
    };
    out.push({
      id: "no-binder",
      severity: "caution",
      message:
        word === "none"
          ? "Nothing here binds: the crumb will fall apart."
          : `The ${word} binds like ${percent.toFixed(1)} % xanthan; ${kindName[kind].toLowerCase()} usually has ${wanted.low} to ${wanted.high} %.`,
      why: "Without gluten a gum, psyllium, flax, chia or egg must hold the gas and the slice. Some bakers do without; this is no ban.",
      ...fixOf("no-binder", [way("xanthan", 1), way("psyllium-husk", 5), way("ground-flax", 12)], again),
      ingredientIds: [],
    });
  }
  const gummed = items.filter((item) => item.ingredient.family === "blend" && (item.ingredient.xanthanEquivalent ?? 0) > 0.2);
  const added = items.filter((item) => item.ingredient.family === "binder");
  const most = Math.max(wanted.high, 0.4) * limits.binderMost;
  if (gummed.length > 0 && added.length > 0) {
    out.push({
      id: "binder-doubled",
      severity: percent > most ? "caution" : "note",
      message: `The blend holds a gum already; with what is added it binds like ${percent.toFixed(1)} % xanthan.`,
      why: `${kindName[kind]} wants about ${wanted.low} to ${wanted.high} %. Too much gum gives a tight, gummy crumb.`,
      ...fixOf(
        "binder-doubled",
        [
          {
            say: `leave the ${added.map((item) => shortName(item.ingredient)).join(" and the ")} out`,
            items: added.reduce((all, item) => withMass(all, item.ingredient, 0), [...items]),
          },
        ],
        again,
      ),
      ingredientIds: [...gummed, ...added].map((item) => item.ingredient.id),
    });
  }
  return out;
}

/** Closer than this to a word that the kind may have, as a share of its edge, is within what the reading knows. */
const CLOSE = 0.05;
/** Under this share of ordinary flour the model of flour that drinks does not hold. */
const ORDINARY = 0.5;

/** Share of what builds the crumb that is flour and starch, not nut, coconut, cocoa, milk powder or purée. */
function ordinaryShare(items: readonly Item[]): number {
  const base = crumbOf(items);
  const plain = items.reduce(
    (g, { ingredient, massG }) =>
      g + (isFlour(ingredient) && ingredient.family !== "nut-flour" && ingredient.id !== "coconut-flour" ? massG : 0),
    0,
  );
  return base > 0 ? plain / base : 0;
}

function bodyFindings({ items, kind, body, process, lift, again }: Findable): Finding[] {
  const out: Finding[] = [];
  const profile = profileOf(kind);
  const side =
    offBy(body.stiffness.mid, kind) < CLOSE || ordinaryShare(items) < ORDINARY ? 0 : consistencyAgainst(body.consistency, kind);
  if (side !== 0) {
    const edge = side < 0 ? body.stiffness.high : body.stiffness.low;
    const nearly = consistencyAgainst(consistencyOf(edge), kind) !== side;
    const id = side < 0 ? ("too-wet" as const) : ("too-dry" as const);
    out.push({
      id,
      severity: nearly ? "note" : "caution",
      message: `The batter comes out ${words[body.consistency]}; ${kindName[kind].toLowerCase()} wants it ${profile.consistencies
        .slice(0, 2)
        .map((c) => words[c])
        .join(" or ")}.`,
      why: `${profile.why} Its water and syrup are ${body.loading.mid.toFixed(2)} times what the dry things drink.`,
      ...fixOf(id, liquidWays(items, kind, process, side), again),
      ingredientIds: [],
    });
  }
  const readings = bandReadings(items, lift.lift.gasMlPer100g.mid);
  const over = (name: BandName, id: Finding["id"], what: string, why: string): void => {
    const band = profile.bands[name];
    if (readings[name] <= band.high || crumbOf(items) <= 0) return;
    out.push({
      id,
      severity: readings[name] > band.high * 1.4 ? "caution" : "note",
      message: `${Math.round(readings[name])} % ${what} on the flour is much for ${kindName[kind].toLowerCase()}; ${band.low} to ${band.high} % is usual.`,
      why,
      ...fixOf(id, trimWays(items, name, (band.high / 100) * crumbOf(items)), again),
      ingredientIds: idsOf(items, (item) => item.ingredient.per100g[name === "sugarPercent" ? "sugars" : "fat"] > 30),
    });
  };
  over(
    "sugarPercent",
    "sugar-high",
    "sugar",
    "Sugar raises the temperature at which the crumb sets, so the middle may sink, and it browns early.",
  );
  over("fatPercent", "fat-high", "fat", "Fat shortens the crumb; too much lets it crumble and run.");
  return out;
}

const words: Record<Body["consistency"], string> = {
  pourable: "pourable",
  spoonable: "spoonable",
  scoopable: "stiff enough to scoop",
  "soft-dough": "a soft dough",
  "firm-dough": "a firm dough",
  crumbly: "crumbly",
};

/** Ways to bring added sugar or fat down to so many grams: the richest line first, then every one alike. */
function trimWays(items: readonly Item[], name: "sugarPercent" | "fatPercent" | BandName, mostG: number): Way[] {
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

/** How much of the main liquid to add or hold back to reach the nearest word the kind may have; computed, not guessed. */
function liquidWays(items: readonly Item[], kind: Kind, process: Process, side: -1 | 1): Way[] {
  const found = liquidFor(
    items,
    ingredientOf(builtInShelf, "water"),
    process,
    side < 0 ? "less" : "more",
    (word) => consistencyAgainst(word, kind) === 0,
  );
  if (!found) return [];
  const name = shortName(found.ingredient);
  const difference = gramsText(Math.abs(found.toG - found.fromG));
  const next = withMass(items, found.ingredient, found.toG);
  return side < 0
    ? [{ say: `hold back ${difference} of the ${name}`, items: next }]
    : [{ say: `add ${difference} of ${name}`, items: next }];
}

/** Whatever is eaten with the batter counts: a glaze with malt is a bake with gluten. */
function safetyFindings({ items: batter, asides }: Findable): Finding[] {
  const items = [...batter, ...asides.flatMap((aside) => aside.items.filter(({ massG }) => massG > 0))].filter(
    (item, index, all) => all.findIndex(({ ingredient }) => ingredient.id === item.ingredient.id) === index,
  );
  const out: Finding[] = [];
  const wheat = items.filter((item) => item.ingredient.gluten === "contains");
  const check = items.filter((item) => item.ingredient.gluten === "check");
  const oats = items.filter((item) => item.ingredient.gluten === "oats");
  const names = (list: Item[]): string => list.map((item) => item.ingredient.name).join(", ");
  if (wheat.length > 0) {
    out.push({
      id: "gluten-check",
      severity: "stop",
      message: `${names(wheat)} contains gluten.`,
      why: "This formula is not gluten-free as it stands.",
      fix: "Swap it for a gluten-free blend with a binder.",
      ingredientIds: wheat.map((i) => i.ingredient.id),
    });
  }
  if (check.length > 0) {
    out.push({
      id: "gluten-check",
      severity: "note",
      message: `Read the label of ${names(check)}.`,
      why: "Some makers' versions hold barley, wheat starch or malt; the label must say gluten-free.",
      ingredientIds: check.map((i) => i.ingredient.id),
    });
  }
  if (oats.length > 0) {
    out.push({
      id: "oats-check",
      severity: "note",
      message: `${names(oats)}: the label must say certified gluten-free.`,
      why: "Ordinary oats carry wheat and barley from field and mill, and some coeliacs cannot eat even pure oats.",
      ingredientIds: oats.map((i) => i.ingredient.id),
    });
  }
  return out;
}
