import { mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createHash } from "node:crypto";
import type { ImportAnswer, RestoreAnswer, StoredFormula, StoredTrial } from "@uprise/contract";
import type { Formula, Label, ScaleUp } from "@uprise/core";
import ICAL from "ical.js";
import jsonld from "jsonld";
import Papa from "papaparse";
import sharp from "sharp";
import yazl from "yazl";
import { buildApp } from "./app";
import { makeCopy } from "./archive/copies";
import { type Part, readArchive } from "./archive/read";
import { openStore } from "./store/store";
import type { App } from "./wire";

const folders: string[] = [];
const newFolder = (): string => {
  const folder = mkdtempSync(join(tmpdir(), "uprise-exchange-"));
  folders.push(folder);
  return folder;
};
const start = async (folder: string, demo: boolean): Promise<{ app: App; base: string }> => {
  const app = await buildApp({ port: 0, host: "127.0.0.1", dataFolder: folder, demo, webFolder: null, copies: false });
  return { app, base: await app.listen({ port: 0, host: "127.0.0.1" }) };
};
let full: { app: App; base: string };
let bare: { app: App; base: string };
beforeAll(async () => {
  full = await start(newFolder(), true);
  bare = await start(newFolder(), false);
});
afterAll(async () => {
  await full.app.close();
  await bare.app.close();
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});

const post = (base: string, path: string, body: unknown): Promise<Response> =>
  fetch(`${base}${path}`, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) });
const json = async <T>(response: Promise<Response>): Promise<T> => (await (await response).json()) as T;
const exported = async (base: string, body: unknown): Promise<string> => {
  const response = await post(base, "/api/export", body);
  expect(response.status).toBe(200);
  return response.text();
};
const imported = (base: string, body: unknown, take = false): Promise<ImportAnswer> =>
  json(post(base, `/api/import${take ? "?take=1" : ""}`, body));
const detail = async (response: Promise<Response>): Promise<string> => {
  const answer = await response;
  expect(answer.status).toBeGreaterThanOrEqual(400);
  expect(answer.status).toBeLessThan(500);
  return ((await answer.json()) as { detail: string }).detail;
};
/** What is in an archive, by its bytes. */
const partsOf = async (bytes: Buffer): Promise<Part[]> => {
  const path = join(newFolder(), "archive.zip");
  writeFileSync(path, bytes);
  const archive = await readArchive(path);
  const parts: Part[] = [];
  for await (const part of archive.parts()) parts.push(part);
  archive.close();
  return parts;
};
/** The formulas of a kitchen; what was computed of them in the meantime is no part of them. */
const formulasOf = async (base: string): Promise<{ id: string; formula: Formula }[]> =>
  (
    await json<{ items: { id: string; formula: Formula; glance?: unknown }[] }>(
      fetch(`${base}/api/formulas?whole=true&pageSize=200`),
    )
  ).items.map(({ glance: _, ...stored }) => stored);
const weighedIn = ({ lines }: Formula): string[] => lines.flatMap(({ ingredientId, grams }) => (grams ? [`${ingredientId} ${grams.mid.toFixed(2)}`] : [])).sort(); // prettier-ignore

