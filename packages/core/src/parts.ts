import { analyse } from "./balance/analyse";
import { leftOf } from "./balance/new-part";
import type { Analysis } from "./balance/readings";
import { sortLines } from "./formula/components";
import type { FormulaComponent } from "./formula/components-schema";
import type { Formula, Part } from "./formula/formula";
import type { Kitchen } from "./formula/open";
import { openPart, takes } from "./formula/open-part";
import { bareKitchen } from "./formula/bare-kitchen";
import { gramsOf } from "./formula/components";
import { dividable } from "./formula/dividable";

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
