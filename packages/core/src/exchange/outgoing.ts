import { baked } from "../balance/analyse";
import { CoreError } from "../errors";
import { isWeighed, type WeighedLine } from "../formula/components";
import type { FormulaComponent } from "../formula/components-schema";
import type { Formula, FormulaLine } from "../formula/formula";
import { kindName } from "../formula/kinds";
import { expand, nestedId } from "../formula/nested";
import { openParts } from "../formula/open-part";
import { type Kitchen, openFormula } from "../formula/open";
import { gramsOf } from "../formula/components";
import { householdText } from "../measure/amounts";
import type { Range } from "../measure/range-schema";
import { ingredientOf } from "../pantry/shelf";
import { panText } from "../pantry/pan-text";
import { stepsOfWhole } from "../plan/split-steps";
import type { WorkStep } from "../plan/work-step-schema";
import { readRecipe } from "../read";

/** One line as it goes out. `written` is what our own reader reads back to the same ingredient and the same grams; `exact` says whether it does. */
export interface OutLine {
  ingredientId: string | null;
  /** As the baker calls it. */
  name: string;
  /** As the pantry calls it. */
  pantryName: string;
  note: string;
  /** g; null where the line is open. */
  grams: number | null;
  range: Range | null;
  /** In spoons and cups of the formula's country. */
  household: string;
  optional: boolean;
  written: string;
  exact: boolean;
}

export interface OutPart {
  /** Null for the batter. */
  component: FormulaComponent | null;
  /** What stands over it: "Batter", "For the pear filling (inside)". */
  heading: string;
  lines: OutLine[];
}

/** A formula with everything that a page, a message or another program is told of it. g, °C, min. */
export interface Outgoing {
  id: string | null;
  version: number | null;
  formula: Formula;
  kindWord: string;
  parts: OutPart[];
  pan: string;
  oven: string;
  /** In the oven; null where it cannot be baked. */
  minutes: Range | null;
  workMinutes: number;
  pieces: number;
  pieceG: number;
  steps: WorkStep[];
  /** What another reader would get otherwise than it is here, in sentences. */
  warnings: string[];
}

/** Grams to two decimals, without a thousands mark: what is weighed in is told without loss for a kitchen scale. */
export const gramsOut = (grams: number): string => `${Math.round(grams * 100) / 100} g`;

const NEAR_G = 0.006;

/** Whether a line that we write is read back by our own reader as the same grams of the same thing. */
function readsBack(text: string, ingredientId: string, grams: number, kitchen: Kitchen): boolean {
  const { lines } = readRecipe(`A bake\n\nIngredients\n- ${text}\n`, kitchen.measures, undefined, kitchen.shelf);
  const found = lines.filter(({ role }) => role === "ingredient");
  const [line] = found;
  return (
    found.length === 1 &&
    line !== undefined &&
    line.ingredientId === ingredientId &&
    line.grams !== null &&
    line.component === undefined &&
    line.state === "read" &&
    Math.abs(line.grams.mid - grams) <= NEAR_G
  );
}

/** The first way of writing a line that reads back; the plainest where none does. */
function written(line: Omit<OutLine, "written" | "exact">, kitchen: Kitchen): Pick<OutLine, "written" | "exact"> {
  const { ingredientId, name, pantryName, note, grams, optional, household } = line;
  const tail = `${note === "" ? "" : `, ${note.replace(/\s+/g, " ")}`}${optional ? " (optional)" : ""}`;
  if (grams === null || ingredientId === null) return { written: `${name}${tail}`, exact: true };
  const mass = gramsOut(grams);
  const names = [...new Set([name, pantryName, ...(kitchen.shelf.get(ingredientId)?.aliases ?? [])])].map((n) => n.toLowerCase());
  const beside = household === "" || household === "a pinch" ? [""] : [` (${household})`, ""];
  for (const after of new Set([tail, optional ? " (optional)" : ""]))
    for (const called of names)
      for (const spoons of beside) {
        const text = `${mass}${spoons} ${called}${after}`;
        if (readsBack(text, ingredientId, Number.parseFloat(mass), kitchen)) return { written: text, exact: true };
      }
  return { written: `${mass} ${pantryName}${tail}`, exact: false };
}

