import type { InputLine, WeighedLine } from "../formula/components";
import type { Opened } from "../formula/open";
import { readings, type Analysis } from "./readings";
import { flourOf, type Item, massOf, resolve } from "../formula/resolve";
import { gramsText, measurable } from "../measure/amounts";
import { builtInShelf, type Shelf } from "../pantry/catalogue";
import { type Allergen, type Ingredient, isFlour } from "../pantry/ingredient";
import { type BandName, bandNames, bandReadings, consistencyAgainst, profileOf } from "./bands";
import type { FindingId } from "./finding";
import { acidLimits, bandLimits, binderLimits, keepLimit, leaveningLimits, perGram, type QuantityName } from "./limits";
import { type Changeable, type Limit, smallestChange, type Solved } from "./programme";
import {
  allergensOf,
  type Conflict,
  linesAfter,
  movableOf,
  proposedLine,
  type Proposal,
  type Proposals,
  readingsOf,
  withoutOf,
} from "./proposal";

export interface BalanceOptions {
  locked?: readonly string[] | undefined;
  avoid?: readonly Allergen[] | undefined;
  /** What may be added; without it anything on the shelf may. */
  onHand?: readonly string[] | undefined;
}

/** What a baker may be told to add, with its usual share of the flour and the most, and how gladly. */
const additions: { id: string; usual: number; most: number; reluctance: number }[] = [
  { id: "soda", usual: 0.01, most: 0.015, reluctance: 0.3 },
  { id: "powder-aluminium-free", usual: 0.05, most: 0.08, reluctance: 0.2 },
  { id: "cream-of-tartar", usual: 0.02, most: 0.05, reluctance: 0.6 },
  { id: "vinegar", usual: 0.08, most: 0.15, reluctance: 0.5 },
  { id: "lemon-juice", usual: 0.08, most: 0.2, reluctance: 0.5 },
  { id: "buttermilk", usual: 0.7, most: 1.5, reluctance: 0.4 },
  { id: "plain-yoghurt", usual: 0.5, most: 1, reluctance: 0.5 },
  { id: "water", usual: 0.3, most: 1.5, reluctance: 0.3 },
  { id: "xanthan", usual: 0.006, most: 0.015, reluctance: 0.3 },
  { id: "psyllium-husk", usual: 0.03, most: 0.06, reluctance: 0.4 },
];

const liquidFamilies = new Set<Ingredient["family"]>(["dairy", "cultured", "plant-milk", "water", "juice", "vinegar"]);
const leavenerFamilies = new Set<Ingredient["family"]>(["leavener", "acid"]);
const otherFamilies = new Set<Ingredient["family"]>(["fat", "sugar", "syrup", "egg", "binder", "salt"]);
const sourIds = new Set(["buttermilk", "plain-yoghurt", "kefir", "vinegar", "lemon-juice"]);

/** Findings that balancing is there to clear. */
const faults = new Set<FindingId>([
  "soda-unmet",
  "acid-excess",
  "powder-high",
  "lift-low",
  "no-binder",
  "too-wet",
  "too-dry",
  "sugar-high",
  "fat-high",
]);

export const faultsOf = (analysis: Analysis): FindingId[] => analysis.findings.filter((f) => faults.has(f.id)).map((f) => f.id);

interface Strategy {
  title: string;
  may: (ingredient: Ingredient, isNew: boolean) => boolean;
  /** Ingredients that go altogether. */
  without?: readonly string[];
}

const isLiquid = (i: Ingredient): boolean => liquidFamilies.has(i.family);
const isLeavener = (i: Ingredient): boolean => leavenerFamilies.has(i.family);

const strategies: Strategy[] = [
  { title: "The fewest changes", may: (i) => isLiquid(i) || isLeavener(i) || otherFamilies.has(i.family) || isFlour(i) },
  { title: "Change the leavening only", may: isLeavener },
  {
    title: "Keep the soda and sour the liquid",
    may: (i, isNew) => isLiquid(i) && (!isNew || sourIds.has(i.id) || i.id === "water"),
  },
  {
    title: "Powder alone",
    without: ["soda", "cream-of-tartar"],
    may: (i) => i.leavening?.powder !== undefined && i.family === "leavener",
  },
  { title: "Change the liquid only", may: (i, isNew) => isLiquid(i) && (!isNew || i.id === "water") },
  { title: "Change the flour only", may: (i, isNew) => isFlour(i) && !isNew },
  { title: "Leave the liquid, mend the rest", may: (i) => !isLiquid(i) && (isLeavener(i) || otherFamilies.has(i.family)) },
];

