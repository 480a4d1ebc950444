import { z } from "zod";
import type { Kind } from "../formula/kinds";
import type { Opened } from "../formula/open";
import type { Shelf } from "../pantry/shelf";
import type { Effect } from "./bench";
import type { Cause } from "./causes";
import { type Clues, clueWords } from "./clues";
import { gramsIn } from "./groups";
import { lossOf, middleOf } from "./measured";
import type { Measured } from "./measured-schema";
import { coreAtOut, type Outcome } from "./outcome";
import { clueWeight, soundClue } from "./sound";
import { symptomOf, symptoms, type SymptomId } from "./symptoms";

export const reasonSchema = z.object({
  what: z.string(),
  value: z.string(),
  /** Natural log of how many times it makes the cause likelier (or, against it, less likely). */
  weight: z.number(),
});
export type Reason = z.infer<typeof reasonSchema>;

/** What an absent symptom tells, as a power of its likelihood: looked for, or not named at all. */
export const LOOKED_FOR = 0.55;
const NOT_NAMED = 0.2;
/** A little of something is half a sign. */
export const SLIGHT = 0.6;
/** The table's own strengths where the simulation shows the cause in this bake. */
const TABLE_BESIDE = 0.55;
/** What is there without a cause is there a little; plainly and strongly it is rarer by so much. */
const LEAK_BY_DEGREE = [1, 1, 0.5, 0.25] as const;
/** What a fact that excludes a cause takes from its log odds. */
const EXCLUDED = -6;
/** How well things are measured and predicted together, one standard deviation. */
const SIGMA = { height: 0.12, coreK: 3, lossPoints: 1.6, ph: 0.4, density: 0.06 };
/** Chance that what the simulation shows in a degree is seen. */
export const shownBy = (degree = 0): number => 1 - Math.exp(-0.8 * degree);

/** Chance that a cause alone brings a symptom in this bake: what the trade knows, and what the simulation shows of it here. */
export function strength(cause: Cause, effect: Effect, id: SymptomId): number {
  const known = cause.does[id] ?? 0;
  if (!effect.outcome) return known;
  const shown = shownBy(effect.appearance[id]);
  return 1 - (1 - TABLE_BESIDE * known) * (1 - 0.9 * shown);
}

/** Log of Student's distribution with four degrees of freedom, without its constant: what lies far from every prediction tells little between them. */
const student = (observed: number, predicted: number, sigma: number): number =>
  -2.5 * Math.log(1 + ((observed - predicted) / sigma) ** 2 / 4);

/** Something that was measured, and what the bake without anything wrong predicts of it. */
export interface Quantity {
  what: string;
  unit: string;
  digits: number;
  observed: number;
  sigma: number;
  without: number;
  of: (outcome: Outcome) => number;
}

export function quantitiesOf(without: Outcome, measured: Measured): Quantity[] {
  const [middle, loss, { coreC, crumbPh, batterDensityGPerMl }] = [middleOf(measured), lossOf(measured), measured];
  const quantity = (what: string, observed: number | null | undefined, unit: string, of: Quantity["of"], sigma: number, digits = 0): Quantity[] =>
    observed === null || observed === undefined ? [] : [{ what, unit, digits, observed, sigma, without: of(without), of }];
  return [
    ...quantity("Height of the middle", middle, "mm", ({ simulation }) => simulation.cooledMm.middle, SIGMA.height * Math.max(10, without.simulation.cooledMm.middle)),
    ...quantity("Core when it came out", coreC, "°C", ({ simulation }) => coreAtOut(simulation), SIGMA.coreK),
    ...quantity("Loss", loss, "%", ({ simulation }) => simulation.loss.oven, SIGMA.lossPoints, 1),
    ...quantity("Crumb pH", crumbPh, "", ({ analysis }) => analysis.lift.ph.mid, SIGMA.ph, 1),
    ...quantity("Density of the batter", batterDensityGPerMl, "g/mL", ({ analysis }) => analysis.body.densityGPerMl, SIGMA.density, 2),
  ];
} // prettier-ignore

