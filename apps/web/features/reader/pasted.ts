import type { FiguresAre, Kind, Language, Measures, Mending } from "@uprise/core";
import { figuresAre, kinds, languages, measureSystems } from "@uprise/core/page";
import { useCallback, useEffect, useState } from "react";
import { keepPaper, takeUpPaper } from "../../device/papers";

/** What the baker pasted and said of it so far; it survives a reload. */
export interface Pasted {
  text: string;
  measures: Measures;
  mending: Mending;
  kind?: Kind | undefined;
  /** What the baker said that it is written in. */
  language?: Language | undefined;
  /** Which of several batches of its table they bake. */
  batch?: number | undefined;
  /** What they said its figures without a unit are. */
  figures?: FiguresAre | undefined;
  /** Photographs of the pages that it was read from. */
  pages?: string[] | undefined;
}

const OF = "recipe";
const nothing: Pasted = { text: "", measures: "us", mending: {} };

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);
const optional = (value: unknown, type: "string" | "number" | "boolean"): boolean => value === undefined || typeof value === type;

/** Whether what was kept is a paste with what was said of its lines. */
const isKept = (body: unknown): body is Pasted =>
  isRecord(body) &&
  typeof body["text"] === "string" &&
  measureSystems.some((one) => one === body["measures"]) &&
  (body["kind"] === undefined || kinds.some((one) => one === body["kind"])) &&
  (body["language"] === undefined || languages.some((one) => one === body["language"])) &&
  optional(body["batch"], "number") &&
  (body["figures"] === undefined || figuresAre.some((one) => one === body["figures"])) &&
  (body["pages"] === undefined || (Array.isArray(body["pages"]) && body["pages"].every((one) => typeof one === "string"))) &&
  isRecord(body["mending"]) &&
  Object.values(body["mending"]).every(
    (said) =>
      isRecord(said) &&
      optional(said["ingredientId"], "string") &&
      optional(said["grams"], "number") &&
      optional(said["taken"], "boolean") &&
      optional(said["left"], "boolean") &&
      (said["choice"] === undefined ||
        (isRecord(said["choice"]) && Object.values(said["choice"]).every((one) => typeof one === "number"))),
  );

const isUntouched = ({ text, mending, kind }: Pasted): boolean =>
  text === "" && Object.keys(mending).length === 0 && kind === undefined;

/** Every place of this tab that shows the paste: a page that was read goes to all of them. */
const shown = new Set<(next: Pasted) => void>();

/** Lays a recipe on the desk from elsewhere, made of what was pasted before. */
export async function handOver(next: (before: Pasted) => Pasted): Promise<void> {
  const { body } = await takeUpPaper("reader", OF, isKept);
  const made = next(isKept(body) ? body : nothing);
  for (const show of shown) show(made);
  await keepPaper("reader", OF, made);
}

/** The paste under work of this tab; null until it is known whether something was left. */
export function usePasted(): { pasted: Pasted | null; set: (change: (before: Pasted) => Pasted) => void } {
  const [pasted, setPasted] = useState<Pasted | null>(null);
  useEffect(() => {
    let here = true;
    shown.add(setPasted);
    void takeUpPaper("reader", OF, isKept).then(({ body }) => {
      if (here) setPasted((before) => before ?? (isKept(body) ? body : nothing));
    });
    return () => {
      here = false;
      shown.delete(setPasted);
    };
  }, []);
  const set = useCallback((change: (before: Pasted) => Pasted) => setPasted((before) => change(before ?? nothing)), []);
  useEffect(() => {
    if (pasted) void keepPaper("reader", OF, isUntouched(pasted) ? null : pasted);
  }, [pasted]);
  return { pasted, set };
}
