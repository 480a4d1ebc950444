import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import {
  createReadStream,
  createWriteStream,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { connect } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import sharp from "sharp";
import { makeCopy } from "../apps/server/src/archive/copies";
import { demoTrials } from "../apps/server/src/demo/trials";
import { openStore } from "../apps/server/src/store/store";

/**
 * Tries what goes wrong with a server, and says what became of what was acknowledged: `npm run resilience [kills] [bodies] [which]`, 200 kills
 * and 100 000 bodies where nothing is said. The faults of the page are tried by the journeys in e2e/.
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

/** The largest resident memory that a process ever had, MB. */
const peakMb = (pid: number): number => Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0) / 1024;

/** Ten years of a kitchen: 10 000 trials and 2000 photographs go out as an archive and are looked at again, while others ask. */
async function largeArchive(): Promise<string> {
  const data = mkdtempSync(join(tmpdir(), "uprise-large-"));
  await fillLarge(data);
  const server = await start(data);
  // The first answer of a server is a slow one, whatever it is doing.
  await (await fetch(`${server.url}/api/health`)).text();
  const slow: number[] = [];
  let going = true;
  const others = (async () => {
    while (going) {
      const began = performance.now();
      await (await fetch(`${server.url}/api/health`)).text();
      slow.push(performance.now() - began);
      await new Promise((done) => setTimeout(done, 40));
    }
  })();
  const began = performance.now();
  const out = await post(`${server.url}/api/export`, { what: "archive", format: "zip" });
  const path = join(data, "out.zip");
  await pipeline(Readable.fromWeb(out.body as never), createWriteStream(path));
  const wroteS = (performance.now() - began) / 1000;
  const answer = await fetch(`${server.url}/api/restore`, { method: "POST", headers: { "content-type": "application/zip" }, body: createReadStream(path) as never, duplex: "half" } as RequestInit); // prettier-ignore
  const told = (await answer.json()) as {
    same: number;
    conflict: unknown[];
    flaws: unknown[];
    archive: { things: number; photos: number };
  };
  const readS = (performance.now() - began) / 1000 - wroteS;
  going = false;
  await others;
  slow.sort((a, b) => a - b);
  const [p99, most, peak] = [slow[Math.floor(slow.length * 0.99)] ?? 0, slow.at(-1) ?? 0, peakMb(server.child.pid ?? 0)];
  await gone(server.child, "SIGTERM");
  rmSync(data, { recursive: true, force: true });
  if (told.same !== told.archive.things || told.conflict.length + told.flaws.length > 0) throw new Error(JSON.stringify(told).slice(0, 400)); // prettier-ignore
  return `${told.archive.things} things and ${told.archive.photos} photographs written in ${wroteS.toFixed(1)} s and looked at in ${readS.toFixed(1)} s; peak memory ${Math.round(peak)} MB; health meanwhile 99 % under ${Math.round(p99)} ms, most ${Math.round(most)} ms`;
}

/** Bodies that nobody sends who means well: none ends the server, none is answered with its insides. */
async function hostileBodies(): Promise<string> {
  const data = mkdtempSync(join(tmpdir(), "uprise-hostile-"));
  const server = await start(data);
  const paths = ["/api/read", "/api/analyse", "/api/formulas", "/api/trials", "/api/plans", "/api/packets", "/api/label", "/api/balance", "/api/swap", "/api/bakes", "/api/export", "/api/import"]; // prettier-ignore
  let seed = 20261129;
  const next = (): number => (seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648;
  const odd: (() => unknown)[] = [() => null, () => -1e300, () => "x".repeat(Math.floor(next() * 300)), () => [], () => ({}), () => Number.NaN, () => true, () => ({ low: 9, mid: 1, high: -5 }), () => "__proto__", () => ({ constructor: { prototype: 1 } }), () => "\u0000\ud800", () => [[[[[[]]]]]], () => 1e21]; // prettier-ignore
  const one = (): unknown => odd[Math.floor(next() * odd.length)]?.();
  const names = ["text", "lines", "kind", "vessel", "oven", "process", "batchG", "title", "id", "formulaId", "what", "format", "ids", "events", "replace", "region", "shape", "photos", "measured"]; // prettier-ignore
  const statuses = new Map<number, number>();
  const BODIES = Number(process.argv[3] ?? 100_000);
  const body = (): string => JSON.stringify(Object.fromEntries(Array.from({ length: 1 + Math.floor(next() * 5) }, () => [names[Math.floor(next() * names.length)] ?? "x", one()]))); // prettier-ignore
  const worker = async (count: number): Promise<void> => {
    for (let n = 0; n < count; n++) {
      const text = body();
      const cut = next() < 0.1 ? text.slice(0, Math.floor(text.length * next())) : text;
      const answer = await fetch(`${server.url}${paths[Math.floor(next() * paths.length)]}`, { method: "POST", headers: { "content-type": "application/json" }, body: cut }); // prettier-ignore
      await answer.arrayBuffer();
      statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1);
    }
  };
  await Promise.all(Array.from({ length: 8 }, () => worker(Math.ceil(BODIES / 8))));
  const up = (await fetch(`${server.url}/api/health`)).status;
  await gone(server.child, "SIGTERM");
  rmSync(data, { recursive: true, force: true });
  const broken = [...statuses].filter(([status]) => status === 500);
  if (up !== 200 || broken.length > 0) throw new Error(`health ${up}; ${JSON.stringify([...statuses])}`);
  return `${BODIES} bodies, answers by status ${JSON.stringify(Object.fromEntries([...statuses].sort(([a], [b]) => a - b)))}; it stands`;
}

