import { capital } from "../measure/list-words";
import { asSodaG } from "../lift/as-soda";
import { ML_PER_MMOL_25C } from "../physics";
import { CoreError } from "../errors";
import { type InputLine, isWeighed, type WeighedLine } from "../formula/components";
import { type Opened } from "../formula/open";
import { gramsOf } from "../formula/components";
import { type Item, massOf, resolve } from "../formula/resolve";
import { binderPerGram } from "../body/binder";
import { sodaPerGram } from "../lift/charge";
import { acidPerGram } from "../lift/ledger";
import { gramsText, measurable } from "../measure/amounts";
import { builtInShelf } from "../pantry/catalogue";
import { ingredientOf, type Shelf } from "../pantry/shelf";
import { crumbPerGram } from "../pantry/crumb";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";
import type { BalanceOptions } from "./balance";
import { profileOf } from "./bands";
import type { Finding } from "./finding-schema";
import swapTable from "./data/swaps.json";
import {
  allergensOf,
  linesAfter,
  mayCome,
  movableOf,
  proposedLine,
  type Proposal,
  type Proposals,
  readingsOf,
  withoutOf,
} from "./proposal";
import { readings, thinking } from "./readings";
import { massIn, shortName } from "./remedy-words";
import { freeAcid, type TradeContext, tradedGrams, tradeOf } from "./trade";
import { type Batter, type Task, trimAcid, trimBody, trimGum, trimLift, trimWater, waterIn, withoutCautions } from "./trims";
import { withMass } from "./ways";

const MOST_PROPOSALS = 6;

/** Ingredients that may stand in for another: by its id, else by its family; what a baker would try first stands first. */
export function substitutesOf(ingredient: Ingredient, shelf: Shelf = builtInShelf): Ingredient[] {
  const row =
    swapTable.find((entry) => entry.of.includes(ingredient.id)) ?? swapTable.find((entry) => entry.of.includes(ingredient.family));
  return (row?.by ?? []).filter((id) => id !== ingredient.id).flatMap((id) => shelf.get(id) ?? []);
}

/**
 * Replaces one ingredient by the trade's rule (mass, piece, gas, fat, sugars, acid or binder), then trims at most three neighbours so that water,
 * gum, lift and body stay where they were; nothing that is locked, and nothing back of what leaves. What is lost is said. Every proposal is
 * analysed again. Ranked by what a baker would try first for this method. Masses in g. Throws `unknown-ingredient` for what is not on the shelf or
 * not in the formula.
 */
export function swap(
  whole: Opened,
  request: { replace: string; with?: string | undefined },
  options: BalanceOptions = {},
  shelf: Shelf = builtInShelf,
): Proposals {
  const { batter: lines, rest, open } = movableOf(whole, shelf);
  const items = resolve(lines, shelf);
  const replaced = items.find((item) => item.ingredient.id === request.replace);
  const beside = rest.filter((line): line is WeighedLine => isWeighed(line) && line.ingredientId === request.replace);
  const leaving = ingredientOf(shelf, request.replace, "replace");
  if (!replaced && beside.length === 0)
    throw new CoreError(
      "unknown-ingredient",
      `The formula has no ${request.replace}; one of ${items.map((i) => i.ingredient.id).join(", ")} would be right.`,
      "replace",
    );
  const wanted = request.with === undefined ? substitutesOf(leaving, shelf) : [ingredientOf(shelf, request.with, "with")];
  const allowed = wanted.filter(
    (i) =>
      i.id !== leaving.id &&
      // What is there already may be taken more of, but for what is to be left out.
      mayCome(i, items.some((item) => item.ingredient.id === i.id) ? { ...options, onHand: undefined } : options),
  );
  const batter: Batter = { ...whole, lines };
  const locked = new Set([...(options.locked ?? []), ...items.filter((item) => item.locked).map((item) => item.ingredient.id)]);
  const task: Task = {
    whole,
    batter,
    rest,
    items,
    of: thinking(batter, shelf).of,
    before: readings(whole, shelf),
    leaving,
    grams: replaced?.massG ?? 0,
    locked,
    options,
    shelf,
  };
  const [asked] = request.with === undefined ? [] : allowed;
  const no = asked && replaced ? refusalOf(task, asked) : null;
  if (no) return { proposals: [], conflict: { message: no, bands: [], unlock: [] }, ...withoutOf(open) };
  const proposals = ranked(task, allowed)
    .slice(0, 2 * MOST_PROPOSALS)
    .flatMap((by) => swapBy(task, by, beside) ?? []);
  const brings = (p: Proposal): number =>
    p.after.findings.some((id) => !p.before.findings.includes(id) && graveIds.has(id)) ? 1 : 0;
  return {
    proposals: proposals
      .map((proposal, order) => ({ proposal, order }))
      .sort((a, b) => brings(a.proposal) - brings(b.proposal) || a.order - b.order)
      .map(({ proposal }) => proposal)
      .slice(0, MOST_PROPOSALS),
    ...withoutOf(open),
  };
}

