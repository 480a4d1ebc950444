import type { Filling } from "./filling";
import { felt, type Measure, measureAt, measuresAt, type Term } from "./grammar/amounts";
import { type Token, tokensOf } from "./grammar/tokens";
import { isMass, isVolume, millilitresPer } from "./units";

/**
 * A line of a recipe taken apart as written, before any ingredient is looked up.
 *
 *   line    = mark? item (("," | "+" | "plus" | "and") item)* | each | pieces-of | names
 *   item    = measures bracket* "of"? name tail | name ":"? measures tail | name tail
 *   each    = measures "each" "of"? ":"? name (("," | "and") name)+ | name ("," name)* "," measures "of each"
 *   of      = ("zest" | "juice" | "whites" | …) ("and" …)? "of" measures name
 *   tail    = ("," | "-" | ";" | bracket) preparation | purpose | alternative
 *   bracket = other measure | size each | gloss | alternative | remark
 */
export interface WrittenItem {
  /** The same amount in several measures; the first is the one that stands first. Empty where none is written. */
  measures: Measure[];
  name: string;
  preparation?: string;
  /** What stands in brackets and is no amount: another name, a remark. */
  glosses: string[];
  /** What may be taken instead, as written. */
  alternatives: string[];
  optional: boolean;
  /** Its amount is what is left when it is drained, stoned or peeled. */
  net?: true;
  /** Only as much as it takes: “to taste”, “for dusting”. */
  toTaste: boolean;
  /** Where it goes when it does not go into the bowl. */
  purpose?: Purpose;
  /** "sifted with the flour": it may be a thing that the list holds by itself. */
  namedAgain?: true;
  /** Its own words, where the line or the paragraph that it stands in speaks of more. */
  own?: string;
}

export const purposes = ["pan", "brush", "dust", "serve", "top", "fry"] as const;
export type Purpose = (typeof purposes)[number];

const leader = /^(?:\s*(?:[-*•·◦▪▢□☐✓–—>★☆]+|\[[ x]?\]|\([a-z]\)(?=\s)))+\s*/;
const numbering = /^\s*\(?\d{1,2}[.)]\s+(?=\S)/;
const optionalWords = /[([]?\s*,?\s*\b(?:optional(?:ly)?|if (?:you like|liked|desired|using|wanted|you wish))\b\s*[)\]]?/i;
const tasteWords = /,?\s*\b(?:or )?(?:to taste|as (?:needed|required|necessary|you like)|or so)\b/i;
const moreFor = /[,;]?\s*(?:\(\s*)?(?:\b(?:plus|and|with)\s+|[+&]\s*)(?:(?:a little |some |an? |a few )?(?:more|extra)\b[^)]*|(?:a few|some|a handful|a little|a bit|a pinch|a scattering)\s+(?:(?:of )?(?:it|them) )?(?:for|to)\s[^)]*)\)?\s*$/i; // prettier-ignore
const enough = /^(?:just\s+)?enough\s+/i;

const goes: [Purpose, RegExp][] = [
  ["pan", /,?\s*\b(?:for|to)\s+(?:greas\w*|lin(?:e|ing)|oil(?:ing)?|butter(?:ing)?|coat(?:ing)?(?=\s*(?:$|[,.)]|(?:the|your|a)?\s*(?:\w+\s+)?(?:tins?|pans?|trays?|mou?lds?|dish|skillet|griddle|sheet|cases))))\b.*$|,?\s*\bfor\s+(?:the|your|a)\s+(?:\w+\s+)?(?:pan|tin|tray|tins|mou?ld|skillet|dish|griddle|sheet|pans|cases)\b.*$/i],
  ["fry", /,?\s*\b(?:for|to)\s+(?:fry|frying|shallow[- ]fry\w*)\b.*$/i],
  ["brush", /,?\s*\b(?:to|for)\s+(?:brush\w*|glaz(?:e|ing)|finish(?:ing)?)\b.*$/i],
  ["dust", /,?\s*\b(?:for|to)\s+(?:dust\w*|dredg\w*|flour(?:ing)?|roll(?:ing)?|shap(?:e|ing)|work(?:ing)?|knead\w*)\b.*$/i],
  ["top", /,?\s*\b(?:for|to)\s+(?:(?:the )?top(?:ping)?|decorat\w*|garnish\w*|scatter\w*|sprinkl\w*|drizzl\w*|press\w* on top)\b.*$/i],
  ["serve", /,?\s*\b(?:to|for)\s+(?:serv(?:e|ing)|spread(?:ing)?|the table|dip(?:ping)?)\b.*$/i],
]; // prettier-ignore
/** What coats the fruit goes into the bowl with it. */
const aroundFruit = /,?\s*\b(?:to|for)\s+(?:coat|toss|roll)(?:ing)?\s+(?:the|your|with|them|it)\b.*$/i;
/** "neutral oil e.g. grapeseed": one of many. */
const suchAs = /,?\s+\b(?:e\.\s?g\.?|eg\b|such as|for (?:example|instance))\s.*$/i;
const toBind = /,?\s*\bto\s+(?:bind|mix|loosen|moisten|make|form|bring)\b.*$/i;

