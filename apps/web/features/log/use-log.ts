import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { FaultsRequest, NextRequest, StoredTrial } from "@uprise/contract";
import type { FaultRemedy, Formula, Edit, Trial } from "@uprise/core";
import { applyEdits } from "@uprise/core/page";
import { seenFrom } from "@uprise/core/page-log";
import { wire, WireError } from "../wire/client";
import { keys } from "../wire/keys";

export const useTrial = (id: string) =>
  useQuery({ queryKey: keys.trial.of(id), queryFn: ({ signal }) => wire.readTrial(id, signal) });

/** What the fault finder is asked of a trial. */
export function askedOf(trial: Trial, ovenBiasK?: number): FaultsRequest {
  const { formula, measured, slips, powderAgeMonths, seen, scores } = trial;
  const byHand = new Set(seen.map(({ symptomId }) => symptomId));
  const { lines, components, kind, vessel, oven, process, measures } = formula;
  const cups = formula.lines.some(({ unit }) => unit === "cup");
  return {
    lines: lines.map(({ ingredientId, grams, component }) => ({ ingredientId, grams, component })),
    ...(components ? { components } : {}),
    kind,
    vessel,
    oven,
    process,
    measures,
    seen: [...seen, ...seenFrom(scores).filter(({ symptomId }) => !byHand.has(symptomId))],
    measured,
    ...(slips && slips.length > 0 ? { slips } : {}),
    kitchen: {
      ...(powderAgeMonths === undefined ? {} : { powderAgeMonths }),
      ...(ovenBiasK === undefined ? {} : { ovenBiasK }),
      ...(cups ? {} : { weighedShare: trial.cups && trial.cups.length > 0 ? 0 : 1 }),
    },
  };
}

/** How much hotter the trial's oven is than what the bake reckoned with, as the log has it; K, undefined until it is known. */
export function useOvenLearnt({ ovenId, formula }: Trial): number | undefined {
  const { data } = useQuery({
    queryKey: keys.learnt.all,
    queryFn: ({ signal }) => wire.calibrate(signal),
    staleTime: 60_000,
    retry: false,
  });
  const oven = ovenId ?? formula.oven.ovenId;
  const mode = formula.oven.mode ?? "still";
  return data?.learnt.find((one) => one.kind === "oven" && !one.accepted && one.of === oven && one.mode === mode)?.value.mid;
}

export const useFaults = (asked: FaultsRequest | null) =>
  useQuery({
    queryKey: keys.faults.of(asked),
    queryFn: ({ signal }) => (asked ? wire.faults(asked, signal) : null),
    enabled: asked !== null,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    // A server that has too much to do is asked again; what is refused otherwise is told.
    retry: (count, error) => count < 2 && error instanceof WireError && error.status === 503,
  });

export const useNext = (asked: NextRequest | null) =>
  useQuery({
    queryKey: keys.next.of(asked),
    queryFn: ({ signal }) => (asked ? wire.next(asked, signal) : null),
    enabled: asked !== null,
    staleTime: Infinity,
    retry: false,
  });

/** The edits that a remedy makes: one thing changed. */
export function editsOf({ title, changes, set }: Pick<FaultRemedy, "title" | "changes" | "set">): Edit[] {
  return [
    ...(changes.length > 0 ? [{ edit: "take-changes" as const, title, changes }] : []),
    ...(set?.oven ? [{ edit: "set-oven" as const, set: ovenWithoutProfile(set.oven), ...(set.oven.shelf === undefined ? { clear: ["shelf"] } : {}) }] : []),
    ...(set?.process ? [{ edit: "set-process" as const, set: set.process }] : []),
    ...(set?.vessel ? [{ edit: "set-vessel" as const, set: set.vessel, whole: true }] : []),
  ];
} // prettier-ignore

/** What an oven is known for stays in its profile. */
const ovenWithoutProfile = ({ biasK: _, swingK: _s, ...oven }: NonNullable<NonNullable<FaultRemedy["set"]>["oven"]>) => oven;

/** A formula that was taken off the list is gone; whatever else went wrong is told. */
const ifGone = (error: unknown): null => {
  if (error instanceof WireError && error.status === 404) return null;
  throw error;
};

/** Takes a remedy as the next version of the trial's formula, or as a formula of its own where that one is gone; gives back its id. */
export function useTakeNext(stored: StoredTrial) {
  const queries = useQueryClient();
  const { trial } = stored;
  return useMutation({
    mutationFn: async (remedy: FaultRemedy) => {
      const reason = `${remedy.title}, after “${trial.title}”`;
      const there = trial.formulaId === undefined ? null : await wire.readFormula(trial.formulaId).catch(ifGone);
      // Where the formula has moved on since it was baked, what was changed since then stays.
      const base: Formula = there && there.version !== trial.formulaVersion ? there.formula : trial.formula;
      const next = applyEdits(base, editsOf(remedy));
      const saved = there
        ? await wire.changeFormula(there.id, there.version, { ...next, title: there.formula.title, reason })
        : await wire.createFormula({ ...next, id: `next-${stored.id}`.slice(0, 60), reason });
      await queries.invalidateQueries({ queryKey: keys.formulas.all });
      queries.removeQueries({ queryKey: keys.formula.of(saved.id) });
      return saved.id;
    },
  });
}
