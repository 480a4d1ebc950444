import { createHash } from "node:crypto";
import { copyFileSync, mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { type Formula, formulaSchema, type Vessel } from "@uprise/core";
import { openDatabase } from "./database";
import { migrate, migrations } from "./migrations";
import { openRaw } from "./raw";
import { openStore, type Store } from "./store";

const formula = (title: string): Formula => ({
  shape: 2,
  title,
  kind: "loaf",
  measures: "metric",
  lines: [{ id: "a", ingredientId: "sorghum-flour", grams: { low: 195, mid: 200, high: 205 } }],
  vessel: { shape: "round", diameterMm: 200 },
  oven: { celsius: 175 },
  process: {},
  notes: "",
});

let folder: string;
let store: Store;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "uprise-store-"));
  store = await openStore(folder);
});
afterEach(async () => {
  await store.close();
  rmSync(folder, { recursive: true, force: true });
});

describe("the shapes of the database", () => {
  const rows = async <T>(file: string, sql: string): Promise<T[]> => {
    const raw = await openRaw(file);
    const found = await raw.all<T>(sql);
    await raw.close();
    return found;
  };
  const tablesOf = async (file: string): Promise<string[]> =>
    (await rows<{ name: string }>(file, "SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name"))
      .map(({ name }) => name)
      .filter((name) => name !== "migrations");
  const newest = [
    "bakes",
    "devices",
    "events",
    "files",
    "formula_versions",
    "formulas",
    "glances",
    "ingredients",
    "kitchen",
    "learnt",
    "ovens",
    "packets",
    "plans",
    "seasons",
    "tastings",
    "trials",
    "vessels",
  ];
  /** A copy of a file that a program of an earlier shape wrote, in a folder of its own. */
  const oldKitchen = (shape: number): { folder: string; file: string } => {
    const at = mkdtempSync(join(tmpdir(), `uprise-shape-${shape}-`));
    copyFileSync(join(__dirname, "fixtures", `shape-${shape}.sqlite`), join(at, "uprise.sqlite"));
    return { folder: at, file: join(at, "uprise.sqlite") };
  };

  test.each([1, 2])("a file of shape %i opens with every row it had, and a copy of it stays beside", async (shape) => {
    const { folder: at, file } = oldKitchen(shape);
    const before = await rows<{ formulaId: string; number: number; body: string }>(
      file,
      "SELECT formulaId, number, body FROM formula_versions ORDER BY formulaId, number",
    );
    const old = await openStore(at);
    const listed = await old.formulas.list({ page: 1, pageSize: 10 });
    // In the second shape one of the two had been taken off the list.
    expect(listed.total).toBe(shape === 1 ? 2 : 1);
    for (const id of new Set(before.map((row) => row.formulaId))) await old.formulas.restore(id);
    for (const { formulaId, number, body } of before) {
      const { items } = await old.formulas.versions(formulaId, { page: 1, pageSize: 10 });
      expect(items.find((version) => version.number === number)?.formula).toEqual({ ...JSON.parse(body), shape: 2 });
    }
    for (const { lines, massG, kind, id } of (await old.formulas.list({ page: 1, pageSize: 10 })).items) {
      const { formula: whole } = await old.formulas.read(id);
      expect([lines, kind]).toEqual([whole.lines.length, whole.kind]);
      expect(massG).toBeCloseTo(
        whole.lines.reduce((g, line) => g + (line.grams?.mid ?? 0), 0),
        6,
      );
    }
    if (shape === 2) {
      expect((await old.things("ovens").read("deck"))?.body).toEqual({
        name: "Deck",
        modes: ["still"],
        biasK: 9,
        swingK: 7,
        racks: 2,
      });
      expect((await old.things("vessels").read("boat-tin"))?.version).toBe(2);
      expect((await old.things("ingredients").list()).map(({ id }) => id)).toEqual(["pier-mix"]);
    }
    await old.close();
    const copies = readdirSync(at).filter((name) => name.includes(".of-"));
    expect(copies.length).toBe(1);
    expect((await rows(join(at, copies[0] ?? ""), "SELECT * FROM formula_versions")).length).toBe(before.length);
    rmSync(at, { recursive: true, force: true });
  });
  test("formulas of the first shape open in the newest with nothing lost, and are written in it when they are saved", async () => {
    const at = mkdtempSync(join(tmpdir(), "uprise-formulas-1-"));
    const file = join(at, "uprise.sqlite");
    copyFileSync(join(__dirname, "fixtures", "formulas-1.sqlite"), file);
    const stored = "SELECT formulaId, number, body FROM formula_versions ORDER BY formulaId, number";
    const before = await rows<{ formulaId: string; number: number; body: string }>(file, stored);
    expect(before.length).toBe(10);
    const old = await openStore(at);
    for (const { formulaId, number, body } of before) {
      const was = JSON.parse(body) as Record<string, unknown>;
      expect(was.shape).toBe(1);
      const { items } = await old.formulas.versions(formulaId, { page: 1, pageSize: 10 });
      const now = items.find((version) => version.number === number)?.formula;
      expect(now).toEqual({ ...was, shape: 2 });
      expect(formulaSchema.safeParse(now).error?.issues ?? []).toEqual([]);
    }
    const fig = await old.formulas.read("fig-pan");
    expect(fig.formula.notes).toMatch(/^Not weighed: 100 g icing sugar/);
    expect(fig.formula.parts?.[0]?.additions[0]?.ingredientId).toBe("raisins");
    const glazed: Formula = {
      ...fig.formula,
      components: [{ id: "glaze", name: "Glaze", role: "glaze" }],
      lines: [...fig.formula.lines, { id: "ice", name: "icing sugar", component: "glaze" }],
    };
    await old.formulas.change("fig-pan", fig.version, glazed, "the glaze is in it");
    expect((await old.formulas.read("fig-pan")).formula).toEqual(glazed);
    await old.close();
    const after = await rows<{ formulaId: string; number: number; body: string }>(file, stored);
    expect(after.length).toBe(before.length + 1);
    // What was written stays as it was written.
    for (const row of before) expect(after).toContainEqual(row);
    rmSync(at, { recursive: true, force: true });
  });
  test("going down one by one keeps the rows of what stays, and up again is the same", async () => {
    const { folder: at, file } = oldKitchen(2);
    await migrate(file);
    expect(await tablesOf(file)).toEqual(newest);
    const versions = "SELECT formulaId, number, reason, body, savedAt FROM formula_versions ORDER BY formulaId, number";
    const kept = await rows(file, versions);
    expect(kept.length).toBe(6);
    await migrate(file, "002-kitchen-and-removed-formulas");
    expect(await rows(file, versions)).toEqual(kept);
    await migrate(file, "001-formulas");
    expect(await tablesOf(file)).toEqual(["formula_versions", "formulas"]);
    expect(await rows(file, versions)).toEqual(kept);
    await migrate(file);
    expect(await tablesOf(file)).toEqual(newest);
    expect(await rows(file, versions)).toEqual(kept);
    rmSync(at, { recursive: true, force: true });
  });
  test("a database that a newer program wrote is refused with a sentence and not touched", async () => {
    const { folder: at, file } = oldKitchen(2);
    await migrate(file);
    const raw = await openRaw(file);
    await raw.run("INSERT INTO migrations (name) VALUES ('099-from-tomorrow')");
    await raw.close();
    await expect(openStore(at)).rejects.toThrow(/newer Uprise \(099-from-tomorrow\).*UPRISE_DATA/);
    expect((await rows(file, "SELECT * FROM formulas")).length).toBe(2);
    rmSync(at, { recursive: true, force: true });
  });
  test("a migration that would break a reference is rolled back whole", async () => {
    const { folder: at, file } = oldKitchen(2);
    const raw = await openRaw(file);
    await raw.exec("PRAGMA foreign_keys = OFF");
    await raw.run(
      "INSERT INTO formula_versions (formulaId, number, reason, body, savedAt) VALUES ('nobody', 1, '', '{}', '2026-01-01')",
    );
    await raw.close();
    await expect(migrate(file)).rejects.toThrow(/003-.*lost what they refer to.*Nothing was changed/);
    expect(await tablesOf(file)).not.toContain("events");
    rmSync(at, { recursive: true, force: true });
  });
  test("have names in order, each once; the newest one has a file to start from in a later test", () => {
    const names = migrations.map(({ name }) => name);
    expect([...names].sort()).toEqual(names);
    expect(new Set(names).size).toBe(names.length);
    expect(names.length).toBe(10);
  });
  test("trials of a database of the shape before are listed by their day and words, and go back down", async () => {
    const file = join(mkdtempSync(join(tmpdir(), "uprise-old-")), "uprise.sqlite");
    await migrate(file, "005-packets-trials-tastings-learnt");
    const raw = await openRaw(file);
    const body = (title: string, at: string, tags: string[]): string => JSON.stringify({ title, at, formulaId: "pear-loaf", tags });
    for (const [id, text] of [
      ["late", body("Pear LOAF, less soda", "2026-11-02T07:00:00+01:00", ["Saturday"])],
      ["early", body("Pear loaf", "2026-10-01T07:00:00Z", [])],
    ] as const)
      await raw.run("INSERT INTO trials (id, version, body, createdAt, updatedAt, shape) VALUES (?, 1, ?, '2026-11-02 08:00:00.000 +00:00', '2026-11-02 08:00:00.000 +00:00', 1)", id, text); // prettier-ignore
    await raw.close();
    const old = await openStore(dirname(file));
    const ids = async (q?: string): Promise<string[]> =>
      (await old.trials().page({ q, page: 1, pageSize: 10 })).items.map(({ id }) => id);
    expect(await ids()).toEqual(["late", "early"]);
    expect(await ids("saturday less")).toEqual(["late"]);
    expect(await ids("100%_")).toEqual([]);
    await old.close();
    await migrate(file, "005-packets-trials-tastings-learnt");
    const back = await openRaw(file);
    expect((await back.all("SELECT id FROM trials ORDER BY id")).length).toBe(2);
    await back.close();
    rmSync(dirname(file), { recursive: true, force: true });
  });
  test("bringing a newest database up again changes nothing", async () => {
    const saved = await store.formulas.create(formula("Kept"), "first");
    await store.close();
    store = await openStore(folder);
    expect(await store.formulas.read(saved.id)).toEqual(saved);
    expect(readdirSync(folder).filter((name) => name.includes(".of-"))).toEqual([]);
  });
});