const graveIds = new Set<Finding["id"]>([
  "soda-unmet",
  "no-binder",
  "lift-low",
  "powder-high",
  "too-wet",
  "too-dry",
  "gluten-check",
]);

/** Fat that is cut in has to be solid: such a method wants the solid ones first. */
function ranked({ before, leaving }: Task, candidates: readonly Ingredient[]): Ingredient[] {
  const cutIn = (before.given.process.method ?? profileOf(before.given.kind).method) === "cut-in";
  if (leaving.family !== "fat" || !cutIn) return [...candidates];
  const solid = (i: Ingredient): number => (i.state === "solid" || i.id === "margarine" || i.id === "coconut-oil" ? 0 : 1);
  return candidates
    .map((i, order) => ({ i, order }))
    .sort((a, b) => solid(a.i) - solid(b.i) || a.order - b.order)
    .map(({ i }) => i);
}

/** mmol of soda that give the middle of the kind's usual gas. */
function kindMmol({ before, items }: Task): number {
  const { low, high } = profileOf(before.given.kind).bands.gasMlPer100g;
  return ((low + high) / 2 / ML_PER_MMOL_25C) * (massOf(items) / 100);
}

function swapBy(task: Task, by: Ingredient, beside: readonly WeighedLine[]): Proposal | null {
  const { items, leaving, grams } = task;
  const trade = tradeOf(leaving, by);
  const context: TradeContext = { freeAcidMmol: freeAcid(items), kindMmol: kindMmol(task) };
  let after: readonly Item[] = items;
  if (grams > 0) {
    const dose = measurable(tradedGrams(leaving, grams, by, context));
    if (!(dose > 0) || refusalOf(task, by)) return null;
    const standing = massIn(items, by.id);
    after = withMass(withMass(items, leaving, 0), by, standing + dose);
    for (const trim of [trimGum, trimLift, trimAcid, trimWater, trimBody]) after = trim(task, after, by);
    after = withoutCautions(task, after, by);
  }
  return report(task, after, by, beside, trade.lost ?? []);
}

/** More of the batch than this is no stand-in for a gum any more. */
const MOST_FOR_GUM = 0.15;

/** Why something would stand for another only in name: wet fruit and its flour, egg by the bowlful for a spoon of gum. Null where it may. */
function refusalOf({ leaving, grams, items }: Task, by: Ingredient): string | null {
  if (isFlour(by) && leaving.per100g.water > 50 && ["fruit", "puree", "vegetable"].includes(leaving.family))
    return `${by.name} is a flour: it brings none of the water, sugar and fruit that ${shortName(leaving)} gives. Put it in place of a flour, or take another fruit.`;
  const dose = leaving.family === "binder" && by.family !== "binder" ? tradedGrams(leaving, grams, by, { freeAcidMmol: 0, kindMmol: 0 }) : 0;
  return dose > MOST_FOR_GUM * massOf(items)
    ? `It would take ${gramsText(dose)} of ${shortName(by)} to bind what ${gramsText(grams)} of ${shortName(leaving)} binds. Psyllium husk, guar or ground flax would do it in a few grams.`
    : null;
} // prettier-ignore

type Sum = (item: Item) => number;

/** What is reported as kept or lost, with the share and the least amount that count as kept. */
const told: { word: string; unit: "g" | "as soda"; of: Sum; tolerance: number; least: number }[] = [
  { word: "water", unit: "g", of: waterIn, tolerance: 0.05, least: 8 },
  { word: "fat", unit: "g", of: (item) => (item.massG * item.ingredient.per100g.fat) / 100, tolerance: 0.08, least: 5 },
  { word: "sugar", unit: "g", of: (item) => (item.massG * item.ingredient.per100g.sugars) / 100, tolerance: 0.08, least: 6 },
  { word: "lift", unit: "as soda", of: (item) => item.massG * sodaPerGram(item.ingredient), tolerance: 0.1, least: 3 },
  { word: "acid", unit: "as soda", of: (item) => item.massG * acidPerGram(item.ingredient), tolerance: 0.1, least: 4 },
  { word: "binding", unit: "g", of: (item) => item.massG * binderPerGram(item.ingredient), tolerance: 0.15, least: 0.4 },
  { word: "flour", unit: "g", of: (item) => item.massG * crumbPerGram(item.ingredient), tolerance: 0.05, least: 8 },
];

