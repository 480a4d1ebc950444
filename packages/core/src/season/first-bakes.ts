import { seeded } from "../random";
import { blocked, dEfficiencyOf, type DesignAsked, optimalDesign } from "./optimal";
import type { Baked, Sieve } from "./bakes";
import type { Factor, Season, SeasonRun, SeasonState, Settings } from "./season-schema";
import { changesBetween, coordinates, factorName, isNamed, optionsOf, sharesOf } from "./space";

/** Terms of the model that a design is made for: what a factor does by itself is asked for, bends and pairs only weigh in. */
export interface Terms {
  names: string[];
  /** 0 for what must be told, more for what may matter. */
  ridge: number[];
  row: (x: readonly number[]) => number[];
  /** The factor of each main effect by the place of its column. */
  mains: { factorId: string; at: number }[];
}

/** How far bends and pairs are believed against what a factor does by itself. Source: the choice of DuMouchel and Jones, τ = 1. */
const MAY_MATTER = 1;

/** Columns: 1, what moves, pairs, squares. Shares add up, so the last share of the blend follows from the others. */
export function termsOf(factors: readonly Factor[]): Terms {
  const lastShare = sharesOf(factors).at(-1);
  let place = 0;
  const columns = factors.flatMap((factor) => {
    const count = isNamed(factor) ? optionsOf(factor).length - 1 : 1;
    const mine = Array.from({ length: count }, (_, k) => ({ factor, at: place + k, bends: !isNamed(factor) }));
    place += count;
    return factor === lastShare ? [] : mine;
  });
  const pairs = columns.flatMap((a, i) => columns.slice(i + 1).flatMap((b) => (a.factor === b.factor ? [] : [[a, b] as const])));
  const squares = columns.filter(({ bends }) => bends);
  return {
    names: ["mean", ...columns.map(({ factor }) => factorName(factor)), ...pairs.map(([a, b]) => `${factorName(a.factor)} × ${factorName(b.factor)}`), ...squares.map(({ factor }) => `${factorName(factor)}²`)],
    ridge: [...[0, ...columns].map(() => 0), ...[...pairs, ...squares].map(() => 1 / MAY_MATTER ** 2)],
    row: (x) => [1, ...columns.map(({ at }) => x[at] ?? 0), ...pairs.map(([a, b]) => (x[a.at] ?? 0) * (x[b.at] ?? 0)), ...squares.map(({ at }) => (x[at] ?? 0) ** 2)],
    mains: columns.map(({ factor }, k) => ({ factorId: factor.id, at: 1 + k })),
  };
} // prettier-ignore

/** What is left of the season's bakes for learning one from the other, once the first are made. */
const FIRST_SHARE = 0.6;
/** With fewer factors the map is asked for, with more of them the effects. */
const MAP_UP_TO = 3;
/** From so many first bakes on, one of them is made twice: what two of one kind differ by is the noise that all else is held against. */
const REPEAT_FROM = 5;
/** Two effects whose columns agree so far are not told apart. */
const TOGETHER = 0.9;

/** How many bakes are chosen at once, before any of them speaks. */
export const firstCount = ({ bakes, factors }: Pick<Season, "bakes" | "factors">, done: number): number => {
  const needed = termsOf(factors).mains.length + 2;
  return Math.max(0, Math.min(bakes, Math.max(needed, Math.round(FIRST_SHARE * bakes))) - done);
};

export interface FirstBakes {
  runs: SeasonRun[];
  design: SeasonState["design"];
}

/** Correlation of two columns over rows; 0 where one of them never moves. */
function agreement(rows: readonly (readonly number[])[], a: number, b: number): number {
  const mean = (k: number): number => rows.reduce((sum, row) => sum + (row[k] ?? 0), 0) / rows.length;
  const [ma, mb] = [mean(a), mean(b)];
  let [ab, aa, bb] = [0, 0, 0];
  for (const row of rows) {
    const [p, q] = [(row[a] ?? 0) - ma, (row[b] ?? 0) - mb];
    ab += p * q;
    aa += p * p;
    bb += q * q;
  }
  return aa < 1e-9 || bb < 1e-9 ? 0 : ab / Math.sqrt(aa * bb);
}

/**
 * The points that tell most, all of them sound: chosen by their coordinates, baked in the computer, and chosen anew without those that are not sound, so
 * that what nobody asks for is not baked.
 */
function soundDesign(points: readonly Settings[], sieve: Sieve, factors: readonly Factor[], asked: Omit<DesignAsked, "rows">, row: (x: readonly number[]) => number[]): Baked[] {
  let open = points.map((settings) => ({ settings, row: row(coordinates(factors, settings)) }));
  // A few walks find what is not sound, all of them the best of what is.
  let isLast = false;
  while (open.length > 0) {
    const { chosen } = optimalDesign({ ...asked, rows: open.map((one) => one.row), ...(isLast ? {} : { starts: 1 }) });
    const judged = new Map([...new Set(chosen)].map((k) => [k, sieve.at((open[k] as (typeof open)[number]).settings)]));
    const isSound = [...judged.values()].every((baked) => baked !== null);
    if (isSound && isLast) return chosen.flatMap((k) => judged.get(k) ?? []);
    isLast ||= isSound;
    open = open.filter((_, k) => judged.get(k) !== null);
  }
  return [];
} // prettier-ignore

