import {
  type QueryClient,
  queryOptions,
  useInfiniteQuery,
  useQuery,
  useQueryClient,
  useSuspenseQuery,
} from "@tanstack/react-query";
import type { FormulaSummary, OvenProfile, StoredFormula, StoredOven, StoredVessel } from "@uprise/contract";
import type { Book, BookEntry, Formula, Kitchen, NamedVessel, Ingredient, Shelf } from "@uprise/core";
import { bookEntryOf, nestedIds, vesselLibrary } from "@uprise/core/page";
import { useMemo } from "react";
import { ask } from "../../device/workers";
import type { KitchenData } from "../../workers/tasks";
import { wire, WireError } from "./client";
import { keys } from "./keys";

const MINUTE_MS = 60_000;
const UNREAD_MS = 3000;

export const useFormulas = (q: string) =>
  useInfiniteQuery({
    queryKey: keys.formulas.list(q),
    queryFn: ({ pageParam, signal }) => wire.listFormulas(q, pageParam, signal),
    initialPageParam: 1,
    getNextPageParam: ({ page, pageSize, total }) => (page * pageSize < total ? page + 1 : undefined),
    placeholderData: (before) => before,
    // What the server has not computed yet is there in some seconds, and is told; a word of it may be lost.
    refetchInterval: ({ state }) =>
      state.data?.pages.some(({ items }) => items.some(({ glance }) => glance === undefined)) ? UNREAD_MS : false,
  });

/** A formula as some list has brought it, whole; it stands until it is asked for by itself, and without a network. */
function fromLists(queries: QueryClient, id: string): { formula: StoredFormula; at: number } | null {
  for (const query of queries.getQueryCache().findAll({ queryKey: keys.formulas.all })) {
    const data = query.state.data as { pages?: { items: FormulaSummary[] }[] } | undefined;
    const item = data?.pages?.flatMap(({ items }) => items).find((one) => one.id === id);
    if (!item?.formula) continue;
    const { version, createdAt, updatedAt, formula } = item;
    return { formula: { id, version, createdAt, updatedAt, formula }, at: query.state.dataUpdatedAt };
  }
  return null;
}

/** A formula as this device knows it, without asking anybody. */
export function formulaHere(queries: QueryClient, id: string): { formula: StoredFormula; at: number } | null {
  const formula = queries.getQueryData<StoredFormula>(keys.formula.of(id));
  return formula ? { formula, at: 0 } : fromLists(queries, id);
}

export function useFormula(id: string) {
  const queries = useQueryClient();
  return useQuery({
    queryKey: keys.formula.of(id),
    queryFn: ({ signal }) => wire.readFormula(id, signal),
    initialData: () => fromLists(queries, id)?.formula,
    initialDataUpdatedAt: () => fromLists(queries, id)?.at,
  });
}

export const useVersions = (id: string) =>
  useQuery({ queryKey: keys.versions.of(id), queryFn: ({ signal }) => wire.versions(id, signal) });

/** The kitchen's own ingredients. */
export const useIngredients = () =>
  useQuery({ queryKey: keys.ingredients.all, queryFn: ({ signal }) => wire.ingredients(signal), staleTime: MINUTE_MS });

export interface Pan extends NamedVessel {
  /** Where it is the kitchen's own and not one that ships with Uprise. */
  own: StoredVessel | null;
}

/** The kitchen's own pans before those that ship. */
export function useVessels() {
  const { data, error, refetch, isPending } = useQuery({
    queryKey: keys.vessels.all,
    queryFn: ({ signal }) => wire.vessels(signal),
    staleTime: MINUTE_MS,
  });
  const pans = useMemo(
    (): Pan[] => [
      ...(data ?? []).map((own) => ({ id: own.id, name: own.name, vessel: own.vessel, own })),
      ...vesselLibrary.map((entry) => ({ ...entry, own: null })),
    ],
    [data],
  );
  return { pans, error, refetch, isPending };
}

/** The packets on the kitchen's shelf. */
export const usePackets = () =>
  useQuery({ queryKey: keys.packets.all, queryFn: ({ signal }) => wire.packets(signal), staleTime: MINUTE_MS });

/** The bakes of the log, and its rounds of blind tasting. */
export const useTrials = () => useQuery({ queryKey: keys.trials.all, queryFn: ({ signal }) => wire.trials(signal) });
export const useTastings = () => useQuery({ queryKey: keys.tastings.all, queryFn: ({ signal }) => wire.tastings(signal) });

const useStoredOvens = () =>
  useQuery({ queryKey: keys.ovens.all, queryFn: ({ signal }) => wire.ovens(signal), staleTime: MINUTE_MS });

