import { randomUUID } from "node:crypto";
import { once } from "node:events";
import { createReadStream, createWriteStream, existsSync } from "node:fs";
import { mkdir, readdir, rename, rm, stat } from "node:fs/promises";
import { join } from "node:path";
import { createInterface } from "node:readline";
import { finished } from "node:stream/promises";
import type { RestoreAnswer } from "@uprise/contract";
import sharp from "sharp";
import { Refusal } from "../errors";
import { faultOfFile, HALF } from "../store/files";
import { digestOf } from "../store/pages";
import type { Hand, Store, WholeKey, WholeThing } from "../store/store";
import { isKeptPhoto } from "./photo";
import type { ReadArchive } from "./read";
import { bodySchemas } from "./shapes";

/** One line of the file by which a restore is undone. */
interface Before extends WholeKey {
  title: string;
  /** Null where it was not there. */
  before: WholeThing | null;
  hadVersions: number[];
  /** As it was left by the restore: where it is another one now, it was changed since. */
  after: { version: number; removed: boolean; digest: string };
}

const titleOf = ({ body, id }: WholeThing): string => {
  const { title, name, packet } = body as { title?: unknown; name?: unknown; packet?: { name?: unknown } };
  return String(title ?? name ?? packet?.name ?? id);
};

/** A body as this program reads it: one that an older program wrote is the same thing. */
function digestAsRead({ table, body }: WholeThing): string {
  const read = bodySchemas[table].safeParse(body);
  return digestOf(read.success ? read.data : body);
}

type Fate = "add" | "newer" | "back" | "older" | "conflict" | "same";

/** What becomes of a thing, and what stands here afterwards; null where nothing is written. */
function fateOf(there: WholeThing, here: WholeThing | null): { fate: Fate; after: WholeThing | null } {
  if (!here) return { fate: "add", after: there };
  const removedHere = here.removedAt != null;
  if (removedHere && there.removedAt == null) {
    const newest = there.version > here.version ? there : here;
    return { fate: "back", after: { ...newest, removedAt: null } };
  }
  // What is on its list here stays on it.
  if (there.version > here.version) return { fate: "newer", after: { ...there, removedAt: here.removedAt ?? null } };
  if (there.version < here.version) return { fate: "older", after: null };
  const same = digestOf(there.body) === digestOf(here.body) || digestAsRead(there) === digestAsRead(here);
  return { fate: same ? "same" : "conflict", after: null };
}

const emptyAnswer = ({ madeAt, program, things, photos, flaws }: ReadArchive): RestoreAnswer => ({
  archive: { madeAt, program, things, photos: photos.length },
  add: [], newer: [], back: [], older: [], conflict: [], same: 0, photos: 0, events: 0, flaws,
}); // prettier-ignore

type Look = Pick<Hand, "find">;

/** Goes through an archive once; `write` is called for what is to be written. */
async function through(archive: ReadArchive, answer: RestoreAnswer, look: Look, store: Store, hand: Hand | null, note: (before: Before) => Promise<void>): Promise<void> {
  const takesVersions = new Set<string>();
  for await (const part of archive.parts()) {
    if (part.what === "thing") {
      const { thing, versions } = part;
      const here = await look.find(thing);
      const { fate, after } = fateOf(thing, here);
      if (fate === "same") answer.same++;
      else answer[fate].push({ what: thing.table, id: thing.id, title: titleOf(thing), there: thing.version, ...(here ? { here: here.version } : {}) });
      if (!after) continue;
      if (thing.table === "formulas" && after.version === thing.version) takesVersions.add(thing.id);
      if (!hand) continue;
      const hadVersions = thing.table === "formulas" ? await hand.versionNumbers(thing.id) : [];
      await note({ table: thing.table, id: thing.id, title: titleOf(after), before: here, hadVersions, after: { version: after.version, removed: after.removedAt != null, digest: digestOf(after.body) } });
      await hand.put(after);
      if (takesVersions.has(thing.id)) await hand.addVersions(thing.id, versions);
    } else if (part.what === "versions") {
      if (hand && takesVersions.has(part.formulaId)) await hand.addVersions(part.formulaId, part.versions);
    } else {
      const there = new Set((await store.events.of(part.bakeId)).map(({ id }) => id));
      answer.events += part.events.filter(({ id }) => !there.has(id)).length;
      if (hand) await hand.append(part.events);
    }
  }
} // prettier-ignore

