import { type Book, type BookEntry, CoreError, expand, type Formula, nestedIds } from "@uprise/core";
import type { Store } from "../store/store";

/** Every formula that these lines name, and those that they name in turn, read once each. */
export async function bookFor(store: Store, lines: readonly { ingredientId: string }[]): Promise<Book> {
  const entries = new Map<string, BookEntry>();
  let wanted = nestedIds(lines);
  while (wanted.length > 0) {
    const found = await Promise.all(wanted.map((id) => store.formulas.find(id)));
    const next: string[] = [];
    found.forEach((stored, i) => {
      const id = wanted[i];
      if (!stored || id === undefined) return;
      entries.set(id, { title: stored.formula.title, lines: stored.formula.lines });
      next.push(...nestedIds(stored.formula.lines));
    });
    wanted = [...new Set(next)].filter((id) => !entries.has(id));
  }
  return (id) => entries.get(id);
}

/** Refuses a formula that would hold itself. One that names a formula which is gone may still be saved: nothing is lost by that. */
export async function refuseCycle(store: Store, id: string, formula: Formula): Promise<void> {
  const lines = [...formula.lines, ...(formula.parts ?? []).flatMap((part) => part.additions)];
  if (nestedIds(lines).length === 0) return;
  const book = await bookFor(store, lines);
  try {
    expand(lines, (other) => (other === id ? { title: formula.title, lines: formula.lines } : book(other)), [
      { id, title: formula.title },
    ]);
  } catch (error) {
    if (error instanceof CoreError && error.code === "formula-cycle") throw error;
  }
}
