import { createWriteStream, existsSync, readdirSync, readFileSync, statSync } from "node:fs";
import { copyFile, mkdir, readdir, rename, rm, statfs } from "node:fs/promises";
import { dirname, join } from "node:path";
import { pipeline } from "node:stream/promises";
import { z } from "zod";
import { faultOfFile, filePath, HALF, writeWhole } from "../store/files";
import type { Store } from "../store/store";
import { besideOf, photosNamed, readArchive } from "./read";
import { writeArchive } from "./write";

/** A copy a day into the data folder, so many of them; the oldest goes. */
export const KEEP_COPIES = 14;
const DAY_H = 24;
/** Looked for so often, h; a machine that slept at night makes it in the morning. */
const LOOK_H = 1;
const HOUR_MS = 3_600_000;
const FIRST_LOOK_MS = 60_000;
/** Room that a copy leaves, bytes. */
const SPARE_BYTES = 8 * 1024 * 1024;
const NAME = /^uprise-\d{4}-\d{2}-\d{2}\.zip$/;
/** A photograph that no trial names is kept so long: the trial may still be on a phone at sea. */
const UNNAMED_DAYS = 60;

const copySchema = z.object({ name: z.string(), madeAt: z.string(), things: z.number(), photos: z.number(), bytes: z.number() });
export type Copy = z.infer<typeof copySchema>;
/** What is known of the copies, beside them: in the order in which they were made, and how long a server has run since the last one. */
const indexSchema = z.object({ copies: z.array(copySchema), hoursRun: z.number().min(0), fault: z.string().optional() });
type Index = z.infer<typeof indexSchema>;

const folderOf = (dataFolder: string): string => join(dataFolder, "copies");
const indexFile = (dataFolder: string): string => join(folderOf(dataFolder), "index.json");

/** What the folder says of itself; where its list is missing, every copy that is there, by the day in its name. */
function indexOf(dataFolder: string): Index {
  const folder = folderOf(dataFolder);
  if (!statSync(folder, { throwIfNoEntry: false })?.isDirectory()) return { copies: [], hoursRun: 0 };
  try {
    const index = indexSchema.parse(JSON.parse(readFileSync(indexFile(dataFolder), "utf8")));
    return { ...index, copies: index.copies.filter(({ name }) => existsSync(join(folder, name))) };
  } catch {
    const copies = readdirSync(folder).filter((name) => NAME.test(name)).sort().map((name) => ({ name, madeAt: `${name.slice(7, 17)}T00:00:00.000Z`, things: 0, photos: 0, bytes: statSync(join(folder, name)).size })); // prettier-ignore
    return { copies, hoursRun: 0 };
  }
}

const keepIndex = (dataFolder: string, index: Index): Promise<void> =>
  writeWhole(indexFile(dataFolder), Buffer.from(`${JSON.stringify(index, null, 1)}\n`));

export interface CopyState {
  /** How old the newest copy is, hours; null where there is none. */
  ageHours: number | null;
  fault: string | undefined;
}

/** The age by the clock, or by how long a server has run since where the clock cannot be right. */
export function copyState(dataFolder: string, now = Date.now()): CopyState {
  const { copies, hoursRun, fault } = indexOf(dataFolder);
  const newest = copies.at(-1);
  if (!newest) return { ageHours: null, fault };
  const byClock = (now - Date.parse(newest.madeAt)) / HOUR_MS;
  return { ageHours: byClock < 0 ? hoursRun : Math.max(byClock, hoursRun), fault };
}

/** Whether one is due: a day has passed by the clock or by running, or the last one is of a day that is still to come. */
function isDue(dataFolder: string, now: number): boolean {
  const { copies, hoursRun } = indexOf(dataFolder);
  const newest = copies.at(-1);
  if (!newest) return true;
  const byClock = (now - Date.parse(newest.madeAt)) / HOUR_MS;
  return byClock < -LOOK_H || Math.max(byClock, hoursRun) >= DAY_H - LOOK_H;
}

