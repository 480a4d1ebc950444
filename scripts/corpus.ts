import { existsSync, readFileSync } from "node:fs";
import { mkdtempSync, rmSync } from "node:fs";
import { spawn } from "node:child_process";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { findIngredient, type Reading } from "@uprise/core";
import {
  type Adviser,
  type BalanceCase,
  type FindingCase,
  judgeBalance,
  judgeFinding,
  judgeSwap,
  type SwapCase,
} from "../packages/core/corpus/advice-judge";
import {
  type FactCase,
  framed,
  judgeFacts,
  judgeLine,
  judgeRecipe,
  type LineCase,
  type RecipeCase,
} from "../packages/core/corpus/judge";

/**
 * Starts a server on an empty data folder and puts every case of a folder to it: `npm run corpus -- FOLDER`. The folder holds lines.json,
 * facts.json, recipes.json, swaps.json, balance.json and findings.json in the form of packages/core/corpus, which is taken where none is named; a
 * folder that brings an advice.mjs judges its advice by that. Says every case that comes otherwise than a cook or baker would have it; ends with 0
 * when enough of each are right.
 */
const NEEDED = { lines: 0.95, facts: 0.95, recipes: 0.9, swaps: 0.9, balance: 0.9, findings: 0.95 };
const folder = process.argv[2] ?? "packages/core/corpus";

const casesOf = (name: string): unknown[] => {
  const file = join(folder, `${name}.json`);
  return existsSync(file) ? (JSON.parse(readFileSync(file, "utf8")) as unknown[]) : [];
};

async function main(): Promise<void> {
  const data = mkdtempSync(join(tmpdir(), "uprise-corpus-"));
  const server = spawn(process.execPath, ["apps/server/dist/main.mjs"], {
    env: { ...process.env, PORT: "0", UPRISE_DATA: data, UPRISE_DEMO: "" },
    stdio: ["ignore", "pipe", "inherit"],
  });
  try {
    const url = await new Promise<string>((done, fail) => {
      server.stdout.on("data", (chunk: Buffer) => {
        const said = /http:\/\/\S+/.exec(chunk.toString())?.[0];
        if (said) done(said);
      });
      server.once("exit", (code) => fail(new Error(`The server ended with ${code}.`)));
    });
    const post = async <T>(path: string, body: object): Promise<T> => {
      const answer = await fetch(`${url}${path}`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify(body),
      });
      if (!answer.ok) throw new Error(`${answer.status}: ${(await answer.text()).slice(0, 200)}`);
      return (await answer.json()) as T;
    };
    const read = ({ text, measures }: LineCase | FactCase, whole = false): Promise<Reading> =>
      post("/api/read", { text: whole ? text : framed(text), measures });
    const ask: Adviser = {
      analyse: (body) => post("/api/analyse", body),
      balance: (body) => post("/api/balance", body),
      swap: (body) => post("/api/swap", body),
    };
    const judges: Record<keyof typeof NEEDED, (wanted: never) => Promise<string | null>> = {
      lines: async (wanted: LineCase) => judgeLine(wanted, await read(wanted)),
      facts: async (wanted: FactCase) => judgeFacts(wanted, await read(wanted)).join("; "),
      recipes: async (wanted: RecipeCase) => judgeRecipe(wanted, await read(wanted, true)).join("; "),
      swaps: (wanted: SwapCase) => judgeSwap(wanted, ask),
      balance: (wanted: BalanceCase) => judgeBalance(wanted, ask),
      findings: (wanted: FindingCase) => judgeFinding(wanted, ask, (name) => findIngredient(name)?.ingredient.id),
    };
    const own = join(folder, "advice.mjs");
    const adviceApart = existsSync(own);
    let enough = true;
    for (const name of Object.keys(NEEDED) as (keyof typeof NEEDED)[]) {
      if (adviceApart && ["swaps", "balance", "findings"].includes(name)) continue;
      const cases = casesOf(name) as { id: string }[];
      let right = 0;
      for (const wanted of cases) {
        const fault = await judges[name](wanted as never);
        if (!fault) right++;
        else console.log(`${wanted.id}  ${fault}`);
      }
      console.log(`${name}: ${right} of ${cases.length}`);
      if (right < NEEDED[name] * cases.length) enough = false;
    }
    if (adviceApart) {
      const judged = spawn(process.execPath, [own, url, folder], { stdio: "inherit" });
      if ((await new Promise((done) => judged.once("exit", done))) !== 0) enough = false;
    }
    process.exitCode = enough ? 0 : 1;
  } finally {
    server.kill("SIGTERM");
    rmSync(data, { recursive: true, force: true });
  }
}

void main();