test("the migration that CONTRIBUTING.md shows runs on the newest shape", async () => {
  const page = readFileSync(join(__dirname, "../../../../CONTRIBUTING.md"), "utf8");
  const sql = /## Add a migration[\s\S]*?```sql\n([\s\S]*?)```/.exec(page)?.[1] ?? "";
  const raw = await openRaw(join(folder, "uprise.sqlite"));
  await raw.exec(sql);
  expect((await raw.all<{ name: string }>("PRAGMA table_info(ovens)")).map(({ name }) => name)).toContain("note");
  await raw.close();
});

describe("what happened at a bake", () => {
  const event = (id: string, at: string) => ({ id, bakeId: "b1", at, kind: "note", body: { text: id } });
  test("is appended once and read by time, whatever the order of arrival; nothing changes or removes it", async () => {
    expect(await store.events.append([event("b", "2026-01-01T10:00:00Z"), event("a", "2026-01-01T10:00:00Z")])).toEqual(["b", "a"]);
    expect(await store.events.append([event("c", "2026-01-01T09:00:00Z"), event("a", "2099-01-01T00:00:00Z")])).toEqual(["c"]);
    expect((await store.events.of("b1")).map(({ id, at }) => [id, at])).toEqual([
      ["c", "2026-01-01T09:00:00Z"],
      ["a", "2026-01-01T10:00:00Z"],
      ["b", "2026-01-01T10:00:00Z"],
    ]);
    const raw = await openRaw(join(folder, "uprise.sqlite"));
    await expect(raw.run("UPDATE events SET kind = 'x'")).rejects.toThrow(/only appended/);
    await expect(raw.run("DELETE FROM events")).rejects.toThrow(/only appended/);
    await raw.close();
  });
});

