import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { request } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { AccessList, Change, Session } from "@uprise/contract";
import WebSocket from "ws";
import { openAccess } from "./access/access";
import { may } from "./access/roles";
import { nameIn, placesOf } from "./access/places";
import { countTries } from "./access/tries";
import { buildApp } from "./app";
import type { Settings } from "./settings";
import type { App } from "./wire";

const folders: string[] = [];
const newFolder = (): string => {
  const folder = mkdtempSync(join(tmpdir(), "uprise-access-"));
  folders.push(folder);
  return folder;
};
afterAll(() => folders.forEach((folder) => rmSync(folder, { recursive: true, force: true })));

const settings = (dataFolder: string, more: Partial<Settings> = {}): Settings => ({ port: 0, host: "127.0.0.1", dataFolder, demo: true, webFolder: null, copies: false, ...more }); // prettier-ignore
const PASSCODE = "boats land at eight";

interface Answer<T> {
  status: number;
  body: T;
  cookie: string | undefined;
  setCookie: string;
  retry: string | undefined;
}

/** A call over a real line, with any headers, the Host too. */
function call<T>(base: string, method: string, path: string, { body, headers = {} }: { body?: unknown; headers?: Record<string, string> } = {}): Promise<Answer<T>> {
  return new Promise((done, fail) => {
    const asked = request(`${base}${path}`, { method, headers: { ...(body === undefined ? {} : { "content-type": "application/json" }), ...headers } }, (answer) => {
      let text = "";
      answer.on("data", (part: Buffer) => (text += part.toString()));
      answer.on("end", () => {
        const setCookie = String(answer.headers["set-cookie"]?.[0] ?? "");
        done({ status: answer.statusCode ?? 0, body: (text === "" ? null : JSON.parse(text)) as T, cookie: setCookie.split(";")[0] || undefined, setCookie, retry: answer.headers["retry-after"] });
      });
    });
    asked.on("error", fail);
    asked.end(body === undefined ? undefined : JSON.stringify(body));
  });
} // prettier-ignore

