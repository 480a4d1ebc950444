import { ML_PER_MMOL_25C } from "../physics";
import { type InputLine, isWeighed, type WeighedLine } from "../formula/components";
import { gramsOf, type Opened } from "../formula/open";
import { readings } from "./readings";
import { consistencyOf, stiffnessOf } from "../body/consistency";
import { CoreError } from "../errors";
import { type Item, resolve } from "../formula/resolve";
import { gramsText, measurable } from "../measure/amounts";
import { builtInShelf, ingredientOf, type Shelf } from "../pantry/catalogue";
import { type Ingredient, isFlour } from "../pantry/ingredient";
import type { BalanceOptions } from "./balance";
import { profileOf } from "./bands";
import swapTable from "./data/swaps.json";
import { keepLimit, perGram, type QuantityName } from "./limits";
import { type Changeable, type Limit, smallestChange } from "./programme";
import { allergensOf, linesAfter, movableOf, proposedLine, type Proposal, type Proposals, readingsOf, withoutOf } from "./proposal";

/** What a swap holds on to, with the share it may drift, the least drift worth a word (g or mmol), and what missing all of it costs. */
const kept: { name: QuantityName; word: string; unit: "g" | "mmol"; tolerance: number; least: number; weight: number }[] = [
  { name: "water", word: "water", unit: "g", tolerance: 0.03, least: 5, weight: 30 },
  { name: "fat", word: "fat", unit: "g", tolerance: 0.05, least: 3, weight: 12 },
  { name: "sugar", word: "sugar", unit: "g", tolerance: 0.05, least: 3, weight: 12 },
  { name: "soda", word: "lift", unit: "mmol", tolerance: 0.05, least: 2, weight: 25 },
  { name: "acid", word: "acid", unit: "mmol", tolerance: 0.06, least: 2.5, weight: 25 },
  { name: "binder", word: "binder", unit: "g", tolerance: 0.1, least: 0.2, weight: 10 },
  { name: "flour", word: "flour", unit: "g", tolerance: 0.03, least: 5, weight: 15 },
];

/** Neighbours that may be moved or added to hold the rest in place; touching one costs this much of an ingredient. */
const helpers: Record<string, number> = {
  water: 0.1,
  "white-sugar": 0.6,
  "sunflower-oil": 0.6,
  soda: 0.4,
  "powder-aluminium-free": 0.4,
  vinegar: 0.4,
  "cream-of-tartar": 0.7,
  xanthan: 0.4,
};
const helperFamilies = new Set<Ingredient["family"]>([
  "water",
  "dairy",
  "plant-milk",
  "cultured",
  "leavener",
  "sugar",
  "fat",
  "vinegar",
]);
const MOST_PROPOSALS = 6;

/** Gas that a gram of yeast stands for in a pan batter, in mmol of soda: a chemical lift of the kind's usual size takes its place. */
const wantsNewLift = (i: Ingredient): boolean => i.id === "yeast-dry";

/** Ingredients that may stand in for another: by its id, else by its family. */
export function substitutesOf(ingredient: Ingredient, shelf: Shelf = builtInShelf): Ingredient[] {
  const row =
    swapTable.find((entry) => entry.of.includes(ingredient.id)) ?? swapTable.find((entry) => entry.of.includes(ingredient.family));
  return (row?.by ?? []).filter((id) => id !== ingredient.id).flatMap((id) => shelf.get(id) ?? []);
}

/**
 * Replaces one ingredient and keeps water, fat, sugar, acid, binder, lift and flour where they were by moving its neighbours; says what was kept
 * and what could not be. Masses in g. Throws `unknown-ingredient` for what is not on the shelf or not in the formula.
 */
