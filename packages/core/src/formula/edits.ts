import type { Range } from "../measure/range-schema";
import type { Oven, Vessel } from "../pantry/vessel-schema";
import { placeOf } from "./components";
import type { FormulaComponent } from "./components-schema";
import type { Formula, FormulaLine, Part } from "./formula";
import type { Process } from "./process-schema";
import { scaledWhole } from "./scale";
import { withWhatIf } from "./what-if";
import type { Edit } from "./edits-schema";

type EditOf<K extends Edit["edit"]> = Extract<Edit, { edit: K }>;
const exactly = (grams: number): Range => ({ low: grams, mid: grams, high: grams });
const changeLine = (formula: Formula, id: string, change: (line: FormulaLine) => FormulaLine): Formula => ({
  ...formula,
  lines: formula.lines.map((line) => (line.id === id ? change(line) : line)),
});
const changePart = (formula: Formula, id: string, change: (part: Part) => Part): Formula => ({
  ...formula,
  parts: (formula.parts ?? []).map((part) => (part.id === id ? change(part) : part)),
});
/** `body` with fields set and others taken away. */
function withFields<T extends object>(body: T, set: object, clear: readonly string[] = []): T {
  const next = { ...body, ...set } as Record<string, unknown>;
  for (const field of clear) delete next[field];
  return next as T;
}
/** An id that nothing in `taken` has, from one that was wished for. */
export function freeId(wish: string, taken: readonly { id: string }[]): string {
  let id = wish;
  for (let n = 2; taken.some((other) => other.id === id); n++) id = `${wish}-${n}`;
  return id;
}
/** The component that the changes of a proposal name for a line: none for the batter and what is soaked for it. */
const changedIn = (line: FormulaLine, components: readonly FormulaComponent[]): string => {
  const component = components.find(({ id }) => id === line.component);
  return component && placeOf(component) !== "batter" ? component.id : "";
};
/** What did not change keeps its line, what changed is exact grams shared over its lines; what is new stands where something went for it, else last. */
function takeChanges(formula: Formula, { changes }: EditOf<"take-changes">): Formula {
  const components = formula.components ?? [];
  const byKey = new Map(changes.map((change) => [`${change.component ?? ""}/${change.ingredientId}`, change]));
  const keyOf = (line: FormulaLine): string => `${changedIn(line, components)}/${line.ingredientId ?? ""}`;
  const counts = (line: FormulaLine): boolean => line.grams !== undefined && line.off !== true;
  const seen = new Set(formula.lines.filter(counts).map(keyOf));
  /** Where the first line of each component went, so that what comes for it takes its place. */
  const gap = new Map<string, number>();
  let kept = 0;
  const lines = formula.lines.flatMap((line): FormulaLine[] => {
    const change = byKey.get(keyOf(line));
    kept++;
    if (!change || !counts(line)) return [line];
    if (change.toG === 0 || change.fromG === 0) {
      kept--;
      const place = change.component ?? "";
      if (!gap.has(place)) gap.set(place, kept);
      return [];
    }
    const { filling: _, ...rest } = line;
    return [{ ...rest, grams: exactly(((line.grams?.mid ?? 0) / change.fromG) * change.toG), unit: "g" }];
  });
  for (const { ingredientId, toG, component } of changes)
    if (toG > 0 && !seen.has(`${component ?? ""}/${ingredientId}`))
      lines.splice(gap.get(component ?? "") ?? lines.length, 0, {
        id: freeId(`n-${ingredientId}`.slice(0, 60), lines),
        ingredientId,
        grams: exactly(toG),
        unit: "g",
        ...(component === undefined ? {} : { component }),
      });
  return { ...formula, lines };
}
const inComponent = ({ component: _, ...line }: FormulaLine, component: string | undefined): FormulaLine =>
  component === undefined ? line : { ...line, component };
