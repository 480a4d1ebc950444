import type { ReadProcess } from "./reading-schema";
import { timesIn } from "./time-text";

/**
 * What a method says of the time in the tin after the oven: so many minutes, or until it is cold. A batter that waits in its tin before the oven is
 * no cooling, nor is what comes after it is turned out.
 */
const tin = /\b(?:in|inside) (?:the |its |their |your )?(?:\w+ )?(?:tins?|pans?|mou?lds?|trays?|skillet|dish|cups|cases)\b/i;
const turnedOut =
  /\b(?:turn(?:ed|ing)? (?:it |them |the \w+ )?out|un-?mou?ld(?:ed|ing)?|(?:tak|lift|remov)\w* (?:it |them |the \w+ )?(?:out (?:of|from)|from) (?:the|its|their) (?:tins?|pans?|mou?lds?)|(?:on)?to (?:a|the) (?:\w+ )?rack|de-?pan\w*)/i;
const waits = /\b(?:cool(?:s|ed|ing)?|leave|left|let|rest(?:s|ed|ing)?|stand(?:s|ing)?|sit(?:s|ting)?|wait|stay(?:s)?)\b/i;
const batter =
  /\b(?:batter|dough|mixture|mix|before (?:baking|the oven|it goes in|they go in)|before you bake|chill\w*|ris(?:e[sn]?|ing)|pro(?:ve|of)\w*|swell|thicken|hydrate|fridge)\b/i;
const toTheEnd =
  /\b(?:complete(?:ly)?|fully|entirely|quite cold|cold|right through|all the way|before (?:slicing|cutting|you cut))\b/i;
const briefly = /\b(?:few|couple|moment|briefly|slightly|little|a bit|enough to handle)\b/i;
const oven = /\bin the (?:turned[- ]off |hot |warm |cooling )?oven\b|\boven off\b/i;

/** Clauses by what parts one act from the next; "and" only before a verb of what follows. */
const clausesOf = (sentence: string): string[] =>
  sentence.split(/[,;:]\s+|\.\s+|\bthen\b|\band (?=(?:turn|lift|remov|tak|un-?mou?ld|transfer|move|place|put|cool|finish)\w*\b)/i);

export function coolingIn(sentences: readonly string[]): ReadProcess["tin"] {
  let cold: ReadProcess["tin"];
  for (const sentence of sentences) {
    if (batter.test(sentence) || oven.test(sentence)) continue;
    const clauses = clausesOf(sentence);
    for (const [k, clause] of clauses.entries()) {
      const here = tin.exec(clause);
      // "Leave it 10 minutes, then turn it out", "10 minutes before turning out", "after 5 minutes turn out".
      const next = clauses[k + 1] ?? "";
      const out = turnedOut.test(clause) ? !/\bon (?:a|the) \w*\s?rack\b/i.test(clause) : waits.test(clause) && turnedOut.test(next) && !/\brack\b/i.test(clause); // prettier-ignore
      const cools = waits.test(clause);
      if (!(here && cools) && !out) continue;
      if (/\b(?:bak(?:e|ed|ing)|roast|toast|minutes? in the oven)\b/i.test(clause)) continue;
      const time = timesIn(clause).find(({ high }) => high >= 1);
      if (time && (cools || /\b(?:after|before|for)\b/i.test(clause))) return { minutes: { low: time.low, high: time.high } };
      if (here && cools && !time && toTheEnd.test(clause) && !briefly.test(clause)) cold ??= { minutes: null };
      else if (here && /\bcool(?:s|ed|ing)?\b/i.test(clause) && !briefly.test(clause) && !time) cold ??= { minutes: null };
    }
  }
  return cold;
}
