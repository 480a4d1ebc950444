import type { Filling } from "../filling";
import { exactly, mapRange } from "../range";
import type { Range } from "../range-schema";
import { isMass, isVolume, unitOf } from "../units";
import type { UnitId } from "../units";
import { type Parsed, remembered } from "./combinators";
import { andPart, span, valueOrA } from "./numbers";
import { hedgesAt, isSign, lower, mannersAt } from "./manners";
import type { Token } from "./tokens";

/**
 * Amounts.
 *
 *   measure  = term (("plus" | "+" | "and" | "less" | "minus") term)*
 *            | "all but" term "of" term
 *   term     = hedge* manner* (count ("x" | "lots of") | "twice")? (sized | simple)
 *   sized    = size of a container: "(14-oz) can", "400 ml tin of", "150 g pot", "100 g bars"
 *   simple   = span manner* size* manner* unit? manner*   | manner* unit          ("a scant cup", "a knob")
 *   hedge    = "about" | "just under" | "a generous" | …
 */
export interface Term {
  quantity: Range;
  unit: UnitId;
  filling?: Filling;
  /** "large", "medium", … for pieces. */
  size?: string;
  /** −1 where it is taken off ("less 2 tablespoons"). */
  sign: 1 | -1;
  /** A unit was written, not only a number. */
  withUnit: boolean;
  /** It was only said: “a”, a word of feeling, or a unit that nobody measures. */
  spoken: boolean;
}

/** The terms of one amount; their masses add up. */
export type Measure = Term[];

const containers = new Set(
  `can cans tin tins packet packets pack packs sachet sachets package packages pot pots tub tubs carton cartons bag bags box boxes jar
  jars bottle bottles bar bars block blocks envelope punnet pouch stick sticks`.split(/\s+/),
);

/** Units that are said without a number: "pinch of salt". */
export const felt = new Set<UnitId>(["pinch", "dash", "splash", "knob", "handful"]);
/** "cinnamon pinch salt": in speech these two begin an amount without a joint. */
const smallest = new Set<UnitId>(["pinch", "dash"]);
/** "pinch the edges": that is no amount. */
const handled = /^(?:the|an?|it|them|off|out|together|around|all|your|each|edges?|and|or|to|in|into|with|for|at|on)$/;

/** A unit of one or two words, with a full stop or a hyphen before it. */
export function unitAt(tokens: readonly Token[], from: number): Parsed<UnitId> | null {
  let at = from;
  if (isSign(tokens, at, "-") && tokens[at]?.spaced === false) at++;
  const one = tokens[at];
  if (one?.kind !== "word") return null;
  const after = (next: number): number => (isSign(tokens, next, ".") && tokens[next]?.spaced === false ? next + 1 : next);
  const dotted = after(at + 1);
  const two = tokens[dotted];
  if (two?.kind === "word") {
    const both = unitOf(`${one.lower} ${two.lower}`);
    if (both) return { value: both, next: after(dotted + 1) };
  }
  // A single capital tells a tablespoon from a teaspoon.
  const unit = unitOf(one.text.length === 1 ? one.text : one.lower);
  return unit ? { value: unit, next: dotted } : null;
}

const term = (quantity: Range, unit: UnitId, more: Partial<Term> = {}): Term => ({
  quantity,
  unit,
  sign: 1,
  withUnit: true,
  spoken: false,
  ...more,
});

const times = (inner: Term, factor: Range): Term => ({ ...inner, quantity: mapRange(inner.quantity, (q) => q * factor.mid) });

/** The size of a container and the container: "(14-oz) can", "400 ml tin of", "150 g pot of". */
function sizedAt(tokens: readonly Token[], from: number): Parsed<Term> | null {
  let at = from;
  const bracket = isSign(tokens, at, "(", "[");
  if (bracket) at++;
  const size = simpleAt(tokens, at);
  if (!size?.value.withUnit) return null;
  at = size.next;
  if (lower(tokens, at) === "each") at++;
  if (bracket) {
    if (!isSign(tokens, at, ")", "]")) return null;
    at++;
  }
  const eachPiece = bracket && lower(tokens, size.next) === "each";
  if (isSign(tokens, at, "-")) at++;
  while (/^(?:small|large|mini|family)$/.test(lower(tokens, at))) at++;
  if (!containers.has(lower(tokens, at))) return eachPiece ? { value: size.value, next: at } : null;
  return { value: size.value, next: at + 1 };
}

