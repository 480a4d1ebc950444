import { existsSync, readFileSync } from "node:fs";
import { mkdtempSync, rmSync } from "node:fs";
import { spawn } from "node:child_process";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Reading } from "@uprise/core";
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
 * facts.json and recipes.json in the form of packages/core/corpus, which is taken where none is named. Says every case that is read otherwise
 * than a cook would mean it; ends with 0 when lines and facts reach 95 %.
 */
const NEEDED = { lines: 0.95, facts: 0.95, recipes: 0 };
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
    const read = async (text: string, measures: string): Promise<Reading> => {
      const answer = await fetch(`${url}/api/read`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ text, measures }),
      });
      if (!answer.ok) throw new Error(`${answer.status}: ${(await answer.text()).slice(0, 200)}`);
      return (await answer.json()) as Reading;
    };
    const judges = {
      lines: async (wanted: LineCase) => judgeLine(wanted, await read(framed(wanted.text), wanted.measures)) ?? "",
      facts: async (wanted: FactCase) => judgeFacts(wanted, await read(framed(wanted.text), wanted.measures)).join("; "),
      recipes: async (wanted: RecipeCase) => judgeRecipe(wanted, await read(wanted.text, wanted.measures)).join("; "),
    };
    let enough = true;
    for (const name of ["lines", "facts", "recipes"] as const) {
      const cases = casesOf(name) as (LineCase & FactCase & RecipeCase)[];
      let right = 0;
      for (const wanted of cases) {
        const fault = await judges[name](wanted);
        if (fault === "") right++;
        else console.log(`${wanted.id}  “${wanted.text.split("\n")[0] ?? ""}”  ${fault}`);
      }
      console.log(`${name}: ${right} of ${cases.length}`);
      if (right < NEEDED[name] * cases.length) enough = false;
    }
    process.exitCode = enough ? 0 : 1;
  } finally {
    server.kill("SIGTERM");
    rmSync(data, { recursive: true, force: true });
  }
}

void main();
