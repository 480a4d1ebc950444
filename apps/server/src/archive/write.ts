import { createHash } from "node:crypto";
import { createReadStream } from "node:fs";
import { stat } from "node:fs/promises";
import { type Duplex, Readable } from "node:stream";
import { type Formula, type InputLine, nestedIds, type Trial } from "@uprise/core";
import yazl from "yazl";
import { faultOfFile } from "../store/files";
import type { Store, WholeKey, WholeThing } from "../store/store";
import { ARCHIVE, ARCHIVE_SHAPE, FILES_AT_ONCE, type Manifest } from "./shapes";

/** Zip keeps no time zone; one moment for all files makes the same kitchen the same bytes. */
const MOMENT = new Date("2026-01-01T00:00:00Z");
/** Versions and events go into files of about this size, so that none is large however many there are. */
const PIECE_BYTES = 256 * 1024;

const linesOf = ({ lines, parts = [] }: Formula): InputLine[] => [...lines, ...parts.flatMap(({ additions }) => additions)];

/** What belongs to some formulas: what they hold, their trials and bakes, their kitchen's own ingredients and ovens. */
async function belonging({ whole }: Store, ids: readonly string[]): Promise<(thing: WholeThing) => boolean> {
  const wanted = new Set<string>();
  const formulas: Formula[] = [];
  const take = async (id: string): Promise<void> => {
    if (wanted.has(id)) return;
    const thing = await whole.find({ table: "formulas", id });
    if (!thing) return;
    wanted.add(id);
    formulas.push(thing.body as Formula);
    for (const nested of nestedIds(linesOf(thing.body as Formula))) await take(nested);
  };
  for (const id of ids) await take(id);
  const ingredients = new Set(formulas.flatMap((formula) => linesOf(formula).flatMap(({ ingredientId }) => ingredientId ?? [])));
  const ovens = new Set(formulas.flatMap(({ oven }) => oven.ovenId ?? []));
  const bakes = new Set<string>();
  for await (const key of whole.keys()) {
    if (key.table !== "trials") continue;
    const body = (await whole.find(key))?.body as Trial | undefined;
    if (body?.bakeId !== undefined && wanted.has(body.formulaId ?? "")) bakes.add(body.bakeId);
  }
  return ({ table, id, body }) => {
    const { formulaId = "", ingredientId = "" } = body as { formulaId?: string; ingredientId?: string };
    if (table === "formulas") return wanted.has(id);
    if (table === "ingredients") return ingredients.has(id);
    if (table === "packets") return ingredients.has(ingredientId);
    if (table === "ovens") return ovens.has(id);
    return (table === "trials" && wanted.has(formulaId)) || (table === "bakes" && (wanted.has(formulaId) || bakes.has(id)));
  };
}

export interface Writing {
  madeAt: Date;
  program: string;
  /** Some formulas with what belongs to them; left out, the whole kitchen. */
  ids?: readonly string[] | undefined;
  /** Takes a photograph in charge that stands beside the archive: what is wrong with it, or null. */
  beside?: (hash: string) => Promise<"missing" | "damaged" | null>;
  /** Told when all of it is written. */
  done?: (counts: { things: number; photos: number; missing: number }) => void;
}

interface Piece {
  path: string;
  /** What is packed already is a stream that is stored as it is. */
  content: Buffer | (() => Readable);
  packed?: boolean;
}

function* manifestText({ files, ...head }: Manifest): Generator<Buffer> {
  yield Buffer.from(`${JSON.stringify(head).slice(0, -1)},"files":[`);
  for (let k = 0; k < files.length; k += FILES_AT_ONCE)
    yield Buffer.from(`${k > 0 ? "," : ""}${JSON.stringify(files.slice(k, k + FILES_AT_ONCE)).slice(1, -1)}`);
  yield Buffer.from("]}\n");
}

