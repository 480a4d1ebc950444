import { CoreError } from "../errors";
import { gramsOf, isWeighed } from "../formula/components";
import type { Formula } from "../formula/formula";
import type { Kitchen } from "../formula/open";
import { exactly } from "../measure/range";
import type { Range } from "../measure/range-schema";
import { costOf } from "../label/cost";
import type { Packet } from "../pantry/packet-schema";
import { asBaked } from "../trial/as-baked";
import type { Trial } from "../trial/trial";
import { askedQualities, type Baked, baker, type Baker, minutesAt, sieveOf } from "./bakes";
import { type Beliefs, beliefsOf, type Made } from "./beliefs";
import { firstBakes } from "./first-bakes";
import type { Guess } from "./gaussian";
import { mapOf } from "./map";
import { bestOf, frontOf, holdsBy, nextBake, wishesOf } from "./next-bake";
import { type Liking, likingsOf } from "./preference";
import { type Quality, qualityOf, qualityText } from "./qualities";
import type { Factor, RunState, Season, SeasonRun, SeasonState, Settings } from "./season-schema";
import { candidatesOf, changesBetween, factorName, isNamed, lineOf, numberAt, optionsOf, panOf, settingsOfBake, sharesOf } from "./space"; // prettier-ignore

/** A round of blind tasting as the store keeps it. */
export interface Tasted {
  samples: readonly { trialId?: string | undefined }[];
  tasters: readonly { scores: readonly (number | null)[] }[];
}
/** What a season is told with: the log's bakes, rounds of tasting, packets for what it costs; or results by run, as they come from elsewhere. */
export interface SeasonAsked {
  season: Season;
  trials: readonly { id: string; trial: Trial }[];
  tastings: readonly Tasted[];
  packets: readonly Packet[];
  results?: readonly SeasonResult[];
  /** Bakes that were made before, by their settings. */
  done?: readonly { settings: Settings; values?: Record<string, number> | undefined }[];
}
/** What came out of a run, by quality, and which runs it was liked more than. */
export interface SeasonResult {
  runId: string;
  values: Record<string, number>;
  preferredTo?: readonly string[] | undefined;
}
type Tell = (done: number) => boolean;

/** Bakes that are judged and made in the computer before any is proposed. */
const MOST_POINTS = 80;
/** With fewer sound ones there is nothing to choose from. */
const FEWEST = 3;
/** The shares of the work: baking them, then everything else. */
const BAKING = 0.85;
const FRONT_MOST = 8;
/** What must hold may fail as often before a bake is no choice. */
const HOLDS = 0.5;

/** A run that is proposed or planned, and the bake that it became. */
interface Planned {
  run: SeasonRun;
  made?: Made;
}

/**
 * A season as it stands: what may be baked, what was, what was learnt, what to bake next, when to stop. Ranges hold 90 %. Throws `no-space` where no sound
 * bake is left, `stopped`, and as `readings`.
 */
