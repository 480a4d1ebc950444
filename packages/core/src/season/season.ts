import { CoreError } from "../errors";
import type { Kitchen } from "../formula/open";
import type { Range } from "../measure/range-schema";
import type { Packet } from "../pantry/packet-schema";
import type { Trial } from "../trial/trial";
import { askedQualities, type Baked, baker, type Baker, minutesAt, sifted } from "./bakes";
import { type Beliefs, beliefsOf, type Logged, type Tasted } from "./beliefs";
import { firstBakes } from "./first-bakes";
import { mapOf } from "./map";
import type { Guess } from "./gaussian";
import { bestOf, frontOf, holdsBy, nextBake } from "./next-bake";
import { type Quality, qualityOf, qualityText } from "./qualities";
import type { Factor, Point, RunState, Season, SeasonRun, SeasonState } from "./season-schema";
import { candidatesOf, changesBetween, isShare, pointOfBake } from "./space";

/** What a season is told with: the log's bakes of this formula, rounds of tasting, packets for what it costs. */
export interface SeasonAsked {
  season: Season;
  trials: readonly { id: string; trial: Trial }[];
  tastings: readonly Tasted[];
  packets: readonly Packet[];
}

/** Points that are judged and baked in the computer before any is proposed. */
const MOST_POINTS = 80;
/** The shares of the work: baking points, then everything else. */
const BAKING = 0.85;

/** A season as it stands: what may be baked, what was, what was learnt, what to bake next. Throws `no-space` where no sound bake is left, `stopped`, and as `readings`. */
export function seasonNow({ season, trials, tastings, packets }: SeasonAsked, kitchen: Kitchen, tell?: (done: number) => boolean): SeasonState {
  const bakes = baker(season, kitchen, packets);
  const points = candidatesOf(season, MOST_POINTS, season.seed);
  if (points.length < 2) throw new CoreError("no-space", "The shares of the blend cannot add up to 100 % within their ranges; wider ranges would be right.", "factors");
  const { sound, unsound, present } = sifted(season, points, bakes, (share) => tell?.(BAKING * share) ?? false);
  if (sound.length < 3)
    throw new CoreError("no-space", `Within these ranges nearly nothing is sound${unsound[0] ? ` (“${unsound[0].why}”)` : ""}; narrower ranges, or other things that move, would be right.`, "factors");
  const logged = loggedOf(season, trials, bakes);
  const qualities = askedQualities(season);
  for (const { id } of qualities)
    if (id === "cost" && present.means.get("cost") === null)
      throw new CoreError("no-space", "What it costs cannot be told: some ingredient has no packet with a price under Store. With a price for each, or without this wish, it can.", "wishes");
  const beliefs = beliefsOf(qualities, logged, tastings, sound, present);
  const scale = new Map(qualities.map(({ id, least }) => [id, least]));
  const { planned, besides } = matched(season, logged);
  const shown = (baked: Baked, more: Partial<RunState>): RunState => runState(season, qualities, baked, present, beliefs, more);
  const runs = [
    ...besides.map((one) => shown(one.baked, { ...fromTrial(one, qualities), id: `log-${one.trialId}`, kind: "logged", why: "It was in the log before: it counts as it stands." })),
    ...planned.map(({ run, log }) => shown(bakes.at(run.point), { ...(log ? fromTrial(log, qualities) : {}), id: run.id, kind: run.kind, block: run.block, why: run.why })),
  ];
  const first = season.runs.length === 0 ? firstBakes(season, sound, present, logged.map(({ baked }) => baked), (share) => tell?.(BAKING + (1 - BAKING) * share) ?? false) : { runs: [], design: null };
  const made = logged.map(({ baked }) => baked);
  const had = made.length > 0 ? made : [present];
  const best = bestOf(season, scale, had, beliefs.plain);
  const open = planned.find(({ log }) => !log)?.run ?? first.runs[0];
  const promised = nextBake(season, scale, sound, had, beliefs.plain);
  const coming = season.runs.length + (season.runs.length === 0 ? first.runs.length : 0);
  const proposed = season.runs.length === 0 ? first.runs : !open && promised && coming + besides.length < season.bakes ? [nextRun(season, promised.baked, present, beliefs)] : [];
  const nextIs = open ? bakes.at(open.point) : (promised?.baked ?? null);
  const nextOne = open ?? proposed[0];
  const done = logged.length;
  return {
    candidates: points.length,
    unsound,
    runs,
    proposed,
    design: first.design,
    learnt: learntOf(season, present, bakes, beliefs),
    now: shown(present, { id: "present", why: "The present bake." }),
    best: best && done > 0 ? shown(best, { id: "best", ...(logged.find(({ baked }) => baked === best) ? { trialId: logged.find(({ baked }) => baked === best)?.trialId } : {}) }) : null,
    next: nextIs && (nextOne || promised) ? { run: shown(nextIs, { id: nextOne?.id ?? "next", kind: nextOne?.kind ?? "next", block: nextOne?.block ?? 0, why: nextOne?.why ?? "" }), ...gainWords(season, promised, scale), holdsBy: holdsBy(season, nextIs, beliefs.plain), words: nextOne?.why ?? "" } : null,
    stop: stopOf(season, done, promised?.gain ?? 0),
    front: season.wishes.length < 2 || done === 0 ? [] : frontOf(season, sound.filter((baked) => holdsBy(season, baked, beliefs.plain) >= 0.5), beliefs.plain).slice(0, 8).map((baked) => ({ point: baked.point, changes: changesBetween(season.factors, present.point, baked.point), expected: expectedAt(qualities, baked, beliefs) })),
    map: mapOf(season, sound, present, beliefs),
    checked: beliefs.checked,
  };
} // prettier-ignore

