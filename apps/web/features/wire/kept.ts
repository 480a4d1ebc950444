import { dehydrate, type DehydratedState, hydrate, type QueryClient } from "@tanstack/react-query";
import { forgetAll } from "../../device/leave";
import { forgetAnswers, keepAnswers, keptAnswers } from "../../device/answers";
import type { sessionSchema } from "@uprise/contract";
import type { z } from "zod";
import { keys } from "./keys";

type Session = z.infer<typeof sessionSchema>;

/** What the application needs to open without a network: formulas, shelves, days, bakes, trials, who came in. Never what was computed or is secret. */
const KEPT = new Set<unknown>(
  [keys.formulas.all, keys.formula.all, keys.book.all, keys.ingredients.all, keys.vessels.all, keys.ovens.all, keys.packets.all, keys.plans.all, keys.bakes.all, keys.trials.all, keys.tastings.all, keys.seasons.all, keys.devices.all, keys.session.all, keys.plan.of(""), keys.bake.of(""), keys.trial.of("")].map(([first]) => first),
); // prettier-ignore
/** Written no oftener than so, ms. */
const PAUSE_MS = 2000;
/** Answers older than this are not shown as if they were of today. */
const OLDEST_MS = 60 * 86_400_000;
/** Older than anything that was asked for since the page was loaded. */
const OF_BEFORE = 1;
/** Of another shape of answers nothing is taken. */
const SHAPE = "1";

/** Whether an answer may be built upon: it was asked for since the page was loaded, or nobody answered. What was kept may be shown at once, and not yet be changed. */
export const isSettled = ({ dataUpdatedAt, isFetching }: { dataUpdatedAt: number; isFetching: boolean }): boolean =>
  dataUpdatedAt > OF_BEFORE || !isFetching;

/** For what is asked once for each load of the page: what was kept of a load before never stands in for the answer. */
export const oncePerPage = ({ state }: { state: { dataUpdatedAt: number } }): number =>
  state.dataUpdatedAt > OF_BEFORE ? Infinity : 0;

/** That somebody stood before the door is not kept: it would shut out who has come in since, until the answer is there, and lose the place that was asked for. */
const isOutside = ([first]: readonly unknown[], data: unknown): boolean =>
  first === keys.session.all[0] && (data as Session).needed && (data as Session).here === null;

/** Brings what was kept on this device into the cache, and keeps what comes; gives how to stop that. */
export function keepAnswersOf(queries: QueryClient): () => void {
  for (const first of KEPT) queries.setQueryDefaults([first], { gcTime: Infinity });
  let timer: ReturnType<typeof setTimeout> | undefined;
  let over = false;
  const write = (): void => {
    timer = undefined;
    const state = dehydrate(queries, {
      shouldDehydrateMutation: () => false,
      shouldDehydrateQuery: ({ queryKey, state: { data } }) =>
        KEPT.has(queryKey[0]) && data !== undefined && !isOutside(queryKey, data),
    });
    // An empty sheet is not kept: it would stand where somebody was let go, or over what is still being brought back.
    if (state.queries.length > 0) void keepAnswers({ shape: SHAPE, at: Date.now(), state });
  };
  const stop = queries.getQueryCache().subscribe(({ type }) => {
    if (type === "updated" || type === "added") timer ??= setTimeout(write, PAUSE_MS);
  });
  void keptAnswers().then((kept) => {
    if (over || !kept || kept.shape !== SHAPE || Date.now() - kept.at > OLDEST_MS) return;
    const { queries: answers, ...rest } = kept.state as DehydratedState;
    // However fresh it was when it was kept, it is asked for anew where there is somebody to ask.
    const inside = answers.filter(({ queryKey, state: { data } }) => !isOutside(queryKey, data));
    hydrate(queries, { ...rest, queries: inside.map((one) => ({ ...one, state: { ...one.state, dataUpdatedAt: OF_BEFORE } })) });
  });
  return () => {
    over = true;
    clearTimeout(timer);
    stop();
  };
}

/** Forgets the kitchen's answers on this device; where it was let go or leaves, drafts and what waits to be sent as well. */
export async function forgetKitchen(queries: QueryClient, all = false): Promise<void> {
  queries.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== keys.session.all[0] });
  await (all ? forgetAll() : forgetAnswers());
}
