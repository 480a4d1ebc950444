import { exactly } from "../range";
import type { Range } from "../range-schema";
import { first, inTurn, many, map, maybe, type Parser, remembered, sign, token, word } from "./combinators";
import type { Token } from "./tokens";

/**
 * Numbers as people write and say them.
 *
 *   figure   = INT "-"? FRACTION | INT "and" FRACTION | FRACTION | DECIMAL
 *   cardinal = "a hundred and eighty" | "forty-five" | "three-fifty" | "twelve" | "a dozen" | "a couple" | "both"
 *   part     = ("a" | cardinal)? ("half" | "third" | "quarter" | …) ("of"? "a"?)
 *   value    = (figure | cardinal) ("and" "a"? part)? | part | "a"
 *   span     = "between" value "and" value | value ("-" | "to" | "or") value | value | "a few"
 */
const NUMBER = token((t) => t.kind === "number");
const HYPHEN = sign("-");
const article = word("a", "an");

const parts: Record<string, number> = {
  half: 1 / 2, halves: 1 / 2, third: 1 / 3, thirds: 1 / 3, quarter: 1 / 4, quarters: 1 / 4, fourth: 1 / 4, fourths: 1 / 4,
  fifth: 1 / 5, fifths: 1 / 5, eighth: 1 / 8, eighths: 1 / 8,
}; // prettier-ignore

const ones: Record<string, number> = {
  one: 1, two: 2, three: 3, four: 4, five: 5, six: 6, seven: 7, eight: 8, nine: 9, ten: 10, eleven: 11, twelve: 12, thirteen: 13,
  fourteen: 14, fifteen: 15, sixteen: 16, seventeen: 17, eighteen: 18, nineteen: 19,
}; // prettier-ignore
const tens: Record<string, number> = {
  twenty: 20, thirty: 30, forty: 40, fifty: 50, sixty: 60, seventy: 70, eighty: 80, ninety: 90,
}; // prettier-ignore

const named = (table: Record<string, number>): Parser<number> =>
  map(
    token((t) => t.kind === "word" && table[t.lower] !== undefined),
    (t) => table[t.lower] ?? null,
  );

const tight = (parser: Parser<Token>): Parser<Token> => map(parser, (t) => (t.spaced ? null : t));

/** "1/2", "5/4": a vulgar fraction of small numbers, so that "60 ml/4 tbsp" and "Oven 215 / 12 min" are none. */
const fraction: Parser<number> = map(inTurn(NUMBER, sign("/"), NUMBER), ([above, , below]) =>
  Number.isInteger(above.value) &&
  Number.isInteger(below.value) &&
  below.value >= 2 &&
  below.value <= 16 &&
  above.value <= 4 * below.value
    ? above.value / below.value
    : null,
);
const properFraction = map(fraction, (value) => (value < 1 ? value : null));
const whole = map(NUMBER, (t) => (Number.isInteger(t.value) ? t.value : null));

const mixed: Parser<number> = map(
  inTurn(
    whole,
    first<unknown>(tight(HYPHEN), word("and"), sign("&"), (_, at) => ({ value: null, next: at })),
    properFraction,
  ),
  ([integer, , part]) => integer + part,
);

/** A number alone; one that goes on with a stroke and another is a broken fraction, and none. */
const plainNumber: Parser<number> = (tokens, at) => {
  const found = NUMBER(tokens, at);
  const goesOn = tokens[at + 1]?.spaced === false && tokens[at + 2]?.kind === "number" && tokens[at + 2]?.spaced === false;
  // Half a fraction, or the figures of a name ("1:1 flour").
  const broken = goesOn && ((tokens[at + 1]?.text === "/" && tokens[at + 2]?.value === 0) || tokens[at + 1]?.text === ":");
  return found && !broken ? { value: found.value.value, next: found.next } : null;
};

const figure: Parser<number> = first(mixed, fraction, plainNumber);

const joined = <T>(parser: Parser<T>): Parser<T> => map(inTurn(maybe(HYPHEN), parser), ([, value]) => value);

/** "forty-five", "twelve". */
const small: Parser<number> = first(
  map(inTurn(named(tens), maybe(joined(named(ones)))), ([ten, one]) => ten + (one !== null && one < 10 ? one : 0)),
  named(ones),
);
/** "a hundred and eighty", "two hundred", "hundred and twenty". */
const hundreds: Parser<number> = map(
  inTurn(
    maybe(
      first(
        named(ones),
        map(article, () => 1),
      ),
    ),
    joined(word("hundred")),
    maybe(map(inTurn(maybe(word("and")), small), ([, rest]) => rest)),
  ),
  ([count, , rest]) => (count ?? 1) * 100 + (rest ?? 0),
);
/** "three-fifty", "two fifty": as ovens and scales are spoken of. */
const clipped: Parser<number> = map(
  inTurn(named(ones), maybe(HYPHEN), named(tens), maybe(joined(named(ones)))),
  ([hundred, , ten, one]) =>
    hundred < 10 && (hundred > 1 || ten < 90) ? hundred * 100 + ten + (one !== null && one < 10 ? one : 0) : null,
);
const dozen: Parser<number> = map(
  inTurn(
    maybe(
      first(
        named(ones),
        map(inTurn(word("half"), article), () => 0.5),
        map(article, () => 1),
        whole,
      ),
    ),
    maybe(word("baker's", "bakers")),
    word("dozen"),
    maybe((tokens: readonly Token[], at: number) => andPart(tokens, at)),
  ),
  ([count, long, , share]) => (long ? 13 : 12) * ((count ?? 1) + (share ?? 0)),
);
const couple: Parser<number> = map(inTurn(maybe(article), word("couple", "pair", "brace"), maybe(word("of"))), () => 2);
/** "both oranges", "both of the limes". */
const both: Parser<number> = map(inTurn(word("both"), maybe(word("of")), maybe(word("the", "your", "those"))), () => 2);
const trio: Parser<number> = map(inTurn(maybe(article), word("trio"), maybe(word("of"))), () => 3);

