import { defaultsOf } from "./balance/defaults";
import { guessKind } from "./formula/kinds";
import type { Meant } from "./measure/meaning";
import { inEnglish, languageOfLine } from "./measure/languages/language";
import { liningIn } from "./measure/pan-text";
import { readText, type SaidOfText } from "./measure/reader";
import type { Reading } from "./measure/reading-schema";
import { namesABake } from "./measure/roles";
import type { Measures } from "./measure/units";
import { allergensInWords, beyond } from "./pantry/allergen-words";
import { builtInShelf } from "./pantry/catalogue";
import type { Shelf } from "./pantry/shelf";
import { candidatesOf, findIngredient, isNameWord, knownIngredient, mayMean, titledIngredient } from "./pantry/find";
import type { Ingredient } from "./pantry/ingredient-schema";
import { isNeutral } from "./pantry/names";
import { drained, preparedAs } from "./pantry/prepared";

const meant = (ingredient: Ingredient): Meant => ({ ingredientId: ingredient.id, name: ingredient.name, what: ingredient });

const once = <T>(look: (name: string) => T): ((name: string) => T) => {
  const known = new Map<string, T>();
  return (name) => {
    const before = known.get(name);
    if (before !== undefined || known.has(name)) return before as T;
    const found = look(name);
    known.set(name, found);
    return found;
  };
};

/** What a baker said that a name means, by the name as written in lower case. */
export type OwnNames = ReadonlyMap<string, string>;

/** "Bananenmuffins", "Frühstücksbrot": what is baked stands at the end of one word. */
const apart = (title: string): string =>
  title.replace(
    /(?<!\p{L})(\p{L}{3,24})(muffins?|brötchen|brote?|kuchen|kekse?|schnitten|riegel|fladen|waffeln|plätzchen)(?!\p{L})/giu,
    "$1 $2",
  );

/** "Beetroot brownies. Melt 200 g chocolate …": what a text that is one paragraph calls its bake. */
function titleOf(text: string): string | undefined {
  const [, first] = /^\s*(\p{L}[^.:!?\n\d]{4,60}?)(?:\s*\([^)\n]*\))?[.:!]\s+\S/u.exec(text) ?? [];
  return first !== undefined && namesABake(first) && first.trim().split(/\s+/).length <= 8 ? first.trim() : undefined;
}

/** Blends are sold under one name with and without a gum or a leavener. */
const blends: Record<string, string[]> = { "gf-blend-plain": ["gf-blend-plain", "gf-blend-gum", "gf-blend-self-raising"] };

/** Reads a pasted recipe against a shelf: lines, grams with spread, questions. See `readText`. `own` are names the baker explained before, `told` what they said of the whole. */
export function readRecipe(
  text: string,
  measures: Measures = "us",
  title?: string,
  shelf: Shelf = builtInShelf,
  own: OwnNames = new Map(),
  told: SaidOfText = {},
): Reading {
  const explained = (name: string): Ingredient | undefined => shelf.get(own.get(name.trim().toLowerCase()) ?? "");
  const explainedIds = new Set(own.values());
  const reading = readText(
    text,
    measures,
    {
      // A line is asked for its names several times; one text has each name looked up once.
      find: once((name) => {
        const known = explained(name);
        if (known) return { ...meant(known), certainty: 1, respelled: false };
        const match = findIngredient(name, shelf);
        // A thing that holds less than its name says is not what is meant: it is asked about.
        if (match && beyond(allergensInWords(name), match.ingredient).length > 0) return null;
        return match && { ...meant(match.ingredient), certainty: match.certainty, respelled: match.respelled === true };
      }),
      titled: (name) => {
        const same = titledIngredient(name, shelf);
        return same ? meant(same) : null;
      },
      mayMean: once((name) => (explained(name) ? [] : mayMean(name, shelf).map(meant))),
      known: once((name) => {
        const ingredient = explained(name) ?? knownIngredient(name, shelf);
        return ingredient && beyond(allergensInWords(name), ingredient).length === 0 ? meant(ingredient) : null;
      }),
      isNameWord: (word) => own.size > 0 || isNameWord(word, shelf),
      passesOver: isNeutral,
      candidates: (name) => candidatesOf(name, shelf).map(meant),
      prepared: (ingredientId, said) => {
        const made = preparedAs(ingredientId, said);
        const ingredient = made && shelf.get(made.ingredientId);
        return made && ingredient
          ? { ...meant(ingredient), keeps: made.keeps, ...(made.weighedAs ? { weighedAs: made.weighedAs } : {}) }
          : null;
      },
      mayHold: (ingredientId) =>
        explainedIds.has(ingredientId) ? [] : (blends[ingredientId] ?? []).flatMap((id) => shelf.get(id) ?? []).map(meant),
      drained,
    },
    title,
    told,
  );
  // A line that holds several things stands there once.
  const words = [...new Set(reading.lines.map(({ source }) => source))].join(" ");
  const called = reading.title ?? titleOf(text);
  const kind = guessKind({
    title: called && inEnglish(apart(called), reading.language ?? "en"),
    text: words,
    pan: reading.pan,
  });
  // A tin of which only the lining is said is the usual one of its kind.
  const lining = liningIn(
    reading.lines
      .flatMap(({ role, source }) =>
        role === "ingredient" || role === "title" ? [] : [inEnglish(source, languageOfLine(source, reading.language ?? "en"))],
      )
      .join(". "),
  );
  const pan = reading.pan ?? (lining ? { shape: defaultsOf(kind).vessel.shape } : undefined);
  return {
    ...reading,
    ...(called === undefined ? {} : { title: called }),
    ...(pan ? { pan: { ...pan, ...(pan.lining === undefined && lining ? { lining } : {}) } } : {}),
    kind,
    kindIsGuess: true,
  };
}