function headingOf(component: FormulaComponent | null): string {
  if (component === null) return "Batter";
  const name = component.name.replace(/^./, (c) => c.toLowerCase());
  // The reader tells what a part is by its own words; a name that does not say it is given its role.
  return /filling|topping|glaze|icing|paste|soak|sauce|crumble|streusel|wash|syrup/i.test(name) || component.role === "batter"
    ? `For the ${name}`
    : `For the ${name} ${component.role === "serve" ? "to serve" : component.role === "pan" ? "for the pan" : component.role}`;
}

/** One line as it goes out, in the words that our own reader reads back; `kitchen` with the measures of the formula. */
export function outLine(line: FormulaLine | WeighedLine, kitchen: Kitchen): OutLine {
  const { shelf, measures } = kitchen;
  const known = line.ingredientId === undefined ? undefined : shelf.get(line.ingredientId);
  const weighed = line.ingredientId !== undefined && line.grams !== undefined;
  const grams = weighed ? (typeof line.grams === "number" ? line.grams : (line.grams?.mid ?? null)) : null;
  const pantryName = known?.name ?? line.name ?? line.ingredientId ?? "A line that is not read";
  const bare = {
    ingredientId: line.ingredientId ?? null,
    name: line.name ?? pantryName,
    pantryName,
    note: ("note" in line ? line.note : undefined) ?? "",
    grams,
    range: grams === null ? null : typeof line.grams === "number" ? { low: grams, mid: grams, high: grams } : (line.grams ?? null),
    household: grams === null || !known ? "" : householdText(grams, ingredientOf(shelf, known.id), measures),
    optional: line.off === true,
  };
  return { ...bare, ...written(bare, kitchen) };
}

/** A formula as it goes out, nested formulas opened into what is weighed. Throws as `openFormula`. */
export function outgoing(formula: Formula, kitchen: Kitchen, from: { id: string; version: number } | null = null): Outgoing {
  const here: Kitchen = { ...kitchen, measures: formula.measures };
  const toLine = (line: FormulaLine | WeighedLine): OutLine => outLine(line, here);
  const parts = [null, ...(formula.components ?? [])].flatMap((component): OutPart[] => {
    const own = formula.lines.filter((line) =>
      component === null
        ? line.component === undefined || !formula.components?.some(({ id }) => id === line.component)
        : line.component === component.id,
    );
    const lines = own.flatMap((line) =>
      nestedId(line.ingredientId ?? "") !== null && isWeighed(line) ? expand([line], kitchen.book).map((leaf) => toLine(leaf as WeighedLine)) : [toLine(line)],
    );
    return lines.length === 0 ? [] : [{ component, heading: headingOf(component), lines }];
  });
  const made = bakedOnce(formula, kitchen);
  const lost = parts.flatMap(({ lines }) => lines).filter(({ exact }) => !exact);
  const { vessel, oven } = formula;
  return {
    id: from?.id ?? null,
    version: from?.version ?? null,
    formula,
    kindWord: kindName[formula.kind],
    parts,
    pan: panText(vessel),
    oven: `${Math.round(oven.celsius)} °C${oven.mode && oven.mode !== "still" ? `, ${oven.mode.replace("-", " ")}` : ""}`,
    minutes: made?.analysis.bake.minutes ?? null,
    workMinutes: made ? made.steps.filter(({ needs }) => needs === "hands" || needs === "mixer").reduce((sum, { minutes }) => sum + minutes.mid, 0) : 0,
    pieces: made?.analysis.fill.pieces ?? vessel.pieces ?? 1,
    pieceG: made?.analysis.fill.pieceG ?? formula.lines.reduce((g, line) => g + gramsOf(line), 0),
    steps: made?.steps ?? [],
    warnings: lost.map(({ name, written: text }) => `“${text}” may be read as something else than ${name}; check it where it is read.`),
  };
} // prettier-ignore

function bakedOnce(formula: Formula, kitchen: Kitchen) {
  try {
    const input = openFormula(formula, kitchen);
    const { analysis, simulation } = baked(input, kitchen.shelf, { frames: 0 });
    return { analysis, steps: stepsOfWhole(input, analysis, simulation, openParts(formula, kitchen), kitchen.shelf) };
  } catch (error) {
    // What cannot be baked yet still goes out as it is written.
    if (error instanceof CoreError) return null;
    throw error;
  }
}
