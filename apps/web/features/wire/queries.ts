import { useQuery } from "@tanstack/react-query";
import { type Book, type BookEntry, type Formula, nestedIds, noBook, shelfWith } from "@uprise/core";
import type { OvenProfile } from "@uprise/contract";
import { useMemo } from "react";
import { wire } from "./client";

export const useFormulas = (q: string) =>
  useQuery({ queryKey: ["formulas", q], queryFn: () => wire.listFormulas(q), placeholderData: (before) => before });
export const useFormula = (id: string | null) =>
  useQuery({ queryKey: ["formula", id], queryFn: () => wire.readFormula(id ?? ""), enabled: id !== null });
export const useVersions = (id: string | null) =>
  useQuery({ queryKey: ["versions", id], queryFn: () => wire.versions(id ?? ""), enabled: id !== null });
export const useVessels = () => useQuery({ queryKey: ["vessels"], queryFn: wire.vessels, staleTime: 60_000 });
export const useIngredients = () => useQuery({ queryKey: ["ingredients"], queryFn: wire.ingredients, staleTime: 60_000 });

/** The ovens of this kitchen by id. */
export function useOvens(): ReadonlyMap<string, OvenProfile> {
  const { data } = useQuery({ queryKey: ["ovens", "known"], queryFn: wire.ovens, staleTime: 60_000 });
  return useMemo(() => new Map((data?.items ?? []).map((entry) => [entry.id, entry.oven])), [data]);
}

/** The shelf of this kitchen: what ships, and what is stored as its own. Before the answer is there, what ships. */
export function useShelf() {
  const { data } = useIngredients();
  return useMemo(() => shelfWith((data?.items ?? []).filter((entry) => entry.own).map((entry) => entry.ingredient)), [data]);
}

/** Every formula that these ids name, and those that they name in turn. One that is gone is left out. */
async function readBook(ids: string[]): Promise<Map<string, BookEntry>> {
  const entries = new Map<string, BookEntry>();
  let wanted = ids;
  while (wanted.length > 0) {
    const found = await Promise.all(wanted.map((id) => wire.readFormula(id).catch(() => null)));
    const next = found.flatMap((stored) => {
      if (!stored) return [];
      entries.set(stored.id, { title: stored.formula.title, lines: stored.formula.lines });
      return nestedIds(stored.formula.lines);
    });
    wanted = [...new Set(next)].filter((id) => !entries.has(id));
  }
  return entries;
}

/** The formulas that a formula holds, for opening it; `pending` until they are here. */
export function useBook(formula: Formula): { book: Book; pending: boolean } {
  const ids = nestedIds([...formula.lines, ...(formula.parts ?? []).flatMap((part) => part.additions)]).sort();
  const { data } = useQuery({ queryKey: ["book", ids], queryFn: () => readBook(ids), enabled: ids.length > 0, staleTime: 30_000 });
  const book = useMemo<Book>(() => (data ? (id) => data.get(id) : noBook), [data]);
  return { book, pending: ids.length > 0 && data === undefined };
}
