import type { Filling } from "./filling";
import { plainText, quantityAtStart } from "./quantity";
import { type Range, mapRange, sum } from "./range";
import { type UnitId, gramsPer, isMass, isVolume, millilitresPer, unitOf } from "./units";

export interface WrittenAmount {
  quantity: Range;
  unit: UnitId;
  filling?: Filling;
  size?: string;
}

/** One line taken apart as written, before any ingredient is looked up. */
export interface WrittenLine {
  /** The amounts said for the same thing; more than one when a weight stands beside a volume. */
  amounts: WrittenAmount[];
  name: string;
  preparation?: string;
  optional: boolean;
  toTaste: boolean;
}

const fillingWords: [RegExp, Filling][] = [
  [/\bheap(?:ed|ing)\b/i, "heaped"],
  [/\bround(?:ed|ing)\b/i, "rounded"],
  [/\b(?:scant|scanty)\b/i, "scant"],
  [/\b(?:firmly |lightly |tightly )?packed\b/i, "packed"],
  [/\b(?:sifted|aerated)\b/i, "sifted"],
  [/\bspooned(?:,? (?:and|&) levell?ed)?\b/i, "spooned"],
  [/\b(?:dipped|dip(?:,? (?:and|&) sweep)|scooped)\b/i, "dipped"],
  [/\b(?:levell?ed|level)\b/i, "level"],
];

const sizeWords = /^(extra[- ]large|x-large|large|medium|small|jumbo|big|mini)\b\s*/i;
const filler = /^(?:about|approx(?:imately|\.)?|around|roughly|ca\.?|circa|~|generous|good|full)\s*/i;
const leader = /^\s*(?:[-*•·◦▪▢□☐✓–—]+|\[[ x]?\])\s*/;
const numbering = /^\s*\(?\d{1,2}[.)]\s+(?=\S)/;
const optionalWords = /\(?\b(?:optional(?:ly)?|if (?:you like|liked|desired|using))\b\)?/i;
const tasteWords = /\b(?:to taste|as needed|as required|for (?:dusting|greasing|sprinkling|rolling|the (?:tin|pan))|to serve)\b/i;

export const withoutBullet = (text: string): string => text.replace(leader, "").replace(numbering, "");

/** Takes a filling word out of a text; the first that stands there counts. */
function takeFilling(text: string): { filling?: Filling; rest: string } {
  for (const [pattern, filling] of fillingWords) {
    if (pattern.test(text)) return { filling, rest: text.replace(pattern, " ").replace(/\s+/g, " ").trim() };
  }
  return { rest: text };
}

/** The unit at the start of a text, of one or two words, with a full stop or glued to nothing. */
function unitAtStart(text: string): { unit: UnitId; rest: string } | null {
  const words = /^([A-Za-z]+)\.?(?:[\s-]+([A-Za-z]+)\.?)?(?=$|[\s,.;:/()+&-])/.exec(text);
  const one = /^([A-Za-z]+)\.?(?=$|[\s,.;:/()+&-])/.exec(text);
  if (words?.[2]) {
    const unit = unitOf(`${words[1]} ${words[2]}`);
    if (unit) return { unit, rest: text.slice(words[0].length) };
  }
  if (!one?.[1]) return null;
  const unit = unitOf(one[1]);
  return unit ? { unit, rest: text.slice(one[0].length) } : null;
}

interface Taken {
  amount: WrittenAmount;
  /** Whether a unit was written, not only a number. */
  withUnit: boolean;
  rest: string;
}