/** The files of an archive, one after the other; each is made when the one before has gone out. */
async function* piecesOf(store: Store, { madeAt, program, ids, beside, done }: Writing): AsyncGenerator<Piece> {
  const files: Manifest["files"] = [];
  const missing: NonNullable<Manifest["missing"]> = [];
  const apart: NonNullable<Manifest["beside"]> = [];
  const json = (path: string, value: unknown): Piece => {
    const content = Buffer.from(`${JSON.stringify(value)}\n`);
    files.push({ path, bytes: content.length, sha256: createHash("sha256").update(content).digest("hex") });
    return { path, content };
  };
  const isWanted = ids === undefined ? () => true : await belonging(store, ids);
  const shown = new Set<string>();
  let things = 0;
  for await (const key of store.whole.keys()) {
    const thing = await store.whole.find(key);
    if (!thing || !isWanted(thing)) continue;
    things++;
    const { table, ...rest } = thing;
    yield json(`${table}/${rest.id}.json`, rest);
    if (table === "formulas") yield* versionsOf(store, thing, json);
    if (table === "bakes") yield* eventsOf(store, key, json, shown);
    if (table === "trials") for (const hash of (thing.body as Trial).photos) shown.add(hash);
  }
  let photos = 0;
  for (const { hash, bytes } of await store.files.list()) {
    if (!shown.has(hash)) continue;
    const from = store.files.pathOf(hash);
    const fault = beside ? await beside(hash) : await faultOfFile(from, hash);
    if (fault !== null) {
      missing.push({ path: `photos/${hash}.jpg`, why: `The photograph was ${fault} on the disk when this was made.` });
      continue;
    }
    photos++;
    if (beside) apart.push({ sha256: hash, bytes });
    else {
      const path = `photos/${hash}.jpg`;
      // A photograph is named by its checksum already.
      files.push({ path, bytes: (await stat(from)).size, sha256: hash });
      yield { path, content: () => createReadStream(from), packed: true };
    }
  }
  const manifest: Manifest = { format: ARCHIVE, shape: ARCHIVE_SHAPE, program, madeAt: madeAt.toISOString(), files, ...(beside ? { beside: apart } : {}), ...(missing.length > 0 ? { missing } : {}) };
  yield { path: "manifest.json", content: () => Readable.from(manifestText(manifest)) };
  done?.({ things, photos, missing: missing.length });
} // prettier-ignore

/** Lists in files of a bounded size each. */
async function* inPieces<T>(items: AsyncIterable<T> | Iterable<T>): AsyncGenerator<T[]> {
  let piece: T[] = [];
  let bytes = 0;
  for await (const item of items) {
    piece.push(item);
    bytes += JSON.stringify(item).length;
    if (bytes < PIECE_BYTES) continue;
    yield piece;
    piece = [];
    bytes = 0;
  }
  if (piece.length > 0) yield piece;
}

async function* versionsOf({ whole }: Store, { id, version }: WholeThing, json: (path: string, value: unknown) => Piece): AsyncGenerator<Piece> {
  let k = 0;
  for await (const versions of inPieces(whole.versions(id))) yield json(`versions/${id}/${++k}.json`, { formulaId: id, version, versions });
} // prettier-ignore

async function* eventsOf(
  store: Store,
  { id }: WholeKey,
  json: (path: string, value: unknown) => Piece,
  shown: Set<string>,
): AsyncGenerator<Piece> {
  let k = 0;
  const all = (await store.events.of(id)).map(({ id: eventId, at, kind, body }) => ({ id: eventId, at, kind, body }));
  // A photograph of the counter is named by what happened there.
  for (const { kind, body } of all) if (kind === "photo") shown.add((body as { hash: string }).hash);
  for await (const events of inPieces(all)) yield json(`events/${id}/${++k}.json`, { bakeId: id, events });
}

/** A kitchen, or what belongs to some of its formulas, as one ZIP that is made as it is read: JSON, photographs by the hash of their bytes, a manifest with the checksum of every file and with what was missing. Its faults end the stream and nothing else. */
export function writeArchive(store: Store, writing: Writing): Readable {
  const zip = new yazl.ZipFile();
  const out = zip.outputStream as Duplex;
  out._writev = (chunks, done) => {
    // The directory at the end has a record for each file: they go out as one, where one after the other they hold the server.
    out.push(Buffer.concat(chunks.map(({ chunk }) => chunk as Buffer)));
    done();
  };
  const pieces = piecesOf(store, writing);
  const fail = (error: unknown): void => void out.destroy(error instanceof Error ? error : new Error(String(error)));
  zip.on("error", fail);
  const next = (): void => {
    pieces.next().then(({ value, done }) => {
      if (out.destroyed) return;
      if (done) return zip.end();
      const { path, content, packed = false } = value;
      zip.addReadStreamLazy(path, { mtime: MOMENT, compress: !packed }, (give) => {
        const stream = Buffer.isBuffer(content) ? Readable.from([content]) : content();
        stream.once("end", next);
        stream.once("error", fail);
        give(null, stream);
      });
    }, fail);
  };
  next();
  // Who asked has gone: nothing more is read.
  out.once("close", () => void pieces.return(undefined).catch(() => undefined));
  return out;
}