/** Who says it and when, in a chat: "[8:15 PM] Lou:". */
export const speaker =
  /^\s*(?:\[[^\]\d]{0,12}\d{1,2}[:.]\d{2}[^\]]{0,12}\]\s*(?:\p{L}[\p{L} .'-]{0,24}:\s*)?|\d{1,2}:\d{2}(?::\d{2})?(?: ?[ap]\.?m\.?)?\s*[-–]?\s*\p{Lu}[\p{L} .'-]{0,24}:\s*)/iu;

export const withoutBullet = (text: string): string => text.replace(speaker, "").replace(leader, "").replace(numbering, "");

export const textFrom = (text: string, tokens: readonly Token[], at: number): string =>
  text.slice(tokens[at]?.start ?? text.length);

interface Bracketed {
  /** The text with every bracket taken out. */
  text: string;
  inside: string[];
}

/** Takes out brackets of one level, with what stood in them. */
function withoutBrackets(text: string): Bracketed {
  const inside: string[] = [];
  const rest = text.replace(/[([]([^()[\]]*)[)\]]/g, (_, content: string) => {
    inside.push(content.trim());
    return " ";
  });
  return { text: rest.replace(/\s+/g, " ").trim(), inside: inside.filter((content) => content !== "") };
}

const ofTheWhole =
  /^(?:in (?:all|total)|total|altogether|each|apiece|drained|net|dry|raw|fresh|uncooked|cooked|peeled|unpeeled|(?:without|out of) (?:the |their |its )?(?:shell|stone|skin|peel)\w*|shelled|(?:drained |dry |net |peeled )?weight|or so|sifted|packed)?$/i;

/** Before the amount that goes in: what is left when it was made ready, or what is needed of a packet. */
const leftOver =
  /^(?:(?:drained|net|dry|peeled)(?: weight)?|to give|giving|(?:weigh(?:ed|t|ing)?\s+)?(?:after|once|when)\s+[\p{L} -]{3,40}?|(?:but )?(?:(?:you(?:'ll| will)?|we(?:'ll| will)?|I) )?(?:only |just )?(?:need|use|using|want|take)(?: only| just)?)\s*[:,]?\s*(?=[\d.~]|about\b|roughly\b|half\b|an?\b)/iu;
/** The same said behind it: "300 g once squeezed". */
const whenReady = /^(?:when|once|after(?: being)?)\s+[\p{L} -]{3,40}$/iu;

