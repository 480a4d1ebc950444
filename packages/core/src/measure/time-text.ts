import { withHeatsSaid } from "./grammar/passages";
import { celsiusFromFahrenheit } from "./units";
import { span } from "./grammar/numbers";
import { type Minutes, timeSpan } from "./grammar/times";
import { plainText, type Token, tokensOf } from "./grammar/tokens";

/** A part of a bake: how long, and what is said of its heat and cover. */
export interface ReadStage {
  minutes: Minutes;
  celsius?: number;
  mode?: "grill" | "hob";
  covered?: boolean;
  free?: boolean;
}

const baking = /\b(?:bak(?:e[sd]?|ing)|cook(?:s|ed|ing)?|oven|air[\s-]?fr(?:yer|y)|griddle|fry|grill)\b/i;
const notBaking =
  /\b(?:rest|chill|cool|stand|soak|prov|rise|leave|preheat|pre-heat|heat the oven|prep|total|ready in|keeps?|store|freez|fridge|hands-on|active|marinat|whisk|beat|simmer|boil|wait|sit|knead|mix|check(?:ing)? (?:from|after)|look|toast|roast|re-?heat|refresh|swell|steep|refrigerate|hydrate|turn(?:ing)?(?: it)? after|serve within|warm)(?:s|es|ed|d|ing)?\b/gi;
const anyVerb = new RegExp(`${baking.source}|${notBaking.source}`, "gi");
/** A verb farther away, in signs, is of something else. */
const NEAR = 260;
const goesOn = /\b(?:then|back in|another|more|further|again|remaining|uncovered|covered|lid|foil)\b/i;

/** A time, and where it stands in its text. */
export interface SaidTime extends Minutes {
  start: number;
  end: number;
}

/** Every time that a plain text says, whatever it is of. */
export function timesIn(text: string): SaidTime[] {
  const tokens = tokensOf(text);
  const out: SaidTime[] = [];
  for (let at = 0; at < tokens.length; at++) {
    const here = tokens[at];
    const found = timeSpan(tokens, at) ?? bareStage(tokens, at, text);
    if (!found || !here) continue;
    const end = tokens[found.next - 1]?.end ?? here.end;
    // "2 x 15 min"
    const many = tokens[at - 1]?.lower === "x" ? (tokens[at - 2]?.value ?? 1) : 1;
    const by = Number.isInteger(many) && many <= 6 ? many : 1;
    out.push({ low: by * found.value.low, high: by * found.value.high, start: here.start, end });
    at = found.next - 1;
  }
  return out;
}

/** "then 20 uncovered", "then 10 more": a number without its unit, behind one that had it. */
function bareStage(tokens: readonly Token[], at: number, text: string): { value: Minutes; next: number } | null {
  const found = span(tokens, at);
  const here = tokens[at];
  if (!found || here?.kind !== "number") return null;
  const before = text.slice(Math.max(0, here.start - 12), here.start);
  const after = tokens[found.next]?.lower ?? "";
  const further = /\b(?:another|a further)\s+$/i.test(before) && /^(?:|[.,;)]|at|on|in)$/.test(after);
  // "bakes 25.", "bake for 30, tent with foil, and bake 15-20 longer"
  const baked = /\bbak(?:e|es|ed|ing)\s+(?:it |them )?(?:for\s+)?(?:about |around )?$/i.test(before) && /^(?:|[.,;)]|more|longer|until|till|then|or)$/.test(after) && found.value.low >= BAKES.least && found.value.high <= BAKES.most; // prettier-ignore
  // "6 min on the first side and 2 on the second"
  const side = after === "on" && /^(?:the|its)$/.test(tokens[found.next + 1]?.lower ?? "") && /^(?:second|other|back|reverse)$/.test(tokens[found.next + 2]?.lower ?? ""); // prettier-ignore
  const then = /\bthen\s+(?:for\s+)?$/i.test(before) && /^(?:uncovered|covered|more|open|free|without|at|on)$/.test(after);
  // "12 minutes, turn the tray, 3 more": with a verb before it, or without.
  const more = after === "more" && /^(?:|[.,;)]|at|on|until|till|covered|uncovered)$/.test(tokens[found.next + 1]?.lower ?? "");
  if (!further && !baked && !then && !more && !side) return null;
  if (!baked && !/\b(?:min|hour|hr)/i.test(text.slice(0, here.start))) return null;
  return { value: { low: found.value.low, high: found.value.high }, next: found.next };
}

