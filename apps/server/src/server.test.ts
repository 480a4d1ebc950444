import { execFileSync, spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { connect } from "node:net";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { analyse, type Analysis, type BakeFamily, type Designs, type Formula, type Ingredient, type Proposals } from "@uprise/core";
import type { Problem, StoredFormula } from "@uprise/contract";
import { buildApp } from "./app";
import { demoFormulas } from "./demo/formulas";
import { databaseFile, openDatabase } from "./store/database";
import { migrate } from "./store/migrations";
import { openStore } from "./store/store";
import type { App } from "./wire";

const formula: Formula = {
  shape: 2,
  title: "Trial loaf",
  kind: "loaf",
  measures: "metric",
  lines: [
    { id: "a", ingredientId: "sorghum-flour", grams: { low: 195, mid: 200, high: 205 } },
    { id: "b", ingredientId: "kefir", grams: { low: 220, mid: 220, high: 220 } },
    { id: "c", ingredientId: "soda", grams: { low: 1.9, mid: 2, high: 2.2 } },
  ],
  vessel: { shape: "rectangular", lengthMm: 230, widthMm: 130, heightMm: 70 },
  oven: { celsius: 175 },
  process: { restMinutes: 0 },
  notes: "",
};

let folder: string;
let app: App;
let base: string;

interface Answer<T> {
  status: number;
  body: T;
  headers: Headers;
}

async function call<T>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer<T>> {
  const response = await fetch(`${base}${path}`, {
    method,
    headers: { ...(body === undefined ? {} : { "content-type": "application/json" }), ...headers },
    ...(body === undefined ? {} : { body: typeof body === "string" ? body : JSON.stringify(body) }),
  });
  const text = await response.text();
  return { status: response.status, body: (text === "" ? null : JSON.parse(text)) as T, headers: response.headers };
}

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "uprise-"));
  app = await buildApp({ port: 0, host: "127.0.0.1", dataFolder: folder, demo: true, webFolder: null });
  base = await app.listen({ port: 0, host: "127.0.0.1" });
});

