import { consistencyOf, stiffnessOf, stiffnessRange } from "../body/consistency";
import { binderPerGram } from "../body/binder";
import type { InputLine, WeighedLine } from "../formula/components";
import type { Opened } from "../formula/open";
import type { Item } from "../formula/resolve";
import { sodaPerGram } from "../lift/charge";
import { acidPerGram } from "../lift/ledger";
import { measurable } from "../measure/amounts";
import { ingredientOf, type Shelf } from "../pantry/shelf";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";
import { releasedAtMixing } from "../pantry/pieces";
import type { BalanceOptions } from "./balance";
import { profileOf } from "./bands";
import { tradeOf } from "./trade";
import type { Finding } from "./finding-schema";
import type { Analysis, Thought } from "./readings";
import { mayCome } from "./proposal";
import { massIn } from "./remedy-words";
import { waysOut } from "./remedies";
import { freeAcid } from "./trade";
import { withMass } from "./ways";

/** An input whose lines are its batter alone. */
export type Batter = Opened & { lines: readonly WeighedLine[] };

export interface Task {
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

/** Less than a tenth of a line, or what no kitchen measures, is not worth a move; g. */
const LEAST_MOVE_G = 5;

const LEAST_SHARE = 0.02;

export const waterIn = ({ ingredient, massG }: Item): number =>
  (massG * ingredient.per100g.water * releasedAtMixing(ingredient)) / 100;

const waterOf = (items: readonly Item[]): number => items.reduce((g, item) => g + waterIn(item), 0);

/** How gladly a liquid is moved: water and milk before juice, what is sour last, since it meets soda. */
const liquidOrder: Ingredient["family"][] = ["water", "dairy", "plant-milk", "juice", "cultured"];

export function movableLiquid(task: Pick<Task, "locked">, items: readonly Item[], by: Ingredient): Item | undefined {
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
export function trimWater(task: Task, after: readonly Item[], by: Ingredient): readonly Item[] {
  const { items, leaving } = task;
  const liquids = leaving.per100g.water > 60 && by.per100g.water > 60;
  const missing = waterOf(items) - waterOf(after);
  if (liquids && Math.abs(missing) < LIQUID_FOR_LIQUID * waterOf(items)) return after;
  if (Math.abs(missing) < Math.max(LEAST_MOVE_G, LEAST_SHARE * waterOf(items)) || isFlour(leaving)) return after;
  const liquid = movableLiquid(task, after, by);
  // More of a sour liquid would bring acid that nothing asks for, and a powder is stirred into water: that comes from the tap.
  const fromTap = missing > 0 && (liquid?.ingredient.family === "cultured" || tradeOf(leaving, by).basis === "dry");
  if (liquid && !fromTap) {
    const grams = missing / (liquid.ingredient.per100g.water / 100);
    const to = measurable(liquid.massG + grams);
    // What was a powder comes with its own water: of the liquid beside it little or nothing may be left.
    const fromPowder = missing < 0 && leaving.per100g.water < DRY && by.per100g.water > 60;
    if (fromPowder || to > 0.3 * liquid.massG) return withMass(after, liquid.ingredient, to < LEAST_MOVE_G ? 0 : to);
  }
  if (missing > 0 && !task.locked.has("water")) {
    const water = ingredientOf(task.shelf, "water");
    return withMass(after, water, massIn(after, "water") + measurable(missing));
  }
  return after;
}

const LIQUID_FOR_LIQUID = 0.12;
/** g of water in 100 g of what is a powder. */
const DRY = 15;

/** A blend that holds a gum takes the gum beside it away; one that held it, or wheat, is given one. */
export function trimGum(task: Task, after: readonly Item[], by: Ingredient): readonly Item[] {
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
export function trimLift(task: Task, after: readonly Item[], by: Ingredient): readonly Item[] {
  const { leaving, grams, items } = task;
  if (leaving.family === "leavener" || by.family === "leavener") return trimDryAcid(task, after, by);
  const dose = massIn(after, by.id) - massIn(items, by.id);
  const missing = grams * sodaPerGram(leaving) - dose * sodaPerGram(by);
  const powder =
    after.find(
      ({ ingredient }) => ingredient.family === "leavener" && ingredient.leavening?.powder && !task.locked.has(ingredient.id),
    )?.ingredient ?? ingredientOf(task.shelf, "powder-aluminium-free");
  if (massIn(after, powder.id) === 0 && !mayCome(powder, task.options)) return after;
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
export function trimAcid(task: Task, after: readonly Item[], by: Ingredient): readonly Item[] {
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
/** So far from the edge of a word a body is aimed at. */
const WITHIN_WORD = 0.1;

/** Flours drink differently: the main liquid is moved until the batter is as stiff as it was, where that is worth a move. */
export function trimBody(task: Task, after: readonly Item[], by: Ingredient): readonly Item[] {
  const { leaving, items, before } = task;
  // A gum for a gum drinks more or less, too.
  const drinks = (one: Ingredient): boolean => isFlour(one) || one.family === "binder";
  if (!drinks(leaving) || !drinks(by)) return after;
  const { method } = before.given.process;
  const kind = before.given.kind;
  const liquid = movableLiquid(task, after, by);
  if (!liquid) return after;
  // Gluten holds what would run without it: where it leaves, nothing softer than the kind's own word is aimed at.
  const word = profileOf(kind).consistencies[0];
  const softest = leaving.family === "wheat" && word ? stiffnessRange(word).low + WITHIN_WORD : 0;
  const aim = Math.min(STIFFEST, Math.max(softest, stiffnessOf(items, method)));
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
export function withoutCautions(task: Task, after: readonly Item[], by: Ingredient): readonly Item[] {
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
            mayCome(ingredient, massIn(now, ingredient.id) > 0 ? { ...options, onHand: undefined } : options),
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
