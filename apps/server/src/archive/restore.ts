import { randomUUID } from "node:crypto";
import { mkdir, readFile, rename, rm, writeFile } from "node:fs/promises";
import { join } from "node:path";
import type { RestoreAnswer } from "@uprise/contract";
import { Refusal } from "../errors";
import { sameBody } from "../store/pages";
import type { Store, WholeThing } from "../store/store";
import type { ReadArchive } from "./read";

interface Before {
  table: WholeThing["table"];
  id: string;
  /** Null where it was not there. */
  before: WholeThing | null;
  /** As it was written. */
  after: WholeThing;
}

const titleOf = ({ body, id }: WholeThing): string => {
  const { title, name, packet } = body as { title?: unknown; name?: unknown; packet?: { name?: unknown } };
  return String(title ?? name ?? packet?.name ?? id);
};

type Fate = "add" | "newer" | "older" | "conflict" | "same";

function fateOf(there: WholeThing, here: WholeThing | null): Fate {
  if (!here) return "add";
  if (there.version > here.version) return "newer";
  if (there.version < here.version) return "older";
  return sameBody(there.body, here.body) ? "same" : "conflict";
}

/** What restoring would do: nothing that is newer here is written over. Computed again when it is done, so that what is shown is what happens. */
async function compare(store: Store, archive: ReadArchive): Promise<{ answer: RestoreAnswer; writes: Before[] }> {
  const answer: RestoreAnswer = {
    archive: { madeAt: archive.madeAt, program: archive.program, things: archive.things.length, photos: archive.photos.length },
    add: [],
    newer: [],
    older: [],
    conflict: [],
    same: 0,
    photos: 0,
    events: 0,
  };
  const writes: Before[] = [];
  for (const thing of archive.things) {
    const here = await store.whole.find(thing.table, thing.id);
    const fate = fateOf(thing, here);
    if (fate === "same") answer.same++;
    else
      answer[fate].push({ what: thing.table, id: thing.id, title: titleOf(thing), there: thing.version, ...(here ? { here: here.version } : {}) }); // prettier-ignore
    if (fate === "add" || fate === "newer") writes.push({ table: thing.table, id: thing.id, before: here, after: thing });
  }
  for (const hash of archive.photos) if (!(await store.files.has(hash))) answer.photos++;
  for (const { bakeId, events } of archive.events) {
    const there = new Set((await store.events.of(bakeId)).map(({ id }) => id));
    answer.events += events.filter(({ id }) => !there.has(id)).length;
  }
  return { answer, writes };
}

export const previewRestore = async (store: Store, archive: ReadArchive): Promise<RestoreAnswer> =>
  (await compare(store, archive)).answer;

const undoFile = (dataFolder: string, id: string): string => join(dataFolder, "undo", `${id}.json`);
const UNDO_ID = /^[0-9a-f-]{36}$/;

/** Brings an archive in: photographs first, then all things at once or none, then what happened. What was there before is kept for an undo. */
export async function restore(store: Store, dataFolder: string, archive: ReadArchive): Promise<RestoreAnswer> {
  const { answer, writes } = await compare(store, archive);
  for (const hash of archive.photos) {
    if (await store.files.has(hash)) continue;
    const bytes = await archive.photo(hash);
    await store.files.put(bytes, "image/jpeg");
  }
  const id = randomUUID();
  if (writes.length > 0) {
    await mkdir(join(dataFolder, "undo"), { recursive: true });
    const half = `${undoFile(dataFolder, id)}.half`;
    await writeFile(half, JSON.stringify(writes));
    await rename(half, undoFile(dataFolder, id));
    await store.whole.put(writes.map(({ after }) => after));
  }
  for (const { events } of archive.events) if (events.length > 0) await store.events.append(events);
  return writes.length > 0 ? { ...answer, undo: id } : answer;
}

/** Takes a restore back, but for what was changed since; that stays and is named. What happened at bakes is never taken away. */
export async function undoRestore(store: Store, dataFolder: string, id: string): Promise<{ undone: number; kept: string[] }> {
  const gone = new Refusal("not-found", "This restore cannot be undone any more: nothing is kept of what was there before it.");
  if (!UNDO_ID.test(id)) throw gone;
  const text = await readFile(undoFile(dataFolder, id), "utf8").catch(() => null);
  if (text === null) throw gone;
  const writes = JSON.parse(text) as Before[];
  const kept: string[] = [];
  const undo: Before[] = [];
  for (const write of writes) {
    const now = await store.whole.find(write.table, write.id);
    if (now && now.version === write.after.version && sameBody(now.body, write.after.body)) undo.push(write);
    else kept.push(titleOf(write.after));
  }
  await store.whole.drop(undo.filter(({ before }) => before === null));
  await store.whole.put(undo.flatMap(({ before }) => before ?? []));
  await rm(undoFile(dataFolder, id), { force: true });
  return { undone: undo.length, kept };
}