afterEach(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

const create = (body: unknown = formula) => call<StoredFormula>("POST", "/api/formulas", body);

describe("formulas", () => {
  test("the demo fills an empty folder and is listed, searched and paged", async () => {
    const all = await call<{ total: number; items: { title: string }[] }>("GET", "/api/formulas?pageSize=3");
    expect(all.body.total).toBe(demoFormulas.length);
    expect(all.body.items).toHaveLength(3);
    const found = await call<{ items: { title: string }[] }>("GET", "/api/formulas?q=biscuit");
    expect(found.body.items.map((f) => f.title)).toEqual(["Sorghum, cheddar and chive biscuits"]);
    // No sign is a wild card, and upper case is lower case beyond English too.
    expect((await call<{ items: unknown[] }>("GET", "/api/formulas?q=%25")).body.items).toEqual([]);
  });

  test("each save is a version with its reason, and each can be read again", async () => {
    const { body: first, headers } = await create({ ...formula, reason: "as told" });
    expect(headers.get("etag")).toBe('"1"');
    const second = await call<StoredFormula>(
      "PUT",
      `/api/formulas/${first.id}`,
      { ...formula, title: "Trial loaf 2", reason: "less soda" },
      { "if-match": '"1"' },
    );
    expect(second).toMatchObject({ status: 200, body: { version: 2, formula: { title: "Trial loaf 2" } } });
    const versions = await call<{ items: { number: number; reason: string; formula: Formula }[] }>(
      "GET",
      `/api/formulas/${first.id}/versions`,
    );
    expect(versions.body.items.map((v) => [v.number, v.reason, v.formula.title])).toEqual([
      [2, "less soda", "Trial loaf 2"],
      [1, "as told", "Trial loaf"],
    ]);
  });

  test("a stale write gets 412 with the current one and loses nothing", async () => {
    const { body } = await create();
    await call("PUT", `/api/formulas/${body.id}`, { ...formula, title: "Theirs" }, { "if-match": '"1"' });
    const mine = await call<Problem>("PUT", `/api/formulas/${body.id}`, { ...formula, title: "Mine" }, { "if-match": '"1"' });
    expect(mine.status).toBe(412);
    expect(mine.headers.get("content-type")).toContain("application/problem+json");
    expect((mine.body.current as StoredFormula).formula.title).toBe("Theirs");
    expect((await call<StoredFormula>("GET", `/api/formulas/${body.id}`)).body.formula.title).toBe("Theirs");
  });

  test("twenty writers at once: one wins each version, none is lost or doubled", async () => {
    const { body } = await create();
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        call("PUT", `/api/formulas/${body.id}`, { ...formula, title: `Writer ${i}` }, { "if-match": '"1"' }),
      ),
    );
    expect(answers.filter((a) => a.status === 200)).toHaveLength(1);
    expect(answers.filter((a) => a.status === 412)).toHaveLength(19);
    expect((await call<{ total: number }>("GET", `/api/formulas/${body.id}/versions`)).body.total).toBe(2);
  });

  test("a formula may hold another, is analysed opened, and never holds itself", async () => {
    const line = (ingredientId: string, mid: number) => ({ id: ingredientId, ingredientId, grams: { low: mid, mid, high: mid } });
    await create({ ...formula, id: "blend", title: "Pier blend", lines: [line("sorghum-flour", 60), line("tapioca-starch", 40)] });
    await create({ ...formula, id: "bread", title: "Pier bread", lines: [line("formula:blend", 200), line("kefir", 200)] });
    const { body } = await call<{ batch: { flourG: number } }>("POST", "/api/analyse", {
      lines: [{ ingredientId: "formula:bread", grams: 100 }],
    });
    expect(body.batch.flourG).toBeCloseTo(50, 9);
    const round = await call<Problem>(
      "PUT",
      "/api/formulas/blend",
      { ...formula, title: "Pier blend", lines: [line("formula:bread", 5)] },
      { "if-match": '"1"' },
    );
    expect(round.status).toBe(422);
    expect(round.body.detail).toContain("“Pier blend” → “Pier bread” → “Pier blend”");
    expect((await call<Problem>("POST", "/api/analyse", { lines: [{ ingredientId: "formula:gone", grams: 5 }] })).status).toBe(422);
    expect((await create({ ...formula, id: "orphan", lines: [line("formula:gone", 5)] })).status).toBe(201);
  });

  test("removing is undone by restoring", async () => {
    const { body } = await create();
    expect((await call("DELETE", `/api/formulas/${body.id}`, undefined, { "if-match": '"1"' })).status).toBe(204);
    expect((await call("GET", `/api/formulas/${body.id}`)).status).toBe(404);
    expect((await call<StoredFormula>("POST", `/api/formulas/${body.id}/restore`)).body.formula).toEqual(formula);
    expect((await call("GET", `/api/formulas/${body.id}`)).status).toBe(200);
  });

  test.each([
    ["no name", { ...formula, title: " " }, "title"],
    ["a kind nobody knows", { ...formula, kind: "brick" }, "kind"],
    [
      "a range upside down",
      { ...formula, lines: [{ id: "a", ingredientId: "water", grams: { low: 5, mid: 3, high: 1 } }] },
      "lines.0.grams",
    ],
    ["an oven in °F", { ...formula, oven: { celsius: 350 } }, "oven.celsius"],
    ["a pan in centimetres", { ...formula, vessel: { shape: "round", diameterMm: 9 } }, "vessel.diameterMm"],
  ])("%s is refused with the place and what would be right", async (_, body, path) => {
    const answer = await create(body);
    expect(answer.status).toBe(400);
    const problem = answer.body as unknown as Problem;
    expect(problem.errors?.map((e) => e.path)).toContain(path);
    expect(problem.detail.length).toBeGreaterThan(10);
  });

  test("a change without a version, with a bad one, of nothing, and a taken id", async () => {
    const { body } = await create({ ...formula, id: "mine" });
    expect((await call("PUT", `/api/formulas/${body.id}`, formula)).status).toBe(428);
    expect((await call("PUT", `/api/formulas/${body.id}`, formula, { "if-match": "new" })).status).toBe(400);
    expect((await call("PUT", "/api/formulas/nobody", formula, { "if-match": '"1"' })).status).toBe(404);
    expect((await create({ ...formula, id: "mine", title: "Another" })).status).toBe(409);
  });
});

