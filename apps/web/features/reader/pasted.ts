import type { Kind, Measures, Mending } from "@uprise/core";
import { kinds, measureSystems } from "@uprise/core/page";
import { useCallback, useEffect, useState } from "react";
import { z } from "zod";
import { keepPaper, takeUpPaper } from "../../device/papers";

/** What the baker pasted and said of it so far; it survives a reload. */
export interface Pasted {
  text: string;
  measures: Measures;
  mending: Mending;
  kind?: Kind | undefined;
}

const OF = "recipe";
const nothing: Pasted = { text: "", measures: "us", mending: {} };

const keptSchema = z.object({
  text: z.string(),
  measures: z.enum(measureSystems),
  mending: z.record(
    z.string(),
    z.object({
      ingredientId: z.string().optional(),
      grams: z.number().optional(),
      choice: z.record(z.string(), z.number()).optional(),
      taken: z.boolean().optional(),
      left: z.boolean().optional(),
    }),
  ),
  kind: z.enum(kinds).optional(),
});

const isUntouched = ({ text, mending, kind }: Pasted): boolean =>
  text === "" && Object.keys(mending).length === 0 && kind === undefined;

/** The paste under work of this tab; null until it is known whether something was left. */
export function usePasted(): { pasted: Pasted | null; set: (change: (before: Pasted) => Pasted) => void } {
  const [pasted, setPasted] = useState<Pasted | null>(null);
  useEffect(() => {
    let here = true;
    void takeUpPaper("reader", OF, (body) => keptSchema.safeParse(body).success).then(({ body }) => {
      const kept = keptSchema.safeParse(body);
      if (here) setPasted((before) => before ?? (kept.success ? (kept.data as Pasted) : nothing));
    });
    return () => {
      here = false;
    };
  }, []);
  const set = useCallback((change: (before: Pasted) => Pasted) => setPasted((before) => change(before ?? nothing)), []);
  useEffect(() => {
    if (pasted) void keepPaper("reader", OF, isUntouched(pasted) ? null : pasted);
  }, [pasted]);
  return { pasted, set };
}