const oneOf = /^(?:teaspoon|tsp|tablespoon|tbsp|dessertspoon|cup|mug|cupful|mugful|glass|packet|sachet|tin|can|jar)$/;
/** "Teaspoon salt.": these need no "of" where speech begins anew. */
const spoonOf = /^(?:teaspoon|tsp|tablespoon|tbsp|dessertspoon)$/;
const begun = /^(?:[,;:.]|and|then|plus|with|add)$/;
/** Whether a new item of speech begins at a token. */
const begins = (tokens: readonly Token[], at: number): boolean => at > 0 && begun.test(lower(tokens, at - 1) || (tokens[at - 1]?.text ?? "")); // prettier-ignore

/** Number, manner, size, unit; or manner and unit alone ("a scant cup", "a good pinch"). */
const simpleAt = remembered(simpleOf);

/** So many cups are nobody's: a heat. */
const HOTTER_THAN_CUPS = 60;
const tins = /^(?:tins?|pans?|trays?|mou?lds?)$/;
/** "12-cup muffin tin": how many a tin holds is no amount. */
function isOfTin(tokens: readonly Token[], at: number): boolean {
  const words = [0, 1, 2].map((k) => lower(tokens, at + k));
  return /^(?:muffin|cupcake|bun|mini|regular|standard|bundt|loaf|silicone|tins?|pans?|trays?)$/.test(words[0] ?? "") && words.some((word) => tins.test(word)); // prettier-ignore
}

function simpleOf(tokens: readonly Token[], from: number): Parsed<Term> | null {
  const hedge = hedgesAt(tokens, from);
  let at = hedge.next;
  let filling = hedge.filling;
  let size: string | undefined;
  const isArticle = /^(?:an?|one|another)$/.test(lower(tokens, at));
  // "a heaped tablespoon", "heaped tablespoon", "a wee drop", "a few sprinkles", "a generous half cup"
  const before = mannersAt(tokens, isArticle ? at + 1 : at);
  let skipped = before.next;
  while (/^(?:wee|little|tiny|nice|great)$/.test(lower(tokens, skipped))) skipped++;
  let quantity: Range | null = null;
  let spoken = false;
  const direct = unitAt(tokens, skipped);
  // "pinch of salt", and where an amount begins what is read, "pinch salt".
  const bare =
    direct !== null &&
    ((felt.has(direct.value) &&
      (lower(tokens, direct.next) === "of" ||
        (tokens[direct.next]?.kind === "word" &&
          (from === 0 || (smallest.has(direct.value) && !handled.test(lower(tokens, direct.next))))))) ||
      // In speech, ", teaspoon of salt" is one; at the head of a line of a list its number may be lost.
      (begins(tokens, from) &&
        ((oneOf.test(lower(tokens, skipped)) && lower(tokens, direct.next) === "of") ||
          (spoonOf.test(lower(tokens, skipped)) &&
            tokens[direct.next]?.kind === "word" &&
            !handled.test(lower(tokens, direct.next))))));
  // "teaspoon and a half of powder"
  const andAHalf =
    direct !== null &&
    tokens[skipped]?.kind === "word" &&
    (tokens[skipped]?.lower.length ?? 0) > 2 &&
    andPart(tokens, direct.next) !== null;
  if (direct && (isArticle || skipped > at || bare || andAHalf)) {
    quantity = exactly(1);
    spoken = isArticle || bare;
    filling ??= before.filling;
    size = before.size;
    at = skipped;
  } else if (before.next > (isArticle ? at + 1 : at) || skipped > before.next) {
    const inside = span(tokens, skipped);
    if (inside) {
      quantity = inside.value;
      filling ??= before.filling;
      at = inside.next;
    } else if (isArticle) {
      // "a small carrot"
      quantity = exactly(1);
      size = before.size;
      at = skipped;
    }
  }
  // "Hundred grams rice flour.": nobody says the "a" there.
  if (quantity === null && (from === 0 || begins(tokens, from)) && lower(tokens, at) === "hundred" && unitAt(tokens, at + 1)) {
    quantity = exactly(100);
    at++;
  }
  if (quantity === null) {
    const number = span(tokens, at) ?? (isArticle ? valued(valueOrA(tokens, at)) : null);
    if (!number) return null;
    quantity = number.value;
    at = number.next;
  }
  if (isSign(tokens, at, "-") && tokens[at + 1]?.kind === "word") at++;
  const middle = mannersAt(tokens, at);
  let next = middle.next;
  while (/^(?:wee|little|tiny|nice|great)$/.test(lower(tokens, next))) next++;
  const unit = unitAt(tokens, next);
  // "150C fan" is a heat, "a 12-cup muffin tin" a tin.
  if (unit?.value === "cup" && ((lower(tokens, next) === "c" && quantity.low >= HOTTER_THAN_CUPS) || isOfTin(tokens, unit.next)))
    return null;
  if (unit) {
    filling ??= middle.filling;
    const half = andPart(tokens, unit.next);
    if (half) quantity = mapRange(quantity, (q) => q + half.value);
    const two = half ? null : orMore(tokens, unit.next, quantity);
    if (two) quantity = two.value;
    const past = half?.next ?? two?.next ?? unit.next;
    const after = mannersAt(tokens, past);
    // What follows a unit is a manner only where no size is meant ("2 cups large oats").
    if (after.filling !== undefined && after.size === undefined) filling ??= after.filling;
    next = after.filling !== undefined && after.size === undefined ? after.next : past;
    // Nobody weighs a milligram in a kitchen: "1.200 g" has a point between thousands.
    if (/^(?:g|ml)$/.test(unit.value) && /^[1-9]\d{0,2}\.\d{3}$/.test(tokens[at - 1]?.text ?? ""))
      quantity = mapRange(quantity, (q) => q * 1000);
    const container = unit.value === "can" || unit.value === "packet" ? (size ?? before.size ?? middle.size) : undefined;
    const told = { spoken, ...(filling ? { filling } : {}), ...(container === undefined ? {} : { size: container }) };
    return { value: term(quantity, unit.value, told), next };
  }
  size ??= middle.size;
  return {
    value: term(quantity, "piece", {
      withUnit: false,
      spoken,
      ...(size ? { size } : {}),
      ...(filling && !size ? { filling } : {}),
    }),
    next: middle.size !== undefined || middle.filling === undefined ? middle.next : at,
  };
}