export function seasonNow(asked: SeasonAsked, kitchen: Kitchen, tell?: Tell): SeasonState {
  const { season, packets } = asked;
  unmovable(season);
  const bakes = baker(season, kitchen, packets);
  const points = candidatesOf(season, MOST_POINTS, season.seed);
  if (points.length < 2) throw new CoreError("no-space", "The shares of the blend cannot add up to 100 % within their ranges; wider ranges would be right.", "factors");
  const sieve = sieveOf(season, bakes, (baked) => tell?.((BAKING * baked) / points.length) ?? false);
  const { present } = sieve;
  const qualities = askedQualities(season);
  if (qualities.some(({ id }) => id === "cost") && present.means.get("cost") === null)
    throw new CoreError("no-space", "What it costs cannot be told: some ingredient has no packet with a price under Store. With a price for each, or without this wish, it can.", "goals");
  const before = (asked.done ?? []).map(({ settings, values = {} }, k): Made => ({ id: `done-${k + 1}`, baked: bakes.at(settings), values: new Map(Object.entries(values)), block: null }));
  const logged = [...before, ...fromLog(season, asked.trials, bakes, qualities)];
  const chosen = season.runs.length > 0 ? null : firstBakes(season, points, sieve, logged.map(({ baked }) => baked));
  // Where the log tells enough already, the first bakes are those that promise most: of all that may be.
  const first = chosen && chosen.runs.length > 0 ? chosen : null;
  for (const settings of first ? endsAround(season, present) : points) sieve.at(settings);
  // Where the few that were chosen are too few to say so, all of them are asked.
  if (sieve.sound().length < FEWEST) for (const settings of points) sieve.at(settings);
  const sound = sieve.sound();
  if (sound.length < FEWEST)
    throw new CoreError("no-space", `Within these ranges nearly nothing is sound${sieve.unsound()[0] ? ` (“${sieve.unsound()[0]?.why}”)` : ""}; narrower ranges, or other things that move, would be right.`, "factors");
  const planned = first ? matched(season, first.runs, [], bakes, asked.results ?? []) : matched(season, season.runs, logged.filter(({ at }) => season.since === undefined || at === undefined || at >= Date.parse(season.since)), bakes, asked.results ?? []);
  const made = [...logged, ...planned.flatMap(({ made: one }) => (one && !logged.includes(one) ? [one] : []))];
  const beliefs = beliefsOf(qualities, made, [...fromTastings(asked.tastings, made), ...fromResults(asked.results ?? [], made)], sound, present);
  const scale = new Map(qualities.map(({ id, least }) => [id, least]));
  const had = made.length > 0 ? made.map(({ baked }) => baked) : [present];
  const shown = (baked: Baked, more: Partial<RunState>): RunState => runState(season, qualities, baked, present, beliefs, more);
  const withMade = (one: Made | undefined): Partial<RunState> => (one ? { ...told(one, asked.trials), results: Object.fromEntries(one.values) } : {});
  const asRun = ({ run, made: one }: Planned): RunState => shown(one?.baked ?? bakes.at(run.settings), { ...run, ...withMade(one) });
  const besides = logged.filter((one) => !planned.some((run) => run.made === one));
  const promised = nextBake(season, scale, sound, had, beliefs.plain);
  const open = planned.find(({ made: one }) => !one);
  const isFull = planned.length >= season.bakes;
  const coming: Planned | null = open ?? (promised ? { run: nextRun(season, planned.length, promised.baked, present, beliefs) } : null);
  const best = made.length > 0 ? bestOf(season, scale, had, beliefs.plain) : null;
  const proposed = first ? planned : !open && coming && !isFull ? [coming] : [];
  return {
    candidates: points.length,
    unsound: sieve.unsound(),
    refused: sieve.refused(),
    runs: [
      ...besides.map((one) => shown(one.baked, { ...withMade(one), id: `log-${one.id}`, kind: "logged", why: "It is in the log and of this recipe: it counts as it stands." })),
      ...(first ? planned.filter(({ made: one }) => one) : planned).map(asRun),
    ],
    proposed: proposed.map(asRun),
    design: first?.design ?? null,
    learnt: learntOf(season, present, bakes, beliefs),
    now: shown(present, { id: "present", why: "The present bake." }),
    best: best ? shown(best, { id: "best", ...withMade(made.find(({ baked }) => baked === best)) }) : null,
    next: coming ? { run: asRun(coming), ...gainOf(season, promised?.gain ?? 0, scale), holdsBy: holdsBy(season, bakes.at(coming.run.settings), beliefs.plain), ...takesOf(bakes.at(coming.run.settings), packets) } : null,
    stop: stopOf(season, first ? null : planned, promised?.gain ?? 0),
    front: wishesOf(season).length < 2 || made.length === 0 ? [] : frontOf(season, sound.filter((baked) => holdsBy(season, baked, beliefs.plain) >= HOLDS), beliefs.plain).slice(0, FRONT_MOST).map((baked, k) => shown(baked, { id: `front-${k + 1}`, kind: "next" })),
    map: mapOf(season, sound, present, beliefs),
    model: beliefs.model,
  };
} // prettier-ignore

