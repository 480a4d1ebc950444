import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { ownStore } from "./owner";

/** Something that happened here and has not arrived yet. */
export interface Waiting<E> {
  key: string;
  /** What it belongs to. */
  of: string;
  event: E;
  /** Why it was refused for good; it stays, so that nothing is lost. */
  refused?: string;
}

interface Box extends DBSchema {
  events: { key: string; value: Waiting<unknown>; indexes: { of: string } };
}

let opening: Promise<IDBPDatabase<Box> | null> | null = null;
/** Where the browser has no store to give, what waits outlives the page's life only. */
const here = new Map<string, Waiting<unknown>>();

function box(): Promise<IDBPDatabase<Box> | null> {
  // A browser without a store throws at once; that too is no store.
  opening ??= Promise.resolve()
    .then(() =>
      openDB<Box>(ownStore("uprise-outbox"), 1, {
        upgrade(database) {
          database.createObjectStore("events", { keyPath: "key" }).createIndex("of", "of");
        },
        terminated() {
          opening = null;
        },
      }),
    )
    .catch(() => null);
  return opening;
}

/** Keeps an event until it has arrived; kept when the promise is done. */
export async function keepEvent<E extends { id: string }>(of: string, event: E): Promise<void> {
  const waiting: Waiting<unknown> = { key: `${of}/${event.id}`, of, event };
  here.set(waiting.key, waiting);
  const database = await box();
  await database?.put("events", waiting).catch(() => undefined);
}

/** What of something waits here, also from before this page was loaded. */
export async function waitingEvents<E>(of: string): Promise<Waiting<E>[]> {
  const database = await box();
  const stored = database ? await database.getAllFromIndex("events", "of", of).catch(() => []) : [];
  const all = new Map([...stored, ...[...here.values()].filter((one) => one.of === of)].map((one) => [one.key, one]));
  return [...all.values()] as Waiting<E>[];
}

async function drop(keys: readonly string[]): Promise<void> {
  const database = await box();
  for (const key of keys) {
    here.delete(key);
    await database?.delete("events", key).catch(() => undefined);
  }
}

/** Lets go of everything that waits. */
export async function forgetEvents(): Promise<void> {
  here.clear();
  await (await box())?.clear("events").catch(() => undefined);
}

/** How many wait, of everything. */
export async function countWaiting(): Promise<number> {
  const stored = await (await box())?.getAllKeys("events").catch(() => []);
  return new Set([...(stored ?? []), ...here.keys()]).size;
}

/** How sending ended: it arrived, but for those that are refused for good; nothing answered; or all of it is refused. */
export type Sent =
  { ended: "arrived"; refused?: { id: string; message: string }[] } | { ended: "no-answer" } | { ended: "refused"; why: string };

const sending = new Map<string, Promise<void>>();
/** Asked to send while a sending was under way: if that one finds no answer, it tries once more. */
const askedAgain = new Set<string>();
const AT_ONCE = 200;

/** Sends what waits, the oldest first; one sending at a time, and what is sent twice counts once at the other end. */
export function sendWaiting<E extends { at: string; id: string }>(of: string, send: (events: E[]) => Promise<Sent>): Promise<void> {
  const running = sending.get(of);
  if (running) {
    askedAgain.add(of);
    return running.then(() => undefined);
  }
  const work = (async () => {
    for (;;) {
      askedAgain.delete(of);
      const open = (await waitingEvents<E>(of)).filter(({ refused }) => refused === undefined);
      const next = open
        .sort((a, b) => Date.parse(a.event.at) - Date.parse(b.event.at) || (a.event.id < b.event.id ? -1 : 1))
        .slice(0, AT_ONCE);
      const sent: Sent = next.length === 0 ? { ended: "no-answer" } : await send(next.map(({ event }) => event));
      if (sent.ended === "no-answer") {
        if (askedAgain.has(of)) continue;
        return;
      }
      const whyOf = new Map(sent.ended === "refused" ? next.map(({ event }) => [event.id, sent.why]) : (sent.refused ?? []).map(({ id, message }) => [id, message])); // prettier-ignore
      await drop(next.filter(({ event }) => !whyOf.has(event.id)).map(({ key }) => key));
      const database = await box();
      for (const one of next) {
        const why = whyOf.get(one.event.id);
        if (why === undefined) continue;
        const told = { ...one, refused: why };
        here.set(one.key, told);
        await database?.put("events", told).catch(() => undefined);
      }
    }
  })().finally(() => sending.delete(of));
  sending.set(of, work);
  return work;
}