/** "350 for 55 minutes", "35 min at 220 C", "lid on 35 min": with a heat or a lid beside it, a time is of the bake, whatever else its sentence does. */
function besideHeat(text: string, said: SaidTime): boolean {
  const before = text.slice(Math.max(0, said.start - 40), said.start);
  const clause = before.split(/[,;.]\s/).at(-1) ?? "";
  if (/\bheat\b/i.test(clause) || new RegExp(notBaking.source, "i").test(clause)) return false;
  return (
    /(?:(?<![\d.])[1-5]\d\d\s*(?:°\s*)?[cf]?|\bgas\s*(?:mark\s*)?(?:\d|one|two|three|four|five|six|seven|eight))\s+for\s+(?:about |around |some |roughly )?$/i.test(before) ||
    // "cut, 215 degrees, 13 to 15 minutes"
    /(?:^|[,;.]\s*)[1-5]\d\d\s*(?:°\s*[cf]?|degrees(?:\s+[cf])?|[cf])(?:\s+fan)?\s*,\s*(?:about |for )?$/i.test(before) ||
    // "180 degrees 45 min"
    /(?<![\d.])[1-5]\d\d\s*(?:°\s*[cf]?|degrees(?:\s+[cf])?)\s+(?:about )?$/i.test(before) ||
    /\blid (?:on|off)\s+(?:for\s+)?$/i.test(before) ||
    /^\s*(?:at|@)\s*[1-5]\d\d\s*(?:°|º|[cf]\b|fan\b|$|[.,;)])/i.test(text.slice(said.end))
  );
} // prettier-ignore

/** "Cook the dates": a thing that is cooked by itself is no bake, where a bake is told as well. */
const cooksAThing = /\bcook(?:s|ed|ing)?\s+(?:the|these|those|your|\d+\s*\w*)\s+(?!min|hour|hrs?\b|sec|batter|dough|mixture|mix|cakes?|lo(?:af|aves)|bread|scones?|muffins?|biscuits?|pancakes?|rounds?|pieces|farls?|first|second|other)\p{L}+/iu; // prettier-ignore

/** No bake takes longer, minutes. */
const A_DAY = 1440;
/** No sentence says more of them. */
export const MOST_TIMES = 16;
const inTheOven = /\b(?:in|into|to) (?:the|a|an|your) (?:\w+ )?oven\b/i;

/** The verb that a time belongs to: the nearest one that stands before it in its clause, or else behind it. */
function isBaking(text: string, said: SaidTime, anyBake: boolean): boolean {
  if (besideHeat(text, said)) return true;
  // "knead, 25 min bake.": in other languages the verb stands behind.
  if (/^\s+bake[sd]?\s*(?:[.,;(]|$)/.test(text.slice(said.end))) return true;
  const clauseStart = Math.max(...[".", ";", "·", "!"].map((mark) => text.lastIndexOf(mark, said.start - 1))) + 1;
  const clause = text.slice(clauseStart, said.start);
  let last = "";
  let at = -1;
  for (const match of clause.slice(-NEAR).matchAll(anyVerb)) {
    if (match.index > at) {
      at = match.index;
      last = match[0];
    }
  }
  // "into a cold oven, and leave 60 minutes": what stands in the oven is baked there.
  if (/^(?:leave|sit|stand)$/i.test(last) && inTheOven.test(clause) && !/\b(?:off|door open|ajar|cooling)\b/i.test(text))
    return true;
  if (last !== "")
    return baking.test(last) && !/^oven$/i.test(last)
      ? true
      : /^oven$/i.test(last)
        ? !/\bpre-?heat|\bheat|\b(?:switched|turned)[- ]off\b|\bcooling oven\b/i.test(clause)
        : false;
  // A full stop may have been taken for that of an abbreviation ("min.").
  const rest = text[said.end - 1] === "." ? "" : (text.slice(said.end).split(/[.;·]/)[0] ?? "");
  if (
    /^'?\s*(?:of\s+)?(?:in the (?:tin|pan|tray|cups|mould|mold|dish)s?\s+)?(?:to\s+)?(?:completely\s+|fully\s+)?(?:rest|chill|cool|prov|soak|hydrate|swell|thicken|stand|settle|firm up|come to|absorb|soften|in the (?:fridge|freezer))/i.test(
      rest,
    )
  )
    return false;
  return anyBake || baking.test(rest) || /^\s*at\s+\d/.test(rest);
}

