import { first, inTurn, map, maybe, type Parser, remembered, sign, word } from "./combinators";
import { andPart, article, value, valueOrA } from "./numbers";

/**
 * Times in a text.
 *
 *   time    = clock | hours ("and"? minutes)? | minutes
 *   hours   = value "hour" ("and" "a"? part)?            "an hour and a quarter", "1¼ hours"
 *   minutes = value "min"
 *   span    = time ("-" | "to") time | value ("-" | "to") time
 */
export interface Minutes {
  low: number;
  high: number;
}

const HOUR = word("hour", "hours", "hr", "hrs", "h");
const SECOND = word("seconds", "second", "secs", "sec");
/** "90 seconds a side": what is fried so is done in seconds; other seconds are a mixer's. */
const aSide: Parser<unknown> = inTurn(maybe(word("on", "for")), word("a", "each", "per", "either", "every"), word("side"));
const MINUTE = word("minute", "minutes", "min", "mins", "m");
const dot = maybe(sign("."));

const clock: Parser<number> = (tokens, at) => {
  const [h, colon, m] = [tokens[at], tokens[at + 1], tokens[at + 2]];
  if (h?.kind !== "number" || colon?.text !== ":" || colon.spaced || m?.kind !== "number" || m.spaced || m.text.length !== 2)
    return null;
  return h.value <= 5 && m.value < 60 ? { value: h.value * 60 + m.value, next: at + 3 } : null;
};
/** "16 more minutes", "a good 10 minutes" have their word between figure and unit. */
const more = maybe(word("more", "further", "additional", "extra", "full", "good", "whole"));
const minutesOnly: Parser<number> = map(inTurn(valueOrA, more, MINUTE, dot), ([n]) => n);
const secondsASide: Parser<number> = (tokens, at) => {
  const found = inTurn(valueOrA, SECOND, dot)(tokens, at);
  return found && aSide(tokens, found.next) ? { value: found.value[0] / 60, next: found.next } : null;
};
/** "1 hr 15", "an hour and five": minutes without their word, where nothing else is measured by them. */
const restOfHour: Parser<number> = (tokens, at) => {
  const found = value(tokens, tokens[at]?.lower === "and" ? at + 1 : at);
  const next = found ? tokens[found.next] : undefined;
  const ends = next === undefined || /^[.,;)]$/.test(next.text) || /^(?:at|in|until|or|then)$/.test(next.lower);
  return found && Number.isInteger(found.value) && found.value >= 5 && found.value < 60 && ends ? found : null;
};
const hours: Parser<number> = map(
  inTurn(
    first(
      valueOrA,
      map(article, () => 1),
    ),
    HOUR,
    dot,
    maybe(andPart),
    maybe(
      first(
        map(inTurn(maybe(word("and")), minutesOnly), ([, m]) => m),
        restOfHour,
      ),
    ),
  ),
  ([n, , , share, more]) => 60 * (n + (share ?? 0)) + (more ?? 0),
);
const time: Parser<number> = remembered(first(clock, hours, minutesOnly, secondsASide));
const joint = first<unknown>(inTurn(sign(","), word("maybe", "perhaps")), sign("-"), word("to", "or"));

const hyphened = maybe(sign("-"));
/** A time or a range of two; the unit may stand behind the second alone. */
export const timeSpan: Parser<Minutes> = first(
  map(inTurn(time, joint, time), ([low, , high]) => (high >= low ? { low, high } : null)),
  (tokens, at) => {
    const from = value(tokens, at);
    const join = from && joint(tokens, from.next);
    const to = join && time(tokens, join.next);
    if (!from || !join || !to) return null;
    const second = value(tokens, join.next);
    const unit = second && second.value > 0 ? to.value / second.value : 1;
    const low = from.value * unit;
    return low <= to.value ? { value: { low, high: to.value }, next: to.next } : null;
  },
  map(inTurn(time, hyphened), ([t]) => ({ low: t, high: t })),
);