describe("formulas in open forms", () => {
  test("JSON-LD is what a processor of JSON-LD takes for schema.org Recipes", async () => {
    const whole = JSON.parse(await exported(full.base, { what: "formula", format: "jsonld" })) as object;
    const vocabulary = async (): Promise<{ contextUrl: undefined; documentUrl: string; document: object }> => ({ contextUrl: undefined, documentUrl: "https://schema.org", document: { "@context": { "@vocab": "http://schema.org/" } } });
    const expanded = await jsonld.expand(whole as never, { documentLoader: vocabulary as never });
    const nodes = (expanded.length === 1 && expanded[0]?.["@graph"] ? expanded[0]["@graph"] : expanded) as Record<string, { "@value"?: string }[]>[];
    const all = await formulasOf(full.base);
    expect(nodes).toHaveLength(all.length);
    for (const node of nodes) {
      expect(node["@type"]).toEqual(["http://schema.org/Recipe"]);
      expect(node["http://schema.org/recipeIngredient"]?.length).toBeGreaterThan(3);
      for (const name of ["cookTime", "totalTime", "prepTime"]) expect(node[`http://schema.org/${name}`]?.[0]?.["@value"]).toMatch(/^PT(\d+H)?(\d+M)?$/);
      expect(node["http://schema.org/nutrition"]).toHaveLength(1);
    }
  }); // prettier-ignore

  test.each(["jsonld", "markdown", "csv", "text"])("all of the demo goes out as %s and comes in with every gram, its parts and no question that was not open before", async (format) => {
    const all = await formulasOf(full.base);
    const answer = await imported(full.base, { text: await exported(full.base, { what: "formula", format }), name: format === "csv" ? "formulas.csv" : "formulas.txt" });
    expect(answer.recipes.map(({ title }) => title).sort()).toEqual(all.map(({ formula }) => formula.title).sort());
    for (const { formula, title } of answer.recipes) {
      const before = all.find((one) => one.formula.title === title)?.formula;
      expect([title, ...weighedIn(formula)]).toEqual([title, ...weighedIn(before as Formula)]);
      expect((formula.components ?? []).length).toBe((before?.components ?? []).length);
    }
  }); // prettier-ignore

  test("nothing is written before it is taken; taken twice under one id it is there once", async () => {
    const text = await exported(full.base, { what: "formula", ids: ["pear-loaf"], format: "markdown" });
    const before = (await formulasOf(bare.base)).length;
    await imported(bare.base, { text });
    expect(await formulasOf(bare.base)).toHaveLength(before);
    const taken = await imported(bare.base, { text, ids: ["brought"] }, true);
    expect(taken.taken).toEqual([{ id: "brought", title: taken.recipes[0]?.title, version: 1 }]);
    await imported(bare.base, { text, ids: ["brought"] }, true);
    expect(await formulasOf(bare.base)).toHaveLength(before + 1);
    expect(await detail(post(bare.base, "/api/import?take=1", { text, only: [7] }))).toMatch(/No recipe was chosen/);
  });

  test("a saved page: JSON-LD in a graph, microdata, and bare text; what is damaged is told", async () => {
    const node = { "@context": "https://schema.org", "@graph": [{ "@type": "WebPage" }, { "@type": "Recipe", name: "Tide scones &amp; jam", recipeIngredient: ["200 g rice flour", "80&nbsp;g butter", "2 tsp baking powder"], recipeInstructions: "<p>Rub.</p><p>Bake at 210 °C for 15 minutes.</p>" }] };
    const page = `<!doctype html><html><head><script type="application/ld+json">{broken</script><script type="application/ld+json">${JSON.stringify(node)}</script><script>throw 1</script></head><body>Much else</body></html>`;
    const marked = await imported(bare.base, { html: page });
    expect(marked.recipes.map(({ title, form }) => [title, form])).toEqual([["Tide scones & jam", "json-ld"]]);
    expect(weighedIn(marked.recipes[0]?.formula as Formula).slice(0, 1)).toEqual(["butter 80.00"]);
    expect(marked.recipes[0]?.reading.oven?.celsius).toBe(210);
    expect(marked.notes.join(" ")).toMatch(/damaged/);
    const micro = await imported(bare.base, { html: `<div itemscope itemtype="https://schema.org/Recipe"><h1 itemprop="name">Mole bread</h1><span itemprop="author" itemscope itemtype="https://schema.org/Person"><b itemprop="name">Nobody</b></span><ul><li itemprop="recipeIngredient">250 g millet flour</li><li itemprop="recipeIngredient">5 g salt</li></ul><time itemprop="cookTime" datetime="PT40M">forty</time></div>` });
    expect(micro.recipes.map(({ title, form }) => [title, form])).toEqual([["Mole bread", "microdata"]]);
    expect(micro.recipes[0]?.reading.minutes).toEqual({ low: 40, high: 40 });
    const plain = await imported(bare.base, { html: "<body><nav>Home</nav><article><h1>Quay bars</h1><h2>Ingredients</h2><ul><li>100 g oats</li><li>50 g honey</li></ul></article></body>" });
    expect(weighedIn(plain.recipes[0]?.formula as Formula)).toEqual(["honey 50.00", "rolled-oats 100.00"]);
    expect(plain.notes.join(" ")).toMatch(/marks no recipe/);
  }); // prettier-ignore

  test("a table whose columns cannot be told is shown with its head, and read when they are said", async () => {
    const text = "A,B,C\nbuckwheat flour,250,sifted\negg,2,\n";
    const asked = await imported(bare.base, { text, name: "sheet.csv" });
    expect(asked.recipes).toEqual([]);
    expect(asked.table).toMatchObject({ head: ["A", "B", "C"], fault: expect.stringMatching(/Which column/) as string });
    const told = await imported(bare.base, { text, name: "sheet.csv", columns: { ingredient: 0, amount: 1, note: 2 } });
    expect(told.recipes[0]?.reading.lines.filter(({ role }) => role === "ingredient").map(({ ingredientId }) => ingredientId)).toContain("egg"); // prettier-ignore
    expect(await detail(post(bare.base, "/api/import?take=1", { text, name: "sheet.csv" }))).toMatch(/Which column/);
  });

  test("what cannot be is refused in a sentence", async () => {
    expect(await detail(post(full.base, "/api/export", { what: "formula", format: "ics" }))).toMatch(/jsonld, markdown, csv, text/);
    expect(await detail(post(full.base, "/api/export", { what: "plan", format: "csv" }))).toMatch(/one id/);
    expect(await detail(post(full.base, "/api/import", { text: "{ oh" }))).toMatch(/JSON/);
    expect(await detail(post(full.base, "/api/import", {}))).toMatch(/text or html/);
  });
});

