import type { Body } from "../body/body";
import { consistencyOf } from "../body/consistency";
import type { Kind } from "../formula/kinds";
import { kindName } from "../formula/kinds";
import { crumbOf, type Item, massOf } from "../formula/resolve";
import { sodaPerGram } from "../lift/charge";
import { acidPerGram } from "../lift/ledger";
import { gramsText, measurable } from "../measure/amounts";
import type { Measures } from "../measure/units";
import { builtInShelf, ingredientOf } from "../pantry/catalogue";
import { isFlour } from "../pantry/ingredient";
import { type BandName, bandReadings, consistencyAgainst, offBy, profileOf } from "./bands";
import { type Finding, findingLimits as limits } from "./finding";
import type { Findable } from "./findable";
import type { OpenLine } from "../formula/components";
import { panFindings } from "./findings-pan";
import {
  binderWays,
  colourWays,
  doubledWays,
  excessWays,
  gumWays,
  liftWays,
  liquidWays,
  powderHighWays,
  trimWays,
  unmetWays,
} from "./remedies";
import { type Again, fixOf } from "./ways";

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
    ...smokeFindings(read),
    ...fermentFindings(given),
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
      // A tang of yoghurt is a taste; what was poured in beside it and meets nothing is a slip.
      severity: lift.ph.mid < limits.tangyPh - 0.8 || pouredAcid(items) > 0.5 * excess ? "caution" : "note",
      message: `${mmol(excess)} of acid finds no soda: the crumb comes to pH ${lift.ph.mid.toFixed(1)}, tangy and pale.`,
      why: `The acids bring ${mmol(ledger.acid.mid)} and the soda ${mmol(ledger.soda.mid)}. Where a tang is wanted this is no fault.`,
      ...fixOf("acid-excess", excessWays(items, flour, excess, measures, again), again),
      ingredientIds: ledger.entries.filter((e) => e.acid.mid > 0.1 * ledger.acid.mid).map((e) => e.ingredientId),
    });
  }
  // What to do about the soda is said once, by the graver finding.
  const told = out.some(({ id }) => id === "soda-unmet");
  out.push(
    ...amountFindings(items, flour, measures, again).map(({ fix, ...finding }): Finding =>
      told && finding.id === "powder-high" && finding.ingredientIds.includes("soda")
        ? finding
        : { ...finding, ...(fix ? { fix } : {}) },
    ),
  );
  const readings = bandReadings(items, lift.gasMlPer100g.mid);
  const band = profileOf(kind).bands.gasMlPer100g;
  // A thin cake on the griddle is lifted by its steam: who leaves all leavening out means it.
  const bySteam = steamKinds.has(kind) && sodaIds.length === 0 && gas.fizz.mid <= 0;
  if (readings.gasMlPer100g < band.low && !bySteam && fermentsIn(items).length === 0) {
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
  out.push(...colourFindings(items, lift.ph, measures, again));
  return out;
}

const mmol = (value: number): string => `${value < 10 ? value.toFixed(1) : Math.round(value)} mmol`;

/** mmol of acid that was put in as such: dry acids, vinegar, lemon. */
const pouredAcid = (items: readonly Item[]): number =>
  items.reduce(
    (all, { ingredient, massG }) =>
      ingredient.family === "acid" || ingredient.family === "vinegar" || /^(?:lemon|lime)-juice$/.test(ingredient.id)
        ? all + massG * acidPerGram(ingredient)
        : all,
    0,
  );

/** Kinds that steam alone may lift. */
const steamKinds = new Set<Kind>(["pourable-batter", "flatbread"]);

function amountFindings(items: readonly Item[], flour: number, measures: Measures, again: Again | undefined): Finding[] {
  const out: Finding[] = [];
  if (flour <= 0) return out;
  // The trace of leavening in an egg replacer is no dose.
  const blends = items.filter(
    ({ ingredient }) =>
      (ingredient.leavening?.share ?? 1) < 1 && ingredient.leavening?.powder && ingredient.family !== "egg-substitute",
  );
  const powders = items.filter((item) => item.ingredient.leavening?.powder && (item.ingredient.leavening.share ?? 1) === 1);
  const powderG =
    powders.reduce((g, item) => g + item.massG, 0) +
    blends.reduce((g, item) => g + item.massG * (item.ingredient.leavening?.share ?? 0), 0);
  const soda = items.find((item) => item.ingredient.id === "soda");
  const powderPercent = (100 * powderG) / flour;
  const sodaPercent = soda ? (100 * soda.massG) / flour : 0;
  if (powderPercent > limits.powderHigh || sodaPercent > limits.sodaHigh) {
    const isSoda = sodaPercent > limits.sodaHigh;
    out.push({
      id: "powder-high",
      severity: "caution",
      message: isSoda
        ? `${gramsText(soda?.massG ?? 0)} of soda is ${sodaPercent.toFixed(1)} % of the flour; was half of it meant?`
        : `${gramsText(powderG)} of powder is ${powderPercent.toFixed(1)} % of the flour: more powder does not mean more rise.`,
      why: "Over-expanded bubbles join and burst before the crumb sets, the middle sinks, and the salts of the leavening are tasted.",
      ...fixOf("powder-high", powderHighWays(items, flour, measures), again),
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
      ...fixOf("leavening-counted-twice", doubledWays(items, flour), again),
      ingredientIds: [...blends, ...powders].map((item) => item.ingredient.id),
    });
  }
  return out;
}