/** A copy that cannot be made now, and why, in a sentence. */
class NoCopy extends Error {}

const megabytes = (bytes: number): string => `${Math.ceil(bytes / 1024 / 1024)} MB`;

async function mustHaveRoom(store: Store, dataFolder: string, { copies }: Index): Promise<void> {
  const photos = besideOf(folderOf(dataFolder));
  const fresh = (await store.files.list()).filter(({ hash }) => !existsSync(filePath(photos, hash)));
  const database = ["", "-wal"].reduce((sum, end) => sum + (statSync(join(dataFolder, `uprise.sqlite${end}`), { throwIfNoEntry: false })?.size ?? 0), 0);
  const needed = Math.max(copies.at(-1)?.bytes ?? 0, database) + fresh.reduce((sum, { bytes }) => sum + bytes, 0) + SPARE_BYTES;
  const { bavail, bsize } = await statfs(dataFolder);
  if (bavail * bsize < needed) throw new NoCopy(`There is room for ${megabytes(bavail * bsize)} on the disk; a copy needs ${megabytes(needed)}. Make room, and it is made within the hour.`);
} // prettier-ignore

/** Keeps a photograph beside the copies, once for all of them; one that is damaged in the kitchen is mended from there. */
async function keepPhoto(store: Store, dataFolder: string, hash: string): Promise<"missing" | "damaged" | null> {
  const from = store.files.pathOf(hash);
  const to = filePath(besideOf(folderOf(dataFolder)), hash);
  const [here, there] = [await faultOfFile(from, hash), await faultOfFile(to, hash)];
  const carry = async (source: string, target: string): Promise<void> => {
    await mkdir(dirname(target), { recursive: true });
    await copyFile(source, `${target}${HALF}`);
    await rename(`${target}${HALF}`, target);
  };
  if (here === null && there !== null) await carry(from, to);
  if (here !== null && there === null) await carry(to, from);
  return here !== null && there !== null ? here : null;
}

/** Writes today's copy whole, reads it back, and only then lets the oldest go. Its path. */
export async function makeCopy(store: Store, dataFolder: string, program: string, now: Date, keep = KEEP_COPIES): Promise<string> {
  const folder = folderOf(dataFolder);
  await mkdir(folder, { recursive: true });
  const index = indexOf(dataFolder);
  await mustHaveRoom(store, dataFolder, index);
  const name = `uprise-${now.toISOString().slice(0, 10)}.zip`;
  const path = join(folder, name);
  const half = `${path}${HALF}`;
  let missing = 0;
  try {
    const archive = writeArchive(store, {
      madeAt: now,
      program,
      beside: (hash) => keepPhoto(store, dataFolder, hash),
      done: (counts) => (missing = counts.missing),
    });
    await pipeline(archive, createWriteStream(half, { flush: true }));
    const { things, photos } = await readBack(half, folder, missing);
    await rename(half, path);
    const fault = missing > 0 ? `${missing} photographs are missing or damaged on the disk and in no copy.` : undefined;
    const copies = [...index.copies.filter((one) => one.name !== name), { name, madeAt: now.toISOString(), things, photos, bytes: statSync(path).size }]; // prettier-ignore
    const kept = keptOf(copies, keep);
    await keepIndex(dataFolder, { copies: kept, hoursRun: 0, ...(fault ? { fault } : {}) });
    for (const one of copies) if (!kept.includes(one)) await rm(join(folder, one.name), { force: true });
    await forgetPhotos(folder, kept);
  } finally {
    await rm(half, { force: true });
  }
  return path;
}

