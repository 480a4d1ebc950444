import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from "node:fs";
import { request } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createWriteStream } from "node:fs";
import { pipeline } from "node:stream/promises";
import type { RestoreAnswer, StoredTrial } from "@uprise/contract";
import type { Formula } from "@uprise/core";
import fc from "fast-check";
import sharp from "sharp";
import { buildApp } from "./app";
import { copyNightly, copyState, makeCopy } from "./archive/copies";
import { besideOf, readArchive, type ReadArchive } from "./archive/read";
import { previewRestore, restore, undoRestore } from "./archive/restore";
import { writeArchive } from "./archive/write";
import { demoFormulas } from "./demo/formulas";
import { filePath } from "./store/files";
import { takeAsItIs } from "./store/folder";
import { openRaw } from "./store/raw";
import { openStore, type Store } from "./store/store";
import type { App } from "./wire";

const folders: string[] = [];
const newFolder = (): string => {
  const folder = mkdtempSync(join(tmpdir(), "uprise-kept-"));
  folders.push(folder);
  return folder;
};
afterAll(() => folders.forEach((folder) => rmSync(folder, { recursive: true, force: true })));

const loaf = (title: string): Formula => ({ ...(demoFormulas[0] as { formula: Formula }).formula, title });
const oven = (name: string): object => ({ name, modes: ["still"], biasK: 0, swingK: 5, warmMinutes: 12, racks: 2, widthMm: 450, depthMm: 380 }); // prettier-ignore

interface Kitchen {
  folder: string;
  store: Store;
}
const newKitchen = async (): Promise<Kitchen> => {
  const folder = newFolder();
  return { folder, store: await openStore(folder) };
};
const archiveOf = async ({ store, folder }: Kitchen): Promise<string> => {
  const path = join(folder, `archive-${Math.random()}.zip`);
  await pipeline(writeArchive(store, { madeAt: new Date(), program: "0" }), createWriteStream(path));
  return path;
};
const opened = async <T>(path: string, work: (archive: ReadArchive) => Promise<T>, beside?: string): Promise<T> => {
  const archive = await readArchive(path, beside);
  try {
    return await work(archive);
  } finally {
    archive.close();
  }
};

/** Everything that is in a kitchen, to the last version. */
async function all({ store }: Kitchen): Promise<unknown[]> {
  const found: unknown[] = [];
  for await (const key of store.whole.keys()) {
    const versions: unknown[] = [];
    if (key.table === "formulas") for await (const version of store.whole.versions(key.id)) versions.push(version);
    found.push([await store.whole.find(key), versions]);
  }
  return found;
}