/** What a bake keeps is told in a sentence of its own. */
function isOfKeeping(text: string, { start, end }: SaidTime): boolean {
  // A full stop may have been taken for that of an abbreviation ("min.").
  const behind = text.slice(end - 1).search(/[.;!](?:\s|$)/);
  const from = Math.max(...[". ", "; ", "! "].map((mark) => text.lastIndexOf(mark, start - 1))) + 1;
  const sentence = text.slice(from, behind < 0 ? undefined : end - 1 + behind);
  return (
    /\b(?:keeps?|stor(?:e|age)|freez\w*|best (?:eaten|within))\b/i.test(sentence) &&
    !baking.test(sentence.replace(/\b(?:of|after|from) (?:baking|the oven)\b/gi, ""))
  );
}

const afterwards =
  /^(?:after|at) ((?:about |the first )?(?:half an|an?|\d+(?:\s*-\s*\d+)?|[a-z]+(?:-[a-z]+)?) ?(?:hours?|min(?:ute)?s?)),? (?=(?:cover|uncover|turn|lower|reduce|drop|rotate|remove|take|lay|put|brush)\b.*\b(?:another|a further|more|remaining)\b)/i;

/** Without one of these there is no time in a text. */
const unitOfTime = /(?:\d|\b)(?:h|hrs?|hours?|m|mins?|minutes?|sec(?:ond)?s?)\b|\d:\d\d|\bbak(?:e|es|ed|ing)\s+(?:for\s+)?\d/i;

/** What else takes time in a kitchen; a sentence with one of these says no bake unless it names it. */
const elseDone =
  /\b(?:rest|whole thing|relax|chill|cool|stand|soak|prov(?:e|ing)|ris(?:e|ing)|whip|whisk|beat|cream(?:ing)?\b|rub|blend|process|blitz|pulse|stir|mix|knead|melt|bloom|hydrat|swell|thicken|steep|infus|simmer|boil|cook|fry|steam|poach|soften|marinat|macerat|drain|press|dry|thaw|defrost|re-?heat|refresh|warm|toast|roast|pre-?heat|prep|total|active|hands-on|serve|eat|ready in|hot|cut|slice|first|within|after|keep|stor|freez|fridge|refrigerat|walk|drive|before|ahead|earlier|ago|later|old\b|work\b|make|read|wait|settle|set|firm|overnight|switched|turned off|door)\w*/i;
