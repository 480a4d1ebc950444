import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { Agent, request } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Access, openAccess } from "./access/access";
import { buildApp } from "./app";
import type { App } from "./wire";

/** Every route of the server, in every method, written in every way that an address can be, as nobody, as a helper and as a baker. */
const METHODS = ["GET", "HEAD", "POST", "PUT", "DELETE", "PATCH", "OPTIONS", "TRACE"] as const;
const folders: string[] = [];
const newFolder = (): string => {
  const folder = mkdtempSync(join(tmpdir(), "uprise-matrix-"));
  folders.push(folder);
  return folder;
};
afterAll(() => folders.forEach((folder) => rmSync(folder, { recursive: true, force: true })));

const BAKER = "boats land at eight";
const HELPER = "saturday helps out";
let app: App;
let access: Access;
let port: number;
const agent = new Agent({ keepAlive: true, maxSockets: 8 });
beforeAll(async () => {
  const folder = newFolder();
  access = openAccess(folder);
  await access.set(BAKER);
  await access.setHelper(HELPER);
  app = await buildApp({ port: 0, host: "0.0.0.0", dataFolder: folder, demo: true, webFolder: null, copies: false });
  await app.listen({ port: 0, host: "127.0.0.1" });
  const address = app.server.address();
  port = typeof address === "object" && address ? address.port : 0;
});
afterAll(async () => {
  agent.destroy();
  await app.close();
});

interface Asked {
  method: string;
  path: string;
  cookie?: string | undefined;
  headers?: Record<string, string>;
  body?: unknown;
}

/** The status of a call with its path as it is written here; an answer that does not end is let go. */
const status = ({ method, path, cookie, headers = {}, body }: Asked): Promise<{ status: number; cookie: string | undefined }> =>
  new Promise((done, fail) => {
    const text = body === undefined ? undefined : JSON.stringify(body);
    const sent = request({ agent, host: "127.0.0.1", port, method, path, headers: { ...(cookie ? { cookie } : {}), ...(text ? { "content-type": "application/json", "content-length": String(Buffer.byteLength(text)) } : {}), ...headers } }, (answer) => {
      const told = { status: answer.statusCode ?? 0, cookie: answer.headers["set-cookie"]?.[0]?.split(";")[0] };
      if (String(answer.headers["content-type"]).startsWith("text/event-stream")) answer.destroy();
      else answer.resume();
      answer.on("close", () => done(told));
    });
    sent.on("upgrade", (_, socket) => {
      socket.destroy();
      done({ status: 101, cookie: undefined });
    });
    // A line that is cut without a word is a refusal too.
    sent.on("error", (error) => (headers["upgrade"] === undefined ? fail(error) : done({ status: 0, cookie: undefined })));
    sent.end(text);
  }); // prettier-ignore

const enter = async (passcode: string): Promise<string> =>
  (await status({ method: "POST", path: "/api/session", body: { passcode, device: "Matrix" } })).cookie ?? "";

const percent = (text: string): string => [...text].map((sign) => (/[a-z]/.test(sign) ? `%${sign.charCodeAt(0).toString(16)}` : sign)).join(""); // prettier-ignore
/** Ways to write one address. */
const ways: [name: string, write: (path: string) => string][] = [
  ["one letter encoded", (path) => path.replace("a", "%61")],
  ["all letters encoded", percent],
  ["encoded twice", (path) => path.replace("a", "%2561")],
  ["upper case", (path) => path.toUpperCase()],
  ["doubled slashes", (path) => path.replaceAll("/", "//")],
  ["dots", (path) => path.replace("/api/", "/./api/x/../")],
  ["encoded dots", (path) => path.replace("/api/", "/x/%2e%2e/api/")],
  ["a semicolon", (path) => path.replace("/api", "/api;x=1")],
  ["a slash behind", (path) => `${path}/`],
  ["a query", (path) => `${path}?x=/api/session`],
  ["absolute", (path) => `http://127.0.0.1:${port}${path}`],
  ["absolute and encoded", (path) => `http://127.0.0.1${path.replace("a", "%61")}`],
  ["a backslash", (path) => path.replace("/api/", "/api\\")],
];

