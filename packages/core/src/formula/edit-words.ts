import { gramsText } from "../measure/amounts";
import type { Edit } from "./edits-schema";
import type { Formula, FormulaLine } from "./formula";
import { kindName } from "./kinds";

const figure = (value: unknown): string =>
  typeof value === "number" ? String(Math.round(value * 10) / 10) : String(value).replace(/-/g, " ");

/** How fields of pan, oven and process are called. */
export const fieldWords: Record<string, string> = {
  celsius: "°C",
  mode: "oven",
  altitudeM: "metres above the sea",
  ovenId: "which oven",
  dial: "dial",
  shelf: "shelf",
  biasK: "oven's error, K",
  swingK: "oven's swing, K",
  restMinutes: "minutes standing",
  method: "method",
  batterC: "batter, °C",
  kitchenC: "kitchen, °C",
  shape: "shape",
  lengthMm: "length, mm",
  widthMm: "width, mm",
  heightMm: "height, mm",
  diameterMm: "diameter, mm",
  baseLengthMm: "length of the base, mm",
  baseWidthMm: "width of the base, mm",
  baseDiameterMm: "diameter of the base, mm",
  capacityMl: "what it holds, mL",
  pieces: "pieces",
  pieceG: "a piece, g",
  thicknessMm: "thickness, mm",
  material: "made of",
  lining: "lining",
  preheated: "goes in hot",
  touching: "set close",
  stages: "stages",
  steps: "steps",
  doneWhen: "done when",
  cooling: "cools",
  tinMinutes: "minutes in the tin",
  warmC: "goes in, °C",
  start: "goes in",
  piece: "pieces are",
  share: "share",
  name: "name",
  kind: "kind",
  role: "role",
  place: "in the bake",
  cookedG: "once cooked, g",
};

const fieldsText = (set: object, clear: readonly string[] = []): string =>
  [
    ...Object.entries(set)
      .filter(([, value]) => typeof value !== "object")
      .map(([key, value]) => `${fieldWords[key] ?? key} ${figure(value)}`),
    ...clear.map((key) => `${fieldWords[key] ?? key} as usual`),
  ].join(", ");

/** An edit in words, as it stands in the reason of a version. `before` is the formula it was made on; `nameOf` gives an ingredient's name. */
export function describeEdit(edit: Edit, before: Formula, nameOf: (ingredientId: string) => string): string {
  const lineOf = (id: string): FormulaLine | undefined => before.lines.find((line) => line.id === id);
  const wordOf = (line: FormulaLine): string =>
    line.name ?? (line.ingredientId === undefined ? "a line" : nameOf(line.ingredientId));
  const called = (id: string): string => {
    const line = lineOf(id);
    return line ? wordOf(line) : "a line";
  };
  const massText = (line: FormulaLine | undefined): string => (line?.grams ? gramsText(line.grams.mid) : "open");
  const componentName = (id: string | undefined): string =>
    id === undefined ? "the batter" : (before.components?.find((component) => component.id === id)?.name ?? "a component");
  const partOf = (id: string): string => before.parts?.find((part) => part.id === id)?.name ?? "a part";
  switch (edit.edit) {
    case "rename":
      return `called “${edit.title.trim()}”`;
    case "set-kind":
      return `now ${kindName[edit.kind].toLowerCase()}`;
    case "set-measures":
      return `cups and spoons: ${edit.measures}`;
    case "set-notes":
      return "notes";
    case "set-amount":
      return `${called(edit.lineId)} ${massText(lineOf(edit.lineId))} → ${gramsText(edit.grams.mid)}`;
    case "set-ingredient":
      return `${called(edit.lineId)} → ${nameOf(edit.ingredientId)}`;
    case "rename-line":
      return edit.name.trim() === ""
        ? `${called(edit.lineId)} by its usual name`
        : `${called(edit.lineId)} called “${edit.name.trim()}”`;
    case "note-line":
      return `note on ${called(edit.lineId)}`;
    case "lock":
      return `${called(edit.lineId)} ${edit.locked ? "locked" : "unlocked"}`;
    case "move":
      return `${called(edit.lineId)} moved`;
    case "add":
      return `${wordOf(edit.line)} ${massText(edit.line)} added`;
    case "remove":
      return `${called(edit.lineId)} removed`;
    case "place":
      return `${called(edit.lineId)} into ${componentName(edit.component)}`;
    case "leave-out":
      return `${called(edit.lineId)} ${edit.off ? "left out" : "taken"}`;
    case "add-component":
      return `“${edit.component.name}” added`;
    case "set-component":
      return `${componentName(edit.componentId)}: ${fieldsText(edit.set, edit.clear)}`;
    case "remove-component":
      return `${componentName(edit.componentId)} removed`;
    case "read-again":
      return `the text read again, cups and spoons: ${edit.measures}`;
    case "scale":
      return `times ${figure(Math.round(edit.factor * 100) / 100)}`;
    case "set-vessel":
      return edit.whole ? "another pan" : `pan: ${fieldsText(edit.set, edit.clear)}`;
    case "set-oven":
      return `oven: ${fieldsText(edit.set, edit.clear)}`;
    case "set-process":
      return [
        fieldsText(edit.set, edit.clear),
        ...(edit.set.stages ? [`${edit.set.stages.length} stages`] : []),
        ...(edit.set.steps ? ["steps changed"] : []),
        ...(edit.set.written ? ["steps as the recipe writes them"] : []),
      ]
        .filter((words) => words !== "")
        .join(", ");
    case "what-if":
      return `what if taken: ${Object.keys(edit.change).length === 0 ? "nothing" : whatIfText(edit.change)}`;
    case "take-changes":
      return `${edit.title}: ${edit.changes.map((c) => `${nameOf(c.ingredientId)} ${gramsText(c.fromG)} → ${gramsText(c.toG)}`).join(", ")}`;
    case "take-pan":
      return `another pan at ${figure(edit.celsius)} °C${edit.factor === 1 ? "" : `, times ${figure(Math.round(edit.factor * 100) / 100)}`}`;
    case "take-version":
      return `version ${edit.number} taken up again`;
    case "add-part":
      return `part “${edit.part.name}” added`;
    case "set-part":
      return `${partOf(edit.partId)}: ${fieldsText(edit.set) || "another pan"}`;
    case "remove-part":
      return `${partOf(edit.partId)} removed`;
    case "add-to-part":
      return `${wordOf(edit.line)} ${massText(edit.line)} added to ${partOf(edit.partId)}`;
    case "remove-from-part":
      return `taken out of ${partOf(edit.partId)}`;
  }
}

function whatIfText({
  warmerK,
  fuller,
  mode,
  altitudeM,
  standMinutes,
  material,
}: Extract<Edit, { edit: "what-if" }>["change"]): string {
  return [
    warmerK ? `${warmerK > 0 ? "+" : "−"}${Math.abs(warmerK)} °C` : null,
    fuller !== undefined && fuller !== 1 ? `${Math.round(100 * fuller)} % of the batter` : null,
    mode ?? null,
    altitudeM === undefined ? null : `${altitudeM} m above the sea`,
    standMinutes === undefined ? null : `${standMinutes} min standing`,
    material?.replace("-", " ") ?? null,
  ]
    .filter((part) => part !== null)
    .join(", ");
}
