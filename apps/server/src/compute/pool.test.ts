import { execFileSync } from "node:child_process";
import { join, resolve } from "node:path";
import { analyse } from "@uprise/core";
import { type Computer, openComputer } from "./pool";

const root = resolve(__dirname, "../../../..");
const nothing = { ingredients: [], formulas: [], ovens: [] };
const loaf = { kind: "loaf" as const, batchG: 900 };
let pool: Computer;
beforeAll(() => {
  execFileSync(process.execPath, ["scripts/build-server.mjs"], { cwd: root });
  pool = openComputer(join(root, "apps/server/dist/compute.mjs"));
});
afterAll(() => pool.close());

test("a thread answers what this thread would", async () => {
  expect(await pool.run("analyse", loaf, nothing)).toEqual(JSON.parse(JSON.stringify(analyse(loaf))));
});

test("a refusal of the core comes back as one, with its code and place", async () => {
  await expect(pool.run("analyse", { lines: [{ ingredientId: "luck", grams: 5 }] }, nothing)).rejects.toMatchObject({
    name: "CoreError",
    code: "unknown-ingredient",
    path: "lines.0.ingredientId",
  });
});

test("the kitchen's own formulas and ovens are known in the thread", async () => {
  const kitchen = {
    ingredients: [],
    formulas: [["pier", { title: "Pier", lines: [{ ingredientId: "sorghum-flour", grams: 100 }] }]] as never,
    ovens: [["hot", { biasK: 30, swingK: 5 }]] as never,
  };
  const lines = [
    { ingredientId: "formula:pier", grams: 200 },
    { ingredientId: "kefir", grams: 230 },
    { ingredientId: "egg", grams: 50 },
  ];
  const at = (ovenId: string) => pool.run("analyse", { lines, oven: { celsius: 180, ovenId } }, kitchen);
  const [hot, plain] = [await at("hot"), await at("another")];
  expect(hot.batch.flourG).toBeCloseTo(200, 6);
  expect(hot.bake?.minutes.mid).toBeLessThan(plain.bake?.minutes.mid ?? 0);
});

test("a task that takes too long is stopped with a sentence, and the next one is answered", async () => {
  const hasty = openComputer(join(root, "apps/server/dist/compute.mjs"), 1);
  await expect(hasty.run("balance", { kind: "loaf", batchG: 900 }, nothing)).rejects.toMatchObject({ code: "took-too-long" });
  await hasty.close();
  expect((await pool.run("read", { text: "1 cup millet flour" }, nothing)).lines.length).toBe(1);
});

test("a long task tells how far it is, and ends when nobody waits for it any more", async () => {
  const bakes = ["loaf", "muffin", "scone"].map((kind) => ({
    id: kind,
    title: kind,
    input: { kind: kind as "loaf", batchG: 600 },
  }));
  const day = { start: "2026-11-28T06:00:00Z", hands: 1, mixers: 1, ovens: [{ id: "o" }], bakes };
  const told: number[] = [];
  const watch = (signal: AbortSignal) => ({ onProgress: (done: number) => void told.push(done), signal });
  const plan = await pool.run("plan", day, nothing, watch(new AbortController().signal));
  expect(plan.late).toEqual([]);
  expect(told.some((done) => done > 0 && done < 1)).toBe(true);
  await expect(pool.run("plan", day, nothing, watch(AbortSignal.abort()))).rejects.toMatchObject({ code: "stopped" });
});