describe("any sequence of save, remove, export, restore, undo", () => {
  const IDS = ["a", "b"] as const;
  type Step = {
    does: "save" | "remove" | "back" | "export" | "restore" | "undo";
    where: 0 | 1;
    id: (typeof IDS)[number];
    which: number;
    what: "formula" | "oven";
  };
  const step: fc.Arbitrary<Step> = fc.record({
    does: fc.constantFrom("save", "save", "save", "remove", "back", "export", "restore", "restore", "undo"),
    where: fc.constantFrom(0, 1),
    id: fc.constantFrom(...IDS),
    which: fc.nat(9),
    what: fc.constantFrom("formula", "formula", "oven"),
  }); // prettier-ignore

  test("loses nothing that was acknowledged, undoes to exactly what was, and ends saveable", async () => {
    let said = 0;
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 4, maxLength: 16 }), async (steps) => {
        const kitchens = [await newKitchen(), await newKitchen()] as const;
        /** Titles that a kitchen said it has saved, by formula. */
        const saved = kitchens.map(() => new Map<string, string[]>());
        const archives: string[] = [];
        const undos: { where: 0 | 1; undo: string; before: unknown[]; then: unknown[] }[] = [];
        try {
          for (const { does, where, id, which, what } of steps) {
            const kitchen = kitchens[where];
            const { store, folder } = kitchen;
            const ovens = store.things<object>("ovens");
            if (does === "save") {
              const title = `${id} ${++said}`;
              if (what === "oven") {
                const there = await ovens.read(id);
                await (there ? ovens.change(id, there.version, oven(title)) : ovens.create(id, oven(title)));
                continue;
              }
              const there = await store.formulas.find(id);
              if (there) await store.formulas.change(id, there.version, loaf(title), "");
              else if (await store.whole.find({ table: "formulas", id })) {
                const back = await store.formulas.restore(id);
                await store.formulas.change(id, back.version, loaf(title), "");
              } else await store.formulas.create(loaf(title), "", id);
              saved[where]?.set(id, [...(saved[where]?.get(id) ?? []), title]);
            } else if (does === "remove") {
              const there = what === "oven" ? await ovens.read(id) : await store.formulas.find(id);
              if (there) await (what === "oven" ? ovens : store.formulas).remove(id, there.version);
            } else if (does === "back") {
              const key = { table: what === "oven" ? ("ovens" as const) : ("formulas" as const), id };
              if (await store.whole.find(key)) await (what === "oven" ? ovens : store.formulas).restore(id);
            } else if (does === "export") {
              const path = await archiveOf(kitchen);
              archives.push(path);
              // A kitchen never conflicts with its own copy.
              const own = await opened(path, (archive) => previewRestore(store, archive));
              expect([own.add, own.newer, own.back, own.older, own.conflict, own.flaws]).toEqual([[], [], [], [], [], []]);
            } else if (does === "restore" && archives.length > 0) {
              const before = await all(kitchen);
              const path = archives[which % archives.length] ?? "";
              const told = await opened(path, (archive) => previewRestore(store, archive));
              const did = await opened(path, (archive) => restore(store, folder, archive));
              expect({ ...did, undo: undefined }).toEqual({ ...told, undo: undefined });
              const again = await opened(path, (archive) => previewRestore(store, archive));
              expect([again.add, again.newer, again.back]).toEqual([[], [], []]);
              if (did.undo) undos.push({ where, undo: did.undo, before, then: await all(kitchen) });
            } else if (does === "undo") {
              const last = undos.pop();
              if (!last) continue;
              const there = kitchens[last.where];
              const untouched = JSON.stringify(await all(there)) === JSON.stringify(last.then);
              await undoRestore(there.store, there.folder, last.undo);
              if (untouched) expect(await all(there)).toEqual(last.before);
            }
          }
          for (const [k, kitchen] of kitchens.entries())
            for (const id of IDS) {
              const { store } = kitchen;
              const titles = saved[k]?.get(id) ?? [];
              if (!(await store.whole.find({ table: "formulas", id }))) {
                expect(titles).toEqual([]);
                continue;
              }
              const back = await store.formulas.restore(id);
              const versions = (await store.formulas.versions(id, { page: 1, pageSize: 500 })).items.map(({ formula }) => formula.title); // prettier-ignore
              expect(versions).toEqual(expect.arrayContaining(titles));
              const next = await store.formulas.change(id, back.version, loaf("saveable"), "");
              expect(next.version).toBe(back.version + 1);
            }
        } finally {
          for (const { store, folder } of kitchens) {
            await store.close();
            rmSync(folder, { recursive: true, force: true });
          }
        }
      }),
      { numRuns: 25, seed: 20261129, endOnFailure: false },
    );
  }, 180_000);

  test("a formula that was undone to an older version is saved again, and a removed one comes back from a copy", async () => {
    const [here, there] = [await newKitchen(), await newKitchen()];
    await here.store.formulas.create(loaf("one"), "", "x");
    await there.store.formulas.create(loaf("one"), "", "x");
    for (const version of [1, 2, 3]) await there.store.formulas.change("x", version, loaf(`there ${version}`), "");
    const { undo = "" } = await opened(await archiveOf(there), (archive) => restore(here.store, here.folder, archive));
    expect((await here.store.formulas.read("x")).version).toBe(4);
    await undoRestore(here.store, here.folder, undo);
    for (const version of [1, 2, 3, 4]) expect((await here.store.formulas.change("x", version, loaf(`mine ${version}`), "")).version).toBe(version + 1); // prettier-ignore
    const copy = await archiveOf(here);
    await here.store.formulas.remove("x", 5);
    const told: RestoreAnswer = await opened(copy, (archive) => restore(here.store, here.folder, archive));
    expect(told.back).toMatchObject([{ id: "x" }]);
    expect((await here.store.formulas.read("x")).formula.title).toBe("mine 4");
    await undoRestore(here.store, here.folder, told.undo ?? "");
    expect(await here.store.formulas.find("x")).toBeNull();
    await Promise.all([here.store.close(), there.store.close()]);
  });

  test("a create that is sent again after others went on answers what has become of it; after a removal it says the way back", async () => {
    const { store } = await newKitchen();
    await store.formulas.create(loaf("one"), "", "x");
    await store.formulas.change("x", 1, loaf("two"), "");
    expect(await store.formulas.create(loaf("one"), "", "x")).toMatchObject({ version: 2, formula: { title: "two" } });
    await store.formulas.remove("x", 2);
    await expect(store.formulas.create(loaf("one"), "", "x")).rejects.toMatchObject({ code: "conflict", message: expect.stringMatching(/formulas\/x\/restore/) as string }); // prettier-ignore
    const trials = store.things<object>("tastings");
    await trials.create("t", { n: 1 });
    await trials.change("t", 1, { n: 2 });
    expect(await trials.create("t", { n: 1 })).toMatchObject({ version: 2, body: { n: 2 } });
    await trials.remove("t", 2);
    await expect(trials.create("t", { n: 1 })).rejects.toMatchObject({ code: "conflict" });
    expect(await trials.create("t", { n: 9 })).toMatchObject({ version: 3, body: { n: 9 } });
    const shelf = store.things<object>("ingredients");
    await shelf.create("own-flour", { n: 1 });
    await shelf.remove("own-flour", 1);
    expect(await shelf.create("own-flour", { n: 1 })).toMatchObject({ id: "own-flour", version: 1 });
    expect(await shelf.read("own-flour")).not.toBeNull();
    await store.close();
  });
});

