import type { Formula } from "./formula";

export interface Difference {
  what: string;
  before: string;
  after: string;
}

const partsText = (formula: Formula): string =>
  (formula.parts ?? []).map((part) => `${part.name} ${Math.round(100 * part.share)} %`).join(", ") || "–";

const grams = (value: number): string => `${value < 20 ? Math.round(value * 10) / 10 : Math.round(value)} g`;

/** A flat object as text, its fields in alphabetical order. */
const inOrder = (fields: object): string => JSON.stringify(Object.entries(fields).sort(([a], [b]) => a.localeCompare(b)));

/** What changed from one version of a formula to another, in the order of the sheet. `nameOf` gives an ingredient's name. */
export function differencesOf(before: Formula, after: Formula, nameOf: (ingredientId: string) => string): Difference[] {
  const out: Difference[] = [];
  const say = (what: string, a: string, b: string): void => {
    if (a !== b) out.push({ what, before: a, after: b });
  };
  say("Name", before.title, after.title);
  say("Kind of bake", before.kind, after.kind);
  const amounts = (formula: Formula): Map<string, number> => {
    const all = new Map<string, number>();
    for (const line of formula.lines) all.set(line.ingredientId, (all.get(line.ingredientId) ?? 0) + line.grams.mid);
    return all;
  };
  const old = amounts(before);
  const now = amounts(after);
  for (const id of new Set([...now.keys(), ...old.keys()])) {
    const a = old.get(id);
    const b = now.get(id);
    say(nameOf(id), a === undefined ? "–" : grams(a), b === undefined ? "–" : grams(b));
  }
  say("Pan", inOrder(before.vessel), inOrder(after.vessel));
  say("Oven", `${before.oven.celsius} °C ${before.oven.mode ?? "still"}`, `${after.oven.celsius} °C ${after.oven.mode ?? "still"}`);
  say("Rest", `${before.process.restMinutes ?? 0} min`, `${after.process.restMinutes ?? 0} min`);
  say("Method", before.process.method ?? "muffin", after.process.method ?? "muffin");
  say("Parts", partsText(before), partsText(after));
  say("Notes", before.notes, after.notes);
  return out;
}
