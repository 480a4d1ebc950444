import { z } from "zod";
import { CoreError } from "../errors";
import type { Kind } from "../formula/kinds";
import type { Opened } from "../formula/open";
import type { Slip } from "../live/events-schema";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { type Appearance, appearanceOf, beyond } from "./appearance";
import { type Cause, causeFamilies, causes } from "./causes";
import { asBaked, recordedFor } from "./as-baked";
import { type Clues, cluesOf, clueWords, type KitchenFacts } from "./clues";
import { deviated } from "./deviation";
import { gramsIn } from "./groups";
import { lossOf, middleOf } from "./measured";
import type { Measured } from "./measured-schema";
import { bakeOf, coreAtOut, type Outcome } from "./outcome";
import { doNext, faultRemedySchema, type OfferedRemedy, remedyFor } from "./remedy";
import { clueWeight, soundClue } from "./sound";
import { symptomOf, symptoms, type SymptomId } from "./symptoms";
import type { Seen } from "./symptoms-schema";

const reasonSchema = z.object({
  what: z.string(),
  value: z.string(),
  /** Natural log of how many times it makes the cause likelier (or, against it, less likely). */
  weight: z.number(),
});
export type Reason = z.infer<typeof reasonSchema>;

export const diagnosisSchema = z.object({
  causes: z.array(
    z.object({
      id: z.string(),
      family: z.enum(causeFamilies),
      words: z.string(),
      probability: z.number(),
      for: z.array(reasonSchema),
      against: z.array(reasonSchema),
      /** What would tell it from the next cause. */
      tell: z.string(),
      experiment: z.string().optional(),
      /** What to do next time, in words. */
      next: z.string(),
      remedy: faultRemedySchema.optional(),
      source: z.string(),
      confidence: z.string(),
    }),
  ),
  /** Chance that nothing was wrong. */
  sound: z.number(),
  /** Chance that nothing on the list explains it. */
  unknown: z.number(),
  /** Symptoms that the likeliest causes leave unexplained. */
  unexplained: z.array(z.string()),
});
export type Diagnosis = z.infer<typeof diagnosisSchema>;

export interface Asked {
  seen: readonly Seen[];
  measured?: Measured | undefined;
  slips?: readonly Slip[] | undefined;
  kitchen?: KitchenFacts | undefined;
}

/** What an absent symptom tells, as a power of its likelihood: looked for, or not named at all. */
const LOOKED_FOR = 0.55;
const NOT_NAMED = 0.2;
/** A little of something is half a sign. */
const SLIGHT = 0.6;
/** The table's own strengths where the simulation shows the cause in this bake. */
const TABLE_BESIDE = 0.55;
/** How often nothing was wrong, beside how often something was (the priors of the causes, about one together); kitchen knowledge, confidence C. */
const SOUND = 2;
/** How often it was something that is not on the list, and how much oftener than by itself a symptom comes then. */
const UNKNOWN = 0.06;
const UNKNOWN_SHOWS = 3;
/** What is there without a cause is there a little; plainly and strongly it is rarer by so much. */
const LEAK_BY_DEGREE = [1, 1, 0.5, 0.25] as const;
/** What a fact that excludes a cause takes from its log odds. */
const EXCLUDED = -6;
/** How well things are measured and predicted together, one standard deviation. */
const SIGMA = { height: 0.12, coreK: 3, lossPoints: 1.6, ph: 0.4, density: 0.06 };
const MOST_SAID = 3;
/** Causes likelier than this are told, and no more than so many; where something was seen, three at least. */
const LEAST_TOLD = 0.02;
const LEAST_MANY = 3;
const MOST_TOLD = 8;
/** Remedies are proven for so many of the causes, where they are at least so likely. */
const REMEDIES_FOR = 4;
const LEAST_MENDED = 0.1;
/** A complaint that the simulation shows in a lesser degree is not its to judge; one that a remedy leaves more of than this share is not mended. */
const LEAST_SHOWN = 0.8;
const MENDED = 0.9;

