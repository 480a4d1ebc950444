import { readRecipe } from "../read";
import type { Language } from "../measure/languages/names";
import { builtInShelf } from "../pantry/catalogue";
import type { Judge } from "./page-lines";

/** What a state of a line is worth: a food that is known with its amount, one that is asked about, one that is not known. */
const WORTH = { read: 1, asked: 0.6, unread: 0.1 };
const amounts = /[\d½⅓⅔¼¾⅛⅜⅝⅞]+(?:[.,/]\d+)?/g;

/** Judges readings of a line by what the reader makes of them. */
export function judgeOf(language: Language, shelf = builtInShelf): Judge {
  const known = new Map<string, ReturnType<Judge>>();
  return (text) => {
    const before = known.get(text);
    if (before) return before;
    const lines = readRecipe(text, "metric", undefined, shelf, undefined, { language }).lines.filter(({ role }) => role === "ingredient"); // prettier-ignore
    const told = {
      worth: lines.length === 0 ? 0.3 : Math.max(...lines.map(({ state }) => WORTH[state])),
      // What is weighed, or the amounts that stand in it.
      says: lines.length > 0 ? lines.map(({ ingredientId = "?", grams, unit = "" }) => `${ingredientId} ${grams?.mid.toFixed(1) ?? ""} ${unit}`).join("; ") : (text.match(amounts)?.join(" ") ?? ""), // prettier-ignore
    };
    known.set(text, told);
    return told;
  };
}
