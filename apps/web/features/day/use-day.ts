import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { PlanRequest, StoredPlan } from "@uprise/contract";
import { useEffect, useRef, useState } from "react";
import { wire, WireError } from "../wire/client";
import { keys } from "../wire/keys";

/** A day as it is written on, saved as it goes; what was before the last change can be had back. */
export function useDay(stored: StoredPlan) {
  const queries = useQueryClient();
  const [kept, setKept] = useState({ title: stored.title, day: stored.day });
  const [before, setBefore] = useState<{ title: string; day: PlanRequest } | null>(null);
  const version = useRef(stored.version);
  const save = useMutation({
    // One after the other: each stands on the version that the one before it made.
    scope: { id: `plan-${stored.id}` },
    mutationFn: async (next: { title: string; day: PlanRequest }) => {
      const saved = await wire.changePlan(stored.id, version.current, next);
      version.current = saved.version;
      return saved;
    },
    onSuccess: (saved) => {
      queries.setQueryData(keys.plan.of(stored.id), saved);
      void queries.invalidateQueries({ queryKey: keys.plans.all });
    },
  });
  const failed = save.isError;
  const saving = save.isPending;
  useEffect(() => {
    // Another device saved a newer one (or this one showed what it had kept), and nothing here is on its way: the newer takes its place.
    if (stored.version <= version.current || saving || failed) return;
    version.current = stored.version;
    setKept({ title: stored.title, day: stored.day });
    setBefore(null);
  }, [stored, saving, failed]);
  const put = (next: { title: string; day: PlanRequest }): void => {
    setKept(next);
    if (next.title.trim() !== "" && next.day.bakes.length > 0) save.mutate(next);
  };
  return {
    ...kept,
    change: (set: Partial<PlanRequest>): void => {
      setBefore(kept);
      put({ ...kept, day: { ...kept.day, ...set } });
    },
    rename: (title: string): void => put({ ...kept, title }),
    undo: before
      ? (): void => {
          setBefore(null);
          put(before);
        }
      : null,
    saving,
    /** Another device saved it meanwhile, or nothing answers: what is here stays on the screen. */
    fault: save.error instanceof WireError ? save.error.message : (save.error?.message ?? null),
    retry: () => save.mutate(kept),
  };
}

/** The plan of a day, computed by the server; the last one stays until the newer is here. It tells how far it is, and can be stopped. */
export function usePlanned(day: PlanRequest | null) {
  const queries = useQueryClient();
  const [progress, setProgress] = useState(0);
  const queryKey = keys.planned.of(day);
  const query = useQuery({
    queryKey,
    queryFn: ({ signal }) => {
      setProgress(0);
      return day ? wire.plan(day, signal, setProgress) : null;
    },
    enabled: day !== null && day.bakes.length > 0,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  });
  return {
    ...query,
    progress,
    /** What is on the screen is of the day as it was before: the newer plan was stopped. */
    stopped: !query.isFetching && (query.isPlaceholderData || query.isPending) && day !== null && day.bakes.length > 0,
    stop: () => void queries.cancelQueries({ queryKey }),
  };
}

export const usePlans = () => useQuery({ queryKey: keys.plans.all, queryFn: ({ signal }) => wire.plans(signal) });
export const usePlan = (id: string) => useQuery({ queryKey: keys.plan.of(id), queryFn: ({ signal }) => wire.readPlan(id, signal) });