/** The lines with one put into a component, before another of its lines or at its end. */
function placed(
  lines: readonly FormulaLine[],
  id: string,
  component: string | undefined,
  before: string | undefined,
): FormulaLine[] {
  const line = lines.find((other) => other.id === id);
  if (!line) return [...lines];
  const rest = lines.filter((other) => other !== line);
  const at = rest.findIndex((other) => other.id === before);
  const last = rest.findLastIndex((other) => other.component === component);
  rest.splice(at >= 0 ? at : last >= 0 ? last + 1 : rest.length, 0, inComponent(line, component));
  return rest;
}
/** A line moved up or down as the sheet shows it: within its component, and over its edge into the next one. */
function moved({ lines, components = [] }: Formula, id: string, by: number): FormulaLine[] {
  const places = [undefined, ...components.map((component) => component.id)];
  let now = [...lines];
  for (let step = 0; step < Math.min(Math.abs(by), 2 * lines.length); step++) {
    const line = now.find((other) => other.id === id);
    if (!line) return now;
    const here = now.filter((other) => other.component === line.component);
    const at = here.indexOf(line);
    const place = places.indexOf(line.component);
    if (by < 0 && at > 0) now = placed(now, id, line.component, here[at - 1]?.id);
    else if (by > 0 && at < here.length - 1) now = placed(now, id, line.component, here[at + 2]?.id);
    else if (by < 0 && place > 0) now = placed(now, id, places[place - 1], undefined);
    else if (by > 0 && place < places.length - 1) {
      const next = places[place + 1];
      now = placed(now, id, next, now.find((other) => other.component === next)?.id);
    }
  }
  return now;
}
type Appliers = { [K in Edit["edit"]]: (formula: Formula, edit: EditOf<K>) => Formula };
const appliers: Appliers = {
  rename: (formula, { title }) => ({ ...formula, title }),
  "set-kind": (formula, { kind }) => ({ ...formula, kind }),
  "set-measures": (formula, { measures }) => ({ ...formula, measures }),
  "set-notes": (formula, { notes }) => ({ ...formula, notes }),
  "set-amount": (formula, { lineId: id, grams, unit, filling }) =>
    changeLine(formula, id, ({ filling: _, unit: before, unsure: _u, ...line }) => {
      const now = unit ?? before;
      return { ...line, grams, ...(now ? { unit: now } : {}), ...(filling ? { filling } : {}) };
    }),
  "set-ingredient": (formula, { lineId: id, ingredientId }) =>
    changeLine(formula, id, ({ name, unsure: _, ...line }) =>
      // The recipe's own word stays where nothing was known before.
      line.ingredientId === undefined && name !== undefined ? { ...line, name, ingredientId } : { ...line, ingredientId },
    ),
  "rename-line": (formula, { lineId: id, name }) =>
    changeLine(formula, id, ({ name: _, ...line }) => (name.trim() === "" ? line : { ...line, name })),
  "note-line": (formula, { lineId: id, note }) => changeLine(formula, id, (line) => ({ ...line, note })),
  lock: (formula, { lineId: id, locked }) => changeLine(formula, id, (line) => ({ ...line, locked })),
  move: (formula, { lineId: id, by }) => ({ ...formula, lines: moved(formula, id, by) }),
  place: (formula, { lineId: id, component, before }) => ({ ...formula, lines: placed(formula.lines, id, component, before) }),
  "leave-out": (formula, { lineId: id, off }) => changeLine(formula, id, ({ off: _, ...line }) => (off ? { ...line, off } : line)),
  "add-component": (formula, { component }) => {
    const components = formula.components ?? [];
    return { ...formula, components: [...components, { ...component, id: freeId(component.id, components) }] };
  },
  "set-component": (formula, { componentId, set, clear }) => ({
    ...formula,
    components: (formula.components ?? []).map((component) =>
      component.id === componentId ? withFields<FormulaComponent>(component, set, clear) : component,
    ),
  }),
  "remove-component": (formula, { componentId }) => ({
    ...formula,
    components: (formula.components ?? []).filter(({ id }) => id !== componentId),
    lines: formula.lines.filter((line) => line.component !== componentId),
    ...(formula.parts
      ? {
          parts: formula.parts.map((part) =>
            part.components ? { ...part, components: part.components.filter((id) => id !== componentId) } : part,
          ),
        }
      : {}),
  }),
  "read-again": ({ components: _c, said: _s, pasted: _p, ...formula }, { edit: _, ...read }) => ({ ...formula, ...read }),
  add: (formula, { line }) => ({ ...formula, lines: [...formula.lines, { ...line, id: freeId(line.id, formula.lines) }] }),
  remove: (formula, { lineId: id }) => ({ ...formula, lines: formula.lines.filter((line) => line.id !== id) }),
  scale: (formula, { factor }) => ({ ...formula, ...scaledWhole(formula, factor) }),
  "set-vessel": (formula, { set, whole, clear }) => ({
    ...formula,
    vessel: withFields<Vessel>(whole && set.shape ? { shape: set.shape } : formula.vessel, set, clear),
  }),
  "set-oven": (formula, { set, clear }) => ({ ...formula, oven: withFields<Oven>(formula.oven, set, clear) }),
  // Another way of mixing is not the one that is written.
  "set-process": (formula, { set, clear }) => ({
    ...formula,
    process: withFields<Process>(
      formula.process,
      set,
      set.method === undefined || set.method === formula.process.method ? clear : [...(clear ?? []), "written"],
    ),
  }),
  "what-if": (formula, { change }) => withWhatIf(formula, change) as Formula,
  "take-changes": takeChanges,
  "take-pan": (formula, { vessel, celsius, factor }) => ({
    ...formula,
    vessel,
    oven: { ...formula.oven, celsius },
    ...(factor === 1 ? {} : scaledWhole(formula, factor)),
  }),
  "take-version": (_, { formula }) => formula,
  "add-part": (formula, { part }) => {
    const parts = formula.parts ?? [];
    return { ...formula, parts: [...parts, { ...part, id: freeId(part.id, parts) }] };
  },
  "set-part": (formula, { partId: id, set }) => changePart(formula, id, (part) => withFields<Part>(part, set)),
  "remove-part": (formula, { partId: id }) => ({ ...formula, parts: (formula.parts ?? []).filter((part) => part.id !== id) }),
  "add-to-part": (formula, { partId: id, line }) =>
    changePart(formula, id, (part) => ({
      ...part,
      additions: [...part.additions, { ...line, id: freeId(line.id, part.additions) }],
    })),
  "remove-from-part": (formula, { partId: id, lineId: gone }) =>
    changePart(formula, id, (part) => ({ ...part, additions: part.additions.filter((line) => line.id !== gone) })),
};
/** Whether an edit is one that this program knows. */
export const isEdit = (edit: string): edit is Edit["edit"] => edit in appliers;

