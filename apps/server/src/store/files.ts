import { createHash, randomUUID } from "node:crypto";
import { createReadStream } from "node:fs";
import { mkdir, open, readFile, rename, rm, stat } from "node:fs/promises";
import { dirname, join } from "node:path";
import { Op } from "sequelize";
import { Refusal } from "../errors";
import type { Database } from "./database";
import type { Models } from "./models";

/** A photograph from a phone is 2 to 8 MB. */
export const FILE_LIMIT = 12 * 1024 * 1024;

export interface StoredFile {
  hash: string;
  type: string;
  bytes: number;
}

export interface FileStore {
  /** Keeps bytes under the SHA-256 of their content; the same content is kept once. Refuses what is over the limit. */
  put(content: Uint8Array, type: string): Promise<StoredFile>;
  has(hash: string): Promise<boolean>;
  list(): Promise<StoredFile[]>;
  /** Where its bytes are. */
  pathOf(hash: string): string;
  read(hash: string): Promise<{ file: StoredFile; content: Buffer }>;
  /** Takes out files of before a moment that nothing names any more. */
  forget(named: ReadonlySet<string>, before: Date): Promise<number>;
}

export const HALF = ".half";

/** Writes bytes whole or not at all: the name appears when they are on the disk, and nothing stays where they could not be written. */
export async function writeWhole(path: string, content: Uint8Array): Promise<void> {
  await mkdir(dirname(path), { recursive: true });
  const half = `${path}.${randomUUID()}${HALF}`;
  try {
    const handle = await open(half, "w", 0o600);
    try {
      await handle.writeFile(content);
      await handle.sync();
    } finally {
      await handle.close();
    }
    await rename(half, path);
  } catch (error) {
    await rm(half, { force: true }).catch(() => undefined);
    throw error;
  }
}

/** What is wrong with a file that should have these bytes; null where it is whole. */
export async function faultOfFile(path: string, sha256: string): Promise<"missing" | "damaged" | null> {
  const stats = await stat(path).catch(() => null);
  if (!stats?.isFile()) return "missing";
  const hash = createHash("sha256");
  try {
    for await (const part of createReadStream(path)) hash.update(part as Buffer);
  } catch {
    return "damaged";
  }
  return hash.digest("hex") === sha256 ? null : "damaged";
}

export const filePath = (folder: string, hash: string): string => join(folder, hash.slice(0, 2), hash);

export function fileStore(dataFolder: string, { write }: Database, { files }: Models): FileStore {
  const pathOf = (hash: string): string => filePath(join(dataFolder, "files"), hash);
  return {
    async put(content, type) {
      if (content.byteLength > FILE_LIMIT)
        throw new Refusal(
          "too-large",
          `The file has ${(content.byteLength / 1024 / 1024).toFixed(1)} MB; up to ${FILE_LIMIT / 1024 / 1024} MB would be right.`,
        );
      const hash = createHash("sha256").update(content).digest("hex");
      await writeWhole(pathOf(hash), content);
      const file = { hash, type, bytes: content.byteLength };
      await write((transaction) => files.findOrCreate({ where: { hash }, defaults: file, transaction }));
      return file;
    },
    list: () => files.findAll({ attributes: ["hash", "type", "bytes"], order: [["hash", "ASC"]], raw: true }),
    pathOf,
    has: async (hash) => (await files.count({ where: { hash } })) > 0,
    async read(hash) {
      const row = /^[0-9a-f]{64}$/.test(hash) ? await files.findByPk(hash) : null;
      if (!row) throw new Refusal("not-found", `No file has the hash "${hash.slice(0, 64)}".`);
      const { type, bytes } = row;
      const content = await readFile(pathOf(hash)).catch((error: NodeJS.ErrnoException) => {
        if (error.code !== "ENOENT") throw error;
        throw new Refusal(
          "not-found",
          "This photograph is missing on the server's disk; restoring a copy that has it brings it back.",
        );
      });
      return { file: { hash, type, bytes }, content };
    },
    async forget(named, before) {
      const rows = await files.findAll({ attributes: ["hash"], where: { createdAt: { [Op.lt]: before } }, raw: true });
      const gone = rows.map(({ hash }) => hash).filter((hash) => !named.has(hash));
      if (gone.length === 0) return 0;
      await write((transaction) => files.destroy({ where: { hash: gone }, transaction }));
      for (const hash of gone) await rm(pathOf(hash), { force: true }).catch(() => undefined);
      return gone.length;
    },
  };
}
