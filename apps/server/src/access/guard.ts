import cookie from "@fastify/cookie";
import rateLimit from "@fastify/rate-limit";
import {
  accessSchema,
  enterSchema,
  helperSchema,
  newPasscodeSchema,
  recoverSchema,
  recoverySchema,
  sessionSchema,
} from "@uprise/contract";
import type { Socket } from "node:net";
import type { FastifyReply, FastifyRequest, RouteOptions } from "fastify";
import { z } from "zod";
import { Refusal } from "../errors";
import type { App } from "../wire";
import { problems } from "../wire";
import type { Access, Device, Stranger } from "./access";
import { nameIn, placesOf } from "./places";
import { type DeclaredRoute, forAnybody, forBakers, may } from "./roles";
import { countTries } from "./tries";

const COOKIE = "uprise";
const COOKIE_DAYS = 180;
/** Tries of a passcode from one address in a minute, right or wrong. */
const TRIES_A_MINUTE = 12;
const READS = new Set(["GET", "HEAD", "OPTIONS"]);

/** A call that is not answered yet is waited for so long when its device is let go, ms. */
const ANSWERED_MS = 2000;

/** What a device has open, and whether its answer has begun: a stream, a socket. */
interface Line {
  socket: Socket;
  begun: () => boolean;
}

interface Guarded {
  host: string;
  /** The address by which a proxy before this server is called, such as https://kitchen.example. */
  origin: string | null;
  /** Whether the passcode is asked for; one that is set while the server runs counts from then on. */
  needed: () => boolean;
}

/** Who made a call, for the routes that tell more to those who are in. */
export type WhoAsks = (request: FastifyRequest) => "baker" | "helper" | "nobody";

/**
 * Stands before every call: by which name the server is called (against pages whose name is turned to this address), whether a write comes from
 * its own page, who asks, and what they may do.
 */
