import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import type { FormulaSummary, OvenProfile } from "@uprise/contract";
import type { Formula, Glance, Ingredient } from "@uprise/core";
import type { Computer } from "../compute/pool";
import type { KitchenData } from "../compute/tasks";
import type { Store } from "../store/store";
import { entriesFor } from "./kitchen-data";

/** What lists show of formulas: computed once for each version and what of the kitchen it stands on, kept, and told when it is there. */
export interface Glances {
  /** The items with what is known of them; what is not is computed behind the answer. */
  laidOn(items: readonly FormulaSummary[]): Promise<FormulaSummary[]>;
  /** Waits for what is being computed. */
  close(): Promise<void>;
}

const digest = (value: unknown): string => createHash("sha256").update(JSON.stringify(value)).digest("hex");

/** What computes: a glance of another program is none. The bundle of the compute threads by its bytes; in this thread, one for all. */
const programOf = (workerFile: string | null | undefined): string =>
  workerFile ? createHash("sha256").update(readFileSync(workerFile)).digest("hex") : "in this thread";

export function openGlances(
  store: Store,
  computer: Computer,
  workerFile: string | null | undefined,
  onNew: () => void,
  onFault: (error: unknown) => void,
): Glances {
  const program = programOf(workerFile);
  const asked = new Set<string>();
  let work: Promise<void> = Promise.resolve();
  let over = false;

  async function laidOn(items: readonly FormulaSummary[]): Promise<FormulaSummary[]> {
    const [known, own, ovens] = await Promise.all([
      store.glances.read(items.map(({ id }) => id)),
      store.things<Ingredient>("ingredients").list(),
      store.things<OvenProfile>("ovens").list(),
    ]);
    const ingredients = own.map(({ body }) => body);
    const shelf = digest(ingredients);
    const missing: { id: string; of: string; formula: Formula; kitchen: KitchenData }[] = [];
    const laid = await Promise.all(
      items.map(async (item): Promise<FormulaSummary> => {
        const { id, version, formula } = item;
        if (!formula) return item;
        const profile = ovens.find((oven) => oven.id === formula.oven.ovenId);
        const kitchen: KitchenData = {
          ingredients,
          formulas: await entriesFor(store, formula.lines),
          ovens: profile ? [[profile.id, { biasK: profile.body.biasK, swingK: profile.body.swingK }]] : [],
        };
        const of = digest([program, version, shelf, kitchen.formulas, kitchen.ovens]);
        const found = known.get(id);
        if (found?.of === of) return { ...item, glance: found.glance };
        if (!asked.has(of + id)) missing.push({ id, of, formula, kitchen });
        return item;
      }),
    );
    if (missing.length > 0 && !over) {
      for (const { id, of } of missing) asked.add(of + id);
      work = work.then(() => compute(missing));
    }
    return laid;
  }

  async function compute(missing: readonly { id: string; of: string; formula: Formula; kitchen: KitchenData }[]): Promise<void> {
    for (const { id, of, formula, kitchen } of missing) {
      if (over) return;
      try {
        const glance: Glance | null = await computer.run("glance", { formula }, kitchen);
        if (!over) await store.glances.keep(id, of, glance);
      } catch (error) {
        // A list without a drawing is a list: it is tried again when it is next asked for.
        if (!over) onFault(error);
      } finally {
        asked.delete(of + id);
      }
    }
    if (!over) onNew();
  }

  return {
    laidOn,
    async close() {
      over = true;
      await work;
    },
  };
}
