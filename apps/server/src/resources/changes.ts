import { forHelpers } from "../access/roles";
import { EventEmitter } from "node:events";
import type { Change } from "@uprise/contract";
import type { App } from "../wire";
import { streamTo } from "./stream";

const WRITES = new Set(["POST", "PUT", "DELETE"]);
const THING =
  /^\/api\/(formulas|ingredients|vessels|ovens|plans|bakes|devices|packets|trials|tastings|learnt|seasons)(?:\/:id)?(?:\/(?:restore|events))?$/;
/** Calls after which anything may be another. */
const ANYTHING = /^\/api\/(?:import|restore)\b/;

/** Tells all who listen what somebody wrote, within the moment: two phones and a desktop look at one kitchen. Gives how else to tell them something. */
export function changeRoutes(app: App): (change: Change) => void {
  const news = new EventEmitter().setMaxListeners(0);
  app.addHook("onResponse", async (request, reply) => {
    if (!WRITES.has(request.method) || reply.statusCode >= 300) return;
    // By the route that was matched: an address may be written in many ways.
    const path = request.routeOptions.url ?? "";
    const match = THING.exec(path);
    const what = match?.[1] ?? (ANYTHING.test(path) ? "anything" : null);
    if (what === null) return;
    const location = reply.getHeader("location");
    const made = typeof location === "string" ? (location.split("/").at(-1) ?? null) : null;
    const version = Number(/"(\d+)"/.exec(String(reply.getHeader("etag") ?? ""))?.[1] ?? Number.NaN);
    const tab = request.headers["x-uprise-tab"];
    const change: Change = { what, id: (request.params as { id?: string }).id ?? made, version: Number.isFinite(version) ? version : null, by: typeof tab === "string" ? tab.slice(0, 64) : null };
    news.emit("change", change);
  });
  app.get("/api/changes", { ...forHelpers, exposeHeadRoute: false, schema: { summary: "What is written by anybody, as server-sent events", tags: ["access"] } }, async (_, reply) => {
    const stream = streamTo(reply);
    const tell = (change: Change): void => stream.send(change);
    news.on("change", tell);
    stream.onEnd(() => news.off("change", tell));
    return reply;
  });
  return (change) => void news.emit("change", change);
} // prettier-ignore
