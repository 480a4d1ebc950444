import { spanOrA } from "./grammar/numbers";
import { plainText, tokensOf } from "./grammar/tokens";
import type { Range } from "./range-schema";

export { plainText };

interface Found<T> {
  value: T;
  rest: string;
}

/** A quantity at the start of a plain text: a number in figures or words, or a range of two; with what follows it, or null. */
export function quantityAtStart(text: string): Found<Range> | null {
  const tokens = tokensOf(text);
  const found = spanOrA(tokens, 0);
  if (!found) return null;
  const last = tokens[found.next - 1];
  return { value: found.value, rest: text.slice(last?.end ?? 0) };
}