const concrete = (url: string): string => url.replace(/:[a-z]+/gi, "x").replace("*", "x");

test("every route says who may call it, and every operation of the OpenAPI is one of them", async () => {
  expect(app.declaredRoutes().filter(({ role }) => role === null)).toEqual([]);
  await app.ready();
  const { paths = {} } = app.swagger() as { paths?: Record<string, object> };
  const told = Object.entries(paths).flatMap(([path, operations]) => Object.keys(operations).map((method) => `${method.toUpperCase()} ${path.replace(/\{(\w+)\}/g, ":$1")}`)); // prettier-ignore
  const declared = new Set(app.declaredRoutes().map(({ method, url }) => `${method} ${url}`));
  expect(told.length).toBeGreaterThan(80);
  expect(told.filter((one) => !declared.has(one))).toEqual([]);
  // What anybody may: the way in, and whether it is up.
  expect([...new Set(app.declaredRoutes().filter(({ role }) => role === "anybody").map(({ url }) => url))].sort()).toEqual(["/api/health", "/api/recover", "/api/session"]); // prettier-ignore
});

test("nobody and helpers get no further by writing an address otherwise", async () => {
  const helper = await enter(HELPER);
  const routes = new Map<string, Map<string, string>>();
  for (const { method, url, role } of app.declaredRoutes()) routes.set(url, (routes.get(url) ?? new Map()).set(method, role ?? ""));
  const wrong: string[] = [];
  let calls = 0;
  const look = async (name: string, asked: Asked, mayBe: (status: number) => boolean): Promise<void> => {
    calls++;
    const told = (await status(asked)).status;
    if (!mayBe(told)) wrong.push(`${name}: ${asked.method} ${asked.path} → ${told}`);
  };
  const refused = (told: number): boolean => told >= 400 && told < 500;
  for (const [url, roles] of routes) {
    const path = concrete(url);
    for (const method of METHODS) {
      const role = roles.get(method);
      if (role === "anybody") continue;
      await look("nobody, plain", { method, path }, role === undefined ? refused : (told) => told === 401);
      if (role === "baker") await look("helper, plain", { method, path, cookie: helper }, (told) => told === 403);
      if (role === "helper") await look("helper, plain", { method, path, cookie: helper }, (told) => told !== 401 && told !== 403);
      // The methods that are there, and one that is not, in every way of writing.
      if (role === undefined && method !== "PATCH") continue;
      for (const [way, write] of ways) {
        await look(`nobody, ${way}`, { method, path: write(path) }, refused);
        if (role !== "helper") await look(`helper, ${way}`, { method, path: write(path), cookie: helper }, refused);
      }
    }
  }
  expect(wrong).toEqual([]);
  expect(calls).toBeGreaterThan(4000);
}, 240_000);

test("lines that stay open are no way round either", async () => {
  const upgrade = { connection: "Upgrade", upgrade: "websocket", "sec-websocket-version": "13", "sec-websocket-key": "dGhlIHNhbXBsZSBub25jZQ==" }; // prettier-ignore
  for (const path of ["/api/devices/scale/stream", "/%61pi/devices/scale/stream", `http://127.0.0.1:${port}/api/devices/scale/stream`, "//api//devices/scale/stream"]) {
    const told = (await status({ method: "GET", path, headers: upgrade })).status;
    expect([path, [0, 401, 404].includes(told)]).toEqual([path, true]);
  }
  for (const accept of ["text/event-stream", "*/*", "text/event-stream; q=0.9"])
    for (const path of ["/api/changes", "/%61pi/changes", "/api/bakes/x/stream"]) expect((await status({ method: "GET", path, headers: { accept } })).status).toBe(401);
}); // prettier-ignore