/** Throws `no-space` for a factor that moves nothing: no such line, no such pan. */
function unmovable({ formula, factors }: Season): void {
  for (const [k, factor] of factors.entries()) {
    if ((factor.kind === "amount" || factor.kind === "share") && !lineOf(formula, factor))
      throw new CoreError("no-space", `No weighed line of the formula is “${factor.lineId ?? factor.ingredientId}”; one of its ingredients would be right.`, `factors.${k}.ingredientId`);
    const strange = factor.kind === "pan" ? optionsOf(factor).find((name) => !panOf(factor, name)) : undefined;
    if (strange !== undefined) throw new CoreError("no-space", `No pan is called “${strange}”; one of GET /api/vessels, or a name with its measures, would be right.`, `factors.${k}.options`);
  }
} // prettier-ignore

/** The formula as it was really baked: amounts that went in otherwise, things left out or swapped. */
const bakedFormula = ({ formula, slips = [] }: Trial): Formula =>
  slips.length === 0 ? formula : { ...formula, lines: asBaked(formula, slips).lines.map((line, k) => ({ ...line, id: line.id ?? `slip-${k}`, grams: typeof line.grams === "number" ? exactly(line.grams) : line.grams })) as Formula["lines"] }; // prettier-ignore

/** Bakes of the log that belong to the season, the oldest first. Slips count as what was really weighed; one that cannot be baked in the computer teaches nothing here. */
function fromLog(season: Season, trials: SeasonAsked["trials"], bakes: Baker, qualities: readonly Quality[]): Made[] {
  return [...trials]
    .sort((a, b) => Date.parse(a.trial.at) - Date.parse(b.trial.at))
    .flatMap(({ id, trial }): Made[] => {
      if (season.formulaId !== undefined && trial.formulaId !== season.formulaId) return [];
      const formula = bakedFormula(trial);
      const settings = settingsOfBake(season, formula, trial.measured.minutes);
      if (!settings) return [];
      const values = new Map(qualities.flatMap((quality) => {
        const value = quality.of(trial);
        return value === null ? [] : [[quality.id, value] as const];
      }));
      try {
        return [{ id, baked: bakes.bake(settings, formula), values, at: Date.parse(trial.at), block: season.blocks?.by === "oven" ? (trial.ovenId ?? null) : trial.at.slice(0, 10) }];
      } catch (error) {
        if (error instanceof CoreError) return [];
        throw error;
      }
    });
} // prettier-ignore

/** Which bake of the log was which run: the first one at its settings that is not taken yet; or what was said of the run itself. */
function matched(season: Season, runs: readonly SeasonRun[], logged: readonly Made[], bakes: Baker, results: readonly SeasonResult[]): Planned[] {
  const taken = new Set<Made>();
  return runs.map((run) => {
    const said = results.find(({ runId }) => runId === run.id);
    if (said) return { run, made: { id: run.id, baked: bakes.at(run.settings), values: new Map(Object.entries(said.values)), block: season.blocks ? String(run.block) : null } };
    const made = logged.find((one) => !taken.has(one) && changesBetween(season.factors, run.settings, one.baked.settings).length === 0);
    if (made) taken.add(made);
    return { run, ...(made ? { made } : {}) };
  });
} // prettier-ignore

const told = ({ id }: Made, trials: SeasonAsked["trials"]): Partial<RunState> => {
  const trial = trials.find((one) => one.id === id)?.trial;
  return trial ? { trialId: id, at: trial.at } : {};
};

/** Who liked which bake more, from rounds whose samples are bakes of the season. */
function fromTastings(tastings: readonly Tasted[], made: readonly Made[]): Liking[] {
  const place = new Map(made.map(({ id }, k) => [id, k]));
  return tastings.flatMap(({ samples, tasters }) => {
    const at = samples.map(({ trialId }) => place.get(trialId ?? "") ?? -1);
    return tasters.flatMap(({ scores }) => likingsOf(scores, at)).filter(({ more, less }) => more >= 0 && less >= 0);
  });
}
const fromResults = (results: readonly SeasonResult[], made: readonly Made[]): Liking[] => {
  const place = new Map(made.map(({ id }, k) => [id, k]));
  return results.flatMap(({ runId, preferredTo = [] }) => preferredTo.flatMap((other) => {
    const [more, less] = [place.get(runId), place.get(other)];
    return more === undefined || less === undefined || more === less ? [] : [{ more, less }];
  }));
}; // prettier-ignore

