import { readFileSync, statSync } from "node:fs";
import { mkdir, open, rename, rm, stat } from "node:fs/promises";
import { join } from "node:path";
import { z } from "zod";
import { Unusable } from "../errors";

const hashSchema = z.object({ salt: z.string(), key: z.string() });
export type Hash = z.infer<typeof hashSchema>;
const fileSchema = z.object({
  shape: z.literal(1),
  /** Signs cookies. */
  secret: z.string().min(32),
  baker: hashSchema,
  helper: hashSchema.nullable(),
  recovery: hashSchema,
  devices: z.array(
    z.object({
      id: z.string(),
      device: z.string(),
      role: z.enum(["baker", "helper"]),
      /** SHA-256 of the token in its cookie; the token itself is nowhere here. */
      token: z.string(),
      since: z.string(),
      seen: z.string(),
    }),
  ),
});
export type AccessFile = z.infer<typeof fileSchema>;

export interface KeptFile {
  /** What is in the file now, whoever wrote it; null where there is none. */
  now(): AccessFile | null;
  /** Writes what `change` makes of what is there then. It counts when it is on the disk, and not before. */
  update(change: (now: AccessFile | null) => AccessFile): Promise<void>;
  /** Calls with what was there and what is there, each time that it became another one. */
  whenChanged(does: (before: AccessFile | null, after: AccessFile | null) => void): void;
}

/** A lock that is older than this was left by a process that was killed, ms. */
const STALE_LOCK_MS = 10_000;
const LOOK_AGAIN_MS = 20;

function parsedFrom(path: string): AccessFile | null {
  try {
    return fileSchema.parse(JSON.parse(readFileSync(path, "utf8")));
  } catch {
    return null;
  }
}

/** The file of who may come in, which this process and `npm run passcode` beside it both read and write. Throws `Unusable` where it is damaged at the start. */
export function openKeptFile(dataFolder: string): KeptFile {
  const path = join(dataFolder, "access.json");
  const listeners: ((before: AccessFile | null, after: AccessFile | null) => void)[] = [];
  let file: AccessFile | null = null;
  let mark = "none";
  const markNow = (): string => {
    try {
      const stats = statSync(path, { throwIfNoEntry: false });
      return stats ? `${stats.ino} ${stats.mtimeMs} ${stats.size}` : "none";
    } catch {
      // A folder that is none is told where the database is opened.
      return "none";
    }
  };
  const adopt = (next: AccessFile | null): void => {
    const before = file;
    file = next;
    for (const does of listeners) does(before, next);
  };
  const look = (): AccessFile | null => {
    const now = markNow();
    if (now === mark) return file;
    const read = now === "none" ? null : parsedFrom(path);
    // A file that cannot be read lets in nobody who is not in already.
    if (now === "none" || read) adopt(read);
    mark = now;
    return file;
  };
  look();
  if (mark !== "none" && file === null)
    throw new Unusable(
      `${path} is damaged, so nobody can be let in. Take it away and set a passcode anew with npm run passcode; nothing else is lost.`,
    );

  const locked = async <T>(work: () => Promise<T>): Promise<T> => {
    await mkdir(dataFolder, { recursive: true });
    const lock = `${path}.lock`;
    for (;;) {
      try {
        await (await open(lock, "wx")).close();
        break;
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
        const age = Date.now() - (await stat(lock).catch(() => ({ mtimeMs: Date.now() }))).mtimeMs;
        if (Math.abs(age) > STALE_LOCK_MS) await rm(lock, { force: true });
        else await new Promise((done) => setTimeout(done, LOOK_AGAIN_MS));
      }
    }
    try {
      return await work();
    } finally {
      await rm(lock, { force: true });
    }
  };
  const written = async (next: AccessFile): Promise<void> => {
    const half = `${path}.half`;
    try {
      const handle = await open(half, "w", 0o600);
      try {
        await handle.chmod(0o600);
        await handle.writeFile(JSON.stringify(next, null, 1));
        await handle.sync();
      } finally {
        await handle.close();
      }
      await rename(half, path);
    } catch (error) {
      await rm(half, { force: true });
      throw error;
    }
  };
  let last: Promise<unknown> = Promise.resolve();
  return {
    now: look,
    update(change) {
      const next = last.then(() =>
        locked(async () => {
          const after = change(look());
          await written(after);
          mark = markNow();
          adopt(after);
        }),
      );
      last = next.catch(() => undefined);
      return next;
    },
    whenChanged: (does) => void listeners.push(does),
  };
}