export function swap(
  whole: Opened,
  request: { replace: string; with?: string | undefined },
  options: BalanceOptions = {},
  shelf: Shelf = builtInShelf,
): Proposals {
  const { batter, rest, open } = movableOf(whole, shelf);
  const items = resolve(batter, shelf);
  const replaced = items.find((item) => item.ingredient.id === request.replace);
  const beside = rest.filter((line): line is WeighedLine => isWeighed(line) && line.ingredientId === request.replace);
  if (!replaced && beside.length === 0) {
    ingredientOf(shelf, request.replace, "replace");
    throw new CoreError(
      "unknown-ingredient",
      `The formula has no ${request.replace}; one of ${items.map((i) => i.ingredient.id).join(", ")} would be right.`,
      "replace",
    );
  }
  const leaving = ingredientOf(shelf, request.replace, "replace");
  const wanted = request.with === undefined ? substitutesOf(leaving, shelf) : [ingredientOf(shelf, request.with, "with")];
  const allowed = wanted.filter(
    (i) =>
      i.id !== leaving.id &&
      !i.allergens.some((a) => options.avoid?.includes(a)) &&
      (!options.onHand || options.onHand.includes(i.id) || items.some((item) => item.ingredient.id === i.id)),
  );
  const before = readings(whole, shelf);
  const input: Batter = { ...whole, lines: batter };
  const proposals = allowed.flatMap((by) => {
    const moved = replaced ? swapBy(input, before, items, replaced, by, options, shelf) : besideOnly(before, batter, leaving, by);
    return moved ? [withBeside(moved, whole, rest, beside, before, leaving, by, shelf)] : [];
  });
  return {
    proposals: proposals
      .sort((a, b) => (a.lost?.length ?? 0) - (b.lost?.length ?? 0) || a.changes.length - b.changes.length)
      .slice(0, MOST_PROPOSALS),
    ...withoutOf(open),
  };
}

/** An input whose lines are its batter alone. */
type Batter = Opened & { lines: readonly WeighedLine[] };

/** What leaves stands only beside the batter: the batter stays as it is. */
const besideOnly = (
  before: ReturnType<typeof readings>,
  batter: readonly WeighedLine[],
  leaving: Ingredient,
  by: Ingredient,
): Proposal => ({
  title: `${by.name} for ${leaving.name.toLowerCase()}`,
  why: `${by.name} for as much ${leaving.name.toLowerCase()}, gram for gram; the batter stays as it is.`,
  changes: [],
  lines: batter.map(proposedLine),
  before: readingsOf(before),
  after: readingsOf(before),
  kept: ["the batter"],
  lost: [],
  allergensAdded: [],
  allergensRemoved: [],
});

/** A swap of the batter carried into the components: there by the same proportion, since nothing has to rise in them. Analysed again. */
function withBeside(
  proposal: Proposal,
  whole: Opened,
  rest: readonly InputLine[],
  beside: readonly WeighedLine[],
  before: ReturnType<typeof readings>,
  leaving: Ingredient,
  by: Ingredient,
  shelf: Shelf,
): Proposal {
  const from = proposal.changes.find(({ ingredientId }) => ingredientId === leaving.id)?.fromG ?? 0;
  const change = proposal.changes.find(({ ingredientId }) => ingredientId === by.id);
  const ratio = from > 0 && change && change.toG > change.fromG ? (change.toG - change.fromG) / from : 1;
  const changes = beside.flatMap((line): Proposal["changes"] => {
    const place = line.component === undefined ? {} : { component: line.component };
    const grams = gramsOf(line);
    const there = rest.filter((other) => other.component === line.component && other.ingredientId === by.id);
    const had = there.reduce((g, other) => g + gramsOf(other), 0);
    return [
      { ingredientId: leaving.id, fromG: grams, toG: 0, ...place },
      { ingredientId: by.id, fromG: had, toG: had + measurable(grams * ratio), ...place },
    ];
  });
  const others = rest.map((line): InputLine =>
    beside.includes(line as WeighedLine) ? { ...line, ingredientId: by.id, grams: measurable(gramsOf(line) * ratio) } : line,
  );
  const lines = [...proposal.lines, ...others.map(proposedLine)];
  const after = readings({ ...whole, lines }, shelf);
  const had = allergensOf(whole.lines, shelf);
  const has = allergensOf(lines, shelf);
  return {
    ...proposal,
    changes: [...proposal.changes, ...changes],
    lines,
    before: readingsOf(before),
    after: readingsOf(after),
    allergensAdded: [...has].filter((a) => !had.has(a)),
    allergensRemoved: [...had].filter((a) => !has.has(a)),
  };
}

