import { capital } from "../measure/list-words";
import type { Kind } from "../formula/kinds";
import { oneOf } from "../formula/kinds";
import { crumbOf, type Item, massOf } from "../formula/resolve";
import { ML_PER_MMOL_25C } from "../lift/acids";
import { asSodaText } from "../lift/as-soda";
import { sodaPerGram } from "../lift/charge";
import type { Gas } from "../lift/gas";
import { acidPerGram } from "../lift/ledger";
import { gramsText } from "../measure/amounts";
import type { Measures } from "../measure/units";
import { bandReadings, profileOf } from "./bands";
import { findingLimits as limits } from "./finding";
import type { Finding } from "./finding-schema";
import type { Findable } from "./findable";
import { colourWays, doubledWays, excessWays, liftWays, powderHighWays, unmetWays } from "./remedies-leavening";
import type { Prove } from "./ways";

export const idsOf = (items: readonly Item[], test: (item: Item) => boolean): string[] =>
  items.filter(test).map((item) => item.ingredient.id);

export function liftFindings({ items, kind, measures, process, lift: { lift, ledger, gas }, prove }: Findable): Finding[] {
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
      why: `The soda and powder hold ${asSodaText(ledger.soda.mid)} of soda, and the acids meet ${asSodaText(Math.max(0, ledger.acid.mid))} of it. What is left stays as carbonate; the crumb comes to pH ${lift.ph.mid.toFixed(1)}.`,
      ...prove("soda-unmet", () => unmetWays(items, flour, residual, ledger.residualMmol, measures)),
      ingredientIds: sodaIds,
    });
  }
  if (lift.verdict === "acid-heavy" && lift.ph.mid < limits.tangyPh) {
    const excess = ledger.acid.mid - ledger.soda.mid;
    out.push({
      id: "acid-excess",
      // A tang of yoghurt is a taste; what was poured in beside it and meets nothing is a slip.
      severity: lift.ph.mid < limits.tangyPh - 0.8 || pouredAcid(items) > 0.5 * excess ? "caution" : "note",
      message: `Acid that would meet ${asSodaText(excess)} of soda finds none: the crumb comes to pH ${lift.ph.mid.toFixed(1)}, tangy and pale.`,
      why: `The acids would meet ${asSodaText(ledger.acid.mid)} of soda, and there are ${asSodaText(ledger.soda.mid)}. Where a tang is wanted this is no fault.`,
      ...prove("acid-excess", (again) => excessWays(items, flour, excess, measures, again)),
      ingredientIds: ledger.entries.filter((e) => e.acid.mid > 0.1 * ledger.acid.mid).map((e) => e.ingredientId),
    });
  }
  // What to do about the soda is said once, by the graver finding.
  const told = out.some(({ id }) => id === "soda-unmet");
  out.push(
    ...amountFindings(items, flour, measures, prove).map(({ fix, ...finding }): Finding =>
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
      message: `${Math.round(readings.gasMlPer100g)} mL of gas per 100 g of batter is little for ${oneOf[kind]}: expect a low, close crumb.`,
      why: `${capital(oneOf[kind])} usually has ${band.low} to ${band.high} mL. ${profileOf(kind).why}`,
      ...prove("lift-low", (again) => liftWays(items, flour, measures, again)),
      ingredientIds: sodaIds,
    });
  }
  out.push(...fizzFindings(items, gas, mass));
  const rest = process.restMinutes ?? 0;
  const quarter = lift.standMinutes.quarter;
  if (rest > 0 && quarter !== null && rest > quarter && gas.sources.length > 0) {
    out.push({
      id: "lift-early",
      severity: "caution",
      message: `After ${Math.round(rest)} min on the bench more than a quarter of the oven's lift is gone.`,
      why: `With these acids a quarter is gone after ${quarter < 10 ? quarter.toFixed(1) : Math.round(quarter)} min: acids that are already dissolved react at once, a double-acting powder keeps most for the oven.`,
      ...prove("lift-early", () => [
        { say: "let the flours rest without the leavening and whisk it in at the end", process: { ...process, restMinutes: 0 } },
        {
          say: `bake within ${Math.max(1, Math.floor(quarter))} min`,
          process: { ...process, restMinutes: Math.max(1, Math.floor(quarter)) },
        },
      ]),
      ingredientIds: sodaIds,
    });
  }
  out.push(...colourFindings(items, lift.ph, measures, prove));
  return out;
}

/** Carbonated liquid: what it brings in the bottle, and how little of that reaches the oven beside what soda and powder give. */
function fizzFindings(items: readonly Item[], gas: Gas, massG: number): Finding[] {
  const fizzy = items.filter(({ ingredient }) => ingredient.carbonation);
  if (fizzy.length === 0 || massG <= 0) return [];
  const ml = (value: number): number => Math.round((value * ML_PER_MMOL_25C * 100) / massG);
  const chemical = gas.sources.reduce((all, { mmol: given }) => all + given, 0);
  const name = fizzy[0]?.ingredient.name.toLowerCase() ?? "";
  return [
    {
      id: "fizz",
      severity: "note",
      message: `Of the fizz in ${name} ${ml(gas.fizz.low)} to ${ml(gas.fizz.high)} mL per 100 g of batter reach the oven; soda and powder give ${ml(chemical)}.`,
      why: `The bottle holds ${mmol(gas.fizz.mid + gas.fizzLost)} of carbon dioxide; pouring and mixing let out four fifths of it. Open it last, pour it cold and fold it in at once; it lightens a thin batter and is no leavening for a thick one.`,
      ingredientIds: fizzy.map(({ ingredient }) => ingredient.id),
    },
  ];
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

function amountFindings(items: readonly Item[], flour: number, measures: Measures, prove: Prove): Finding[] {
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
      ...prove("powder-high", () => powderHighWays(items, flour, measures)),
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
      ...prove("leavening-counted-twice", () => doubledWays(items, flour)),
      ingredientIds: [...blends, ...powders].map((item) => item.ingredient.id),
    });
  }
  return out;
}

function colourFindings(items: readonly Item[], ph: { mid: number; high: number }, measures: Measures, prove: Prove): Finding[] {
  const red = idsOf(items, (item) => item.ingredient.pigments?.includes("anthocyanin") === true);
  const green = idsOf(items, (item) => item.ingredient.pigments?.includes("chlorogenic") === true);
  const out: Finding[] = [];
  if (red.length > 0 && ph.mid > limits.anthocyaninPh) {
    out.push({
      id: "colour-shift",
      severity: "note",
      message: `At pH ${ph.mid.toFixed(1)} red fruit turns mauve to grey-blue.`,
      why: "Anthocyanins are pink below pH 6, mauve near 7 and blue-grey above 7.5.",
      ...prove("colour-shift", (again) => colourWays(items, measures, again)),
      ingredientIds: red,
    });
  }
  if (green.length > 0 && ph.high > limits.chlorogenicPh) {
    out.push({
      id: "colour-shift",
      severity: "note",
      message: "Sunflower seeds and some nuts may turn the crumb green while it cools.",
      why: `Their chlorogenic acid turns green in an alkaline crumb, above about pH 8; this one may reach ${ph.high.toFixed(1)}. It is harmless.`,
      ...prove("colour-shift", (again) => colourWays(items, measures, again)),
      ingredientIds: green,
    });
  }
  return out;
}

const ferments = new Set(["yeast-dry", "yeast-fresh", "sourdough-discard"]);

export const fermentsIn = (items: readonly Item[]): Item[] =>
  items.filter(({ ingredient, massG }) => ferments.has(ingredient.id) && massG > 0);
