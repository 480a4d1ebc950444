import { describeEdit } from "./edit-words";
import { applyEdit, applyEdits, fieldOf, mergeEdits } from "./edits";
import type { Edit } from "./edits-schema";
import type { Formula } from "./formula";

/** An edit with the moment it was made, ms. */
export interface Step {
  edit: Edit;
  at: number;
}

/**
 * A formula under work: where its history begins, the steps since, and after how many of them it was last saved (null when that point was
 * undone or is too long ago). What undo goes back to is computed from the steps, so that the steps alone need be kept.
 */
export interface History {
  root: Formula;
  steps: readonly Step[];
  savedAfter: number | null;
  /** The formula after each step; the last is what stands on the bench. */
  after: readonly Formula[];
}

/** Edits of one field that follow each other within this time are one step of undo, ms. */
const ONE_GO_MS = 8000;
const MOST_STEPS = 200;

export const begun = (root: Formula): History => ({ root, steps: [], savedAfter: 0, after: [] });

export const current = (history: History): Formula => history.after.at(-1) ?? history.root;

/** The history with an edit; where it goes on with the same field in the same go, it joins the step before. */
export function edited(history: History, edit: Edit, at: number): History {
  const now = current(history);
  const last = history.steps.at(-1);
  const field = fieldOf(edit);
  const sameGo =
    last !== undefined &&
    field !== null &&
    field === fieldOf(last.edit) &&
    at - last.at < ONE_GO_MS &&
    history.savedAfter !== history.steps.length;
  const next = applyEdit(now, edit);
  if (sameGo) {
    return {
      ...history,
      steps: [...history.steps.slice(0, -1), { edit: mergeEdits(last.edit, edit), at }],
      after: [...history.after.slice(0, -1), next],
    };
  }
  const steps = [...history.steps, { edit, at }];
  const after = [...history.after, next];
  if (steps.length <= MOST_STEPS) return { ...history, steps, after };
  const saved = history.savedAfter === null ? null : history.savedAfter - 1;
  return {
    root: after[0] ?? history.root,
    steps: steps.slice(1),
    after: after.slice(1),
    savedAfter: saved !== null && saved >= 0 ? saved : null,
  };
}

export function undone(history: History): History {
  if (history.steps.length === 0) return history;
  const steps = history.steps.slice(0, -1);
  const { savedAfter } = history;
  return {
    ...history,
    steps,
    after: history.after.slice(0, -1),
    savedAfter: savedAfter !== null && savedAfter > steps.length ? null : savedAfter,
  };
}

export const saved = (history: History): History => ({ ...history, savedAfter: history.steps.length });

/** The steps that are not saved yet, or null when what was saved lies among what was undone. */
export const unsaved = ({ steps, savedAfter }: History): readonly Step[] | null =>
  savedAfter === null ? null : steps.slice(savedAfter);

/** The unsaved steps made again on another version of the formula: both sides' edits are in it. */
export function rebased(history: History, onto: Formula): History | null {
  const steps = unsaved(history);
  return steps && replayed(onto, steps, 0);
}

/** A history from its root and steps, as they were kept. */
export function replayed(root: Formula, steps: readonly Step[], savedAfter: number | null): History {
  const after: Formula[] = [];
  let formula = root;
  for (const { edit } of steps) after.push((formula = applyEdit(formula, edit)));
  return { root, steps, savedAfter, after };
}

const MOST_REASON = 300;

/** Why a version is saved: its unsaved edits in words, each field once with where it began and ended. */
export function reasonOf(history: History, base: Formula, nameOf: (ingredientId: string) => string): string {
  const steps = unsaved(history) ?? [];
  const start = applyEdits(
    history.root,
    history.steps.slice(0, history.steps.length - steps.length).map(({ edit }) => edit),
  );
  const before = steps.length > 0 ? start : base;
  const net = new Map<string, Edit>();
  steps.forEach(({ edit }, index) => {
    const key = fieldOf(edit) ?? `step ${index}`;
    const earlier = net.get(key);
    net.set(key, earlier ? mergeEdits(earlier, edit) : edit);
  });
  const told: string[] = [];
  let formula = before;
  for (const edit of net.values()) {
    told.push(describeEdit(edit, formula, nameOf));
    formula = applyEdit(formula, edit);
  }
  const shown = told.slice(0, 3).join("; ");
  return (told.length > 3 ? `${shown}; and ${told.length - 3} more` : shown).slice(0, MOST_REASON);
}
