import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Problem, simulationSchema, type StoredOven, type StoredVessel } from "@uprise/contract";
import { fillVessel, simulate, type Analysis, type Simulation } from "@uprise/core";
import { buildApp } from "./app";
import type { App } from "./wire";

let folder: string;
let app: App;
let base: string;

async function call<T>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}) {
  const response = await fetch(`${base}${path}`, {
    method,
    headers: { ...(body === undefined ? {} : { "content-type": "application/json" }), ...headers },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  const text = await response.text();
  return { status: response.status, body: (text === "" ? null : JSON.parse(text)) as T };
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "uprise-bake-"));
  app = await buildApp({ port: 0, host: "127.0.0.1", dataFolder: folder, demo: true, webFolder: null });
  base = await app.listen({ port: 0, host: "127.0.0.1" });
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

const muffins = { kind: "muffin", batchG: 864 } as const;

test("a typical batch is baked, in the promised shape and to the last digit as in the core", async () => {
  const { status, body } = await call<Simulation>("POST", "/api/simulate", muffins);
  expect(status).toBe(200);
  expect(simulationSchema.safeParse(body).error?.issues ?? []).toEqual([]);
  expect(body).toEqual(JSON.parse(JSON.stringify(simulate(muffins))));
});

test("a pasted text is baked in the pan and at the heat it names", async () => {
  const text =
    "Pier buns\n250 g sorghum flour\n200 g milk\n2 large eggs\n60 g butter\n12 g baking powder\nBake at 190 °C for 20 minutes in a muffin tin.";
  const { status, body } = await call<Simulation>("POST", "/api/simulate", { text, kind: "muffin", measures: "metric" });
  expect(status).toBe(200);
  expect(body.reached).toBe(true);
  expect(body.done.mid).toBeGreaterThan(10);
});

test("analyse takes its minutes from the simulated bake", async () => {
  const [analysis, simulation] = await Promise.all([
    call<Analysis>("POST", "/api/analyse", muffins),
    call<Simulation>("POST", "/api/simulate", muffins),
  ]);
  expect(analysis.body.bake?.fidelity).toBe("fine");
  expect(analysis.body.bake?.minutes).toEqual(simulation.body.done);
  expect(analysis.body.fill.crownMm?.mid).toBe(simulation.body.highestMm);
});

test("the hot oven of the kiosk is quicker than the true one, and a measured oven leaves less open than an unknown one", async () => {
  const at = async (ovenId?: string): Promise<Simulation> =>
    (await call<Simulation>("POST", "/api/simulate", { ...muffins, oven: { celsius: 180, ...(ovenId ? { ovenId } : {}) } })).body;
  const [kiosk, home, unknown, gone] = await Promise.all([at("kiosk-oven"), at("home-oven"), at(), at("no-such-oven")]);
  expect(kiosk.minutes).toBeLessThan(0.93 * home.minutes);
  expect(home.minutes).toBeCloseTo(unknown.minutes, 6);
  expect(home.done.high - home.done.low).toBeLessThan(unknown.done.high - unknown.done.low);
  expect(unknown.notes.join()).toMatch(/not measured/);
  expect(gone.done).toEqual(unknown.done);
});

test("taken out after five minutes it is not done, and says at what its middle stands", async () => {
  const { body } = await call<Simulation>("POST", "/api/simulate", { ...muffins, minutes: 5 });
  expect([body.reached, body.minutes]).toEqual([false, 5]);
  expect(body.notes.join()).toMatch(/After 5 min the middle stands at \d+ °C/);
});

test.each([
  [{ ...muffins, minutes: 0 }, /from 0.5 to 240/],
  [{ ...muffins, oven: { celsius: 400 } }, /from 60 to 320/],
  [{ ...muffins, vessel: { shape: "round", diameterMm: 4 } }, /from 15 to 900/],
  [{ ...muffins, vessel: { shape: "round" } }, /diameterMm; 230/],
  [{ kind: "loaf", lines: [{ ingredientId: "water", grams: 500 }] }, /which cannot be baked; a batter has at most 92 %/],
  [{ kind: "loaf" }, /Send text, lines, or a kind with batchG/],
])("what cannot be baked is refused with what would be right: %j", async (body, message) => {
  const answer = await call<Problem>("POST", "/api/simulate", body);
  expect(answer.status).toBeGreaterThanOrEqual(400);
  expect(answer.status).toBeLessThan(500);
  expect(JSON.stringify(answer.body)).toMatch(message);
});

test("a pan measured with water is stored, listed and holds what was measured", async () => {
  const pan = {
    name: "Grandmother's tin",
    vessel: { shape: "rectangular", lengthMm: 240, widthMm: 120, heightMm: 65, capacityMl: 1450 },
  };
  const made = await call<StoredVessel>("POST", "/api/vessels", pan);
  expect(made.status).toBe(201);
  const { body } = await call<{ items: StoredVessel[] }>("GET", "/api/vessels?pageSize=500");
  const found = body.items.find((entry) => entry.id === made.body.id);
  expect(found?.own).toBe(true);
  expect(fillVessel(found?.vessel ?? { shape: "round" }, 100, 1).capacityMl).toBeCloseTo(1450, 0);
  expect((await call("POST", "/api/vessels", { ...pan, vessel: { ...pan.vessel, capacityMl: 2 } })).status).toBe(400);
});

test("an oven is created, measured again with its version, and a stale write loses nothing", async () => {
  const oven = {
    name: "Pier deck oven",
    modes: ["still"],
    biasK: 0,
    swingK: 12,
    warmMinutes: 25,
    racks: 2,
    widthMm: 600,
    depthMm: 500,
  };
  const made = await call<StoredOven>("POST", "/api/ovens", oven);
  expect([made.status, made.body.oven]).toEqual([201, oven]);
  const path = `/api/ovens/${made.body.id}`;
  const measured = await call<StoredOven>("PUT", path, { ...oven, biasK: -9 }, { "if-match": '"1"' });
  expect([measured.status, measured.body.version, measured.body.oven.biasK]).toEqual([200, 2, -9]);
  const stale = await call<Problem>("PUT", path, { ...oven, biasK: 30 }, { "if-match": '"1"' });
  expect(stale.status).toBe(412);
  expect((await call<StoredOven>("GET", path)).body.oven.biasK).toBe(-9);
  expect((await call("PUT", path, { ...oven, biasK: 90 }, { "if-match": '"2"' })).status).toBe(400);
});