/** Log of how much likelier a measurement is by so much beside what the bake without it predicts. Causes that act together move the prediction together. */
export const measuredWeight = ({ observed, sigma, without }: Quantity, moved: number): number =>
  Math.max(-3, Math.min(3, student(observed, without + moved, sigma) - student(observed, without, sigma)));

export const movedBy = (effect: Effect, { of, without }: Quantity): number => (effect.outcome ? of(effect.outcome) - without : 0);

/** What was measured, under a cause beside without it: log likelihoods by quantity. */
export const measuredFor = (effect: Effect, quantities: readonly Quantity[]): Reason[] =>
  quantities.flatMap((one) => {
    const moved = movedBy(effect, one);
    const told = (value: number): string => value.toFixed(one.digits);
    const value = `${told(one.observed)} ${one.unit}; ${told(one.without + moved)} with it, ${told(one.without)} without`.replace(
      "  ",
      " ",
    );
    return moved === 0 ? [] : [{ what: one.what, value, weight: measuredWeight(one, moved) }];
  });

export const degreeWord = (id: SymptomId, degree: number): string =>
  degree === 0 ? "not there" : (symptomOf(id).degrees[degree - 1] ?? "");

/** Whether a bake has what a cause needs. */
export function isPossible({ needs }: Cause, clues: Clues, inputs: readonly Opened[], shelf: Shelf): boolean {
  if (needs === undefined) return true;
  if (needs === "pieces" || needs === "wetPieces" || needs === "pulses") return (clues[needs] ?? 0) > 0;
  return inputs.some((input) => gramsIn(input, needs, shelf) > 0);
}

/**
 * Clues that are measurements which a simulated cause predicts itself: they are held against that, and count once. A strip's word of soda is not among
 * them: kitchens know it apart from what is computed, and without it an oven that explains only the colour stands before the soda that is tasted.
 */
const PREDICTED: ReadonlySet<keyof Clues> = new Set(["coreShortK", "lossRatio"]);

export function clueReasons(cause: Cause, clues: Clues, kind: Kind, isSimulated: boolean): Reason[] {
  const reason = (of: keyof Clues, value: number, weight: number): Reason => {
    const { name, unit, digits } = clueWords[of];
    const { mean } = soundClue(of, kind);
    const told = (number: number): string => `${number.toFixed(digits)} ${unit}`.trim();
    return { what: name, value: `${told(value)}; ${told(mean)} in a sound bake`, weight };
  }; // prettier-ignore
  const excluded = (cause.not ?? []).flatMap(({ of, below = -Infinity, above = Infinity }) => {
    const value = clues[of];
    return value !== undefined && (value < below || value > above) ? [reason(of, value, EXCLUDED)] : [];
  });
  if (excluded.length > 0) return excluded;
  return cause.clues.flatMap((clue) => {
    const value = clues[clue.of];
    return value === undefined || (isSimulated && PREDICTED.has(clue.of))
      ? []
      : [reason(clue.of, value, clueWeight(clue, value, kind))];
  });
}

/** Log likelihood of what was seen, from the chance that nothing brings each symptom (the product over causes, slips and leak). */
export function seenLikelihood(seen: ReadonlyMap<SymptomId, number>, silent: (id: SymptomId) => number, leaks = 1): number {
  let sum = 0;
  for (const { id, leak } of symptoms) {
    const degree = seen.get(id);
    const not = (1 - Math.min(0.6, leak * leaks * (LEAK_BY_DEGREE[degree ?? 0] ?? 1))) * silent(id);
    if (degree === undefined) sum += NOT_NAMED * Math.log(not);
    else if (degree === 0) sum += LOOKED_FOR * Math.log(not);
    else sum += (degree === 1 ? SLIGHT : 1) * Math.log(1 - not);
  }
  return sum;
}
