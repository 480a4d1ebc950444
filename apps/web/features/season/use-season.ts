import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { StoredOven, StoredSeason } from "@uprise/contract";
import type { RunState, Season, SeasonState } from "@uprise/core";
import { qualityOf, qualityText } from "@uprise/core/page-log";
import { useState } from "react";
import { ask } from "../../device/workers";
import { newId, wire } from "../wire/client";
import { keepTrial } from "../wire/keep-trial";
import { keys } from "../wire/keys";

export const useSeasons = () => useQuery({ queryKey: keys.seasons.all, queryFn: ({ signal }) => wire.seasons(signal) });
export const useSeason = (id: string) => useQuery({ queryKey: keys.season.of(id), queryFn: ({ signal }) => wire.readSeason(id, signal) }); // prettier-ignore

/** A season as it stands by the log, told by the server; it tells how far it is, and can be stopped. */
export function useSeasonNow(season: Season | undefined) {
  const queries = useQueryClient();
  const [progress, setProgress] = useState(0);
  const queryKey = keys.told.of(season);
  const query = useQuery({
    queryKey,
    queryFn: ({ signal }) => {
      setProgress(0);
      return season ? wire.season(season, signal, setProgress) : null;
    },
    enabled: season !== undefined,
    placeholderData: keepPreviousData,
    // Whatever was judged since is in it: it is asked anew whenever the season is opened.
    staleTime: 0,
    retry: false,
  });
  return { ...query, progress, stop: () => void queries.cancelQueries({ queryKey }) };
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
      await queries.invalidateQueries({ queryKey: keys.told.all });
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
