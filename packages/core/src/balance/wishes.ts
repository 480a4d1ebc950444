import { stiffnessOf } from "../body/consistency";
import { binderPerGram } from "../body/binder";
import { type InputLine, gramsOf } from "../formula/components";
import type { Opened } from "../formula/open";
import { type Item, resolve } from "../formula/resolve";
import { gramsText, measurable } from "../measure/amounts";
import { ingredientOf, type Shelf } from "../pantry/shelf";
import type { Ingredient } from "../pantry/ingredient-schema";
import type { BalanceOptions } from "./balance";
import { profileOf } from "./bands";
import { linesAfter, mayCome, movableOf } from "./proposal";
import { readings, thinking } from "./readings";
import { massIn, shortName } from "./remedy-words";
import { substitutesOf, swap } from "./swap";
import { movableLiquid, waterIn } from "./trims";
import { leastThat, withMass } from "./ways";
import type { WholeWish } from "./wish-words";

/** What is of an animal and holds no allergen that says so. */
const animal = new Set(["honey", "gelatine", "lard", "suet", "beef-dripping", "duck-fat", "marshmallows"]);
const gums = new Set(["xanthan", "guar", "locust-bean-gum", "methylcellulose", "konjac", "agar", "pectin", "gelatine"]);
/** Sweet things that are what a plant gives, pressed, boiled or dried; all other sugars and syrups are refined. */
const unrefined = new Set(["coconut-sugar", "palm-sugar", "honey", "maple-syrup", "date-syrup", "molasses", "apple-concentrate", "pomegranate-molasses"]); // prettier-ignore
const has = (allergens: readonly Ingredient["allergens"][number][]) => (one: Ingredient): boolean => one.allergens.some((a) => allergens.includes(a)); // prettier-ignore

/** What must go, by wish. */
const goes: Partial<Record<WholeWish, (one: Ingredient, options: BalanceOptions) => boolean>> = {
  vegan: (one) => has(["milk", "egg", "fish", "crustaceans", "molluscs"])(one) || one.family === "meat" || animal.has(one.id),
  "no-egg": has(["egg"]),
  "no-milk": has(["milk"]),
  "no-nuts": has(["nuts", "peanuts"]),
  // A blend that is not said to hold a gum has none that binds.
  "no-gum": (one) => gums.has(one.id) || (one.family === "blend" && binderPerGram(one) > 0),
  "no-refined-sugar": (one) => (one.family === "sugar" || one.family === "syrup") && !unrefined.has(one.id),
  "no-powder": (one) => one.leavening?.powder !== undefined,
  "on-hand": (one, { onHand = [] }) => one.family !== "water" && !onHand.includes(one.id),
};

/** Whether a wish wants something gone; undefined where it only moves amounts. */
export const refusedBy = (wish: WholeWish, options: BalanceOptions): ((one: Ingredient) => boolean) | undefined => {
  const rule = goes[wish];
  return rule && ((one) => rule(one, options));
};

/** Lines after a wish of amounts and what was done; or why it cannot be done. */
export type Moved = { lines: readonly InputLine[]; told: string } | { no: string };

const LESS_SUGAR = 0.75;
const LESS_SALT = 0.67;
const RICHER = 1.25;
/** So much lower the pH of the crumb should be: what is tasted without being sharp (C). */
const SOURER_PH = 0.3;
/** More of a liquid than this is not poured away for a sour one. */
const MOST_SOUR = 0.4;

/** No more than this share of its water is poured in to keep it as soft as it was: a wetter crumb is worse than a stiffer batter (C). */
const MOST_POURED = 0.12;

/** A batter whose amounts are moved, and what may be moved in it. */
interface Batter {
  input: Opened;
  items: readonly Item[];
  free: readonly Item[];
  locked: ReadonlySet<string>;
  options: BalanceOptions;
  shelf: Shelf;
}

const words = (moves: readonly { ingredient: Ingredient; fromG: number; toG: number }[]): string =>
  moves.map(({ ingredient, fromG, toG }) => `${shortName(ingredient)} ${gramsText(fromG)} → ${gramsText(toG)}`).join(", ");

