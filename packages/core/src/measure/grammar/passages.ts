import { value } from "./numbers";
import { tokensOf } from "./tokens";

/**
 * A line is read in passages of a bounded length, so that the time for a text grows with its length and not with the square of its longest
 * line. What a kitchen writes is one passage; a longer line is parted where a sentence ends, else at a comma, else at a blank.
 */
const MOST_SIGNS = 260;
/** What is said of a bake runs over whole sentences. */
export const WHOLE_SENTENCES = 1000;
/** Where nobody pauses, before the next amount rather than within one: "a hundred and sixty grams". */
const beforeAnAmount =
  /(?<!\b(?:and|a|an|of|or|to|plus|about|for|at|hundred|\w+ty|\d+))\s(?=(?:\d|(?:an?|half|one|two|three|four|five|six|seven|eight|nine|ten|twelve|fifteen|\w+ty)\s))/gi;
const cuts = [/[.;!?]\s/g, /,\s/g, beforeAnAmount, /\s/g];

/** Every blank of a line as one: tabs, runs of blanks and those that only look otherwise. */
export const evenBlanks = (line: string): string => line.replace(/[\s\u200b]+/g, " ");

/** The passages of a line, in their order; nothing of it but blanks is left out. */
export function passagesOf(line: string, most = MOST_SIGNS): string[] {
  // A cut is looked for in the second half of a passage.
  const half = most / 2;
  const passages: string[] = [];
  let rest = evenBlanks(line).trim();
  while (rest.length > most) {
    const window = rest.slice(half, most);
    const found = cuts.map((cut) => [...window.matchAll(cut)].at(-1)).find((match) => match !== undefined);
    const end = found ? half + found.index + found[0].length : most;
    passages.push(rest.slice(0, end).trim());
    rest = rest.slice(end).trim();
  }
  return [...passages, rest];
}

/** A heat and its minutes side by side, in the ways in which they are jotted down: "185 / 42 min", a line of "180 / 25", ", 180, 45 min", a line of "170, 48-52 min" alone. */
const heatAndTime: readonly RegExp[] = [
  /^\s*([1-4]\d\d\s*°?\s*[cf]?)\s*,\s*(\d{1,3}(?:\s*-\s*\d{1,3})?\s*(?:min(?:ute)?s?|m))\.?\s*$/gi,
  /^\s*([12]\d[05])\s*\/\s*(\d{1,2}(?:\s*-\s*\d{1,2})?)\s*$/g,
  /(?<=,\s*)([1-4]\d\d)\s*,\s*(\d{1,3}(?:\s*-\s*\d{1,3})?\s*min(?:ute)?s?)\b/gi,
  /(?<![\d.])([1-4]\d\d\s*°?\s*[cf]?)\s*\/\s*(?:t\s*=?\s*)?(\d{1,3}(?:\s*-\s*\d{1,3})?\s*min(?:ute)?s?)\b/gi,
];
/** "in the skillet, two twenty, twenty to twenty five minutes": hundreds without the word. */
const spokenHeat = /(?<=,\s*)(one|two|three|four) ((?:ten|twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety)(?:[- ]five)?)\s*,\s*(?=(?:for |about )?(?:\d|\p{L}+)[^,.;]{0,32}\bmin(?:ute)?s?\b)/giu; // prettier-ignore

/** "two twenty for about fifteen", "190 for 25.": a heat and its minutes, neither with its unit, at the end of what is said. */
const bareHeatFor = /(?<=^\s?|[.,;]\s?|\b(?:at|in|oven|bake|then|air[ -]?fry)\s|@\s?)((?:one|two|three|four) (?:ten|twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety)(?:[- ]five)?|[12]\d[05])\s+for\s+(?:about\s+|another\s+|a further\s+)?((?:ten|twelve|fifteen|eighteen|twenty|thirty|forty|fifty|sixty)(?:[- ]five)?|\d{1,2}(?:\s*-\s*\d{1,2})?)(?=\s*(?:$|[.,;!]|until\b|till\b|then\b))/giu; // prettier-ignore

/** "at a hundred and eighty for fifty minutes": a heat in words, with its minutes behind it. */
const wordedHeat = /\b(?:a|one|two|three|four) hundred(?: and)?(?: (?:ten|twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety)(?:[- ]five)?)?(?=(?: degrees)?(?: c| celsius| fan)?,? for\b)/gi; // prettier-ignore

/** The same as a sentence says it. */
export const withHeatsSaid = (text: string): string =>
  heatAndTime
    .reduce(
      (all, pattern) =>
        all.replace(pattern, (_, heat: string, time: string) => `bake at ${heat} for ${time}${/\d\s*$/.test(time) ? " min" : ""}`),
      text,
    )
    .replace(wordedHeat, (words) => String(value(tokensOf(words), 0)?.value ?? words))
    .replace(spokenHeat, "bake at $1 $2 for ")
    .replace(bareHeatFor, "bake at $1 for $2 min");
