import { z } from "zod";
import type { Opened } from "../formula/open";
import type { Slip } from "../live/events-schema";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { asBaked, recordedFor } from "./as-baked";
import { type Bench, benchFor } from "./bench";
import { type Cause, causeFamilies, causes } from "./causes";
import { type Clues, cluesOf, type KitchenFacts } from "./clues";
import { clueReasons, degreeWord, isPossible, LOOKED_FOR, measuredFor, measuredWeight, movedBy, type Quantity, quantitiesOf, type Reason, reasonSchema, seenLikelihood, shownBy, SLIGHT, strength } from "./evidence"; // prettier-ignore
import type { Measured } from "./measured-schema";
import { doNext, faultRemedySchema, type OfferedRemedy } from "./remedy";
import { symptomOf, symptoms, type SymptomId } from "./symptoms";
import type { Seen } from "./symptoms-schema";

export type { Reason } from "./evidence";

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

/** How often nothing was wrong, beside how often something was (the priors of the causes, about one together); kitchen knowledge, confidence C. */
const SOUND = 2;
/** How often it was something that is not on the list, and how much oftener than by itself a symptom comes then. */
const UNKNOWN = 0.06;
const UNKNOWN_SHOWS = 3;
const MOST_SAID = 3;
/** Causes likelier than this are told, and no more than so many; where something was seen, three at least. */
const LEAST_TOLD = 0.02;
const LEAST_MANY = 3;
const MOST_TOLD = 8;
/** Remedies are proven for so many of the causes, where they are at least so likely. */
const REMEDIES_FOR = 4;
const LEAST_MENDED = 0.1;
/** From this chance on a cause explains a complaint; and how near to the likeliest one that does must come to stand before it. */
const EXPLAINED = 0.25;
const NEARLY = 0.8;

/** The complaint that is plainly there and rarest by itself; null where nothing is. */
function mostTelling(seen: readonly Seen[]): SymptomId | null {
  const plain = seen.filter(({ degree }) => degree >= 2).sort((a, b) => b.degree * -Math.log(symptomOf(b.symptomId).leak) - a.degree * -Math.log(symptomOf(a.symptomId).leak)); // prettier-ignore
  return plain[0]?.symptomId ?? null;
}

/** A cause in this bake: why, which symptoms it brings, and what it moves of each measurement. */
interface Weighed {
  cause: Cause;
  reasons: Reason[];
  brings: ReadonlyMap<SymptomId, number>;
  odds: number;
  moved: number[];
}
/** What was seen by symptom, and the chance that what is on record leaves each unseen. */
interface Sights {
  seen: ReadonlyMap<SymptomId, number>;
  unslipped: (id: SymptomId) => number;
}
interface Case {
  input: Opened;
  real: Opened;
  bench: Bench;
  clues: Clues;
  slips: readonly Slip[];
  quantities: Quantity[];
  shelf: Shelf;
}

/** Every cause that is possible here, with its log odds before anything was seen. */
const weighedCauses = ({ input, real, bench, clues, slips, quantities, shelf }: Case): Weighed[] =>
  causes
    .filter((cause) => isPossible(cause, clues, [input, real], shelf))
    .map((cause) => {
      const effect = bench.effectOf(cause);
      const recorded = slips.length > 0 ? recordedFor(cause, input, real, slips, shelf) : null;
      const reasons = [
        ...(recorded ? [{ what: "On record", ...recorded }] : []),
        ...clueReasons(cause, clues, bench.asBaked.analysis.given.kind, effect.outcome !== null),
        ...measuredFor(effect, quantities),
      ];
      const brings = new Map(symptoms.map(({ id }) => [id, strength(cause, effect, id)]));
      const odds = Math.log(cause.prior) + reasons.reduce((sum, { weight }) => sum + weight, 0);
      return { cause, reasons, brings, odds, moved: quantities.map((one) => movedBy(effect, one)) };
    });

/** A cause this much less likely than the best one alone adds nothing beside another. */
const HOPELESS = 7;

/** Chances that nothing was wrong, that it is nothing on the list, and of each cause being at work, alone or with one of another family. */
function chancesOf(weighed: readonly Weighed[], { seen, unslipped }: Sights, quantities: readonly Quantity[]): { sound: number; unknown: number; of: number[] } {
  const single = weighed.map(({ brings, odds }) => odds + seenLikelihood(seen, (id) => unslipped(id) * (1 - (brings.get(id) ?? 0))));
  const states: { of: number[]; log: number }[] = [
    { of: [], log: Math.log(SOUND) + seenLikelihood(seen, unslipped) },
    { of: [], log: Math.log(UNKNOWN) + seenLikelihood(seen, unslipped, UNKNOWN_SHOWS) },
    ...single.map((log, k) => ({ of: [k], log })),
  ];
  const best = Math.max(...single);
  const hopeful = weighed.flatMap((_, k) => ((single[k] ?? -Infinity) > best - HOPELESS ? [k] : []));
  for (const [n, a] of hopeful.entries())
    for (const b of hopeful.slice(n + 1)) {
      const [x, y] = [weighed[a], weighed[b]];
      if (!x || !y || x.cause.family === y.cause.family) continue;
      const silent = (id: SymptomId): number => unslipped(id) * (1 - (x.brings.get(id) ?? 0)) * (1 - (y.brings.get(id) ?? 0));
      states.push({ of: [a, b], log: x.odds + y.odds + togetherOf(x, y, quantities) + seenLikelihood(seen, silent) });
    }
  const top = Math.max(...states.map(({ log }) => log));
  const weights = states.map(({ log }) => Math.exp(log - top));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  return {
    sound: (weights[0] ?? 0) / whole,
    unknown: (weights[1] ?? 0) / whole,
    of: weighed.map((_, k) => states.reduce((sum, { of }, n) => sum + (of.includes(k) ? (weights[n] ?? 0) : 0), 0) / whole),
  };
} // prettier-ignore

