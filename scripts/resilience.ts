import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { connect } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";

/**
 * Tries what goes wrong with a server, and says what became of what was acknowledged: `npm run resilience [rounds]`. The faults of the page
 * are tried by the journeys in e2e/.
 */
const ROUNDS = Number(process.argv[2] ?? 200);
const WRITERS = 4;

interface Server {
  child: ChildProcess;
  url: string;
  port: number;
}

function start(data: string): Promise<Server> {
  const child = spawn(process.execPath, ["apps/server/dist/main.mjs"], {
    env: { ...process.env, PORT: "0", UPRISE_DATA: data, UPRISE_DEMO: "" },
    stdio: ["ignore", "pipe", "pipe"],
  });
  return new Promise((done, fail) => {
    let said = "";
    child.stderr?.on("data", (chunk: Buffer) => (said += chunk.toString()));
    child.stdout?.on("data", (chunk: Buffer) => {
      const url = /http:\/\/\S+/.exec(chunk.toString())?.[0];
      if (url) done({ child, url, port: Number(new URL(url).port) });
    });
    child.once("exit", (code) => fail(new Error(`ended with ${code}: ${said}`)));
  });
}

const gone = (child: ChildProcess, signal: NodeJS.Signals): Promise<void> =>
  new Promise((done) => {
    child.removeAllListeners("exit");
    child.once("exit", () => done());
    child.kill(signal);
  });

const formula = (title: string) => ({
  shape: 2,
  title,
  kind: "loaf",
  measures: "metric",
  lines: [{ id: "a", ingredientId: "sorghum-flour", grams: { low: 200, mid: 200, high: 200 } }],
  vessel: { shape: "round", diameterMm: 200, heightMm: 60 },
  oven: { celsius: 175 },
  process: {},
  notes: "",
});

const post = (url: string, body: unknown, method = "POST", version?: number): Promise<Response> =>
  fetch(url, {
    method,
    headers: { "content-type": "application/json", ...(version ? { "if-match": `"${version}"` } : {}) },
    body: JSON.stringify(body),
  });

/** Four writers save versions of their own formulas while the server is killed without a word, again and again. */
async function killed(): Promise<string> {
  const data = mkdtempSync(join(tmpdir(), "uprise-killed-"));
  const acknowledged = new Map<string, number>();
  const refusals = new Map<number, number>();
  let writes = 0;
  for (let round = 0; round < ROUNDS; round++) {
    const server = await start(data);
    let going = true;
    const writers = Array.from({ length: WRITERS }, async (_, w) => {
      const id = `writer-${w}`;
      while (going) {
        try {
          const version = acknowledged.get(id);
          const response =
            version === undefined
              ? await post(`${server.url}/api/formulas`, { ...formula(`${id} 1`), id })
              : await post(`${server.url}/api/formulas/${id}`, formula(`${id} ${version + 1}`), "PUT", version);
          const body = (await response.json()) as { version: number; current?: { version: number } };
          if (response.ok) {
            acknowledged.set(id, body.version);
            writes++;
          } else if (body.current) acknowledged.set(id, body.current.version);
          else refusals.set(response.status, (refusals.get(response.status) ?? 0) + 1);
        } catch {
          // Killed in the middle: what was not acknowledged may be there or not.
        }
      }
    });
    await new Promise((done) => setTimeout(done, 20 + ((round * 37) % 600)));
    await gone(server.child, "SIGKILL");
    going = false;
    await Promise.all(writers);
  }
  const server = await start(data);
  let lost = 0;
  let half = 0;
  for (const [id, version] of acknowledged) {
    const stored = (await (await fetch(`${server.url}/api/formulas/${id}`)).json()) as {
      version: number;
      formula: { title: string };
    };
    if (stored.version < version) lost++;
    if (stored.formula.title !== `${id} ${stored.version}`) half++;
    const versions = (await (await fetch(`${server.url}/api/formulas/${id}/versions?pageSize=500`)).json()) as { total: number };
    if (versions.total !== stored.version) half++;
  }
  await gone(server.child, "SIGTERM");
  rmSync(data, { recursive: true, force: true });
  if (lost + half > 0) throw new Error(`${lost} formulas lost an acknowledged version, ${half} stand half written`);
  return `${ROUNDS} kills, ${writes} acknowledged writes of ${WRITERS} writers: none lost, none half written, no gap in the versions${refusals.size > 0 ? `; refused: ${JSON.stringify([...refusals])}` : ""}`;
}

