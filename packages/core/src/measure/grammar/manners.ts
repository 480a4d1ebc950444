import type { Filling } from "../filling";
import type { Token } from "./tokens";

export const lower = (tokens: readonly Token[], at: number): string => tokens[at]?.lower ?? "";
export const isSign = (tokens: readonly Token[], at: number, ...signs: string[]): boolean =>
  tokens[at]?.kind === "sign" && signs.includes(tokens[at]?.text ?? "");

const hedges = new Set([
  "about",
  "approx",
  "approximately",
  "around",
  "roughly",
  "ca",
  "circa",
  "nearly",
  "almost",
  "some",
  "only",
  "maybe",
  "perhaps",
  "either",
]);
const manners: Record<string, Filling> = {
  heaped: "heaped", heaping: "heaped", rounded: "rounded", scant: "scant", scanty: "scant", level: "level", levelled: "level", flat: "level", rd: "rounded", rdd: "rounded", hpd: "heaped",
  leveled: "level", packed: "packed", sifted: "sifted", aerated: "sifted", spooned: "spooned", dipped: "dipped", scooped: "dipped",
  generous: "rounded", full: "rounded", good: "rounded", big: "rounded", brimming: "heaped", slack: "scant", bare: "scant", shy: "scant", mean: "scant",
}; // prettier-ignore
/** How firmly: said before a manner, it changes nothing but the word after it. */
const degrees = new Set(["firmly", "lightly", "tightly", "well", "very", "loosely"]);
const sizes: Record<string, string> = {
  large: "large", lg: "large", lge: "large", lrg: "large", medium: "medium", med: "medium", small: "small", sm: "small", jumbo: "jumbo", mini: "mini", big: "large", "medium-sized": "medium", medjool: "large",
}; // prettier-ignore
/** Sizes of eggs by their letters. */
const letters: Record<string, string> = { s: "small", m: "medium", l: "large", xl: "extra-large" };

export interface Manner {
  filling?: Filling;
  size?: string;
  next: number;
}

/** "full fat milk", "flat peaches": the word belongs to the name. */
const isOfName = (tokens: readonly Token[], at: number): boolean => {
  const next = lower(tokens, isSign(tokens, at + 1, "-") ? at + 2 : at + 1);
  return (lower(tokens, at) === "full" && /^(?:fat|cream|grain|strength|bodied)$/.test(next)) || (lower(tokens, at) === "flat" && /^(?:peach(?:es)?|beans?|leaf|parsley)$/.test(next)); // prettier-ignore
};

/** Words of manner and size, in any order. */
export function mannersAt(tokens: readonly Token[], from: number): Manner {
  const found: Manner = { next: from };
  for (;;) {
    const at = found.next;
    const here = lower(tokens, at);
    if (degrees.has(here) && manners[lower(tokens, at + 1)] !== undefined) {
      found.next = at + 1;
    } else if (here === "extra" && lower(tokens, at + (isSign(tokens, at + 1, "-") ? 2 : 1)) === "large") {
      found.size = "extra-large";
      found.next = at + (isSign(tokens, at + 1, "-") ? 3 : 2);
    } else if (here === "size" && letters[lower(tokens, at + 1)] !== undefined && found.size === undefined) {
      found.size = letters[lower(tokens, at + 1)] ?? "medium";
      found.next = at + 2;
    } else if (
      here === "medium" &&
      isSign(tokens, at + 1, "-") &&
      /^(?:large|small)$/.test(lower(tokens, at + 2)) &&
      found.size === undefined
    ) {
      // "medium-large": nearer to the middle one.
      found.size = "medium";
      found.next = at + 3;
    } else if (sizes[here] !== undefined && found.size === undefined) {
      found.size = sizes[here] ?? here;
      if (manners[here] !== undefined) found.filling ??= manners[here];
      found.next = here.length < 4 && isSign(tokens, at + 1, ".") ? at + 2 : at + 1;
      if (isSign(tokens, at + 1, "-") && lower(tokens, at + 2) === "sized") found.next = at + 3;
    } else if (manners[here] !== undefined && found.filling === undefined && !isOfName(tokens, at)) {
      found.filling = manners[here] ?? "level";
      found.next = at + 1;
      // "spooned and levelled"
      if (here === "spooned" && /^(?:and|&)$/.test(lower(tokens, at + 1)) && /^levell?ed$/.test(lower(tokens, at + 2)))
        found.next = at + 3;
    } else return found;
  }
}

/** "about", "just under": skipped, or a manner of its own. */
export function hedgesAt(tokens: readonly Token[], from: number): { next: number; filling?: Filling } {
  let next = from;
  let filling: Filling | undefined;
  for (;;) {
    const here = lower(tokens, next);
    const after = lower(tokens, next + 1);
    if (isSign(tokens, next, "~")) next++;
    else if (/^(?:no|not)$/.test(here) && after === "more" && lower(tokens, next + 2) === "than") next += 3;
    else if (here === "at" && /^(?:most|least)$/.test(after)) next += 2;
    else if (here === "just" && (after === "under" || after === "over" || (after === "shy" && lower(tokens, next + 2) === "of"))) {
      filling = after === "over" ? "rounded" : "scant";
      next += after === "shy" ? 3 : 2;
    } else if (here === "not" && after === "quite") {
      filling = "scant";
      next += 2;
    } else if (here === "a" && after === "little" && /^(?:under|over|less|more)$/.test(lower(tokens, next + 2))) {
      filling = /^(?:under|less)$/.test(lower(tokens, next + 2)) ? "scant" : "rounded";
      next += 3;
      if (lower(tokens, next) === "than") next++;
    } else if (hedges.has(here)) {
      next++;
      if (isSign(tokens, next, ".")) next++;
    } else return filling === undefined ? { next } : { next, filling };
  }
}
