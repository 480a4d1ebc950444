import { ML_PER_MMOL_25C } from "../physics";
import { consistencyOf, stiffnessOf } from "../body/consistency";
import { binderPerGram } from "../body/binder";
import { CoreError } from "../errors";
import { type InputLine, isWeighed, type WeighedLine } from "../formula/components";
import { gramsOf, type Opened } from "../formula/open";
import { type Item, massOf, resolve } from "../formula/resolve";
import { sodaPerGram } from "../lift/charge";
import { acidPerGram } from "../lift/ledger";
import { gramsText, measurable } from "../measure/amounts";
import { builtInShelf, ingredientOf, type Shelf } from "../pantry/catalogue";
import { crumbPerGram } from "../pantry/crumb";
import { type Ingredient, isFlour } from "../pantry/ingredient";
import { releasedAtMixing } from "../pantry/pieces";
import type { BalanceOptions } from "./balance";
import { profileOf } from "./bands";
import type { Finding } from "./finding";
import swapTable from "./data/swaps.json";
import { allergensOf, linesAfter, movableOf, proposedLine, type Proposal, type Proposals, readingsOf, withoutOf } from "./proposal";
import { type Analysis, readingsPlain, type Thought, thinking } from "./readings";
import { massIn, shortName, waysOut } from "./remedies";
import { freeAcid, type TradeContext, tradedGrams, tradeOf } from "./trade";
import { withMass } from "./ways";

const MOST_PROPOSALS = 6;

/** Ingredients that may stand in for another: by its id, else by its family; what a baker would try first stands first. */
export function substitutesOf(ingredient: Ingredient, shelf: Shelf = builtInShelf): Ingredient[] {
  const row =
    swapTable.find((entry) => entry.of.includes(ingredient.id)) ?? swapTable.find((entry) => entry.of.includes(ingredient.family));
  return (row?.by ?? []).filter((id) => id !== ingredient.id).flatMap((id) => shelf.get(id) ?? []);
}

/** An input whose lines are its batter alone. */
type Batter = Opened & { lines: readonly WeighedLine[] };

interface Task {
  whole: Opened;
  batter: Batter;
  rest: readonly InputLine[];
  items: readonly Item[];
  of: (items: readonly Item[]) => Thought;
  before: Analysis;
  leaving: Ingredient;
  /** g that leave the batter; 0 where it stands only beside it. */
  grams: number;
  locked: ReadonlySet<string>;
  options: BalanceOptions;
  shelf: Shelf;
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
      !i.allergens.some((a) => options.avoid?.includes(a)) &&
      (!options.onHand || options.onHand.includes(i.id) || items.some((item) => item.ingredient.id === i.id)),
  );
  const batter: Batter = { ...whole, lines };
  const locked = new Set([...(options.locked ?? []), ...items.filter((item) => item.locked).map((item) => item.ingredient.id)]);
  const task: Task = {
    whole,
    batter,
    rest,
    items,
    of: thinking(batter, shelf).of,
    before: readingsPlain(whole, shelf),
    leaving,
    grams: replaced?.massG ?? 0,
    locked,
    options,
    shelf,
  };
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
    if (!(dose > 0)) return null;
    const standing = massIn(items, by.id);
    after = withMass(withMass(items, leaving, 0), by, standing + dose);
    for (const trim of [trimGum, trimLift, trimAcid, trimWater, trimBody]) after = trim(task, after, by);
    after = withoutCautions(task, after, by);
  }
  return report(task, after, by, beside, trade.lost ?? []);
}

/** Less than a tenth of a line, or what no kitchen measures, is not worth a move; g. */
const LEAST_MOVE_G = 5;
const LEAST_SHARE = 0.02;

const waterIn = ({ ingredient, massG }: Item): number => (massG * ingredient.per100g.water * releasedAtMixing(ingredient)) / 100;
const waterOf = (items: readonly Item[]): number => items.reduce((g, item) => g + waterIn(item), 0);

/** How gladly a liquid is moved: water and milk before juice, what is sour last, since it meets soda. */
const liquidOrder: Ingredient["family"][] = ["water", "dairy", "plant-milk", "juice", "cultured"];