describe("photographs, streams, timers", () => {
  let app: App;
  let base: string;
  let folder: string;
  beforeEach(async () => {
    folder = newFolder();
    app = await buildApp({ port: 0, host: "127.0.0.1", dataFolder: folder, demo: true, webFolder: null, copies: false });
    base = await app.listen({ port: 0, host: "127.0.0.1" });
  });
  afterEach(() => app.close());
  const picture = (shade: string): Promise<Buffer> => sharp({ create: { width: 30, height: 20, channels: 3, background: shade } }).jpeg().toBuffer(); // prettier-ignore
  const keep = async (shade: string): Promise<string> => {
    const sent = await fetch(`${base}/api/photos`, { method: "POST", headers: { "content-type": "image/jpeg" }, body: new Uint8Array(await picture(shade)) }); // prettier-ignore
    expect(sent.status).toBe(201);
    return ((await sent.json()) as { hash: string }).hash;
  };
  const show = async (photos: string[]): Promise<void> => {
    const { trial, version } = (await (await fetch(`${base}/api/trials/pear-1`)).json()) as StoredTrial;
    const saved = await fetch(`${base}/api/trials/pear-1`, { method: "PUT", headers: { "content-type": "application/json", "if-match": `"${version}"` }, body: JSON.stringify({ ...trial, photos }) }); // prettier-ignore
    expect(saved.status).toBe(200);
  };
  const exported = (): Promise<Response> => fetch(`${base}/api/export`, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify({ what: "archive", format: "zip" }) }); // prettier-ignore
  const isUp = async (): Promise<void> => expect((await fetch(`${base}/api/health`)).status).toBe(200);
  const bring = async (bytes: Uint8Array, take: boolean): Promise<RestoreAnswer> => (await (await fetch(`${base}/api/restore${take ? "?take=1" : ""}`, { method: "POST", headers: { "content-type": "application/zip" }, body: bytes as never })).json()) as RestoreAnswer; // prettier-ignore

  test("one that is missing or damaged is an entry in a report; what a copy has of it is brought back", async () => {
    const [gone, hurt, whole] = [await keep("#a03020"), await keep("#20a030"), await keep("#3020a0")];
    await show([gone, hurt, whole]);
    const good = new Uint8Array(await (await exported()).arrayBuffer());
    const files = join(folder, "files");
    rmSync(filePath(files, gone));
    writeFileSync(filePath(files, hurt), "rot");
    const later = new Uint8Array(await (await exported()).arrayBuffer());
    await isUp();
    const missing = (await bring(later, false)).flaws.map(({ why }) => why).sort();
    expect(missing).toEqual([expect.stringMatching(/damaged on the disk/), expect.stringMatching(/missing on the disk/)]);
    expect((await fetch(`${base}/api/photos/${gone}`)).status).toBe(404);
    expect((await bring(good, true)).photos).toBe(2);
    for (const hash of [gone, hurt, whole]) expect((await fetch(`${base}/api/photos/${hash}`)).status).toBe(200);
  });

  test("six of the same at once are one; one that carries a camera's words is not taken out of an archive", async () => {
    expect(new Set(await Promise.all(Array.from({ length: 6 }, () => keep("#777777")))).size).toBe(1);
    const worded = await sharp(await picture("#123456")).withExif({ IFD0: { Copyright: "somewhere" } }).jpeg().toBuffer(); // prettier-ignore
    const other = await newKitchen();
    const { hash } = await other.store.files.put(worded, "image/jpeg");
    await other.store.things("trials").create("t", { title: "T", at: "2026-01-01T00:00:00Z", photos: [hash], formula: loaf("x"), seen: [], scores: {}, notes: "", measured: {}, tags: [] }); // prettier-ignore
    const told = await bring(new Uint8Array(readFileSync(await archiveOf(other))), true);
    expect(told.flaws).toMatchObject([{ path: `photos/${hash}.jpg`, why: expect.stringMatching(/camera/) as string }]);
    expect((await fetch(`${base}/api/photos/${hash}`)).status).toBe(404);
    await other.store.close();
  });

  test("an export that fails in its middle, one whose reader goes away, and an upload that is cut end alone", async () => {
    const store = await newKitchen();
    for (let n = 0; n < 5; n++) await store.store.formulas.create(loaf(`f${n}`), "", `f${n}`);
    const { find } = store.store.whole;
    let calls = 0;
    store.store.whole.find = (key) => (++calls === 3 ? Promise.reject(new Error("the disk says no")) : find(key));
    await expect(archiveOf(store)).rejects.toThrow(/the disk says no/);
    await store.store.close();
    const gone = new AbortController();
    const half = await fetch(`${base}/api/export`, { method: "POST", signal: gone.signal, headers: { "content-type": "application/json" }, body: JSON.stringify({ what: "archive", format: "zip" }) }); // prettier-ignore
    await half.body?.getReader().read();
    gone.abort();
    await new Promise<void>((done) => {
      const sent = request(`${base}/api/restore`, {
        method: "POST",
        headers: { "content-type": "application/zip", "content-length": "100000" },
      });
      sent.on("error", () => done());
      sent.write("PK");
      setTimeout(() => sent.destroy(), 50);
    });
    await new Promise((done) => setTimeout(done, 200));
    await isUp();
    expect(readdirSync(join(folder, "incoming"))).toEqual([]);
  });

  test("a copy that cannot be made is told to who asks, tried again, and ends nothing", async () => {
    const kitchen = await newKitchen();
    await kitchen.store.formulas.create(loaf("one"), "", "x");
    // A file in the place of the folder of copies.
    writeFileSync(join(kitchen.folder, "copies"), "");
    const faults: unknown[] = [];
    const stop = copyNightly(kitchen.store, kitchen.folder, "0", (error) => faults.push(error), { firstMs: 1, everyMs: 20 });
    while (faults.length < 3) await new Promise((done) => setTimeout(done, 10));
    rmSync(join(kitchen.folder, "copies"));
    while (copyState(kitchen.folder).ageHours === null) await new Promise((done) => setTimeout(done, 10));
    await stop();
    expect(copyState(kitchen.folder)).toMatchObject({ fault: undefined });
    await kitchen.store.close();
  });
});