/** Bakes of the log that belong to the season, the oldest first. One that cannot be baked in the computer teaches nothing here. */
function loggedOf(season: Season, trials: SeasonAsked["trials"], bakes: Baker): Logged[] {
  return [...trials]
    .sort((a, b) => Date.parse(a.trial.at) - Date.parse(b.trial.at))
    .flatMap(({ id, trial }) => {
      if (trial.formulaId !== season.formulaId && trial.formulaId !== undefined) return [];
      const point = (trial.slips?.length ?? 0) > 0 ? null : pointOfBake(season, trial.formula, trial.measured.minutes);
      if (!point) return [];
      try {
        return [{ trialId: id, trial, baked: bakes.bake(point, trial.formula) }];
      } catch (error) {
        if (error instanceof CoreError) return [];
        throw error;
      }
    });
}

/** Which bake of the log was which run: the first one at its point that is not taken yet. */
function matched(season: Season, logged: readonly Logged[]): { planned: { run: SeasonRun; log?: Logged }[]; besides: Logged[] } {
  const taken = new Set<Logged>();
  const planned = season.runs.map((run) => {
    const log = logged.find((one) => !taken.has(one) && changesBetween(season.factors, run.point, one.baked.point).length === 0);
    if (log) taken.add(log);
    return { run, ...(log ? { log } : {}) };
  });
  return { planned, besides: logged.filter((one) => !taken.has(one)) };
}

const fromTrial = ({ trialId, trial }: Logged, qualities: readonly Quality[]): Partial<RunState> => ({
  trialId,
  at: trial.at,
  results: Object.fromEntries(qualities.flatMap((quality) => {
    const value = quality.of(trial);
    return value === null ? [] : [[quality.id, value]];
  })),
}); // prettier-ignore

const asRange = ({ mean, low, high }: Guess): Range => ({ low: Math.min(low, mean), mid: mean, high: Math.max(high, mean) });
const expectedAt = (qualities: readonly Quality[], baked: Baked, beliefs: Beliefs): Record<string, Range> =>
  Object.fromEntries(qualities.map(({ id }) => [id, asRange(beliefs.of(baked, id))]));

function runState(season: Season, qualities: readonly Quality[], baked: Baked, present: Baked, beliefs: Beliefs, more: Partial<RunState>): RunState {
  const minutes = minutesAt(season.factors, baked.point);
  const { cooledMm } = baked.outcome.simulation;
  return {
    id: "",
    kind: "first",
    block: 0,
    why: "",
    point: baked.point,
    changes: changesBetween(season.factors, present.point, baked.point),
    formula: baked.formula,
    ...(minutes === undefined ? {} : { minutes }),
    expected: expectedAt(qualities, baked, beliefs),
    results: {},
    slice: { middleMm: cooledMm.middle, edgeMm: cooledMm.edge, widthMm: baked.outcome.analysis.fill.widthMm },
    ...more,
  };
} // prettier-ignore

