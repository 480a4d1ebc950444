import {
  storedTastingSchema,
  type StoredTrial,
  storedTrialSchema,
  type Tasting,
  tastingInputSchema,
  trialInputSchema,
} from "@uprise/contract";
import { CoreError, type Trial } from "@uprise/core";
import type { Computer } from "../compute/pool";
import { Refusal } from "../errors";
import type { Store, StoredThing } from "../store/store";
import type { App } from "../wire";
import { kitchenDataFor } from "./kitchen-data";
import { pageOfAll, resource, withoutBody } from "./resource";

/** Trials: bakes that were judged, each with the formula as it was baked and what was expected of it; and rounds of blind tasting. */
export function trialRoutes(app: App, store: Store, computer: Computer): void {
  const rows = store.things<Trial>("trials");
  const from = (row: StoredThing<Trial>): StoredTrial => ({ ...withoutBody(row), trial: row.body });
  /** What was expected is computed when the trial is written down, and stays; a formula that cannot be baked has none. */
  const predicted = async (trial: Trial): Promise<Trial> => {
    if (trial.predicted) return trial;
    try {
      const kitchen = await kitchenDataFor(store, trial.formula);
      return { ...trial, predicted: await computer.run("predict", { formula: trial.formula }, kitchen) };
    } catch (error) {
      // What a thread refuses comes as the core's error; what took too long is left out as well, and the trial is kept.
      if (error instanceof CoreError || (error instanceof Refusal && (error.code === "took-too-long" || error.code === "busy")))
        return trial;
      throw error;
    }
  };
  const known = async (trial: Trial): Promise<Trial> => {
    for (const [k, hash] of trial.photos.entries())
      if (!(await store.files.has(hash)))
        throw new Refusal("unprocessable", "A photograph is sent to /api/photos first; the hash that comes back names it.", {
          errors: [{ path: `photos.${k}`, message: "The hash of a photograph that is here." }],
        });
    return trial;
  };
  resource(app, {
    path: "/api/trials",
    what: "trial",
    tag: "log",
    input: trialInputSchema,
    answer: storedTrialSchema,
    page: async (query) => pageOfAll(await store.trials<Trial>().page(query), from),
    read: async (id) => rows.read(id).then((row) => (row ? from(row) : null)),
    create: async ({ id, ...trial }) => from(await rows.create(id, await predicted(await known(trial)))),
    change: async (id, version, { id: _, ...trial }) => from(await rows.change(id, version, await predicted(await known(trial)))),
    remove: (id, version) => rows.remove(id, version),
    restore: async (id) => from(await rows.restore(id)),
    byHelpers: true,
    isBuiltIn: () => false,
  });
  const rounds = store.things<Tasting>("tastings");
  const round = (row: StoredThing<Tasting>) => ({ ...withoutBody(row), tasting: row.body });
  resource(app, {
    path: "/api/tastings",
    what: "tasting",
    tag: "log",
    input: tastingInputSchema,
    answer: storedTastingSchema,
    page: async (query) => pageOfAll(await rounds.page(query), round),
    read: async (id) => rounds.read(id).then((row) => (row ? round(row) : null)),
    create: async ({ id, ...tasting }) => round(await rounds.create(id, tasting)),
    change: async (id, version, { id: _, ...tasting }) => round(await rounds.change(id, version, tasting)),
    remove: (id, version) => rounds.remove(id, version),
    restore: async (id) => round(await rounds.restore(id)),
    byHelpers: true,
    isBuiltIn: () => false,
  });
}
