import { ML_PER_MMOL_25C } from "../physics";
import type { Body } from "../body/body";
import { consistencyOf } from "../body/consistency";
import { liquidFor } from "../body/next-class";
import type { Kind } from "../formula/kinds";
import { kindName } from "../formula/kinds";
import type { Process } from "../formula/process";
import { flourOf, type Item, massOf } from "../formula/resolve";
import { SODA_MMOL_PER_G } from "../lift/acids";
import { sodaPerGram } from "../lift/charge";
import { gramsText, householdText, measurable } from "../measure/amounts";
import type { Measures } from "../measure/units";
import { builtInShelf, ingredientOf } from "../pantry/catalogue";
import { type BandName, bandReadings, consistencyAgainst, profileOf } from "./bands";
import { type Finding, findingLimits as limits } from "./finding";
import type { Findable } from "./findable";
import type { OpenLine } from "../formula/components";
import { panFindings } from "./findings-pan";

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

function liftFindings({ items, kind, measures, process, lift: { lift, ledger, gas } }: Findable): Finding[] {
  const out: Finding[] = [];
  const mass = massOf(items);
  const flour = flourOf(items);
  const sodaIds = idsOf(items, (item) => sodaPerGram(item.ingredient) > 0);
  const residual = ledger.residualSodaG;
  if (lift.verdict === "short-of-acid" && residual > limits.sodaTasted * mass) {
    const soapy = residual > limits.sodaSoapy * mass;
    out.push({
      id: "soda-unmet",
      severity: soapy ? "stop" : "caution",
      message: `${gramsText(residual)} of soda finds no acid: expect a soapy edge and a dark crust.`,
      why: `The soda and powder bring ${mmol(ledger.soda.mid)} of bicarbonate and the acids meet ${mmol(Math.max(0, ledger.acid.mid))}. What is left stays as carbonate; the crumb comes to pH ${lift.ph.mid.toFixed(1)}.`,
      fix: unmetFix(items, residual, ledger.residualMmol, measures),
      ingredientIds: sodaIds,
    });
  }
  if (lift.verdict === "acid-heavy" && lift.ph.mid < limits.tangyPh) {
    const excess = ledger.acid.mid - ledger.soda.mid;
    const sodaG = excess / SODA_MMOL_PER_G;
    out.push({
      id: "acid-excess",
      severity: lift.ph.mid < limits.tangyPh - 0.8 ? "caution" : "note",
      message: `${mmol(excess)} of acid finds no soda: the crumb comes to pH ${lift.ph.mid.toFixed(1)}, tangy and pale.`,
      why: `The acids bring ${mmol(ledger.acid.mid)} and the soda ${mmol(ledger.soda.mid)}. Where a tang is wanted this is no fault.`,
      fix: `For a mild crumb add up to ${sodaSpoon(measurable(sodaG * 0.8), measures)} of soda, or swap some of the sour liquid for a plain one.`,
      ingredientIds: ledger.entries.filter((e) => e.acid.mid > 0.1 * ledger.acid.mid).map((e) => e.ingredientId),
    });
  }
  out.push(...amountFindings(items, flour, measures));
  const readings = bandReadings(items, lift.gasMlPer100g.mid);
  const band = profileOf(kind).bands.gasMlPer100g;
  if (readings.gasMlPer100g < band.low) {
    const missing = ((band.low - readings.gasMlPer100g) * mass) / 100 / ML_PER_MMOL_25C;
    const powder = missing / sodaPerGram(ingredientOf(builtInShelf, "powder-aluminium-free"));
    out.push({
      id: "lift-low",
      severity: "caution",
      message: `${Math.round(readings.gasMlPer100g)} mL of gas per 100 g of batter is little for ${kindName[kind].toLowerCase()}: expect a low, close crumb.`,
      why: `${kindName[kind]} usually has ${band.low} to ${band.high} mL. ${profileOf(kind).why}`,
      fix: `Add ${gramsText(measurable(powder))} (${householdText(powder, ingredientOf(builtInShelf, "powder-aluminium-free"), measures)}) of aluminium-free baking powder.`,
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
      fix: `Let the flours rest without the leavening and whisk it in at the end, or bake within ${Math.max(1, Math.floor(quarter))} min.`,
      ingredientIds: sodaIds,
    });
  }
  out.push(...colourFindings(items, lift.ph));
  return out;
}

const mmol = (value: number): string => `${value < 10 ? value.toFixed(1) : Math.round(value)} mmol`;

/** Two ways out, both computed: less soda, or the same milk soured. */
function unmetFix(items: readonly Item[], residualG: number, residualMmol: number, measures: Measures): string {
  const soda = items.find((item) => item.ingredient.id === "soda");
  const powder = ingredientOf(builtInShelf, "powder-aluminium-free");
  const ways: string[] = [];
  if (soda && soda.massG > residualG) {
    const left = measurable(soda.massG - residualG);
    const powderG = measurable(residualMmol / 2 / sodaPerGram(powder));
    ways.push(
      `Drop the soda to ${sodaSpoon(left, measures)} and add ${gramsText(powderG)} (${householdText(powderG, powder, measures)}) of baking powder, which brings its own acid`,
    );
  } else if (soda) {
    ways.push(
      `Leave the soda out and use ${gramsText(measurable(residualMmol / 2 / sodaPerGram(powder)))} of baking powder, which brings its own acid`,
    );
  }
  const milk = items.find(
    (item) => (item.ingredient.family === "dairy" || item.ingredient.family === "plant-milk") && item.ingredient.per100g.water > 80,
  );
  const perG = 0.088;
  const sour = residualMmol / perG;
  if (milk && milk.massG >= sour)
    ways.push(`swap ${gramsText(measurable(sour))} of the ${milk.ingredient.name.toLowerCase()} for buttermilk`);
  const vinegar = residualMmol / 0.83;
  ways.push(`stir in ${gramsText(measurable(vinegar))} of 5 % vinegar and hold back as much liquid`);
  return `${ways.slice(0, 2).join(", or ")}.`.replace(/^./, (c) => c.toUpperCase());
}

