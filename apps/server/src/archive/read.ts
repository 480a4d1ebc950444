import { createHash } from "node:crypto";
import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { setImmediate } from "node:timers/promises";
import { type Entry, open, type ZipFile } from "yauzl";
import { Refusal } from "../errors";
import { faultOfFile, filePath } from "../store/files";
import type { StoredEvent, WholeThing, WholeVersion } from "../store/store";
import {
  bodySchemas,
  eventsFileSchema,
  FILES_AT_ONCE,
  type Flaw,
  type Manifest,
  manifestFilesSchema,
  manifestSchema,
  tableNames,
  thingFileSchema,
  versionsFileSchema,
} from "./shapes";

/** What one archive may hold; a kitchen of ten years stays far under it. Bytes. */
export const archiveLimits = {
  files: 400_000,
  jsonBytes: 32 * 1024 * 1024,
  manifestBytes: 96 * 1024 * 1024,
  photoBytes: 12 * 1024 * 1024,
  allBytes: 8 * 1024 * 1024 * 1024,
  /** What unfolds to more times its size, and is no trifle, is a bomb. */
  ratio: 300,
  trifleBytes: 1024 * 1024,
} as const;

/** What one file of an archive holds. */
export type Part =
  | { what: "thing"; thing: WholeThing; versions: WholeVersion[] }
  | { what: "versions"; formulaId: string; version: number; versions: WholeVersion[] }
  | { what: "events"; bakeId: string; events: StoredEvent[] };

export interface ReadArchive {
  madeAt: string;
  program: string;
  things: number;
  /** Photographs that can be had from it. */
  photos: string[];
  /** What is missing from it or damaged, and why; the rest of it can be taken. */
  flaws: Flaw[];
  /** Everything that is whole, in the order of the archive. */
  parts(): AsyncGenerator<Part>;
  /** The bytes of a photograph. */
  photo(hash: string): Promise<Buffer>;
  close(): void;
}

const refuse = (sentence: string): Refusal => new Refusal("unprocessable", `${sentence} Nothing was changed.`);
const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

const zipOf = (path: string): Promise<ZipFile> =>
  new Promise((done, fail) => {
    open(path, { lazyEntries: true, strictFileNames: true, validateEntrySizes: true, autoClose: false }, (error, zip) => (zip ? done(zip) : fail(error))); // prettier-ignore
  });

/** Every entry of the directory; no byte of a file is unfolded for it. */
const entriesOf = (zip: ZipFile): Promise<Entry[]> =>
  new Promise((done, fail) => {
    const entries: Entry[] = [];
    zip.on("entry", (entry: Entry) => {
      try {
        if (entries.length >= archiveLimits.files) throw refuse(`The archive holds more than ${archiveLimits.files} files.`);
        checkEntry(entry);
        entries.push(entry);
        zip.readEntry();
      } catch (error) {
        fail(error instanceof Error ? error : new Error(String(error)));
      }
    });
    zip.once("end", () => done(entries));
    // Whatever else goes wrong with it later is told by what was asked of it then.
    zip.on("error", fail);
    zip.readEntry();
  });

const contentOf = (zip: ZipFile, entry: Entry): Promise<Buffer> =>
  new Promise((done, fail) => {
    zip.openReadStream(entry, (error, stream) => {
      if (error || !stream) return fail(error);
      const parts: Buffer[] = [];
      stream.on("data", (part: Buffer) => parts.push(part));
      stream.on("error", fail);
      stream.on("end", () => done(Buffer.concat(parts)));
    });
  });

const ID = "[A-Za-z0-9_-]{1,80}";
const PATH = new RegExp(
  `^(?:manifest\\.json|(?:${tableNames.join("|")}|events)/${ID}\\.json|(?:versions|events)/${ID}/\\d{1,6}\\.json|photos/[0-9a-f]{64}\\.jpg)$`,
);
const JPEG = Buffer.from([0xff, 0xd8, 0xff]);
const SYMLINK = 0o120000;
const KIND_OF_FILE = 0o170000;