describe("a kitchen that others can reach", () => {
  let app: App;
  let base: string;
  let folder: string;
  let recovery: string;
  beforeAll(async () => {
    folder = newFolder();
    recovery = await openAccess(folder).set(PASSCODE);
    app = await buildApp(settings(folder, { host: "0.0.0.0" }));
    await app.listen({ port: 0, host: "127.0.0.1" });
    const address = app.server.address();
    base = `http://127.0.0.1:${typeof address === "object" && address ? address.port : 0}`;
  });
  afterAll(() => app.close());
  const enter = (passcode: string, device = "Phone", headers: Record<string, string> = {}): Promise<Answer<Session>> =>
    call<Session>(base, "POST", "/api/session", { body: { passcode, device }, headers });
  const as = (cookie: string | undefined): { headers: Record<string, string> } => ({ headers: { cookie: cookie ?? "" } });

  test("does not start without a passcode, and says how to set one", async () => {
    await expect(buildApp(settings(newFolder(), { host: "0.0.0.0" }))).rejects.toThrow(/npm run passcode/);
    await expect(buildApp(settings(newFolder(), { origin: "https://kitchen.example" }))).rejects.toThrow(/UPRISE_ORIGIN/);
  });

  test("gives nothing away before the passcode, all of it after; the cookie is for this server alone and not for scripts", async () => {
    for (const path of ["/api/formulas", "/api/changes", "/api/openapi.json", "/api/access", "/api/photos/x", "/api/docs/json"]) expect([path, (await call(base, "GET", path)).status]).toEqual([path, 401]);
    expect((await call<Session>(base, "GET", "/api/session")).body).toEqual({ needed: true, here: null });
    expect((await enter("boats land at nine")).status).toBe(401);
    const { status, cookie, setCookie, body } = await enter(PASSCODE, "Bench phone");
    expect(status).toBe(200);
    expect(body.here).toMatchObject({ device: "Bench phone", role: "baker" });
    expect(setCookie).toMatch(/HttpOnly/);
    expect(setCookie).toMatch(/SameSite=Strict/);
    expect((await call(base, "GET", "/api/formulas", as(cookie))).status).toBe(200);
    // A cookie that somebody wrote by hand, or signed otherwise, is none.
    expect((await call(base, "GET", "/api/formulas", as(`${cookie}x`))).status).toBe(401);
    expect((await call(base, "GET", "/api/formulas", as("uprise=forged.signature"))).status).toBe(401);
  }); // prettier-ignore

  test("a device that is let go is out at once, by another one or by itself", async () => {
    const one = (await enter(PASSCODE, "Lost phone")).cookie;
    const two = (await enter(PASSCODE, "Desktop")).cookie;
    const list = (await call<AccessList>(base, "GET", "/api/access", as(two))).body.devices;
    expect(list.filter(({ here }) => here).map(({ device }) => device)).toEqual(["Desktop"]);
    const lost = list.find(({ device }) => device === "Lost phone");
    expect((await call(base, "DELETE", `/api/access/devices/${lost?.id}`, as(two))).status).toBe(204);
    expect((await call(base, "GET", "/api/formulas", as(one))).status).toBe(401);
    await call(base, "DELETE", "/api/session", as(two));
    expect((await call(base, "GET", "/api/formulas", as(two))).status).toBe(401);
  });

  test("a helper looks, weighs and judges, and changes no formula, no shelf, no access", async () => {
    const baker = (await enter(PASSCODE)).cookie;
    expect((await call(base, "PUT", "/api/access/helper", { body: { passcode: "short" }, ...as(baker) })).status).toBe(400);
    expect((await call(base, "PUT", "/api/access/helper", { body: { passcode: PASSCODE }, ...as(baker) })).status).toBe(422);
    expect((await call(base, "PUT", "/api/access/helper", { body: { passcode: "saturday helps out" }, ...as(baker) })).status).toBe(
      204,
    );
    const { cookie, body } = await enter("saturday helps out", "Counter");
    expect(body.here?.role).toBe("helper");
    const does = async (method: string, path: string, sent?: unknown): Promise<number> => (await call(base, method, path, { ...(sent === undefined ? {} : { body: sent }), ...as(cookie) })).status; // prettier-ignore
    expect(await does("GET", "/api/formulas/pear-loaf")).toBe(200);
    expect(await does("POST", "/api/bakes", { id: "helped", formulaId: "pear-loaf" })).toBe(201);
    expect(await does("POST", "/api/bakes/helped/events", { events: [{ id: "a", at: new Date().toISOString(), kind: "started" }] })).toBe(200); // prettier-ignore
    for (const [method, path] of [["PUT", "/api/formulas/pear-loaf"], ["POST", "/api/formulas"], ["DELETE", "/api/packets/soda"], ["GET", "/api/access"], ["PUT", "/api/access/helper"], ["POST", "/api/export"], ["POST", "/api/restore"], ["POST", "/api/learnt"]] as const) expect([path, await does(method, path, method === "GET" || method === "DELETE" ? undefined : {})]).toEqual([path, 403]); // prettier-ignore
    await call(base, "PUT", "/api/access/helper", { body: { passcode: null }, ...as(baker) });
    expect(await does("GET", "/api/formulas/pear-loaf")).toBe(401);
  });

  test("called by another name it answers nobody; a page of another origin writes nothing", async () => {
    const { cookie } = await enter(PASSCODE);
    const port = new URL(base).port;
    expect((await call(base, "GET", "/api/session", { headers: { host: `evil.example:${port}` } })).status).toBe(421);
    expect((await call(base, "GET", "/", { headers: { host: "evil.example" } })).status).toBe(421);
    const write = async (headers: Record<string, string>): Promise<number> => (await call(base, "POST", "/api/read", { body: { text: "100 g rice flour" }, headers: { cookie: cookie ?? "", ...headers } })).status;
    expect(await write({})).toBe(200);
    expect(await write({ origin: base })).toBe(200);
    expect(await write({ origin: "https://evil.example" })).toBe(403);
    expect(await write({ origin: "null" })).toBe(403);
    expect(await write({ "sec-fetch-site": "cross-site" })).toBe(403);
    // A form of another page can send text, and text is not listened to.
    expect((await call(base, "POST", "/api/read", { headers: { cookie: cookie ?? "", "content-type": "text/plain" } })).status).toBeGreaterThanOrEqual(400);
  }); // prettier-ignore

  test("a line of a device opens for who is let in and from its own page, and is cut when that device is let go", async () => {
    const { cookie, body } = await enter(PASSCODE, "Scale watcher");
    const line = (headers: Record<string, string>): Promise<string | WebSocket> =>
      new Promise((done) => {
        const socket = new WebSocket(`${base.replace("http", "ws")}/api/devices/scale/stream`, { headers });
        socket.on("open", () => done(socket));
        socket.on("unexpected-response", (_, answer) => {
          done(String(answer.statusCode));
          answer.destroy();
        });
        socket.on("error", () => done("cut"));
      });
    expect(await line({})).toBe("401");
    expect(await line({ cookie: cookie ?? "", origin: "https://evil.example" })).toBe("403");
    const open = await line({ cookie: cookie ?? "", origin: base });
    if (typeof open === "string") throw new Error(`refused with ${open}`);
    const ended = new Promise<void>((done) => open.on("close", () => done()));
    const other = (await enter(PASSCODE)).cookie;
    await call(base, "DELETE", `/api/access/devices/${body.here?.id}`, as(other));
    await ended;
  });

  test("wrong tries wait longer and longer, even with the right one, and too many in a minute are sent away", async () => {
    const alone = newFolder();
    await openAccess(alone).set(PASSCODE);
    const other = await buildApp(settings(alone, { host: "0.0.0.0" }));
    await other.listen({ port: 0, host: "127.0.0.1" });
    const address = other.server.address();
    const there = `http://127.0.0.1:${typeof address === "object" && address ? address.port : 0}`;
    const tryIt = (passcode: string): Promise<Answer<{ detail: string }>> => call(there, "POST", "/api/session", { body: { passcode, device: "X" } });
    for (let k = 0; k < 4; k++) expect((await tryIt("not this one")).status).toBe(401);
    // On a slow machine a try may take longer than the first wait; the next one is twice as long.
    let told = await tryIt("not this one");
    for (let k = 0; k < 6 && !(told.status === 429 && Number(told.retry) >= 2); k++) told = await tryIt("not this one");
    expect(told.status).toBe(429);
    const locked = await tryIt(PASSCODE);
    expect(locked.status).toBe(429);
    expect(Number(locked.retry)).toBeGreaterThan(0);
    let last = 0;
    for (let k = 0; k < 14; k++) last = (await tryIt(PASSCODE)).status;
    expect(last).toBe(429);
    await other.close();
  }); // prettier-ignore

  test("the recovery code sets a new passcode once; every device is let go; secrets are nowhere in the clear", async () => {
    const { cookie } = await enter(PASSCODE);
    const next = "tide is out at noon";
    expect(
      (await call(base, "POST", "/api/recover", { body: { code: "AAAAA-AAAAA-AAAAA-AAAAA-AAAAA", passcode: next } })).status,
    ).toBe(401);
    const told = await call<{ recovery: string }>(base, "POST", "/api/recover", { body: { code: recovery.toLowerCase().replaceAll("-", " "), passcode: next } }); // prettier-ignore
    expect(told.status).toBe(200);
    expect(told.body.recovery).not.toBe(recovery);
    expect((await call(base, "GET", "/api/formulas", as(cookie))).status).toBe(401);
    const file = readFileSync(join(folder, "access.json"), "utf8");
    for (const secret of [PASSCODE, next, recovery, told.body.recovery]) expect(file).not.toContain(secret);
    expect((await call(base, "POST", "/api/recover", { body: { code: recovery, passcode: next } })).status).toBe(401);
  });
});

