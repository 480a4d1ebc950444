import type { OvenProfile } from "@uprise/contract";
import {
  type BookEntry,
  bookEntryOf,
  builtInShelf,
  type Ingredient,
  type InputLine,
  nestedIds,
  type Oven,
  type Part,
} from "@uprise/core";
import type { KitchenData } from "../compute/tasks";
import type { Store } from "../store/store";

/** Every formula that these lines name, and those that they name in turn, read once each. */
export async function entriesFor(store: Store, lines: readonly InputLine[]): Promise<[id: string, entry: BookEntry][]> {
  const entries = new Map<string, BookEntry>();
  let wanted = nestedIds(lines);
  while (wanted.length > 0) {
    const found = await Promise.all(wanted.map((id) => store.formulas.find(id)));
    const next: string[] = [];
    found.forEach((stored, i) => {
      const id = wanted[i];
      if (!stored || id === undefined) return;
      const entry = bookEntryOf(stored.formula, builtInShelf);
      entries.set(id, entry);
      next.push(...nestedIds(entry.lines));
    });
    wanted = [...new Set(next)].filter((id) => !entries.has(id));
  }
  return [...entries];
}

/** What of the kitchen a request may stand on: its own ingredients, the formulas its lines name, the oven it names. */
export async function kitchenDataFor(
  store: Store,
  {
    lines = [],
    parts = [],
    oven,
  }: { lines?: readonly InputLine[] | undefined; parts?: readonly Pick<Part, "additions">[] | undefined; oven?: Oven | undefined },
): Promise<KitchenData> {
  const [own, formulas, profile] = await Promise.all([
    store.things<Ingredient>("ingredients").list(),
    entriesFor(store, [...lines, ...parts.flatMap(({ additions }) => additions)]),
    oven?.ovenId === undefined ? null : store.things<OvenProfile>("ovens").read(oven.ovenId),
  ]);
  return {
    ingredients: own.map(({ body }) => body),
    formulas,
    ovens: profile ? [[profile.id, { biasK: profile.body.biasK, swingK: profile.body.swingK }]] : [],
  };
}
