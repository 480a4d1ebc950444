import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { demoFormulas } from "../apps/server/src/demo/formulas";
import { demoTrials } from "../apps/server/src/demo/trials";
import { openStore, type WholeThing } from "../apps/server/src/store/store";

const TRIALS = 10_000;
const FORMULAS = 2_000;
const CALLS = 300;
const AT_ONCE = 500;

/** A kitchen of many years: formulas and trials by the thousand, made of the demo's. */
async function fill(folder: string): Promise<void> {
  const store = await openStore(folder);
  const at = (k: number): string => new Date(Date.UTC(2016, 0, 1) + k * 8 * 3_600_000).toISOString();
  const trials = demoTrials(new Date("2026-11-01T00:00:00Z"));
  const thing = (table: WholeThing["table"], id: string, k: number, body: unknown): WholeThing => ({ table, id, version: 1, shape: 1, createdAt: at(k), updatedAt: at(k), body }); // prettier-ignore
  const all: WholeThing[] = [];
  for (let k = 0; k < FORMULAS; k++) {
    const { formula } = demoFormulas[k % demoFormulas.length] ?? {};
    if (formula) all.push(thing("formulas", `formula-${k}`, k, { ...formula, title: `${formula.title}, try ${k}` }));
  }
  for (let k = 0; k < TRIALS; k++) {
    const { trial } = trials[k % trials.length] ?? {};
    if (trial)
      all.push(
        thing("trials", `trial-${k}`, k, {
          ...trial,
          at: at(k),
          title: `${trial.title}, day ${k}`,
          formulaId: `formula-${k % FORMULAS}`,
        }),
      );
  }
  for (let k = 0; k < all.length; k += AT_ONCE)
    await store.whole.inOne(async (hand) => {
      for (const one of all.slice(k, k + AT_ONCE)) await hand.put(one);
    });
  await store.close();
}

/** Median and 99th percentile of calls to a server that has all of it, ms. */
export async function timeLists(): Promise<[string, number, number][]> {
  const folder = mkdtempSync(join(tmpdir(), "uprise-lists-"));
  await fill(folder);
  const server = spawn(process.execPath, ["apps/server/dist/main.mjs"], { env: { ...process.env, PORT: "0", UPRISE_DATA: folder, UPRISE_COPIES: "0" }, stdio: ["ignore", "pipe", "inherit"] }); // prettier-ignore
  const url = await new Promise<string>((done) => server.stdout.on("data", (chunk: Buffer) => { const found = /http:\/\/\S+/.exec(chunk.toString())?.[0]; if (found) done(found); })); // prettier-ignore
  const time = async (path: (k: number) => string): Promise<[number, number]> => {
    const taken: number[] = [];
    for (let k = 0; k < CALLS + 30; k++) {
      const begun = performance.now();
      const answer = await fetch(`${url}${path(k)}`, { headers: { "accept-encoding": "identity" } });
      await answer.arrayBuffer();
      if (!answer.ok) throw new Error(`${path(k)} answered ${answer.status}`);
      if (k >= 30) taken.push(performance.now() - begun);
    }
    taken.sort((a, b) => a - b);
    return [taken[CALLS / 2] ?? NaN, taken[Math.floor(CALLS * 0.99)] ?? NaN];
  };
  const rows: [string, number, number][] = [];
  const calls: [string, (k: number) => string][] = [
    ["10 000 trials: a page of 20, anywhere", (k) => `/api/trials?pageSize=20&page=${1 + ((k * 37) % 500)}`],
    ["10 000 trials: searched by two words", (k) => `/api/trials?pageSize=20&q=loaf%20${k % 97}`],
    ["2 000 formulas: a page of 50, anywhere", (k) => `/api/formulas?pageSize=50&page=${1 + (k % 40)}`],
    ["2 000 formulas: searched", (k) => `/api/formulas?pageSize=50&q=try%20${k % 97}`],
    [
      "2 000 formulas: a page of 30 whole, as the application asks",
      (k) => `/api/formulas?whole=true&pageSize=30&page=${1 + (k % 60)}`,
    ],
  ];
  for (const [name, path] of calls) rows.push([name, ...(await time(path))]);
  server.kill("SIGTERM");
  rmSync(folder, { recursive: true, force: true });
  return rows;
}
