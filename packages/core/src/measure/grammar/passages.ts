/**
 * A line is read in passages of a bounded length, so that the time for a text grows with its length and not with the square of its longest
 * line. What a kitchen writes is one passage; a longer line is parted where a sentence ends, else at a comma, else at a blank.
 */
const MOST_SIGNS = 260;
/** A cut is looked for in the last part of a passage. */
const CUT_AFTER = 130;
const cuts = [/[.;!?]\s/g, /,\s/g, /\s/g];

/** Every blank of a line as one: tabs, runs of blanks and those that only look otherwise. */
export const evenBlanks = (line: string): string => line.replace(/[\s\u200b]+/g, " ");

/** The passages of a line, in their order; nothing of it but blanks is left out. */
export function passagesOf(line: string): string[] {
  const passages: string[] = [];
  let rest = evenBlanks(line).trim();
  while (rest.length > MOST_SIGNS) {
    const window = rest.slice(CUT_AFTER, MOST_SIGNS);
    const found = cuts.map((cut) => [...window.matchAll(cut)].at(-1)).find((match) => match !== undefined);
    const end = found ? CUT_AFTER + found.index + found[0].length : MOST_SIGNS;
    passages.push(rest.slice(0, end).trim());
    rest = rest.slice(end).trim();
  }
  return [...passages, rest];
}