/** A small disk that fills up while photographs come and the copy of the night is made. */
async function fullDiskCopies(): Promise<string> {
  const data = mkdtempSync(join(tmpdir(), "uprise-copies-"));
  try {
    execFileSync("mount", ["-t", "tmpfs", "-o", "size=9m", "tmpfs", data], { stdio: "ignore" });
  } catch {
    rmSync(data, { recursive: true, force: true });
    return "not tried: no tmpfs can be mounted here";
  }
  try {
    const server = await start(data);
    await post(`${server.url}/api/formulas`, formula("one"));
    let refused = 0;
    for (let n = 0; n < 40 && refused === 0; n++) {
      const picture = await sharp({ create: { width: 1400, height: 1000, channels: 3, noise: { type: "gaussian", mean: 100 + n, sigma: 60 } } } as never).jpeg().toBuffer(); // prettier-ignore
      const sent = await fetch(`${server.url}/api/photos`, { method: "POST", headers: { "content-type": "image/jpeg" }, body: new Uint8Array(picture) }); // prettier-ignore
      if (!sent.ok) refused = sent.status;
    }
    await gone(server.child, "SIGTERM");
    const halves = readdirSync(data, { recursive: true }).filter((name) => String(name).endsWith(".half"));
    let told = "";
    const store = await openStore(data);
    try {
      await makeCopy(store, data, "0", new Date());
    } catch (error) {
      told = error instanceof Error ? error.message : String(error);
    } finally {
      await store.close();
    }
    const left = readdirSync(data, { recursive: true }).filter((name) => /half$|copies\/uprise/.test(String(name)));
    if (refused !== 507 || halves.length > 0 || left.length > 0 || !/room/.test(told)) throw new Error(`${refused}, ${halves.join()}, ${left.join()}, ${told}`); // prettier-ignore
    return `a photograph is refused with 507 and leaves nothing behind; no copy is begun: “${told}”`;
  } finally {
    execFileSync("umount", ["-l", data], { stdio: "ignore" });
    rmSync(data, { recursive: true, force: true });
  }
}

/** Many trials and photographs, put in by the store. */
async function fillLarge(folder: string): Promise<void> {
  const store = await openStore(folder);
  const trials = demoTrials(new Date("2026-11-01T00:00:00Z"));
  const hashes: string[] = [];
  for (let n = 0; n < 2000; n++) {
    const picture = await sharp({ create: { width: 320, height: 240, channels: 3, background: { r: n % 256, g: (n >> 3) % 256, b: 90 } } }).jpeg().toBuffer(); // prettier-ignore
    hashes.push((await store.files.put(Buffer.concat([picture, Buffer.from([n & 255, n >> 8])]), "image/jpeg")).hash);
  }
  for (let k = 0; k < 10_000; k += 500)
    await store.whole.inOne(async (hand) => {
      for (let n = k; n < k + 500; n++) {
        const at = new Date(Date.UTC(2016, 0, 1) + n * 8 * 3_600_000).toISOString();
        const trial = trials[n % trials.length]?.trial;
        await hand.put({ table: "trials", id: `trial-${n}`, version: 1, shape: 1, createdAt: at, updatedAt: at, body: { ...trial, at, photos: n % 5 === 0 ? [hashes[n / 5]] : [] } }); // prettier-ignore
      }
    });
  await store.close();
}

async function main(): Promise<void> {
  const only = process.argv[4];
  const faults: [name: string, work: () => Promise<string>][] = [
    ["kill −9 while four writers write", killed],
    ["half-sent requests", halfSent],
    ["full disk", fullDisk],
    ["starts that cannot be", refusedStarts],
    ["a full disk, photographs and copies", fullDiskCopies],
    ["a large kitchen as an archive", largeArchive],
    ["hostile bodies", hostileBodies],
  ];
  let failed = 0;
  for (const [name, work] of faults) {
    if (only !== undefined && !name.includes(only)) continue;
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
