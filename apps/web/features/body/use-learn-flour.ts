import type { LearntFlour } from "@uprise/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";

/** Keeps a flour as the baker's own, or the own one with what was learnt anew; `taken` is told its id and whose place it takes. */
export function useLearnFlour(taken: (id: string, from: string) => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ ingredient }: LearntFlour) => {
      const own = (await wire.ingredients()).find(({ id }) => id === ingredient.id);
      return own ? wire.changeIngredient(ingredient, own.version) : wire.createIngredient(ingredient);
    },
    onSuccess: async (stored, { from }) => {
      await queries.invalidateQueries({ queryKey: keys.ingredients.all });
      if (stored.id !== from) taken(stored.id, from);
    },
  });
}
