import { createWriteStream, existsSync } from "node:fs";
import { mkdir, readdir, rename, rm, stat } from "node:fs/promises";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import type { Store } from "../store/store";
import { writeArchive } from "./write";

/** A copy a day into the data folder, so many of them; the oldest goes. */
export const KEEP_COPIES = 14;
const DAY_MS = 86_400_000;
/** Looked for so often; a machine that slept at night makes it in the morning. */
const LOOK_MS = 3_600_000;
const NAME = /^uprise-\d{4}-\d{2}-\d{2}\.zip$/;

const folderOf = (dataFolder: string): string => join(dataFolder, "copies");

async function copies(dataFolder: string): Promise<{ name: string; at: number }[]> {
  const folder = folderOf(dataFolder);
  if (!existsSync(folder)) return [];
  const names = (await readdir(folder)).filter((name) => NAME.test(name)).sort();
  return Promise.all(names.map(async (name) => ({ name, at: (await stat(join(folder, name))).mtimeMs })));
}

/** How old the newest copy is, hours; null where there is none. */
export async function copyAgeHours(dataFolder: string, now: number): Promise<number | null> {
  const newest = Math.max(0, ...(await copies(dataFolder)).map(({ at }) => at));
  return newest === 0 ? null : Math.max(0, (now - newest) / 3_600_000);
}

/** Writes today's copy, whole or not at all, and lets the oldest go. Its path. */
export async function makeCopy(store: Store, dataFolder: string, program: string, now: Date, keep = KEEP_COPIES): Promise<string> {
  const folder = folderOf(dataFolder);
  await mkdir(folder, { recursive: true });
  const path = join(folder, `uprise-${now.toISOString().slice(0, 10)}.zip`);
  const half = `${path}.half`;
  await pipeline(await writeArchive(store, program, now), createWriteStream(half));
  await rename(half, path);
  const all = await copies(dataFolder);
  for (const { name } of all.slice(0, Math.max(0, all.length - keep))) await rm(join(folder, name), { force: true });
  return path;
}

/** Makes a copy when the last one is a day old, now and from hour to hour. Gives how to stop it. */
export function copyNightly(
  store: Store,
  dataFolder: string,
  program: string,
  onFault: (error: unknown) => void,
): () => Promise<void> {
  let working: Promise<unknown> = Promise.resolve();
  const look = (): void => {
    working = working
      .then(async () => {
        const age = await copyAgeHours(dataFolder, Date.now());
        if (age === null || age * 3_600_000 >= DAY_MS - LOOK_MS) await makeCopy(store, dataFolder, program, new Date());
      })
      .catch(onFault);
  };
  const first = setTimeout(look, 60_000);
  const timer = setInterval(look, LOOK_MS);
  first.unref();
  timer.unref();
  return async () => {
    clearTimeout(first);
    clearInterval(timer);
    await working;
  };
}
