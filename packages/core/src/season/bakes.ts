import { type Analysis, readings } from "../balance/readings";
import { CoreError } from "../errors";
import { type Kitchen, openFormula } from "../formula/open";
import type { Formula } from "../formula/formula";
import { labelOf } from "../label/label";
import type { Packet } from "../pantry/packet-schema";
import { findingsOf } from "../trial/remedy";
import { bakeOf, type Outcome } from "../trial/outcome";
import { bakedQualities, leanings } from "./baked-qualities";
import { type Quality, qualityOf } from "./qualities";
import type { Factor, Season, Settings } from "./season-schema";
import { coordinates, formulaAt, settingsFrom } from "./space";

/** Settings with their bake in the computer and what it says of each quality. */
export interface Baked {
  settings: Settings;
  x: number[];
  formula: Formula;
  outcome: Outcome;
  /** The computer's own number, or what is reckoned; null where it has none. */
  means: Map<string, number | null>;
  /** What a tasted quality leans on, not yet standardised. */
  leans: Map<string, number>;
}

/** What a season asks for: what is wished and what must hold. */
export const askedQualities = ({ goals }: Pick<Season, "goals">): Quality[] => goals.map(({ quality }) => qualityOf(quality));

/** Minutes for the oven, where they are a factor. */
export function minutesAt(factors: readonly Factor[], settings: Settings): number | undefined {
  const value = settings[factors.find(({ kind }) => kind === "minutes")?.id ?? ""];
  return typeof value === "number" ? Math.round(value) : undefined;
}

/** Bakes of a season in the computer, each once. */
export function baker(season: Season, kitchen: Kitchen, packets: readonly Packet[]) {
  const asked = askedQualities(season);
  const needsLabel = asked.some(({ id }) => id === "cost" || id === "keeps");
  const known = new Map<string, Baked>();

  /** A formula as it was or would be baked. Throws as `readings`. */
  function bake(settings: Settings, formula: Formula): Baked {
    const minutes = minutesAt(season.factors, settings);
    const key = JSON.stringify([formula.lines.map(({ id, grams }) => [id, grams?.mid]), formula.oven, formula.vessel, formula.process, minutes]); // prettier-ignore
    const before = known.get(key);
    if (before) return before;
    const input = openFormula(formula, kitchen, season.formulaId);
    const outcome = bakeOf(input, kitchen.shelf, minutes);
    const label = needsLabel ? labelOf(input, outcome.analysis, formula.kind, "eu", packets, kitchen.shelf) : null;
    const means = new Map<string, number | null>();
    for (const { id } of asked) {
      if (id === "cost") means.set(id, label?.cost && label.cost.unpriced.length === 0 ? label.cost.batch.mid : null);
      else if (id === "keeps") means.set(id, label?.keeping.counterDays?.mid ?? 0);
      else means.set(id, bakedQualities[id]?.(outcome) ?? null);
    }
    const leans = new Map(asked.flatMap(({ id }) => (leanings[id] ? [[id, leanings[id](outcome)] as const] : [])));
    const made: Baked = { settings, x: coordinates(season.factors, settings), formula, outcome, means, leans };
    known.set(key, made);
    return made;
  }
  const present = settingsFrom(season, season.formula);
  return {
    bake,
    /** What is found of a formula before any oven. Throws as `readings`. */
    judged: (formula: Formula): Analysis => readings(openFormula(formula, kitchen, season.formulaId), kitchen.shelf),
    /** What nothing is said of stays as it is now. */
    at: (settings: Settings): Baked => bake({ ...present, ...settings }, formulaAt(season, settings)),
  };
}
export type Baker = ReturnType<typeof baker>;

/** Bakes judged one at a time, when they are asked for. */
export interface Sieve {
  present: Baked;
  /** The bake at some settings; null where it is not sound. Throws `stopped`. */
  at: (settings: Settings) => Baked | null;
  /** Every sound one that was asked for so far, once: settings whose amounts a scale shows as the same bake are one. */
  sound: () => Baked[];
  /** How many were asked for. */
  asked: () => number;
  /** How many were refused, by why, and the first of each with its settings. */
  unsound: () => { why: string; count: number }[];
  refused: () => { settings: Settings; why: string }[];
}

/** So many reasons are told. */
const MOST_REASONS = 6;

/**
 * The present bake is judged first: what is found of it already is no reason against others. `tell` is told how many were baked, and stops it by true.
 * Throws `stopped`, and as `readings` where the present one cannot be baked.
 */
export function sieveOf(season: Season, bakes: Baker, tell?: (baked: number) => boolean): Sieve {
  const present = bakes.bake(settingsFrom(season, season.formula), season.formula);
  const known = new Set([...findingsOf(present.outcome.analysis), ...findingsOf(bakes.judged(season.formula))]);
  const newIn = ({ findings }: Analysis) => findings.find(({ id, severity }) => severity !== "note" && !known.has(id));
  const why = new Map<string, { id: string; count: number; settings: Settings; why: string }>();
  const judged = new Map<string, Baked | null>();
  const unsound = (id: string, words: string, settings: Settings): null => {
    const before = why.get(id);
    if (before) before.count++;
    else why.set(id, { id, count: 1, settings, why: words });
    return null;
  };
  const judge = (settings: Settings): Baked | null => {
    try {
      // What is wrong before the oven needs none.
      const before = newIn(bakes.judged(formulaAt(season, settings)));
      if (before) return unsound(before.id, before.message, settings);
      const baked = bakes.at(settings);
      const found = newIn(baked.outcome.analysis);
      return found ? unsound(found.id, found.message, settings) : baked;
    } catch (error) {
      if (error instanceof CoreError) return unsound(error.code, error.message, settings);
      throw error;
    }
  };
  const reasons = () => [...why.values()].sort((a, b) => b.count - a.count).slice(0, MOST_REASONS);
  return {
    present,
    at: (settings) => {
      const key = JSON.stringify(settings);
      const before = judged.get(key);
      if (before !== undefined) return before;
      if (tell?.(judged.size)) throw new CoreError("stopped", "The season was stopped before its bakes were chosen.");
      const baked = judge(settings);
      judged.set(key, baked);
      return baked;
    },
    sound: () => [...new Map([...judged.values()].flatMap((one) => (one ? [[JSON.stringify(one.x.map((value) => value.toFixed(3))), one]] : []))).values()],
    asked: () => judged.size,
    unsound: () => reasons().map(({ why: words, count }) => ({ why: words, count })),
    refused: () => reasons().map(({ settings, why: words }) => ({ settings, why: words })),
  };
} // prettier-ignore
