import { capital } from "../measure/list-words";
import { flourOf, type Item, massOf } from "../formula/resolve";
import type { InputLine, WeighedLine } from "../formula/components";
import type { Opened } from "../formula/open";
import { gramsText } from "../measure/amounts";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";
import type { FindingId } from "./finding";
import { type Fault, faultWords, isFault } from "./faults";
import type { Finding } from "./finding-schema";
import {
  allergensOf,
  type Coming,
  type Conflict,
  linesAfter,
  mayCome,
  movableOf,
  proposedLine,
  type Proposal,
  type Proposals,
  readingsOf,
  withoutOf,
} from "./proposal";
import { type Analysis, readings, type Thought, thinking } from "./readings";
import { waysOut } from "./remedies";
import { shortName } from "./remedy-words";

export interface BalanceOptions extends Coming {
  locked?: readonly string[] | undefined;
  /** What things cost a kilogram, where it is known. */
  prices?: Readonly<Record<string, number>> | undefined;
}

/** Remarks of taste that alone are no reason to move anything. */
const onlyTaste = new Set<Fault>(["acid-excess", "colour-shift", "binder-doubled"]);

export const faultsOf = (analysis: Pick<Analysis, "findings">): FindingId[] =>
  analysis.findings.filter((f) => isFault(f.id) && f.id !== "colour-shift" && f.id !== "leavening-counted-twice").map((f) => f.id);

/** What a finding weighs against another: one stop outweighs every caution, one caution every remark. */
const weight = { stop: 10_000, caution: 100, note: 1 } as const;

const faultsIn = (findings: readonly Finding[]): (Finding & { id: Fault })[] =>
  findings
    .filter((finding): finding is Finding & { id: Fault } => isFault(finding.id))
    .sort((a, b) => weight[b.severity] - weight[a.severity]);

/** All that is wrong, also what balancing cannot mend: a change must not bring it. */
const badness = (findings: readonly Finding[]): number =>
  findings.reduce((all, { id, severity }) => all + (isFault(id) || severity !== "note" ? weight[severity] : 0), 0);

/** What a change may do to the character of a formula: shares of flour and of the batch, pieces of egg. */
const KEEP = { flour: 0.15, mass: 0.15, eggPieces: 1, eggG: 50 };
/** A liquid, sugar or fat that is itself the fault may move the batch by more. */
const BULK: ReadonlySet<Fault> = new Set<Fault>(["too-wet", "too-dry", "sugar-high", "fat-high"]);

const MOST_PROPOSALS = 4;
const WIDTH = 6;
const DEPTH = 4;

interface Task {
  input: Opened & { lines: readonly WeighedLine[] };
  rest: readonly InputLine[];
  items: readonly Item[];
  before: Analysis;
  of: (items: readonly Item[]) => Thought;
  options: BalanceOptions;
  shelf: Shelf;
  locked: ReadonlySet<string>;
}

interface State {
  thought: Thought;
  badness: number;
  /** Ingredients moved, and by how much of themselves. */
  cost: number;
}

/**
 * The smallest changes that clear what is wrong with a batter, the gravest first: each step is a way out of a finding, applied and analysed again,
 * and kept only where it leaves less wrong than before. Up to four proposals that differ in what they touch, the leavening alone before all
 * others; where locks or the shelf leave something undone it is said, with the line that would free it. A sound formula gets silence. The same
 * question has the same answer everywhere. Masses in g. Throws what `analyse` throws.
 */