/** What a bracket holds: other measures of the same thing (with "each" of one piece), or words. */
export function measuresIn(said: string): { measures: Measure[]; each: boolean; net: boolean } | null {
  const plain = said.replace(/^(?:that(?:'s|’s| is)|which is|i\.?e\.?|say|weighing|it is|it's)\s+/i, "");
  const content = plain.replace(leftOver, "");
  const tokens = tokensOf(content);
  const measures: Measure[] = [];
  let at = 0;
  for (;;) {
    const found = measuresAt(tokens, at);
    if (!found || !found.value.every((measure) => measure.every((term) => term.withUnit))) return null;
    measures.push(...found.value);
    const next = tokens[found.next];
    if (next && /^[;,|/]$|^or$/.test(next.lower) && measuresAt(tokens, found.next + 1)) {
      at = found.next + 1;
      continue;
    }
    const rest = textFrom(content, tokens, found.next).replace(/[.,\s]+$/, "");
    return ofTheWhole.test(rest) || whenReady.test(rest)
      ? {
          measures,
          each: /^(?:each|apiece)$/i.test(rest),
          net: content !== plain || whenReady.test(rest) || /^(?:drained|net|peeled|without)/i.test(rest),
        }
      : null;
  }
}

interface Tail {
  text: string;
  optional: boolean;
  toTaste: boolean;
  purpose?: Purpose;
  said: string[];
}

/** Takes the end of a line apart: what is optional, as needed, for the pan, and remarks that are no part of the name. */
export function tailOf(source: string): Tail {
  const said: string[] = [];
  let text = source;
  const take = (pattern: RegExp): boolean => {
    const match = pattern.exec(text);
    if (!match) return false;
    const words = match[0].replace(/^[\s,;([]+|[\s)\]]+$/g, "");
    if (words !== "") said.push(words);
    text = `${text.slice(0, match.index)} ${text.slice(match.index + match[0].length)}`
      .replace(/\s+/g, " ")
      .replace(/[\s,;]+$/, "")
      .trim();
    return true;
  };
  const optional = optionalWords.test(text);
  if (optional)
    text = text
      .replace(optionalWords, " ")
      .replace(/\s+/g, " ")
      .replace(/[\s,;]+$/, "")
      .trim();
  take(moreFor);
  const taste = take(tasteWords);
  let purpose: Purpose | undefined;
  for (const [name, pattern] of goes) if (purpose === undefined && take(pattern)) purpose = name;
  if (purpose === undefined) take(aroundFruit);
  const bound = enough.test(text) || (purpose === undefined && toBind.test(text) && /^(?:just )?enough/i.test(text));
  if (bound) {
    text = text.replace(enough, "");
    take(toBind);
  }
  return { text, optional, toTaste: taste || bound || purpose !== undefined, said, ...(purpose ? { purpose } : {}) };
}

/** The words of a filling that stand with the name: "sifted icing sugar", "brown sugar, packed". */
const namedFilling: [RegExp, Filling][] = [
  [/^(?:firmly |lightly |tightly |well )?packed\s+/i, "packed"],
  [/^sifted\s+/i, "sifted"],
  [/^(?:heaped|heaping)\s+/i, "heaped"],
];

/** How a cup was filled, said behind the name or in a bracket. “Sifted” behind the name is done after measuring. */
const saidFilling: [RegExp, Filling][] = [
  [/\bpacked\b/i, "packed"],
  [/\bspooned\b/i, "spooned"],
  [/\b(?:dip(?:ped)?|scoop(?:ed)?)\b(?!.*\bice cream\b)/i, "dipped"],
  [/\bsifted (?:before|first)\b/i, "sifted"],
];

/** The name with its preparation: what stands behind a comma, a dash or a semicolon. */
export function namedItem(raw: string, measures: Measure[], tail: Tail, glosses: string[], alternatives: string[]): WrittenItem {
  // Where a sentence begins the name has ended: "treacle. Mix dry".
  let name = raw
    .replace(/(?<=\p{Ll}{3})\.\s+\p{Lu}.*$/u, "")
    .replace(/^\s*,?\s*(?:of\b|:|-|\.)?\s*/i, "")
    .replace(/^(?:of|the)\s+/i, "");
  const comma = name.search(/,|:\s|\s-\s|;|\s[–—]\s/);
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
  // "water to mix": what it is for is no part of the name; "the butter above" is counted where it stands.
  for (const behind of [toBind, suchAs]) {
    const said = behind.exec(name);
    if (!said || said.index === 0) continue;
    preparations.unshift(said[0].replace(/^[\s,(]+/, ""));
    name = name.slice(0, said.index);
  }
  const isElsewhere = /\s(?:above|below|mentioned|listed)\s*$/i.test(name);
  if (isElsewhere) name = name.replace(/\s\w+\s*$/, "");
  // "pear halves in juice": what it lies in is no part of the name.
  const lying =
    /\s+(?:in (?:its |their )?(?:own |natural |fruit |light |heavy |salted |sea )*(?:juice|syrup|water|brine|oil|vinegar)|from (?:a|the) \w+|with (?:its|their|the) \w+)\b.*$/i.exec(
      name,
    );
  if (lying) {
    preparations.unshift(lying[0].trim());
    name = name.slice(0, lying.index);
  }
  const cut =
    /\s+((?:finely |roughly |coarsely )?(?:chopped|cut|mashed|broken|torn|diced|sliced) (?:up|small|into \w+)\b.*)$/i.exec(name);
  if (cut?.[1]) {
    preparations.unshift(cut[1]);
    name = name.slice(0, cut.index);
  }
  name = name.replace(/\s+(?:soured|mixed|combined|dissolved|clabbered)\s*$/i, "");
  let filling: Filling | undefined;
  for (const [pattern, how] of namedFilling)
    if (pattern.test(name)) {
      filling ??= how;
      name = name.replace(pattern, "");
    }
  for (const [pattern, how] of saidFilling)
    if (filling === undefined && [...preparations, ...glosses].some((text) => pattern.test(text))) filling = how;
  const filled = (term: Term): Term =>
    filling !== undefined && term.filling === undefined && isVolume(term.unit) ? { ...term, filling } : term;
  const own = isElsewhere && measures.every((measure) => measure.every((term) => !term.withUnit)) ? [] : measures;
  const [first, ...others] = name.split(/\s+or\s+|\s*\/\s*(?=[a-z]{3})/i);
  const preparation = [...preparations, ...glosses, ...tail.said].filter((text) => text !== "").join("; ");
  return {
    measures: own.map((measure) => measure.map(filled)),
    name: (first ?? "")
      .replace(/\s+/g, " ")
      .replace(/[\s.:;,]+$/, "")
      .trim(),
    glosses,
    alternatives: [...others.map((text) => text.trim()).filter((text) => text !== ""), ...alternatives],
    optional: tail.optional,
    toTaste: tail.toTaste,
    ...(preparation === "" ? {} : { preparation }),
    ...(tail.purpose ? { purpose: tail.purpose } : {}),
  };
}

export const scaledBy = (measures: Measure[], by: number): Measure[] =>
  measures.map((measure) =>
    measure.map((term) => ({
      ...term,
      quantity: { low: term.quantity.low * by, mid: term.quantity.mid * by, high: term.quantity.high * by },
    })),
  );

/** One item: its amount before or behind its name, its brackets, its tail. */
export function itemFrom(source: string): WrittenItem {
  const tail = tailOf(source.replace(/^an?\s+(?:(?:little |tiny |wee |small )?bit|touch) of\s+(?=\p{L})/iu, ""));
  const tokens = tokensOf(tail.text);
  const leading = measuresAt(tokens, 0);
  if (leading) {
    const rest = textFrom(tail.text, tokens, leading.next);
    if (rest.replace(/[\s.,:-]/g, "") !== "") return withAmount(rest, leading.value, tail);
  }
  const trailing = trailingOf(tail.text);
  if (trailing) return withAmount(trailing.name, trailing.measures, tail);
  const { text, inside } = withoutBrackets(tail.text);
  const sizes = inside.map(measuresIn);
  const only = sizes.find((found) => found !== null);
  const glosses = inside.filter((_, i) => sizes[i] === null);
  return namedItem(text, only?.measures ?? [], tail, glosses, []);
}

/** What stands behind a leading amount: brackets of any kind, the name, a sum after it. */
function withAmount(rest: string, measures: Measure[], tail: Tail): WrittenItem {
  const { text, inside } = withoutBrackets(rest);
  let all = measures;
  let net = false;
  const glosses: string[] = [];
  const alternatives: string[] = [];
  for (const content of inside) {
    const found = measuresIn(content);
    const count = countOf(all);
    if (found && (found.net || /\b(?:drained|stoned|peeled)\s*\(\s*[\d~]/i.test(rest))) {
      net = true;
      all = [...found.measures, ...all];
    } else if (vessel.test(content) && cupsOf(all) !== null)
      all = scaledBy(measuresIn(content.replace(vessel, ""))?.measures ?? [], cupsOf(all) ?? 1);
    else if (found?.each && count !== null) all = [...scaledBy(found.measures, count), ...all];
    else if (found) all = [...all, ...found.measures];
    else if (/^or\b/i.test(content)) alternatives.push(content.replace(/^or\s+/i, ""));
    else if (!/^(?:see|note|from)\b/i.test(content)) glosses.push(content);
  }
  // "2 cartons of cream, 200 ml each", "a jar of cherries, drained weight 350 g": what the containers hold, said behind.
  const held = /^(.*\p{L})\s*,\s*([^,]*\d[^,]*)$/u.exec(text);
  const holds = held?.[2] ? measuresIn(held[2].trim()) : null;
  const containers = countOf(all);
  if (
    held?.[1] &&
    holds &&
    (holds.net || /^weighing\b/i.test(held[2] ?? "") || (containers !== null && (holds.each || containers === 1)))
  ) {
    const item = namedItem(
      held[1],
      [...scaledBy(holds.measures, holds.each ? (containers ?? 1) : 1), ...all],
      tail,
      glosses,
      alternatives,
    );
    return holds.net || net ? { ...item, net: true } : item;
  }
  // "3/4 cup milk plus 2 tbsp", "1/4 pt juice, less 1 tbsp": more of the same after the name, or less of it.
  const more = /^(.*?[\p{L})])\s*,?\s+(plus|\+|less|minus)\s+(.+)$/iu.exec(text);
  if (more?.[1] && more[2] && more[3]) {
    const next = tokensOf(more[3]);
    const term = measureAt(next, 0);
    if (term?.value.every((each) => each.withUnit) && /^(?:extra|more)?$/i.test(textFrom(more[3], next, term.next).trim())) {
      const further = /^(?:less|minus)$/i.test(more[2]) ? term.value.map((each): Term => ({ ...each, sign: -1 })) : term.value;
      return namedItem(more[1], [[...(all[0] ?? []), ...further], ...all.slice(1)], tail, glosses, alternatives);
    }
  }
  // "1 cup sorghum flour / 130 g": another measure behind the name.
  const behind =
    /^(.*?[\p{L})%])(?:\s*[/|=]\s*(?=[\d.]|about |half )|\s+(?:about|around|approx(?:imately)?\.?|roughly|ca\.?)\s+(?=\d))(.+)$/iu.exec(
      text,
    );
  const beside = behind?.[2] ? measuresIn(behind[2]) : null;
  if (behind?.[1] && beside) return namedItem(behind[1], [...all, ...beside.measures], tail, glosses, alternatives);
  // "150 g yoghurt or 150 ml buttermilk": another thing with an amount of its own.
  const other = /^(.*?\p{L})\s*,?\s+or\s+(?=(?:about )?[\d.]|an?\s|half)(.+)$/iu.exec(text);
  if (other?.[1] && other[2]) return namedItem(other[1], all, tail, glosses, [...alternatives, other[2]]);
  const item = namedItem(text, all, tail, glosses, alternatives);
  return net ? { ...item, net: true } : item;
}

/** "2 mugs of flour (mug = 140 g)": what one of them holds, where the recipe says it. */
const vessel =
  /^(?:(?:a|1|one|my|the|each)\s+)?(?:mug|cup|glass|beaker)\s*(?:=|is|holds)\s*(?=(?:about |ca\.? )?\d+(?:[.,]\d+)?\s?(?:g|ml|oz)\b)/i;
const cupsOf = ([first]: readonly Measure[]): number | null =>
  first?.length === 1 && first[0]?.unit === "cup" ? first[0].quantity.mid : null;

/** How many pieces or containers an amount counts; null where it measures. */
const countOf = ([first]: readonly Measure[]): number | null => {
  const only = first?.length === 1 ? first[0] : undefined;
  return only && (!only.withUnit || only.unit === "can" || only.unit === "packet" || only.unit === "piece")
    ? only.quantity.mid
    : null;
};

/** "flour 200 g", "Flour: 1 1/2 cups", "flour - 200 g (7 oz)". */
function trailingOf(text: string): { name: string; measures: Measure[] } | null {
  const match =
    /^([^\d]*?[\p{L})%])\s*(?:[:,;=-]|\.{2,})?\s*((?:about |approx\.? |~|an? |half |one |two |three )?(?:\d|\.\d|pinch|handful|cup|half|few)?.*)$/iu;
  // The name ends where an amount with a unit begins.
  const tokens = tokensOf(text);
  for (let at = 1; at < tokens.length; at++) {
    const here = tokens[at];
    if (here === undefined || (here.kind !== "number" && !/^(?:an?|half|about|one|two|three)$/.test(here.lower))) continue;
    const found = measuresAt(tokens, at);
    if (!found) continue;
    const rest = textFrom(text, tokens, found.next).trim();
    const name = text.slice(0, here.start).replace(/[\s:,;=.-]+$|\s+x\s*$/, "");
    const counted = found.value.every((measure) => measure.every((term) => !term.withUnit));
    const colon = /[:=]\s*$|\s(?:-|x)\s*$/.test(text.slice(0, here.start));
    // "egg yolk, 1 (for brushing)": behind a comma a count ends the line.
    const last = /,\s*$/.test(text.slice(0, here.start)) && /^(?:\(.*)?$/.test(rest) && here.kind === "number";
    if (counted && !colon && !last) continue;
    if (!/^(?:[,(].*)?$/.test(rest) || name === "" || !match.test(text)) continue;
    return { name: `${name} ${rest}`, measures: found.value };
  }
  return null;
}

/** The measure that counts: a weight stands above a volume, a volume above a count. */
export function mainMeasure(measures: readonly Measure[]): Measure | undefined {
  // "a splash (about a tablespoon)": what nobody measures is told by what is.
  const surer = measures.filter((measure) => !measure.every((term) => felt.has(term.unit)));
  const from = surer.length > 0 ? surer : measures;
  return (
    from.find((measure) => measure.every((term) => isMass(term.unit))) ??
    // A jug is surer than a cup or a spoon, whatever size those are.
    (from.length > 1
      ? (from.find((measure) => measure.every((term) => /^(?:ml|l|fl-oz|pint)$/.test(term.unit))) ??
        from.find((measure) => measure.every((term) => millilitresPer[term.unit] !== undefined)))
      : undefined) ??
    from[0]
  );
}
