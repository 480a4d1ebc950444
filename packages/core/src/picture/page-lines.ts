import { blocksOf, linesOf, type Row } from "./layout";
import { around, type Box, type PageWord } from "./words";

/** A line of a page as it goes to the reader. */
export interface PageLine {
  text: string;
  box: Box;
  /** How sure its least sure word that carries an amount was read, 0 to 100. */
  confidence: number;
  /** What else it may say, where that is open; the baker says which. */
  choices: string[];
  /** Somebody is to look at it before it is taken. */
  isOpen: boolean;
}

/** How good a reading of a line is: 0 for what says nothing, 1 for a food with an amount. The amounts in it as text tell whether two readings differ in what counts. */
export type Judge = (text: string) => { worth: number; says: string };

/** A word under this is doubted; an amount under this is asked about. */
const DOUBTED = 80;
const ASKED = 65;
/** So many readings of a line are tried. */
const MOST = 48;
/** A second reading worth so much of the first leaves the line open. */
const CLOSE = 0.6;

interface Confusion {
  was: RegExp;
  is: string;
  worth: number;
  /** Taken for a word however sure it was read. */
  always?: boolean;
}
/** What letters and figures of print are taken for, word by word, with how likely it is against what was read. */
const confusions: Confusion[] = [
  { was: /^(\d{1,3})9$/, is: "$1 g", worth: 0.5, always: true },
  { was: /^(\d+)(?:m[Il1!|]|rnl|mil?|nl)$/, is: "$1 ml", worth: 0.9, always: true },
  { was: /^["'*º%”“°]{1,2}([CF])([.,]?)$/, is: "°$1$2", worth: 0.9, always: true },
  { was: /^(\d{2,3})["'*º%”“]([CF])(?=\W|$)/, is: "$1°$2", worth: 1.5, always: true },
  { was: /^(\d{2,3})0([CF])$/, is: "$1°$2", worth: 0.5, always: true },
  { was: /rn/, is: "m", worth: 0.4 },
  { was: /vv/, is: "w", worth: 0.4 },
  { was: /cl/, is: "d", worth: 0.3 },
  { was: /(?<=\p{L})1|1(?=\p{L})/u, is: "l", worth: 0.4 },
  { was: /(?<=\p{L})0|0(?=\p{L})/u, is: "o", worth: 0.4 },
  { was: /([\p{L}])[|!](?=\p{L}|$)/u, is: "$1l", worth: 0.4 },
];

/** Units as they are printed, and short words that may follow a number and are none. */
const units = ["g", "kg", "ml", "cl", "dl", "l", "oz", "lb", "tsp", "tbsp", "cup", "cups", "TL", "EL"];
const noUnits = new Set("de di da do of or to x et ou e y o und al la le el per per con mit cm mm in à each day min eggs egg eier ei œufs uova h c c. g. ca bis".split(" ")); // prettier-ignore

/** Single signs that a unit of one letter is taken for. */
const alike: Record<string, string> = { g: "9qyj&86", l: "1I|!i" };

/** Units that a short word behind a number may be that is none: one sign away. */
function unitsFor(word: string): Option[] {
  const plain = word.replace(/[.,]$/, "");
  if (plain.length === 1)
    return Object.entries(alike).flatMap(([text, signs]) => (signs.includes(plain) ? [{ text, worth: 0.8 }] : []));
  if (!/^\p{L}/u.test(plain) || plain.length > 4 || units.includes(plain) || noUnits.has(plain.toLowerCase())) return [];
  // A sign that is another is likelier than one that is missing.
  return units
    .filter((unit) => oneApart(plain, unit))
    .map((text) => ({ text, worth: (text.length === plain.length ? 1.1 : 0.8) * (text === "g" || text === "ml" ? 1 : 0.6) }));
}
/** Whether two words differ by one sign that is another, missing or more. */
function oneApart(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 1) return false;
  let [i, j] = [0, 0];
  while (i < a.length && i < b.length && a[i] === b[i]) i++;
  while (j < a.length - i && j < b.length - i && a[a.length - 1 - j] === b[b.length - 1 - j]) j++;
  return Math.max(a.length, b.length) - i - j <= 1;
}

interface Option {
  text: string;
  worth: number;
}
/** Two looks at a figure that saw two of these saw a nought with a stroke. */
const round = /[0689]/;
function nought(a: string, b: string): Option[] {
  if (a.length !== b.length) return [];
  const text = [...a].map((sign, k) => (sign !== b[k] && round.test(sign) && round.test(b[k] ?? "") ? "0" : sign)).join("");
  return text === a || text === b ? [] : [{ text, worth: 1.05 }];
}

/** An amount with its doubtful figures read as noughts with a stroke, which come as one of them or as two; likelier as long as the shorter of two looks. */
function stroked(text: string, other: string): Option[] {
  const made = [text.replace(/0[689]|[689]0|[689]{2}/g, "0"), text.replace(/(?<=\d)[689]/g, "0"), text.replace(/0[689]|[689]0|[689]{2}/g, "0").replace(/(?<=\d)[689]/g, "0")];
  return [...new Set(made)].filter((one) => one !== text && /^\d/.test(text)).map((one) => ({ text: one, worth: one.length === Math.min(text.length, other.length) ? 1.02 : 0.8 }));
} // prettier-ignore

const figureFor: Record<string, string> = { l: "1", I: "1", "|": "1", O: "0", o: "0", S: "5", Z: "2", B: "8" };
/** A word of figures with letters that they are taken for among them, all as figures; itself where it is none. */
const figured = (text: string): string =>
  /^[\dlI|OoSZB]+$/.test(text) && (/\d/.test(text) || /^[lI|]$/.test(text))
    ? text.replace(/\D/g, (sign) => figureFor[sign] ?? sign)
    : text;

/** Every reading of a word, the one that was read first. */
export function readingsOf({ text, confidence, others = [] }: PageWord): Option[] {
  // Letters that were in the file itself are what they are.
  if (confidence >= 100) return [{ text, worth: 1 }];
  const figures = figured(text);
  const out: Option[] = [
    { text, worth: 1 },
    ...(figures === text ? [] : [{ text: figures, worth: 0.8 }]),
    ...others,
    ...others.flatMap((other) => [...nought(text, other.text), ...stroked(text, other.text), ...stroked(other.text, text)]),
  ];
  for (const { was, is, worth, always } of confusions)
    if ((always || confidence < DOUBTED) && was.test(text)) out.push({ text: text.replace(was, is), worth });
  return out;
}

/** Recipes weigh in fives and tens from here on: another number is so much less likely. */
const [ROUND_FROM, UNEVEN] = [20, 0.6];
/** What a nought with a stroke in it is taken for at the end of an amount. */
const strokes = /(?<![\d.,/])\d{1,3}[689](?![\d.,/½⅓⅔¼¾])/;
const evenness = (text: string): number =>
  (text.match(/(?<![\d.,/])\d{2,4}(?![\d.,/½⅓⅔¼¾])/g) ?? []).every(
    (figures) => Number(figures) < ROUND_FROM || Number(figures) % 5 === 0,
  )
    ? 1
    : UNEVEN;

/** Readings of a whole line, the likeliest first. */
function combined(words: readonly PageWord[]): Option[] {
  let all: Option[] = [{ text: "", worth: 1 }];
  for (const [k, word] of words.entries())
    all = all
      .flatMap((before) => [...readingsOf(word), ...(word.confidence < 100 && /[\d½⅓⅔¼¾⅛⅜⅝⅞]$/.test(words[k - 1]?.text ?? "") ? unitsFor(word.text) : [])].map(({ text, worth }) => ({ text: before.text === "" ? text : `${before.text} ${text}`, worth: before.worth * worth })))
      .sort((a, b) => b.worth - a.worth)
      .slice(0, MOST);
  return all;
} // prettier-ignore

/** Words of rows that go on; a word parted at the end of a row is whole again. */
function wordsOf(rows: readonly Row[]): PageWord[] {
  const out: PageWord[] = [];
  for (const { words } of rows)
    for (const [k, word] of words.entries()) {
      const before = out.at(-1);
      if (k > 0 || !before || !/\p{L}[-‐]$/u.test(before.text) || !/^\p{Ll}/u.test(word.text)) out.push(word);
      else
        out[out.length - 1] = {
          ...before,
          text: before.text.slice(0, -1) + word.text,
          confidence: Math.min(before.confidence, word.confidence),
          others: [{ text: before.text + word.text, worth: 0.9 }],
        };
    }
  return out;
}

const bullet = /^(?:[•●▪■□*·–—=»>+©®°¢-]|\d+[.)])\s+(?=[\d½⅓⅔¼¾⅛\p{L}])|^e\s+(?=[\d½⅓⅔¼¾⅛])/u;
const carries = /[\d½⅓⅔¼¾⅛⅜⅝⅞%]/;
/** A sign that no amount is made of, where one should stand. */
const strange = /^(?:[%>¥£€§»\\|~^†‡]|[Vv][2a4])(?=\s|$)/;

/** A line as the judge likes it best of all its readings; open where another says something else and is nearly as good, or where its amount was not seen well. */
function lineOf(rows: readonly Row[], judge: Judge, isStroked: boolean): PageLine {
  const words = wordsOf(rows);
  const readings = combined(words)
    .map((option) => {
      const text = option.text.replace(bullet, "");
      const { worth, says } = judge(text);
      return { text, says, worth: option.worth * evenness(text) * (0.1 + worth) };
    })
    .sort((a, b) => b.worth - a.worth);
  const [best] = readings;
  if (!best) return { text: "", box: around(rows.map(({ box }) => box)), confidence: 0, choices: [], isOpen: false };
  const amounts = words.filter(({ text }) => carries.test(text));
  // Where two looks saw two amounts, no third is taken without asking.
  const disagreed = amounts.some(({ others = [] }) => others.some(({ worth }) => worth >= CLOSE));
  const rivals = readings.filter(({ says, worth }) => says !== best.says && worth >= (disagreed ? CLOSE / 2 : CLOSE) * best.worth);
  const confidence = Math.min(100, ...amounts.map((word) => word.confidence));
  const isStrange = strange.test(best.text);
  return {
    text: best.text,
    box: around(rows.map(({ box }) => box)),
    confidence,
    choices: [...new Map(rivals.map(({ says, text }) => [says, text])).values()].slice(0, 3),
    isOpen:
      isStrange ||
      (best.says !== "" &&
        (disagreed ||
          rivals.length > 0 ||
          confidence < ASKED ||
          (isStroked && evenness(best.text) < 1 && strokes.test(best.text)))),
  };
}

/** Whether two looks at some amount of a page saw different ones of the figures that a nought with a stroke is taken for: then its other noughts have one too. */
const hasStrokes = (words: readonly PageWord[]): boolean =>
  words.some(({ text, others = [] }) =>
    others.some(({ text: other }) => other.length === text.length && [...text].some((sign, k) => sign !== other[k] && round.test(sign) && round.test(other[k] ?? ""))),
  ); // prettier-ignore

/** The lines of a page in the order in which it is read. */
export function pageLines(words: readonly PageWord[], judge: Judge): PageLine[] {
  const strokes = hasStrokes(words);
  return blocksOf(words)
    .flatMap((block) => linesOf(block).map((rows) => lineOf(rows, judge, strokes)))
    .filter(({ text }) => text.trim() !== "");
}
