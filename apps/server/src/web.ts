import { existsSync } from "node:fs";
import { join } from "node:path";
import fastifyStatic from "@fastify/static";
import { nothingAt } from "./problems";
import type { App } from "./wire";

const YEAR = "public, max-age=31536000, immutable";

/** Serves the exported web application: hashed files for a year, pages fresh each time, deep links to the one page. */
export async function serveWeb(app: App, folder: string | null): Promise<void> {
  const present = folder !== null && existsSync(join(folder, "index.html"));
  if (present) {
    await app.register(fastifyStatic, {
      root: folder,
      wildcard: true,
      preCompressed: true,
      cacheControl: false,
      setHeaders: (reply, path) => {
        const hashed = /[\\/](?:_expo|assets)[\\/]|[\\/]bake-worker\.[0-9a-f]{12}\.js/.test(path);
        void reply.setHeader("cache-control", hashed ? YEAR : "no-cache");
      },
    });
  }
  app.setNotFoundHandler((request, reply) => {
    const wantsPage = request.method === "GET" && !request.url.startsWith("/api") && !/\.[a-z0-9]{2,5}(?:\?|$)/i.test(request.url);
    if (present && wantsPage) return reply.header("cache-control", "no-cache").sendFile("index.html");
    return reply
      .status(404)
      .type("application/problem+json")
      .send(JSON.stringify(nothingAt(request.url)));
  });
}