const MOST_PROPOSALS = 4;
const CONSISTENCY_TRIES = 7;
/** What is in order stays within this share of what it was. */
const KEEP = 0.05;

/**
 * The changes that bring every band of the kind and the acid balance in, touching the fewest ingredients by the least relative amount; up to
 * four that differ in kind, each rounded to what a kitchen can measure and analysed again. Only the batter is moved; components and open
 * lines stay. Masses in g.
 * Throws what `analyse` throws. Without a way out it says which bands conflict and which lock would free them.
 */
export function balance(input: Opened, options: BalanceOptions = {}, shelf: Shelf = builtInShelf): Proposals {
  const before = readings(input, shelf);
  const { batter, rest, open } = movableOf(input, shelf);
  const items = resolve(batter, shelf);
  const without = withoutOf(open);
  if (faultsOf(before).length === 0 && bandsOut(before, items).length === 0) return { proposals: [], ...without };
  const task: Task = {
    input: { ...input, lines: batter },
    rest,
    items,
    before,
    options,
    shelf,
    locked: new Set([...(options.locked ?? []), ...items.filter((i) => i.locked).map((i) => i.ingredient.id)]),
  };
  const found: Proposal[] = [];
  for (const strategy of strategies) {
    const proposal = propose(task, strategy);
    if (!proposal) continue;
    const same = found.find((other) => sameChanges(other, proposal));
    if (!same) found.push(proposal);
    else if (same.title === strategies[0]?.title) same.title = proposal.title;
  }
  if (found.length === 0) return { proposals: [], conflict: conflictOf(task), ...without };
  return { proposals: found.sort((a, b) => weightOf(a) - weightOf(b)).slice(0, MOST_PROPOSALS), ...without };
}

interface Task {
  /** The batter alone. */
  input: Opened & { lines: readonly WeighedLine[] };
  /** What stays beside it. */
  rest: readonly InputLine[];
  items: Item[];
  before: Analysis;
  options: BalanceOptions;
  shelf: Shelf;
  locked: ReadonlySet<string>;
}

/** Bands that a formula is outside of. */
function bandsOut(analysis: Analysis, items: readonly Item[]): BandName[] {
  const { bands } = profileOf(analysis.given.kind);
  const readings = bandReadings(items, analysis.lift.gasMlPer100g.mid);
  return bandNames.filter((name) => readings[name] < bands[name].low - 1e-9 || readings[name] > bands[name].high + 1e-9);
}

const weightOf = (p: Proposal): number =>
  p.changes.length + 0.1 * p.changes.reduce((all, c) => all + Math.min(2, Math.abs(c.toG - c.fromG) / Math.max(c.fromG, c.toG)), 0);

const sameChanges = (a: Proposal, b: Proposal): boolean =>
  a.changes.length === b.changes.length &&
  a.changes.every((c) =>
    b.changes.some((d) => d.ingredientId === c.ingredientId && Math.abs(d.toG - c.toG) < 0.02 * Math.max(1, c.toG)),
  );

function changeableOf(task: Task, strategy: Strategy): Changeable[] {
  const flour = Math.max(flourOf(task.items), 0.2 * massOf(task.items));
  const out: Changeable[] = [];
  for (const { ingredient, massG } of task.items) {
    if (task.locked.has(ingredient.id) || strategy.without?.includes(ingredient.id) || !strategy.may(ingredient, false)) continue;
    const leavener = isLeavener(ingredient);
    const egg = ingredient.family === "egg" ? ingredient.pieces?.[0]?.grams.mid : undefined;
    const most = ingredient.id === "soda" ? 0.015 * flour : leavener ? 0.08 * flour : Math.max(3 * massG, 0.2 * flour);
    out.push({
      ingredient,
      nowG: massG,
      mostG: Math.max(massG, most),
      referenceG: Math.max(massG, 0.005 * flour),
      reluctance: isFlour(ingredient) || egg ? 0.5 : ingredient.family === "salt" ? 0.8 : 0,
      ...(egg ? { stepG: egg / 2 } : {}),
    });
  }
  const there = new Set(task.items.map((item) => item.ingredient.id));
  const hasPowder = task.items.some((item) => item.ingredient.family === "leavener" && item.ingredient.leavening?.powder);
  for (const { id, usual, most, reluctance } of additions) {
    const ingredient = task.shelf.get(id);
    if (!ingredient || there.has(id) || task.locked.has(id) || strategy.without?.includes(id) || !strategy.may(ingredient, true))
      continue;
    if (hasPowder && ingredient.leavening?.powder) continue;
    if (ingredient.allergens.some((a) => task.options.avoid?.includes(a))) continue;
    if (task.options.onHand && !task.options.onHand.includes(id)) continue;
    out.push({ ingredient, nowG: 0, mostG: most * flour, referenceG: usual * flour, reluctance });
  }
  return out;
}

