import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { StoredOven, StoredPacket, StoredSeason, StoredTasting, StoredTrial } from "@uprise/contract";
import type { RunState, Season, SeasonAsked, SeasonState } from "@uprise/core";
import { MOST_TRIALS, qualityOf, qualityText } from "@uprise/core/page-log";
import { useMemo, useState } from "react";
import { ask, askTold } from "../../device/workers";
import { newId, wire } from "../wire/client";
import { keepTrial } from "../wire/keep-trial";
import { keys } from "../wire/keys";
import { useKitchenSoon, usePackets, useTastings, useTrials } from "../wire/queries";

export const useSeasons = () => useQuery({ queryKey: keys.seasons.all, queryFn: ({ signal }) => wire.seasons(signal) });
export const useSeason = (id: string) => useQuery({ queryKey: keys.season.of(id), queryFn: ({ signal }) => wire.readSeason(id, signal) }); // prettier-ignore

/** What a season is told with: the log's bakes of its formula, rounds of tasting, packets for what it costs. */
const askedWith = (season: Season, trials: readonly StoredTrial[], tastings: readonly StoredTasting[], packets: readonly StoredPacket[]): SeasonAsked => ({
  season,
  trials: trials
    .filter(({ trial }) => season.formulaId === undefined || trial.formulaId === season.formulaId)
    .slice(0, MOST_TRIALS),
  tastings: tastings.map(({ tasting }) => tasting),
  packets: packets.map(({ packet }) => packet),
}); // prettier-ignore

/** A season as it stands by the log, told in the worker beside the page, so that it needs no network; it tells how far it is, and can be stopped. */
export function useSeasonNow(season: Season | undefined) {
  const queries = useQueryClient();
  const [progress, setProgress] = useState(0);
  const { kitchen, state, error, retry } = useKitchenSoon(season?.formula ?? null);
  const [trials, tastings, packets] = [useTrials(), useTastings(), usePackets()];
  const parts = [trials, tastings, packets];
  const missing =
    parts.find(({ data, isError }) => data === undefined && isError)?.error?.message ?? (state === "failed" ? error : null);
  const asked = useMemo(
    () => season && trials.data && tastings.data && packets.data && askedWith(season, trials.data, tastings.data, packets.data),
    [season, trials.data, tastings.data, packets.data],
  );
  const queryKey = keys.told.of([asked, kitchen.data]);
  const query = useQuery({
    queryKey,
    queryFn: ({ signal }) => {
      setProgress(0);
      return asked ? askTold("season", [asked, kitchen.data], setProgress, signal) : null;
    },
    enabled: asked !== undefined && state === "ready",
    placeholderData: keepPreviousData,
    // The same log tells the same.
    staleTime: Infinity,
    retry: false,
    networkMode: "always",
  });
  return {
    data: query.data,
    error: missing === null ? query.error : new Error(missing),
    isFetching: query.isFetching,
    /** The log, the shelf or the formula is not here yet. */
    isWaiting: season !== undefined && missing === null && (asked === undefined || state === "loading"),
    refetch: async (): Promise<unknown> => {
      if (state === "failed") retry();
      await Promise.all(parts.filter(({ isError }) => isError).map((part) => part.refetch()));
      return query.refetch();
    },
    progress,
    stop: () => void queries.cancelQueries({ queryKey }),
  };
}

const plain = ({ id, settings, kind, block, why }: RunState): Season["runs"][number] => ({ id, settings, kind: kind === "logged" ? "first" : kind, block, why }); // prettier-ignore

/** Takes what is proposed into the season: from then on these are its bakes. */
export function useTakeRuns(stored: StoredSeason) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (proposed: readonly RunState[]) =>
      wire.changeSeason(stored.id, stored.version, {
        ...stored.season,
        runs: [...stored.season.runs, ...proposed.map(plain)],
        since: stored.season.since ?? new Date().toISOString(),
      }),
    onSuccess: (saved) => {
      queries.setQueryData(keys.season.of(stored.id), saved);
      void queries.invalidateQueries({ queryKey: keys.seasons.all, exact: true });
    },
  });
}

/** Writes on a season that is kept: its number of bakes. */
export function useChangeSeason(stored: StoredSeason) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (set: Partial<Season>) => wire.changeSeason(stored.id, stored.version, { ...stored.season, ...set }),
    onSuccess: (saved) => queries.setQueryData(keys.season.of(stored.id), saved),
  });
}