export function balance(input: Opened, options: BalanceOptions = {}, shelf: Shelf = builtInShelf): Proposals {
  const before = readings(input, shelf);
  const { batter, rest, open } = movableOf(input, shelf);
  const without = withoutOf(open);
  const faults = faultsIn(before.findings);
  if (faults.every(({ id, severity }) => severity === "note" && onlyTaste.has(id))) return { proposals: [], ...without };
  const alone: Opened & { lines: readonly WeighedLine[] } = { ...input, lines: batter };
  const { items, of } = thinking(alone, shelf);
  const locked = new Set([...(options.locked ?? []), ...items.filter((i) => i.locked).map((i) => i.ingredient.id)]);
  const task: Task = { input: alone, rest, items, before, of, options, shelf, locked };
  const states = search(task);
  const proposals = distinct(task, states);
  const left = proposals[0] ? remaining(proposals[0].after.findings) : faults.map(({ id }) => id);
  return { proposals, ...(left.length > 0 ? { conflict: conflictOf(task, left, states[0]) } : {}), ...without };
}

const remaining = (findings: readonly FindingId[]): Fault[] => findings.filter(isFault).filter((id) => !onlyTaste.has(id));

/** Every state that leaves less wrong than the start, the best first. */
function search(task: Task): State[] {
  const first = stateOf(task, task.items);
  let frontier = [first];
  const found: State[] = [];
  const seen = new Set<string>();
  for (let depth = 0; depth < DEPTH && frontier.length > 0; depth++) {
    const next: State[] = [];
    for (const state of frontier) {
      for (const step of stepsFrom(task, state)) {
        const key = step.thought.items.map((item) => `${item.ingredient.id} ${item.massG.toFixed(1)}`).join();
        if (seen.has(key)) continue;
        seen.add(key);
        next.push(step);
      }
    }
    next.sort(byWorth);
    found.push(...next);
    frontier = next.filter((state) => faultsIn(state.thought.findings).length > 0).slice(0, WIDTH);
  }
  return found.sort(byWorth);
}

const byWorth = (a: State, b: State): number => a.badness - b.badness || a.cost - b.cost;

function stateOf(task: Task, items: readonly Item[]): State {
  const thought = task.of(items);
  const moved = changesOf(task.items, items);
  return {
    thought,
    badness: badness(thought.findings),
    cost: moved.reduce((all, { fromG, toG }) => all + 1 + 0.3 * Math.min(2, Math.abs(toG - fromG) / Math.max(fromG, toG)), 0),
  };
}

/** The ways out of what is wrong with a state that locks, diet and shelf allow and that leave less wrong; the gravest fault that has one. */
function stepsFrom(task: Task, state: State): State[] {
  for (const { id } of faultsIn(state.thought.findings)) {
    const steps = waysOut(id, { ...state.thought, may: (ingredient) => mayBeThere(task, ingredient) })
      .flatMap(({ items }) => (items && allowed(task, items, id) ? [stateOf(task, items)] : []))
      .filter((next) => next.badness < state.badness);
    // Of a liquid the amount that a baker aims at is one way, not the edge of what passes as another.
    if (steps.length > 0) return id === "too-wet" || id === "too-dry" ? steps.slice(0, 1) : steps;
  }
  return [];
}

function changesOf(before: readonly Item[], after: readonly Item[]): { ingredient: Ingredient; fromG: number; toG: number }[] {
  const to = new Map(after.map((item) => [item.ingredient.id, item]));
  const gone = before
    .filter((item) => !to.has(item.ingredient.id))
    .map((item) => ({ ingredient: item.ingredient, fromG: item.massG, toG: 0 }));
  const from = new Map(before.map((item) => [item.ingredient.id, item.massG]));
  return [
    ...after.map(({ ingredient, massG }) => ({ ingredient, fromG: from.get(ingredient.id) ?? 0, toG: massG })),
    ...gone,
  ].filter(({ fromG, toG }) => Math.abs(toG - fromG) > 0.04);
}

/** Whether locks, diet and shelf let an ingredient be added, or more of it be taken. */
function mayBeThere({ items, locked, options }: Task, ingredient: Ingredient): boolean {
  if (locked.has(ingredient.id)) return false;
  return items.some((item) => item.ingredient.id === ingredient.id) || mayCome(ingredient, options);
}

