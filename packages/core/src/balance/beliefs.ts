import type { Simulation } from "../bake/simulation-schema";
import { SODA_MMOL_PER_G } from "../lift/acids";
import { sodaPerGram } from "../lift/charge";
import { gramsText } from "../measure/amounts";
import { builtInShelf } from "../pantry/catalogue";
import { ingredientOf, type Shelf } from "../pantry/shelf";
import { findingLimits as limits } from "./finding";
import type { Analysis } from "./readings";

/** Something that is widely believed, and what this very formula says to it. */
export interface Belief {
  id: "sugar-sets-off" | "any-sour" | "more-powder" | "one-for-one" | "dark-is-done" | "lumps";
  /** Which instrument it arises at. */
  at: "lift" | "bake" | "body";
  belief: string;
  answer: string;
}

/** The beliefs that arise at a formula, each answered with its own numbers; those that have nothing to stand on are left out. */
export function beliefsOf(analysis: Analysis, simulation: Simulation | null, shelf: Shelf = builtInShelf): Belief[] {
  return [...aboutSoda(analysis, shelf), ...aboutPowder(analysis, shelf), ...aboutTheTop(simulation), ...aboutLumps(analysis)];
}

const nameOf = (id: string, shelf: Shelf): string => (shelf.get(id)?.name.split(",")[0] ?? id).toLowerCase();
const isPowder = (id: string, shelf: Shelf): boolean => shelf.get(id)?.leavening?.powder !== undefined;

function aboutSoda({ lift }: Analysis, shelf: Shelf): Belief[] {
  const soda = lift.entries.find(({ ingredientId }) => ingredientId === "soda");
  if (!soda || soda.sodaMmol < 0.5) return [];
  const met = lift.entries
    .filter(({ ingredientId, acidMmol }) => acidMmol > 0.5 && !isPowder(ingredientId, shelf))
    .sort((a, b) => b.acidMmol - a.acidMmol);
  const sweet = lift.entries.filter(({ ingredientId }) => ["sugar", "salt"].includes(shelf.get(ingredientId)?.family ?? ""));
  const sum = (entries: typeof sweet): number => entries.reduce((all, { acidMmol }) => all + acidMmol, 0);
  const out: Belief[] = [
    {
      id: "sugar-sets-off",
      at: "lift",
      belief: "Sugar or salt sets soda off.",
      answer: `Acid does. Of the ${Math.round(soda.sodaMmol)} mmol of soda here ${
        met.length > 0
          ? `${met
              .slice(0, 2)
              .map(({ ingredientId, acidMmol }) => `the ${nameOf(ingredientId, shelf)} meets ${Math.round(acidMmol)}`)
              .join(" and ")}`
          : "nothing is met"
      }; sugar and salt meet ${sum(sweet) < 0.5 ? "none" : `${sum(sweet).toFixed(1)}, by the molasses in brown sugar`}.`,
    },
  ];
  const [first] = met;
  if (first)
    out.push({
      id: "any-sour",
      at: "lift",
      belief: "Any sour liquid meets any soda.",
      answer: `A sour liquid meets what its acid comes to: the ${nameOf(first.ingredientId, shelf)} here ${Math.round(first.acidMmol)} mmol, which is ${gramsText(first.acidMmol / SODA_MMOL_PER_G)} of soda, and there ${gramsText(soda.sodaMmol / SODA_MMOL_PER_G) === gramsText(first.acidMmol / SODA_MMOL_PER_G) ? "is as much" : `are ${gramsText(soda.sodaMmol / SODA_MMOL_PER_G)}`}.`,
    });
  return out;
}

function aboutPowder({ lift, batch }: Analysis, shelf: Shelf): Belief[] {
  const powder = lift.entries.find(({ ingredientId }) => ingredientId !== "soda" && isPowder(ingredientId, shelf));
  const soda = lift.entries.find(({ ingredientId }) => ingredientId === "soda");
  const out: Belief[] = [];
  if (powder && batch.baseG > 0) {
    const ingredient = shelf.get(powder.ingredientId) ?? ingredientOf(builtInShelf, "powder-aluminium-free");
    const grams = powder.sodaMmol / sodaPerGram(ingredient);
    const percent = (100 * grams) / batch.baseG;
    out.push({
      id: "more-powder",
      at: "lift",
      belief: "More powder, more rise.",
      answer: `Up to about ${limits.powderHigh} % of the flour; past that bubbles join and burst before the crumb sets. Here it is ${percent.toFixed(1)} %, and twice as much would be ${(2 * percent).toFixed(1)} %${2 * percent > limits.powderHigh ? ": a sunken middle, not a taller one" : ""}.`,
    });
  }
  const other = powder ?? soda;
  if (other && other.sodaMmol > 1) {
    const usual = ingredientOf(builtInShelf, "powder-aluminium-free");
    const asSoda = other.sodaMmol / SODA_MMOL_PER_G;
    const asPowder = other.sodaMmol / sodaPerGram(usual);
    out.push({
      id: "one-for-one",
      at: "lift",
      belief: "Powder and soda swap one for one.",
      answer: `A gram of soda gives the gas of ${(SODA_MMOL_PER_G / sodaPerGram(usual)).toFixed(1)} g of powder, and wants an acid for it: the ${other === soda ? "soda" : "powder"} here is ${gramsText(asSoda)} of soda or ${gramsText(asPowder)} of powder.`,
    });
  }
  return out;
}

function aboutTheTop(simulation: Simulation | null): Belief[] {
  const golden = simulation?.marks.golden ?? null;
  if (!simulation?.reached || golden === null) return [];
  const at = simulation.times.findIndex((time) => time >= 60 * golden);
  const core = Math.round(simulation.coreC[at] ?? 0);
  if (core >= simulation.targetC - 2) return [];
  return [
    {
      id: "dark-is-done",
      at: "bake",
      belief: "A dark top means a done middle.",
      answer: `Here the top is golden after ${Math.round(golden)} min, when the middle is at ${core} °C; it is done at ${Math.round(simulation.targetC)} °C, after ${Math.round(simulation.minutes)}.`,
    },
  ];
}

function aboutLumps({ given, batch }: Analysis): Belief[] {
  if (
    batch.flourG <= 0 ||
    (given.process.method !== "muffin" && given.process.method !== "one-bowl" && given.process.method !== "whisked")
  )
    return [];
  return [
    {
      id: "lumps",
      at: "body",
      belief: "Lumps must be whisked out; or they must not.",
      answer:
        "Neither. There is no gluten to toughen, so whisking does no harm to the crumb, and lumps of starch swell and vanish in the oven. What whisking costs is gas that is there already: whisk before the leavening goes in.",
    },
  ];
}
