import { existsSync, readdirSync, readFileSync, statSync } from "node:fs";
import { readdir, rm } from "node:fs/promises";
import { join } from "node:path";
import { z } from "zod";
import { codesOf, Unusable } from "../errors";
import { HALF, writeWhole } from "./files";
import { openRaw } from "./raw";

/** What a folder remembers beside its database: that the kitchen was filled, and how often it was written. */
const tallySchema = z.object({ shape: z.literal(1), writes: z.number().int().min(0) });

/** Remembered so soon after a write, ms; a save is never held up by it. */
const SOON_MS = 150;
/** How long another Uprise that is just ending is waited for, ms. */
const HOLD_WAIT_MS = 2500;

const tallyFile = (dataFolder: string): string => join(dataFolder, "kitchen.json");

/** The copies of a data folder as a way out of a sentence. */
function wayOut(dataFolder: string): string {
  const folder = join(dataFolder, "copies");
  const index = join(folder, "index.json");
  let names: string[] = [];
  try {
    names = (JSON.parse(readFileSync(index, "utf8")) as { copies: { name: string }[] }).copies.map(({ name }) => name);
  } catch {
    // Without its list the folder tells nothing here; the command does.
  }
  const newest = names.filter((name) => existsSync(join(folder, name))).slice(-3).reverse(); // prettier-ignore
  const first = newest[0];
  return first === undefined
    ? `There are no copies in ${folder}; an archive that was kept elsewhere can be brought in with npm run restore -- <archive.zip> --anew.`
    : `Copies, the newest first: ${newest.join(", ")}. npm run restore -- ${join(folder, first)} --anew puts what is there aside and begins anew from that one.`;
}

/** Whether copies of a kitchen stand in a folder. */
function hasCopies(dataFolder: string): boolean {
  const folder = join(dataFolder, "copies");
  return existsSync(folder) && readdirSync(folder).some((name) => /^uprise-.*\.zip$/.test(name));
}

const damaged = (dataFolder: string, file: string, what: string): Unusable =>
  new Unusable(`The database ${file} ${what}. Nothing was changed. ${wayOut(dataFolder)}`);

/** Holds a data folder for this process alone, until what it gives is called; the machine lets it go where the process is killed. Throws `Unusable` where another has it. */
export async function holdFolder(dataFolder: string): Promise<() => Promise<void>> {
  const raw = await openRaw(join(dataFolder, "held.sqlite"), HOLD_WAIT_MS);
  try {
    await raw.exec("BEGIN EXCLUSIVE");
  } catch (error) {
    await raw.close();
    if (!codesOf(error).some((code) => /SQLITE_(?:BUSY|LOCKED)/.test(code))) throw error;
    throw new Unusable(
      `Another Uprise is at work in ${dataFolder}. Stop that one first, or set UPRISE_DATA to a folder of its own.`,
    );
  }
  return async () => {
    await raw.exec("ROLLBACK").catch(() => undefined);
    await raw.close();
  };
}

export interface Tally {
  /** Takes note of how many writes there were. */
  told(writes: number): void;
  close(): Promise<void>;
}

function remembered(dataFolder: string): number | null {
  try {
    return tallySchema.parse(JSON.parse(readFileSync(tallyFile(dataFolder), "utf8"))).writes;
  } catch {
    return null;
  }
}

const sayWrites = (dataFolder: string, writes: number): Promise<void> =>
  writeWhole(tallyFile(dataFolder), Buffer.from(JSON.stringify({ shape: 1, writes })));

/** Goes on with what a database holds, although more was saved once: what a person decides, never the program. */
export async function takeAsItIs(dataFolder: string, file: string): Promise<void> {
  if (!existsSync(file)) return rm(tallyFile(dataFolder), { force: true });
  const raw = await openRaw(file);
  try {
    const [row] = await raw.all<{ writes: number }>("SELECT writes FROM kitchen");
    await sayWrites(dataFolder, row?.writes ?? 0);
  } catch {
    await rm(tallyFile(dataFolder), { force: true });
  } finally {
    await raw.close();
  }
}