describe("computing", () => {
  test("the server reads and analyses exactly as the core does", async () => {
    const lines = [
      { ingredientId: "sorghum-flour", grams: 220 },
      { ingredientId: "kefir", grams: 240 },
      { ingredientId: "soda", grams: 4 },
    ];
    const answer = await call("POST", "/api/analyse", { lines, kind: "muffin" });
    expect(answer.status).toBe(200);
    expect(answer.body).toEqual(JSON.parse(JSON.stringify(analyse({ lines, kind: "muffin" }))));
    const read = await call<{ lines: { ingredientId: string }[] }>("POST", "/api/read", {
      text: "200 g teff flour\n1 cup milk",
      measures: "uk",
    });
    expect(read.body.lines.map((l) => l.ingredientId)).toEqual(["teff-flour", "whole-milk"]);
  });

  test("a text is analysed whole, a false pair of temperatures becomes a finding", async () => {
    const text =
      "Muffins\n200 g rice flour\n220 ml milk\n10 g baking powder\n2 eggs\nBake at 175 °C (300 °F) for 25 minutes in a 12-hole muffin tin";
    const { body } = await call<{ given: { kind: string }; fill: { pieces: number }; findings: { id: string }[] }>(
      "POST",
      "/api/analyse",
      { text },
    );
    expect(body.given.kind).toBe("muffin");
    expect(body.fill.pieces).toBe(12);
    expect(body.findings.map((f) => f.id)).toContain("temperature-mismatch");
  });

  test("balance and swap answer as the core does, from lines or from text", async () => {
    const text =
      "Muffins\n240 g sorghum flour\n200 ml milk\n2 eggs\n70 g sunflower oil\n110 g sugar\n3 g bicarbonate of soda\n2 g xanthan gum\n2 g salt";
    const designed = await call<Designs>("POST", "/api/design", { kind: "muffin", avoid: ["milk"], rich: 0.6 });
    expect(designed.status).toBe(200);
    expect(designed.body.designs.length).toBeGreaterThan(0);
    for (const { lines, trades } of designed.body.designs) {
      expect(lines.some(({ ingredientId }) => /milk$|butter/.test(ingredientId) && !/oat/.test(ingredientId))).toBe(false);
      expect(Array.isArray(trades)).toBe(true);
    }
    const wrong = await call<{ errors: { path: string; message: string }[] }>("POST", "/api/design", { kind: "muffin", tall: 4 });
    expect([wrong.status, wrong.body.errors[0]?.message]).toEqual([400, "Tall is from 0 to 1; 0.5 is usual."]);
    expect((await call("POST", "/api/design", { kind: "muffin", have: ["luck"] })).status).toBe(422);
    const five = await call<BakeFamily>("POST", "/api/family", { kind: "muffin" });
    expect([five.status, five.body.products.length + five.body.left.length]).toEqual([200, 5]);
    const balanced = await call<Proposals>("POST", "/api/balance", { text, measures: "metric", avoid: ["nuts"] });
    expect(balanced.status).toBe(200);
    expect(balanced.body.proposals.length).toBeGreaterThan(1);
    const [first] = balanced.body.proposals;
    const again = await call<{ findings: { id: string }[] }>("POST", "/api/analyse", { kind: "muffin", lines: first?.lines });
    expect(again.body.findings.map((f) => f.id)).not.toContain("soda-unmet");
    const swapped = await call<Proposals>("POST", "/api/swap", {
      kind: "muffin",
      lines: first?.lines,
      replace: "egg",
      with: "ground-flax",
    });
    expect(swapped.body.proposals[0]?.allergensRemoved).toContain("egg");
    expect((await call("POST", "/api/swap", { text, replace: "honey" })).status).toBe(422);
    expect((await call("POST", "/api/swap", { text })).status).toBe(400);
    expect((await call("POST", "/api/balance", { text, avoid: ["gravity"] })).status).toBe(400);
    const vegan = await call<Proposals>("POST", "/api/balance", { kind: "muffin", lines: first?.lines, wish: "vegan" });
    expect(vegan.body.proposals.map(({ title }) => title)).toEqual(["Vegan"]);
    expect(vegan.body.proposals[0]?.baked?.after.minutes.mid).toBeGreaterThan(10);
    const shelf = await call<Problem>("POST", "/api/balance", { kind: "muffin", lines: first?.lines, wish: "on-hand" });
    expect([shelf.status, JSON.stringify(shelf.body)]).toEqual([400, expect.stringContaining("Say what is on hand")]);
  });

  test("a typical batch stands in where there is no formula", async () => {
    const { body } = await call<{ batch: { massG: number } }>("POST", "/api/analyse", { kind: "loaf", batchG: 950 });
    expect(body.batch.massG).toBeCloseTo(950, 6);
  });

  test.each([
    [{}, 400],
    [{ lines: [{ ingredientId: "moon-dust", grams: 5 }] }, 422],
    [{ lines: [{ ingredientId: "water", grams: -5 }] }, 400],
    [{ lines: [{ ingredientId: "water", grams: 0 }] }, 422],
    ["{ not json", 400],
  ])("%j is refused", async (body, status) => {
    const answer = await call<Problem>("POST", "/api/analyse", body);
    expect(answer.status).toBe(status);
    expect(answer.body).toMatchObject({ status, type: expect.stringContaining("urn:uprise:problem:"), detail: expect.any(String) });
  });

  test("components and open lines cross the wire: only the batter is read, what is open is named, balance and swap say so", async () => {
    const body = {
      kind: "loaf",
      components: [{ id: "ice", name: "Icing", role: "glaze" }],
      lines: [
        { ingredientId: "sorghum-flour", grams: 300 },
        { ingredientId: "whole-milk", grams: 260 },
        { ingredientId: "egg", grams: 100 },
        { ingredientId: "soda", grams: 6 },
        { ingredientId: "butter" },
        { name: "moonbean flour" },
        { ingredientId: "lemon-juice", grams: 40, component: "ice" },
        { ingredientId: "icing-sugar", grams: 120, component: "ice" },
      ],
    };
    const read = (await call<Analysis>("POST", "/api/analyse", body)).body;
    expect(read.batch.massG).toBe(666);
    expect(read.components.map(({ id, role, massG }) => [id, role, massG])).toEqual([
      ["batter", "batter", 666],
      ["ice", "glaze", 160],
    ]);
    expect([read.open, read.final]).toEqual([
      [
        { name: "Butter", matters: false },
        { name: "moonbean flour", matters: true },
      ],
      false,
    ]);
    for (const [path, more] of [
      ["/api/balance", {}],
      ["/api/swap", { replace: "whole-milk" }],
    ] as const) {
      const { status, body: answer } = await call<Proposals>("POST", path, { ...body, ...more });
      expect([status, answer.without]).toEqual([200, ["Butter", "moonbean flour"]]);
      for (const { lines } of answer.proposals) {
        expect(lines).toContainEqual({ ingredientId: "icing-sugar", grams: 120, component: "ice" });
        expect((await call("POST", "/api/analyse", { ...body, lines })).status).toBe(200);
      }
    }
    const nowhere = { ...body, components: [] };
    expect((await call<Problem>("POST", "/api/analyse", nowhere)).body).toMatchObject({
      status: 422,
      detail: expect.stringContaining('"ice"'),
    });
  });

  test("a script that sends a formula of the shape before is understood, and answered in today's", async () => {
    const made = await call<StoredFormula>("POST", "/api/formulas", { ...formula, shape: 1, id: "older" });
    expect([made.status, made.body.formula.shape]).toEqual([201, 2]);
    expect((await call("POST", "/api/formulas", { ...formula, shape: 3 })).status).toBe(400);
  });

  test("a text beyond all measure is refused, not swallowed", async () => {
    expect((await call("POST", "/api/read", { text: "a".repeat(2_000_000) })).status).toBe(413);
    expect((await call("POST", "/api/read", { text: "a".repeat(200_000) })).status).toBe(400);
  });
});

