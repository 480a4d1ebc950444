import type { Filling, Formula, FormulaLine, Proposal, Range, UnitId } from "@uprise/core";

/** Changes of a formula on the bench. Each gives a new formula and leaves the old one as it was, so that undo is keeping the old one. */
const withLines = (formula: Formula, lines: FormulaLine[]): Formula => ({ ...formula, lines });

const changeLine = (formula: Formula, id: string, change: (line: FormulaLine) => FormulaLine): Formula =>
  withLines(
    formula,
    formula.lines.map((line) => (line.id === id ? change(line) : line)),
  );

/** An id that no line of the formula has. */
function freshId(formula: Formula): string {
  const taken = new Set(formula.lines.map((line) => line.id));
  let n = formula.lines.length + 1;
  while (taken.has(`l${n}`)) n++;
  return `l${n}`;
}

export const setAmount = (formula: Formula, id: string, grams: Range, unit: UnitId, filling?: Filling): Formula =>
  changeLine(formula, id, ({ filling: _, ...line }) => ({ ...line, grams, unit, ...(filling ? { filling } : {}) }));

export const setIngredient = (formula: Formula, id: string, ingredientId: string): Formula =>
  changeLine(formula, id, ({ name: _, ...line }) => ({ ...line, ingredientId }));

export const setNote = (formula: Formula, id: string, note: string): Formula =>
  changeLine(formula, id, (line) => ({ ...line, note }));

export const renameLine = (formula: Formula, id: string, name: string): Formula =>
  changeLine(formula, id, ({ name: _, ...line }) => (name.trim() === "" ? line : { ...line, name }));

export const toggleLock = (formula: Formula, id: string): Formula =>
  changeLine(formula, id, (line) => ({ ...line, locked: line.locked !== true }));

export const removeLine = (formula: Formula, id: string): Formula =>
  withLines(
    formula,
    formula.lines.filter((line) => line.id !== id),
  );

export function moveLine(formula: Formula, id: string, by: -1 | 1): Formula {
  const from = formula.lines.findIndex((line) => line.id === id);
  const to = from + by;
  const moved = formula.lines[from];
  if (!moved || to < 0 || to >= formula.lines.length) return formula;
  const lines = formula.lines.filter((line) => line.id !== id);
  lines.splice(to, 0, moved);
  return withLines(formula, lines);
}

export const addLine = (formula: Formula, line: Omit<FormulaLine, "id">): Formula =>
  withLines(formula, [...formula.lines, { ...line, id: freshId(formula) }]);

/** The formula with a proposal taken: what did not change keeps its line as it is, what changed is exact grams, what is new stands last. */
export function takeProposal(formula: Formula, proposal: Proposal): Formula {
  const changed = new Map(proposal.changes.map((change) => [change.ingredientId, change]));
  const seen = new Set<string>();
  const lines = formula.lines.flatMap((line): FormulaLine[] => {
    const change = changed.get(line.ingredientId);
    seen.add(line.ingredientId);
    if (!change) return [line];
    if (change.toG === 0 || change.fromG === 0) return [];
    const grams = (line.grams.mid / change.fromG) * change.toG;
    const { filling: _, ...rest } = line;
    return [{ ...rest, grams: { low: grams, mid: grams, high: grams }, unit: "g" }];
  });
  const after = withLines(formula, lines);
  return proposal.changes
    .filter((change) => change.toG > 0 && !seen.has(change.ingredientId))
    .reduce(
      (f, change) =>
        addLine(f, { ingredientId: change.ingredientId, grams: { low: change.toG, mid: change.toG, high: change.toG }, unit: "g" }),
      after,
    );
}