/** The first bakes of a season: the present one where it was not baked yet, those that tell most, and one of them twice; in an order that is drawn, parted into blocks. */
export function firstBakes(season: Season, points: readonly Settings[], sieve: Sieve, done: readonly Baked[]): FirstBakes {
  const { present } = sieve;
  const { factors, seed, blocks: asked } = season;
  const terms = termsOf(factors);
  const near = (a: Baked, b: Baked): boolean => a.x.every((value, k) => Math.abs(value - (b.x[k] ?? 0)) < 0.05);
  // The same baked ten times tells no more of other bakes than once.
  const told = done.filter((one, k) => !done.slice(0, k).some((other) => near(one, other))).length;
  const count = firstCount(season, told);
  if (count === 0) return { runs: [], design: null };
  const isKnown = done.some((one) => near(one, present));
  const isRepeated = done.some((one, k) => done.slice(k + 1).some((other) => near(one, other)));
  const own: Baked[] = isKnown ? [] : [present];
  const twice = !isRepeated && count >= REPEAT_FROM ? [present] : [];
  const free = count - own.length - twice.length;
  const row = ({ x }: Baked): number[] => terms.row(x);
  const fixed = [...done, ...own, ...twice].map(row);
  const criterion = terms.mains.length <= MAP_UP_TO && free >= 6 ? "I" : "D";
  const chosen = free > 0 ? soundDesign(points, sieve, factors, { runs: free, fixed, ridge: terms.ridge, criterion, seed }, terms.row) : [];
  const random = seeded(seed + 7);
  const all = [...own.map((baked) => ({ baked, kind: "first" as const })), ...chosen.map((baked) => ({ baked, kind: "first" as const })), ...twice.map((baked) => ({ baked, kind: "repeat" as const }))];
  // The present bake opens, the rest comes in a drawn order, so that what drifts over the days is no factor's doing.
  const [opening, rest] = [all.slice(0, own.length), all.slice(own.length)];
  for (let k = rest.length - 1; k > 0; k--) {
    const other = Math.floor(random() * (k + 1));
    [rest[k], rest[other]] = [rest[other] as (typeof rest)[number], rest[k] as (typeof rest)[number]];
  }
  const ordered = [...opening, ...rest];
  const blocks = asked ? blocked(ordered.map(({ baked }) => row(baked).slice(1, 1 + terms.mains.length)), asked.size) : ordered.map(() => 0);
  // Whatever opens the season opens its first block.
  const opener = blocks[0] ?? 0;
  const inBlocks = ordered
    .map((one, k) => ({ ...one, block: blocks[k] === opener ? 0 : blocks[k] === 0 ? opener : (blocks[k] ?? 0) }))
    .sort((a, b) => a.block - b.block);
  const rows = [...done.map(row), ...inBlocks.map(({ baked }) => row(baked))];
  const together = terms.mains.flatMap((a, i) =>
    terms.mains.slice(i + 1).flatMap((b) => (Math.abs(agreement(rows, a.at, b.at)) > TOGETHER ? [`${terms.names[a.at]} and ${terms.names[b.at]} move together in ${rows.length} bakes; what either does by itself cannot be told apart with so few.`] : [])),
  );
  const still = terms.mains.filter(({ at }) => new Set(rows.map((one) => (one[at] ?? 0).toFixed(2))).size < 2).map(({ at }) => `${terms.names[at]} does not move in these bakes: every other value of it was unsound.`);
  return {
    runs: inBlocks.map(({ baked, kind, block }, k) => ({ id: `run-${k + 1}`, settings: baked.settings, kind, block, why: whyOf(baked, kind, factors, present) })),
    design: {
      terms: terms.names.slice(0, 1 + terms.mains.length),
      criterion,
      efficiency: dEfficiencyOf(rows.map((one) => one.slice(0, 1 + terms.mains.length))),
      together: [...together, ...still],
      words: `${count} bakes first, ${isKnown ? "beside what the log has" : "the present one among them"}${twice.length > 0 ? ", that one twice so that the scatter of a bake is known" : ""}; in a drawn order, so that nothing that drifts with the days looks like an effect.`,
    },
  };
} // prettier-ignore

function whyOf(baked: Baked, kind: "first" | "repeat", factors: readonly Factor[], present: Baked): string {
  const changes = changesBetween(factors, present.settings, baked.settings);
  if (kind === "repeat") return "The present bake once more: by how much do two of one kind differ?";
  if (changes.length === 0) return "The present bake: what all others are held against.";
  const names = factors
    .filter((factor) => changesBetween([factor], present.settings, baked.settings).length > 0)
    .map((factor) => factorName(factor).toLowerCase());
  return names.length === 1
    ? `Tells what ${names[0]} does, with everything else as now.`
    : `Moves ${names.length} things at once, on purpose: each of them is moved against the others elsewhere in the set, so all bakes together tell what each does.`;
}
