import { analyse } from "./balance/analyse";
import { leftOf } from "./balance/new-part";
import type { Analysis } from "./balance/readings";
import { type InputLine, sortLines } from "./formula/components";
import type { FormulaComponent } from "./formula/components-schema";
import type { Formula, FormulaLine, Part } from "./formula/formula";
import { type Kitchen, type Opened, openInput } from "./formula/open";
import { bareKitchen } from "./formula/bare-kitchen";
import { gramsOf } from "./formula/components";
import { dividable } from "./formula/pulls";
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
