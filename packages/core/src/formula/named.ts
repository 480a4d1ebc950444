import type { Line, Reading } from "../measure/reading-schema";
import { inEnglish, languageOfLine } from "../measure/languages/language";
import { allergensInWords, foodsInWords, type NamedFood } from "../pantry/allergen-words";
import type { Shelf } from "../pantry/shelf";
import { isFlour } from "../pantry/ingredient";
import type { Ingredient } from "../pantry/ingredient-schema";
import { wordsOf } from "../pantry/names";
import type { NamedBeside } from "./named-schema";

const MOST = 40;
/** What is in every kitchen, and in no dispute. */
const isPlain = ({ id, family }: Ingredient): boolean => id === "water" || family === "salt";
/** A word that names a whole family is spoken for by any member of it. */
const speaksFor: [word: string, is: (ingredient: Ingredient) => boolean][] = [
  ["flour", isFlour],
  ["starch", isFlour],
  ["sugar", ({ family }) => family === "sugar" || family === "syrup"],
  ["syrup", ({ family }) => family === "syrup"],
  ["oil", ({ family }) => family === "fat"],
  ["butter", ({ family }) => family === "fat"],
  ["fat", ({ family }) => family === "fat"],
  ["milk", ({ family }) => family === "plant-milk" || family === "dairy" || family === "cultured"],
  ["cream", ({ family }) => family === "plant-milk" || family === "dairy" || family === "cultured"],
  ["yoghurt", ({ family }) => family === "cultured"],
  ["cheese", ({ family }) => family === "cheese"],
  ["nut", ({ family }) => family === "nut" || family === "nut-flour"],
  ["seed", ({ family }) => family === "seed" || family === "binder"],
  ["fruit", ({ family }) => family === "fruit" || family === "dried-fruit"],
  ["berry", ({ family }) => family === "fruit"],
  ["egg", ({ family }) => family === "egg" || family === "egg-substitute"],
  ["chocolate", ({ family }) => family === "chocolate"],
  ["spice", ({ family }) => family === "spice"],
  ["powder", ({ family }) => family === "leavener"],
  ["soda", ({ family }) => family === "leavener"],
  ["gum", ({ family }) => family === "binder"],
  ["juice", ({ family }) => family === "juice" || family === "fruit"],
  ["vinegar", ({ family }) => family === "vinegar"],
];
// prettier-ignore

/** “Cream the butter”, “batter until creamed”, “sprinkle with almonds”: a verb, where no food is meant. */
const isVerb = ({ words, next }: NamedFood, text: string): boolean =>
  words.join(" ") === "sprinkle"
    ? !/\bsprinkles\b/i.test(text)
    : words.join(" ") === "cream" && /^(?:the|together|until|them|it|in)$/.test(next);
const around = (source: string): string => source.replace(/\s+/g, " ").trim().slice(0, 200);
/** Foods that a reading names in its steps, remarks, preparations and alternatives, and in no line of its list. */
export function namedBeside({ lines, language = "en" }: Reading, shelf: Shelf): NamedBeside[] {
  const listed = lines.filter(({ role }) => role === "ingredient");
  const ids = new Set(listed.flatMap(({ ingredientId }) => ingredientId ?? []));
  const things = [...ids].flatMap((id) => shelf.get(id) ?? []);
  const spoken = new Set(listed.flatMap(({ name }) => wordsOf(name)));
  const isListed = (food: NamedFood): boolean =>
    isPlain(food.ingredient) ||
    ids.has(food.ingredient.id) ||
    food.words.every((word) => spoken.has(word)) ||
    (food.words.length === 1 && speaksFor.some(([word, is]) => word === food.words[0] && things.some(is)));
  const found = new Map<string, NamedBeside>();
  const look = (written: string, line: Line): void => {
    const words = around(line.source);
    const text = inEnglish(written, languageOfLine(written, language));
    for (const food of foodsInWords(text, shelf)) {
      if (isVerb(food, text) || isListed(food)) continue;
      const name = food.words.join(" ").slice(0, 80);
      const before = found.get(food.ingredient.id);
      // Named once as what goes in, it is no mere choice.
      if (before && !(before.instead && !food.instead)) continue;
      found.set(food.ingredient.id, { name, ingredientId: food.ingredient.id, ...(food.instead ? { instead: true as const } : {}), words }); // prettier-ignore
    }
    for (const { allergen, id } of allergensInWords(text, line.role === "step").allergens) {
      const known = [...found.values()].some(({ ingredientId = "" }) => shelf.get(ingredientId)?.allergens.includes(allergen));
      const inList =
        things.some(({ allergens }) => allergens.includes(allergen)) || id.split("-").every((word) => spoken.has(word));
      if (!known && !inList && !found.has(id)) found.set(id, { name: id.replaceAll("-", " ").slice(0, 80), words });
    }
  };
  for (const line of lines) {
    if (line.role === "step" || line.role === "note") look(line.source, line);
    else if (line.role === "ingredient") {
      if (line.preparation) look(line.preparation, line);
      for (const other of line.alternatives ?? []) look(`or ${other}`, line);
    }
  }
  return [...found.values()].slice(0, MOST);
}
