import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { ownStore } from "./owner";

/** Something the baker saved while the server did not answer: named, in order, sent once. */
export interface KeptWrite {
  /** What it is of: a later save of the same thing takes its place. */
  key: string;
  /** In the baker's words: “Pear loaf”. */
  name: string;
  at: number;
  method: "POST" | "PUT";
  path: string;
  body: unknown;
  /** The version that it was made from. */
  version?: number | undefined;
  /** Why it was refused for good, and where it is mended; it stays until it is mended or let go. */
  refused?: string | undefined;
  to?: string | undefined;
}

interface Box extends DBSchema {
  writes: { key: string; value: KeptWrite };
}

let opening: Promise<IDBPDatabase<Box> | null> | null = null;
/** Where the browser has no store to give, what waits outlives the page's life only. */
const here = new Map<string, KeptWrite>();
const listeners = new Set<() => void>();
/** Other tabs send the same outbox; they are told when it changes. */
const channel = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("uprise.outbox");

function box(): Promise<IDBPDatabase<Box> | null> {
  opening ??= Promise.resolve()
    .then(() =>
      openDB<Box>(ownStore("uprise-writes"), 1, {
        upgrade: (database) => void database.createObjectStore("writes", { keyPath: "key" }),
      }),
    )
    .catch(() => null);
  return opening;
}

const tell = (others: boolean): void => {
  if (others) channel?.postMessage("changed");
  for (const listen of listeners) listen();
};
channel?.addEventListener("message", () => tell(false));

/** Hears that the outbox changed, until the function it gives is called. */
export function hearWrites(listen: () => void): () => void {
  listeners.add(listen);
  return () => void listeners.delete(listen);
}

/** What waits, the oldest first. */
export async function waitingWrites(): Promise<KeptWrite[]> {
  const database = await box();
  const stored = database ? await database.getAll("writes").catch(() => []) : [];
  // What a full device did not take stands in the page's own memory.
  const all = [...new Map([...stored, ...here.values()].map((write) => [write.key, write])).values()];
  return all.sort((a, b) => a.at - b.at || (a.key < b.key ? -1 : 1));
}

/** Keeps a write until it has arrived. False where this device could not take it, so that it lives no longer than the page. */
export async function keepWrite(write: KeptWrite): Promise<boolean> {
  const database = await box();
  const kept = database
    ? await database.put("writes", write).then(
        () => true,
        () => false,
      )
    : false;
  if (kept) here.delete(write.key);
  else here.set(write.key, write);
  tell(true);
  return kept;
}

/** Lets go of everything that waits. */
export async function forgetWrites(): Promise<void> {
  here.clear();
  await (await box())?.clear("writes").catch(() => undefined);
  tell(true);
}

export async function dropWrite(key: string): Promise<void> {
  here.delete(key);
  await (await box())?.delete("writes", key).catch(() => undefined);
  tell(true);
}

/** How sending one ended. */
export type WriteEnd = { ended: "arrived" } | { ended: "no-answer" } | { ended: "refused"; why: string; to?: string };

let sending: Promise<void> | null = null;

/** Only one tab sends at a time, where the browser can say so. */
const alone = (does: () => Promise<void>): Promise<void> => {
  const { locks } = globalThis.navigator ?? {};
  return locks
    ? locks.request("uprise.outbox", { ifAvailable: true }, (lock) => (lock ? does() : undefined)).then(() => undefined)
    : does();
};

/** Sends what waits, one after the other in the order in which it was saved; what is refused stays with its reason and holds nothing up. */
export function sendWrites(send: (write: KeptWrite) => Promise<WriteEnd>): Promise<void> {
  sending ??= alone(async () => {
    for (const write of await waitingWrites()) {
      if (write.refused !== undefined) continue;
      const end = await send(write);
      if (end.ended === "no-answer") return;
      if (end.ended === "refused") await keepWrite({ ...write, refused: end.why, to: end.to });
      else {
        // Saved anew while this one was on its way: the newer one stays.
        const now = (await waitingWrites()).find(({ key }) => key === write.key);
        if (now && now.at === write.at) await dropWrite(write.key);
      }
    }
  }).finally(() => {
    sending = null;
  });
  return sending;
}
