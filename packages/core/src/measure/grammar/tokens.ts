import { unitOf } from "../units";

/** A piece of a line: a number, a word, or a sign, with where it stands. */
export interface Token {
  kind: "number" | "word" | "sign";
  text: string;
  /** Lower case, without accents. */
  lower: string;
  /** Of a number; NaN otherwise. */
  value: number;
  start: number;
  end: number;
  /** White space stands before it. */
  spaced: boolean;
}

const vulgar: Record<string, string> = {
  "¼": "1/4", "½": "1/2", "¾": "3/4", "⅐": "1/7", "⅑": "1/9", "⅒": "1/10", "⅓": "1/3", "⅔": "2/3", "⅕": "1/5",
  "⅖": "2/5", "⅗": "3/5", "⅘": "4/5", "⅙": "1/6", "⅚": "5/6", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8",
}; // prettier-ignore

const entities: Record<string, string> = { nbsp: " ", amp: "&", frac12: "½", frac14: "¼", frac34: "¾", deg: "°", ndash: "–", mdash: "—", quot: '"', lt: "<", gt: ">", times: "×", eacute: "é", uuml: "ü", ouml: "ö", auml: "ä", egrave: "è" }; // prettier-ignore

/** A larger number is no amount of anything in a kitchen. */
export const MOST_NUMBER = 1e9;

/** Makes typographic variants plain: fractions, dashes, quotes, spaces, decimal commas, marks of emphasis; the words stay as they are. */
export function plainText(text: string): string {
  if (text.length > MOST_SIGNS) return evened(text);
  const before = plain.get(text);
  if (before !== undefined) return before;
  if (plain.size >= MOST_KEPT) plain.clear();
  const made = evened(text);
  plain.set(text, made);
  return made;
}

/** Texts that were made plain just now: a line is read from several sides. */
const plain = new Map<string, string>();
const MOST_SIGNS = 2000;
const hasFraction = /[¼½¾⅐⅑⅒⅓⅔⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞]/;
/** Fractions in figures, apart from what stands before them. */
const withFigures = (text: string): string =>
  hasFraction.test(text)
    ? text.replace(
        /([\d\p{L}])?\s*([¼½¾⅐⅑⅒⅓⅔⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞])/gu,
        (_, before: string | undefined, sign: string) => `${before ? `${before} ` : ""}${vulgar[sign] ?? sign}`,
      )
    : text;

function evened(text: string): string {
  const decoded = text
    .replace(/<\/?[a-z][a-z0-9]*(?:\s[^<>]*)?>/gi, " ")
    .replace(/&(?:#(\d{2,5})|([a-z]{2,8}\d{0,2}));/gi, (all, code: string | undefined, name: string | undefined) =>
      code ? String.fromCodePoint(Number(code)) : (entities[name?.toLowerCase() ?? ""] ?? all),
    );
  return (
    withFigures(decoded)
      .replace(/\p{Extended_Pictographic}[\uFE0F\u200D]?/gu, " ")
      .replace(/[\u00a0\u2000-\u200b\u202f\t]/g, " ")
      .replace(/[‘’´`]/g, "'")
      .replace(/[“”″]/g, '"')
      .replace(/′/g, "'")
      .replace(/\*\*|__/g, "")
      .replace(/[\u2044\u2215]/g, "/")
      .replace(/[\u2010-\u2015\u2212]/g, "-")
      .replace(/×/g, "x")
      .replace(/[≈≃∼]/g, "~")
      .replace(/(\d)(kg|g|ml|oz|lb)([a-z]{4,})\b/g, (all, figure: string, unit: string, rest: string) =>
        unitOf(unit + rest) ? all : `${figure}${unit} ${rest}`,
      )
      .replace(/(?<!\d)(\d{3})(fan|conv)\b/gi, "$1 $2")
      // "eggs - 20 no."
      .replace(/(\d)\s*nos?\.(?=\s*(?:$|[,;|]))/gi, "$1")
      // "48-52'"
      .replace(/(?<![\d.])(\d{2,3})'(?![\d'\p{L}]|\s*(?:\p{L}+\s+)?(?:tin|pan|round|square|skillet|dish)\b)/gu, "$1 min")
      .replace(/(?<!\s)(?:\s*\.){4,}(?=\s*[\d.])/g, ": ")
      .replace(/(?<!\s)(?:\s*\.){3,}/g, " ")
      .replace(/(?<![\d.,])([1-9]\d{0,2}),(\d{3})(?![\d])/g, "$1$2")
      .replace(/(?<![\d.,])(\d+),(\d{1,3})(?![\d/])/g, "$1.$2")
      // "w.", "w/" and "abt": with, and about.
      .replace(/(?<=\s)w(?:\.|\/)\s*(?=[\p{L}\d])/giu, "with ")
      .replace(/\babt\.?(?=\s|$)/gi, "about")
      // The full stop of a shortened word ends no sentence.
      .replace(
        /\b([Mm]ins?|[Hh]rs?|[Tt]h|[Ss]td|[Cc]a|[Aa]pprox|[Aa]bout|[Uu]ngef|[Ll]evel|[Hh]eaped)\.(?=\s+[\p{L}\d])(?!\s+\p{Lu}\p{Ll}+\s)/gu,
        "$1",
      )
      .replace(/\s+/g, " ")
      .trim()
  );
}

const withoutAccents = (text: string): string =>
  /^[\w']*$/.test(text) ? text : text.normalize("NFD").replace(/[\u0300-\u036f]/g, "");

const piece = /(\d+(?:\.\d+)?|\.\d+)|(\p{L}[\p{L}\p{M}']*)|(\S)/gu;

const MOST_KEPT = 128;
const kept = new Map<string, readonly Token[]>();

/** The tokens of a plain text (see `plainText`); those of texts that were read just now are the same ones, with what is known of them. */
export function tokensOf(text: string): readonly Token[] {
  const before = kept.get(text);
  if (before) return before;
  if (kept.size >= MOST_KEPT) kept.clear();
  const tokens = takenApart(text);
  kept.set(text, tokens);
  return tokens;
}

/** A number beyond reason is a sign: nothing can be done with it. */
function takenApart(text: string): Token[] {
  const out: Token[] = [];
  let last = 0;
  for (const match of text.matchAll(piece)) {
    const start = match.index;
    const written = match[0];
    const value = match[1] === undefined ? NaN : Number(match[1]);
    const kind = match[1] !== undefined && value <= MOST_NUMBER ? "number" : match[2] !== undefined ? "word" : "sign";
    out.push({
      kind,
      text: written,
      lower: kind === "word" ? withoutAccents(written.toLowerCase()) : written,
      value,
      start,
      end: start + written.length,
      spaced: start > last,
    });
    last = start + written.length;
  }
  return out;
}
