import type { Measure } from "./grammar/amounts";
import { mapRange } from "./range";
import type { Range } from "./range-schema";

/**
 * What is counted is not always the whole: halves and quarters are that share of one; a slice, a wedge or a head has no mass that a kitchen agrees on,
 * and is asked.
 */
const shares: Record<string, number> = { half: 1 / 2, halve: 1 / 2, quarter: 1 / 4, eighth: 1 / 8 };
const loose =
  "slice|wedge|segment|chunk|hunk|strip|ring|round|end|core|top|sliver|corner|lump|disc|disk|cube|shaving|spear|stalk|curl|knob|head|bulb|bunch";
const word = `${loose}|half|halve|quarter|eighth`;
const before = new RegExp(`^(${word})s? of\\b`, "i");
const behind = new RegExp(`\\S(?<!\\b(?:in|into))\\s(${word})s?$`, "i");

/** Millilitres of things that an amount is likened to; kitchen habit, confidence C. */
const likened: Record<string, number> = { egg: 50, walnut: 18, hazelnut: 4, "golf ball": 40, plum: 45, cherry: 6, marble: 4 };
const things = Object.keys(likened).join("|");
const likeness = new RegExp(`\\bsize of an? (?:\\w+ )?(${things})\\b|\\b(${things})[- ]sized?\\b`, "i");
/** "a walnut-sized knob": what an amount is likened to is no food. */
const asASize = new RegExp(`\\b(?:${things})[- ]sized?\\s+(?=(?:knob|lump|piece|nugget|dollop)s?\\b)`, "gi");
export const withoutLikeness = (text: string): string => text.replace(asASize, "");

/** "The size of an egg", mL; null where nothing is likened to anything. */
export function likenedMl(source: string): Range | null {
  const [, ofIt, sized = ""] = likeness.exec(source) ?? [];
  const ml = likened[(ofIt ?? sized).toLowerCase()];
  return ml === undefined ? null : { low: 0.75 * ml, mid: ml, high: 1.3 * ml };
}

/** By the tray: so many eggs stand on a sheet without a unit, or with a letter for their size. */
export const MOST_EGGS = 30;
const byUse: ReadonlySet<string> = new Set(["juice", "zest"]);
/** A count of what has a mass of its own by its name ("2 shallots" where onions are known): its size is that name. */
export function sizedByName(measure: Measure, name: string, sizes: readonly string[]): Measure {
  const [only] = measure;
  // "EGGS: 3 L": nobody buys them by the litre.
  if (measure.length === 1 && only?.unit === "l" && /^eggs$/i.test(name) && Number.isInteger(only.quantity.mid) && only.quantity.mid <= MOST_EGGS) return [{ ...only, unit: "piece", withUnit: false, size: "large" }]; // prettier-ignore
  if (measure.length !== 1 || only?.unit !== "piece" || !(only.size === undefined || byUse.has(only.size))) return measure;
  const size = sizes.find((one) => !byUse.has(one) && new RegExp(`\\b${one}(?:e?s)?\\b`, "i").test(name));
  return size === undefined ? measure : [{ ...only, size }];
}

/**
 * A count of parts as a count of wholes; null where how much of one a part is cannot be told; as it is where wholes, or what has a mass of its own
 * (`sizes`: the sizes that the food's pieces are known in), are counted.
 */
export function inWholes(measure: Measure, name: string, sizes: readonly string[]): Measure | null {
  const [only] = measure;
  if (measure.length !== 1 || only?.unit !== "piece") return measure;
  const part = (before.exec(name.trim()) ?? behind.exec(name.trim()))?.[1]?.toLowerCase();
  if (part === undefined || sizes.includes(part) || (part === "halve" && sizes.includes("half"))) return measure;
  const share = shares[part];
  return share === undefined ? null : [{ ...only, quantity: mapRange(only.quantity, (q) => q * share) }];
}