/** The main liquid moved until the batter is as stiff as it was; as it is where nothing is free to be poured. */
function asStiff({ input, items, locked, shelf }: Batter, after: readonly Item[], beside: Ingredient): readonly Item[] {
  const { kind, process } = readings(input, shelf).given;
  const method = process.method ?? profileOf(kind).method;
  const liquid = movableLiquid({ locked }, after, beside);
  if (!liquid) return after;
  const aim = stiffnessOf(items, method);
  const waterG = items.reduce((all, item) => all + waterIn(item), 0);
  const most = liquid.massG + MOST_POURED * waterG;
  const grams = leastThat(0.5 * liquid.massG, most, (g) => stiffnessOf(withMass(after, liquid.ingredient, g), method) <= aim, 12);
  return grams === null ? after : withMass(after, liquid.ingredient, measurable(grams));
}

/** What is to be scaled, by one factor; null where there is nothing. */
function scaled(batter: Batter, what: readonly Item[], factor: number, stiff: boolean): Moved | null {
  const { items, input } = batter;
  const [first] = what;
  if (!first) return null;
  let after: readonly Item[] = items;
  for (const { ingredient, massG } of what) after = withMass(after, ingredient, measurable(factor * massG));
  if (stiff) after = asStiff(batter, after, first.ingredient);
  const done = movedTo(input, items, after, batter.shelf);
  return "no" in done ? done : { ...done, told: `${Math.round(100 * Math.abs(factor - 1))} % ${factor < 1 ? "less" : "more"}: ${done.told}` };
} // prettier-ignore

function movedTo(input: Opened, items: readonly Item[], after: readonly Item[], shelf: Shelf): Moved {
  const ids = [...new Set([...items, ...after].map(({ ingredient }) => ingredient.id))];
  const moves = ids.flatMap((id) => {
    const [fromG, toG] = [massIn(items, id), massIn(after, id)];
    return Math.abs(fromG - toG) < 0.04 ? [] : [{ ingredient: ingredientOf(shelf, id), fromG, toG }];
  });
  const { batter, rest } = movableOf(input, shelf);
  const lines = linesAfter(batter, new Map(moves.map(({ ingredient, toG }) => [ingredient.id, Math.round(100 * toG) / 100])));
  return { lines: [...lines, ...rest], told: words(moves) };
}

const isSweet = ({ ingredient }: Item): boolean => ingredient.family === "sugar" || (ingredient.family === "syrup" && ingredient.per100g.sugars > 40); // prettier-ignore

const lessSugar = (batter: Batter): Moved =>
  scaled(batter, batter.free.filter(isSweet), LESS_SUGAR, true) ?? { no: "No sugar or syrup in the batter is free to be taken less of; what is sweet in it comes with its fruit, or is locked." }; // prettier-ignore
const lessSalt = (batter: Batter): Moved =>
  scaled(batter, batter.free.filter(({ ingredient }) => ingredient.family === "salt"), LESS_SALT, false) ?? { no: "No line of salt is free to be taken less of; what salt there is comes with other things, and with soda or powder." }; // prettier-ignore
const richer = (batter: Batter): Moved => {
  const fats = batter.free.filter(({ ingredient }) => ingredient.family === "fat" && ingredient.per100g.fat > 50).sort((a, b) => b.massG - a.massG); // prettier-ignore
  return scaled(batter, fats.slice(0, 1), RICHER, true) ?? { no: "No fat in the batter is free to be taken more of; add a line of butter or oil first." }; // prettier-ignore
};

/** Lemon juice or vinegar in the place of as much of the main liquid, until the crumb is as much sourer as one tastes. */
function sourer({ input, items, locked, options, shelf }: Batter): Moved {
  const id = ["lemon-juice", "vinegar"].find((one) => !locked.has(one) && mayCome(ingredientOf(shelf, one), options));
  if (id === undefined) return { no: "Neither lemon juice nor vinegar may be added; one of them on the shelf and unlocked would do it." };
  const sour = ingredientOf(shelf, id);
  const liquid = movableLiquid({ locked }, items, sour);
  const { of } = thinking(input, shelf);
  if (readings(input, shelf).lift.verdict === "short-of-acid") return { no: "Its soda finds no acid as it is, so what is sour would only meet the soda. Mend that first." };
  const ph = (some: readonly Item[]): number => of(some).lift.lift.ph.mid;
  const aim = ph(items) - SOURER_PH;
  const there = massIn(items, id);
  const most = liquid ? MOST_SOUR * liquid.massG : 0.06 * items.reduce((all, { massG }) => all + massG, 0);
  const withSour = (grams: number): readonly Item[] => {
    const poured = withMass(items, sour, there + grams);
    return liquid ? withMass(poured, liquid.ingredient, liquid.massG - grams) : poured;
  };
  const grams = leastThat(0, most, (g) => ph(withSour(g)) <= aim, 9);
  if (grams === null) return { no: `Up to ${gramsText(most)} of ${shortName(sour)} would not be tasted: the soda meets it. Less soda, or powder in its place, first.` };
  return movedTo(input, items, withSour(measurable(grams)), shelf);
} // prettier-ignore