/** One amount at the start of a text: number, size or filling words, unit, filling words. */
function amountAtStart(text: string): Taken | null {
  let rest = text.trimStart();
  for (let found = filler.exec(rest); found; found = filler.exec(rest)) rest = rest.slice(found[0].length);
  let filling: Filling | undefined;
  const leading = /^(?:an?\s+)?(heap(?:ed|ing)|rounded|scant|level|packed)\s+/i.exec(rest);
  if (leading) {
    filling = takeFilling(leading[0]).filling;
    rest = rest.slice(leading[0].length);
    if (unitAtStart(rest)) rest = `1 ${rest}`;
  }
  const number = quantityAtStart(rest);
  if (!number) return null;
  let quantity = number.value;
  rest = number.rest.replace(/^\s*-(?=[a-z])/i, " ").trimStart();
  const times = /^x\s*(?=\d)/i.exec(rest);
  if (times) {
    const inner = amountAtStart(rest.slice(times[0].length));
    if (inner) {
      const factor = quantity;
      return { ...inner, amount: { ...inner.amount, quantity: mapRange(inner.amount.quantity, (q) => q * factor.mid) } };
    }
  }
  let size: string | undefined;
  for (let again = true; again;) {
    again = false;
    const sized = sizeWords.exec(rest);
    if (sized?.[1] && size === undefined) {
      size = sized[1]
        .toLowerCase()
        .replace(/^big$/, "large")
        .replace(/^(x-large|extra large)$/, "extra-large");
      rest = rest.slice(sized[0].length);
      again = true;
    }
    const filled =
      /^(?:very\s+)?(?:(?:firmly|lightly|tightly|well)\s+)?(heap(?:ed|ing)|rounded|scant|level|packed|sifted|spooned|dipped)\s+/i.exec(
        rest,
      );
    if (filled && filling === undefined) {
      filling = takeFilling(filled[0]).filling;
      rest = rest.slice(filled[0].length);
      again = true;
    }
  }
  const bracketed = /^\(([^)]*)\)\s*(?=can|tin|pack|sachet|pot|tub|bag|carton|stick|bottle)/i.exec(rest);
  if (bracketed?.[1]) {
    const inside = amountAtStart(bracketed[1]);
    if (inside?.withUnit) {
      const container = /^\S+\s*/.exec(rest.slice(bracketed[0].length));
      const each = inside.amount.quantity;
      quantity = mapRange(quantity, (q) => q * each.mid);
      return {
        amount: { quantity, unit: inside.amount.unit },
        withUnit: true,
        rest: rest.slice(bracketed[0].length + (container?.[0].length ?? 0)),
      };
    }
  }
  const unit = unitAtStart(rest);
  if (unit) rest = unit.rest.trimStart();
  const after =
    /^(?:(?:firmly|lightly|tightly)\s+)?(heap(?:ed|ing)|rounded|scant|packed|sifted|spooned(?: and levell?ed)?)\s+/i.exec(rest);
  if (unit && after && filling === undefined) {
    filling = takeFilling(after[0]).filling;
    rest = rest.slice(after[0].length);
  }
  const amount: WrittenAmount = { quantity, unit: unit?.unit ?? "piece" };
  if (filling !== undefined) amount.filling = filling;
  if (size !== undefined) amount.size = size;
  return { amount, withUnit: unit !== null, rest };
}

/** The sum of two amounts in the unit of the first, or null where they cannot be added without knowing the ingredient. */
function added(a: WrittenAmount, b: WrittenAmount): WrittenAmount | null {
  const bothMass = isMass(a.unit) && isMass(b.unit);
  const bothVolume = isVolume(a.unit) && isVolume(b.unit);
  if (!bothMass && !bothVolume) return a.unit === b.unit ? { ...a, quantity: sum([a.quantity, b.quantity]) } : null;
  const size = (unit: UnitId): number => (bothMass ? gramsPer[unit] : millilitresPer[unit]?.us) ?? 1;
  const factor = size(b.unit) / size(a.unit);
  return { ...a, quantity: sum([a.quantity, mapRange(b.quantity, (q) => q * factor)]) };
}

/** An amount with all that is said of it: sums, and a second amount in brackets or behind a stroke. */
function amountsAtStart(text: string): { amounts: WrittenAmount[]; rest: string } | null {
  const first = amountAtStart(text);
  if (!first) return null;
  let amount = first.amount;
  let rest = first.rest;
  for (;;) {
    const plus = /^\s*(?:plus|\+|and|&|,\s*plus)\s+/i.exec(rest);
    if (!plus) break;
    const next = amountAtStart(rest.slice(plus[0].length));
    const both = next?.withUnit && first.withUnit ? added(amount, next.amount) : null;
    if (!both || !next) break;
    amount = both;
    rest = next.rest;
  }
  const amounts = [amount];
  for (;;) {
    const bracket = /^\s*[([]([^)\]]*)[)\]]\s*/.exec(rest);
    const inside = bracket?.[1] === undefined ? [] : amountsInside(bracket[1]);
    if (bracket && inside.length > 0) {
      amounts.push(...inside);
      rest = rest.slice(bracket[0].length);
      continue;
    }
    const stroke = /^\s*(?:\/|\||or(?=\s*\d)|=)\s*/.exec(rest);
    const other = stroke ? amountAtStart(rest.slice(stroke[0].length)) : null;
    if (!stroke || !other?.withUnit) break;
    amounts.push(other.amount);
    rest = other.rest;
  }
  return { amounts, rest };
}

function amountsInside(text: string): WrittenAmount[] {
  return text
    .split(/\s*[/;,|]\s*|\s+or\s+/)
    .map((part) => amountAtStart(part))
    .filter((taken) => taken !== null)
    .filter((taken) => taken.withUnit && taken.rest.trim().replace(/^(?:each|total|drained)$/i, "") === "")
    .map((taken) => taken.amount);
}

const juiceOf =
  /^(?:(?:the|freshly squeezed|finely grated|grated|squeezed)\s+)*(juice|zest|rind|peel)(?:\s+and\s+(?:juice|zest))?\s+(?:of|from)\s+/i;

/**
 * Takes a line of a recipe apart: amounts, name, preparation. Gives null amounts (an empty list) when none is written.
 * Errors: none; a line that says nothing readable comes back with its text as the name.
 */