/** Takes a season off the list, and puts it back. Its trials stay in the log. */
export function useRemoveSeason(stored: StoredSeason) {
  const queries = useQueryClient();
  const onSuccess = (): Promise<void> => queries.invalidateQueries({ queryKey: keys.seasons.all, exact: true });
  const remove = useMutation({ mutationFn: () => wire.removeSeason(stored.id, stored.version), onSuccess });
  const back = useMutation({
    mutationFn: () => wire.restoreSeason(stored.id),
    onSuccess: (saved) => {
      queries.setQueryData(keys.season.of(stored.id), saved);
      remove.reset();
      return onSuccess();
    },
  });
  return { remove, back };
}

/** Writes the results of a table into the log, a trial for each bake that has none yet; gives back how many. */
export function useResults({ season }: StoredSeason) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ text, runs }: { text: string; runs: readonly RunState[] }) => {
      const results = await ask("season-results", text, season, runs);
      for (const { run, measured, scores, notes } of results)
        await keepTrial(queries, newId(), {
          title: `${season.title}, ${run.id.replace("run-", "bake ")}`.slice(0, 160),
          ...(season.formulaId === undefined ? {} : { formulaId: season.formulaId }),
          ...(season.formulaVersion === undefined ? {} : { formulaVersion: season.formulaVersion }),
          formula: run.formula,
          at: new Date().toISOString(),
          ...(run.formula.oven.ovenId === undefined ? {} : { ovenId: run.formula.oven.ovenId }),
          measured: { ...(run.minutes === undefined ? {} : { minutes: run.minutes }), ...measured },
          seen: [],
          scores,
          notes,
          photos: [],
          tags: ["season"],
        }, null);
      return results.length;
    },
  });
} // prettier-ignore

/** What is known of a bake, in words: for the reason of a version. */
export function evidenceOf({ goals }: Season, run: RunState, made: number): string {
  const told = goals.filter(({ wish }) => wish !== undefined).map(({ quality }) => {
    const of = qualityOf(quality);
    const range = run.expected[quality];
    return range ? `${of.name.toLowerCase()} ${qualityText(of, range.mid)} (${range.low.toFixed(of.digits)} to ${range.high.toFixed(of.digits)})` : "";
  });
  return `after ${made} bakes: ${told.join(", ")}`;
} // prettier-ignore

/** The best bake of a season as the next version of its formula, with what it is known by. */
export function useKeepBest({ season }: StoredSeason) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ best, made }: { best: RunState; made: number }) => {
      const reason = `Season “${season.title}”, ${evidenceOf(season, best, made)}`.slice(0, 300);
      const { title: _, ...rest } = best.formula;
      const formula = { ...rest, ...(season.formula.pasted ? { pasted: season.formula.pasted } : {}) };
      const there = season.formulaId === undefined ? null : await wire.readFormula(season.formulaId);
      const saved = there
        ? await wire.changeFormula(there.id, there.version, { ...formula, title: there.formula.title, reason })
        : await wire.createFormula({ ...formula, title: best.formula.title, id: newId(), reason });
      await queries.invalidateQueries({ queryKey: keys.formulas.all });
      queries.removeQueries({ queryKey: keys.formula.of(saved.id) });
      return saved.id;
    },
  });
}

/** A baking day begins tomorrow at half past five. */
function tomorrowEarly(): string {
  const at = new Date(Date.now() + 86_400_000);
  at.setHours(5, 30, 0, 0);
  return at.toISOString();
}

/** Puts the bakes of a season's next block into a day of their own. */
export function usePlanRuns({ season }: StoredSeason, ovens: readonly StoredOven[]) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (runs: readonly RunState[]) => {
      const bakes = runs.map(({ id, formula }) => {
        const { lines, components, kind, vessel, oven, process, measures } = formula;
        return { id, title: `${season.title}, ${id.replace("run-", "bake ")}`, lines, ...(components ? { components } : {}), kind, vessel, oven, process, measures, batches: 1 };
      });
      const saved = await wire.createPlan({ id: newId(), title: season.title, day: { start: tomorrowEarly(), bakes, ovens: ovens.map(({ id, oven }) => ({ id, ...oven, racks: oven.racks ?? 2 })), hands: 1, mixers: 1 } });
      await queries.invalidateQueries({ queryKey: keys.plans.all });
      return saved.id;
    },
  });
} // prettier-ignore

/** The open runs that are baked next together. */
export function nextBlock(state: SeasonState): RunState[] {
  const open = state.runs.filter(({ trialId, kind }) => trialId === undefined && kind !== "logged");
  return open.filter(({ block }) => block === open[0]?.block);
}