/** "a pinch or two": the larger number behind the unit, with no unit of its own. */
function orMore(tokens: readonly Token[], at: number, { low, mid }: Range): Parsed<Range> | null {
  if (lower(tokens, at) !== "or") return null;
  const more = valueOrA(tokens, at + 1);
  if (!more || more.value <= mid || more.value > 3 * mid || unitAt(tokens, more.next)) return null;
  return { value: { low, mid: (mid + more.value) / 2, high: more.value }, next: more.next };
}

const valued = (found: Parsed<number> | null): Parsed<Range> | null => found && { value: exactly(found.value), next: found.next };

/** "a drop of milk" is no measured drop but a splash; "3 drops of almond extract" is one. */
const dropAsSaid = (found: Parsed<Term> | null): Parsed<Term> | null =>
  found?.value.unit === "drop" && found.value.spoken ? { ...found, value: { ...found.value, unit: "splash" } } : found;

/** One term: a count of sized containers, or a simple amount. */
export const termAt = remembered((tokens, from) => dropAsSaid(termOf(tokens, from)));

function termOf(tokens: readonly Token[], from: number): Parsed<Term> | null {
  const hedge = hedgesAt(tokens, from).next;
  // "a 150 g pot", "330ml can of": the size stands first.
  const alone = sizedAt(tokens, /^(?:an?|one)$/.test(lower(tokens, hedge)) ? hedge + 1 : hedge);
  if (alone) return alone;
  const count = span(tokens, hedge) ?? twiceAt(tokens, hedge);
  if (count) {
    let at = timesOf(tokens, count.next);
    const by = at > count.next || !span(tokens, hedge);
    if (lower(tokens, at) === "a" || lower(tokens, at) === "an") at++;
    const sized = sizedAt(tokens, at);
    if (sized) return { value: times(sized.value, count.value), next: sized.next };
    // "four 60-g eggs": each of so much.
    const each = tokens[at]?.kind === "number" && isSign(tokens, at + 1, "-") && tokens[at + 1]?.spaced === false;
    if (by || each) {
      const inner = simpleAt(tokens, at);
      if (inner?.value.withUnit) return { value: times(inner.value, count.value), next: inner.next };
    }
  }
  return simpleAt(tokens, from);
}

const often: Record<string, number> = { twice: 2, double: 2, thrice: 3, treble: 3, triple: 3 };
/** "twice 125 g", "double 50 ml": so many times what stands behind. */
const twiceAt = (tokens: readonly Token[], at: number): Parsed<Range> | null => {
  const many = often[lower(tokens, at)];
  return many === undefined ? null : { value: exactly(many), next: at + 1 };
};

/** Behind a count, what makes it one of amounts: "3 x", "3 lots of", "2 times". */
function timesOf(tokens: readonly Token[], at: number): number {
  if (lower(tokens, at) === "x" || isSign(tokens, at, "*") || lower(tokens, at) === "times") return at + 1;
  const lots = /^(?:lots?|portions?|helpings?|measures?|batches|servings?|weighings?)$/.test(lower(tokens, at));
  return lots && lower(tokens, at + 1) === "of" ? at + 2 : at;
}