/** Whether a change keeps to locks, diet and shelf, and leaves the formula what it is. */
function allowed(task: Task, after: readonly Item[], fault: Fault): boolean {
  const { items } = task;
  const changes = changesOf(items, after);
  if (!changes.every(({ ingredient }) => mayBeThere(task, ingredient))) return false;
  const by = (of: (item: { ingredient: Ingredient; massG: number }) => number): number =>
    changes.reduce((all, { ingredient, fromG, toG }) => all + of({ ingredient, massG: toG }) - of({ ingredient, massG: fromG }), 0);
  const flour = by(({ ingredient, massG }) => (isFlour(ingredient) ? massG : 0));
  const egg = by(({ ingredient, massG }) => (ingredient.family === "egg" ? massG : 0));
  const mass = by(({ massG }) => massG);
  const base = Math.max(flourOf(items), 1);
  return (
    Math.abs(flour) <= KEEP.flour * base &&
    Math.abs(egg) <= KEEP.eggPieces * KEEP.eggG &&
    (BULK.has(fault) || Math.abs(mass) <= KEEP.mass * massOf(items))
  );
}

const leavening = new Set<Ingredient["family"]>(["leavener", "acid"]);

const sour = (ingredient: Ingredient): boolean => ingredient.family === "cultured";

/** What a proposal does, in words: what it takes away and what it gives. */
function titleOf(changes: readonly { ingredient: Ingredient; fromG: number; toG: number }[]): string {
  const name = ({ ingredient }: { ingredient: Ingredient }): string => shortName(ingredient);
  const up = changes.filter(({ fromG, toG }) => toG > fromG);
  const gone = changes.filter(({ toG }) => toG === 0);
  const less = changes.filter(({ fromG, toG }) => toG < fromG && toG > 0);
  const soda = changes.find(({ ingredient }) => ingredient.id === "soda");
  if (soda?.toG === 0 && up.length > 0 && up.every(({ ingredient }) => ingredient.leavening?.powder)) return "Powder alone";
  if (!soda && changes.some(({ ingredient, toG, fromG }) => sour(ingredient) && toG > fromG))
    return "Keep the soda and sour the liquid";
  const told = [
    ...(gone.length > 0 ? [`no ${gone.map(name).join(" and ")}`] : []),
    ...(less.length > 0 ? [`less ${less.map(name).join(" and ")}`] : []),
    ...(up.length > 0 ? [`more ${up.map(name).join(" and ")}`] : []),
  ].join(", ");
  return capital(told);
}

/**
 * What kind of change it is: soda taken back, powder alone, an acid poured in, a liquid soured, and so on. Two of one kind are one choice, whichever
 * acid it is; the liquid that is held back for a sour one does not count.
 */
function kindOf(changes: readonly { ingredient: Ingredient; fromG: number; toG: number }[]): string {
  const tags = changes.map(({ ingredient, fromG, toG }) => {
    const way = toG > fromG ? "+" : toG === 0 ? "0" : "-";
    if (ingredient.leavening?.powder) return `powder${way}`;
    if (/acid|vinegar|juice/.test(ingredient.family) && way === "+") return "acid+";
    if (sour(ingredient)) return `sour${way}`;
    if (ingredient.per100g.water > 60) return `liquid${way}`;
    return `${ingredient.id}${way}`;
  });
  const soured = tags.includes("acid+") || tags.includes("sour+");
  return [...new Set(tags)]
    .filter((tag) => !(soured && tag.startsWith("liquid")))
    .sort()
    .join();
}

