import { createHash } from "node:crypto";
import { type Entry, fromBuffer, open, type ZipFile } from "yauzl";
import { Refusal } from "../errors";
import type { StoredEvent, WholeThing } from "../store/store";
import { bodySchemas, eventsFileSchema, manifestSchema, tableNames, thingFileSchema } from "./shapes";

/** What one archive may hold; a kitchen of ten years stays far under it. Bytes. */
export const archiveLimits = {
  files: 50_000,
  jsonBytes: 8 * 1024 * 1024,
  manifestBytes: 32 * 1024 * 1024,
  photoBytes: 12 * 1024 * 1024,
  allBytes: 2 * 1024 * 1024 * 1024,
  /** What unfolds to more times its size, and is no trifle, is a bomb. */
  ratio: 300,
  trifleBytes: 1024 * 1024,
} as const;

export interface ReadArchive {
  madeAt: string;
  program: string;
  things: WholeThing[];
  events: { bakeId: string; events: StoredEvent[] }[];
  photos: string[];
  /** The bytes of a photograph, read once more. */
  photo(hash: string): Promise<Buffer>;
}

const refuse = (sentence: string): Refusal => new Refusal("unprocessable", `${sentence} Nothing was changed.`);

const zipOf = (source: Buffer | string): Promise<ZipFile> =>
  new Promise((done, fail) => {
    const options = { lazyEntries: true, strictFileNames: true, validateEntrySize: true, autoClose: false };
    const then = (error: Error | null, zip?: ZipFile): void => (zip ? done(zip) : fail(error));
    if (typeof source === "string") open(source, options, then);
    else fromBuffer(source, options, then);
  });

