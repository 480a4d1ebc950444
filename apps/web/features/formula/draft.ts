import { hashKey } from "@tanstack/react-query";
import type { StoredFormula } from "@uprise/contract";
import type { Edit, Formula, History, Step as EditStep } from "@uprise/core";
import { begun, componentRoles, current, edited, FORMULA_SHAPE, kinds, measureSystems, rebased, replayed, saved, shapes, undone, upgradedFormula, unsaved } from "@uprise/core/page";
import { editSchema, faultsIn, formulaSchema } from "@uprise/core";
import { z } from "zod";
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

/** As the store would keep it: a blank at the end of a title is no difference. */
const asStored = (formula: Formula): Formula => formulaSchema.safeParse(formula).data ?? formula;

/** Whether the bench differs from what is stored, whatever the order in which fields stand. */
export const isDirty = (draft: Draft): boolean => hashKey([asStored(formulaOf(draft))]) !== hashKey([asStored(draft.base.formula)]);

/** Whether a stored formula is what is on the bench. */
export const says = (draft: Draft, { formula }: StoredFormula): boolean =>
  hashKey([asStored(formulaOf(draft))]) === hashKey([asStored(formula)]);

/** How many edits are not saved; null when they cannot be counted. */
export const unsavedCount = (draft: Draft): number | null => unsaved(draft.history)?.length ?? null;

export const faultsOfDraft = (draft: Draft): ReadonlyMap<string, string> => faultsIn(formulaOf(draft));

/** A formula of any content but of the right build: what a draft may hold before it is mended. */
const roughLine = z.looseObject({
  id: z.string(),
  ingredientId: z.string().optional(),
  grams: z.object({ low: z.number(), mid: z.number(), high: z.number() }).optional(),
});
const roughVessel = z.looseObject({ shape: z.enum(shapes) });
const roughOven = z.looseObject({ celsius: z.number() });
const roughFormula = z.looseObject({
  shape: z.literal(FORMULA_SHAPE),
  title: z.string(),
  kind: z.enum(kinds),
  measures: z.enum(measureSystems),
  components: z.array(z.looseObject({ id: z.string(), name: z.string(), role: z.enum(componentRoles) })).optional(),
  lines: z.array(roughLine),
  vessel: roughVessel,
  oven: roughOven,
  process: z.looseObject({}),
  notes: z.string(),
  parts: z
    .array(
      z.looseObject({
        id: z.string(),
        name: z.string(),
        share: z.number(),
        kind: z.enum(kinds),
        additions: z.array(roughLine),
        vessel: roughVessel,
        oven: roughOven,
      }),
    )
    .optional(),
});
/** An edit as it was typed, perhaps beyond the limits of its field. */
const roughStep = z.object({
  at: z.number(),
  edit: z.looseObject({ edit: z.enum(editSchema.options.map((o) => o.shape.edit.value)) }),
});

const keptSchema = z.object({
  shape: z.literal(2),
  version: z.number(),
  // A draft may be older than the program that opens it.
  root: z.preprocess(upgradedFormula, roughFormula),
  steps: z.array(roughStep),
  savedAfter: z.number().nullable(),
});

/** What of a draft is kept on the device. */
export function keptOf({ base, history }: Draft): unknown {
  const { root, steps, savedAfter } = history;
  return steps.length === 0 ? null : { shape: 2, version: base.version, root, steps, savedAfter };
}

/** An edit that holds a whole formula holds one of this program's shape. */
const upgradedStep = (step: z.infer<typeof roughStep>): unknown =>
  step.edit.edit === "take-version" ? { ...step, edit: { ...step.edit, formula: upgradedFormula(step.edit.formula) } } : step;

/** A draft from what was kept, or null when it cannot be read. */
export function draftFrom(body: unknown, stored: StoredFormula): Draft | null {
  const parsed = keptSchema.safeParse(body);
  if (!parsed.success) return null;
  const { version, root, steps, savedAfter } = parsed.data;
  try {
    const history = replayed(root as unknown as Formula, steps.map(upgradedStep) as unknown as EditStep[], savedAfter);
    if (!roughFormula.safeParse(current(history)).success) return null;
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
