import { readText } from "./measure/reader";
import type { Reading } from "./measure/reading";
import type { Measures } from "./measure/units";
import { builtInShelf, type Shelf } from "./pantry/catalogue";
import { ambiguousNames, findIngredient } from "./pantry/find";

/** Reads a pasted recipe against a shelf: lines, grams with spread, questions. See `readText`. */
export function readRecipe(text: string, measures: Measures = "us", title?: string, shelf: Shelf = builtInShelf): Reading {
  return readText(
    text,
    measures,
    (name) => {
      const match = findIngredient(name, shelf);
      if (!match) return null;
      const options = ambiguousNames[name.toLowerCase().trim()] ?? [];
      const mayMean = options.flatMap((id) => {
        const entry = shelf.get(id);
        return entry ? [{ ingredientId: entry.id, name: entry.name, what: entry }] : [];
      });
      const assumed = mayMean[0];
      const ingredient = (assumed && shelf.get(assumed.ingredientId)) ?? match.ingredient;
      return { ingredientId: ingredient.id, name: ingredient.name, certainty: match.certainty, what: ingredient, mayMean };
    },
    title,
  );
}