/** A tasted quality lies between 0 and 1, whatever the model's line does. */
const within = (value: number, { how }: Quality): number => (how === "tasted" ? Math.min(1, Math.max(0, value)) : value);
const asRange = ({ mean, low, high }: Guess, quality?: Quality): Range => {
  const at = (value: number): number => (quality ? within(value, quality) : value);
  return { low: at(Math.min(low, mean)), mid: at(mean), high: at(Math.max(high, mean)) };
};

function runState(season: Season, qualities: readonly Quality[], baked: Baked, present: Baked, beliefs: Beliefs, more: Partial<RunState>): RunState {
  const minutes = minutesAt(season.factors, baked.settings);
  // The text that the formula came from is the season's own, once.
  const { pasted: _, ...formula } = baked.formula;
  const { cooledMm } = baked.outcome.simulation;
  return {
    id: "",
    kind: "first",
    block: 0,
    why: "",
    settings: baked.settings,
    changes: changesBetween(season.factors, present.settings, baked.settings),
    formula,
    ...(minutes === undefined ? {} : { minutes }),
    expected: Object.fromEntries(qualities.map((quality) => [quality.id, asRange(beliefs.of(baked, quality.id), quality)])),
    results: {},
    slice: { middleMm: cooledMm.middle, edgeMm: cooledMm.edge, widthMm: baked.outcome.analysis.fill.widthMm },
    ...more,
  };
} // prettier-ignore

/** Why the next bake: what it promises of each wish, and how sure that is. */
function nextRun(season: Season, before: number, baked: Baked, present: Baked, beliefs: Beliefs): SeasonRun {
  const changes = changesBetween(season.factors, present.settings, baked.settings);
  const wishes = wishesOf(season).map(({ quality }) => {
    const of = qualityOf(quality);
    const { mean, low, high } = beliefs.of(baked, quality);
    return `${of.name.toLowerCase()} ${low.toFixed(of.digits)} to ${qualityText(of, high)} (likeliest ${mean.toFixed(of.digits)})`;
  });
  const several = changes.length > 1 ? ` ${changes.length} things change at once; all bakes together tell what each of them does.` : "";
  return { id: `run-${before + 1}`, settings: baked.settings, kind: "next", block: season.blocks ? Math.floor(before / season.blocks.size) : 0, why: `Promises most: ${wishes.join("; ")}.${several}`.slice(0, 600) };
} // prettier-ignore

/** What a bake takes: minutes in the oven, and money where everything in it has a price. */
function takesOf({ outcome: { simulation, input } }: Baked, packets: readonly Packet[]): { minutes: number; cost: { amount: number; currency: string } | null } {
  const needs = input.lines.filter(isWeighed).map((line) => ({ ingredientId: line.ingredientId, grams: gramsOf(line) }));
  const cost = costOf(needs, packets, 1, 1);
  return { minutes: simulation.done.mid, cost: cost && cost.unpriced.length === 0 ? { amount: cost.batch.mid, currency: cost.currency } : null };
} // prettier-ignore

/** The only wish; null where several share the work. */
function onlyWish(season: Season): Quality | null {
  const wishes = wishesOf(season);
  return wishes.length === 1 && wishes[0] ? qualityOf(wishes[0].quality) : null;
}

/** What another bake may gain, in the unit of the wish where it is one, else in steps that are noticed. */
function gainOf(season: Season, gain: number, scale: ReadonlyMap<string, number>): { gain: number; gainWords: string } {
  const quality = onlyWish(season);
  if (!quality) return { gain, gainWords: `${gain.toFixed(1)} times the least that anybody notices, over what was baked` };
  return { gain, gainWords: `${qualityText(quality, gain * (scale.get(quality.id) ?? 1))} over the best so far, on the average of what may be` };
} // prettier-ignore