const pluses = new Set(["plus", "and"]);
const minuses = new Set(["less", "minus"]);

/** The sign of a further term, and where it begins. */
function joinAt(tokens: readonly Token[], from: number): { sign: 1 | -1; next: number } | null {
  let at = from;
  if (isSign(tokens, at, ",") && /^(?:plus|then)$/.test(lower(tokens, at + 1))) at++;
  if (isSign(tokens, at, "+", "&") || pluses.has(lower(tokens, at)) || (at > from && lower(tokens, at) === "then")) {
    const more = /^(?:another|further)$/.test(lower(tokens, at + 1)) && tokens[at + 2]?.kind === "number";
    return { sign: 1, next: at + (more ? 2 : 1) };
  }
  return minuses.has(lower(tokens, at)) ? { sign: -1, next: at + 1 } : null;
}

/** Units that are written behind a larger one without a word between: "1 lb 4 oz". */
const smaller: Partial<Record<UnitId, UnitId>> = { lb: "oz", kg: "g", l: "ml", pint: "fl-oz" };

/** "60 g x 2": so many of it, where nothing is measured by the second number. */
function timesAt(tokens: readonly Token[], found: Parsed<Term> | null): Parsed<Term> | null {
  const by = found && lower(tokens, found.next) === "x" ? span(tokens, found.next + 1) : null;
  if (!found?.value.withUnit || !by || unitAt(tokens, by.next) || lower(tokens, by.next) === "x" || !Number.isInteger(by.value.mid))
    return found;
  return { value: times(found.value, by.value), next: by.next };
}

/** "all but 2 tablespoons of a 400 ml tin": what is left when so much is taken off. */
function allButAt(tokens: readonly Token[], from: number): Parsed<Measure> | null {
  if (lower(tokens, from) !== "all" || !/^(?:but|except|bar)$/.test(lower(tokens, from + 1))) return null;
  const off = termAt(tokens, from + 2);
  let at = off?.next ?? from;
  if (!off?.value.withUnit || lower(tokens, at) !== "of") return null;
  while (/^(?:of|the|your)$/.test(lower(tokens, at))) at++;
  const whole = termAt(tokens, at);
  return whole?.value.withUnit ? { value: [whole.value, { ...off.value, sign: -1 }], next: whole.next } : null;
}

/** An amount with everything that is added to it or taken off. A bare number adds nothing: "1 cup and 2 eggs" are two things. */
export function measureAt(tokens: readonly Token[], from: number): Parsed<Measure> | null {
  const allBut = allButAt(tokens, from);
  if (allBut) return allBut;
  const begun = timesAt(tokens, termAt(tokens, from));
  if (!begun) return null;
  const terms: Measure = [begun.value];
  let next = begun.next;
  for (;;) {
    const beside = smaller[terms.at(-1)?.unit ?? "piece"];
    const small = beside === undefined ? null : simpleAt(tokens, next);
    if (small?.value.unit === beside && small) {
      terms.push(small.value);
      next = small.next;
      continue;
    }
    const join = joinAt(tokens, next);
    const more = join && termAt(tokens, join.next);
    if (!join || !more?.value.withUnit || !begun.value.withUnit) return { value: terms, next };
    terms.push({ ...more.value, sign: join.sign });
    next = lower(tokens, more.next) === "more" ? more.next + 1 : more.next;
  }
}

const otherDimension = (one: Measure, other: Measure): boolean => {
  const [mass, volume] = [
    (measure: Measure) => measure.every(({ unit }) => isMass(unit)),
    (measure: Measure) => measure.every(({ unit }) => isVolume(unit)),
  ];
  return (mass(one) && volume(other)) || (volume(one) && mass(other));
};

/** Another measure of the same thing behind a stroke: "240g/8½oz/2 cups", "50 g | 1¾ oz", "60 ml = 4 tbsp". */
export function measuresAt(tokens: readonly Token[], from: number): Parsed<Measure[]> | null {
  const begun = measureAt(tokens, from);
  if (!begun) return null;
  const measures = [begun.value];
  let next = begun.next;
  // "60 grams or about half a cup of flour": the same by another measure.
  const or = lower(tokens, next) === "or" ? measureAt(tokens, next + 1) : null;
  if (or && otherDimension(begun.value, or.value)) {
    measures.push(or.value);
    next = or.next;
  }
  while (isSign(tokens, next, "/", "|", "=")) {
    const more = measureAt(tokens, next + 1);
    if (!more?.value.every((each) => each.withUnit)) break;
    measures.push(more.value);
    next = more.next;
  }
  return { value: measures, next };
}
