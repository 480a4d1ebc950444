import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import type { Change } from "@uprise/contract";
import { useEffect } from "react";
import { tabId } from "../../device/tab";
import { keys } from "./keys";

/** Which answers may be others after something of a kind was written. */
const stale: Record<string, (id: string | null) => readonly (readonly unknown[])[]> = {
  formulas: (id) => [keys.formulas.all, keys.book.all, ...(id === null ? [] : [keys.formula.of(id), keys.versions.of(id)])],
  ingredients: () => [keys.ingredients.all],
  vessels: () => [keys.vessels.all],
  ovens: () => [keys.ovens.all],
  packets: () => [keys.packets.all],
  plans: (id) => [keys.plans.all, ...(id === null ? [] : [keys.plan.of(id)])],
  bakes: (id) => [keys.bakes.all, ...(id === null ? [] : [keys.bake.of(id)])],
  devices: () => [keys.devices.all],
  seasons: () => [keys.seasons.all],
  trials: (id) => [keys.trials.all, ...(id === null ? [] : [keys.trial.of(id)])],
  tastings: () => [keys.tastings.all],
  learnt: () => [keys.learnt.all, keys.ovens.all, keys.ingredients.all],
};

export function hear(queries: QueryClient, { what, id }: Pick<Change, "what" | "id">): void {
  if (what === "anything") void queries.invalidateQueries();
  else for (const queryKey of stale[what]?.(id) ?? []) void queries.invalidateQueries({ queryKey });
}

const AGAIN_MS = 3000;

/** Hears what other devices write, and asks anew for what it may have changed. A line that was broken may have missed something: all is asked anew. */
export function useChanges(on: boolean): void {
  const queries = useQueryClient();
  useEffect(() => {
    if (!on || typeof EventSource === "undefined") return;
    let own = "";
    let broken = false;
    let source: EventSource | null = null;
    let again: ReturnType<typeof setTimeout> | undefined;
    void tabId().then((tab) => (own = tab));
    const open = (): void => {
      source = new EventSource("/api/changes");
      source.onopen = () => {
        if (broken) void queries.invalidateQueries();
        broken = false;
      };
      source.onmessage = ({ data }: MessageEvent<string>) => {
        const change = parsed(data) as Change | null;
        if (change && change.by !== own) hear(queries, change);
      };
      source.onerror = () => {
        broken = true;
        if (source?.readyState !== EventSource.CLOSED) return;
        // One that was refused is closed by the browser and not tried again: perhaps this device was let go.
        void queries.invalidateQueries({ queryKey: keys.session.all });
        again = setTimeout(open, AGAIN_MS);
      };
    };
    open();
    return () => {
      clearTimeout(again);
      source?.close();
    };
  }, [on, queries]);
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