describe("what grows by the day", () => {
  test("comes by the page, the same as all of it in its order, and without reading what is not of the page", async () => {
    const plans = store.things<{ title: string }>("plans");
    for (let n = 0; n < 7; n++) await plans.create(`plan-${n}`, { title: `day ${n}` });
    await plans.remove("plan-3", 1);
    await plans.change("plan-1", 1, { title: "changed last" });
    const all = (await plans.list()).map(({ id }) => id);
    expect(all[0]).toBe("plan-1");
    expect(all).toHaveLength(6);
    const pages = [await plans.page({ page: 1, pageSize: 4 }), await plans.page({ page: 2, pageSize: 4 })];
    expect(pages.flatMap(({ items }) => items.map(({ id }) => id))).toEqual(all);
    expect(pages.map(({ total }) => total)).toEqual([6, 6]);
    expect(await plans.page({ page: 3, pageSize: 4 })).toMatchObject({ items: [], total: 6 });
    const raw = await openRaw(join(folder, "uprise.sqlite"));
    for (const table of ["plans", "bakes", "tastings", "seasons"]) {
      const steps = await raw.all<{ detail: string }>(
        `EXPLAIN QUERY PLAN SELECT id FROM ${table} WHERE removedAt IS NULL ORDER BY updatedAt DESC, id ASC LIMIT 20`,
      );
      expect(steps.map(({ detail }) => detail).join()).toMatch(/USING COVERING INDEX/);
      expect(steps.map(({ detail }) => detail).join()).not.toMatch(/TEMP B-TREE/);
    }
    await raw.close();
  });
});