/** All that must hold; what is in order now stays near what it is. */
function limitsOf(task: Task): Limit[] {
  const { before, items } = task;
  const kind = before.given.kind;
  const limits = bandLimits(kind, bandNames);
  const chemical = before.lift.sodaMmol.mid > 0.5 || profileOf(kind).bands.gasMlPer100g.low > 0;
  if (chemical) limits.push(...acidLimits(), ...leaveningLimits());
  limits.push(...binderLimits(kind));
  const out = new Set(bandsOut(before, items));
  const consistent = consistencyAgainst(before.body.consistency, kind) === 0;
  const total = (name: QuantityName): number => items.reduce((all, item) => all + perGram[name](item.ingredient) * item.massG, 0);
  if (consistent && !out.has("waterPercent")) limits.push(keepLimit("water", total("water"), KEEP));
  if (!out.has("fatPercent")) limits.push(keepLimit("fat", total("fat"), 2 * KEEP));
  if (!out.has("sugarPercent")) limits.push(keepLimit("sugar", total("sugar"), 2 * KEEP));
  return limits;
}

function propose(task: Task, strategy: Strategy): Proposal | null {
  const changeable = changeableOf(task, strategy);
  const gone = task.items.filter((item) => strategy.without?.includes(item.ingredient.id));
  if (gone.some((item) => task.locked.has(item.ingredient.id)) || changeable.length === 0) return null;
  if (strategy.without && gone.length === 0) return null;
  const names = new Set([...changeable.map((c) => c.ingredient.id), ...gone.map((item) => item.ingredient.id)]);
  const fixed = task.items.filter((item) => !names.has(item.ingredient.id));
  const limits = limitsOf(task);
  const kind = task.before.given.kind;
  for (let attempt = 0; attempt < CONSISTENCY_TRIES; attempt++) {
    const solved = smallestChange(changeable, fixed, limits);
    if (!solved) return null;
    const proposal = rounded(task, strategy, solved, gone);
    if (proposal) return proposal;
    const toG = withGone(solved, gone);
    const after = readings({ ...task.input, lines: linesAfter(task.input.lines, toG) }, task.shelf);
    const side = consistencyAgainst(after.body.consistency, kind);
    if (side === 0) return null;
    const water = after.batch.waterG / Math.max(after.batch.baseG, 1);
    const bound = water * (side < 0 ? 0.94 : 1.06);
    limits.push({
      id: `water-try-${attempt}`,
      name: "the batter's consistency",
      coefficient: (i) => perGram.water(i) - bound * perGram.base(i),
      ...(side < 0 ? { max: 0 } : { min: 0 }),
    });
  }
  return null;
}

function withGone(solved: Solved, gone: readonly Item[]): Map<string, number> {
  const toG = new Map(solved.toG);
  for (const item of gone) toG.set(item.ingredient.id, 0);
  return toG;
}

/** Rounds to what a kitchen can measure; where that leaves a band, tries the neighbouring roundings of each amount. */
function rounded(task: Task, strategy: Strategy, solved: Solved, gone: readonly Item[]): Proposal | null {
  const exact = withGone(solved, gone);
  const entries = [...exact];
  const choices = entries.map(([id, g]) => {
    if (task.shelf.get(id)?.family === "egg") return [g];
    const step = g < 20 ? 0.1 : g < 100 ? 1 : 5;
    return [
      ...new Set([measurable(g), Math.floor(g / step) * step, Math.ceil(g / step) * step].map((v) => Math.round(v * 10) / 10)),
    ];
  });
  const tries = Math.min(
    32,
    choices.reduce((all, c) => all * c.length, 1),
  );
  for (let n = 0; n < tries; n++) {
    let left = n;
    const toG = new Map(
      entries.map(([id], i): [string, number] => {
        const options = choices[i] ?? [];
        const value = options[left % options.length] ?? 0;
        left = Math.floor(left / options.length);
        return [id, value];
      }),
    );
    const proposal = described(task, strategy.title, toG);
    if (proposal) return proposal;
  }
  return null;
}

