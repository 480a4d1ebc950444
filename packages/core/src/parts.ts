import { analyse } from "./balance/analyse";
import { type Analysis, defaultsOf } from "./balance/readings";
import { type FormulaComponent, type InputLine, placeOf, sortLines } from "./formula/components";
import type { Formula, FormulaLine, Part } from "./formula/formula";
import { type Book, expandWeighed } from "./formula/nested";
import { bareKitchen, gramsOf, type Kitchen, type Opened, openInput } from "./formula/open";
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
  /** Components that no part takes. */
  unused: FormulaComponent[];
}

const takes = (part: Part, { id }: FormulaComponent): boolean => part.share > 0 && (part.components?.includes(id) ?? true);

/** The components that can go to one part or another: what is beside the batter. */
export const dividable = ({ components = [] }: Formula): FormulaComponent[] =>
  components.filter((component) => placeOf(component) !== "batter");

/** How much of a component a part gets: in proportion to its share among the parts that take it; all of it where it alone does. */
export function componentShare(formula: Formula, part: Part, component: FormulaComponent): number {
  if (!takes(part, component)) return 0;
  const all = (formula.parts ?? []).reduce((sum, other) => sum + (takes(other, component) ? other.share : 0), 0);
  // What is left of the batter keeps its own of what goes with all of it.
  const whole = part.components === undefined ? Math.max(1, all) : all;
  return whole > 0 ? part.share / whole : 0;
}

/** What a part is made of: its share of the batter, its components, its additions. */
function linesOfPart(formula: Formula, part: Part): { lines: InputLine[]; components: FormulaComponent[] } {
  const beside = dividable(formula);
  const ids = new Set(beside.map(({ id }) => id));
  const batter = formula.lines.filter(({ component }) => component === undefined || !ids.has(component));
  const shares = beside
    .map((component) => ({ component, share: componentShare(formula, part, component) }))
    .filter((c) => c.share > 0);
  const components = [
    ...(formula.components ?? []).filter(({ id }) => !ids.has(id)),
    ...shares.map(({ component, share }) =>
      component.cookedG === undefined ? component : { ...component, cookedG: component.cookedG * share },
    ),
  ];
  const from = (lines: readonly FormulaLine[], share: number): FormulaLine[] => (share > 0 ? scaleLines(lines, share) : []);
  return {
    lines: [
      ...from(batter, part.share),
      ...shares.flatMap(({ component: { id }, share }) =>
        from(
          formula.lines.filter(({ component }) => component === id),
          share,
        ),
      ),
      ...part.additions,
    ],
    components,
  };
}

/** One part of a base batter as an input of its own: its share of every line, with its additions, kind, pan and oven. Throws as `openFormula`. */
export function openPart(formula: Formula, part: Part, kitchen: Kitchen = bareKitchen): Opened {
  const { lines, components } = linesOfPart(formula, part);
  const { kind, vessel, oven } = part;
  return openInput<Opened>(
    { lines, components, kind, vessel, oven, process: formula.process, measures: formula.measures },
    kitchen,
  );
}

/** Each part of a base batter judged by itself: its share of every line, with its own additions, kind, pan and oven. Throws as `openFormula`. */
export function splitOf(formula: Formula, kitchen: Kitchen = bareKitchen): Split {
  const parts = (formula.parts ?? []).map((part): JudgedPart => {
    const input = openPart(formula, part, kitchen);
    const weighs = sortLines(input.lines, input.components ?? [], kitchen.shelf).batter.some((line) => gramsOf(line) > 0);
    return { part, analysis: weighs ? analyse(input, kitchen.shelf, { frames: 0 }, "plain") : null };
  });
  const unused = dividable(formula).filter((component) => !(formula.parts ?? []).some((part) => takes(part, component)));
  return { parts, left: leftOf(formula), unused };
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
