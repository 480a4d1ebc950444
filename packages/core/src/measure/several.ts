import { measureAt, measuresAt } from "./grammar/amounts";
import { passagesOf } from "./grammar/passages";
import { value } from "./grammar/numbers";
import { plainText, tokensOf } from "./grammar/tokens";
import { itemFrom, namedItem, tailOf, textFrom, withoutBullet, type WrittenItem } from "./line";
import { withoutLikeness } from "./part-of-whole";
import { withoutTable } from "./rows";

/** Things on one line, and the signs of what is left over. */
const MOST_ITEMS = 60;
const MOST_REST = 400;

const listWord = /^(?:ingredients?|you(?:'ll| will)? need|for the [a-z ]{2,20})\s*:\s*(?=\S)/i;
/** What a speaker says before the next thing; never before an amount that it would change. */
const leadWords = /^(?:(?:and|then|also|next|plus)\s+)+(?=(?:an?|one|two|three|four|five|six|half|about|some|the|\d)\b)/i;
const price = /\s*[-–(]*\s*[£$€]\s?\d+(?:[.,]\d+)?[^)]*\)?\s*/;
const footnote = /[*†‡]+\s*$/;

const pieceWords = "(?:juice|zest|rind|peel|whites?|yolks?|flesh|seeds)";
const piecesOf = new RegExp(
  `^(?:(?:the|freshly|squeezed|finely|grated|strained|chopped|egg(?=\\s+(?:whites?|yolks?)\\s+(?:of|from)\\b))\\s+)*(${pieceWords}(?:\\s*(?:and|&|\\+|,)\\s*(?:grated )?${pieceWords})*)\\s+(?:(?:of|from)\\s+|(?=\\d|½|half|one|two|three))`,
  "i",
);
const pieceId: Record<string, string> = { rind: "zest", peel: "zest", white: "white", whites: "white", yolks: "yolk" };

const fruitParts = "(?:(?:the|its|finely|grated|freshly|squeezed) )*(?:juiced?|zest(?:ed)?|rind|peel)";
/** "1 lemon, zest and juice", "2 limes (zested and juiced)". */
const piecesBehind = new RegExp(`^(.+?)\\s*(?:[,:(]|\\s-)\\s*(${fruitParts}\\s*(?:and|&|\\+|,)\\s*${fruitParts})\\s*\\)?$`, "i");

/** "zest and juice of 2 lemons", "whites of 2 medium eggs". */
function takenFrom(text: string): WrittenItem[] | null {
  const [, thing, both = ""] = piecesBehind.exec(text) ?? [];
  if (thing !== undefined) {
    const parts = both.replace(/zested/gi, "zest").replace(/juiced/gi, "juice").replace(/\b(?:the|its|finely|grated|freshly|squeezed) /gi, ""); // prettier-ignore
    return takenFrom(`${parts} of ${thing}`);
  }
  const match = piecesOf.exec(text);
  if (!match?.[1]) return null;
  const rest = text.slice(match[0].length).replace(/^(?:the|those|your)\s+(?=\d|\w+\s)/i, "");
  const inner = itemFrom(rest);
  if (inner.measures.length === 0) return null;
  const parts = match[1].toLowerCase().match(new RegExp(pieceWords, "g")) ?? [];
  return parts.map((part) => {
    const size = pieceId[part] ?? part;
    return {
      ...inner,
      measures: inner.measures.map((measure) =>
        measure.map((term) => (term.withUnit || size === "white" || size === "yolk" ? term : { ...term, size })),
      ),
      name: `${inner.name} ${size}`,
    };
  });
}

/** "zest of 2 oranges", "the juice of one": a count without a name is of the fruit before it. */
const ofTheSameFruit = (parts: readonly string[]): string[] =>
  parts.map((part, k) => {
    const [whole] = piecesOf.exec(part) ?? [];
    const before = whole === undefined || k === 0 ? null : takenFrom(parts[k - 1] ?? "")?.[0];
    const fruit = before?.name.replace(/ \S+$/, "");
    return fruit === undefined || !/^(?:just |only )?(?:\d+|half|one|two|three|both)(?: of (?:them|those))?$/i.test(part.slice(whole?.length)) ? part : `${part.replace(/ of (?:them|those)$/i, "")} ${fruit}`; // prettier-ignore
  });

const listOf = (text: string): string[] =>
  text
    .split(/\s*,\s*(?:and\s+)?|\s+and\s+|\s*[&+;]\s*|\s*\/\s*(?=\p{L}{3})/iu)
    .map((part) => part.trim())
    .filter((part) => part !== "");

/** Amounts that are shared out: "1 tsp each soda and powder", "soda, powder and salt, a pinch of each". */
function shared(text: string): WrittenItem[] | null {
  if (!/\b(?:each|apiece)\b/i.test(text)) return null;
  const { text: said, ...tail } = tailOf(text);
  // "equal parts honey and tahini (90 g each)"
  const tailless = said
    .replace(/^(?:in )?equal (?:parts|amounts|weights|quantities|measures)(?: of)?:?\s+/i, "")
    .replace(/\s*\((?:say |about )?([^()]*\beach)\)\s*$/i, ", $1");
  const tokens = tokensOf(tailless);
  const leading = measuresAt(tokens, 0);
  if (leading) {
    const rest = textFrom(tailless, tokens, leading.next);
    const each = /^(?:of\s+)?(?:each|apiece)(?:\s+of)?\s*:?\s+(.+)$/i.exec(rest);
    const names = each?.[1] ? listOf(each[1]) : [];
    if (names.length > 1) return names.map((name) => namedItem(name, leading.value, { text: name, ...tail }, [], []));
  }
  const behind = /^(.+?),?\s+(?:-\s+)?((?:\d|an?\b|half\b|about\b|\.).*?)\s+(?:of\s+)?each\.?$/i.exec(tailless);
  if (behind?.[1] && behind[2]) {
    const amount = tokensOf(behind[2]);
    const found = measuresAt(amount, 0);
    const names = listOf(behind[1]);
    if (found && found.next === amount.length && names.length > 1)
      return names.map((name) => namedItem(name, found.value, { text: name, ...tail }, [], []));
  }
  return null;
}

/** Where a line goes on with another amount and another name: "2 tsp powder, 1/2 tsp bicarb", "1 egg plus 1 egg white". */
function severalOf(text: string): string[] {
  const parts: string[] = [];
  let from = 0;
  let depth = 0;
  const tokens = tokensOf(text);
  const amountStands = (at: number): boolean => {
    const found = measureAt(tokens, at);
    if (!found) return false;
    const rest = tokens[found.next];
    const spoken = /^(?:an?|few|several|couple)$/.test(tokens[at]?.lower ?? "") && !found.value.every((term) => term.withUnit);
    if (
      !found.value.every((term) => term.withUnit) &&
      !found.value.every((term) => Number.isInteger(term.quantity.mid) && !term.spoken)
    )
      return false;
    return (
      rest !== undefined &&
      (rest.kind === "word" || (rest.text === "(" && tokens[found.next + 1]?.lower !== "or")) &&
      !/^(?:or|and|plus|more|extra|each|minutes?|mins?|hours?|inch|cm|mm|in|degrees?|at|by|a|per)$/.test(rest.lower) &&
      // "plus a few for the tops": of the same.
      !(spoken && /^(?:for|to)$/.test(rest.lower))
    );
  };
  const nameStands = (start: number, end: number): boolean => {
    const before = text.slice(start, end);
    const begun = tokensOf(before);
    const found = measureAt(begun, 0);
    return (
      takenFrom(before.trim()) !== null ||
      (found !== null &&
        begun
          .slice(found.next)
          .some(
            (token, k) => token.kind === "word" && !/^(?:of|x|to|or)$/.test(token.lower) && value(begun, found.next + k) === null,
          ))
    );
  };
  tokens.forEach((token, at) => {
    if (/^[([]$/.test(token.text)) depth++;
    if (/^[)\]]$/.test(token.text)) depth--;
    if (depth > 0 || at === 0) return;
    const soured = token.lower === "with" && /^(?:soured|mixed|combined|dissolved|clabbered)$/.test(tokens[at - 1]?.lower ?? "");
    const joint = soured || token.text === "," || token.text === ";" || token.text === "+" || /^(?:plus|and)$/.test(token.lower);
    // "a cup of purée, about two pears": the same once more.
    const again = token.text === "," && /^(?:about|roughly|around|approximately|some)$/.test(tokens[at + 1]?.lower ?? "") && measureAt(tokens, at + 1)?.value.every((term) => !term.withUnit) === true; // prettier-ignore
    if (again) return;
    // ", the juice of half a lemon" is one more.
    const ofFruit = joint && piecesOf.test(text.slice(tokens[at + 1]?.start ?? text.length));
    if (!joint || !(amountStands(at + 1) || ofFruit) || !nameStands(from, token.start)) return;
    parts.push(text.slice(from, token.start));
    from = tokens[at + 1]?.start ?? token.end;
  });
  parts.push(text.slice(from));
  // A joint that nothing follows any more says nothing.
  return parts.map((part) => part.trim().replace(/\s+(?:plus|and|\+)$/i, "")).filter((part) => part !== "");
}

/** Every item of a line. A line that says nothing readable comes back as one item with its text as the name. */
export function itemsOf(source: string): WrittenItem[] {
  const items = passagesOf(source)
    .flatMap(itemsIn)
    .filter(
      ({ name, measures }, n) => n === 0 || !(/^(?:less|more)$/i.test(name) || (measures.length === 0 && aDropLess.test(name))),
    );
  if (items.length <= MOST_ITEMS) return items;
  // No recipe has so many on one line: what is over stays as it is written, and is asked about as a whole.
  const rest = items.slice(MOST_ITEMS).map(({ name }) => name).join(", "); // prettier-ignore
  return [...items.slice(0, MOST_ITEMS), { measures: [], name: rest.slice(0, MOST_REST), glosses: [], alternatives: [], optional: false, toTaste: false }]; // prettier-ignore
}

/** "half a pint of milk, maybe a drop less": no thing of its own. */
const aDropLess =
  /^(?:maybe |perhaps |possibly |or )?(?:an? )?(?:drop|touch|bit|little|splash|tad|shade|smidge) (?:less|more)(?: if \w.*)?$/i;

/** Somebody puts right what was just said: "no sorry, half a spoon", "I mean 2 tsp". */
const putRight =
  /\s*(?:[,;-]\s*(?:no|oh no)[,:]?\s+(?:sorry,?\s+|wait,?\s+)?|[,;-]?\s*\b(?:sorry|I mean|I meant|make that|scratch that|or rather)[,:]?\s+)(?=\S*\d|(?:an?|half|one|two|three|four|quarter|about)\b)/i;

/** A line in which an amount is put right: what was said last, with the name from before where it has none of its own. */
export const isPutRight = (text: string): boolean => putRight.test(text);

function rightedOf(text: string): WrittenItem[] | null {
  const match = putRight.exec(text);
  if (!match) return null;
  const [before, after] = [itemFrom(text.slice(0, match.index)), itemFrom(text.slice(match.index + match[0].length))];
  if (before.measures.length === 0) return null;
  const rest = tokensOf(text.slice(match.index + match[0].length));
  const amount = measuresAt(rest, 0);
  if (amount?.next === rest.length) return [{ ...before, measures: amount.value }];
  if (after.measures.length > 0 && after.name !== "") return [after];
  return amount ? [{ ...before, measures: amount.value }] : null;
}

const kindBehind =
  /^(flour|starch|sugar|oil|milk|vinegar|syrup|juice|seeds|nuts|yoghurt|yogurt|chocolate):\s*((?:about )?\d[\d./ ]*\s?(?:kg|g|ml|oz|cups?|tbsp|tsp)\s+\p{L}[\p{L} -]*)$/iu;

function itemsIn(source: string): WrittenItem[] {
  const text = withoutLikeness(withoutTable(plainText(withoutBullet(source))))
    .replace(/^[-*•·>\s]+(?=\S)/, "")
    .replace(listWord, "")
    .replace(leadWords, "")
    .replace(price, " ")
    .replace(footnote, "")
    .replace(/\s+/g, " ")
    .trim()
    // "a cup, maybe less, of water"
    .replace(/,\s*(?:maybe|perhaps|possibly|probably|give or take|or)\b[^,\d]{0,24},\s*(?=of\b)/i, " ")
    // "oil: 100 ml rapeseed or sunflower": which one stands behind.
    .replace(kindBehind, "$2 $1")
    .replace(/^(.*?)\b(?:ditto|(?:and )?the same (?:amount )?(?:again )?of)\b/i, (all, before: string) => {
      // "ditto": the amount that stands before it once more.
      const tokens = tokensOf(before);
      const first = measureAt(tokens, 0);
      return first ? `${before}${before.slice(0, tokens[first.next - 1]?.end)}` : all;
    });
  const righted = rightedOf(text);
  if (righted) return righted;
  const parts = ofTheSameFruit(severalOf(text));
  if (parts.length > 1)
    return parts.flatMap((part) => (shared(part) ?? takenFrom(part) ?? [itemFrom(part)]).map((item) => ({ ...item, own: part })));
  return shared(text) ?? takenFrom(text) ?? [itemFrom(text)];
}

/** The first item of a line: for a field that holds one. */
export const readLine = (source: string): WrittenItem => itemsOf(source)[0] ?? itemFrom(source);

/** Names without amounts that stand side by side: "salt & pepper", "jam and butter". Which of them are things is for the pantry to say. */
export const sideBySide = (name: string): string[] => listOf(name);