describe("files", () => {
  test("are kept by their content, once, and come back byte by byte", async () => {
    const bytes = Buffer.from("a picture of a crumb");
    const file = await store.files.put(bytes, "image/webp");
    expect(await store.files.put(bytes, "image/webp")).toEqual(file);
    expect(file.hash).toBe(createHash("sha256").update(bytes).digest("hex"));
    expect((await store.files.read(file.hash)).content.equals(bytes)).toBe(true);
    await expect(store.files.read("../uprise.sqlite")).rejects.toMatchObject({ code: "not-found" });
  });
  test("have a limit of their own", async () => {
    await expect(store.files.put(new Uint8Array(12 * 1024 * 1024 + 1), "image/webp")).rejects.toMatchObject({ code: "too-large" });
  });
});

describe("the one writer", () => {
  test("a write that throws leaves nothing of itself and does not stop the next", async () => {
    const database = openDatabase(folder);
    const insert = "INSERT INTO vessels (id, version, body, createdAt, updatedAt) VALUES (?, 1, '{}', '2026-01-01', '2026-01-01')";
    const put = (id: string, fail: boolean): Promise<void> =>
      database.write(async (transaction) => {
        await database.sequelize.query(insert, { transaction, replacements: [id] });
        if (fail) throw new Error("on purpose");
      });
    const settled = await Promise.allSettled([put("a", false), put("b", true), put("c", false)]);
    expect(settled.map(({ status }) => status)).toEqual(["fulfilled", "rejected", "fulfilled"]);
    const [rows] = await database.sequelize.query("SELECT id FROM vessels ORDER BY id");
    expect(rows).toEqual([{ id: "a" }, { id: "c" }]);
    await database.close();
  });
  test("forty writes at once are all kept, in pages that neither overlap nor leave one out", async () => {
    await Promise.all(Array.from({ length: 40 }, (_, i) => store.formulas.create(formula(`Loaf ${i}`), "")));
    const pages = await Promise.all([1, 2, 3].map((page) => store.formulas.list({ page, pageSize: 15 })));
    const titles = pages.flatMap(({ items }) => items.map(({ title }) => title));
    expect([pages[0]?.total, titles.length, new Set(titles).size]).toEqual([40, 40, 40]);
  });
});