/** What of water, fat, sugar, lift, acid, binding and flour a change keeps, and what it loses, in words. */
export function keptAndLost(before: readonly Item[], after: readonly Item[]): { kept: string[]; lost: string[] } {
  const sums = told.map(({ word, unit, of, tolerance, least }) => {
    const sum = (list: readonly Item[]): number => list.reduce((all, item) => all + of(item), 0);
    const [a, b] = [sum(before), sum(after)];
    const counts = Math.abs(a) >= least || Math.abs(b) >= least;
    return {
      word,
      kept: Math.abs(b - a) <= Math.max(tolerance * Math.abs(a), least),
      counts,
      text: `${word} ${amountOf(a, unit)} → ${amountOf(b, unit)}${word === "binding" ? ", as xanthan" : word === "acid" ? ", as the soda it meets" : word === "lift" ? ", as soda" : ""}`,
    };
  });
  const kept = sums.filter((sum) => sum.counts && sum.kept).map((sum) => sum.word);
  const lost = sums.filter((sum) => sum.counts && !sum.kept).map((sum) => sum.text);
  return { kept, lost };
}

function report(
  task: Task,
  after: readonly Item[],
  by: Ingredient,
  beside: readonly WeighedLine[],
  tableLost: readonly string[],
): Proposal {
  const { items, before, leaving, grams, batter, rest, whole, shelf } = task;
  const toG = new Map<string, number>();
  for (const item of items) {
    const to = massIn(after, item.ingredient.id);
    if (Math.abs(to - item.massG) > 0.04) toG.set(item.ingredient.id, Math.round(to * 100) / 100);
  }
  for (const item of after)
    if (!items.some(({ ingredient }) => ingredient.id === item.ingredient.id)) toG.set(item.ingredient.id, item.massG);
  const changes: Proposal["changes"] = [...toG].map(([ingredientId, to]) => ({
    ingredientId,
    fromG: massIn(items, ingredientId),
    toG: to,
  }));
  const besideChanges = changesBeside(task, by, beside);
  const others = rest.map((line): InputLine => {
    const change = beside.includes(line as WeighedLine) ? besideGrams(task, by, gramsOf(line)) : null;
    return change === null ? line : { ...line, ingredientId: by.id, grams: change };
  });
  const lines = [...linesAfter(batter.lines, toG), ...others];
  const final = readings({ ...whole, lines }, shelf);
  const { kept, lost: gone } = keptAndLost(items, after);
  const lost = [...tableLost, ...gone];
  const had = allergensOf(whole.lines, shelf);
  const has = allergensOf(lines, shelf);
  const dose = massIn(after, by.id) - massIn(items, by.id);
  const moved = changes.filter((c) => c.ingredientId !== leaving.id && c.ingredientId !== by.id);
  const movedText = moved.map(({ ingredientId, fromG, toG: to }) => {
    const name = shortName(ingredientOf(shelf, ingredientId));
    return to === 0 ? `no ${name}` : `${to > fromG ? "add" : "take away"} ${gramsText(Math.abs(to - fromG))} of ${name}`;
  });
  const first =
    grams > 0
      ? `${gramsText(dose)} of ${shortName(by)} for ${gramsText(grams)} of ${shortName(leaving)}`
      : `${shortName(by)} for as much ${shortName(leaving)}, gram for gram; the batter stays as it is`;
  const wait =
    leaving.family === "wheat"
      ? " Let the batter stand for 20 to 30 min before the oven; it looks runnier than a wheat batter and drinks more slowly."
      : "";
  return {
    title: `${by.name} for ${leaving.name.toLowerCase()}`,
    why: capital(
      `${first}${movedText.length > 0 ? `; ${movedText.join(", ")}` : ""}.${kept.length > 0 ? ` Kept: ${kept.join(", ")}.` : ""}${wait}`,
    ),
    changes: [...changes, ...besideChanges],
    lines: lines.map(proposedLine),
    before: readingsOf(before),
    after: readingsOf(final),
    kept: grams > 0 ? kept : ["the batter"],
    lost: grams > 0 ? lost : [],
    allergensAdded: [...has].filter((a) => !had.has(a)),
    allergensRemoved: [...had].filter((a) => !has.has(a)),
  };
}

/** Beside the batter nothing has to rise: by the trade's rule where it is one of mass, fat or sugars, else gram for gram. */
function besideGrams({ leaving }: Task, by: Ingredient, grams: number): number {
  const { basis } = tradeOf(leaving, by);
  const plain = basis === "mass" || basis === "fat" || basis === "sugars";
  return measurable(plain ? tradedGrams(leaving, grams, by, { freeAcidMmol: 0, kindMmol: 0 }) : grams);
}

function changesBeside(task: Task, by: Ingredient, beside: readonly WeighedLine[]): Proposal["changes"] {
  return beside.flatMap((line): Proposal["changes"] => {
    const place = line.component === undefined ? {} : { component: line.component };
    const grams = gramsOf(line);
    const had = task.rest
      .filter((other) => other.component === line.component && other.ingredientId === by.id)
      .reduce((g, other) => g + gramsOf(other), 0);
    return [
      { ingredientId: task.leaving.id, fromG: grams, toG: 0, ...place },
      { ingredientId: by.id, fromG: had, toG: had + besideGrams(task, by, grams), ...place },
    ];
  });
}

const amountOf = (value: number, unit: "g" | "as soda"): string => gramsText(unit === "g" ? value : asSodaG(value));