/** The best states that differ in which ingredients they move, as proposals. */
function distinct(task: Task, states: readonly State[]): Proposal[] {
  const [best] = states;
  if (!best) return [];
  const taken: { key: string; proposal: Proposal; leaveningOnly: boolean; state: State }[] = [];
  for (const state of states) {
    if (taken.length >= MOST_PROPOSALS) break;
    // What leaves a graver fault than the best is no alternative to it.
    if (Math.floor(state.badness / 100) > Math.floor(best.badness / 100)) continue;
    const changes = changesOf(task.items, state.thought.items);
    const key = kindOf(changes);
    if (taken.some((other) => other.key === key)) continue;
    const proposal = described(task, state, changes);
    if (proposal)
      taken.push({ key, proposal, leaveningOnly: changes.every(({ ingredient }) => leavening.has(ingredient.family)), state });
  }
  const order = taken.sort(
    (a, b) => a.state.badness - b.state.badness || Number(b.leaveningOnly) - Number(a.leaveningOnly) || a.state.cost - b.state.cost,
  );
  return order.map(({ proposal }) => proposal);
}

function described(task: Task, { thought }: State, moved: ReturnType<typeof changesOf>): Proposal | null {
  const toG = new Map(moved.map(({ ingredient, toG: to }) => [ingredient.id, Math.round(to * 100) / 100]));
  const lines = linesAfter(task.input.lines, toG);
  const all = [...lines, ...task.rest];
  const after = readings({ ...task.input, lines: all }, task.shelf);
  const changes = moved.map(({ ingredient, fromG }) => ({ ingredientId: ingredient.id, fromG, toG: toG.get(ingredient.id) ?? 0 }));
  if (changes.length === 0) return null;
  const had = allergensOf([...task.input.lines, ...task.rest], task.shelf);
  const has = allergensOf(all, task.shelf);
  const left = faultsIn(thought.findings).map(({ id }) => faultWords[id]);
  return {
    title: titleOf(moved),
    why: whyOf(task, changes, after),
    changes,
    lines: all.map(proposedLine),
    before: readingsOf(task.before),
    after: readingsOf(after),
    ...(left.length > 0 ? { lost: [...new Set(left)] } : {}),
    allergensAdded: [...has].filter((a) => !had.has(a)),
    allergensRemoved: [...had].filter((a) => !has.has(a)),
  };
}

function whyOf(task: Task, changes: Proposal["changes"], after: Analysis): string {
  const told = changes.map((c) => {
    const ingredient = task.shelf.get(c.ingredientId);
    const name = ingredient ? shortName(ingredient) : c.ingredientId;
    if (c.toG === 0) return `no ${name}`;
    const by = c.toG - c.fromG;
    return `${by > 0 ? "add" : "take away"} ${gramsText(Math.abs(by))} of ${name}`;
  });
  const lift =
    after.lift.sodaMmol.mid > 0.5
      ? `the acids meet ${Math.round(100 * after.lift.neutralised.mid)} % of the soda and the crumb comes to pH ${after.lift.ph.mid.toFixed(1)}`
      : "there is no soda to meet";
  return capital(
    `${told.join(", ")}: ${lift}, with ${Math.round(after.lift.gasMlPer100g.mid)} mL of gas; the batter is ${after.body.consistency.replace("-", " ")}.`,
  );
}

/** What is left undone, and the one line that would free it. */
function conflictOf(task: Task, left: readonly Fault[], best: State | undefined): Conflict {
  const unlock = [...task.locked].filter((id) => {
    if (!task.items.some((item) => item.ingredient.id === id)) return false;
    const freed = search({ ...task, locked: new Set([...task.locked].filter((other) => other !== id)) });
    return (freed[0]?.badness ?? Infinity) < (best?.badness ?? badness(task.before.findings));
  });
  const nameOf = (id: string): string => task.shelf.get(id)?.name ?? id;
  const bands = left.map((id) => faultWords[id]);
  const way =
    unlock.length > 0
      ? `Unlocking ${unlock.map(nameOf).join(" or ")} would free more.`
      : "Another kind of bake, or more on the shelf, may be what this formula wants.";
  return { message: `This stays: ${bands.join(", ")}. ${way}`, bands, unlock };
}