/** What a cause does to this very bake. */
interface Effect {
  appearance: Appearance;
  outcome: Outcome | null;
}

/** The bake as planned, as it was really made and as long as it really was, and what each cause would make of it. */
class Bench {
  readonly planned: Outcome;
  readonly asBaked: Outcome;
  /** What the slips on record show by themselves, beside the formula as written. */
  readonly shown: Appearance;
  private readonly effects = new Map<string, Effect>();
  private readonly remedies = new Map<string, OfferedRemedy>();
  private bare: Appearance | null = null;
  constructor(
    written: Opened,
    private readonly input: Opened,
    private readonly shelf: Shelf,
    private readonly minutes: number | undefined,
  ) {
    this.planned = bakeOf(written, shelf, undefined);
    const out = minutes ?? (input === written ? undefined : this.planned.simulation.minutes);
    this.asBaked = out === undefined ? this.planned : bakeOf(input, shelf, out);
    this.shown = input === written ? {} : beyond(this.without(), this.looks(minutes === undefined ? this.planned : bakeOf(written, shelf, minutes)));
  } // prettier-ignore
  /** A cause in this bake: what would be seen beyond what is seen without it. */
  effectOf(cause: Cause): Effect {
    const there = this.effects.get(cause.id);
    if (there) return there;
    const found = this.computed(cause) ?? { appearance: {}, outcome: null };
    this.effects.set(cause.id, found);
    return found;
  }
  /** What would mend it, baked again. */
  remedyOf(cause: Cause): OfferedRemedy {
    const there = this.remedies.get(cause.id);
    if (there) return there;
    const found = remedyFor(cause, this.input, this.planned, this.shelf);
    this.remedies.set(cause.id, found);
    return found;
  }
  /** Whether a changed formula, with the same thing gone wrong in it, shows less of what was complained of. What the simulation does not show is the table's word. */
  mends(cause: Cause, after: Opened, complaints: readonly SymptomId[]): boolean {
    const shown = (of: Appearance): number => complaints.reduce((sum, id) => sum + (of[id] ?? 0), 0);
    const before = shown(this.effectOf(cause).appearance);
    // Of what is left out altogether nothing can be changed but that.
    if (!cause.deviation || cause.deviation.by === 0 || before < LEAST_SHOWN) return true;
    const key = `mended ${cause.id}`;
    let then = this.effects.get(key);
    if (!then) {
      try {
        const made = deviated(after, cause.deviation, this.shelf, this.planned.simulation.minutes);
        const outcome = made && bakeOf(made.input, this.shelf);
        then = { appearance: outcome ? beyond(this.looks(outcome), this.without()) : {}, outcome };
      } catch (error) {
        // What cannot be baked any more mends nothing.
        if (error instanceof CoreError) return false;
        throw error;
      }
      this.effects.set(key, then);
    }
    return shown(then.appearance) < MENDED * before;
  }
  private computed({ deviation }: Cause): Effect | null {
    if (!deviation) return null;
    const planned = this.planned.simulation.minutes;
    const baked = this.minutes ?? planned;
    const isTime = deviation.what === "minutes";
    const made = deviated(this.input, deviation, this.shelf, planned);
    if (!made) return null;
    // Whoever took it out at another minute did just that; everything else went otherwise for as long as it was baked.
    const isOther = Math.abs(baked / planned - 1) > 0.04 && deviation.by < 1 === baked < planned;
    const minutes = isTime ? (isOther ? baked : planned * made.minutes) : baked;
    try {
      const outcome = bakeOf(made.input, this.shelf, minutes);
      return { appearance: beyond(this.looks(outcome), isTime ? {} : this.without()), outcome };
    } catch (error) {
      // A batter that is none any more shows nothing; the table's strengths stand for it.
      if (error instanceof CoreError) return null;
      throw error;
    }
  }
  private looks(outcome: Outcome): Appearance {
    return appearanceOf(outcome, this.planned, this.shelf, cluesOf(outcome.input, outcome.analysis, this.shelf, {}));
  }
  private without(): Appearance {
    this.bare ??= this.looks(this.asBaked);
    return this.bare;
  }
}