test("what a baker may, a baker does, however it is written", async () => {
  const cookie = await enter(BAKER);
  for (const path of ["/api/formulas", "/%61pi/formulas", "/api/access", `http://127.0.0.1:${port}/api/formulas`])
    expect([path, (await status({ method: "GET", path, cookie })).status]).toEqual([path, 200]);
});

test("two names in one call, and a page that came by HTTPS where no proxy is, are not heard", async () => {
  const cookie = await enter(BAKER);
  const named = ["Host", `127.0.0.1:${port}`, "Host", "evil.example"];
  const two = await new Promise<number>((done, fail) => {
    const sent = request({ host: "127.0.0.1", port, path: "/api/health", headers: named as never }, (answer) => {
      answer.resume();
      done(answer.statusCode ?? 0);
    });
    sent.on("error", fail);
    sent.end();
  });
  expect([400, 421]).toContain(two);
  const write = { method: "POST", path: "/api/read", cookie, body: { text: "100 g rice flour" } };
  expect((await status({ ...write, headers: { origin: `https://127.0.0.1:${port}` } })).status).toBe(403);
  expect((await status({ ...write, headers: { origin: `http://127.0.0.1:${port}` } })).status).toBe(200);
});

test("health tells nobody more than that it is up; what is computed and stored is kept by nobody on the way", async () => {
  const cookie = await enter(BAKER);
  const health = async (headers: Record<string, string>): Promise<object> => (await (await fetch(`http://127.0.0.1:${port}/api/health`, { headers })).json()) as object; // prettier-ignore
  expect(Object.keys(await health({}))).toEqual(["status", "version"]);
  expect(Object.keys(await health({ cookie }))).toContain("freeBytes");
  expect((await fetch(`http://127.0.0.1:${port}/api/formulas`, { headers: { cookie } })).headers.get("cache-control")).toBe(
    "no-store",
  );
});