export async function guard(app: App, access: Access, { host, origin, needed }: Guarded): Promise<WhoAsks> {
  const isOurs = placesOf(host, origin);
  const declared: RouteOptions[] = [];
  app.decorate("declaredRoutes", (): DeclaredRoute[] => declared.flatMap(({ method, url, config }) => [method].flat().map((one) => ({ method: one, url, role: config?.role ?? null }))));
  app.addHook("onRoute", (route) => void declared.push(route));
  const tries = countTries();
  await app.register(cookie, { secret: { sign: (value) => signer().sign(value), unsign: (value) => signer().unsign(value) } });
  // The secret changes with the passcode; a signer of the old one knows no cookie of the new.
  const signer = () => cookie.signerFactory(access.secret());
  await app.register(rateLimit, { global: false, errorResponseBuilder: () => new Refusal("too-often", "Too many tries from this address in a minute; wait one.") });

  const known = (request: FastifyRequest): Device | Stranger => {
    const raw = request.cookies[COOKIE];
    const { valid, value } = raw === undefined ? { valid: false, value: null } : request.unsignCookie(raw);
    return valid && value !== null ? access.known(value) : "unknown";
  };
  const deviceOf = (request: FastifyRequest): Device | null => {
    const device = known(request);
    return typeof device === "string" ? null : device;
  };

  // Whatever a device has open is cut when it is let go: every call that is not answered to its end, whatever it accepts.
  const lines = new Map<string, Set<Line>>();
  const keepLine = (id: string, line: Line, ends: NodeJS.EventEmitter): void => {
    const own = lines.get(id) ?? new Set();
    lines.set(id, own.add(line));
    ends.once("close", () => {
      own.delete(line);
      if (own.size === 0 && lines.get(id) === own) lines.delete(id);
    });
  };
  access.whenLetGo((id) => {
    const open = lines.get(id) ?? new Set<Line>();
    for (const { socket, begun } of open) if (begun()) socket.destroy();
    lines.delete(id);
    // A call that is about to be answered is: the one that sets another passcode lets its own device go, and brings the recovery code.
    setTimeout(() => open.forEach(({ socket }) => socket.destroy()), ANSWERED_MS).unref();
  });

  app.addHook("onRequest", async (request, reply) => {
    // An upgrade that is answered like any other call has been refused: its line would stay open for good.
    if (request.headers.upgrade !== undefined) reply.raw.once("finish", () => request.raw.socket.destroy());
    const name = nameIn(request.headers.host);
    const named = request.raw.rawHeaders.filter((header, k) => k % 2 === 0 && header.toLowerCase() === "host").length;
    if (name === null || named > 1 || !isOurs(name))
      throw new Refusal("wrong-place", `This server is not called “${(request.headers.host ?? "").slice(0, 80)}”. Call it by its address, or name its proxy with UPRISE_ORIGIN.`);
    const sentFrom = request.headers.origin;
    const upgrade = request.headers.upgrade !== undefined;
    if ((!READS.has(request.method) || upgrade) && sentFrom !== undefined && !sameOrigin(sentFrom, request.headers.host, origin))
      throw new Refusal("not-allowed", "A page of another origin may not write here.");
    if (!READS.has(request.method) && request.headers["sec-fetch-site"] === "cross-site") throw new Refusal("not-allowed", "A page of another origin may not write here.");
    // Where nothing answers there is nothing to guard: the page, or that nothing is there.
    const role = request.is404 ? "anybody" : (request.routeOptions.config.role ?? "baker");
    if (!needed() || role === "anybody") return;
    const device = known(request);
    if (device === "let-go") throw new Refusal("let-go", "This device was let go: what it kept of the kitchen goes with that. Come in anew by the passcode.");
    if (device === "unknown") throw new Refusal("not-let-in", "This kitchen asks for its passcode first: POST /api/session with it and a name for this device.");
    if (!may(device.role, role))
      throw new Refusal("not-allowed", "A helper weighs, judges and looks; formulas, shelves and settings are changed by a baker.");
    keepLine(device.id, { socket: request.raw.socket, begun: () => upgrade || reply.raw.headersSent }, upgrade ? request.raw.socket : reply.raw);
  });

  const tried = async <T>(request: FastifyRequest, reply: FastifyReply, does: () => Promise<T | null>): Promise<T> => {
    const who = request.ip;
    const tooOften = (seconds: number, words: string): Refusal => {
      void reply.header("retry-after", String(seconds));
      return new Refusal("too-often", words);
    };
    const mayTry = (): void => {
      const wait = tries.waits(who);
      if (wait > 0) throw tooOften(wait, `Too many wrong tries from here; the next one in ${wait} s.`);
    };
    mayTry();
    const turn = tries.inTurn(async () => {
      mayTry();
      tries.book(who);
      const result = await does();
      if (result !== null) tries.right(who);
      return result;
    });
    if (turn === null) throw tooOften(5, "Others are trying passcodes just now; the next try in 5 s.");
    const result = await turn;
    if (result !== null) return result;
    const next = tries.waits(who);
    throw new Refusal("not-let-in", `That is not it.${next > 0 ? ` The next try in ${next} s.` : ""}`);
  };
  const limited = { rateLimit: { max: TRIES_A_MINUTE, timeWindow: "1 minute" } };
  const slowly = { config: { ...forAnybody.config, ...limited } };
  const tags = ["access"];
  const mustNeed = (): void => {
    if (!needed()) throw new Refusal("unprocessable", "This server is for this machine alone and asks for no passcode.");
  };

  app.get("/api/session", { ...forAnybody, schema: { summary: "Whether a passcode is asked, and who this device is", tags, response: { 200: sessionSchema } } }, (request) => {
    const found = needed() ? known(request) : "unknown";
    const device = typeof found === "string" ? null : found;
    return { needed: needed(), ...(found === "let-go" ? { letGo: true as const } : {}), here: device ? { id: device.id, device: device.device, role: device.role } : null };
  });
  app.post(
    "/api/session",
    { ...slowly, schema: { summary: "Come in by the passcode", tags, body: enterSchema, response: { 200: sessionSchema, ...problems } } },
    async (request, reply) => {
      mustNeed();
      const { passcode, device: name } = request.body;
      const { device, token } = await tried(request, reply, () => access.enter(passcode, name));
      void reply.setCookie(COOKIE, token, { signed: true, httpOnly: true, sameSite: "strict", path: "/", secure: origin?.startsWith("https:") ?? false, maxAge: COOKIE_DAYS * 86_400 });
      return { needed: needed(), here: { id: device.id, device: device.device, role: device.role } };
    },
  );
  app.delete("/api/session", { ...forAnybody, schema: { summary: "Let this device go", tags, response: { 204: z.null() } } }, async (request, reply) => {
    const device = deviceOf(request);
    if (device) await access.letGo(device.id);
    return reply.clearCookie(COOKIE, { path: "/" }).status(204).send(null);
  });
  app.post(
    "/api/recover",
    { ...slowly, schema: { summary: "A new passcode by the recovery code; every device is let go", tags, body: recoverSchema, response: { 200: recoverySchema, ...problems } } },
    async (request, reply) => {
      mustNeed();
      return { recovery: await tried(request, reply, () => access.recover(request.body.code, request.body.passcode)) };
    },
  );
  app.get("/api/access", { ...forBakers, schema: { summary: "Devices that are let in", tags, response: { 200: accessSchema, ...problems } } }, (request) => {
    const here = deviceOf(request);
    return { helper: access.hasHelper(), devices: access.devices().map(({ id, device, role, since, seen }) => ({ id, device, role, since, seen, here: id === here?.id })) };
  });
  app.delete("/api/access/devices/:id", { ...forBakers, schema: { summary: "Let a device go", tags, params: z.object({ id: z.string().max(64) }), response: { 204: z.null(), ...problems } } }, async ({ params }, reply) => {
    if (!(await access.letGo(params.id))) throw new Refusal("not-found", "No such device is let in.");
    return reply.status(204).send(null);
  });
  app.put("/api/access/helper", { ...forBakers, schema: { summary: "A passcode for helpers, or none", tags, body: helperSchema, response: { 204: z.null(), ...problems } } }, async ({ body }, reply) => {
    mustNeed();
    if (body.passcode !== null && (await access.isBaker(body.passcode))) throw new Refusal("unprocessable", "That is the baker's passcode; another one would be right.");
    await access.setHelper(body.passcode);
    return reply.status(204).send(null);
  });
  app.put(
    "/api/access/passcode",
    { config: { ...forBakers.config, ...limited }, schema: { summary: "Another passcode; every device is let go", tags, body: newPasscodeSchema, response: { 200: recoverySchema, ...problems } } },
    async (request, reply) => {
      mustNeed();
      const { old, passcode } = request.body;
      return { recovery: await tried(request, reply, async () => ((await access.isBaker(old)) ? access.set(passcode) : null)) };
    },
  );

  return (request) => (needed() ? (deviceOf(request)?.role ?? "nobody") : "baker");
} // prettier-ignore

/** Whether a page's origin is this server's own, by the name under which it was called. */
function sameOrigin(sentFrom: string, host: string | undefined, origin: string | null): boolean {
  if (origin !== null && sentFrom === new URL(origin).origin) return true;
  try {
    // Without a proxy this server speaks plain HTTP; a page that came by HTTPS is another's.
    const { host: from, protocol } = new URL(sentFrom);
    return from === host && protocol === "http:";
  } catch {
    return false;
  }
}