/** Symptoms are ticked one by one over the same bake: what was baked for it is kept, the oldest let go. */
const known = new Map<string, Bench>();
const KEPT = 8;

function benchOf(written: Opened, input: Opened, shelf: Shelf, minutes: number | undefined): Bench {
  const key = JSON.stringify([
    written,
    input === written ? 0 : input.lines,
    minutes,
    input.lines.map(({ ingredientId }) => shelf.get(ingredientId ?? "")),
  ]);
  let bench = known.get(key);
  if (!bench) {
    bench = new Bench(written, input, shelf, minutes);
    known.set(key, bench);
    const oldest = known.keys().next().value;
    if (known.size > KEPT && oldest !== undefined) known.delete(oldest);
  }
  return bench;
}

/** The bench of what was really made; where that is no batter any more (its flour forgotten, a thing that is not on this shelf), of what was written. */
function benchFor(written: Opened, real: Opened, shelf: Shelf, minutes: number | undefined): Bench {
  if (real === written) return benchOf(written, written, shelf, minutes);
  try {
    return benchOf(written, real, shelf, minutes);
  } catch (error) {
    if (error instanceof CoreError) return benchOf(written, written, shelf, minutes);
    throw error;
  }
}

/** Chance that what the simulation shows in a degree is seen. */
const shownBy = (degree = 0): number => 1 - Math.exp(-0.8 * degree);

/** Chance that a cause alone brings a symptom in this bake: what the trade knows, and what the simulation shows of it here. */
function strength(cause: Cause, effect: Effect, id: SymptomId): number {
  const known = cause.does[id] ?? 0;
  if (!effect.outcome) return known;
  const shown = shownBy(effect.appearance[id]);
  return 1 - (1 - TABLE_BESIDE * known) * (1 - 0.9 * shown);
}

/** Log of Student's distribution with four degrees of freedom, without its constant: what lies far from every prediction tells little between them. */
const student = (observed: number, predicted: number, sigma: number): number =>
  -2.5 * Math.log(1 + ((observed - predicted) / sigma) ** 2 / 4);

/** Something that was measured, and what the bake without anything wrong predicts of it. */
interface Quantity {
  what: string;
  unit: string;
  digits: number;
  observed: number;
  sigma: number;
  without: number;
  of: (outcome: Outcome) => number;
}