describe("trials, bakes and plans", () => {
  test("trials as CSV are read by another library, every measured number in its column", async () => {
    const { items } = await json<{ items: StoredTrial[] }>(fetch(`${full.base}/api/trials?pageSize=200`));
    const { data, errors } = Papa.parse<Record<string, string>>((await exported(full.base, { what: "trials", format: "csv" })).replace("\uFEFF", ""), { header: true, skipEmptyLines: true });
    expect(errors).toEqual([]);
    expect(data).toHaveLength(items.length);
    for (const row of data) {
      const trial = items.find(({ id }) => id === row["id"])?.trial;
      expect(Number(row["minutes"] || Number.NaN)).toEqual(trial?.measured.minutes ?? Number.NaN);
      expect(Math.round(10 * Number(row["mass out (g)"] || -1))).toBe(Math.round(10 * (trial?.measured.massOutG ?? -1)));
      expect(row["notes"]).toBe(trial?.notes);
    }
  }); // prettier-ignore

  test("a plan as CSV has the calendar's steps at the calendar's minutes", async () => {
    const { data } = Papa.parse<Record<string, string>>((await exported(full.base, { what: "plan", ids: ["first-boat"], format: "csv" })).replace("\uFEFF", ""), { header: true, skipEmptyLines: true }); // prettier-ignore
    const calendar = new ICAL.Component(
      ICAL.parse(await exported(full.base, { what: "plan", ids: ["first-boat"], format: "ics" })) as never,
    );
    const starts = calendar.getAllSubcomponents("vevent").map((event) => new ICAL.Event(event).startDate.toJSDate().getTime()).sort(); // prettier-ignore
    expect(data.map(({ start }) => Math.floor(Date.parse(start ?? "") / 60_000) * 60_000).sort()).toEqual(starts);
  });

  test("the curves of a bake: minutes and degrees as they came", async () => {
    await post(full.base, "/api/bakes", { id: "curve", formulaId: "pear-loaf" });
    const at = (minute: number): string => new Date(Date.UTC(2026, 10, 28, 6, minute)).toISOString();
    await post(full.base, "/api/bakes/curve/events", { events: [{ id: "a", at: at(0), kind: "started" }, { id: "b", at: at(5), kind: "probe", celsius: 31.5 }, { id: "c", at: at(6), kind: "oven", celsius: 178 }] }); // prettier-ignore
    const lines = (await exported(full.base, { what: "curves", ids: ["curve"], format: "csv" })).split("\r\n");
    expect(lines[1]).toBe(`${at(5)},5,31.5,,`);
    expect(lines[2]).toBe(`${at(6)},6,,178,`);
    expect(await exported(full.base, { what: "bakes", ids: ["curve"], format: "csv" })).toContain("31.5,°C");
  });
});