function swapBy(
  input: Batter,
  before: ReturnType<typeof readings>,
  items: readonly Item[],
  replaced: Item,
  by: Ingredient,
  options: BalanceOptions,
  shelf: Shelf,
): Proposal | null {
  const locked = new Set(options.locked ?? []);
  const wheat = replaced.ingredient.family === "wheat";
  const profile = profileOf(before.given.kind);
  const total = (name: QuantityName): number => items.reduce((all, item) => all + perGram[name](item.ingredient) * item.massG, 0);
  const limits: Limit[] = kept.map(({ name, tolerance, least, weight }) => {
    const was = wantsNewLift(replaced.ingredient) && (name === "soda" || name === "acid") ? newLift(before, items) : total(name);
    const share = Math.max(0.5 * tolerance, was > 0 ? (0.5 * least) / was : 0);
    const limit = keepLimit(name, was, share, weight / Math.max(was, least * 4));
    if (was <= 0) return { ...limit, min: -least / 2, max: least / 2 };
    if (name === "binder" && wheat)
      return {
        id: limit.id,
        name,
        coefficient: limit.coefficient,
        min: (profile.binderPercent.low / 100) * before.batch.baseG,
        max: (Math.max(0.6, profile.binderPercent.high) / 100) * before.batch.baseG,
      };
    return limit;
  });
  const rest = items.filter((item) => item !== replaced);
  const standing = rest.find((item) => item.ingredient.id === by.id);
  const most = 3 * replaced.massG + 0.6 * before.batch.massG;
  const changeable: Changeable[] = [
    {
      ingredient: by,
      nowG: standing?.massG ?? 0,
      mostG: (standing?.massG ?? 0) + most,
      referenceG: Math.max(replaced.massG, 1) * 20,
      reluctance: -1,
    },
  ];
  for (const item of rest) {
    if (item === standing || item.locked || locked.has(item.ingredient.id) || !helperFamilies.has(item.ingredient.family)) continue;
    changeable.push({
      ingredient: item.ingredient,
      nowG: item.massG,
      mostG: 2.5 * item.massG,
      referenceG: item.massG,
      reluctance: -0.3,
    });
  }
  for (const [id, reluctance] of Object.entries(helpers)) {
    const helper = shelf.get(id);
    if (
      !helper ||
      changeable.some((c) => c.ingredient.id === id) ||
      rest.some((item) => item.ingredient.id === id) ||
      id === replaced.ingredient.id ||
      locked.has(id)
    )
      continue;
    if (options.onHand && !options.onHand.includes(id)) continue;
    changeable.push({
      ingredient: helper,
      nowG: 0,
      mostG: 0.4 * before.batch.massG,
      referenceG: 0.1 * before.batch.massG,
      reluctance,
    });
  }
  const names = new Set(changeable.map((c) => c.ingredient.id));
  const solved = smallestChange(
    changeable,
    rest.filter((item) => !names.has(item.ingredient.id)),
    limits,
  );
  if (!solved) return null;
  const toG = new Map(
    [...solved.toG]
      .map(([id, g]): [string, number] => [id, measurable(g)])
      .filter(([id, g]) => Math.abs(g - (rest.find((i) => i.ingredient.id === id)?.massG ?? 0)) > 0.04),
  );
  toG.set(replaced.ingredient.id, 0);
  if (isFlour(replaced.ingredient)) matchStiffness(input, items, toG, shelf);
  return report(input, before, items, replaced, by, toG, shelf);
}

/** mmol of soda, and of acid with it, that give the middle of the kind's usual gas. */
function newLift(before: ReturnType<typeof readings>, items: readonly Item[]): number {
  const { low, high } = profileOf(before.given.kind).bands.gasMlPer100g;
  const mass = items.reduce((g, item) => g + item.massG, 0);
  return ((low + high) / 2 / ML_PER_MMOL_25C) * (mass / 100);
}

