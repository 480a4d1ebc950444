import { type Range, exactly } from "./range";

const vulgar: Record<string, string> = {
  "¼": "1/4", "½": "1/2", "¾": "3/4", "⅐": "1/7", "⅑": "1/9", "⅒": "1/10", "⅓": "1/3", "⅔": "2/3", "⅕": "1/5",
  "⅖": "2/5", "⅗": "3/5", "⅘": "4/5", "⅙": "1/6", "⅚": "5/6", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8",
}; // prettier-ignore

const wordNumbers: Record<string, number> = {
  a: 1, an: 1, one: 1, two: 2, three: 3, four: 4, five: 5, six: 6, seven: 7, eight: 8, nine: 9, ten: 10, eleven: 11,
  twelve: 12, dozen: 12, half: 0.5, quarter: 0.25,
}; // prettier-ignore

/** Makes typographic variants plain: fractions, dashes, spaces, decimal commas; the words stay as they are. */
export function plainText(text: string): string {
  return text
    .replace(/[\u00a0\u2000-\u200b\u202f]/g, " ")
    .replace(
      /(\d)?\s*([¼½¾⅐⅑⅒⅓⅔⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞])/g,
      (_, digit: string | undefined, sign: string) => `${digit ? `${digit} ` : ""}${vulgar[sign] ?? sign}`,
    )
    .replace(/[\u2044\u2215]/g, "/")
    .replace(/[\u2010-\u2015\u2212]/g, "-")
    .replace(/×/g, "x")
    .replace(/(\d),(\d{3})(?!\d)/g, "$1$2")
    .replace(/(\d),(\d{1,2})(?!\d)/g, "$1.$2")
    .replace(/\s+/g, " ")
    .trim();
}

const digits = String.raw`\d+\s+\d+\s*/\s*\d+|\d+\s*/\s*\d+|\d+\.\d+|\.\d+|\d+`;
const numberAtStart = new RegExp(`^(?:${digits})`);

interface Found<T> {
  value: T;
  rest: string;
}

/** A number written in digits at the start of a plain text: integer, decimal, fraction or mixed number. */
function digitsAtStart(text: string): Found<number> | null {
  const match = numberAtStart.exec(text);
  if (!match) return null;
  const written = match[0];
  const mixed = /^(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/.exec(written);
  let value = Number(written);
  if (mixed) {
    const below = Number(mixed[3]);
    if (below === 0) return null;
    value = Number(mixed[1] ?? 0) + Number(mixed[2]) / below;
  }
  let rest = text.slice(written.length);
  const andPart = /^\s+and\s+(\d+)\s*\/\s*(\d+)/.exec(rest);
  if (andPart && !mixed && Number(andPart[2]) > 0) {
    value += Number(andPart[1]) / Number(andPart[2]);
    rest = rest.slice(andPart[0].length);
  }
  return { value, rest };
}

const wordPatterns: [RegExp, (m: RegExpExecArray) => number][] = [
  [/^(one|two|three|four|five|six|\d+)\s+and\s+(?:a\s+|one\s+)?(half|quarter)\b/i, (m) => wordValue(m[1]) + wordValue(m[2])],
  [/^(one|two|three|four|five|six|\d+)\s+and\s+three[\s-]quarters?\b/i, (m) => wordValue(m[1]) + 0.75],
  [/^three[\s-]quarters?(?:\s+of\s+an?)?\b/i, () => 0.75],
  [/^two[\s-]thirds?(?:\s+of\s+an?)?\b/i, () => 2 / 3],
  [/^(?:a|one)[\s-]third(?:\s+of\s+an?)?\b/i, () => 1 / 3],
  [/^(?:a\s+)?(half|quarter)(?:\s+of)?(?:\s+an?)?(?:\s+dozen)\b/i, (m) => wordValue(m[1]) * 12],
  [/^(?:(?:a|one)[\s-])?(half|quarter)(?:\s+of)?(?:\s+an?)?\b(?![\s-]and)/i, (m) => wordValue(m[1])],
  [/^(?:a|one)\s+dozen\b/i, () => 12],
  [/^a\s+couple(?:\s+of)?\b/i, () => 2],
  [/^(a|an|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\b/i, (m) => wordValue(m[1])],
];

const wordValue = (word: string | undefined): number => wordNumbers[(word ?? "").toLowerCase()] ?? Number(word);

function wordsAtStart(text: string): Found<number> | null {
  for (const [pattern, value] of wordPatterns) {
    const match = pattern.exec(text);
    if (match) return { value: value(match), rest: text.slice(match[0].length) };
  }
  return null;
}

/**
 * A quantity at the start of a plain text (see `plainText`): a number in digits or words, or a range of two numbers.
 * Gives the quantity and what follows it, or null.
 */
export function quantityAtStart(text: string): Found<Range> | null {
  const trimmed = text.trimStart();
  if (/^a\s+few\b/i.test(trimmed)) return { value: { low: 2, mid: 3, high: 4 }, rest: trimmed.replace(/^a\s+few\b/i, "") };
  const first = wordBeforeDigits(trimmed) ?? digitsAtStart(trimmed) ?? wordsAtStart(trimmed);
  if (!first) return null;
  const joint = /^\s*(?:-|to\b|or\b|until\b)\s*/i.exec(first.rest);
  if (joint) {
    const afterJoint = first.rest.slice(joint[0].length);
    const second = digitsAtStart(afterJoint) ?? (joint[0].trim() === "-" ? null : wordsAtStart(afterJoint));
    if (second && second.value > first.value) {
      return { value: { low: first.value, mid: (first.value + second.value) / 2, high: second.value }, rest: second.rest };
    }
  }
  return { value: exactly(first.value), rest: first.rest };
}

/** "2 and a half" begins with digits but is a word pattern. */
function wordBeforeDigits(text: string): Found<number> | null {
  return /^\d+\s+and\s+(?:a\s+|one\s+|three)/i.test(text) ? wordsAtStart(text) : null;
}