function movableLiquid(task: Task, items: readonly Item[], by: Ingredient): Item | undefined {
  const free = items.filter(
    ({ ingredient }) =>
      ingredient.behaviour === "liquid" &&
      ingredient.per100g.water > 75 &&
      liquidOrder.includes(ingredient.family) &&
      !/^(?:lemon|lime)-juice$/.test(ingredient.id) &&
      ingredient.id !== by.id &&
      !task.locked.has(ingredient.id),
  );
  // Yoghurt is no liquid to pour, but it can be taken less of.
  const thick = items.filter(
    ({ ingredient }) => ingredient.family === "cultured" && ingredient.id !== by.id && !task.locked.has(ingredient.id),
  );
  const order = (item: Item): number => liquidOrder.indexOf(item.ingredient.family);
  return [...free, ...thick].sort((a, b) => order(a) - order(b) || b.massG - a.massG)[0];
}

/** The water that went or came is made good from the main liquid, or from the tap; a liquid for a liquid needs none. */
function trimWater(task: Task, after: readonly Item[], by: Ingredient): readonly Item[] {
  const { items, leaving } = task;
  const liquids = leaving.per100g.water > 60 && by.per100g.water > 60;
  const missing = waterOf(items) - waterOf(after);
  if (liquids && Math.abs(missing) < LIQUID_FOR_LIQUID * waterOf(items)) return after;
  if (Math.abs(missing) < Math.max(LEAST_MOVE_G, LEAST_SHARE * waterOf(items)) || isFlour(leaving)) return after;
  const liquid = movableLiquid(task, after, by);
  if (liquid) {
    const grams = missing / (liquid.ingredient.per100g.water / 100);
    const to = measurable(liquid.massG + grams);
    if (to > 0.3 * liquid.massG) return withMass(after, liquid.ingredient, to);
  }
  if (missing > 0 && !task.locked.has("water")) {
    const water = ingredientOf(task.shelf, "water");
    return withMass(after, water, massIn(after, "water") + measurable(missing));
  }
  return after;
}

const LIQUID_FOR_LIQUID = 0.12;

/** A blend that holds a gum takes the gum beside it away; one that held it, or wheat, is given one. */
function trimGum(task: Task, after: readonly Item[], by: Ingredient): readonly Item[] {
  const { leaving, grams, items } = task;
  if (!isFlour(leaving) || !isFlour(by)) return after;
  const wheat = leaving.family === "wheat";
  const was = wheat ? (WHEAT_GUM_PERCENT / 100) * grams : grams * binderPerGram(leaving);
  const now = (massIn(after, by.id) - massIn(items, by.id)) * binderPerGram(by);
  const missing = was - now;
  const gum = after.find(
    ({ ingredient }) => ingredient.family === "binder" && binderPerGram(ingredient) > 0.05 && !task.locked.has(ingredient.id),
  );
  if (missing > 0.3) {
    // Where wheat leaves, eggs and what binds already are not enough, but a gum that stands there is.
    if (wheat && gum) return after;
    const other = gum?.ingredient ?? ingredientOf(task.shelf, "xanthan");
    if (task.locked.has(other.id)) return after;
    return withMass(after, other, massIn(after, other.id) + measurable(missing / binderPerGram(other)));
  }
  if (missing < -0.3 && gum) {
    const left = gum.massG + missing / binderPerGram(gum.ingredient);
    return withMass(after, gum.ingredient, left < 0.25 * gum.massG ? 0 : measurable(left));
  }
  return after;
}

const WHEAT_GUM_PERCENT = 0.6;

/** Leavening that leaves or comes with a blend is weighed out or held back. */
function trimLift(task: Task, after: readonly Item[], by: Ingredient): readonly Item[] {
  const { leaving, grams, items } = task;
  if (leaving.family === "leavener" || by.family === "leavener") return trimDryAcid(task, after, by);
  const dose = massIn(after, by.id) - massIn(items, by.id);
  const missing = grams * sodaPerGram(leaving) - dose * sodaPerGram(by);
  const powder =
    after.find(
      ({ ingredient }) => ingredient.family === "leavener" && ingredient.leavening?.powder && !task.locked.has(ingredient.id),
    )?.ingredient ?? ingredientOf(task.shelf, "powder-aluminium-free");
  const by_ = missing / sodaPerGram(powder);
  const there = massIn(after, powder.id);
  if (Math.abs(by_) < Math.max(0.5, 0.1 * there) || task.locked.has(powder.id)) return after;
  return withMass(after, powder, Math.max(0, measurable(there + by_)));
}

