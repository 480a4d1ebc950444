import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { brotliCompressSync, brotliDecompressSync } from "node:zlib";
import { buildApp } from "./app";
import type { App } from "./wire";

const script = "export const pier = 'a script that is long enough to be worth pressing';\n".repeat(40);
let folder: string;
let app: App;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "uprise-web-"));
  const web = join(folder, "web");
  mkdirSync(join(web, "_expo/static/js/web"), { recursive: true });
  writeFileSync(join(web, "index.html"), "<!doctype html><title>Uprise</title>");
  writeFileSync(join(web, "kitchen-worker.js"), script);
  mkdirSync(join(web, "page-reading/0a1b2c3d4e5f/letters"), { recursive: true });
  writeFileSync(join(web, "page-reading/0a1b2c3d4e5f/letters/worker.min.js"), script);
  writeFileSync(join(web, "_expo/static/js/web/entry-0a1b.js"), script);
  writeFileSync(join(web, "_expo/static/js/web/entry-0a1b.js.br"), brotliCompressSync(script));
  app = await buildApp({ port: 0, host: "127.0.0.1", dataFolder: join(folder, "data"), demo: false, webFolder: web });
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

test("hashed files are kept for a year and come pressed to those who take it", async () => {
  const plain = await app.inject({ url: "/_expo/static/js/web/entry-0a1b.js" });
  expect([plain.statusCode, plain.headers["cache-control"], plain.body]).toEqual([
    200,
    "public, max-age=31536000, immutable",
    script,
  ]);
  const pressed = await app.inject({ url: "/_expo/static/js/web/entry-0a1b.js", headers: { "accept-encoding": "br, gzip" } });
  expect(pressed.headers["content-encoding"]).toBe("br");
  expect(brotliDecompressSync(pressed.rawPayload).toString()).toBe(script);
});

test("pages and the worker, whose names stay, are asked for each time", async () => {
  for (const url of ["/", "/kitchen-worker.js"]) {
    const answer = await app.inject({ url });
    expect([url, answer.statusCode, answer.headers["cache-control"]]).toEqual([url, 200, "no-cache"]);
  }
});

test("a deep link brings the one page; a missing file and a missing call do not", async () => {
  const deep = await app.inject({ url: "/bench/pear-loaf" });
  expect([deep.statusCode, deep.headers["cache-control"]]).toEqual([200, "no-cache"]);
  expect(deep.body).toContain("<title>Uprise</title>");
  const gone = await app.inject({ url: "/_expo/static/js/web/entry-old.js" });
  expect([gone.statusCode, gone.headers["content-type"]]).toEqual([404, "application/problem+json; charset=utf-8"]);
  const call = await app.inject({ url: "/api/nothing-here" });
  expect([call.statusCode, (JSON.parse(call.body) as { status: number }).status]).toEqual([404, 404]);
});

test("a path that climbs out of the folder gets nothing from outside", async () => {
  writeFileSync(join(folder, "beside.json"), '{ "secret": "of the kitchen" }');
  writeFileSync(join(folder, "web", "inside.json"), '{ "open": true }');
  // The file can be reached by its path from the root of the site, if a path may climb; one inside it can be reached at all.
  expect((await app.inject({ url: "/inside.json" })).body).toContain("open");
  const climbs = [
    "/../beside.json",
    "/..%2fbeside.json",
    "/%2e%2e/beside.json",
    "/%2e%2e%2fbeside.json",
    "/..%5cbeside.json",
    "/_expo/..%2f..%2fbeside.json",
    "/_expo/../../beside.json",
    "//beside.json",
    "/..%252fbeside.json",
    "/..%00/beside.json",
  ];
  for (const url of climbs) {
    const answer = await app.inject({ url });
    expect([url, answer.body.includes("secret"), answer.statusCode >= 400]).toEqual([url, false, true]);
  }
});

test("every answer carries a strict content policy", async () => {
  const policy = String((await app.inject({ url: "/" })).headers["content-security-policy"]);
  expect(policy).toMatch(/default-src 'none'/);
  expect(policy).toMatch(/script-src 'self'(?![^;]*unsafe)/);
  expect(policy).toMatch(/worker-src 'self'(?![^;]*unsafe)/);
  expect(policy).toMatch(/frame-ancestors 'none'/);
});

test("compiled code may run in the workers that read pages, by their own files' policy, and nowhere else", async () => {
  const { headers, statusCode } = await app.inject({ url: "/page-reading/0a1b2c3d4e5f/letters/worker.min.js" });
  const policy = String(headers["content-security-policy"]);
  expect([statusCode, headers["cache-control"]]).toEqual([200, "public, max-age=31536000, immutable"]);
  expect(policy).toMatch(/default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'; worker-src 'self'$/);
  for (const url of ["/", "/page", "/kitchen-worker.js", "/api/health", "/page-reading/none"])
    expect(String((await app.inject({ url })).headers["content-security-policy"])).not.toContain("unsafe-eval");
});
