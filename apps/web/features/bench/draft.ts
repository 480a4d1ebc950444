import { hashKey } from "@tanstack/react-query";
import type { StoredFormula } from "@uprise/contract";
import { type Formula, formulaSchema } from "@uprise/core";
import { z } from "zod";
import { readDevice, writeDevice } from "../../ui/device";

/** What is under work: the formula as it stands, what undo goes back to, and the stored version it was made from. */
export interface Draft {
  formula: Formula;
  past: Formula[];
  base: StoredFormula;
}

const UNDO_STEPS = 100;

export type Step =
  | { do: "edit"; make: (formula: Formula) => Formula }
  /** A change of the same field within one go at it: it does not get an undo step of its own. */
  | { do: "refine"; make: (formula: Formula) => Formula }
  | { do: "undo" }
  | { do: "open"; stored: StoredFormula }
  | { do: "saved"; stored: StoredFormula };

/** Changes the formula on the bench; `fold` when it goes on with the same change and needs no undo step of its own. */
export type Change = (make: (formula: Formula) => Formula, fold?: boolean) => void;

export function draftReducer(draft: Draft, step: Step): Draft {
  switch (step.do) {
    case "edit": {
      const formula = step.make(draft.formula);
      return formula === draft.formula ? draft : { ...draft, formula, past: [...draft.past, draft.formula].slice(-UNDO_STEPS) };
    }
    case "refine":
      return { ...draft, formula: step.make(draft.formula) };
    case "undo": {
      const before = draft.past.at(-1);
      return before ? { ...draft, formula: before, past: draft.past.slice(0, -1) } : draft;
    }
    case "open":
      return { formula: step.stored.formula, past: [], base: step.stored };
    case "saved":
      return { ...draft, base: step.stored };
  }
}

/** Whether the bench differs from what is stored, whatever the order in which fields stand. */
export const isDirty = (draft: Draft): boolean => hashKey([draft.formula]) !== hashKey([draft.base.formula]);

const keptSchema = z.object({ version: z.number(), formula: formulaSchema });

/** A draft for a stored formula: what this device kept unsaved, or the stored one. */
export function openDraft(stored: StoredFormula): Draft {
  const kept = readDevice(`draft.${stored.id}`);
  if (kept !== null) {
    const parsed = keptSchema.safeParse(JSON.parse(kept));
    if (parsed.success)
      return { formula: parsed.data.formula, past: [stored.formula], base: { ...stored, version: parsed.data.version } };
  }
  return { formula: stored.formula, past: [], base: stored };
}

/** Keeps an unsaved draft on this device, or forgets it when it is saved. */
export function keepDraft(draft: Draft): void {
  writeDevice(
    `draft.${draft.base.id}`,
    isDirty(draft) ? JSON.stringify({ version: draft.base.version, formula: draft.formula }) : null,
  );
}

/** The formula that was last on the bench. */
export const lastOpened = (): string | null => readDevice("last");
export const rememberOpened = (id: string): void => writeDevice("last", id);
