import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { ownStore } from "./owner";
import { isAlive, tabId } from "./tab";

/** What is under work on this device and not saved yet: a draft of a formula, a pasted recipe with its answers. */
export interface Paper {
  key: string;
  kind: "draft" | "reader";
  /** What it is a draft of. */
  of: string;
  tab: string;
  /** ms; when it was last written on. */
  at: number;
  body: unknown;
}

interface Desk extends DBSchema {
  papers: { key: string; value: Paper; indexes: { of: [string, string] } };
}

let opening: Promise<IDBPDatabase<Desk> | null> | null = null;

/** The desk of this browser; null where it has none to give, and then nothing outlives the page. */
function desk(): Promise<IDBPDatabase<Desk> | null> {
  opening ??= openDB<Desk>(ownStore("uprise"), 1, {
    upgrade(database) {
      database.createObjectStore("papers", { keyPath: "key" }).createIndex("of", ["kind", "of"]);
    },
    terminated() {
      opening = null;
    },
  }).catch(() => null);
  return opening;
}

const keyOf = (kind: Paper["kind"], of: string, tab: string): string => `${kind}/${of}/${tab}`;

/** The newest body of every paper that is being written: one write at a time, and what came meanwhile in one more. */
const waiting = new Map<string, Paper | null>();
let writing: Promise<void> | null = null;

async function write(): Promise<void> {
  const database = await desk();
  while (waiting.size > 0) {
    const [key, paper] = waiting.entries().next().value as [string, Paper | null];
    waiting.delete(key);
    if (!database) continue;
    try {
      if (paper) await database.put("papers", paper);
      else await database.delete("papers", key);
    } catch {
      // A full device: the work goes on in the page, and saving is still possible.
    }
  }
  writing = null;
}

function soon(key: string, paper: Paper | null): Promise<void> {
  waiting.set(key, paper);
  writing ??= write();
  return writing;
}

/** Keeps a paper of this tab, or takes it away when there is no body. */
export async function keepPaper(kind: Paper["kind"], of: string, body: unknown): Promise<void> {
  const tab = await tabId();
  const key = keyOf(kind, of, tab);
  await soon(key, body === null ? null : { key, kind, of, tab, at: Date.now(), body });
}

export const dropPaper = (paper: Paper): Promise<void> => soon(paper.key, null);

/** Takes every paper off the desk. */
export async function forgetPapers(): Promise<void> {
  waiting.clear();
  await writing;
  await (await desk())?.clear("papers").catch(() => undefined);
}

/** All papers of something, the newest first, with whether the tab they belong to is open now. */
export async function papersOf(kind: Paper["kind"], of: string): Promise<{ paper: Paper; mine: boolean; alive: boolean }[]> {
  const [database, tab] = await Promise.all([desk(), tabId()]);
  await writing;
  if (!database) return [];
  try {
    const papers = await database.getAllFromIndex("papers", "of", [kind, of]);
    const found = await Promise.all(
      papers.map(async (paper) => ({ paper, mine: paper.tab === tab, alive: paper.tab !== tab && (await isAlive(paper.tab)) })),
    );
    return found.sort((a, b) => Number(b.mine) - Number(a.mine) || b.paper.at - a.paper.at);
  } catch {
    return [];
  }
}

/**
 * The paper to go on with: this tab's own, or the newest of a tab that is closed, which becomes this tab's. `fits` says whether it can be
 * read; one that cannot is left where it is and comes back among `aside`, as do those of closed tabs that are older.
 */
export async function takeUpPaper(
  kind: Paper["kind"],
  of: string,
  fits: (body: unknown) => boolean,
): Promise<{ body: unknown; aside: Paper[]; elsewhere: Paper[] }> {
  const all = await papersOf(kind, of);
  const free = all.filter(({ alive }) => !alive).map(({ paper }) => paper);
  const chosen = free.find((paper) => fits(paper.body));
  const tab = await tabId();
  if (chosen && chosen.tab !== tab) {
    await keepPaper(kind, of, chosen.body);
    await dropPaper(chosen);
  }
  return {
    body: chosen?.body ?? null,
    aside: free.filter((paper) => paper !== chosen),
    elsewhere: all.filter(({ alive }) => alive).map(({ paper }) => paper),
  };
}