/** Soda that leaves takes the dry acid along that was there for it; soda that comes brings the acid that it needs. */
function trimDryAcid(task: Task, after: readonly Item[], by: Ingredient): readonly Item[] {
  const { leaving, shelf, options } = task;
  const sodaLeft = massIn(after, "soda");
  if (leaving.id === "soda" && by.leavening?.powder) {
    if (sodaLeft > 0.3) return after;
    return after.filter(({ ingredient }) => ingredient.family !== "acid" || task.locked.has(ingredient.id));
  }
  if (by.id !== "soda") return after;
  const needed = MEETS * sodaLeft * sodaPerGram(by) - freeAcid(after);
  if (needed < 2) return after;
  const acid = ["cream-of-tartar", "lemon-juice", "vinegar"].find(
    (id) => !task.locked.has(id) && (!options.onHand || options.onHand.includes(id) || massIn(after, id) > 0),
  );
  if (acid === undefined) return after;
  const ingredient = ingredientOf(shelf, acid);
  return withMass(after, ingredient, massIn(after, acid) + measurable(needed / acidPerGram(ingredient)));
}

const MEETS = 0.95;
/** Less acid than this share of the soda is within what titrations differ by. */
const ACID_MATTERS = 0.1;

/** Acid that left and that soda still needs comes back as vinegar or lemon, and as much liquid is held back; never more than was there. */
function trimAcid(task: Task, after: readonly Item[], by: Ingredient): readonly Item[] {
  const { items, leaving, shelf, options } = task;
  if (leaving.family === "leavener" || by.family === "leavener") return after;
  const soda = after.reduce((all, item) => all + item.massG * sodaPerGram(item.ingredient), 0);
  const acid = (list: readonly Item[]): number => list.reduce((all, item) => all + item.massG * acidPerGram(item.ingredient), 0);
  if (massIn(after, "soda") <= 0.2) return after;
  const missing = Math.min(acid(items), MEETS * soda) - acid(after);
  if (missing < Math.max(1.5, ACID_MATTERS * soda)) return after;
  const id = ["vinegar", "lemon-juice", "cream-of-tartar"].find(
    (one) =>
      one !== leaving.id && !task.locked.has(one) && (!options.onHand || options.onHand.includes(one) || massIn(after, one) > 0),
  );
  if (id === undefined) return after;
  const sour = ingredientOf(shelf, id);
  const grams = measurable(missing / acidPerGram(sour));
  const next = withMass(after, sour, massIn(after, id) + grams);
  // A spoon of vinegar stands in the place of as much milk.
  return by.per100g.water > 60 && sour.per100g.water > 60 && massIn(after, by.id) > 3 * grams
    ? withMass(next, by, measurable(massIn(after, by.id) - grams))
    : next;
}

/** A move of the main liquid smaller than this share of it is left to the baker's eye. */
const BODY_MOVE = 0.1;
/** No stiffer than this is aimed at: a gluten-free dough is never as firm as a wheat dough. */
const STIFFEST = 2.95;

/** Flours drink differently: the main liquid is moved until the batter is as stiff as it was, where that is worth a move. */
function trimBody(task: Task, after: readonly Item[], by: Ingredient): readonly Item[] {
  const { leaving, items, before } = task;
  if (!isFlour(leaving) || !isFlour(by)) return after;
  const { method } = before.given.process;
  const kind = before.given.kind;
  const liquid = movableLiquid(task, after, by);
  if (!liquid) return after;
  const aim = Math.min(STIFFEST, stiffnessOf(items, method));
  const stiffness = (grams: number): number => stiffnessOf(withMass(after, liquid.ingredient, grams), method);
  let low = 0.5 * liquid.massG;
  let high = 1.7 * liquid.massG;
  for (let i = 0; i < 24; i++) {
    const middle = (low + high) / 2;
    if (stiffness(middle) > aim) low = middle;
    else high = middle;
  }
  const grams = measurable(high);
  const fits = profileOf(kind).consistencies.includes(consistencyOf(stiffness(grams)));
  return fits && Math.abs(grams - liquid.massG) >= BODY_MOVE * liquid.massG ? withMass(after, liquid.ingredient, grams) : after;
}