/** Whether another bake is worth it: not before the first ones have told what they were chosen for. `planned` is null while none is taken. */
function stopOf(season: Season, planned: readonly Planned[] | null, gain: number): SeasonState["stop"] {
  const quality = onlyWish(season);
  const least = quality ? qualityText(quality, quality.least) : "what anybody notices";
  const goOn = (words: string): SeasonState["stop"] => ({ isTime: false, words });
  if (!planned) return goOn("What the computer promises is not held against this kitchen yet: that is what the first bakes are for.");
  const open = planned.filter(({ run, made }) => run.kind !== "next" && !made).length;
  if (open > 0) return goOn(`${open} of the first bakes ${open === 1 ? "is" : "are"} still to come: what they tell comes before what is promised.`);
  if (gain < 1) return { isTime: true, words: `Another bake would gain less than ${least} over the best so far: stop here, and keep the best.` };
  if (planned.filter(({ made }) => made).length >= season.bakes) return { isTime: true, words: "All bakes of this season are made. A further one would still promise something; the season can be made longer." };
  return goOn(`Another bake promises more than ${least}: go on.`);
} // prettier-ignore

/** What the two ends of every factor differ by, everything else as now. */
function learntOf(season: Season, present: Baked, bakes: Baker, beliefs: Beliefs): SeasonState["learnt"] {
  return season.factors.flatMap((factor) =>
    endsOf(season.factors, present.settings, factor).flatMap(({ from, to, words }) => {
      try {
        const [a, b] = [bakes.at(from), bakes.at(to)];
        return wishesOf(season).map(({ quality }) => {
          const of = qualityOf(quality);
          const guess = beliefs.between(a, b, quality);
          const sure = guess.low > 0 || guess.high < 0;
          const signed = (value: number): string => `${value >= 0 ? "+" : "−"}${Math.abs(value).toFixed(of.digits)}`;
          return { factorId: factor.id, quality, effect: asRange(guess), sure, words: `${words}: ${of.name.toLowerCase()} ${signed(guess.low)} to ${signed(guess.high)}${of.unit === "" ? "" : ` ${of.unit}`}${sure ? "" : "; it may be nothing"}.` };
        });
      } catch (error) {
        // An end that cannot be baked tells nothing.
        if (error instanceof CoreError) return [];
        throw error;
      }
    }),
  );
} // prettier-ignore

const unitOf: Record<Factor["kind"], string> = {
  amount: "g",
  share: "%",
  oven: "°C",
  minutes: "min",
  rest: "min",
  pan: "",
  method: "",
};

/** Every factor at both of its ends, everything else as now. */
const endsAround = ({ factors }: Season, present: Baked): Settings[] =>
  factors.flatMap((factor) => endsOf(factors, present.settings, factor).flatMap(({ from, to }) => [from, to]));

/** A factor at its two ends with everything else as now: what other shares of a blend lose, they lose in proportion. */
function endsOf(factors: readonly Factor[], present: Settings, factor: Factor): { from: Settings; to: Settings; words: string }[] {
  const name = factorName(factor);
  if (isNamed(factor)) {
    const [first = "", ...others] = optionsOf(factor);
    return others.map((other) => ({ from: { ...present, [factor.id]: first }, to: { ...present, [factor.id]: other }, words: `${name}: ${other} in place of ${first}` }));
  }
  const at = (value: number): Settings => {
    const out = { ...present, [factor.id]: value };
    if (factor.kind !== "share") return out;
    const others = sharesOf(factors).filter((one) => one !== factor);
    const rest = others.reduce((sum, one) => sum + numberAt(present, one), 0);
    for (const one of others) out[one.id] = rest > 0 ? (numberAt(present, one) * (100 - value)) / rest : (100 - value) / others.length;
    return out;
  };
  const { low = 0, high = 0 } = factor;
  const said = (value: number): string => String(Math.round(value * 10) / 10);
  return [{ from: at(low), to: at(high), words: `${name} from ${said(low)} to ${said(high)} ${unitOf[factor.kind]}` }];
} // prettier-ignore