describe("an archive", () => {
  const archiveOf = async (base: string, ids?: string[]): Promise<Buffer> => Buffer.from(await (await post(base, "/api/export", { what: "archive", format: "zip", ...(ids ? { ids } : {}) })).arrayBuffer()); // prettier-ignore
  const bring = (base: string, bytes: Buffer, take = false): Promise<Response> =>
    fetch(`${base}/api/restore${take ? "?take=1" : ""}`, {
      method: "POST",
      headers: { "content-type": "application/zip" },
      body: new Uint8Array(bytes),
    });
  const restored = (base: string, bytes: Buffer, take = false): Promise<RestoreAnswer> => json(bring(base, bytes, take));

  test("a whole kitchen is the same in another one: things, versions, events, photographs; brought twice it changes nothing; undone it is gone", async () => {
    const picture = await sharp({ create: { width: 20, height: 12, channels: 3, background: "#884422" } }).jpeg().toBuffer();
    const { hash } = await json<{ hash: string }>(fetch(`${full.base}/api/photos`, { method: "POST", headers: { "content-type": "image/jpeg" }, body: new Uint8Array(picture) }));
    const { trial, version } = await json<StoredTrial>(fetch(`${full.base}/api/trials/pear-1`));
    await fetch(`${full.base}/api/trials/pear-1`, { method: "PUT", headers: { "content-type": "application/json", "if-match": `"${version}"` }, body: JSON.stringify({ ...trial, photos: [hash] }) });
    const bytes = await archiveOf(full.base);
    const there = await start(newFolder(), false);
    const preview = await restored(there.base, bytes);
    expect(preview).toMatchObject({ newer: [], older: [], conflict: [], same: 0, photos: 1, events: 3 });
    expect(await formulasOf(there.base)).toEqual([]);
    const done = await restored(there.base, bytes, true);
    expect(done.add.length).toBe(preview.archive.things);
    expect((await formulasOf(there.base)).sort((a, b) => (a.id < b.id ? -1 : 1))).toEqual((await formulasOf(full.base)).sort((a, b) => (a.id < b.id ? -1 : 1)));
    expect((await fetch(`${there.base}/api/photos/${hash}`)).status).toBe(200);
    expect(await json(fetch(`${there.base}/api/bakes/curve`))).toMatchObject({ events: [{ kind: "started" }, { kind: "probe" }, { kind: "oven" }] });
    const again = await restored(there.base, bytes, true);
    expect(again).toMatchObject({ add: [], newer: [], same: preview.archive.things, photos: 0, events: 0 });
    const undone = await json<{ undone: number; kept: string[] }>(fetch(`${there.base}/api/restore/${done.undo}`, { method: "DELETE" }));
    expect(undone).toEqual({ undone: preview.archive.things, kept: [] });
    expect(await formulasOf(there.base)).toEqual([]);
    expect(await detail(fetch(`${there.base}/api/restore/${done.undo}`, { method: "DELETE" }))).toMatch(/cannot be undone any more/);
    await there.app.close();
  }); // prettier-ignore

  test("never writes over a newer one; of the same version with another content both are told and this one stays; what was changed since is kept by an undo", async () => {
    const there = await start(newFolder(), false);
    const bytes = await archiveOf(full.base, ["pear-loaf"]);
    const first = await restored(there.base, bytes, true);
    expect(first.add.map(({ what, id }) => `${what}/${id}`)).toContain("formulas/pear-loaf");
    const edit = async (title: string): Promise<void> => {
      const { formula, version } = await json<StoredFormula>(fetch(`${there.base}/api/formulas/pear-loaf`));
      await fetch(`${there.base}/api/formulas/pear-loaf`, { method: "PUT", headers: { "content-type": "application/json", "if-match": `"${version}"` }, body: JSON.stringify({ ...formula, title }) });
    };
    await edit("Mine");
    expect((await restored(there.base, bytes, true)).older).toMatchObject([{ id: "pear-loaf", here: 2, there: 1 }]);
    const newer = await archiveOf(there.base, ["pear-loaf"]);
    const { formula, version } = await json<StoredFormula>(fetch(`${full.base}/api/formulas/pear-loaf`));
    await fetch(`${full.base}/api/formulas/pear-loaf`, { method: "PUT", headers: { "content-type": "application/json", "if-match": `"${version}"` }, body: JSON.stringify({ ...formula, title: "Theirs" }) });
    const conflict = await restored(full.base, newer, true);
    expect(conflict.conflict).toMatchObject([{ id: "pear-loaf", title: "Mine" }]);
    expect((await json<StoredFormula>(fetch(`${full.base}/api/formulas/pear-loaf`))).formula.title).toBe("Theirs");
    const undone = await json<{ undone: number; kept: string[] }>(fetch(`${there.base}/api/restore/${first.undo}`, { method: "DELETE" }));
    expect(undone.kept).toEqual(["Mine"].map(() => expect.any(String) as string));
    expect((await json<StoredFormula>(fetch(`${there.base}/api/formulas/pear-loaf`))).formula.title).toBe("Mine");
    await there.app.close();
  }); // prettier-ignore

  const zip = (files: [string, string | Buffer][], manifest: object | null | undefined = undefined): Promise<Buffer> => {
    const file = new yazl.ZipFile();
    const bytes = files.map(([path, content]): [string, Buffer] => [path, Buffer.from(content)]);
    for (const [path, content] of bytes) file.addBuffer(content, path);
    const told = bytes.map(([path, content]) => ({ path, bytes: content.length, sha256: createHash("sha256").update(content).digest("hex") }));
    if (manifest !== null) file.addBuffer(Buffer.from(JSON.stringify(manifest ?? { format: "uprise-archive", shape: 1, program: "x", madeAt: "2026-01-01T00:00:00Z", files: told })), "manifest.json");
    file.end();
    return new Promise((done) => {
      const parts: Buffer[] = [];
      file.outputStream.on("data", (part: Buffer) => parts.push(part));
      file.outputStream.on("end", () => done(Buffer.concat(parts)));
    });
  }; // prettier-ignore
  const renamed = (bytes: Buffer, from: string, to: string): Buffer =>
    Buffer.from(bytes.toString("latin1").replaceAll(from, to), "latin1");
  const thing = (body: unknown, id = "x"): string =>
    JSON.stringify({ id, version: 1, shape: 1, createdAt: "2026-01-01T00:00:00Z", updatedAt: "2026-01-01T00:00:00Z", body });

  test("damaged or hostile ones are refused with a sentence, and change nothing", async () => {
    const good = await archiveOf(full.base);
    const before = await archiveOf(bare.base);
    const oven = { name: "Oven", modes: ["still"], biasK: 0, swingK: 5 };
    const flipped = Buffer.from(good);
    flipped.writeUInt8(flipped.readUInt8(200) ^ 0xff, 200);
    const many = Buffer.from(good);
    const end = many.lastIndexOf(Buffer.from([0x50, 0x4b, 0x05, 0x06]));
    many.writeUInt16LE(60_000, end + 10);
    const cases: [string, Buffer, RegExp][] = [
      ["no ZIP", Buffer.from("PK but not really"), /no ZIP/],
      ["half of one", good.subarray(0, good.length / 2), /no ZIP|not whole/],
      ["a path that climbs", renamed(await zip([["ovens/aaaaaaaa.json", thing(oven)]]), "ovens/aaaaaaaa.json", "../../../aaaaaa.json"), /damaged|belongs/],
      ["an absolute path", renamed(await zip([["ovens/aa.json", thing(oven)]]), "ovens/aa.json", "/vens/aa.json"), /damaged|belongs/],
      ["a file that is none of ours", await zip([["evil.sh", "rm"]]), /evil.sh.*belongs/],
      ["the same path twice", await zip([["ovens/x.json", thing(oven)], ["ovens/x.json", thing(oven)]]), /twice/],
      ["a bomb", await zip([["ovens/x.json", Buffer.alloc(7_000_000, 32)]]), /unfolds to/],
      ["too large a file", await zip([["ovens/x.json", Buffer.alloc(34_000_000, 32)]]), /up to 34/],
      ["no manifest", await zip([["ovens/x.json", thing(oven)]], null), /manifest/],
      ["another program's", await zip([], { format: "other" }), /uprise-archive/],
      ["a later shape", await zip([], { format: "uprise-archive", shape: 9, program: "9", madeAt: "2026-01-01T00:00:00Z", files: [] }), /shape/],
      ["tens of thousands of files", many, /60000 files|damaged|no ZIP/],
    ];
    for (const [name, bytes, words] of cases) expect(`${name}: ${await detail(bring(bare.base, bytes, true))}`).toMatch(words);
    expect(await partsOf(await archiveOf(bare.base))).toEqual(await partsOf(before));
    // What is damaged in itself is named, and only that is not taken.
    const flawed: [string, Buffer, RegExp][] = [
      ["a file that the manifest does not name", await zip([["ovens/x.json", thing(oven)]], { format: "uprise-archive", shape: 1, program: "x", madeAt: "2026-01-01T00:00:00Z", files: [] }), /not in the manifest/],
      ["a body of another shape", await zip([["ovens/x.json", thing({ ...oven, biasK: 900 })]]), /biasK/],
      ["an id that is not the file's", await zip([["ovens/x.json", thing(oven, "y")]]), /holds the id/],
      ["no JSON", await zip([["ovens/x.json", "{"]]), /JSON/],
      ["a photograph that is a script", await zip([[`photos/${"a".repeat(64)}.jpg`, "<svg onload=alert(1)>"]]), /no JPEG/],
      ["versions beyond the one it has", await zip([["formulas/x.json", JSON.stringify({ ...(JSON.parse(thing({})) as object), body: (await formulasOf(full.base))[0]?.formula, versions: [{ number: 2, reason: "", savedAt: "2026-01-01T00:00:00Z", body: (await formulasOf(full.base))[0]?.formula }] })]]), /beyond/],
    ];
    for (const [name, bytes, words] of flawed) {
      const { flaws, add, newer, back } = await restored(bare.base, bytes, true);
      expect(`${name}: ${flaws.map(({ why }) => why).join(" ")}`).toMatch(words);
      expect([...add, ...newer, ...back]).toEqual([]);
    }
    expect(await partsOf(await archiveOf(bare.base))).toEqual(await partsOf(before));
    const rest = await restored(bare.base, flipped);
    expect(rest.flaws).toHaveLength(1);
    expect(rest.add.length + rest.same).toBe(rest.archive.things);
    expect(rest.archive.things).toBeGreaterThan(60);
  }); // prettier-ignore

  test("is described by JSON Schemas", async () => {
    const schemas = await json<{ bodies: Record<string, { type?: string; properties?: object }>; manifest: object }>(
      fetch(`${full.base}/api/schemas`),
    );
    const parts = await partsOf(await archiveOf(full.base));
    for (const table of new Set(parts.flatMap((part) => (part.what === "thing" ? [part.thing.table] : []))))
      expect(Object.keys(schemas.bodies)).toContain(table);
    expect(Object.keys(schemas.bodies["packets"]?.properties ?? {})).toContain("ingredientId");
  });

  test("a copy a day, so many of them", async () => {
    const folder = newFolder();
    const store = await openStore(folder);
    for (let day = 1; day <= 5; day++) await makeCopy(store, folder, "0", new Date(Date.UTC(2026, 0, day)), 3);
    expect(readdirSync(join(folder, "copies"))).toEqual([
      "index.json",
      "uprise-2026-01-03.zip",
      "uprise-2026-01-04.zip",
      "uprise-2026-01-05.zip",
    ]);
    await store.close();
  });
});

