import { readings, type Analysis, type AnalyseInput } from "./analyse";
import type { Formula, Part } from "./formula/formula";
import { type Book, expand } from "./formula/nested";
import type { WeighedLine } from "./formula/resolve";
import { scaleLines } from "./formula/scale";
import { builtInShelf, type Shelf } from "./pantry/catalogue";

export const noBook: Book = () => undefined;

/** A formula as `analyse` takes it, its nested formulas opened; with its own id it may not hold itself. Throws `formula-cycle`. */
export const opened = (formula: Formula, book: Book, id?: string): AnalyseInput & { lines: readonly WeighedLine[] } => ({
  lines: expand(formula.lines, book, id === undefined ? [] : [{ id, title: formula.title }]),
  kind: formula.kind,
  vessel: formula.vessel,
  oven: formula.oven,
  process: formula.process,
  measures: formula.measures,
});

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

/** Each part of a base batter judged by itself: its share of every line, with its own additions, kind, pan and oven. */
export function splitOf(formula: Formula, book: Book = noBook, shelf: Shelf = builtInShelf): Split {
  const base = expand(formula.lines, book);
  const parts = (formula.parts ?? []).map((part): JudgedPart => {
    const lines: WeighedLine[] = [...(part.share > 0 ? scaleLines(base, part.share) : []), ...expand(part.additions, book)];
    const weighs = lines.some((line) => (typeof line.grams === "number" ? line.grams : line.grams.mid) > 0);
    return {
      part,
      analysis: weighs
        ? readings(
            { lines, kind: part.kind, vessel: part.vessel, oven: part.oven, process: formula.process, measures: formula.measures },
            shelf,
          )
        : null,
    };
  });
  return { parts, left: 1 - parts.reduce((all, { part }) => all + part.share, 0) };
}

/** What each line pulls, mmol: an ingredient on several lines is shared out by mass, a nested formula pulls what its parts pull. */
export function pullsOf(formula: Formula, book: Book, { lift }: Analysis): Map<string, { soda: number; acid: number }> {
  const entries = new Map(lift.entries.map((entry) => [entry.ingredientId, entry]));
  const byLine = formula.lines.map((line) => ({
    id: line.id,
    leaves: expand([line], book).map((leaf) => ({
      id: leaf.ingredientId,
      grams: typeof leaf.grams === "number" ? leaf.grams : leaf.grams.mid,
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