/** A gluten-free flour drinks otherwise: the main liquid is moved until the batter is as stiff as it was, or as its kind wants it. */
function matchStiffness(input: Batter, items: readonly Item[], toG: Map<string, number>, shelf: Shelf): void {
  const method = input.process?.method;
  const kind = input.kind ?? "loaf";
  const aim = Math.min(2.95, stiffnessOf(items, method));
  const lines = linesAfter(input.lines, toG);
  const liquid = resolve(lines, shelf)
    .filter(
      (item) => item.ingredient.behaviour === "liquid" && item.ingredient.per100g.water > 70 && item.ingredient.family !== "egg",
    )
    .sort((a, b) => b.massG - a.massG)[0];
  if (!liquid) return;
  const stiffness = (grams: number): number =>
    stiffnessOf(resolve(linesAfter(lines, new Map([[liquid.ingredient.id, grams]])), shelf), method);
  let low = 0.3 * liquid.massG;
  let high = 3 * liquid.massG + 50;
  for (let i = 0; i < 30; i++) {
    const middle = (low + high) / 2;
    if (stiffness(middle) > aim) low = middle;
    else high = middle;
  }
  const grams = measurable(high);
  if (profileOf(kind).consistencies.includes(consistencyOf(stiffness(grams)))) toG.set(liquid.ingredient.id, grams);
}

function report(
  input: Batter,
  before: ReturnType<typeof readings>,
  items: readonly Item[],
  replaced: Item,
  by: Ingredient,
  toG: Map<string, number>,
  shelf: Shelf,
): Proposal {
  const lines = linesAfter(input.lines, toG);
  const after = readings({ ...input, lines }, shelf);
  const now = resolve(lines, shelf);
  const sumOf = (all: readonly Item[], name: QuantityName): number =>
    all.reduce((sum, item) => sum + perGram[name](item.ingredient) * item.massG, 0);
  const keptWords: string[] = [];
  const lost: string[] = [];
  for (const { name, word, unit, tolerance, least } of kept) {
    const a = sumOf(items, name);
    const b = sumOf(now, name);
    if (Math.abs(a) < least && Math.abs(b) < least) continue;
    // Gluten's binding is replaced by a gum's, yeast's gas by a powder's: these are new by intent, not lost.
    if (name === "binder" && replaced.ingredient.family === "wheat") continue;
    if ((name === "soda" || name === "acid") && wantsNewLift(replaced.ingredient)) continue;
    if (Math.abs(b - a) <= Math.max(tolerance * Math.abs(a), least)) keptWords.push(word);
    else lost.push(`${word} ${amountOf(a, unit)} → ${amountOf(b, unit)}`);
  }
  const had = allergensOf(input.lines, shelf);
  const has = allergensOf(lines, shelf);
  const massNow = new Map(items.map((item) => [item.ingredient.id, item.massG]));
  const changes = [...toG].map(([ingredientId, to]) => ({ ingredientId, fromG: massNow.get(ingredientId) ?? 0, toG: to }));
  const others = changes.filter((c) => c.ingredientId !== replaced.ingredient.id && c.ingredientId !== by.id);
  const moved = others.map(
    (c) => `${shelf.get(c.ingredientId)?.name.toLowerCase() ?? c.ingredientId} ${gramsText(c.fromG)} → ${gramsText(c.toG)}`,
  );
  const dose = toG.get(by.id) ?? massNow.get(by.id) ?? 0;
  const rest =
    isFlour(replaced.ingredient) && replaced.ingredient.family === "wheat"
      ? " Let the batter stand for 20 to 30 min before the oven; it looks runnier than a wheat batter and drinks more slowly."
      : "";
  return {
    title: `${by.name} for ${replaced.ingredient.name.toLowerCase()}`,
    why: `${gramsText(dose)} of ${by.name.toLowerCase()} for ${gramsText(replaced.massG)} of ${replaced.ingredient.name.toLowerCase()}${moved.length > 0 ? `, with ${moved.join(", ")}` : ""}. ${keptWords.length > 0 ? `Kept: ${keptWords.join(", ")}.` : ""}${lost.length > 0 ? ` Not kept: ${lost.join("; ")}.` : ""}${rest}`,
    changes,
    lines,
    before: readingsOf(before),
    after: readingsOf(after),
    kept: keptWords,
    lost,
    allergensAdded: [...has].filter((a) => !had.has(a)),
    allergensRemoved: [...had].filter((a) => !has.has(a)),
  };
}

const amountOf = (value: number, unit: "g" | "mmol"): string => (unit === "g" ? gramsText(value) : `${Math.round(value)} mmol`);