/**
 * The formula with an edit in it; the old one stays as it was. An edit of a line or part that is gone changes nothing, so that edits can be
 * applied again on another version. Limits of fields are not checked here: a draft may be at fault until it is saved (`faultsIn`).
 */
export const applyEdit = (formula: Formula, edit: Edit): Formula =>
  (appliers[edit.edit] as (formula: Formula, edit: Edit) => Formula)(formula, edit);
export const applyEdits = (formula: Formula, edits: readonly Edit[]): Formula => edits.reduce(applyEdit, formula);
const keysOf = (set: object, clear: readonly string[] = []): string => [...Object.keys(set), ...clear].sort().join("+");
/** The field that an edit sets over and over while it is typed or slid; null where every edit is a step of its own. */
export function fieldOf(edit: Edit): string | null {
  switch (edit.edit) {
    case "rename":
    case "set-notes":
    case "scale":
      return edit.edit;
    case "set-amount":
    case "rename-line":
    case "note-line":
      return `${edit.edit}:${edit.lineId}`;
    case "set-vessel":
    case "set-oven":
    case "set-process":
      return `${edit.edit}:${keysOf(edit.set, edit.clear)}`;
    case "set-part":
      return `${edit.edit}:${edit.partId}:${keysOf(edit.set)}`;
    case "set-component":
      return `${edit.edit}:${edit.componentId}:${keysOf(edit.set, edit.clear)}`;
    default:
      return null;
  }
}
/** Two edits of one field as one. */
export const mergeEdits = (earlier: Edit, later: Edit): Edit =>
  earlier.edit === "scale" && later.edit === "scale" ? { edit: "scale", factor: earlier.factor * later.factor } : later;
