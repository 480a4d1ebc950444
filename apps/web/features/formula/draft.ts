import { hashKey } from "@tanstack/react-query";
import type { StoredFormula } from "@uprise/contract";
import type { Edit, Formula, History, Step as EditStep } from "@uprise/core";
import {
  begun,
  componentRoles,
  current,
  edited,
  FORMULA_SHAPE,
  kinds,
  measureSystems,
  rebased,
  replayed,
  saved,
  shapes,
  undone,
  upgradedFormula,
  unsaved,
  isEdit,
} from "@uprise/core/page";
import { readDevice, writeDevice } from "../../device/local";

/** What is under work: the formula with its history of edits, and the stored version it was made from. */
export interface Draft {
  base: StoredFormula;
  history: History;
}

export type Step =
  | { do: "edit"; edit: Edit; at: number }
  | { do: "undo" }
  /** The stored one in place of what is here. */
  | { do: "open"; stored: StoredFormula }
  | { do: "saved"; stored: StoredFormula }
  /** What is unsaved here, put on a newer stored one. */
  | { do: "rebase"; stored: StoredFormula };

export const formulaOf = (draft: Draft): Formula => current(draft.history);

const fresh = (stored: StoredFormula): Draft => ({ base: stored, history: begun(stored.formula) });

export function draftReducer(draft: Draft, step: Step): Draft {
  switch (step.do) {
    case "edit":
      return { ...draft, history: edited(draft.history, step.edit, step.at) };
    case "undo":
      return { ...draft, history: undone(draft.history) };
    case "open":
      return fresh(step.stored);
    case "saved":
      return { base: step.stored, history: saved(draft.history) };
    case "rebase": {
      const history = rebased(draft.history, step.stored.formula);
      return history ? { base: step.stored, history } : draft;
    }
  }
}

/** As the store would keep it: a blank at the end of a text, or a field that says nothing, is no difference. */
const asStored = (value: unknown): unknown =>
  typeof value === "string"
    ? value.trim()
    : Array.isArray(value)
      ? value.map(asStored)
      : typeof value === "object" && value !== null
        ? Object.fromEntries(Object.entries(value).flatMap(([key, one]) => (one === undefined ? [] : [[key, asStored(one)]])))
        : value;

const sameFormula = (a: Formula, b: Formula): boolean => hashKey([asStored(a)]) === hashKey([asStored(b)]);

/** Whether the bench differs from what is stored, whatever the order in which fields stand. */
export const isDirty = (draft: Draft): boolean => !sameFormula(formulaOf(draft), draft.base.formula);

/** Whether a stored formula is what is on the bench. */
export const says = (draft: Draft, { formula }: StoredFormula): boolean => sameFormula(formulaOf(draft), formula);

/** How many edits are not saved; null when they cannot be counted. */
export const unsavedCount = (draft: Draft): number | null => unsaved(draft.history)?.length ?? null;

type Rough = Record<string, unknown>;
const isRough = (value: unknown): value is Rough => typeof value === "object" && value !== null && !Array.isArray(value);
const allRough = (value: unknown, good: (one: Rough) => boolean): boolean =>
  Array.isArray(value) && value.every((one) => isRough(one) && good(one));
const oneOf = (list: readonly unknown[], value: unknown): boolean => list.includes(value);
const isText = (value: unknown): value is string => typeof value === "string";
const isNumber = (value: unknown): value is number => typeof value === "number" && Number.isFinite(value);

const goodLine = ({ id, ingredientId, grams }: Rough): boolean =>
  isText(id) &&
  (ingredientId === undefined || isText(ingredientId)) &&
  (grams === undefined || (isRough(grams) && isNumber(grams["low"]) && isNumber(grams["mid"]) && isNumber(grams["high"])));
const goodVessel = (value: unknown): boolean => isRough(value) && oneOf(shapes, value["shape"]);
const goodOven = (value: unknown): boolean => isRough(value) && isNumber(value["celsius"]);

/** A formula of any content but of the right build: what a draft may hold before it is mended. What is saved is checked by the contract. */
const isBuilt = (value: unknown): value is Formula =>
  isRough(value) &&
  value["shape"] === FORMULA_SHAPE &&
  isText(value["title"]) &&
  isText(value["notes"]) &&
  oneOf(kinds, value["kind"]) &&
  oneOf(measureSystems, value["measures"]) &&
  allRough(value["lines"], goodLine) &&
  goodVessel(value["vessel"]) &&
  goodOven(value["oven"]) &&
  isRough(value["process"]) &&
  (value["components"] === undefined ||
    allRough(value["components"], ({ id, name, role }) => isText(id) && isText(name) && oneOf(componentRoles, role))) &&
  (value["parts"] === undefined ||
    allRough(
      value["parts"],
      ({ id, name, share, kind, additions, vessel, oven }) =>
        isText(id) &&
        isText(name) &&
        isNumber(share) &&
        oneOf(kinds, kind) &&
        allRough(additions, goodLine) &&
        goodVessel(vessel) &&
        goodOven(oven),
    ));

/** What of a draft is kept on the device. */
export function keptOf({ base, history }: Draft): unknown {
  const { root, steps, savedAfter } = history;
  return steps.length === 0 ? null : { shape: 2, version: base.version, root, steps, savedAfter };
}

/** An edit that holds a whole formula holds one of this program's shape. */
const upgradedStep = (step: EditStep): EditStep =>
  step.edit.edit === "take-version"
    ? { ...step, edit: { ...step.edit, formula: upgradedFormula(step.edit.formula) as Formula } }
    : step;

const goodStep = ({ at, edit }: Rough): boolean => isNumber(at) && isRough(edit) && isText(edit["edit"]) && isEdit(edit["edit"]);

/** A draft from what was kept, or null when it cannot be read. */
export function draftFrom(body: unknown, stored: StoredFormula): Draft | null {
  if (!isRough(body) || body["shape"] !== 2) return null;
  const { version, steps, savedAfter } = body;
  // A draft may be older than the program that opens it.
  const root = upgradedFormula(body["root"]);
  if (!isNumber(version) || !isBuilt(root) || !allRough(steps, goodStep) || !(savedAfter === null || isNumber(savedAfter)))
    return null;
  try {
    const history = replayed(root, (steps as unknown as EditStep[]).map(upgradedStep), savedAfter);
    if (!isBuilt(current(history))) return null;
    const draft = { base: { ...stored, version }, history };
    // Somebody saved meanwhile, and nothing here is unsaved: there is nothing to go on with.
    if (version !== stored.version && unsaved(history)?.length === 0) return fresh(stored);
    return draft;
  } catch {
    return null;
  }
}

export const beginDraft = (stored: StoredFormula, body: unknown): Draft => draftFrom(body, stored) ?? fresh(stored);

/** The formula that was last on the bench. */
export const lastOpened = (): string | null => readDevice("last");
export const rememberOpened = (id: string): void => writeDevice("last", id);
