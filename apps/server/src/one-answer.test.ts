import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { FormulaSummary, StoredBake, StoredFormula } from "@uprise/contract";
import {
  beginKind,
  type BakedAnalysis,
  type Formula,
  type Kind,
  type Plan,
  type Proposal,
  type ScaleUp,
  type Simulation,
} from "@uprise/core";
import { buildApp } from "./app";
import type { App } from "./wire";

let app: App;
let base: string;
const folder = mkdtempSync(join(tmpdir(), "uprise-one-"));
beforeAll(async () => {
  app = await buildApp({ port: 0, host: "127.0.0.1", dataFolder: folder, demo: true, webFolder: null, copies: false });
  base = await app.listen({ port: 0, host: "127.0.0.1" });
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

const asked = async (path: string, body?: unknown): Promise<Response> => {
  const sent =
    body === undefined ? {} : { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) };
  const response = await fetch(`${base}${path}`, sent);
  if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
  return response;
};
const ask = async <T>(path: string, body?: unknown): Promise<T> => (await (await asked(path, body)).json()) as T;
/** A formula as a script would send it. */
const plain = ({ kind, lines, components, vessel, oven, process, measures }: Formula) => ({
  kind,
  lines: lines.map(({ ingredientId, grams, component }) => ({ ingredientId, grams, ...(component ? { component } : {}) })),
  ...(components ? { components } : {}),
  vessel,
  oven,
  process,
  measures,
});

/** The list reads its formulas in the background, the newest question first. */
async function glanced(id: string): Promise<NonNullable<FormulaSummary["glance"]>> {
  for (let tries = 0; tries < 100; tries++) {
    const { items } = await ask<{ items: FormulaSummary[] }>("/api/formulas?whole=true&pageSize=200");
    const glance = items.find((one) => one.id === id)?.glance;
    if (glance) return glance;
    await new Promise((done) => setTimeout(done, 300));
  }
  throw new Error(`${id} was never read`);
}

const TEN = 10;
/** Besides the demo's. */
const more: readonly Kind[] = ["bar", "cornbread-sweet", "flatbread"];
/** Any two tellings of one number are so near. */
const NEAR = 0.02;

test("ten formulas: every place that tells minutes, crown, loss or depth tells the same", async () => {
  for (const kind of more) await ask("/api/formulas", { ...beginKind(kind, "metric", 700), title: `Another ${kind}` });
  const { items } = await ask<{ items: FormulaSummary[] }>("/api/formulas?pageSize=200");
  let told = 0;
  const apart: string[] = [];
  for (const { id } of items.slice(0, TEN)) {
    const { formula } = await ask<StoredFormula>(`/api/formulas/${id}`);
    const request = plain(formula);
    const { bake, fill, batch } = await ask<BakedAnalysis>("/api/analyse", request);
    const simulation = await ask<Simulation>("/api/simulate", request);
    const glance = await glanced(id);
    const many = await ask<ScaleUp>("/api/scale-up", { ...request, times: 1, bowlMl: 60_000, placesPerLoad: 400 });
    const day = { start: "2026-11-30T06:00:00Z", ovens: [{ id: "same", modes: [formula.oven.mode ?? "still"], racks: 1 }], hands: 1, mixers: 1 }; // prettier-ignore
    const plan = await ask<Plan>("/api/plan", { ...day, bakes: [{ id: "one", formulaId: id }] });
    const [baking] = plan.steps.filter(({ kind }) => kind === "bake");
    const held = baking ? (Date.parse(baking.end) - Date.parse(baking.start)) / 60_000 - (baking.reserveMinutes ?? 0) : NaN;
    // A griddle takes so many at a time, and the day tells all rounds together.
    const rounds = formula.vessel.shape === "griddle" ? Math.ceil(fill.pieces / (formula.vessel.pieces ?? fill.pieces)) : 1;
    const [first] = formula.lines;
    const laid = await ask<StoredBake>("/api/bakes", { formulaId: id });
    const swapped = await ask<{ proposals: Proposal[] }>("/api/swap", { ...request, replace: first?.ingredientId });
    const text = await (await asked("/api/export", { what: "formula", ids: [id], format: "text" })).text();
    const spoken = /([\d.]+)(?:(?:–| to )([\d.]+))? min/.exec(
      text.split("\n").find((line) => /^(Bake|Cook).* for .* min/.test(line)) ?? "",
    );
    const rows: [place: string, value: number | undefined, from: number, half?: number][] = [
      ["simulate, minutes", simulation.done.mid, bake.minutes.mid],
      ["list, minutes", glance.bake?.minutes.mid, bake.minutes.mid],
      ["list, to", glance.bake?.minutes.high, bake.minutes.high],
      ["many of it, minutes", many.ovenMinutes / many.loads, bake.minutes.mid],
      ["plan, minutes of the step", (baking?.minutes.mid ?? NaN) / rounds, bake.minutes.mid],
      ["plan, without its reserve", held / rounds, bake.minutes.mid, 0.5],
      ["a laid-out bake, minutes", laid.record.expected?.minutes.mid, bake.minutes.mid],
      ["swap, mass before", swapped.proposals[0]?.before.massG, batch.massG],
      ["text, from", Number(spoken?.[1]), bake.minutes.low, 0.5],
      ["text, to", Number(spoken?.[2] ?? spoken?.[1]), bake.minutes.high, 0.5],
      ["simulate, crown", simulation.highestMm, fill.crownMm.mid],
      ["list, crown", glance.fill.crownMm?.mid, fill.crownMm.mid],
      ["simulate, loss", simulation.loss.oven, bake.lossPercent.mid, 0.05],
      ["list, loss", glance.bake?.lossPercent.mid, bake.lossPercent.mid],
      ["simulate, depth", simulation.depthMm, fill.depthMm, 0.1],
      ["list, depth", glance.fill.depthMm, fill.depthMm],
    ];
    for (const [place, value, from, half = 0] of rows) {
      told++;
      // Written so that what is not told at all is apart as well.
      if (!(Math.abs((value ?? NaN) - from) <= half + NEAR * Math.abs(from)))
        apart.push(`${id}: ${place} ${value} against ${from}`);
    }
  }
  expect(apart).toEqual([]);
  expect(told).toBe(16 * TEN);
}, 180_000);
