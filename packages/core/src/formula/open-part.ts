import type { InputLine } from "./components";
import type { FormulaComponent } from "./components-schema";
import type { Formula, FormulaLine, Part } from "./formula";
import { type Kitchen, type Opened, openInput } from "./open";
import { dividable } from "./dividable";
import { scaleLines } from "./scale";

export const takes = (part: Part, { id }: FormulaComponent): boolean => part.share > 0 && (part.components?.includes(id) ?? true);

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
export function openPart(formula: Formula, part: Part, kitchen: Kitchen): Opened {
  const { lines, components } = linesOfPart(formula, part);
  const { kind, vessel, oven } = part;
  return openInput<Opened>(
    { lines, components, kind, vessel, oven, process: formula.process, measures: formula.measures },
    kitchen,
  );
}
