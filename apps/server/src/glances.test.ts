import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { FormulaSummary } from "@uprise/contract";
import { bareKitchen, beginKind, openFormula, readings } from "@uprise/core";
import type { Computer } from "./compute/pool";
import { openGlances } from "./resources/glances";
import type { Store } from "./store/store";

const folder = mkdtempSync(join(tmpdir(), "glances-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test("what another program computed of a formula is computed anew; what the same one did is not", async () => {
  const formula = beginKind("muffin", "us", 864);
  const item = { id: "m", version: 1, formula } as unknown as FormulaSummary;
  const kept = new Map<string, { of: string; glance: unknown }>();
  let computed = 0;
  const glance = { final: readings(openFormula(formula, bareKitchen)).final };
  const store = {
    glances: {
      read: () => Promise.resolve(new Map(kept)),
      keep: (id: string, of: string, one: unknown) => Promise.resolve(void kept.set(id, { of, glance: one })),
    },
    things: () => ({ list: () => Promise.resolve([]) }),
    formulas: { list: () => Promise.resolve({ items: [] }) },
  } as unknown as Store;
  const computer = { run: () => Promise.resolve((computed++, glance)) } as unknown as Computer;
  const laidBy = async (bundle: string): Promise<unknown> => {
    const file = join(folder, "compute.mjs");
    writeFileSync(file, bundle);
    const fail = (error: unknown): never => {
      throw error;
    };
    const before = computed;
    const [first] = await openGlances(store, computer, file, () => undefined, fail).laidOn([item]);
    // It is computed behind the answer.
    for (let k = 0; first?.glance === undefined && computed === before && k < 50; k++)
      await new Promise((done) => setTimeout(done, 10));
    await new Promise((done) => setTimeout(done, 20));
    const [laid] = await openGlances(store, computer, file, () => undefined, fail).laidOn([item]);
    return laid?.glance;
  };
  expect(await laidBy("one program")).toEqual(glance);
  expect(computed).toBe(1);
  expect(await laidBy("one program")).toEqual(glance);
  expect(computed).toBe(1);
  await laidBy("another program");
  expect(computed).toBe(2);
});
