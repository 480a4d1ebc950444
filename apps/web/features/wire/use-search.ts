import type { Ingredient, Shelf } from "@uprise/core";
import { ownOf } from "@uprise/core/page";
import { useAsked } from "../../device/use-asked";

const nothing: readonly Ingredient[] = [];

/** What the pantry has for some words, the nearest first. */
export function useSearch(query: string, shelf: Shelf, most: number): readonly Ingredient[] {
  const { data } = useAsked("search", query.trim() === "" ? null : [query, ownOf(shelf), most]);
  return data ?? nothing;
}
