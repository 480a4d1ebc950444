import { createHash } from "node:crypto";
import type { Readable } from "node:stream";
import { type Formula, type InputLine, nestedIds, type Trial } from "@uprise/core";
import yazl from "yazl";
import type { Store, WholeThing } from "../store/store";
import { ARCHIVE, ARCHIVE_SHAPE, type Manifest } from "./shapes";

/** Zip keeps no time zone; one moment for all files makes the same kitchen the same bytes. */
const MOMENT = new Date("2026-01-01T00:00:00Z");

const linesOf = ({ lines, parts = [] }: Formula): InputLine[] => [...lines, ...parts.flatMap(({ additions }) => additions)];

/** What belongs to some formulas: what they hold, their trials and bakes, their kitchen's own ingredients and ovens. */
function belonging(all: readonly WholeThing[], ids: readonly string[]): WholeThing[] {
  const byId = new Map(all.filter(({ table }) => table === "formulas").map((thing) => [thing.id, thing]));
  const wanted = new Set<string>();
  const take = (id: string): void => {
    const thing = byId.get(id);
    if (!thing || wanted.has(id)) return;
    wanted.add(id);
    nestedIds(linesOf(thing.body as Formula)).forEach(take);
  };
  ids.forEach(take);
  const formulas = [...wanted].flatMap((id) => (byId.get(id)?.body as Formula | undefined) ?? []);
  const ingredients = new Set(formulas.flatMap((formula) => linesOf(formula).flatMap(({ ingredientId }) => ingredientId ?? [])));
  const ovens = new Set(formulas.flatMap(({ oven }) => oven.ovenId ?? []));
  const bakesOf = new Set<string>();
  const of = (thing: WholeThing): boolean => {
    const body = thing.body as { formulaId?: string; bakeId?: string; ingredientId?: string };
    if (thing.table === "formulas") return wanted.has(thing.id);
    if (thing.table === "ingredients") return ingredients.has(thing.id);
    if (thing.table === "packets") return ingredients.has(body.ingredientId ?? "");
    if (thing.table === "ovens") return ovens.has(thing.id);
    return (thing.table === "trials" || thing.table === "bakes") && wanted.has(body.formulaId ?? "");
  };
  const kept = all.filter(of);
  for (const thing of kept) if (thing.table === "trials") bakesOf.add((thing.body as Trial).bakeId ?? "");
  return [...kept, ...all.filter((thing) => thing.table === "bakes" && bakesOf.has(thing.id) && !kept.includes(thing))];
}

/** A kitchen, or what belongs to some of its formulas, as one ZIP: JSON, photographs by the hash of their bytes, a manifest with the checksum of every file. */
export async function writeArchive(store: Store, program: string, madeAt: Date, ids?: readonly string[]): Promise<Readable> {
  const zip = new yazl.ZipFile();
  const files: Manifest["files"] = [];
  const add = (path: string, value: unknown): void => {
    const bytes = Buffer.from(`${JSON.stringify(value, null, 1)}\n`);
    files.push({ path, bytes: bytes.length, sha256: createHash("sha256").update(bytes).digest("hex") });
    zip.addBuffer(bytes, path, { mtime: MOMENT });
  };
  const all = await store.whole.all();
  const things = ids === undefined ? all : belonging(all, ids);
  for (const { table, ...rest } of things) add(`${table}/${rest.id}.json`, rest);
  const bakes = new Set(things.filter(({ table }) => table === "bakes").map(({ id }) => id));
  for (const bakeId of await store.events.bakes()) {
    if (!bakes.has(bakeId)) continue;
    const events = (await store.events.of(bakeId)).map(({ id, at, kind, body }) => ({ id, at, kind, body }));
    add(`events/${bakeId}.json`, { bakeId, events });
  }
  const shown = new Set(things.flatMap((thing) => (thing.table === "trials" ? (thing.body as Trial).photos : [])));
  for (const { hash, bytes } of await store.files.list()) {
    if (!shown.has(hash)) continue;
    const path = `photos/${hash}.jpg`;
    // A photograph is named by its checksum already.
    files.push({ path, bytes, sha256: hash });
    zip.addFile(store.files.pathOf(hash), path, { mtime: MOMENT, compress: false });
  }
  const manifest: Manifest = { format: ARCHIVE, shape: ARCHIVE_SHAPE, program, madeAt: madeAt.toISOString(), files };
  zip.addBuffer(Buffer.from(`${JSON.stringify(manifest, null, 1)}\n`), "manifest.json", { mtime: MOMENT });
  zip.end();
  return zip.outputStream as Readable;
}