/** Refuses an entry by what the directory says of it, before a byte of it is unfolded: such an archive was not written by Uprise. */
function checkEntry(entry: Entry): void {
  const { fileName, uncompressedSize, compressedSize, externalFileAttributes } = entry;
  const shown = fileName.slice(0, 80);
  if (!PATH.test(fileName)) throw refuse(`The archive holds “${shown}”, which belongs to none; names such as formulas/pear-loaf.json would be right.`);
  if (((externalFileAttributes >>> 16) & KIND_OF_FILE) === SYMLINK) throw refuse(`“${shown}” is a link to another place; an archive holds files only.`);
  const most = fileName.startsWith("photos/") ? archiveLimits.photoBytes : fileName === "manifest.json" ? archiveLimits.manifestBytes : archiveLimits.jsonBytes;
  if (uncompressedSize > most) throw refuse(`“${shown}” has ${Math.round(uncompressedSize / 1e6)} MB; up to ${Math.round(most / 1e6)} would be right.`);
  if (uncompressedSize > archiveLimits.trifleBytes && uncompressedSize > archiveLimits.ratio * Math.max(1, compressedSize)) throw refuse(`“${shown}” unfolds to ${Math.round(uncompressedSize / Math.max(1, compressedSize))} times its size, as no file of a kitchen does.`);
} // prettier-ignore

/** Why a file cannot be taken; the others can. */
class Flawed extends Error {}

interface Parsed {
  success: boolean;
  data?: unknown;
  error?: { issues: { path: PropertyKey[]; message: string }[] } | undefined;
}

function fit<T>(schema: { safeParse(value: unknown): Parsed }, value: unknown): T {
  const result = schema.safeParse(value);
  if (result.success) return result.data as T;
  const issue = result.error?.issues[0];
  throw new Flawed(
    `It is not as described${issue ? `: ${issue.path.map(String).join(".") || "its content"}: ${issue.message}` : ""}.`,
  );
}

/** What a file of JSON holds, by where it stands. Throws `Flawed`. */
function partOf(path: string, bytes: Buffer): Part {
  let value: unknown;
  try {
    value = JSON.parse(bytes.toString("utf8"));
  } catch {
    throw new Flawed("It is no JSON.");
  }
  const [folder = "", name = ""] = path.split("/");
  const id = name.replace(/\.json$/, "");
  const mustBe = (said: string): void => {
    if (said !== id) throw new Flawed(`It holds the id “${said}”.`);
  };
  if (folder === "events") {
    const { bakeId, events } = fit<{ bakeId: string; events: Omit<StoredEvent, "bakeId">[] }>(eventsFileSchema, value);
    mustBe(bakeId);
    return { what: "events", bakeId, events: events.map((event) => ({ ...event, bakeId })) };
  }
  const checked = (versions: WholeVersion[], schema: { safeParse(value: unknown): Parsed }): WholeVersion[] =>
    versions.map((one) => ({ ...one, body: fit(schema, one.body) }));
  if (folder === "versions") {
    const { formulaId, version, versions } = fit<{ formulaId: string; version: number; versions: WholeVersion[] }>(versionsFileSchema, value); // prettier-ignore
    mustBe(formulaId);
    return { what: "versions", formulaId, version, versions: checked(versions, bodySchemas.formulas) };
  }
  const table = folder as WholeThing["table"];
  const { versions = [], ...file } = fit<Omit<WholeThing, "table"> & { versions?: WholeVersion[] }>(thingFileSchema, value);
  mustBe(file.id);
  const body: unknown = fit(bodySchemas[table], file.body);
  return { what: "thing", thing: { ...file, table, body }, versions: checked(versions, bodySchemas[table]) };
}

/**
 * An archive in a file, every part of it looked at once: names, sizes, checksums, shapes. Refuses with a sentence what was not written by
 * Uprise; what is damaged or missing is named, and the rest can be taken. `besideFolder` is where copies keep their photographs.
 */
export async function readArchive(path: string, besideFolder?: string): Promise<ReadArchive> {
  const zip = await zipOf(path).catch(() => {
    throw refuse("This is no ZIP file, or it is not whole.");
  });
  try {
    return await readZip(zip, besideFolder);
  } catch (error) {
    zip.close();
    if (error instanceof Refusal) throw error;
    throw refuse(`The archive is damaged: ${wordsOf(error)}.`);
  }
}