describe("formulas", () => {
  test("versions are numbered without a gap, the newest first, each with its own body", async () => {
    let saved = await store.formulas.create(formula("One"), "begun");
    for (const title of ["Two", "Three"])
      saved = await store.formulas.change(saved.id, saved.version, formula(title), `now ${title}`);
    const { items } = await store.formulas.versions(saved.id, { page: 1, pageSize: 10 });
    expect(items.map(({ number, reason, formula: { title } }) => [number, reason, title])).toEqual([
      [3, "now Three", "Three"],
      [2, "now Two", "Two"],
      [1, "begun", "One"],
    ]);
  });
  test("the same creation once more makes nothing twice; another formula under that id is refused with the one that stands", async () => {
    const first = await store.formulas.create(formula("Once"), "", "once");
    expect(await store.formulas.create(formula("Once"), "", "once")).toEqual(first);
    await expect(store.formulas.create(formula("Twice"), "", "once")).rejects.toMatchObject({
      code: "conflict",
      more: { current: { id: "once" } },
    });
    expect((await store.formulas.list({ page: 1, pageSize: 10 })).total).toBe(1);
  });
  test("a stale change is refused with the one that stands, which stays", async () => {
    const first = await store.formulas.create(formula("Mine"), "");
    const second = await store.formulas.change(first.id, 1, formula("Theirs"), "");
    await expect(store.formulas.change(first.id, 1, formula("Late"), "")).rejects.toMatchObject({ code: "stale" });
    expect((await store.formulas.read(first.id)).formula.title).toBe("Theirs");
    expect(second.version).toBe(2);
  });
  test("removed it is off the list and not found; restored it has all its versions", async () => {
    const saved = await store.formulas.create(formula("Gone"), "");
    await store.formulas.remove(saved.id, 1);
    expect((await store.formulas.list({ page: 1, pageSize: 10 })).total).toBe(0);
    expect(await store.formulas.find(saved.id)).toBeNull();
    await store.formulas.restore(saved.id);
    expect((await store.formulas.find(saved.id))?.formula.title).toBe("Gone");
    expect((await store.formulas.versions(saved.id, { page: 1, pageSize: 10 })).total).toBeGreaterThan(0);
  });
  test("the list is searched by title, whatever its case, and a sign of the query language is a sign", async () => {
    for (const title of ["Pear loaf", "PEAR muffins", "Oat 100% bars"]) await store.formulas.create(formula(title), "");
    const found = async (q: string): Promise<string[]> =>
      (await store.formulas.list({ q, page: 1, pageSize: 10 })).items.map(({ title }) => title).sort();
    expect(await found("pear")).toEqual(["PEAR muffins", "Pear loaf"]);
    expect(await found("100%")).toEqual(["Oat 100% bars"]);
    expect(await found("'; DROP TABLE formulas; --")).toEqual([]);
  });
});

test("things of the kitchen keep body and version, and are refused when stale or unknown", async () => {
  const vessels = store.things<{ name: string; vessel: Vessel }>("vessels");
  const made = await vessels.create("tin", { name: "Tin", vessel: { shape: "round", diameterMm: 180, capacityMl: 1500 } });
  expect(await vessels.read("tin")).toEqual(made);
  const changed = await vessels.change("tin", 1, { ...made.body, name: "Boat tin" });
  expect([changed.version, changed.body.name, changed.createdAt]).toEqual([2, "Boat tin", made.createdAt]);
  expect(await vessels.create("boat", made.body)).toMatchObject({ version: 1 });
  expect((await vessels.create("boat", made.body)).version).toBe(1);
  await expect(vessels.create("boat", { ...made.body, name: "Other" })).rejects.toMatchObject({ code: "conflict" });
  await vessels.remove("boat", 1);
  await expect(vessels.change("tin", 1, made.body)).rejects.toMatchObject({ code: "stale" });
  await expect(vessels.change("none", 1, made.body)).rejects.toMatchObject({ code: "not-found" });
  await vessels.remove("tin", 2);
  expect([await vessels.read("tin"), await vessels.list()]).toEqual([null, []]);
});
