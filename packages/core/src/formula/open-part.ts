import { gramsOf, type InputLine, isWeighed, type WeighedLine } from "./components";
import type { FormulaComponent } from "./components-schema";
import type { Formula, FormulaLine, Part } from "./formula";
import { expandWeighed } from "./nested";
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

/** A part of a batter as steps, a plan and the counter take it. */
export interface OpenedPart {
  id: string;
  name: string;
  share: number;
  /** What is stirred into its share of the batter. */
  additions: WeighedLine[];
  input: Opened;
}

/** The parts that take some of the batter, each opened; none where it is not split. Throws as `openFormula`. */
export const openParts = (formula: Formula, kitchen: Kitchen): OpenedPart[] =>
  (formula.parts ?? [])
    .filter(({ share }) => share > 0 && formula.lines.some((line) => gramsOf(line) > 0))
    .map((part) => ({
      id: part.id,
      name: part.name,
      share: part.share,
      additions: expandWeighed(part.additions, kitchen.book).filter(isWeighed),
      input: openPart(formula, part, kitchen),
    }));

/** A part as a formula of its own: what its bake and its trial are of. */
export function partAsFormula(formula: Formula, part: Part): Formula {
  const { parts: _, said: _s, ...whole } = formula;
  const { lines, components } = linesOfPart(formula, part);
  return {
    ...whole,
    title: `${formula.title}, ${part.name}`.slice(0, 160),
    kind: part.kind,
    vessel: part.vessel,
    oven: part.oven,
    lines: lines as FormulaLine[],
    ...(components.length > 0 ? { components } : {}),
  };
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