describe("on this machine alone", () => {
  test("no passcode is asked, other names and origins are still refused, and who listens is told what is written within the second", async () => {
    const app = await buildApp(settings(newFolder()));
    const base = await app.listen({ port: 0, host: "127.0.0.1" });
    expect((await call<Session>(base, "GET", "/api/session")).body).toEqual({ needed: false, here: null });
    expect((await call(base, "GET", "/api/formulas", { headers: { host: "evil.example" } })).status).toBe(421);
    expect(
      (await call(base, "POST", "/api/read", { body: { text: "x" }, headers: { origin: "https://evil.example" } })).status,
    ).toBe(403);
    const stop = new AbortController();
    const stream = await fetch(`${base}/api/changes`, { signal: stop.signal });
    const reader = stream.body?.pipeThrough(new TextDecoderStream() as never).getReader() as ReadableStreamDefaultReader<string>;
    const heard: Change[] = [];
    const listening = (async () => {
      let text = "";
      while (heard.length < 2) {
        const { value, done } = await reader.read();
        if (done) return;
        text += value;
        const parts = text.split("\n\n");
        text = parts.pop() ?? "";
        for (const part of parts) {
          const data = /^data: (.*)$/m.exec(part)?.[1];
          if (data) heard.push(JSON.parse(data) as Change);
        }
      }
    })();
    const stored = await call<{ formula: object; version: number }>(base, "GET", "/api/formulas/pear-loaf");
    const { formula, version } = stored.body;
    const put = (v: number): Promise<Answer<unknown>> => call(base, "PUT", "/api/formulas/pear-loaf", { body: formula, headers: { "if-match": `"${v}"`, "x-uprise-tab": "tab-a" } }); // prettier-ignore
    expect((await put(version)).status).toBe(200);
    // What is refused is no change.
    expect((await put(version)).status).toBe(412);
    await call(base, "DELETE", "/api/formulas/lentil-skillet", { headers: { "if-match": '"1"' } });
    await listening;
    expect(heard).toEqual([
      { what: "formulas", id: "pear-loaf", version: version + 1, by: "tab-a" },
      { what: "formulas", id: "lentil-skillet", version: null, by: null },
    ]);
    stop.abort();
    await app.close();
  });

  test("health says version, shape, free space and the age of the last copy", async () => {
    const app = await buildApp(settings(newFolder(), { demo: false }));
    const base = await app.listen({ port: 0, host: "127.0.0.1" });
    const { body } = await call<Record<string, unknown>>(base, "GET", "/api/health");
    expect(body).toMatchObject({ status: "ok", version: expect.any(String) as string, shape: expect.stringMatching(/^\d{3}-/) as string, lastCopyHours: null }); // prettier-ignore
    expect(body["freeBytes"]).toBeGreaterThan(1e6);
    await app.close();
  });
});