function colourFindings(
  items: readonly Item[],
  ph: { mid: number; high: number },
  measures: Measures,
  again: Again | undefined,
): Finding[] {
  const red = idsOf(items, (item) => item.ingredient.pigments?.includes("anthocyanin") === true);
  const green = idsOf(items, (item) => item.ingredient.pigments?.includes("chlorogenic") === true);
  const out: Finding[] = [];
  if (red.length > 0 && ph.mid > limits.anthocyaninPh) {
    out.push({
      id: "colour-shift",
      severity: "note",
      message: `At pH ${ph.mid.toFixed(1)} red fruit turns mauve to grey-blue.`,
      why: "Anthocyanins are pink below pH 6, mauve near 7 and blue-grey above 7.5.",
      ...fixOf("colour-shift", colourWays(items, measures, again), again),
      ingredientIds: red,
    });
  }
  if (green.length > 0 && ph.high > limits.chlorogenicPh) {
    out.push({
      id: "colour-shift",
      severity: "note",
      message: "Sunflower seeds and some nuts may turn the crumb green while it cools.",
      why: `Their chlorogenic acid turns green in an alkaline crumb, above about pH 8; this one may reach ${ph.high.toFixed(1)}. It is harmless.`,
      ...fixOf("colour-shift", colourWays(items, measures, again), again),
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
    out.push({
      id: "no-binder",
      severity: "caution",
      message:
        word === "none"
          ? "Nothing here binds: the crumb will fall apart."
          : `The ${word} binds like ${percent.toFixed(1)} % xanthan; ${kindName[kind].toLowerCase()} usually has ${wanted.low} to ${wanted.high} %.`,
      why: "Without gluten a gum, psyllium, flax, chia or egg must hold the gas and the slice. Some bakers do without; this is no ban.",
      ...fixOf("no-binder", binderWays(items, grams), again),
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
      ...fixOf("binder-doubled", gumWays(items), again),
      ingredientIds: [...gummed, ...added].map((item) => item.ingredient.id),
    });
  }
  return out;
}

/** Closer than this to a word that the kind may have, as a share of its edge, is within what the reading knows. */
const CLOSE = 0.08;
const OVER = 1.04;
/** Under this share of the least water that is usual a batter is dry. */
const PARCHED = 0.7;
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
  const water = profile.bands.waterPercent;
  // Coarse meal hides how little water there is: far under what is usual it is dry, whatever it reads.
  if (side === 0 && readings.waterPercent < PARCHED * water.low && ordinaryShare(items) >= ORDINARY)
    out.push({
      id: "too-dry",
      severity: "caution",
      message: `${Math.round(readings.waterPercent)} % water on the flour is little for ${kindName[kind].toLowerCase()}; ${water.low} to ${water.high} % is usual.`,
      why: `${profile.why} What is not wetted neither swells nor sets.`,
      ...fixOf("too-dry", liquidWays(items, kind, process, 1), again),
      ingredientIds: [],
    });
  const over = (name: BandName, id: Finding["id"], what: string, why: string): void => {
    const band = profile.bands[name];
    // What is over by less than its measuring is sure of is not over.
    if (readings[name] <= OVER * band.high || crumbOf(items) <= 0) return;
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

/** A fat begins to smoke some kelvin before the point that tables give: refining and what it has met move it. */
const SMOKE_K = 5;

/** The fat that greases a hot pan or a griddle, where it begins to smoke at the heat that it meets. */
function smokeFindings({ asides, vessel, oven }: Findable): Finding[] {
  const hot = oven.mode === "hob" || vessel.preheated === true;
  if (!hot) return [];
  const greasing = asides.filter(({ component }) => component.role === "pan").flatMap((aside) => aside.items);
  return greasing.flatMap(({ ingredient }): Finding[] => {
    const { smokeC } = ingredient;
    if (smokeC === undefined || oven.celsius <= smokeC - SMOKE_K) return [];
    const better = ["sunflower-oil", "rapeseed-oil", "ghee", "avocado-oil"]
      .map((id) => ingredientOf(builtInShelf, id))
      .filter((fat) => (fat.smokeC ?? 0) > oven.celsius + SMOKE_K);
    return [
      {
        id: "fat-smokes",
        severity: "caution",
        message: `${ingredient.name} begins to smoke at about ${smokeC} °C; the pan meets it at ${Math.round(oven.celsius)} °C.`,
        why: "Smoking fat tastes burnt, irritates eyes and lungs, and is not far from catching fire.",
        fix:
          better.length > 0
            ? `Grease it with ${better.map((fat) => `${fat.name.toLowerCase()} (${fat.smokeC} °C)`).join(" or ")}.`
            : `Let the pan cool to ${Math.round(smokeC - 2 * SMOKE_K)} °C first, or grease it after it is heated.`,
        ingredientIds: [ingredient.id],
      },
    ];
  });
}

const ferments = new Set(["yeast-dry", "yeast-fresh", "sourdough-discard"]);
const fermentsIn = (items: readonly Item[]): Item[] =>
  items.filter(({ ingredient, massG }) => ferments.has(ingredient.id) && massG > 0);

/** What lifts by the hour is not computed here, which is another thing than no lift. */
function fermentFindings({ items }: Findable): Finding[] {
  const found = fermentsIn(items);
  if (found.length === 0) return [];
  const names = listed(found.map(({ ingredient }) => ingredient.name));
  return [
    {
      id: "ferment",
      severity: "note",
      message: `${names} ${found.length === 1 ? "lifts" : "lift"} by the hour; what it gives is not computed here.`,
      why: "Lift, race and rise are of soda, powder, fizz, whisked air and steam alone. A yeast that works makes more of each.",
      ingredientIds: found.map(({ ingredient }) => ingredient.id),
    },
  ];
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
