import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { ownStore } from "./owner";

/** Answers of the server as they were last seen, for when it cannot be reached. */
export interface KeptAnswers {
  shape: string;
  at: number;
  state: unknown;
}

interface Box extends DBSchema {
  answers: { key: string; value: KeptAnswers };
}
const ONE = "all";

let opening: Promise<IDBPDatabase<Box> | null> | null = null;
function box(): Promise<IDBPDatabase<Box> | null> {
  // A browser without a store throws at once; it forgets, and needs the network.
  opening ??= Promise.resolve()
    .then(() => openDB<Box>(ownStore("uprise-answers"), 1, { upgrade: (database) => void database.createObjectStore("answers") }))
    .catch(() => null);
  return opening;
}

export async function keepAnswers(answers: KeptAnswers): Promise<void> {
  await (await box())?.put("answers", answers, ONE).catch(() => undefined);
}

export async function keptAnswers(): Promise<KeptAnswers | undefined> {
  return (await box())?.get("answers", ONE).catch(() => undefined);
}

export async function forgetAnswers(): Promise<void> {
  await (await box())?.clear("answers").catch(() => undefined);
}