describe("devices", () => {
  /** The status of a stream, and a promise that is done when it ends. */
  const open = async (path: string, cookie: string, accept: string): Promise<{ status: number; ended: Promise<void> }> => {
    const response = await fetch(`http://127.0.0.1:${port}${path}`, { headers: { cookie, accept } });
    const reader = response.body?.getReader();
    const ended = (async () => {
      try {
        while (!(await reader?.read())?.done);
      } catch {
        // Cut.
      }
    })();
    return { status: response.status, ended };
  };
  test.each(["text/event-stream", "*/*", "application/json, */*"])("what a device has open with Accept: %s ends when it is let go", async (accept) => {
    const cookie = await enter(BAKER);
    const here = access.devices().at(-1)?.id ?? "";
    const lines = await Promise.all([open("/api/changes", cookie, accept), open("/api/devices/scale/stream", cookie, accept)]);
    expect(lines.map((line) => line.status)).toEqual([200, 200]);
    const other = await enter(BAKER);
    expect((await status({ method: "DELETE", path: `/api/access/devices/${here}`, cookie: other })).status).toBe(204);
    await Promise.all(lines.map(({ ended }) => ended));
    const after = await fetch(`http://127.0.0.1:${port}/api/formulas`, { headers: { cookie } });
    expect([after.status, ((await after.json()) as { type: string }).type]).toEqual([401, "urn:uprise:problem:let-go"]);
    expect(await (await fetch(`http://127.0.0.1:${port}/api/session`, { headers: { cookie } })).json()).toMatchObject({ here: null, letGo: true });
  }); // prettier-ignore

  test("another passcode lets its own device go too, and the recovery code is answered all the same", async () => {
    const cookie = await enter(BAKER);
    const changed = await fetch(`http://127.0.0.1:${port}/api/access/passcode`, { method: "PUT", headers: { cookie, "content-type": "application/json" }, body: JSON.stringify({ old: BAKER, passcode: "the tide is out by noon" }) }); // prettier-ignore
    expect(changed.status).toBe(200);
    expect(((await changed.json()) as { recovery: string }).recovery).toMatch(/^[A-Z2-9]{5}(-[A-Z2-9]{5}){4}$/);
    expect((await status({ method: "GET", path: "/api/formulas", cookie })).status).toBe(401);
    await access.set(BAKER);
    await access.setHelper(HELPER);
  });

  test("sixty helpers who come and go take no baker's place, and bakers come in all the same", async () => {
    const folder = newFolder();
    const own = openAccess(folder);
    await own.set(BAKER);
    await own.setHelper(HELPER);
    const baker = await own.enter(BAKER, "Bench");
    const file = JSON.parse(readFileSync(join(folder, "access.json"), "utf8")) as { devices: object[] };
    const now = new Date().toISOString();
    for (let n = 0; n < 60; n++)
      file.devices.push({ id: `h${n}`, device: "Visitor", role: "helper", token: `t${n}`, since: now, seen: now });
    writeFileSync(join(folder, "access.json"), JSON.stringify(file));
    const visitor = await own.enter(HELPER, "One more");
    expect(own.devices().filter(({ role }) => role === "helper")).toHaveLength(60);
    expect(own.known(visitor?.token ?? "")).toMatchObject({ device: "One more" });
    expect(own.known(baker?.token ?? "")).toMatchObject({ device: "Bench" });
  });

  test("a passcode that is set beside a running server counts at once, and devices of before are out", async () => {
    const folder = newFolder();
    const running = openAccess(folder);
    expect(running.isSet()).toBe(false);
    await openAccess(folder).set(BAKER);
    expect(running.isSet()).toBe(true);
    const phone = await running.enter(BAKER, "Phone");
    expect(phone).not.toBeNull();
    const gone: string[] = [];
    running.whenLetGo((id) => gone.push(id));
    await openAccess(folder).set("tide is out at noon");
    expect(running.known(phone?.token ?? "")).toBe("let-go");
    expect(gone).toEqual([phone?.device.id]);
    expect(await running.enter(BAKER, "Phone")).toBeNull();
    expect(await running.enter("tide is out at noon", "Phone")).not.toBeNull();
    // Nothing of the old one is written over it by the server.
    expect(openAccess(folder).devices()).toHaveLength(1);
  });

  test("a device that is let go on a disk that takes nothing is still in, and is told so", async () => {
    const folder = newFolder();
    const own = openAccess(folder);
    await own.set(BAKER);
    const phone = await own.enter(BAKER, "Lost phone");
    const id = phone?.device.id ?? "";
    // A folder in the place of the file that is written first: no write can succeed.
    const { mkdirSync } = await import("node:fs");
    mkdirSync(join(folder, "access.json.half"));
    await expect(own.letGo(id)).rejects.toThrow();
    expect(own.known(phone?.token ?? "")).toMatchObject({ id });
    rmSync(join(folder, "access.json.half"), { recursive: true });
    expect(await own.letGo(id)).toBe(true);
    expect(openAccess(folder).devices()).toEqual([]);
  });

  test("guessing holds up nobody: twelve wrong tries at once are few that are evaluated, and a list answers meanwhile", async () => {
    const cookie = await enter(BAKER);
    const from = app.server.address();
    expect(from).not.toBeNull();
    const tries = Array.from({ length: 12 }, () =>
      status({ method: "POST", path: "/api/session", body: { passcode: "not the right one", device: "X" } }),
    );
    const listed = await status({ method: "GET", path: "/api/formulas", cookie });
    expect(listed.status).toBe(200);
    const told = (await Promise.all(tries)).map((one) => one.status);
    expect(told.filter((one) => one === 401).length).toBeLessThanOrEqual(6);
    expect(told.filter((one) => one === 429).length).toBeGreaterThanOrEqual(6);
  });
});