describe("rules", () => {
  test("names in a Host header, and which are ours", () => {
    expect([nameIn("Kitchen.local:4173"), nameIn("[::1]:80"), nameIn("a b"), nameIn(undefined), nameIn("evil.example/@127.0.0.1")]).toEqual(["kitchen.local", "[::1]", null, null, null]); // prettier-ignore
    const here = placesOf("127.0.0.1", "https://kitchen.example");
    expect(["localhost", "127.0.0.1", "kitchen.example", "evil.example"].map(here)).toEqual([true, true, true, false]);
    expect(placesOf("0.0.0.0", null)("0.0.0.0")).toBe(false);
  });
  test("waiting doubles after the third wrong try, up to a quarter of an hour, and ends with a right one", () => {
    const tries = countTries();
    const waits = Array.from({ length: 16 }, () => {
      tries.book("a", 0);
      return tries.waits("a", 0);
    });
    expect(waits.slice(0, 7)).toEqual([0, 0, 0, 2, 4, 8, 16]);
    expect(waits.at(-1)).toBe(900);
    expect(tries.waits("b", 0)).toBe(0);
    tries.right("a");
    expect(tries.waits("a", 0)).toBe(0);
  });
  test("many addresses try no faster than one; who was right once does not wait for them", () => {
    const tries = countTries();
    tries.book("baker", 0);
    tries.right("baker");
    for (let n = 0; n < 20; n++) tries.book(`stranger ${n}`, 0);
    expect(tries.waits("somebody new", 0)).toBe(0);
    for (let n = 20; n < 40; n++) tries.book(`stranger ${n}`, 0);
    expect(tries.waits("somebody new", 0)).toBe(60);
    expect(tries.waits("baker", 0)).toBe(0);
    expect(tries.waits("somebody new", 60_000)).toBe(0);
  });
  test("one try at a time, and few wait for their turn", async () => {
    const tries = countTries();
    let together = 0;
    let most = 0;
    const turns = Array.from({ length: 30 }, () =>
      tries.inTurn(async () => {
        most = Math.max(most, ++together);
        await new Promise((done) => setTimeout(done, 1));
        together--;
      }),
    );
    await Promise.all(turns);
    expect(most).toBe(1);
    expect(turns.filter((turn) => turn !== null)).toHaveLength(8);
  });
  test("what declares nothing is the baker's", () => {
    expect([may("nobody", "anybody"), may("nobody", "helper"), may("helper", "helper"), may("helper", "baker"), may("baker", "baker")]).toEqual([true, false, true, false, true]); // prettier-ignore
  });
});