/** Of all the cost this much must be saved, or it is no saving. */
const LEAST_SAVED = 0.05;
const MOST_CHEAPER = 2;

/** Oil for butter is cheaper, and another crumb: a fat stands for one that is as solid. */
const isLike = (one: Ingredient, other: Ingredient): boolean => one.family !== "fat" || (one.behaviour === "liquid") === (other.behaviour === "liquid"); // prettier-ignore

/** What costs most is swapped for what costs less and does the same; only with prices that are known. */
function cheaper({ input, options, shelf }: Batter): Moved {
  const { prices = {} } = options;
  const cost = (lines: readonly InputLine[]): number => lines.reduce((all, line) => all + (line.off || line.ingredientId === undefined ? 0 : gramsOf(line) * (prices[line.ingredientId] ?? 0)), 0) / 1000;
  const told: string[] = [];
  let lines: readonly InputLine[] = input.lines;
  for (let n = 0; n < MOST_CHEAPER; n++) {
    const before = readings({ ...input, lines }, shelf).findings.length;
    const { batter } = movableOf({ ...input, lines }, shelf);
    const spent = resolve(batter, shelf).filter((item) => !item.locked && !options.locked?.includes(item.ingredient.id) && (prices[item.ingredient.id] ?? 0) > 0).map(({ ingredient, massG }) => ({ ingredient, spend: massG * (prices[ingredient.id] ?? 0) })).sort((a, b) => b.spend - a.spend);
    const best = spent.slice(0, 4).flatMap(({ ingredient }) =>
      substitutesOf(ingredient, shelf).filter((one) => prices[one.id] !== undefined && mayCome(one, options) && isLike(ingredient, one)).flatMap(({ id }) => swap({ ...input, lines }, { replace: ingredient.id, with: id }, options, shelf).proposals.slice(0, 1)),
    ).filter(({ after }) => after.findings.length <= before).map((proposal) => ({ proposal, saves: cost(lines) - cost(proposal.lines) })).sort((a, b) => b.saves - a.saves)[0];
    if (!best || best.saves < LEAST_SAVED * cost(lines)) break;
    lines = best.proposal.lines;
    told.push(best.proposal.title);
  }
  const saved = cost(input.lines) - cost(lines);
  if (Object.keys(prices).length === 0) return { no: "No price is known; packets with their price in the store would tell what is dear." };
  return told.length === 0 ? { no: "Nothing that does the same and has a price costs less." } : { lines, told: `${told.join("; ")}; ${Math.round((100 * saved) / cost(input.lines))} % less for what is priced` };
} // prettier-ignore

const moves: Partial<Record<WholeWish, (batter: Batter) => Moved>> = {
  "less-sugar": lessSugar,
  "less-salt": lessSalt,
  sourer,
  richer,
  cheaper,
};

/** A wish that moves amounts, done; null for one by which something goes. */
export function movedBy(wish: WholeWish, input: Opened, options: BalanceOptions, shelf: Shelf): Moved | null {
  const move = moves[wish];
  if (!move) return null;
  const items = resolve(movableOf(input, shelf).batter, shelf);
  const locked = new Set([
    ...(options.locked ?? []),
    ...items.filter((item) => item.locked).map(({ ingredient }) => ingredient.id),
  ]);
  return move({ input, items, free: items.filter(({ ingredient }) => !locked.has(ingredient.id)), locked, options, shelf });
}

/** Lines whose main liquid is moved until the batter is as stiff as that of `input`; null where nothing is free to be poured, or it would take much. */
export function asStiffAs(
  input: Opened,
  lines: readonly InputLine[],
  options: BalanceOptions,
  shelf: Shelf,
): readonly InputLine[] | null {
  const after = { ...input, lines };
  const [items, now] = [input, after].map((one) => resolve(movableOf(one, shelf).batter, shelf));
  if (!items || !now) return null;
  const locked = new Set([...(options.locked ?? []), ...now.filter((item) => item.locked).map(({ ingredient }) => ingredient.id)]);
  const moved = asStiff({ input, items, free: now, locked, options, shelf }, now, ingredientOf(shelf, "salt"));
  const done = moved === now ? null : movedTo(after, now, moved, shelf);
  return done && !("no" in done) ? done.lines : null;
}