export function useOvenList() {
  const { data, error, refetch } = useStoredOvens();
  return { ovens: data as StoredOven[] | undefined, error, refetch };
}

const profilesOf = (stored: readonly StoredOven[]): ReadonlyMap<string, OvenProfile> =>
  new Map(stored.map((entry) => [entry.id, entry.oven]));

/** Every formula that these ids name, and those that they name in turn. One that is gone is left out; no answer is an error. */
async function readBook(ids: readonly string[], shelf: Shelf, signal: AbortSignal): Promise<Map<string, BookEntry>> {
  const entries = new Map<string, BookEntry>();
  let wanted = [...ids];
  while (wanted.length > 0) {
    const found = await Promise.all(
      wanted.map((id) =>
        wire.readFormula(id, signal).catch((error: unknown) => {
          if (error instanceof WireError && error.status === 404) return null;
          throw error;
        }),
      ),
    );
    const next = found.flatMap((stored) => {
      if (!stored) return [];
      const entry = bookEntryOf(stored.formula, shelf);
      entries.set(stored.id, entry);
      return nestedIds(entry.lines);
    });
    wanted = [...new Set(next)].filter((id) => !entries.has(id));
  }
  return entries;
}

/** The kitchen with all that is known of its ovens, and as plain data for a worker. */
export type KitchenHere = Omit<Kitchen, "ovens"> & { ovens: ReadonlyMap<string, OvenProfile>; data: KitchenData };

export interface KitchenState {
  kitchen: KitchenHere;
  /** Until it is ready, only what ships with Uprise is known. */
  state: "loading" | "failed" | "ready";
  error: string | null;
  retry: () => void;
}

/** What ships with Uprise, from the worker that has it. */
const pantry = queryOptions({
  queryKey: keys.pantry.all,
  queryFn: () => ask("pantry"),
  staleTime: Infinity,
  gcTime: Infinity,
  networkMode: "always",
});

/** What ships, and a kitchen's own before it. */
export function shelfFrom(pantry: readonly Ingredient[], own: readonly Ingredient[]): Shelf {
  const mine = new Map(own.map((entry) => [entry.id, entry]));
  const all = [...own, ...pantry.filter(({ id }) => !mine.has(id))];
  const byId = new Map(all.map((entry) => [entry.id, entry]));
  return { get: (id) => byId.get(id), all: () => all, own };
}
const none: readonly never[] = [];

const idsIn = (formula: Formula | null): string[] =>
  formula ? nestedIds([...formula.lines, ...(formula.parts ?? []).flatMap((part) => part.additions)]).sort() : [];

/** The kitchen that a formula is opened in: shelf, ovens, and the formulas that it holds. Whoever asks is drawn when the shelf is here. */
export function useKitchen(formula: Formula | null): KitchenState {
  useSuspenseQuery(pantry);
  return useKitchenSoon(formula);
}

/** The same for what is drawn before: until the shelf is here (`isStocked`), nothing is on it. */
export function useKitchenSoon(formula: Formula | null): KitchenState {
  const shipped = useQuery(pantry);
  const stored = useIngredients();
  const ovens = useStoredOvens();
  const ids = idsIn(formula);
  const own = useMemo(() => (stored.data ?? none).map((entry) => entry.ingredient), [stored.data]);
  const shelf = useMemo(() => shelfFrom(shipped.data ?? none, own), [shipped.data, own]);
  const book = useQuery({
    queryKey: keys.book.of(ids),
    queryFn: ({ signal }) => readBook(ids, shelf, signal),
    enabled: ids.length > 0 && shipped.data !== undefined,
    staleTime: MINUTE_MS / 2,
  });
  const measures = formula?.measures ?? "us";
  const kitchen = useMemo((): KitchenHere => {
    const entries = [...(book.data ?? [])];
    const find: Book = (id) => book.data?.get(id);
    const profiles = profilesOf(ovens.data ?? none);
    const known = [...profiles].map(([id, { biasK, swingK }]): KitchenData["ovens"][number] => [id, { biasK, swingK }]);
    return { shelf, book: find, ovens: profiles, measures, data: { own, entries, ovens: known, measures } };
  }, [shelf, own, ovens.data, book.data, measures]);
  const parts = [shipped, stored, ovens, ...(ids.length > 0 ? [book] : [])];
  const failed = parts.find((part) => part.isError && part.data === undefined);
  return {
    kitchen,
    state: failed ? "failed" : parts.some((part) => part.isPending) ? "loading" : "ready",
    error: failed?.error?.message ?? null,
    retry: () => void Promise.all(parts.filter((part) => part.isError).map((part) => part.refetch())),
  };
}