/** Photographs that are missing or damaged here, and are kept as this program keeps them. */
async function* wantedPhotos(store: Store, archive: ReadArchive, answer: RestoreAnswer): AsyncGenerator<Buffer> {
  for (const hash of archive.photos) {
    if ((await store.files.has(hash)) && (await faultOfFile(store.files.pathOf(hash), hash)) === null) continue;
    const bytes = await archive.photo(hash);
    if (await isKeptPhoto(sharp, bytes)) yield bytes;
    else answer.flaws.push({ path: `photos/${hash}.jpg`, why: "It is not as Uprise keeps photographs: too large, or with what a camera writes into them." }); // prettier-ignore
  }
}

/** What restoring would do: nothing that is newer here is written over. */
export async function previewRestore(store: Store, archive: ReadArchive): Promise<RestoreAnswer> {
  const answer = { ...emptyAnswer(archive), flaws: [...archive.flaws] };
  for await (const _ of wantedPhotos(store, archive, answer)) answer.photos++;
  await through(archive, answer, store.whole, store, null, async () => undefined);
  return answer;
}

const undoFolder = (dataFolder: string): string => join(dataFolder, "undo");
const undoFile = (dataFolder: string, id: string): string => join(undoFolder(dataFolder), `${id}.jsonl`);
const UNDO_ID = /^[0-9a-f-]{36}$/;
/** So many restores can be undone. */
const KEEP_UNDO = 20;

async function forgetOldUndos(dataFolder: string): Promise<void> {
  const folder = undoFolder(dataFolder);
  const all = await Promise.all((await readdir(folder).catch(() => [])).map(async (name) => ({ name, at: (await stat(join(folder, name))).mtimeMs }))); // prettier-ignore
  for (const { name } of all.sort((a, b) => b.at - a.at).slice(KEEP_UNDO)) await rm(join(folder, name), { force: true });
}

/** Brings an archive in: photographs first, then looked at and written in one transaction, all or none. What was there before is kept for an undo. */
export async function restore(store: Store, dataFolder: string, archive: ReadArchive): Promise<RestoreAnswer> {
  const answer = { ...emptyAnswer(archive), flaws: [...archive.flaws] };
  for await (const bytes of wantedPhotos(store, archive, answer)) {
    await store.files.put(bytes, "image/jpeg");
    answer.photos++;
  }
  const id = randomUUID();
  const path = undoFile(dataFolder, id);
  await mkdir(undoFolder(dataFolder), { recursive: true });
  const half = `${path}${HALF}`;
  const file = createWriteStream(half, { flush: true });
  const closed = finished(file);
  // Told by `closed`, when it is waited for.
  closed.catch(() => undefined);
  let writes = 0;
  try {
    await store.whole.inOne(async (hand) => {
      await through(archive, answer, hand, store, hand, async (before) => {
        writes++;
        if (!file.write(`${JSON.stringify(before)}\n`)) await Promise.race([once(file, "drain"), closed]);
      });
      file.end();
      await closed;
      if (writes > 0) await rename(half, path);
    });
  } catch (error) {
    file.destroy();
    await rm(path, { force: true });
    throw error;
  } finally {
    await rm(half, { force: true });
  }
  await forgetOldUndos(dataFolder);
  return writes > 0 ? { ...answer, undo: id } : answer;
} // prettier-ignore

/** Takes a restore back, but for what was changed since; that stays and is named. What happened at bakes is never taken away. */
export async function undoRestore(store: Store, dataFolder: string, id: string): Promise<{ undone: number; kept: string[] }> {
  const path = undoFile(dataFolder, id);
  if (!UNDO_ID.test(id) || !existsSync(path))
    throw new Refusal("not-found", "This restore cannot be undone any more: nothing is kept of what was there before it.");
  const kept: string[] = [];
  let undone = 0;
  await store.whole.inOne(async (hand) => {
    for await (const line of createInterface({ input: createReadStream(path), crlfDelay: Infinity })) {
      if (line === "") continue;
      const { before, after, hadVersions, title, ...key } = JSON.parse(line) as Before;
      const now = await hand.find(key);
      const untouched = now?.version === after.version && (now.removedAt != null) === after.removed && digestOf(now.body) === after.digest; // prettier-ignore
      if (!untouched) {
        kept.push(title);
        continue;
      }
      undone++;
      if (before) {
        await hand.put(before);
        if (key.table === "formulas") await hand.keepVersions(key.id, hadVersions);
      } else await hand.drop(key);
    }
  });
  await rm(path, { force: true });
  return { undone, kept };
}