/** A time that is said to be enough, or when it is out. */
const taking =
  /\b(?:takes?|needs?|wants?|gives?|gets?|(?:should|will|'ll) do|all in|all told|in total|comes? out|are out|is out|out (?:at|after|in)|done (?:in|at|after|by)|ready (?:at|after|by)|pull(?:ed|s)?|uncovered)\b/i;
const outAfter = /\b(?:comes?|are|is|take (?:it|them)|pull (?:it|them)|done|ready)\s*(?:out )?(?:after|by|at)\b/gi;
/** A time with no more words than these says nothing else. */
const FEW_WORDS = 4;
/** Minutes of a bake. */
const BAKES = { least: 4, most: 240 };

/** "An hour should do it", "They get fifteen minutes at two hundred": where no bake is named anywhere, a time that nothing else is named for is its. */
export function readStagesByDefault(source: string): ReadStage[] {
  const text = plainText(source);
  if (elseDone.test(text.replace(outAfter, " out "))) return [];
  const [only, ...others] = timesIn(text);
  const rest =
    text
      .replace(/\d[\d\s./-]*|\b(?:min(?:ute)?s?|hours?|hrs?|quarters?|half|an?|and|the|about|for|or|so)\b/gi, " ")
      .match(/\p{L}+/gu) ?? [];
  if (
    !only ||
    others.length > 2 ||
    (rest.length > FEW_WORDS && !taking.test(text)) ||
    only.low < BAKES.least ||
    only.high > BAKES.most ||
    isOfKeeping(text, only)
  )
    return [];
  return readStages(`Bake: ${text}`);
}

/** The stages of the bake that a text says, in order; their times add up. Empty where it says none. */
export function readStages(source: string): ReadStage[] {
  const text = withHeatsSaid(plainText(source))
    .replace(/(\d)-?ish\b/gi, "$1")
    // "Check at 20, they're usually ready by 24 minutes": from the first look to the last.
    .replace(
      /^(?:start )?check(?:ing)? (?:at|from|after) (\d{1,3})(?:\s*min(?:ute)?s?)?\b[^.\d]{3,60}?\b(?:by|at|in)\s+(\d{1,3}\s*min)/i,
      "Bake $1-$2",
    )
    // "After half an hour cover with foil; another 20 minutes": the first time is of the bake too.
    .replace(afterwards, "Bake $1, ")
    // "180c (fan160) 40-45": behind a heat a figure alone is its minutes.
    .replace(
      /(\b\d{3}\s*°?\s*(?:[cf]|fan)\b(?:\s*(?:\(\s*)?fan\s*\d{3}\s*°?\s*c?\b(?:\s*\))?)?[,:]?\s+(?:for\s+)?)(\d{1,2}(?:\s*-\s*\d{1,3})?)(?=\s*(?:$|[.,;!]|until\b|till\b))/gi,
      "$1$2 min",
    )
    // "Hot oven - 220 - for 12-15."
    .replace(/(\b[1-4]\d\d\s*(?:°?\s*[cf]\b)?\s*[-,:]?\s*for\s+)(\d{1,2}(?:\s*-\s*\d{1,3})?)(?=\s*(?:$|[.,;!]))/gi, "$1$2 min")
    // "20/25 mins"
    .replace(/(?<![\d./])(\d{1,2})\/(\d{2})(?=\s*(?:min(?:ute)?|hour|hr)s?\b)/gi, "$1-$2")
    .replace(/\bbake\s+((?:for )?(?:about )?\d{1,3}(?:\s*-\s*\d{1,3})?)\s+(?=(?:until|till|or until)\b)/gi, "bake $1 min ");
  if (!unitOfTime.test(text)) return [];
  // A temperature of an oven beside it makes a time without a verb a bake.
  const degrees =
    /\d{2,3}\s*(?:°|º|degrees|c\b|f\b)|\b(?:three|four)-\w+ oven|\boven\b|\b[1-5]\d\d\s+for\b|\bdegrees\b|\b\d{3}\s*fan\b|\bfan\s*\d{3}\b|\bth\.? ?\d|\bgas\s*(?:mark\s*)?(?:\d|one\b|two\b|three\b|four\b|five\b|six\b|seven\b|eight\b)/i.test(
      text,
    );
  // A line that begins with its minutes says how long the bake is: "16-18 minutes. Cool 5 min in the pan."
  const alone = /^\s*(?:about |around )?\d+(?:\s*(?:-|to)\s*\d+)?\s*(?:min|minutes|mins)\b/i.test(text) ? 0 : -1;
  const takes =
    /\b(?:takes?|wants?|does it|needs?|done in|ready in|gives? (?:it|them|these|each|the (?:loaf|lot|tray|tin))|on the (?:top|middle|bottom|lower|upper) (?:shelf|rack))\b/i.test(
      text,
    );
  const all = timesIn(text)
    .slice(0, MOST_TIMES)
    .filter(
      (said) =>
        said.high >= 0.5 &&
        said.high <= 600 &&
        !/\bevery\s+$/i.test(text.slice(0, said.start)) &&
        !isOfKeeping(text, said) &&
        !/^\s*to (?:put|throw|mix|make|prepare|pull|get)\b/i.test(text.slice(said.end)),
    );
  let last: SaidTime | null = null;
  const told = all.filter((said) => {
    // "12 min., rotate, 6 min. more": what goes on from a time of the bake is one.
    const on = last !== null && goesOn.test(text.slice(last.end, said.start) + text.slice(said.end, said.end + 12));
    const is = isBaking(text, said, degrees || takes || on || (alone === 0 && said === all[0]));
    if (is) last = said;
    return is;
  });
  const bakes = told.filter((said) => !cooksAThing.test(clauseBefore(text, said.start)));
  const baked = bakes.length > 0 ? bakes : told;
  const stages: ReadStage[] = [];
  let end = 0;
  for (const said of baked) {
    const between = text.slice(end, said.start);
    const after = text.slice(said.end, said.end + 26);
    if (stages.length > 0) {
      // "Again: bake it for 35 minutes": told twice.
      if (/\bagain\b/i.test(between) && stages.some(({ minutes }) => minutes.low === said.low && minutes.high === said.high))
        continue;
      const checks = /\b(?:check|look|test|from|after|or until|halfway|turn(?:ing)? (?:it |the \w+ )?after)\b[^,;.]*$/i.test(
        between,
      );
      const heats = celsiusIn(between) ?? celsiusIn(after);
      const adds =
        (heats !== null && heats !== celsiusIn(text.slice(0, end))) ||
        goesOn.test(between) ||
        goesOn.test(after) ||
        /\bbake\b/i.test(between) ||
        /,\s*turn\b[^.]*,\s*$/i.test(between) ||
        // "2 minutes, flip, cook 1 minute": the other side.
        /^\s*on (?:the|its) (?:second|other|back|reverse)\b/i.test(after) ||
        /\b(?:turn|flip)(?: (?:it|them|each|over|carefully))*(?:,| and| then)*(?: (?:cook|fry|griddle|give (?:it|them)))?(?: for)?(?: about| another| a further)*\s*$/i.test(
          between,
        );
      if (checks && !/\b(?:then|another|more|further)\b/i.test(between + after)) continue;
      if (!adds) continue;
    }
    const here = stages.length === 0 ? clauseBefore(text, said.start) : between;
    // "2 minutes each side" is said of one of two.
    const sides = /^\s*(?:on |for )?(?:each|per|a|either) side\b/i.test(after) ? 2 : 1;
    stages.push({
      minutes: { low: sides * said.low, high: sides * said.high },
      ...surroundingsOf(here, clauseAfter(text, said.end)),
    });
    end = said.end;
  }
  // "its last 10 minutes without the lid (45 in total)": what all of it takes, where that is said.
  const whole = stages.length > 0 ? wholeOf(text) : null;
  const sum = stages.reduce((all, { minutes }) => all + minutes.high, 0);
  return whole ? [{ minutes: whole }] : sum > A_DAY ? [] : heated(stages);
}

const inAll = /(?<![\d.])(\d{1,3})(?:\s*-\s*(\d{1,3}))?\s*(?:min(?:ute)?s?)?\s*(?:in total|in all|all told|altogether|all in)\b/i;
function wholeOf(text: string): Minutes | null {
  const [, low, high = low] = inAll.exec(text) ?? [];
  return low === undefined || Number(low) < BAKES.least || Number(high) > BAKES.most
    ? null
    : { low: Number(low), high: Number(high) };
}

/** What stands before a time in its clause, and behind it up to the next thing that is done. */
const clauseBefore = (text: string, start: number): string =>
  text
    .slice(0, start)
    .split(/[.;·!](?!\d)/)
    .at(-1) ?? "";
const clauseAfter = (text: string, end: number): string => text.slice(end).split(/[.;·!](?!\d)|\bthen\b|,(?= *(?:then|cover|turn|reduce|lower|grill|put|take|remove|bake))|\band (?:bake|cook|grill)\b/i)[0] ?? ""; // prettier-ignore

const taken =
  /\b(?:uncover(?:ed)?|without (?:the )?(?:lid|foil)|(?:remove|take off|lift off|off with) (?:the )?(?:lid|foil|cover))\b/i;
const put = /\b(?:cover(?:ed)?|lid on|under foil|foil)\b/i;
const out = /\b(?:out of the tin|(?<!gluten[ -])free|on the rack|without the tin)\b/i;
/** Foil that lines a tin covers nothing, and what is covered later or if need be is not covered for the whole of it. */
const lined = /\blin(?:e|ed|ing)\b[^,;.]*foil|\b(?:tent|cover)\b[^,;.]*\b(?:after|if|when|once)\b[^,;.]*/gi;
const grilled = /\b(?:grill|broil)(?:ed|er|ing)?\b/i;
const onHob = /\b(?:hob|stove ?top|griddle|on the stove)\b/i;

/** Heat, cover and tin of a stage from the words before and behind its minutes: what is done before them holds, what is said of them too. */
function surroundingsOf(before: string, after: string): Omit<ReadStage, "minutes"> {
  const both = `${before} ${after}`;
  const celsius = celsiusIn(before) ?? celsiusIn(after);
  const covered = put.test(both.replace(lined, "")) && !taken.test(both);
  const mode = grilled.test(both) ? "grill" : onHob.test(both) ? "hob" : undefined;
  return {
    ...(celsius === null ? {} : { celsius }),
    ...(mode === undefined ? {} : { mode }),
    ...(covered ? { covered } : {}),
    ...(out.test(both) ? { free: true } : {}),
  };
}

/** The last temperature of an oven in some words, °C; null where there is none. */
function celsiusIn(words: string): number | null {
  const found = [...words.matchAll(/(\d{2,3})\s*(?:°|º|degrees?)?\s*([cf])?\b(?:\s*\/\s*\d{2,3}\s*°?\s*[cf])?|\bto\s+(\d{3})\b/gi)]
    .map(([whole, number, scale, bare]) => ({ value: Number(number ?? bare), scale: scale?.toLowerCase(), whole }))
    .filter(({ value, scale, whole }) => (scale !== undefined || /°|º|degrees|^to/i.test(whole)) && value >= 90)
    .at(-1);
  if (!found) return null;
  const { value, scale } = found;
  const celsius = scale === "f" || (scale === undefined && value > SURELY_F) ? celsiusFromFahrenheit(value) : value;
  return celsius >= 60 && celsius <= 320 ? Math.round(celsius) : null;
}

/** Over this a bare number of an oven is °F. */
const SURELY_F = 275;

/** Where all stages have one heat it is that of the oven, and is said there; a stage without one goes on at the one before it. */
function heated(stages: ReadStage[]): ReadStage[] {
  const said = new Set(stages.flatMap(({ celsius, mode }) => (celsius === undefined || mode === "hob" ? [] : [celsius])));
  if (said.size < 2) return stages.map(({ celsius: _, ...stage }) => stage);
  let last: number | undefined;
  return stages.map((stage) => {
    last = stage.celsius ?? last;
    return stage.celsius === undefined && last !== undefined && stage.mode !== "hob" ? { ...stage, celsius: last } : stage;
  });
}

/** The bake time said in a text: the sum of its stages. Minutes. */
export function readMinutes(source: string): Minutes | null {
  const stages = readStages(source);
  if (stages.length === 0) return null;
  return stages.reduce((all, { minutes }) => ({ low: all.low + minutes.low, high: all.high + minutes.high }), { low: 0, high: 0 });
}