describe("the kitchen", () => {
  test("an own ingredient is created, used, changed and removed; a built-in one stays", async () => {
    const shipped = (await call<{ ingredient: Ingredient }>("GET", "/api/ingredients/honey")).body.ingredient;
    const own = { ...shipped, id: "heather-honey", name: "Heather honey", aliases: ["heather honey"] };
    expect((await call("POST", "/api/ingredients", own)).status).toBe(201);
    const read = await call<{ lines: { ingredientId: string }[] }>("POST", "/api/read", { text: "30 g heather honey" });
    expect(read.body.lines[0]?.ingredientId).toBe("heather-honey");
    expect((await call("PUT", "/api/ingredients/heather-honey", { ...own, name: "Heather" }, { "if-match": '"1"' })).status).toBe(
      200,
    );
    expect((await call("DELETE", "/api/ingredients/heather-honey", undefined, { "if-match": '"1"' })).status).toBe(412);
    expect((await call("DELETE", "/api/ingredients/heather-honey", undefined, { "if-match": '"2"' })).status).toBe(204);
    expect((await call("PUT", "/api/ingredients/honey", shipped, { "if-match": '"1"' })).status).toBe(409);
    expect((await call("POST", "/api/ingredients", { ...own, per100g: { ...own.per100g, water: 60 } })).status).toBe(400);
  });

  test("vessels and ovens", async () => {
    const made = await call<{ id: string }>("POST", "/api/vessels", {
      name: "Grandmother's tin",
      vessel: { shape: "rectangular", lengthMm: 240, widthMm: 100, heightMm: 80 },
    });
    expect(made.status).toBe(201);
    const list = await call<{ items: { name: string; own: boolean }[]; total: number }>("GET", "/api/vessels?q=tin&pageSize=500");
    expect(list.body.items[0]).toMatchObject({ name: "Grandmother's tin", own: true });
    const ovens = await call<{ items: { oven: { biasK: number } }[] }>("GET", "/api/ovens");
    expect(ovens.body.items.map((o) => o.oven.biasK)).toContain(14);
    expect((await call("POST", "/api/ovens", { name: "Pizza oven", modes: ["still"], biasK: 500, swingK: 0 })).status).toBe(400);
  });
});