describe("copies", () => {
  const zips = (folder: string): string[] => readdirSync(join(folder, "copies")).filter((name) => name.endsWith(".zip"));
  const day = (n: number): Date => new Date(Date.UTC(2026, 0, n, 3));

  test("keep photographs once, mend one that is damaged, and can be read by a restore", async () => {
    const kitchen = await newKitchen();
    const bytes = await sharp({ create: { width: 90, height: 90, channels: 3, background: "#456789" } }).jpeg().toBuffer(); // prettier-ignore
    const { hash } = await kitchen.store.files.put(bytes, "image/jpeg");
    await kitchen.store.things("trials").create("t", { title: "T", at: "2026-01-01T00:00:00Z", photos: [hash], formula: loaf("x"), seen: [], scores: {}, notes: "", measured: {}, tags: [] }); // prettier-ignore
    for (const n of [1, 2, 3]) await makeCopy(kitchen.store, kitchen.folder, "0", day(n), 2);
    expect(zips(kitchen.folder)).toEqual(["uprise-2026-01-02.zip", "uprise-2026-01-03.zip"]);
    for (const name of zips(kitchen.folder)) expect(statSync(join(kitchen.folder, "copies", name)).size).toBeLessThan(bytes.length + 6000);
    const live = filePath(join(kitchen.folder, "files"), hash);
    writeFileSync(live, "rot");
    await makeCopy(kitchen.store, kitchen.folder, "0", day(4), 2);
    expect(readFileSync(live).equals(bytes)).toBe(true);
    rmSync(live);
    const copy = join(kitchen.folder, "copies", "uprise-2026-01-04.zip");
    const told = await opened(copy, (archive) => restore(kitchen.store, kitchen.folder, archive), besideOf(join(kitchen.folder, "copies")));
    expect(told).toMatchObject({ photos: 1, same: 1, flaws: [] });
    expect(existsSync(live)).toBe(true);
    await kitchen.store.close();
  }); // prettier-ignore

  test("an emptied kitchen does not push the last full copy out, and a half-written one never stays", async () => {
    const kitchen = await newKitchen();
    const ids = Array.from({ length: 8 }, (_, n) => `f${n}`);
    for (const id of ids) await kitchen.store.formulas.create(loaf(id), "", id);
    await makeCopy(kitchen.store, kitchen.folder, "0", day(1), 2);
    await kitchen.store.whole.inOne(async (hand) => {
      for (const id of ids) await hand.drop({ table: "formulas", id });
    });
    for (const n of [2, 3, 4, 5]) await makeCopy(kitchen.store, kitchen.folder, "0", day(n), 2);
    expect(zips(kitchen.folder)).toEqual(["uprise-2026-01-01.zip", "uprise-2026-01-04.zip", "uprise-2026-01-05.zip"]);
    const { keys } = kitchen.store.whole;
    kitchen.store.whole.keys = () => {
      throw new Error("torn");
    };
    await expect(makeCopy(kitchen.store, kitchen.folder, "0", day(6), 2)).rejects.toThrow("torn");
    kitchen.store.whole.keys = keys;
    expect(readdirSync(join(kitchen.folder, "copies")).filter((name) => name.includes("half"))).toEqual([]);
    await kitchen.store.close();
  });

  test("one of a day that is still to come stops nothing: neither a clock that was ahead nor the time of a file", async () => {
    const kitchen = await newKitchen();
    await kitchen.store.formulas.create(loaf("one"), "", "x");
    const ahead = new Date(Date.now() + 200 * 86_400_000);
    const path = await makeCopy(kitchen.store, kitchen.folder, "0", ahead);
    utimesSync(path, ahead, ahead);
    expect(copyState(kitchen.folder).ageHours).toBe(0);
    const stop = copyNightly(kitchen.store, kitchen.folder, "0", () => undefined, { firstMs: 1, everyMs: 10_000 });
    const today = `uprise-${new Date().toISOString().slice(0, 10)}.zip`;
    while (!zips(kitchen.folder).includes(today)) await new Promise((done) => setTimeout(done, 10));
    await stop();
    // The one of the future is older than it, and goes first.
    await makeCopy(kitchen.store, kitchen.folder, "0", new Date(Date.now() + 86_400_000), 2);
    expect(zips(kitchen.folder)).not.toContain(path.split("/").at(-1));
    await kitchen.store.close();
  });
});

