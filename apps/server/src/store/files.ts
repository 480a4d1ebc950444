import { createHash } from "node:crypto";
import { mkdir, open, readFile, rename } from "node:fs/promises";
import { dirname, join } from "node:path";
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
}

export function fileStore(dataFolder: string, { write }: Database, { files }: Models): FileStore {
  const pathOf = (hash: string): string => join(dataFolder, "files", hash.slice(0, 2), hash);
  return {
    async put(content, type) {
      if (content.byteLength > FILE_LIMIT)
        throw new Refusal(
          "too-large",
          `The file has ${(content.byteLength / 1024 / 1024).toFixed(1)} MB; up to ${FILE_LIMIT / 1024 / 1024} MB would be right.`,
        );
      const hash = createHash("sha256").update(content).digest("hex");
      const path = pathOf(hash);
      await mkdir(dirname(path), { recursive: true });
      // Whole or not at all: the name appears when the bytes are on the disk.
      const half = `${path}.${process.pid}-${Date.now()}`;
      const handle = await open(half, "w");
      await handle.writeFile(content);
      await handle.sync();
      await handle.close();
      await rename(half, path);
      const file = { hash, type, bytes: content.byteLength };
      await write((transaction) => files.findOrCreate({ where: { hash }, defaults: file, transaction }));
      return file;
    },
    list: async () => (await files.findAll({ order: [["hash", "ASC"]] })).map(({ hash, type, bytes }) => ({ hash, type, bytes })),
    pathOf,
    has: async (hash) => (await files.count({ where: { hash } })) > 0,
    async read(hash) {
      const row = /^[0-9a-f]{64}$/.test(hash) ? await files.findByPk(hash) : null;
      if (!row) throw new Refusal("not-found", `No file has the hash "${hash.slice(0, 64)}".`);
      const { type, bytes } = row;
      return { file: { hash, type, bytes }, content: await readFile(pathOf(hash)) };
    },
  };
}
