import type { Measure } from "./grammar/amounts";
import { mapRange } from "./range";

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

const byUse: ReadonlySet<string> = new Set(["juice", "zest"]);
/** A count of what has a mass of its own by its name ("2 shallots" where onions are known): its size is that name. */
export function sizedByName(measure: Measure, name: string, sizes: readonly string[]): Measure {
  const [only] = measure;
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
