import type { FoundRecipe, ImportAnswer, ImportRequest } from "@uprise/contract";
import {
  CoreError,
  type Formula,
  formulaFrom,
  type Found,
  fromTable,
  fromText,
  guessColumns,
  looksLikeTable,
  mended,
  readRecipe,
  readTable,
  type Shelf,
} from "@uprise/core";
import { plainText, recipesOnPage } from "./page";

const SAMPLE = 5;

/** What was brought, as readings; nothing of it is written. */
export function imported({ text, html, name, columns, measures = "metric" }: ImportRequest, shelf: Shelf): ImportAnswer {
  const title = (name ?? "")
    .replace(/\.[a-z0-9]{1,5}$/i, "")
    .replace(/[-_]+/g, " ")
    .trim();
  const recipes = (found: readonly Found[]): FoundRecipe[] => found.map((one) => readFound(one, measures, shelf));
  if (html !== undefined) {
    const { found, notes } = recipesOnPage(html, shelf);
    return { recipes: recipes(found), notes, taken: [] };
  }
  const given = text ?? "";
  if (columns !== undefined || /\.(?:csv|tsv)$/i.test(name ?? "") || looksLikeTable(given)) {
    const table = readTable(given);
    const used = columns ?? guessColumns(table.head);
    const shown = { head: table.head, sample: table.rows.slice(0, SAMPLE), columns: used };
    try {
      return {
        recipes: recipes(fromTable(table, used, shelf, title === "" ? undefined : title)),
        table: shown,
        notes: [],
        taken: [],
      };
    } catch (error) {
      // Which column is which is asked on the screen.
      if (error instanceof CoreError) return { recipes: [], table: { ...shown, fault: error.message }, notes: [], taken: [] };
      throw error;
    }
  }
  if (/<(?:html|body|script|div|article)\b/i.test(given.slice(0, 5000))) {
    const { found, notes } = recipesOnPage(given, shelf);
    return { recipes: recipes(found), notes, taken: [] };
  }
  const read = fromText(given, shelf, plainText);
  return { recipes: "found" in read ? recipes(read.found) : [], notes: [], taken: [] };
}

function readFound({ title, form, text, mending, kind, notes }: Found, measures: NonNullable<ImportRequest["measures"]>, shelf: Shelf): FoundRecipe {
  const reading = mended(readRecipe(text, measures, undefined, shelf), mending, measures, shelf);
  const titled = { ...reading, title: reading.title ?? title };
  const pasted = text.length <= 100_000 ? { text, measures, mending } : undefined;
  const formula: Formula = formulaFrom(titled, measures, kind, shelf, pasted);
  return { title: formula.title, form, text, mending, ...(kind ? { kind } : {}), reading: titled, formula, notes };
} // prettier-ignore
