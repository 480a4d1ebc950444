import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { whenIdle } from "../../device/idle";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";

const WAIT_MS = 3000;

/** Asks, when the line is idle, for what the bench, the store, the counter and the log show, so that they open without a network the next time. */
export function useKeepAhead(): void {
  const queries = useQueryClient();
  useEffect(() => {
    if (process.env.NODE_ENV !== "production") return;
    const ask = (queryKey: readonly unknown[], queryFn: () => Promise<unknown>): void =>
      void queries.prefetchQuery({ queryKey, queryFn, staleTime: 60_000 });
    const timer = setTimeout(
      () =>
        whenIdle(() => {
          ask(keys.ingredients.all, () => wire.ingredients());
          ask(keys.vessels.all, () => wire.vessels());
          ask(keys.ovens.all, () => wire.ovens());
          ask(keys.packets.all, () => wire.packets());
          ask(keys.trials.all, () => wire.trials());
          ask(keys.tastings.all, () => wire.tastings());
          ask(keys.seasons.all, () => wire.seasons());
          ask(keys.bakes.all, () => wire.bakes());
          void queries.prefetchInfiniteQuery({
            queryKey: keys.formulas.list(""),
            queryFn: ({ signal }) => wire.listFormulas("", 1, signal),
            initialPageParam: 1,
            staleTime: 60_000,
          });
        }, WAIT_MS),
      WAIT_MS,
    );
    return () => clearTimeout(timer);
  }, [queries]);
}