function quantitiesOf(without: Outcome, measured: Measured): Quantity[] {
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
const measuredWeight = ({ observed, sigma, without }: Quantity, moved: number): number =>
  Math.max(-3, Math.min(3, student(observed, without + moved, sigma) - student(observed, without, sigma)));

const movedBy = (effect: Effect, { of, without }: Quantity): number => (effect.outcome ? of(effect.outcome) - without : 0);

/** What was measured, under a cause beside without it: log likelihoods by quantity. */
const measuredFor = (effect: Effect, quantities: readonly Quantity[]): Reason[] =>
  quantities.flatMap((one) => {
    const moved = movedBy(effect, one);
    const told = (value: number): string => value.toFixed(one.digits);
    const value = `${told(one.observed)} ${one.unit}; ${told(one.without + moved)} with it, ${told(one.without)} without`.replace(
      "  ",
      " ",
    );
    return moved === 0 ? [] : [{ what: one.what, value, weight: measuredWeight(one, moved) }];
  });

const degreeWord = (id: SymptomId, degree: number): string =>
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

function clueReasons(cause: Cause, clues: Clues, kind: Kind, isSimulated: boolean): Reason[] {
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

/** From this chance on a cause explains a complaint; and how near to the likeliest one that does must come to stand before it. */
const EXPLAINED = 0.25;
const NEARLY = 0.8;

/** The complaint that is plainly there and rarest by itself; null where nothing is. */
function mostTelling(seen: readonly Seen[]): SymptomId | null {
  const plain = seen.filter(({ degree }) => degree >= 2).sort((a, b) => b.degree * -Math.log(symptomOf(b.symptomId).leak) - a.degree * -Math.log(symptomOf(a.symptomId).leak)); // prettier-ignore
  return plain[0]?.symptomId ?? null;
}

/** Log likelihood of what was seen, from the chance that nothing brings each symptom (the product over causes, slips and leak). */
function seenLikelihood(seen: ReadonlyMap<SymptomId, number>, silent: (id: SymptomId) => number, leaks = 1): number {
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

/**
 * What went wrong with a bake: a network of causes and symptoms in which each cause brings a symptom by itself (noisy-or), with up to two causes at
 * work. Strengths are the trade's, moved by what the simulation shows each cause to do to this very bake; clues and measurements are added as log
 * odds. Probabilities are of a cause being at work. Throws as `readings` does.
 */
export function diagnose(input: Opened, asked: Asked, shelf: Shelf = builtInShelf): Diagnosis {
  const { measured = {}, slips = [], kitchen = {} } = asked;
  const real = slips.length > 0 ? asBaked(input, slips) : input;
  const bench = benchFor(input, real, shelf, measured.minutes);
  const { analysis } = bench.asBaked;
  const { kind } = analysis.given;
  const clues = cluesOf(real, analysis, shelf, { measured, kitchen });
  // How hot its middle should be, how long it should have taken and what it should lose are those of the bake as planned.
  const facts = cluesOf(input, bench.planned.analysis, shelf, { measured, kitchen });
  for (const fact of ["coreShortK", "minutesShare", "lossRatio"] as const) if (facts[fact] !== undefined) clues[fact] = facts[fact];
  const seen = new Map(asked.seen.map(({ symptomId, degree }) => [symptomId, degree]));
  const quantities = quantitiesOf(bench.asBaked, measured);
  const complaints = asked.seen.flatMap(({ symptomId, degree }) => (degree > 0 ? [symptomId] : []));
  const silentSlips = new Map(symptoms.map(({ id }) => [id, 1 - 0.9 * shownBy(bench.shown[id])]));
  const unslipped = (id: SymptomId): number => silentSlips.get(id) ?? 1;
  const weighed = causes
    .filter((cause) => isPossible(cause, clues, [input, real], shelf))
    .map((cause) => {
      const effect = bench.effectOf(cause);
      const recorded = slips.length > 0 ? recordedFor(cause, input, real, slips, shelf) : null;
      const reasons = [
        ...(recorded ? [{ what: "On record", ...recorded }] : []),
        ...clueReasons(cause, clues, kind, effect.outcome !== null),
        ...measuredFor(effect, quantities),
      ];
      const brings = new Map(symptoms.map(({ id }) => [id, strength(cause, effect, id)]));
      const odds = Math.log(cause.prior) + reasons.reduce((sum, { weight }) => sum + weight, 0);
      return { cause, reasons, brings, odds, moved: quantities.map((one) => movedBy(effect, one)) };
    });
  const single = weighed.map(
    ({ brings, odds }) => odds + seenLikelihood(seen, (id) => unslipped(id) * (1 - (brings.get(id) ?? 0))),
  );
  const states: { of: number[]; log: number }[] = [
    { of: [], log: Math.log(SOUND) + seenLikelihood(seen, unslipped) },
    { of: [], log: Math.log(UNKNOWN) + seenLikelihood(seen, unslipped, UNKNOWN_SHOWS) },
    ...single.map((log, k) => ({ of: [k], log })),
  ];
  // Two at a time only among those that are worth it alone: a hundredth of the best adds nothing.
  const best = Math.max(...single);
  const hopeful = weighed.flatMap((_, k) => ((single[k] ?? -Infinity) > best - 7 ? [k] : []));
  for (const [n, a] of hopeful.entries())
    for (const b of hopeful.slice(n + 1)) {
      const [x, y] = [weighed[a], weighed[b]];
      if (!x || !y || x.cause.family === y.cause.family) continue;
      const silent = (id: SymptomId): number => unslipped(id) * (1 - (x.brings.get(id) ?? 0)) * (1 - (y.brings.get(id) ?? 0));
      // What the two predict together of each measurement, in place of what each predicts alone.
      const together = quantities.reduce((sum, one, q) => {
        const [by, also] = [x.moved[q] ?? 0, y.moved[q] ?? 0];
        return by === 0 || also === 0
          ? sum
          : sum + measuredWeight(one, by + also) - measuredWeight(one, by) - measuredWeight(one, also);
      }, 0);
      states.push({ of: [a, b], log: x.odds + y.odds + together + seenLikelihood(seen, silent) });
    }
  const top = Math.max(...states.map(({ log }) => log));
  const weights = states.map(({ log }) => Math.exp(log - top));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  const chance = weighed.map(
    (_, k) => states.reduce((sum, { of }, n) => sum + (of.includes(k) ? (weights[n] ?? 0) : 0), 0) / whole,
  );
  const telling = mostTelling(asked.seen);
  const explains = ({ brings }: { brings: ReadonlyMap<SymptomId, number> }): boolean =>
    telling === null || (brings.get(telling) ?? 0) >= EXPLAINED;
  const byChance = weighed.map((one, k) => ({ ...one, probability: chance[k] ?? 0 })).sort((a, b) => b.probability - a.probability);
  // The first cause explains the complaint that tells most, where one that does is nearly as likely.
  const [likeliest] = byChance;
  const instead = likeliest && !explains(likeliest) ? byChance.find((one) => one.probability >= NEARLY * likeliest.probability && explains(one)) : undefined; // prettier-ignore
  const ranked = (instead ? [instead, ...byChance.filter((one) => one !== instead)] : byChance).filter(
    ({ probability }, k) => k < MOST_TOLD && (probability >= LEAST_TOLD || k < (complaints.length > 0 ? LEAST_MANY : 1)),
  );
  const told = ranked.map(({ cause, reasons, brings, probability }, k) => {
    const all = [
      ...reasons,
      ...[...seen].map(([id, degree]): Reason => {
        const { leak, words } = symptomOf(id);
        const not = (1 - leak) * (1 - (brings.get(id) ?? 0));
        const weight = degree === 0 ? LOOKED_FOR * Math.log(not / (1 - leak)) : (degree === 1 ? SLIGHT : 1) * Math.log((1 - not) / leak);
        return { what: words, value: degreeWord(id, degree), weight };
      }),
    ];
    const heaviest = (sign: 1 | -1): Reason[] =>
      all.filter(({ weight }) => sign * weight > 0.15).sort((a, b) => sign * (b.weight - a.weight)).slice(0, MOST_SAID + 1);
    // What is unlikely is told apart first; nothing is proposed for it that was not baked again.
    const offered = k < REMEDIES_FOR && probability >= LEAST_MENDED ? bench.remedyOf(cause) : ({ words: doNext(cause) } as OfferedRemedy);
    const isMended = !offered.input || bench.mends(cause, offered.input, complaints);
    const { words: next, remedy } = isMended ? offered : { words: cause.tell, remedy: undefined };
    return {
      id: cause.id, family: cause.family, words: cause.words, probability, for: heaviest(1), against: heaviest(-1), tell: cause.tell,
      ...(cause.experiment === undefined ? {} : { experiment: cause.experiment }),
      next, ...(remedy ? { remedy } : {}), source: cause.source, confidence: cause.confidence,
    };
  }); // prettier-ignore
  const leading = ranked.filter(({ probability }) => probability > 0.25);
  return {
    causes: told,
    sound: (weights[0] ?? 0) / whole,
    unknown: (weights[1] ?? 0) / whole,
    unexplained: [...seen].flatMap(([id, degree]) =>
      degree >= 2 && leading.every(({ brings }) => (brings.get(id) ?? 0) < 0.2) ? [symptomOf(id).words] : [],
    ),
  };
}
