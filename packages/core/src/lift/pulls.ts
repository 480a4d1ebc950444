import { dividable } from "../formula/dividable";
import { gramsOf } from "../formula/components";
import type { Formula } from "../formula/formula";
import { type Book, expandWeighed } from "../formula/nested";
import type { Lift } from "./lift";

/** What each line pulls, mmol: an ingredient on several lines is shared out by mass, a nested formula pulls what its parts pull. */
export function pullsOf(formula: Formula, book: Book, lift: Pick<Lift, "entries">): Map<string, { soda: number; acid: number }> {
  const entries = new Map(lift.entries.map((entry) => [entry.ingredientId, entry]));
  const beside = new Set(dividable(formula).map(({ id }) => id));
  const batter = formula.lines.filter(({ component }) => component === undefined || !beside.has(component));
  const byLine = batter.map((line) => ({
    id: line.id,
    leaves: expandWeighed([line], book).map((leaf) => ({
      id: leaf.ingredientId,
      grams: gramsOf(leaf),
    })),
  }));
  const whole = new Map<string, number>();
  for (const { leaves } of byLine) for (const leaf of leaves) whole.set(leaf.id, (whole.get(leaf.id) ?? 0) + leaf.grams);
  return new Map(
    byLine.map(({ id, leaves }) => {
      const pull = { soda: 0, acid: 0 };
      for (const leaf of leaves) {
        const entry = entries.get(leaf.id);
        const total = whole.get(leaf.id) ?? 0;
        if (!entry || total <= 0) continue;
        pull.soda += (entry.sodaMmol * leaf.grams) / total;
        pull.acid += (entry.acidMmol * leaf.grams) / total;
      }
      return [id, pull];
    }),
  );
}
