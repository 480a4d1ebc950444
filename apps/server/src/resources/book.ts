import { bookEntryOf, builtInShelf, CoreError, expand, type Formula, nestedIds } from "@uprise/core";
import type { Store } from "../store/store";
import { entriesFor } from "./kitchen-data";

/** Refuses a formula that would hold itself. One that names a formula which is gone may still be saved: nothing is lost by that. */
export async function refuseCycle(store: Store, id: string, formula: Formula): Promise<void> {
  const lines = [...formula.lines, ...(formula.parts ?? []).flatMap((part) => part.additions)];
  if (nestedIds(lines).length === 0) return;
  const entries = new Map(await entriesFor(store, lines));
  try {
    expand(lines, (other) => (other === id ? bookEntryOf(formula, builtInShelf) : entries.get(other)), [
      { id, title: formula.title },
    ]);
  } catch (error) {
    if (!(error instanceof CoreError) || error.code === "formula-cycle") throw error;
  }
}