/** The proposal for these masses, or null when it does not clear every fault and band. */
function described(task: Task, title: string, toG: Map<string, number>): Proposal | null {
  const massNow = new Map(task.items.map((item) => [item.ingredient.id, item.massG]));
  const changes = [...toG]
    .map(([ingredientId, to]) => ({ ingredientId, fromG: massNow.get(ingredientId) ?? 0, toG: to }))
    .filter((c) => Math.abs(c.toG - c.fromG) > 0.04);
  if (changes.length === 0) return null;
  const lines = linesAfter(task.input.lines, toG);
  const after = readings({ ...task.input, lines: [...lines, ...task.rest] }, task.shelf);
  const worse =
    after.lift.verdict === "short-of-acid" || faultsOf(after).length > 0 || bandsOut(after, resolve(lines, task.shelf)).length > 0;
  if (worse) return null;
  const had = allergensOf([...task.input.lines, ...task.rest], task.shelf);
  const has = allergensOf([...lines, ...task.rest], task.shelf);
  return {
    title,
    why: whyOf(task, changes, after),
    changes,
    lines: [...lines, ...task.rest].map(proposedLine),
    before: readingsOf(task.before),
    after: readingsOf(after),
    allergensAdded: [...has].filter((a) => !had.has(a)),
    allergensRemoved: [...had].filter((a) => !has.has(a)),
  };
}

function whyOf(task: Task, changes: Proposal["changes"], after: Analysis): string {
  const told = changes.map((c) => {
    const name = task.shelf.get(c.ingredientId)?.name.toLowerCase() ?? c.ingredientId;
    return c.toG === 0 ? `no ${name}` : `${name} ${gramsText(c.fromG)} → ${gramsText(c.toG)}`;
  });
  const lift =
    after.lift.sodaMmol.mid > 0.5
      ? `the acids meet ${Math.round(100 * after.lift.neutralised.mid)} % of the soda and the crumb comes to pH ${after.lift.ph.mid.toFixed(1)}`
      : "there is no soda to meet";
  return `${told.join(", ")}: ${lift}, with ${Math.round(after.lift.gasMlPer100g.mid)} mL of gas; the batter is ${after.body.consistency.replace("-", " ")}.`.replace(
    /^./,
    (c) => c.toUpperCase(),
  );
}

/** Cost of missing a limit: so high that it is missed only where nothing else is possible. */
const MISS_COST = 1000;

function conflictOf(task: Task): Conflict {
  const free = strategies[0] as Strategy;
  const solveElastic = (t: Task): Solved | null => {
    const changeable = changeableOf(t, free);
    const names = new Set(changeable.map((c) => c.ingredient.id));
    return smallestChange(
      changeable,
      t.items.filter((item) => !names.has(item.ingredient.id)),
      limitsOf(t).map((limit) => ({ ...limit, weight: MISS_COST })),
    );
  };
  const limits = limitsOf(task);
  const missed = solveElastic(task)?.missed ?? new Map<string, number>();
  const bands = limits.filter((limit) => missed.has(limit.id)).map((limit) => limit.name);
  const unlock = [...task.locked].filter((id) => {
    const without: Task = { ...task, locked: new Set([...task.locked].filter((other) => other !== id)) };
    return (solveElastic(without)?.missed.size ?? 1) === 0 && propose(without, free) !== null;
  });
  const nameOf = (id: string): string => task.shelf.get(id)?.name ?? id;
  const which =
    bands.length > 0
      ? `These cannot be met together: ${bands.join(", ")}.`
      : "The bands can be met on paper, but not in amounts a kitchen can measure or with a batter of the right consistency.";
  const way =
    unlock.length > 0
      ? `Unlocking ${unlock.map(nameOf).join(" or ")} would free them.`
      : task.locked.size > 0
        ? "No single lock would free them."
        : "Another kind of bake, or more on the shelf, may be what this formula wants.";
  return { message: `${which} ${way}`, bands, unlock };
}