/** What a swap must not bring: its ways out are tried, within locks and without what leaves, until none is new. */
function withoutCautions(task: Task, after: readonly Item[], by: Ingredient): readonly Item[] {
  const { before, of, leaving, locked, options } = task;
  const had = new Set(before.findings.filter(({ severity }) => severity !== "note").map(({ id }) => id));
  const fresh = (items: readonly Item[]): Finding[] =>
    of(items).findings.filter(({ id, severity }) => severity !== "note" && !had.has(id));
  let now = after;
  for (let round = 0; round < 2; round++) {
    const bad = fresh(now);
    const [first] = bad;
    if (!first) return now;
    const better = waysOut(first.id, of(now))
      .map(({ items }) => items)
      .find((items) => {
        if (!items) return false;
        const moved = items.filter((item) => Math.abs(item.massG - massIn(now, item.ingredient.id)) > 0.04);
        const fits = moved.every(
          ({ ingredient }) =>
            ingredient.id !== leaving.id &&
            !locked.has(ingredient.id) &&
            !ingredient.allergens.some((a) => options.avoid?.includes(a)) &&
            (!options.onHand || options.onHand.includes(ingredient.id) || massIn(now, ingredient.id) > 0),
        );
        const keeps = massIn(items, by.id) >= 0.5 * massIn(now, by.id);
        const gone = now.some((item) => locked.has(item.ingredient.id) && massIn(items, item.ingredient.id) !== item.massG);
        return fits && keeps && !gone && fresh(items).length < bad.length;
      });
    if (!better) return now;
    now = better;
  }
  return now;
}

type Sum = (item: Item) => number;
/** What is reported as kept or lost, with the share and the least amount that count as kept. */
const told: { word: string; unit: "g" | "mmol"; of: Sum; tolerance: number; least: number }[] = [
  { word: "water", unit: "g", of: waterIn, tolerance: 0.05, least: 8 },
  { word: "fat", unit: "g", of: (item) => (item.massG * item.ingredient.per100g.fat) / 100, tolerance: 0.08, least: 5 },
  { word: "sugar", unit: "g", of: (item) => (item.massG * item.ingredient.per100g.sugars) / 100, tolerance: 0.08, least: 6 },
  { word: "lift", unit: "mmol", of: (item) => item.massG * sodaPerGram(item.ingredient), tolerance: 0.1, least: 3 },
  { word: "acid", unit: "mmol", of: (item) => item.massG * acidPerGram(item.ingredient), tolerance: 0.1, least: 4 },
  { word: "flour", unit: "g", of: (item) => item.massG * crumbPerGram(item.ingredient), tolerance: 0.05, least: 8 },
];

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
  const final = readingsPlain({ ...whole, lines }, shelf);
  const sums = told.map(({ word, unit, of, tolerance, least }) => {
    const sum = (list: readonly Item[]): number => list.reduce((all, item) => all + of(item), 0);
    const [a, b] = [sum(items), sum(after)];
    const counts = Math.abs(a) >= least || Math.abs(b) >= least;
    return {
      word,
      kept: Math.abs(b - a) <= Math.max(tolerance * Math.abs(a), least),
      counts,
      text: `${word} ${amountOf(a, unit)} → ${amountOf(b, unit)}`,
    };
  });
  const kept = sums.filter((sum) => sum.counts && sum.kept).map((sum) => sum.word);
  const lost = [...tableLost, ...sums.filter((sum) => sum.counts && !sum.kept).map((sum) => sum.text)];
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
    why: `${first}${movedText.length > 0 ? `; ${movedText.join(", ")}` : ""}.${kept.length > 0 ? ` Kept: ${kept.join(", ")}.` : ""}${lost.length > 0 ? ` Not kept: ${lost.join("; ")}.` : ""}${wait}`.replace(
      /^./,
      (c) => c.toUpperCase(),
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

const amountOf = (value: number, unit: "g" | "mmol"): string => (unit === "g" ? gramsText(value) : `${Math.round(value)} mmol`);
