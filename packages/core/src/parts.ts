import { type Analysis, defaultsOf, readings } from "./balance/readings";
import type { Formula, Part } from "./formula/formula";
import { type Book, expand } from "./formula/nested";
import { bareKitchen, gramsOf, type Kitchen, openInput } from "./formula/open";
import type { WeighedLine } from "./formula/resolve";
import { scaleLines } from "./formula/scale";

export interface JudgedPart {
  part: Part;
  /** Null where the part weighs nothing. */
  analysis: Analysis | null;
}

export interface Split {
  parts: JudgedPart[];
  /** Share of the base batter that no part takes; below 0 when more is taken than there is. */
  left: number;
}

/** Each part of a base batter judged by itself: its share of every line, with its own additions, kind, pan and oven. Throws as `openFormula`. */
export function splitOf(formula: Formula, kitchen: Kitchen = bareKitchen): Split {
  const parts = (formula.parts ?? []).map((part): JudgedPart => {
    const lines: WeighedLine[] = [...(part.share > 0 ? scaleLines(formula.lines, part.share) : []), ...part.additions];
    const { kind, vessel, oven } = part;
    const input = openInput({ lines, kind, vessel, oven, process: formula.process, measures: formula.measures }, kitchen);
    const weighs = input.lines.some((line) => gramsOf(line) > 0);
    return { part, analysis: weighs ? readings(input, kitchen.shelf) : null };
  });
  return { parts, left: leftOf(formula) };
}

const leftOf = (formula: Formula): number => 1 - (formula.parts ?? []).reduce((all, { share }) => all + share, 0);

/** A part to begin with: half of the batter or what is left of it, as muffins. `id` must be new. */
export function newPart(formula: Formula, id: string): Part {
  const { vessel, oven } = defaultsOf("muffin");
  const first = (formula.parts ?? []).length === 0;
  const share = first ? 0.5 : Math.min(1, Math.max(0, Math.round(100 * leftOf(formula)) / 100));
  return { id, name: first ? "First part" : "Another part", share, additions: [], kind: "muffin", vessel, oven };
}

/** What changing the kind of a part brings with it: its usual pan and oven. */
export const partOfKind = (part: Part, kind: Part["kind"]): Partial<Part> => {
  if (kind === part.kind) return {};
  const { vessel, oven } = defaultsOf(kind);
  return { kind, vessel, oven };
};

/** What each line pulls, mmol: an ingredient on several lines is shared out by mass, a nested formula pulls what its parts pull. */
export function pullsOf(formula: Formula, book: Book, { lift }: Analysis): Map<string, { soda: number; acid: number }> {
  const entries = new Map(lift.entries.map((entry) => [entry.ingredientId, entry]));
  const byLine = formula.lines.map((line) => ({
    id: line.id,
    leaves: expand([line], book).map((leaf) => ({
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
