import { useQueryClient } from "@tanstack/react-query";
import type { StoredFormula } from "@uprise/contract";
import { useEffect, useReducer, useRef, useState } from "react";
import { keepPaper, type Paper, takeUpPaper } from "../../device/papers";
import { hearTabs, tabId, tellTabs } from "../../device/tab";
import { keys } from "../wire/keys";
import { beginDraft, type Draft, draftFrom, draftReducer, isDirty, keptOf, says, type Step, unsavedCount } from "./draft";

/** What this device had of a formula when it was opened. */
export interface Found {
  body: unknown;
  /** Drafts that cannot be read, or that are older than the one gone on with. */
  aside: Paper[];
}

/** Looks for what was left unsaved of a formula; null until that is known. */
export function useFoundDraft(stored: StoredFormula | undefined): Found | null {
  const [found, setFound] = useState<(Found & { id: string }) | null>(null);
  const id = stored?.id;
  const first = useRef(stored);
  first.current ??= stored;
  useEffect(() => {
    if (id === undefined) return;
    let here = true;
    void takeUpPaper("draft", id, (body) => first.current !== undefined && draftFrom(body, first.current) !== null).then(
      (papers) => {
        if (here) setFound({ id, body: papers.body, aside: papers.aside });
      },
    );
    return () => {
      here = false;
    };
  }, [id]);
  return found && found.id === id ? found : null;
}

export interface DraftState {
  draft: Draft;
  step: (step: Step) => void;
  /** How many edits another tab of this browser has not saved; null when none has this formula open. */
  elsewhere: { tab: string; unsaved: number } | null;
}

/** The draft on the bench: kept on the device at every step, told to other tabs, and told by them. */
export function useDraft(stored: StoredFormula, found: Found): DraftState {
  const queries = useQueryClient();
  const [draft, step] = useReducer(draftReducer, stored, (base) => beginDraft(base, found.body));
  const [elsewhere, setElsewhere] = useState<DraftState["elsewhere"]>(null);
  const { id } = draft.base;
  const now = useRef(draft);
  useEffect(() => {
    now.current = draft;
    void keepPaper("draft", id, keptOf(draft));
    const unsaved = isDirty(draft) ? (unsavedCount(draft) ?? 1) : 0;
    void tabId().then((tab) => tellTabs({ what: "draft", formulaId: id, unsaved, tab }));
  }, [draft, id]);
  const savedVersion = draft.base.version;
  useEffect(
    () =>
      hearTabs((message) => {
        if (message.formulaId !== id) return;
        if (message.what === "draft") setElsewhere(message.unsaved > 0 ? { tab: message.tab, unsaved: message.unsaved } : null);
        if (message.what === "saved" && message.version !== now.current.base.version) {
          setElsewhere(null);
          void queries.invalidateQueries({ queryKey: keys.formula.of(id) });
          void queries.invalidateQueries({ queryKey: keys.versions.of(id) });
        }
      }),
    [id, queries],
  );
  useEffect(() => {
    // A newer one came (another tab, another device) and nothing here is unsaved: it takes its place.
    // So does one that says what is here: it went out from this very device.
    if (stored.version > savedVersion && (!isDirty(now.current) || says(now.current, stored))) step({ do: "open", stored });
  }, [stored, savedVersion]);
  return { draft, step, elsewhere };
}