describe("a data folder in trouble", () => {
  /** A kitchen that was filled, copied and closed. */
  const filled = async (): Promise<{ folder: string; file: string }> => {
    const { folder, store } = await newKitchen();
    for (let n = 0; n < 40; n++) await store.formulas.create(loaf(`f${n}`), "", `f${n}`);
    await makeCopy(store, folder, "0", new Date(Date.UTC(2026, 0, 7)));
    await store.close();
    return { folder, file: join(folder, "uprise.sqlite") };
  };
  const begins = (folder: string): Promise<unknown> => openStore(folder).then((store) => store.close());
  const overwrite = (file: string, from: number, bytes: number): void => {
    const content = readFileSync(file);
    for (let k = from; k < Math.min(content.length, from + bytes); k++) content[k] = (k * 131 + 7) % 251;
    writeFileSync(file, content);
  };
  const troubles: [string, (file: string) => void, RegExp][] = [
    ["its head overwritten", (file) => overwrite(file, 0, 100), /is damaged.*uprise-2026-01-07\.zip.*--anew/],
    ["random bytes", (file) => overwrite(file, 0, 1e9), /is damaged.*--anew/],
    ["pages overwritten", (file) => overwrite(file, 4096 * 2, 4096 * 24), /is damaged.*--anew/],
    ["cut in half", (file) => truncateSync(file, Math.floor(statSync(file).size / 2)), /is damaged.*--anew/],
    ["emptied", (file) => truncateSync(file, 0), /gone or empty.*--anew.*--as-it-is/],
    ["deleted", (file) => rmSync(file), /gone or empty.*--anew.*--as-it-is/],
    ["deleted with what the folder remembers", (file) => { rmSync(file); rmSync(join(file, "..", "kitchen.json")); }, /gone or empty/], // prettier-ignore
  ];
  test.each(troubles)(
    "%s: a sentence with the way out, nothing begun in silence, and the copy brings it back",
    async (_, spoil, words) => {
      const { folder, file } = await filled();
      spoil(file);
      await expect(begins(folder)).rejects.toThrow(words);
      // Twice, since the first start may have left something behind.
      await expect(begins(folder)).rejects.toThrow(words);
      expect(readdirSync(join(folder, "copies")).filter((name) => name.endsWith(".zip"))).toHaveLength(1);
      for (const end of ["", "-wal", "-shm"]) rmSync(`${file}${end}`, { force: true });
      rmSync(join(folder, "kitchen.json"), { force: true });
      const store = await openStore(folder, true);
      const copies = join(folder, "copies");
      const told = await opened(
        join(copies, "uprise-2026-01-07.zip"),
        (archive) => restore(store, folder, archive),
        besideOf(copies),
      );
      expect(told.add).toHaveLength(40);
      await store.close();
      await begins(folder);
    },
  );

  test("a log that is gone is not taken for less work: what was saved is counted", async () => {
    const { folder, store } = await newKitchen();
    await store.formulas.create(loaf("first"), "", "x");
    await store.close();
    const again = await openStore(folder);
    // Somebody looks meanwhile, so that the log is not taken up.
    await again.formulas.find("x");
    for (let n = 0; n < 5; n++) await again.formulas.create(loaf(`f${n}`), "", `f${n}`);
    await new Promise((done) => setTimeout(done, 400));
    // As a killed machine leaves it, but for the log.
    const torn = newFolder();
    for (const name of ["uprise.sqlite", "kitchen.json"]) copyFileSync(join(folder, name), join(torn, name));
    await again.close();
    await expect(begins(torn)).rejects.toThrow(/holds less than was saved: 6 saves are known, 1 are in it/);
    await takeAsItIs(torn, join(torn, "uprise.sqlite"));
    await begins(torn);
  });

  test("two at once: the second is refused, and the folder is free when the first has ended", async () => {
    const { folder, store } = await newKitchen();
    await expect(openStore(folder)).rejects.toThrow(/Another Uprise is at work/);
    await store.close();
    await begins(folder);
  });

  test("held by another program it says so at the start, and a save while it runs is refused with a sentence and not lost", async () => {
    const { folder, file } = await filled();
    const other = await openRaw(file);
    await other.exec("BEGIN IMMEDIATE");
    await expect(begins(folder)).rejects.toThrow(/held by another program/);
    await other.exec("ROLLBACK");
    const app = await buildApp({ port: 0, host: "127.0.0.1", dataFolder: folder, demo: false, webFolder: null, copies: false });
    await other.exec("BEGIN IMMEDIATE");
    const refused = await app.inject({ method: "POST", url: "/api/formulas", headers: { host: "127.0.0.1" }, payload: { ...loaf("held"), id: "held" } });
    expect([refused.statusCode, refused.json<{ detail: string }>().detail]).toEqual([503, expect.stringMatching(/Another program holds the database/)]);
    await other.exec("ROLLBACK");
    await other.close();
    expect((await app.inject({ method: "POST", url: "/api/formulas", headers: { host: "127.0.0.1" }, payload: { ...loaf("held"), id: "held" } })).statusCode).toBe(201);
    await app.close();
  }); // prettier-ignore

  test("what was half written when it was killed is gone at the next start", async () => {
    const { folder } = await filled();
    mkdirSync(join(folder, "files", "ab"), { recursive: true });
    const halves = [join(folder, "files", "ab", "abc.half"), join(folder, "copies", "uprise-2026-01-08.zip.half")];
    for (const half of halves) writeFileSync(half, "x");
    await begins(folder);
    expect(halves.filter((half) => existsSync(half))).toEqual([]);
  });
});
