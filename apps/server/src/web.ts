import { existsSync } from "node:fs";
import { join } from "node:path";
import fastifyStatic from "@fastify/static";
import { forAnybody } from "./access/roles";
import { nothingAt } from "./problems";
import type { App } from "./wire";

const YEAR = "public, max-age=31536000, immutable";

/** The reader of letters is compiled code: its workers, and no page, may run it. A worker goes by the policy of its own file. */
const READING_POLICY = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'; worker-src 'self'";

/** Whether an address that nothing answers at was meant for the wire, however it is written: such a call is told so, and gets no page. */
export function isOfTheWire(url: string): boolean {
  let path = url.replace(/^[a-z]+:\/\/[^/]*/i, "").split(/[?#]/)[0] ?? "";
  for (let before = ""; before !== path;) {
    before = path;
    path = path.replace(/%([0-9a-f]{2})/gi, (_, code: string) => String.fromCharCode(Number.parseInt(code, 16)));
  }
  const parts: string[] = [];
  for (const part of path.split(/[\\/]+/).map((one) => (one.split(";")[0] ?? "").toLowerCase())) {
    if (part === "..") parts.pop();
    else if (part !== "" && part !== ".") parts.push(part);
  }
  return parts[0] === "api";
}

/** Serves the exported web application: hashed files for a year, pages fresh each time, deep links to the one page. */
export async function serveWeb(app: App, folder: string | null): Promise<void> {
  const present = folder !== null && existsSync(join(folder, "index.html"));
  if (present) {
    let serving = true;
    app.addHook("onRoute", (route) => {
      if (serving) route.config = { ...route.config, ...forAnybody.config };
    });
    await app.register(fastifyStatic, {
      root: folder,
      wildcard: true,
      preCompressed: true,
      cacheControl: false,
      setHeaders: (reply, path) => {
        const hashed = /[\\/](?:_expo|assets|fonts|page-reading)[\\/]|[\\/]kitchen-worker\.[0-9a-f]{12}\.js/.test(path);
        if (/[\\/]page-reading[\\/]/.test(path)) void reply.setHeader("content-security-policy", READING_POLICY);
        void reply.setHeader("cache-control", hashed ? YEAR : "no-cache");
      },
    });
    serving = false;
  }
  app.setNotFoundHandler((request, reply) => {
    const wantsPage = request.method === "GET" && !isOfTheWire(request.url) && !/\.[a-z0-9]{2,5}(?:\?|$)/i.test(request.url);
    if (present && wantsPage) return reply.header("cache-control", "no-cache").sendFile("index.html");
    return reply
      .status(404)
      .type("application/problem+json")
      .send(JSON.stringify(nothingAt(request.url)));
  });
}
