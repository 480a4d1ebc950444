import { isCounted } from "./weigh";
import { type Measure, measuresAt } from "./grammar/amounts";
import { type Token, tokensOf } from "./grammar/tokens";
import { lower } from "./grammar/manners";
import { measuresIn, scaledBy, type WrittenItem } from "./line";
import type { Meant } from "./meaning";

/** So many of something are grams or millilitres, where its unit is left out. */
const ELIDED_FROM = 20;
const figureOf = (value: readonly Measure[]): number => value[0]?.[0]?.quantity.mid ?? 0;
const isOfScale = (measure: Measure | undefined): boolean =>
  measure?.length === 1 && measure[0]?.withUnit === true && /^(?:g|ml)$/.test(measure[0].unit);

/** "200 g of rice flour, fifty of tapioca": a unit that was said before and is left out. */
export function elided(tokens: readonly Token[], { value, next }: { value: Measure[]; next: number }, found: readonly { item: WrittenItem }[]): Measure[] | null {
  const [only] = value[0] ?? [];
  // "220 g of millet, two teaspoons of powder, a hundred and eighty of yoghurt": so much is of a scale, whatever was spooned meanwhile.
  const weighed = figureOf(value) >= ELIDED_FROM ? found.findLast(({ item }) => isOfScale(item.measures[0])) : undefined;
  const before = (weighed ?? found.at(-1))?.item.measures[0];
  const [unit] = before ?? [];
  if (value.length !== 1 || value[0]?.length !== 1 || !only || only.withUnit || only.spoken || only.quantity.mid < 1) return null;
  if (before?.length !== 1 || !unit?.withUnit || unit.unit === "piece" || lower(tokens, next) !== "of") return null;
  if (/^(?:the|these|those|them|your|it|each)$/.test(lower(tokens, next + 1))) return null;
  return [[{ ...unit, quantity: only.quantity }]];
} // prettier-ignore

/** "seventy-five butter", "150 buckwheat flour": so many of what nobody counts are grams, and asked about; `among` such figures small ones are too. Null where they are anything else. */
export function bareGrams(measures: readonly Measure[], { what }: Meant, among: boolean): Measure[] | null {
  const [only] = measures[0] ?? [];
  if (
    measures.length !== 1 ||
    measures[0]?.length !== 1 ||
    !only ||
    only.withUnit ||
    only.spoken ||
    only.quantity.mid < (among ? 1 : ELIDED_FROM)
  )
    return null;
  if (isCounted(what)) return null;
  return [[{ ...only, unit: "g", withUnit: true }]];
}

/** Measures in a bracket that holds nothing else: of all of it, or of each of a count. */
export function inBracket(
  tokens: readonly Token[],
  text: string,
  at: number,
  count: Measure | undefined,
): { measures: Measure[]; next: number } | null {
  if (!/^[([]$/.test(tokens[at]?.text ?? "")) return null;
  const end = tokens.findIndex((token, k) => k > at && /^[)\]]$/.test(token.text));
  const inside = end < 0 ? null : measuresIn(text.slice(tokens[at]?.end, tokens[end]?.start).trim());
  if (!inside?.measures.every((measure) => measure.every((term) => term.withUnit))) return null;
  const times = inside.each && count?.length === 1 ? (count[0]?.quantity.mid ?? 1) : 1;
  return { measures: scaledBy(inside.measures, times), next: end + 1 };
}

/** Behind a food its amount is said anew: put right, or as what it weighs. */
const anew = /\b(?:(no,? wait|wait,? no|no,? sorry|oh no|sorry|actually|I mean|I meant|make (?:that|it)|scratch that|or rather)|that(?:'s| is| was)|which (?:is|comes to|weighs)|(?:it |they )?(?:comes?|came) to|weighing|weighs)\b,?\s*(?:about|around|roughly|some)?\s*/i; // prettier-ignore
/** Whether words end where an amount is about to be said anew. */
export const saysAnew = (text: string): boolean => new RegExp(`${anew.source}$`, "i").test(text);

/** "two hundred grams polenta, no wait, two fifty", "a tin of sweetcorn, drained, that's about 165": the item with what is said last, or with what it weighs. */
export function saidAgain(item: WrittenItem, after: string): WrittenItem {
  const cue = item.measures.length > 0 ? anew.exec(after) : null;
  if (!cue) return item;
  const tokens = tokensOf(after.slice(cue.index + cue[0].length));
  const said = measuresAt(tokens, 0);
  const [only] = said?.value[0] ?? [];
  if (!said || !only || said.value[0]?.length !== 1) return item;
  const unit = isOfScale(item.measures[0]) ? (item.measures[0]?.[0]?.unit ?? "g") : "g";
  // "butter that is 20 °C", "bananas that are three days old": no amount.
  const alone = /^[,.;:!?)]?$/.test(tokens[said.next]?.text ?? "");
  const named = only.withUnit
    ? said.value
    : alone && only.quantity.mid >= ELIDED_FROM
      ? [[{ ...only, unit, withUnit: true }]]
      : null;
  if (!named) return item;
  return cue[1] === undefined ? { ...item, measures: [...named, ...item.measures], net: true } : { ...item, measures: named };
}
