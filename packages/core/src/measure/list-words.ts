import type { Range } from "./range-schema";

/** Words in a row: “a, b and c”. */
export const listWords = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? "") : `${words.slice(0, -1).join(", ")} and ${words.at(-1)}`;

/** A text with its first letter large. */
export const capital = (text: string): string => text.replace(/^\p{Ll}/u, (c) => c.toUpperCase());

/** Under so many minutes halves are told too. */
const HALVES_UNDER = 10;

/** A range of minutes without its unit: "55–65", under ten in halves, "3.5–4.5"; one number where both are told alike. */
export function minuteSpan({ low, high }: Pick<Range, "low" | "high">, joint = "–"): string {
  const told = (minutes: number): number => (high < HALVES_UNDER ? Math.round(2 * minutes) / 2 : Math.round(minutes));
  return told(low) === told(high) ? `${told(low)}` : `${told(low)}${joint}${told(high)}`;
}