/** Why the next bake: what it promises of each wish, and how sure that is. */
function nextRun(season: Season, baked: Baked, present: Baked, beliefs: Beliefs): SeasonRun {
  const changes = changesBetween(season.factors, present.point, baked.point);
  const wishes = season.wishes.map(({ quality }) => {
    const of = qualityOf(quality);
    const { mean, low, high } = beliefs.of(baked, quality);
    return `${of.name.toLowerCase()} ${low.toFixed(of.digits)} to ${qualityText(of, high)} (likeliest ${mean.toFixed(of.digits)})`;
  });
  const several = changes.length > 1 ? ` ${changes.length} things change at once; what each does is known from the bakes before.` : "";
  return { id: `run-${season.runs.length + 1}`, point: baked.point, kind: "next", block: 0, why: `Promises most: ${wishes.join("; ")}.${several}`.slice(0, 600) };
} // prettier-ignore

/** What another bake may gain, in the unit of the first wish where it is one wish, else in steps that are noticed. */
function gainWords(season: Season, promised: { gain: number } | null, scale: ReadonlyMap<string, number>): { gain: number; gainWords: string } {
  const gain = promised?.gain ?? 0;
  const [wish] = season.wishes;
  if (season.wishes.length !== 1 || !wish) return { gain, gainWords: `${gain.toFixed(1)} times the least that anybody notices, over what was baked` };
  const quality = qualityOf(wish.quality);
  return { gain, gainWords: `${qualityText(quality, gain * (scale.get(quality.id) ?? 1))} over the best so far, on the average of what may be` };
} // prettier-ignore

function stopOf(season: Season, done: number, gain: number): SeasonState["stop"] {
  const [wish] = season.wishes;
  const least = wish && season.wishes.length === 1 ? qualityText(qualityOf(wish.quality), qualityOf(wish.quality).least) : "what anybody notices";
  if (done >= 2 && gain < 1 && season.runs.length > 0) return { isTime: true, words: `Another bake would gain less than ${least} over the best so far: stop here, and keep the best.` };
  if (done >= season.bakes) return { isTime: true, words: "All bakes of this season are made. A further one would still promise something; the season can be made longer." };
  return { isTime: false, words: `Another bake promises more than ${least}: go on.` };
} // prettier-ignore

/** What the two ends of every factor differ by, everything else as now. */
function learntOf(season: Season, present: Baked, bakes: Baker, beliefs: Beliefs): SeasonState["learnt"] {
  return season.factors.flatMap((factor) => {
    const ends = endsOf(season.factors, present.point, factor);
    return ends.flatMap(({ from, to, words }) => {
      try {
        const [a, b] = [bakes.at(from), bakes.at(to)];
        return season.wishes.map(({ quality }) => {
          const of = qualityOf(quality);
          const guess = beliefs.between(a, b, quality);
          const sure = guess.low > 0 || guess.high < 0;
          const signed = (value: number): string => `${value >= 0 ? "+" : "−"}${Math.abs(value).toFixed(of.digits)}`;
          return {
            factorId: factor.id,
            quality,
            effect: asRange(guess),
            sure,
            words: `${words}: ${of.name.toLowerCase()} ${signed(guess.low)} to ${signed(guess.high)} ${of.unit}${sure ? "" : "; it may be nothing"}.`,
          };
        });
      } catch (error) {
        if (error instanceof CoreError) return [];
        throw error;
      }
    });
  });
} // prettier-ignore

/** A factor at its two ends with everything else as now: what other shares of a blend lose, they lose in proportion. */
function endsOf(factors: readonly Factor[], present: Point, factor: Factor): { from: Point; to: Point; words: string }[] {
  if (factor.what === "choice")
    return factor.options.slice(1).map(({ name }, k) => ({ from: { ...present, [factor.id]: 0 }, to: { ...present, [factor.id]: k + 1 }, words: `${factor.name}: ${name} in place of ${factor.options[0]?.name}` }));
  const at = (value: number): Point => {
    const out = { ...present, [factor.id]: value };
    if (isShare(factor)) {
      const others = factors.filter((one) => isShare(one) && one !== factor);
      const rest = others.reduce((sum, { id }) => sum + (present[id] ?? 0), 0);
      for (const { id } of others) out[id] = rest > 0 ? ((present[id] ?? 0) * (100 - value)) / rest : (100 - value) / others.length;
    }
    return out;
  };
  const unit = factor.what === "line" ? "g" : factor.what === "share" ? "%" : factor.what === "oven" ? "°C" : "min";
  return [{ from: at(factor.low), to: at(factor.high), words: `${factor.name} from ${Math.round(factor.low * 10) / 10} to ${Math.round(factor.high * 10) / 10} ${unit}` }];
} // prettier-ignore
