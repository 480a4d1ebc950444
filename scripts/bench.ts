import { spawn } from "node:child_process";
import { mkdtempSync, readdirSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import {
  analyse,
  balance,
  bareKitchen,
  beginKind,
  catalogue,
  type Day,
  design,
  moved,
  openFormula,
  planDay,
  profileOf,
  readings,
  readRecipe,
  slipAnswer,
  diagnose,
  swap,
} from "@uprise/core";
import { sampledRange } from "@uprise/core/src/bake/sensitivity";
import { ready } from "@uprise/core/src/balance/analyse";
import { simulateStart } from "@uprise/core/src/bake/simulate";
import { type Steps, stepsFor, twiceAsFine } from "@uprise/core/src/bake/start";
import { bakeThrough } from "@uprise/core/src/bake/through";
import { chromium } from "playwright-core";
import { timeLists } from "./lists";
import { pageRows } from "./page";
import ovens from "@uprise/core/src/bake/data/kitchen-windows.json";

/** Median and ninth decile in ms of a call, after a warm-up. */
function time(work: () => unknown, runs = 200): { median: number; p90: number } {
  for (let i = 0; i < Math.min(150, runs); i++) work();
  const taken = Array.from({ length: runs }, () => {
    const begun = performance.now();
    work();
    return performance.now() - begun;
  }).sort((a, b) => a - b);
  return { median: taken[Math.floor(runs / 2)] ?? NaN, p90: taken[Math.floor(runs * 0.9)] ?? NaN };
}

const rows: [string, string, string][] = [];
const ms = (value: number): string => `${value < 10 ? value.toFixed(2) : value.toFixed(0)} ms`;
const say = (name: string, { median, p90 }: { median: number; p90: number }): void => void rows.push([name, ms(median), ms(p90)]);

const names = catalogue.filter((entry) => entry.family !== "wheat").slice(0, 60);
const recipe = [
  "A long recipe",
  ...names.slice(0, 59).map((entry, i) => `${(i % 4) + 1} 1/2 tbsp ${entry.name.split(",")[0]}, as it comes`),
].join("\n");
const linesOf = (count: number) =>
  names.slice(0, count).map((entry, i) => ({ ingredientId: entry.id, grams: { low: 18 + i, mid: 20 + i, high: 23 + i } }));
const leavened = (count: number) => [
  ...linesOf(count - 3),
  { ingredientId: "soda", grams: { low: 3, mid: 3.2, high: 3.8 } },
  { ingredientId: "powder-double-acting", grams: { low: 9, mid: 10, high: 12 } },
  { ingredientId: "kefir", grams: { low: 230, mid: 240, high: 250 } },
];
say(
  "read a recipe of 60 lines",
  time(() => readRecipe(recipe)),
);
const thirty = leavened(30);
const forty = leavened(40);
say(
  "readings of 30 lines with ranges (every keystroke)",
  time(() => readings({ lines: thirty })),
);
say(
  "readings of 40 lines with ranges",
  time(() => readings({ lines: forty })),
);

say(
  "analyse 30 lines: readings, simulated bake, its range and cooling",
  time(() => analyse({ lines: thirty, batchG: 950 }), 30),
);

const bakeOf = (at: number) => {
  const window = ovens[at] as {
    name: string;
    kind: "loaf";
    batchG: number;
    vessel: { shape: "round" };
    celsius: number;
    mode?: "hob";
  };
  const { kind, batchG, vessel, celsius, mode, name } = window;
  const input = {
    kind,
    batchG,
    vessel,
    oven: { celsius, mode: mode ?? ("still" as const) },
    process: { method: profileOf(kind).method },
  };
  return { name, ...ready(input) };
};
for (const at of [3, 0, 10, 8, 13]) {
  const { name, start } = bakeOf(at);
  const steps = stepsFor(start);
  say(
    `bake: ${name}, ${steps.grid.columns} × ${steps.grid.layers} at ${steps.dt} s`,
    time(() => bakeThrough(start, steps), 40),
  );
}
const loaf = bakeOf(3);
say(
  "bake and cool the loaf with its range (the bench's worker)",
  time(() => simulateStart(loaf.start, 0.02), 30),
);
say(
  "a what-if step of the loaf (slider)",
  time(() => simulateStart(loaf.start, 0.02, { spread: 0, frames: 14 }), 30),
);
const own = stepsFor(loaf.start);
const loafGrids: Steps[] = [
  { ...own, dt: 30 },
  own,
  { ...own, dt: 5 },
  twiceAsFine(own),
  { ...twiceAsFine(twiceAsFine(own)), dt: 2 },
];
for (const steps of loafGrids) {
  const minutes = (bakeThrough(loaf.start, steps).doneS ?? NaN) / 60;
  say(
    `loaf by grid: ${steps.grid.columns} × ${steps.grid.layers} at ${steps.dt} s gives ${minutes.toFixed(2)} min`,
    time(() => bakeThrough(loaf.start, steps), 10),
  );
}

const soapy = {
  kind: "muffin" as const,
  lines: Object.entries({
    "sorghum-flour": 150,
    "tapioca-starch": 90,
    xanthan: 1.2,
    "whole-milk": 200,
    egg: 100,
    "sunflower-oil": 70,
    "white-sugar": 110,
    soda: 3,
    salt: 2,
  }).map(([ingredientId, grams]) => ({ ingredientId, grams })),
};
say(
  "balance a soapy muffin batter",
  time(() => balance(soapy), 40),
);
say(
  "swap the egg out of it, six ways",
  time(() => swap(soapy, { replace: "egg" }), 40),
);

const wished = { kind: "muffin" as const };
const twelve: Day = {
  start: "2026-11-28T05:00:00Z",
  bakes: (["loaf", "muffin", "scone", "biscuit", "bar", "cornbread-sweet"] as const).map((kind) => ({ id: kind, title: kind, input: openFormula(beginKind(kind, "metric", 800), bareKitchen), batches: 2, readyBy: "2026-11-28T12:00:00Z" })),
  ovens: [{ id: "a", racks: 3 }, { id: "b", racks: 2 }],
  hands: 1,
  mixers: 1,
}; // prettier-ignore
planDay(twelve);
say(
  "plan a day: 12 batches, 2 ovens, one pair of hands (bakes known)",
  time(() => planDay(twelve), 5),
);
const meant = openFormula(beginKind("loaf", "metric", 900), bareKitchen);
say(
  "answer a slip: six times the powder, what it does and what helps",
  time(() => slipAnswer(meant, { what: "amount", ingredientId: meant.lines.find(({ ingredientId }) => /^powder/.test(ingredientId ?? ""))?.ingredientId ?? "", grams: 40, mixed: true }), 10),
); // prettier-ignore
const faulty = openFormula(beginKind("loaf", "metric", 950), bareKitchen);
let minute = 40;
say(
  "find the cause: a loaf with two symptoms, baked with every cause in turn",
  time(() => diagnose(faulty, { seen: [{ symptomId: "dense", degree: 2 }, { symptomId: "pale-top", degree: 1 }], measured: { minutes: (minute += 0.25) } }), 4),
); // prettier-ignore
say(
  "the same loaf again with one more symptom",
  time(() => diagnose(faulty, { seen: [{ symptomId: "dense", degree: 2 }, { symptomId: "soapy", degree: 1 }], measured: { minutes: minute } }), 20),
); // prettier-ignore
say(
  "design muffins from the usual shelf: four formulas, weighed out, baked, judged",
  time(() => design(wished), 10),
);
say(
  "a slider of a design: the whole weighed out anew and read",
  time(() => moved({ ...wished, rich: 0.7 }, "mild"), 40),
);
const ranged = ready({ kind: "loaf", batchG: 950 });
say(
  "the loaf's minutes by 32 coarse runs over all that is uncertain, one thread",
  time(() => sampledRange(ranged.start, stepsFor(ranged.start), 0.02, 32), 6),
);

/** Bytes of the fonts that ship. */
function fontBytes(path: string): number {
  return readdirSync(path, { withFileTypes: true }).reduce(
    (all, e) =>
      all +
      (e.isDirectory() ? fontBytes(join(path, e.name)) : /\.(ttf|woff2)$/.test(e.name) ? statSync(join(path, e.name)).size : 0),
    0,
  );
}

/** Time from spawning the server to its first line, on an empty folder and on a filled one. */
async function start(data: string): Promise<number> {
  const begun = performance.now();
  const server = spawn(process.execPath, ["apps/server/dist/main.mjs"], {
    env: { ...process.env, PORT: "0", UPRISE_DATA: data, UPRISE_DEMO: "1" },
    stdio: ["ignore", "pipe", "inherit"],
  });
  await new Promise((done) => server.stdout.once("data", done));
  const taken = performance.now() - begun;
  const ended = new Promise((done) => server.once("exit", done));
  server.kill("SIGTERM");
  await ended;
  return taken;
}

/** ms from a key on the sheet to the next painted frame, and answers a second while a what-if slider is dragged. */
async function browser(data: string): Promise<void> {
  const server = spawn(process.execPath, ["apps/server/dist/main.mjs"], {
    env: { ...process.env, PORT: "0", UPRISE_DATA: data, UPRISE_DEMO: "1" },
    stdio: ["ignore", "pipe", "inherit"],
  });
  const url = await new Promise<string>((done) =>
    server.stdout.on("data", (chunk: Buffer) => {
      const found = /http:\/\/\S+/.exec(chunk.toString())?.[0];
      if (found) done(found);
    }),
  );
  const chrome = await chromium.launch({
    executablePath: "/usr/bin/chromium",
    args: ["--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"],
  }); // prettier-ignore
  try {
    const page = await chrome.newPage({ viewport: { width: 390, height: 844 } });
    await page.goto(`${url}/bench/pear-loaf`);
    await page.getByTestId("instrument-lift").waitFor();
    await page.waitForTimeout(1500);
    const keys: number[] = [];
    for (let i = 0; i < 40; i++) {
      keys.push(
        await page.evaluate(
          async (grams) => {
            const field = document.querySelector<HTMLInputElement>("input[aria-label='Amount of Kefir']");
            if (!field) throw new Error("no field");
            const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;
            const begun = performance.now();
            set?.call(field, grams);
            field.dispatchEvent(new Event("input", { bubbles: true }));
            const work = performance.now() - begun;
            await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
            return work;
          },
          `${200 + i}`,
        ),
      );
      await page.waitForTimeout(60);
    }
    keys.sort((a, b) => a - b);
    rows.push(["an edit on the sheet: work before the next frame", ms(keys[20] ?? NaN), ms(keys[36] ?? NaN)]);
    await page.getByTestId("instrument-bake").click();
    const slider = page.getByRole("slider", { name: "Oven", exact: true });
    await slider.waitFor();
    await page.waitForTimeout(1500);
    const answers = await slider.evaluate(async (element) => {
      const input = element as HTMLInputElement;
      const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;
      let seen = 0;
      let last = "";
      const begun = performance.now();
      for (let step = 0; performance.now() - begun < 4000; step++) {
        set?.call(input, `${((step % 20) - 10) * 5}`);
        input.dispatchEvent(new Event("input", { bubbles: true }));
        await new Promise((done) => requestAnimationFrame(done));
        const row = document.querySelector("[role=table][aria-label='Now and what if']")?.textContent ?? "";
        if (row !== last) seen++;
        last = row;
      }
      return (seen * 1000) / (performance.now() - begun);
    });
    rows.push(["what-if slider dragged: answers drawn a second", answers.toFixed(1), ""]);
    for (const row of await pageRows(chrome, url)) rows.push(row);
  } finally {
    await chrome.close();
    server.kill("SIGTERM");
  }
}

/** How fast the server says that it is up while twenty bakes are being computed, over and over. */
async function underLoad(data: string): Promise<void> {
  const server = spawn(process.execPath, ["apps/server/dist/main.mjs"], {
    env: { ...process.env, PORT: "0", UPRISE_DATA: data, UPRISE_DEMO: "1" },
    stdio: ["ignore", "pipe", "inherit"],
  });
  const url = await new Promise<string>((done) =>
    server.stdout.on("data", (chunk: Buffer) => {
      const found = /http:\/\/\S+/.exec(chunk.toString())?.[0];
      if (found) done(found);
    }),
  );
  let going = true;
  let answered = 0;
  const calls = ["simulate", "analyse", "balance", "swap"];
  const loads = Array.from({ length: 20 }, async (_, i) => {
    while (going) {
      const call = calls[i % calls.length] ?? "analyse";
      const response = await fetch(`${url}/api/${call}`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ kind: "loaf", batchG: 700 + i, ...(call === "swap" ? { replace: "egg" } : {}) }),
      });
      await response.arrayBuffer();
      if (response.ok) answered++;
    }
  });
  const waits: number[] = [];
  for (let n = 0; n < 60; n++) {
    await new Promise((done) => setTimeout(done, 100));
    const begun = performance.now();
    await (await fetch(`${url}/api/health`)).arrayBuffer();
    waits.push(performance.now() - begun);
  }
  going = false;
  await Promise.all(loads);
  server.kill("SIGTERM");
  waits.sort((a, b) => a - b);
  rows.push([
    `/api/health while 20 computing calls run (${answered} answered in 6 s)`,
    ms(waits[30] ?? NaN),
    `${ms(waits[54] ?? NaN)}, slowest ${ms(waits[59] ?? NaN)}`,
  ]);
}

async function main(): Promise<void> {
  const data = mkdtempSync(join(tmpdir(), "uprise-bench-"));
  const fresh = await start(data);
  const again = [await start(data), await start(data), await start(data)].sort((a, b) => a - b);
  rmSync(data, { recursive: true, force: true });
  rows.push(["start of the server, empty folder with demo", ms(fresh), ""]);
  rows.push(["start of the server, filled folder", ms(again[1] ?? NaN), ms(again[2] ?? NaN)]);
  const folder = mkdtempSync(join(tmpdir(), "uprise-bench-"));
  await browser(folder);
  rmSync(folder, { recursive: true, force: true });
  const loaded = mkdtempSync(join(tmpdir(), "uprise-bench-"));
  await underLoad(loaded);
  rmSync(loaded, { recursive: true, force: true });
  for (const [name, median, p99] of await timeLists()) rows.push([name, ms(median), `${ms(p99)} (99 %)`]);
  rows.push(["fonts", `${Math.round(fontBytes("apps/web/dist") / 1000)} kB`, ""]);

  console.log("| what | median | ninth decile |\n| --- | --- | --- |");
  for (const row of rows) console.log(`| ${row.join(" | ")} |`);
}

void main();