describe("label and scaling up over the wire", () => {
  const loaf = { lines: [{ ingredientId: "sorghum-flour", grams: 200 }, { ingredientId: "water", grams: 220 }, { ingredientId: "egg", grams: 100 }, { ingredientId: "powder-double-acting", grams: 12 }], kind: "loaf" }; // prettier-ignore

  test("goes by this kitchen's packets, or by those that are sent", async () => {
    const ours = await json<Label>(post(full.base, "/api/label", { ...loaf, region: "us" }));
    expect(ours.contains).toBe("Contains: egg.");
    expect(ours.cost?.lines.find(({ ingredientId }) => ingredientId === "sorghum-flour")?.cost?.mid).toBeCloseTo(
      (200 * 14.5) / 5000,
      6,
    );
    const none = await json<Label>(post(full.base, "/api/label", { ...loaf, region: "us", shelf: [] }));
    expect(none.cost).toBeNull();
    expect(await detail(post(full.base, "/api/label", { ...loaf, region: "moon" }))).toMatch(/eu, uk, us, ca, au/);
  });

  test("forty of it", async () => {
    const plan = await json<ScaleUp>(post(full.base, "/api/scale-up", { ...loaf, times: 40, bowlMl: 12_000, placesPerLoad: 10 }));
    expect(plan.massG).toBeCloseTo(40 * 532, 6);
    expect(plan.loads).toBe(4);
    expect(await detail(post(full.base, "/api/scale-up", { ...loaf, times: 0, bowlMl: 12_000, placesPerLoad: 10 }))).toMatch(
      /0.1 times/,
    );
  });
});
