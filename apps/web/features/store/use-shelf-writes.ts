import { type QueryKey, useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { focusSoon } from "../../ui/focus";

/** Something that was taken off a shelf, and how it comes back. */
export interface TakenOff {
  name: string;
  back: () => Promise<unknown>;
}

/** Taking things off a shelf of the kitchen, with a way back in place of a question before. */
export function useTakeOff(key: QueryKey) {
  const queries = useQueryClient();
  const [taken, setTaken] = useState<TakenOff | null>(null);
  const again = () => queries.invalidateQueries({ queryKey: key });
  const remove = useMutation({
    mutationFn: async ({ off }: { off: () => Promise<unknown>; taken: TakenOff }) => off(),
    onSuccess: async (_, { taken: gone }) => {
      setTaken(gone);
      await again();
      focusSoon("[data-testid=put-back]");
    },
    onError: again,
  });
  const back = useMutation({
    mutationFn: (gone: TakenOff) => gone.back(),
    onSuccess: async () => {
      setTaken(null);
      await again();
    },
  });
  return {
    taken,
    error: remove.error?.message ?? back.error?.message ?? null,
    takeOff: (gone: TakenOff, off: () => Promise<unknown>) => remove.mutate({ off, taken: gone }),
    putBack: () => taken && back.mutate(taken),
  };
}