/** A request that ends in the middle, and one that never goes on. */
async function halfSent(): Promise<string> {
  const data = mkdtempSync(join(tmpdir(), "uprise-half-"));
  const server = await start(data);
  const body = JSON.stringify(formula("half"));
  for (const cut of [1, 40, body.length - 1]) {
    const line = connect(server.port, "127.0.0.1");
    line.on("error", () => undefined);
    await new Promise((done) => line.once("connect", done));
    line.write(
      `POST /api/formulas HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: ${body.length}\r\n\r\n${body.slice(0, cut)}`,
    );
    await new Promise((done) => setTimeout(done, 50));
    line.destroy();
  }
  const { total } = (await (await fetch(`${server.url}/api/formulas`)).json()) as { total: number };
  const whole = await post(`${server.url}/api/formulas`, formula("whole"));
  await gone(server.child, "SIGTERM");
  rmSync(data, { recursive: true, force: true });
  if (total !== 0 || whole.status !== 201) throw new Error(`${total} half formulas, then ${whole.status}`);
  return "three requests cut off in the middle: nothing stored, the next one is answered";
}

/** A disk that is full: a small tmpfs, where this machine lets us mount one. */
async function fullDisk(): Promise<string> {
  const data = mkdtempSync(join(tmpdir(), "uprise-full-"));
  try {
    execFileSync("mount", ["-t", "tmpfs", "-o", "size=2m", "tmpfs", data], { stdio: "ignore" });
  } catch {
    rmSync(data, { recursive: true, force: true });
    return "not tried: no tmpfs can be mounted here";
  }
  try {
    const server = await start(data);
    let kept = 0;
    let refused: { status: number; detail: string } | null = null;
    for (let n = 0; n < 400 && !refused; n++) {
      const response = await post(`${server.url}/api/formulas`, {
        ...formula(`loaf ${n}`),
        id: `loaf-${n}`,
        notes: "x".repeat(15_000),
      });
      if (response.ok) kept++;
      else refused = (await response.json()) as { status: number; detail: string };
    }
    const { total } = (await (await fetch(`${server.url}/api/formulas`)).json()) as { total: number };
    await gone(server.child, "SIGTERM");
    if (refused?.status !== 507 || total !== kept)
      throw new Error(`${kept} acknowledged, ${total} there, refused: ${refused?.status}`);
    return `refused with ${refused.status} after ${kept} formulas, all of which are there; reading goes on`;
  } catch (error) {
    if (error instanceof Error && /disk.*full/i.test(error.message)) return "the start is refused with a sentence";
    throw error;
  } finally {
    execFileSync("umount", ["-l", data], { stdio: "ignore" });
    rmSync(data, { recursive: true, force: true });
  }
}

/** A busy port, a folder that cannot be written, a database of a newer program. */
async function refusedStarts(): Promise<string> {
  const data = mkdtempSync(join(tmpdir(), "uprise-start-"));
  const server = await start(data);
  const told = (env: Record<string, string>): string => {
    try {
      execFileSync(process.execPath, ["apps/server/dist/main.mjs"], {
        env: { ...process.env, UPRISE_DATA: join(data, "other"), ...env },
        stdio: "pipe",
        timeout: 20_000,
      });
      return "";
    } catch (error) {
      return String((error as { stderr?: Buffer }).stderr ?? "").trim();
    }
  };
  const busy = told({ PORT: String(server.port) });
  mkdirSync(join(data, "file"), { recursive: true });
  writeFileSync(join(data, "file", "x"), "");
  const unwritable = told({ PORT: "0", UPRISE_DATA: join(data, "file", "x", "data") });
  await gone(server.child, "SIGTERM");
  rmSync(data, { recursive: true, force: true });
  if (!/Port \d+ is taken/.test(busy)) throw new Error(`busy port: ${busy}`);
  if (!/cannot be written/.test(unwritable)) throw new Error(`folder: ${unwritable}`);
  return "a busy port and a folder that cannot be written each end in one sentence with the way out";
}

async function main(): Promise<void> {
  const faults: [name: string, work: () => Promise<string>][] = [
    ["kill −9 while four writers write", killed],
    ["half-sent requests", halfSent],
    ["full disk", fullDisk],
    ["starts that cannot be", refusedStarts],
  ];
  let failed = 0;
  for (const [name, work] of faults) {
    try {
      console.log(`${name}: ${await work()}.`);
    } catch (error) {
      failed++;
      console.error(`${name}: FAILED, ${error instanceof Error ? error.message : String(error)}`);
    }
  }
  process.exitCode = failed === 0 ? 0 : 1;
}

void main();