function amountFindings(items: readonly Item[], flour: number, measures: Measures): Finding[] {
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
    const most_g = measurable((most / 100) * flour);
    out.push({
      id: "powder-high",
      severity: "caution",
      message: isSoda
        ? `${gramsText(soda?.massG ?? 0)} of soda is ${sodaPercent.toFixed(1)} % of the flour; was half of it meant?`
        : `${gramsText(powderG)} of powder is ${powderPercent.toFixed(1)} % of the flour: more powder does not mean more rise.`,
      why: "Over-expanded bubbles join and burst before the crumb sets, the middle sinks, and the salts of the leavening are tasted.",
      fix: `${most} % is ${isSoda ? sodaSpoon(most_g, measures) : gramsText(most_g)}.`,
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
      fix: `Leave the added leavening out first, and judge the bake; the blend alone is ${((100 * held) / flour).toFixed(1)} % powder.`,
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

function binderFindings({ items, kind, body }: Findable): Finding[] {
  const { adequacy, percent, kind: word } = body.binder;
  const wanted = profileOf(kind).binderPercent;
  const flour = flourOf(items);
  const out: Finding[] = [];
  if (wanted.low > 0 && flour > 0 && adequacy < limits.binderLeast) {
    const grams = measurable(((wanted.low + wanted.high) / 200) * flour - (percent / 100) * flour);
    out.push({
      id: "no-binder",
      severity: "caution",
      message:
        word === "none"
          ? "Nothing here binds: the crumb will fall apart."
          : `The ${word} binds like ${percent.toFixed(1)} % xanthan; ${kindName[kind].toLowerCase()} usually has ${wanted.low} to ${wanted.high} %.`,
      why: "Without gluten a gum, psyllium, flax, chia or egg must hold the gas and the slice. Some bakers do without; this is no ban.",
      fix: `${gramsText(grams)} of xanthan, ${gramsText(measurable(grams * 5))} of psyllium husk, or ${gramsText(measurable(grams * 12))} of ground flax with its water would do.`,
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
      fix: `Leave the ${added.map((item) => item.ingredient.name.toLowerCase()).join(" and ")} out unless the batter runs.`,
      ingredientIds: [...gummed, ...added].map((item) => item.ingredient.id),
    });
  }
  return out;
}

function bodyFindings({ items, kind, body, process, lift }: Findable): Finding[] {
  const out: Finding[] = [];
  const profile = profileOf(kind);
  const side = consistencyAgainst(body.consistency, kind);
  if (side !== 0) {
    const edge = side < 0 ? body.stiffness.high : body.stiffness.low;
    const nearly = consistencyAgainst(consistencyOf(edge), kind) !== side;
    const change = liquidChange(items, kind, process, side);
    out.push({
      id: side < 0 ? "too-wet" : "too-dry",
      severity: nearly ? "note" : "caution",
      message: `The batter comes out ${words[body.consistency]}; ${kindName[kind].toLowerCase()} wants it ${profile.consistencies
        .slice(0, 2)
        .map((c) => words[c])
        .join(" or ")}.`,
      why: `${profile.why} Its water and syrup are ${body.loading.mid.toFixed(2)} times what the dry things drink.`,
      ...(change ? { fix: change } : {}),
      ingredientIds: [],
    });
  }
  const readings = bandReadings(items, lift.lift.gasMlPer100g.mid);
  const over = (name: BandName, id: Finding["id"], what: string, why: string): void => {
    const band = profile.bands[name];
    if (readings[name] <= band.high || flourOf(items) <= 0) return;
    out.push({
      id,
      severity: readings[name] > band.high * 1.4 ? "caution" : "note",
      message: `${Math.round(readings[name])} % ${what} on the flour is much for ${kindName[kind].toLowerCase()}; ${band.low} to ${band.high} % is usual.`,
      why,
      fix: `${band.high} % is ${gramsText(measurable((band.high / 100) * flourOf(items)))} of ${what} in all.`,
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

/** How much of the main liquid to add or hold back to reach the nearest word the kind may have; computed, not guessed. */
function liquidChange(items: readonly Item[], kind: Kind, process: Process, side: -1 | 1): string | null {
  const found = liquidFor(
    items,
    ingredientOf(builtInShelf, "water"),
    process,
    side < 0 ? "less" : "more",
    (word) => consistencyAgainst(word, kind) === 0,
  );
  if (!found) return null;
  const name = found.ingredient.name.toLowerCase();
  const difference = gramsText(Math.abs(found.toG - found.fromG));
  return side < 0
    ? `Hold back ${difference} of the ${name}, or let the flours drink for half an hour and look again.`
    : `Add ${difference} of ${name}.`;
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