export function readLine(source: string): WrittenLine {
  let text = plainText(withoutBullet(source));
  const optional = optionalWords.test(text);
  text = text
    .replace(optionalWords, " ")
    .replace(/\s+/g, " ")
    .replace(/[\s,]+$/, "");
  const toTaste = tasteWords.test(text);
  const juice = juiceOf.exec(text);
  if (juice) {
    const inner = amountsAtStart(text.slice(juice[0].length));
    const size = /zest|rind|peel/i.test(juice[1] ?? "") ? "zest" : "juice";
    if (inner) {
      const amounts = inner.amounts.map((a) => (a.unit === "piece" ? { ...a, size } : a));
      return named(`${inner.rest} ${size}`, amounts, optional, toTaste);
    }
  }
  const leading = amountsAtStart(text);
  if (leading) {
    const rest = leading.rest.replace(/^\s*(?:of\b|:|-)?\s*/i, "");
    if (rest !== "") {
      const later = trailingWeight(rest);
      const more = later ? null : trailingSum(rest, leading.amounts);
      return named(
        later?.name ?? more?.name ?? rest,
        later ? [...leading.amounts, later.amount] : (more?.amounts ?? leading.amounts),
        optional,
        toTaste,
      );
    }
  }
  const trailing = trailingAmounts(text);
  if (trailing) return named(trailing.name, trailing.amounts, optional, toTaste);
  return named(text, [], optional, toTaste);
}

/** "flour 200 g", "Flour: 1 1/2 cups", "flour - 200 g (7 oz)". */
function trailingAmounts(text: string): { name: string; amounts: WrittenAmount[] } | null {
  const match =
    /^([^\d]*?[A-Za-z)%])\s*(?:[:,;=-]|\.{2,})?\s*((?:about |approx\.? |~)?(?:\d|\.\d|half |one |two |a )[^A-Za-z]*.*)$/i.exec(
      text,
    );
  if (!match?.[1] || !match[2]) return null;
  const found = amountsAtStart(match[2]);
  const rest = found?.rest.trim() ?? "";
  if (!found || !/^(?:[,(].*)?$/.test(rest)) return null;
  const onlyCount = found.amounts.every((a) => a.unit === "piece");
  if (onlyCount && !/[:=]\s*(?:\d|\.\d)/.test(text)) return null;
  return { name: `${match[1]}${rest}`, amounts: found.amounts };
}

/** More of the same after the name: "3/4 cup milk plus 2 tbsp"; what goes elsewhere ("plus 2 tbsp for the tin") is no part of the batter. */
function trailingSum(text: string, amounts: WrittenAmount[]): { name: string; amounts: WrittenAmount[] } | null {
  const match = /^(.*?[A-Za-z)])\s*,?\s+(?:plus|\+)\s+(.+)$/i.exec(text);
  const next = match?.[2] === undefined ? null : amountAtStart(match[2]);
  if (!match?.[1] || !next?.withUnit || !/^\s*(?:extra|more)?\s*$/i.test(next.rest)) return null;
  const [first, ...others] = amounts;
  const both = first ? added(first, next.amount) : null;
  return both ? { name: match[1], amounts: [both, ...others] } : null;
}

/** A weight in brackets after the name: "1 cup flour (125 g), sifted". */
function trailingWeight(text: string): { name: string; amount: WrittenAmount } | null {
  const match = /[([]([^)\]]*)[)\]]/.exec(text);
  const inside = match?.[1] === undefined ? [] : amountsInside(match[1]);
  const amount = inside.find((a) => isMass(a.unit)) ?? inside[0];
  return match && amount ? { name: text.replace(match[0], " "), amount } : null;
}

function named(text: string, amounts: WrittenAmount[], optional: boolean, toTaste: boolean): WrittenLine {
  const brackets = [...text.matchAll(/[([]([^)\]]*)[)\]]/g)].map((m) => m[1] ?? "");
  let name = text.replace(/[([][^)\]]*[)\]]/g, " ");
  const comma = name.search(/,| - |;/);
  const preparations: string[] = [];
  if (comma >= 0) {
    preparations.push(
      name
        .slice(comma + 1)
        .replace(/^[\s-]+/, "")
        .trim(),
    );
    name = name.slice(0, comma);
  }
  preparations.push(...brackets);
  const filling = brackets.map((b) => takeFilling(b).filling).find((f) => f !== undefined);
  name = name.replace(tasteWords, " ").replace(/^\s*of\s+/i, "");
  const stripped = takeLeadingFilling(name);
  const how = stripped.filling ?? filling;
  const all = amounts.map((a) => (how !== undefined && a.filling === undefined && isVolume(a.unit) ? { ...a, filling: how } : a));
  const line: WrittenLine = {
    amounts: all,
    name: stripped.name
      .replace(/\s+/g, " ")
      .replace(/[\s.:;]+$/, "")
      .trim(),
    optional,
    toTaste,
  };
  const preparation = preparations.filter((p) => p !== "").join("; ");
  if (preparation !== "") line.preparation = preparation;
  return line;
}

function takeLeadingFilling(name: string): { name: string; filling?: Filling } {
  const match = /^\s*((?:(?:firmly|lightly|tightly)\s+)?(?:packed|sifted|heaped|heaping))\s+/i.exec(name);
  if (!match?.[1]) return { name };
  const { filling } = takeFilling(match[1]);
  return filling === undefined ? { name } : { name: name.slice(match[0].length), filling };
}