async function manifestOf(zip: ZipFile, entries: readonly Entry[]): Promise<Manifest> {
  const entry = entries.find(({ fileName }) => fileName === "manifest.json");
  if (!entry) throw refuse("The archive has no manifest.json; one that Uprise wrote has.");
  try {
    const told = JSON.parse((await contentOf(zip, entry)).toString("utf8")) as object | null;
    const manifest = fit<Manifest>(manifestSchema, { ...told, files: [] });
    const { files } = fit<{ files: unknown[] }>(manifestFilesSchema, told);
    for (let k = 0; k < files.length; k += FILES_AT_ONCE) {
      for (const file of fit<Manifest["files"]>(manifestSchema.shape.files, files.slice(k, k + FILES_AT_ONCE)))
        manifest.files.push(file);
      // Others are answered in between.
      await setImmediate();
    }
    return manifest;
  } catch (error) {
    throw refuse(`“manifest.json” cannot be read: ${wordsOf(error)}`);
  }
}

async function readZip(zip: ZipFile, besideFolder: string | undefined): Promise<ReadArchive> {
  if (zip.entryCount > archiveLimits.files) throw refuse(`The archive says that it holds ${zip.entryCount} files; up to ${archiveLimits.files} would be right.`);
  const entries = await entriesOf(zip);
  const all = entries.reduce((sum, { uncompressedSize }) => sum + uncompressedSize, 0);
  if (all > archiveLimits.allBytes) throw refuse("The archive unfolds to more than 8 GB.");
  const byPath = new Map<string, Entry>();
  for (const entry of entries) {
    if (byPath.has(entry.fileName)) throw refuse(`“${entry.fileName}” stands in the archive twice.`);
    byPath.set(entry.fileName, entry);
  }
  const manifest = await manifestOf(zip, entries);
  const told = new Map(manifest.files.map((file) => [file.path, file]));
  if (told.size !== manifest.files.length) throw refuse("The manifest names a file twice.");
  const flaws: Flaw[] = [...(manifest.missing ?? [])];
  const whole: Entry[] = [];
  const photos = new Map<string, Entry | null>();
  let things = 0;
  for (const entry of entries) {
    const { fileName } = entry;
    if (fileName === "manifest.json") continue;
    try {
      const file = told.get(fileName);
      if (!file) throw new Flawed("It is not in the manifest.");
      const bytes = await contentOf(zip, entry);
      const sha256 = createHash("sha256").update(bytes).digest("hex");
      if (file.sha256 !== sha256 || file.bytes !== bytes.length) throw new Flawed("It is not what the manifest says: its checksum is another one.");
      if (fileName.startsWith("photos/")) {
        if (!bytes.subarray(0, 3).equals(JPEG)) throw new Flawed("It is no JPEG.");
        if (fileName !== `photos/${sha256}.jpg`) throw new Flawed("It is not named by its own checksum.");
        photos.set(sha256, entry);
      } else {
        if (partOf(fileName, bytes).what === "thing") things++;
        whole.push(entry);
      }
    } catch (error) {
      flaws.push({ path: fileName, why: wordsOf(error) });
    }
  }
  for (const path of told.keys()) if (!byPath.has(path)) flaws.push({ path, why: "It is in the manifest and not in the archive." });
  for (const { sha256 } of manifest.beside ?? []) {
    const fault = besideFolder === undefined ? "missing" : await faultOfFile(filePath(besideFolder, sha256), sha256);
    if (fault === null) photos.set(sha256, null);
    else flaws.push({ path: `photos/${sha256}.jpg`, why: besideFolder === undefined ? "It stands beside the copy, in the folder “photos” of the kitchen's copies, and not in this file." : `It is ${fault} beside the copy.` });
  }
  return {
    madeAt: manifest.madeAt,
    program: manifest.program,
    things,
    photos: [...photos.keys()],
    flaws,
    async *parts() {
      for (const entry of whole) yield partOf(entry.fileName, await contentOf(zip, entry));
    },
    async photo(hash) {
      const entry = photos.get(hash);
      if (entry) return contentOf(zip, entry);
      return readFile(filePath(besideFolder ?? "", hash));
    },
    close: () => zip.close(),
  };
} // prettier-ignore

/** The photographs that an archive names, by its manifest alone. */
export async function photosNamed(path: string): Promise<string[]> {
  const zip = await zipOf(path);
  try {
    const { beside = [], files } = await manifestOf(zip, await entriesOf(zip));
    return [...beside, ...files.filter((file) => file.path.startsWith("photos/"))].map(({ sha256 }) => sha256);
  } finally {
    zip.close();
  }
}

/** Where copies keep their photographs, by the folder that they stand in. */
export const besideOf = (copiesFolder: string): string => join(copiesFolder, "photos");