const cardinal: Parser<number> = first(hundreds, clipped, couple, both, trio, small);

const ofA = maybe(inTurn(word("of"), maybe(article)));
/** "three quarters of a", "a third of a", "one-half", "half a", "quarter". */
const ofTheWhole = first<unknown>(inTurn(word("of"), maybe(article)), maybe(article));
const part: Parser<number> = first(
  map(
    inTurn(
      first(
        map(inTurn(named(ones), maybe(HYPHEN)), ([count]) => count),
        map(NUMBER, (t) => t.value),
        map(article, () => 1),
      ),
      named(parts),
      ofTheWhole,
    ),
    ([count, share]) => count * share,
  ),
  // Several without a number are none: "3 apple quarters".
  map(
    inTurn(
      token((t) => t.kind === "word" && parts[t.lower] !== undefined && !t.lower.endsWith("s")),
      ofTheWhole,
    ),
    ([{ lower }]) => parts[lower] ?? null,
  ),
);

/** "and a half", "and two thirds". */
const andPart: Parser<number> = map(
  inTurn(
    first(word("and"), sign("&")),
    maybe(
      first<unknown>(
        map(inTurn(named(ones), maybe(HYPHEN)), ([count]) => count),
        article,
      ),
    ),
    named(parts),
  ),
  ([, count, share]) => (typeof count === "number" ? count : 1) * share,
);

const counted: Parser<number> = map(
  inTurn(first(dozen, cardinal, figure), maybe(andPart)),
  ([count, share]) => count + (share ?? 0),
);

/** "1/4 of a cup": a figure under one that is taken of something. */
const figureOf: Parser<number> = map(inTurn(figure, word("of"), article), ([value]) => (value < 1 ? value : null));

const halfDozen: Parser<number> = map(inTurn(maybe(article), word("half"), maybe(word("a")), word("dozen")), () => 6);

/** Every word that a number may begin with; most words of a line are none, and are not tried. */
const beginnings = new Set([
  ...Object.keys(parts),
  ...Object.keys(ones),
  ...Object.keys(tens),
  ...[
    "a",
    "an",
    "couple",
    "pair",
    "brace",
    "both",
    "trio",
    "dozen",
    "baker's",
    "bakers",
    "few",
    "several",
    "between",
    "hundred",
    "from",
    "anything",
    "anywhere",
  ],
]);
const whereANumberMayBegin =
  <T>(parser: Parser<T>): Parser<T> =>
  (tokens, at) => {
    const here = tokens[at];
    return here && (here.kind === "number" || beginnings.has(here.lower)) ? parser(tokens, at) : null;
  };

export const value: Parser<number> = remembered(whereANumberMayBegin(first(halfDozen, figureOf, part, counted)));

/** "a" stands for one where nothing else does. */
export const valueOrA: Parser<number> = first(
  value,
  map(article, () => 1),
);

const between: Parser<Range> = map(inTurn(word("between"), value, word("and"), value), ([, low, , high]) =>
  high > low ? { low, mid: (low + high) / 2, high } : null,
);
const perhaps = inTurn(maybe(sign(",")), word("maybe", "perhaps", "possibly"));
const joining = first<unknown>(HYPHEN, inTurn(word("to", "or", "till", "until"), maybe(perhaps)), perhaps);
const fromTo: Parser<Range> = map(
  inTurn(maybe(inTurn(maybe(word("anything", "anywhere")), word("from"))), value, joining, value, maybe(sign(","))),
  ([, low, , high]) => (high > low ? { low, mid: (low + high) / 2, high } : null),
);
const few: Parser<Range> = first(
  map(inTurn(maybe(article), word("few"), maybe(word("of"))), () => ({ low: 2, mid: 3, high: 4 })),
  map(word("several"), () => ({ low: 3, mid: 4, high: 5 })),
);

/** A number or a range of two. */
export const span: Parser<Range> = remembered(whereANumberMayBegin(first(between, fromTo, few, map(value, exactly))));
export const spanOrA: Parser<Range> = first(between, fromTo, few, map(valueOrA, exactly));
export { andPart, article, many, ofA };