/**
 * Looks at a database before anything is done with it: whether it is whole, may be written, and holds what was saved. Brings it to the newest
 * shape by `migrate`. Throws `Unusable` with the way out; an empty kitchen is never begun where there was a full one.
 */
export async function openTally(dataFolder: string, file: string, migrate: (file: string) => Promise<void>, beginAnew = false): Promise<Tally> {
  const saved = remembered(dataFolder);
  const bytes = statSync(file, { throwIfNoEntry: false })?.size ?? 0;
  const lost = `If that is meant, npm run restore -- --as-it-is goes on with what there is.`;
  if (!beginAnew && bytes === 0 && ((saved ?? 0) > 0 || hasCopies(dataFolder)))
    throw new Unusable(`${damaged(dataFolder, file, "is gone or empty, although this kitchen was filled").message} ${lost}`);
  let writes = 0;
  try {
    if (bytes > 0) await mustBeWhole(dataFolder, file);
    await migrate(file);
    writes = await mustBeWritable(file);
  } catch (error) {
    const codes = codesOf(error).join(" ");
    if (/SQLITE_(?:NOTADB|CORRUPT|IOERR)/.test(codes)) throw damaged(dataFolder, file, "is damaged");
    if (/SQLITE_(?:READONLY|CANTOPEN|PERM)/.test(codes))
      throw new Unusable(`The database ${file} may only be read; make it and its folder writable for this user, or set UPRISE_DATA to another folder.`);
    if (/SQLITE_(?:BUSY|LOCKED)/.test(codes))
      throw new Unusable(`The database ${file} is held by another program; close that one and start again.`);
    throw error;
  }
  if (saved !== null && writes < saved)
    throw new Unusable(`${damaged(dataFolder, file, `holds less than was saved: ${saved} saves are known, ${writes} are in it`).message} ${lost}`);
  let known = writes;
  let timer: NodeJS.Timeout | null = null;
  let working: Promise<unknown> = sayWrites(dataFolder, known).catch(() => undefined);
  const say = (): void => {
    timer = null;
    // What cannot be remembered now is remembered with the next write: it is never more than what is in the database.
    working = working.then(() => sayWrites(dataFolder, known)).catch(() => undefined);
  };
  return {
    told(count) {
      known = Math.max(known, count);
      timer ??= setTimeout(say, SOON_MS);
    },
    async close() {
      if (timer) {
        clearTimeout(timer);
        say();
      }
      await working;
    },
  };
} // prettier-ignore

async function mustBeWhole(dataFolder: string, file: string): Promise<void> {
  const raw = await openRaw(file);
  try {
    const [row] = await raw.all<{ quick_check: string }>("PRAGMA quick_check(1)");
    if (row?.quick_check !== "ok")
      throw damaged(
        dataFolder,
        file,
        `is damaged (${(row?.quick_check ?? "it cannot be read")
          .replace(/[*\s]+/g, " ")
          .trim()
          .slice(0, 120)})`,
      );
  } finally {
    await raw.close();
  }
}

/** Tries to write, and takes it back. How often the kitchen was written. */
async function mustBeWritable(file: string): Promise<number> {
  const raw = await openRaw(file);
  try {
    await raw.exec("BEGIN IMMEDIATE");
    await raw.exec("UPDATE kitchen SET writes = writes");
    const [row] = await raw.all<{ writes: number }>("SELECT writes FROM kitchen");
    await raw.exec("ROLLBACK");
    return row?.writes ?? 0;
  } finally {
    await raw.close();
  }
}

/** Takes away what was half written when a process was killed. */
export async function clearHalves(dataFolder: string): Promise<void> {
  const clear = async (folder: string, deep: number): Promise<void> => {
    for (const entry of await readdir(folder, { withFileTypes: true }).catch(() => [])) {
      const path = join(folder, entry.name);
      if (entry.isDirectory() && deep > 0) await clear(path, deep - 1);
      else if (entry.isFile() && (entry.name.endsWith(HALF) || /\.\d+-\d{13}$/.test(entry.name))) await rm(path, { force: true });
    }
  };
  await clear(dataFolder, 3);
  await rm(join(dataFolder, "incoming"), { recursive: true, force: true });
}