describe("the house rules of the server", () => {
  test("the description names every promised call and its page needs no other host", async () => {
    const { body } = await call<{ paths: Record<string, unknown> }>("GET", "/api/openapi.json");
    for (const path of [
      "/api/health",
      "/api/read",
      "/api/balance",
      "/api/swap",
      "/api/analyse",
      "/api/formulas",
      "/api/formulas/{id}/versions",
      "/api/ingredients",
      "/api/vessels",
      "/api/ovens",
    ])
      expect(Object.keys(body.paths)).toContain(path);
    const page = await fetch(`${base}/api/docs/`);
    const html = await page.text();
    expect(page.status).toBe(200);
    expect([...html.matchAll(/(?:src|href)="([^"]+)"/g)].every((m) => !/^(?:https?:)?\/\//.test(m[1] ?? ""))).toBe(true);
  });

  test("security headers stand on every answer", async () => {
    const { headers } = await call("GET", "/api/health");
    expect(headers.get("content-security-policy")).toContain("script-src 'self'");
    expect(headers.get("content-security-policy")).not.toContain("unsafe-eval");
    expect(headers.get("x-content-type-options")).toBe("nosniff");
    expect((await call<Problem>("GET", "/api/nowhere")).body).toMatchObject({ status: 404, type: "urn:uprise:problem:not-found" });
  });
});

describe("the wire", () => {
  test("an oven keeps every field through a change, and a creation sent twice makes one", async () => {
    const oven = {
      name: "Deck",
      modes: ["still", "fan"],
      biasK: 12,
      swingK: 9,
      warmMinutes: 25,
      racks: 2,
      widthMm: 600,
      depthMm: 500,
    };
    const made = await call<{ id: string; version: number; oven: object }>("POST", "/api/ovens", { ...oven, id: "deck" });
    expect([made.status, made.body.oven]).toEqual([201, oven]);
    expect((await call<{ version: number }>("POST", "/api/ovens", { ...oven, id: "deck" })).body.version).toBe(1);
    const changed = { ...oven, biasK: 10, racks: 3 };
    const { body } = await call<{ oven: object }>("PUT", "/api/ovens/deck", changed, { "if-match": '"1"' });
    expect(body.oven).toEqual(changed);
    expect((await call<{ oven: object }>("GET", "/api/ovens/deck")).body.oven).toEqual(changed);
  });

  test("a list may leave out what ships with Uprise, and may send whole formulas", async () => {
    await call("POST", "/api/vessels", { id: "mine", name: "Boat tin", vessel: { shape: "round", diameterMm: 180 } });
    const own = await call<{ total: number; items: { id: string }[] }>("GET", "/api/vessels?own=true");
    expect(own.body.items.map(({ id }) => id)).toEqual(["mine"]);
    expect((await call<{ total: number }>("GET", "/api/ingredients?own=true")).body.total).toBe(0);
    const whole = await call<{ items: { id: string; lines: number; formula: Formula }[] }>("GET", "/api/formulas?whole=true");
    for (const { formula: one, lines } of whole.body.items) expect(one.lines.length).toBe(lines);
  });

  test("what is long is sent pressed", async () => {
    const response = await fetch(`${base}/api/ingredients?pageSize=500`, { headers: { "accept-encoding": "br" } });
    expect(response.headers.get("content-encoding")).toBe("br");
    expect(((await response.json()) as { total: number }).total).toBeGreaterThan(200);
  });

  test.each([
    "1e999 g millet flour",
    `${"9".repeat(400)} g millet flour`,
    `${"9".repeat(12)} kg millet flour`,
    "1/0 cup oat flour",
  ])("%s is no amount, and no fault of the server", async (line) => {
    const read = await call<{ lines: { state: string; grams: unknown }[] }>("POST", "/api/read", { text: `Pier\n${line}` });
    expect(read.status).toBe(200);
    expect(read.body.lines.every(({ state, grams }) => state !== "read" || grams === null)).toBe(true);
    const analysed = await call("POST", "/api/analyse", { text: `${line}\n100 g kefir`, kind: "loaf" });
    expect([200, 422]).toContain(analysed.status);
  });

  test.each([
    [{ text: "a\n".repeat(1001) }, /1000 lines/],
    [{ text: "x".repeat(4001) }, /4000 characters/],
    [{ lines: [{ ingredientId: "water", grams: 1e9 }] }, /1 000 000/],
  ])("a request beyond reason is refused with what would be right", async (body, message) => {
    const { status, body: told } = await call<Problem>("POST", "lines" in body ? "/api/analyse" : "/api/read", body);
    expect([status, JSON.stringify(told)]).toEqual([400, expect.stringMatching(message)]);
  });
});

describe("the store", () => {
  test("log mode, sync, foreign keys", async () => {
    const at = mkdtempSync(join(tmpdir(), "uprise-pragma-"));
    await migrate(databaseFile(at));
    const database = openDatabase(at);
    const pragma = async (name: string): Promise<unknown> =>
      Object.values(((await database.sequelize.query(`PRAGMA ${name}`)) as [Record<string, unknown>[], unknown])[0][0] ?? {})[0];
    expect(await pragma("journal_mode")).toBe("wal");
    expect(await pragma("synchronous")).toBe(2);
    await expect(
      database.sequelize.query(
        "INSERT INTO formula_versions (formulaId, number, reason, body, savedAt) VALUES ('nobody', 1, '', '{}', '2026-01-01')",
      ),
    ).rejects.toThrow(/FOREIGN KEY/);
    await database.close();
    rmSync(at, { recursive: true, force: true });
  });

  test("a folder that cannot be written is told with its name and the way out", async () => {
    const file = join(folder, "a-file");
    writeFileSync(file, "");
    await expect(openStore(join(file, "data"))).rejects.toThrow(/a-file.*cannot be written.*UPRISE_DATA/);
  });
});

describe("a killed process", () => {
  const root = resolve(__dirname, "../../..");
  const start = (data: string): Promise<{ child: ChildProcess; url: string }> =>
    new Promise((done, fail) => {
      const child = spawn(process.execPath, ["apps/server/dist/main.mjs"], {
        cwd: root,
        env: { ...process.env, PORT: "0", UPRISE_DATA: data, UPRISE_DEMO: "" },
        stdio: ["ignore", "pipe", "inherit"],
      });
      child.stdout?.on("data", (chunk: Buffer) => {
        const url = /http:\/\/\S+/.exec(chunk.toString())?.[0];
        if (url) done({ child, url });
      });
      child.on("exit", (code) => fail(new Error(`server ended with ${code}`)));
    });

  test("keeps what it acknowledged, and a gentle stop ends with 0", async () => {
    execFileSync(process.execPath, ["scripts/build-server.mjs"], { cwd: root });
    const data = mkdtempSync(join(tmpdir(), "uprise-kill-"));
    const one = await start(data);
    base = one.url;
    const { body } = await create();
    one.child.removeAllListeners("exit");
    const killed = new Promise((done) => one.child.on("exit", done));
    one.child.kill("SIGKILL");
    await killed;
    const two = await start(data);
    base = two.url;
    expect((await call<StoredFormula>("GET", `/api/formulas/${body.id}`)).body.formula).toEqual(formula);
    two.child.removeAllListeners("exit");
    const ended = new Promise((done) => two.child.on("exit", done));
    // A browser that keeps its line open, and a request that never ends, do not hold it.
    const half = connect(Number(new URL(two.url).port), "127.0.0.1");
    half.on("error", () => undefined);
    half.write("POST /api/read HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: 500\r\n\r\n{");
    await new Promise((done) => half.once("connect", done));
    const asked = Date.now();
    two.child.kill("SIGTERM");
    await ended;
    expect(Date.now() - asked).toBeLessThan(5000);
    half.destroy();
    rmSync(data, { recursive: true, force: true });
  }, 60_000);
});

test("every demo formula is analysed; the slip is the one with a fault in its lift", () => {
  for (const { id, formula: demo } of demoFormulas) {
    const findings = analyse(demo).findings.filter((f) => f.severity !== "note");
    const ids = findings.map((f) => f.id);
    if (id === "soda-slip") expect(ids).toContain("soda-unmet");
    // The neighbour's recipe, whose minutes are for two tins.
    else if (id === "plum-loaf") expect(ids).toEqual(["core-late", "recipe-differs"]);
    else expect([id, ids]).toEqual([id, []]);
  }
});