/** The last ones; one that holds more than twice of what the newest does is not let go for it: the kitchen may have lost something. */
function keptOf(copies: readonly Copy[], keep: number): Copy[] {
  const newest = copies.at(-1)?.things ?? 0;
  const gone = copies.slice(0, Math.max(0, copies.length - keep));
  const fullest = gone.reduce<Copy | null>((most, one) => (one.things > (most?.things ?? 0) ? one : most), null);
  const last = copies.slice(gone.length);
  const isMissed = fullest !== null && fullest.things > 2 * newest && last.every(({ things }) => things * 2 < fullest.things);
  return isMissed ? [fullest, ...last] : [...last];
}

/** Reads a copy as a restore would. Throws where anything in it could not be taken, but for what was missing when it was made. */
async function readBack(path: string, folder: string, missing: number): Promise<{ things: number; photos: number }> {
  const archive = await readArchive(path, besideOf(folder));
  try {
    const { things, photos, flaws } = archive;
    if (flaws.length > missing) throw new NoCopy(`The copy that was just written cannot be read back: ${flaws.at(-1)?.path}: ${flaws.at(-1)?.why} The older ones stay.`); // prettier-ignore
    return { things, photos: photos.length };
  } finally {
    archive.close();
  }
}

/** Takes out photographs that no copy names any more. */
async function forgetPhotos(folder: string, copies: readonly Copy[]): Promise<void> {
  const beside = besideOf(folder);
  if (!existsSync(beside)) return;
  const named = new Set<string>();
  for (const { name } of copies) {
    const hashes = await photosNamed(join(folder, name)).catch(() => null);
    // A copy that cannot be read may name any of them.
    if (!hashes) return;
    hashes.forEach((hash) => named.add(hash));
  }
  for (const part of await readdir(beside))
    for (const hash of await readdir(join(beside, part))) if (!named.has(hash)) await rm(join(beside, part, hash), { force: true });
}

/** Photographs of the kitchen that no trial, and no page of a formula, has named for a long time. */
async function forgetUnnamed(store: Store, now: Date): Promise<void> {
  const named = new Set<string>();
  for await (const key of store.whole.keys()) {
    if (key.table !== "trials" && key.table !== "formulas") continue;
    const { photos = [], pasted } = ((await store.whole.find(key))?.body ?? {}) as {
      photos?: string[];
      pasted?: { pages?: string[] };
    };
    for (const hash of [...photos, ...(pasted?.pages ?? [])]) named.add(hash);
  }
  await store.files.forget(named, new Date(now.getTime() - UNNAMED_DAYS * DAY_H * HOUR_MS));
}

/** Makes a copy when the last one is a day old, now and from hour to hour. Gives how to stop it. */
export function copyNightly(
  store: Store,
  dataFolder: string,
  program: string,
  onFault: (error: unknown) => void,
  { firstMs, everyMs }: { firstMs: number; everyMs: number } = { firstMs: FIRST_LOOK_MS, everyMs: LOOK_H * HOUR_MS },
): () => Promise<void> {
  let working: Promise<unknown> = Promise.resolve();
  let last = performance.now();
  const look = async (): Promise<void> => {
    const ran = (performance.now() - last) / HOUR_MS;
    last = performance.now();
    const index = indexOf(dataFolder);
    try {
      if (isDue(dataFolder, Date.now())) {
        await makeCopy(store, dataFolder, program, new Date());
        await forgetUnnamed(store, new Date());
      } else await keepIndex(dataFolder, { ...index, hoursRun: index.hoursRun + ran });
    } catch (error) {
      onFault(error);
      const fault = error instanceof NoCopy ? error.message : "The copy could not be made; the server's log says where it ended.";
      // A disk that is full holds no word of it either.
      await keepIndex(dataFolder, { ...index, hoursRun: index.hoursRun + ran, fault }).catch(() => undefined);
    }
  };
  const again = (): void => void (working = working.then(look, onFault));
  const first = setTimeout(again, firstMs);
  const timer = setInterval(again, everyMs);
  first.unref();
  timer.unref();
  return async () => {
    clearTimeout(first);
    clearInterval(timer);
    await working;
  };
}