/** What two causes predict together of each measurement, in place of what each predicts alone; log likelihood. */
const togetherOf = (x: Weighed, y: Weighed, quantities: readonly Quantity[]): number =>
  quantities.reduce((sum, one, q) => {
    const [by, also] = [x.moved[q] ?? 0, y.moved[q] ?? 0];
    return by === 0 || also === 0
      ? sum
      : sum + measuredWeight(one, by + also) - measuredWeight(one, by) - measuredWeight(one, also);
  }, 0);

type Ranked = Weighed & { probability: number };

/** The likeliest first; but the first cause explains the complaint that tells most, where one that does is nearly as likely. */
function rankedBy(weighed: readonly Weighed[], chances: readonly number[], asked: readonly Seen[]): Ranked[] {
  const telling = mostTelling(asked);
  const explains = ({ brings }: Weighed): boolean => telling === null || (brings.get(telling) ?? 0) >= EXPLAINED;
  const byChance = weighed.map((one, k) => ({ ...one, probability: chances[k] ?? 0 })).sort((a, b) => b.probability - a.probability);
  const [likeliest] = byChance;
  const instead = likeliest && !explains(likeliest) ? byChance.find((one) => one.probability >= NEARLY * likeliest.probability && explains(one)) : undefined;
  const least = asked.some(({ degree }) => degree > 0) ? LEAST_MANY : 1;
  return (instead ? [instead, ...byChance.filter((one) => one !== instead)] : byChance).filter(({ probability }, k) => k < MOST_TOLD && (probability >= LEAST_TOLD || k < least));
} // prettier-ignore

/** A cause as it is told: the heaviest reasons on both sides, and what to do, where that was baked again and mends. */
function toldOf({ cause, reasons, brings, probability }: Ranked, place: number, bench: Bench, seen: Sights["seen"], complaints: readonly SymptomId[]): Diagnosis["causes"][number] {
  const bySight = [...seen].map(([id, degree]): Reason => {
    const { leak, words } = symptomOf(id);
    const not = (1 - leak) * (1 - (brings.get(id) ?? 0));
    const weight = degree === 0 ? LOOKED_FOR * Math.log(not / (1 - leak)) : (degree === 1 ? SLIGHT : 1) * Math.log((1 - not) / leak);
    return { what: words, value: degreeWord(id, degree), weight };
  });
  const all = [...reasons, ...bySight];
  const heaviest = (sign: 1 | -1): Reason[] =>
    all.filter(({ weight }) => sign * weight > 0.15).sort((a, b) => sign * (b.weight - a.weight)).slice(0, MOST_SAID + 1);
  // What is unlikely is told apart first; nothing is proposed for it that was not baked again.
  const offered = place < REMEDIES_FOR && probability >= LEAST_MENDED ? bench.remedyOf(cause) : ({ words: doNext(cause) } as OfferedRemedy);
  const isMended = !offered.input || bench.mends(cause, offered.input, complaints);
  const { words: next, remedy } = isMended ? offered : { words: cause.tell, remedy: undefined };
  return {
    id: cause.id, family: cause.family, words: cause.words, probability, for: heaviest(1), against: heaviest(-1), tell: cause.tell,
    ...(cause.experiment === undefined ? {} : { experiment: cause.experiment }),
    next, ...(remedy ? { remedy } : {}), source: cause.source, confidence: cause.confidence,
  };
} // prettier-ignore

/**
 * What went wrong with a bake: a network of causes and symptoms in which each cause brings a symptom by itself (noisy-or), with up to two causes at
 * work. Strengths are the trade's, moved by what the simulation shows each cause to do to this very bake; clues and measurements are added as log
 * odds. Probabilities are of a cause being at work. Throws as `readings` does.
 */
export function diagnose(input: Opened, asked: Asked, shelf: Shelf = builtInShelf): Diagnosis {
  const { measured = {}, slips = [], kitchen = {} } = asked;
  const real = slips.length > 0 ? asBaked(input, slips) : input;
  const bench = benchFor(input, real, shelf, measured.minutes);
  const clues = cluesOf(real, bench.asBaked.analysis, shelf, { measured, kitchen });
  // How hot its middle should be, how long it should have taken and what it should lose are those of the bake as planned.
  const facts = cluesOf(input, bench.planned.analysis, shelf, { measured, kitchen });
  for (const fact of ["coreShortK", "minutesShare", "lossRatio"] as const) if (facts[fact] !== undefined) clues[fact] = facts[fact];
  const seen = new Map(asked.seen.map(({ symptomId, degree }) => [symptomId, degree]));
  const quantities = quantitiesOf(bench.asBaked, measured);
  const complaints = asked.seen.flatMap(({ symptomId, degree }) => (degree > 0 ? [symptomId] : []));
  const silentSlips = new Map(symptoms.map(({ id }) => [id, 1 - 0.9 * shownBy(bench.shown[id])]));
  const weighed = weighedCauses({ input, real, bench, clues, slips, quantities, shelf });
  const { sound, unknown, of } = chancesOf(weighed, { seen, unslipped: (id) => silentSlips.get(id) ?? 1 }, quantities);
  const ranked = rankedBy(weighed, of, asked.seen);
  const leading = ranked.filter(({ probability }) => probability > 0.25);
  return {
    causes: ranked.map((one, k) => toldOf(one, k, bench, seen, complaints)),
    sound,
    unknown,
    unexplained: [...seen].flatMap(([id, degree]) => (degree >= 2 && leading.every(({ brings }) => (brings.get(id) ?? 0) < 0.2) ? [symptomOf(id).words] : [])),
  };
} // prettier-ignore
