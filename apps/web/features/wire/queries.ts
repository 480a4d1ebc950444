import { useQuery } from "@tanstack/react-query";
import { shelfWith } from "@uprise/core";
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

/** The shelf of this kitchen: what ships, and what is stored as its own. Before the answer is there, what ships. */
export function useShelf() {
  const { data } = useIngredients();
  return useMemo(() => shelfWith((data?.items ?? []).filter((entry) => entry.own).map((entry) => entry.ingredient)), [data]);
}
