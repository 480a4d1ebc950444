import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Formula, Vessel } from "@uprise/core";
import { SequelizeStorage, Umzug } from "umzug";
import { openDatabase } from "./database";
import { migrate, migrations } from "./migrations";
import { openStore, type Store } from "./store";

const formula = (title: string): Formula => ({
  shape: 1,
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
  const tablesOf = async (database: ReturnType<typeof openDatabase>): Promise<string[]> =>
    (await database.sequelize.getQueryInterface().showAllTables())
      .map(String)
      .filter((name) => name !== "migrations")
      .sort();
  test("go up one by one and down again to nothing, and up once more to the same", async () => {
    const other = mkdtempSync(join(tmpdir(), "uprise-shapes-"));
    const database = openDatabase(other);
    await migrate(database);
    const newest = await tablesOf(database);
    expect(newest).toEqual(["formula_versions", "formulas", "ingredients", "ovens", "vessels"]);
    const context = database.sequelize.getQueryInterface();
    const umzug = new Umzug({
      migrations: migrations.map(({ name, up, down }) => ({ name, up: () => up(context), down: () => down(context) })),
      storage: new SequelizeStorage({ sequelize: database.sequelize, tableName: "migrations" }),
      logger: undefined,
    });
    await umzug.down({ to: 0 });
    expect(await tablesOf(database)).toEqual([]);
    await migrate(database);
    expect(await tablesOf(database)).toEqual(newest);
    await database.close();
    rmSync(other, { recursive: true, force: true });
  });
  test("have names in order, each once", () => {
    const names = migrations.map(({ name }) => name);
    expect([...names].sort()).toEqual(names);
    expect(new Set(names).size).toBe(names.length);
  });
  test("bringing a newest database up again changes nothing", async () => {
    const saved = await store.formulas.create(formula("Kept"), "first");
    await store.close();
    store = await openStore(folder);
    expect(await store.formulas.read(saved.id)).toEqual(saved);
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
  await expect(vessels.change("tin", 1, made.body)).rejects.toMatchObject({ code: "stale" });
  await expect(vessels.change("none", 1, made.body)).rejects.toMatchObject({ code: "not-found" });
  await vessels.remove("tin", 2);
  expect([await vessels.read("tin"), await vessels.list()]).toEqual([null, []]);
});