/** Calls with each entry in its order. */
const eachEntry = (zip: ZipFile, look: (entry: Entry) => Promise<void>): Promise<void> =>
  new Promise((done, fail) => {
    zip.on("entry", (entry: Entry) => void look(entry).then(() => zip.readEntry(), fail));
    zip.once("end", done);
    zip.once("error", fail);
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

const PATH = new RegExp(
  `^(?:manifest\\.json|(?:${tableNames.join("|")}|events)/[A-Za-z0-9_-]{1,80}\\.json|photos/[0-9a-f]{64}\\.jpg)$`,
);
const JPEG = Buffer.from([0xff, 0xd8, 0xff]);
const SYMLINK = 0o120000;
const KIND_OF_FILE = 0o170000;

/** Refuses an entry by what the directory says of it, before a byte of it is unfolded. */
function checkEntry(entry: Entry): void {
  const { fileName, uncompressedSize, compressedSize, externalFileAttributes } = entry;
  const shown = fileName.slice(0, 80);
  if (!PATH.test(fileName)) throw refuse(`The archive holds “${shown}”, which belongs to none; names such as formulas/pear-loaf.json would be right.`);
  if (((externalFileAttributes >>> 16) & KIND_OF_FILE) === SYMLINK) throw refuse(`“${shown}” is a link to another place; an archive holds files only.`);
  const most = fileName.startsWith("photos/") ? archiveLimits.photoBytes : fileName === "manifest.json" ? archiveLimits.manifestBytes : archiveLimits.jsonBytes;
  if (uncompressedSize > most) throw refuse(`“${shown}” has ${Math.round(uncompressedSize / 1e6)} MB; up to ${Math.round(most / 1e6)} would be right.`);
  if (uncompressedSize > archiveLimits.trifleBytes && uncompressedSize > archiveLimits.ratio * Math.max(1, compressedSize)) throw refuse(`“${shown}” unfolds to ${Math.round(uncompressedSize / Math.max(1, compressedSize))} times its size, as no file of a kitchen does.`);
} // prettier-ignore

function jsonOf(path: string, bytes: Buffer): unknown {
  try {
    return JSON.parse(bytes.toString("utf8"));
  } catch {
    throw refuse(`“${path}” is no JSON.`);
  }
}

const parsed = <T>(path: string, schema: { safeParse(value: unknown): { success: boolean; data?: T; error?: { issues: { path: PropertyKey[]; message: string }[] } } }, value: unknown): T => {
  const result = schema.safeParse(value);
  if (result.success) return result.data as T;
  const issue = result.error?.issues[0];
  throw refuse(`“${path}” is not as described${issue ? `: ${issue.path.join(".") || "its content"}: ${issue.message}` : ""}.`);
}; // prettier-ignore

/** Everything in an archive, checked: names, sizes, checksums, shapes. Refuses with a sentence what is damaged, hostile or of another program. */
export async function readArchive(source: Buffer | string): Promise<ReadArchive> {
  let zip: ZipFile;
  try {
    zip = await zipOf(source);
  } catch {
    throw refuse("This is no ZIP file, or it is not whole.");
  }
  try {
    return await readZip(zip, source);
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw refuse(`The archive is damaged: ${error instanceof Error ? error.message : String(error)}.`);
  } finally {
    zip.close();
  }
}

async function readZip(zip: ZipFile, source: Buffer | string): Promise<ReadArchive> {
  if (zip.entryCount > archiveLimits.files) throw refuse(`The archive says that it holds ${zip.entryCount} files; up to ${archiveLimits.files} would be right.`); // prettier-ignore
  const sums = new Map<string, { sha256: string; bytes: number }>();
  const jsons = new Map<string, unknown>();
  let all = 0;
  await eachEntry(zip, async (entry) => {
    const { fileName, uncompressedSize } = entry;
    checkEntry(entry);
    all += uncompressedSize;
    if (all > archiveLimits.allBytes) throw refuse("The archive unfolds to more than 2 GB.");
    if (sums.has(fileName)) throw refuse(`“${fileName}” stands in the archive twice.`);
    if (sums.size >= archiveLimits.files) throw refuse(`The archive holds more than ${archiveLimits.files} files.`);
    const bytes = await contentOf(zip, entry);
    sums.set(fileName, { sha256: createHash("sha256").update(bytes).digest("hex"), bytes: bytes.length });
    if (fileName.endsWith(".jpg") && !bytes.subarray(0, 3).equals(JPEG)) throw refuse(`“${fileName}” is no JPEG.`);
    if (fileName.endsWith(".json")) jsons.set(fileName, jsonOf(fileName, bytes));
  });
  if (!jsons.has("manifest.json")) throw refuse("The archive has no manifest.json; one that Uprise wrote has.");
  const manifest = parsed("manifest.json", manifestSchema, jsons.get("manifest.json"));
  const told = new Map(manifest.files.map((file) => [file.path, file]));
  if (told.size !== manifest.files.length) throw refuse("The manifest names a file twice.");
  for (const [path, { sha256, bytes }] of sums) {
    if (path === "manifest.json") continue;
    const file = told.get(path);
    if (!file) throw refuse(`“${path}” is not in the manifest.`);
    if (file.sha256 !== sha256 || file.bytes !== bytes) throw refuse(`“${path}” is not what the manifest says: its checksum is another one.`);
  }
  for (const path of told.keys()) if (!sums.has(path)) throw refuse(`“${path}” is in the manifest and not in the archive.`);
  const photos = [...sums].flatMap(([path, { sha256 }]) => {
    if (!path.startsWith("photos/")) return [];
    if (path !== `photos/${sha256}.jpg`) throw refuse(`“${path}” is not named by its own checksum.`);
    return [sha256];
  });
  const things: WholeThing[] = [];
  const events: ReadArchive["events"] = [];
  for (const [path, value] of jsons) {
    const [folder = "", name = ""] = path.split("/");
    if (path === "manifest.json") continue;
    if (folder === "events") {
      const file = parsed(path, eventsFileSchema, value);
      if (`${file.bakeId}.json` !== name) throw refuse(`“${path}” is of the bake “${file.bakeId}”.`);
      events.push({ bakeId: file.bakeId, events: file.events.map((event) => ({ ...event, bakeId: file.bakeId })) });
      continue;
    }
    const table = folder as WholeThing["table"];
    const file = parsed(path, thingFileSchema, value);
    if (`${file.id}.json` !== name) throw refuse(`“${path}” holds the id “${file.id}”.`);
    const schema = bodySchemas[table];
    const body = parsed(path, schema as never, file.body);
    const versions = file.versions?.map((one) => ({ ...one, body: parsed(path, schema as never, one.body) }));
    things.push({ ...file, table, body, ...(versions ? { versions } : {}) });
  }
  return { madeAt: manifest.madeAt, program: manifest.program, things, events, photos, photo: (hash) => photoOf(source, hash) };
} // prettier-ignore

async function photoOf(source: Buffer | string, hash: string): Promise<Buffer> {
  const zip = await zipOf(source);
  try {
    let found: Buffer | null = null;
    await eachEntry(zip, async (entry) => {
      if (entry.fileName === `photos/${hash}.jpg`) found = await contentOf(zip, entry);
    });
    if (!found) throw refuse(`The photograph ${hash} is gone from the archive.`);
    return found;
  } finally {
    zip.close();
  }
}
