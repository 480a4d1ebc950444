import compress from "@fastify/compress";
import helmet from "@fastify/helmet";
import swagger from "@fastify/swagger";
import swaggerUi from "@fastify/swagger-ui";
import Fastify, { type FastifyReply } from "fastify";
import { jsonSchemaTransform, serializerCompiler, validatorCompiler, type ZodTypeProvider } from "fastify-type-provider-zod";
import { healthSchema } from "@uprise/contract";
import { openComputer } from "./compute/pool";
import { fillDemo } from "./demo/fill";
import { Unusable } from "./errors";
import { answerProblems, bareError, explain } from "./problems";
import { computeRoutes } from "./resources/compute";
import { statfs } from "node:fs/promises";
import { openAccess } from "./access/access";
import { guard } from "./access/guard";
import { forAnybody, forHelpers } from "./access/roles";
import { isLoopback } from "./access/places";
import { copyNightly, copyState } from "./archive/copies";
import { changeRoutes } from "./resources/changes";
import { NEWEST } from "./store/migrations";
import { exchangeRoutes } from "./resources/exchange";
import { formulaRoutes } from "./resources/formulas";
import { openGlances } from "./resources/glances";
import { kitchenRoutes } from "./resources/kitchen";
import { bakeRoutes } from "./resources/bakes";
import { deviceRoutes } from "./resources/devices";
import { photoRoutes } from "./resources/photos";
import { planRoutes } from "./resources/plans";
import type { Settings } from "./settings";
import { openStore } from "./store/store";
import { serveWeb } from "./web";
import { trialRoutes } from "./resources/trials";
import { learntRoutes } from "./resources/learnt";
import { seasonRoutes } from "./resources/seasons";
import type { App } from "./wire";

export const VERSION = "0.1.0";

/** Whether others than this machine can reach the server, by its own address or through a proxy. */
const isOpen = ({ host, origin }: Settings): boolean => !isLoopback(host) || (origin ?? null) !== null;

const BODY_LIMIT = 1024 * 1024;
const REQUEST_TIMEOUT_MS = 30_000;
const CHECKED_MS = 5000;

/** The page itself loads nothing but its own scripts; styles are set by script, fonts and drawings come from here. */
const policy = {
  defaultSrc: ["'none'"],
  scriptSrc: ["'self'"],
  styleSrc: ["'self'", "'unsafe-inline'"],
  imgSrc: ["'self'", "data:", "blob:"],
  fontSrc: ["'self'"],
  connectSrc: ["'self'"],
  workerSrc: ["'self'"],
  manifestSrc: ["'self'"],
  baseUri: ["'none'"],
  formAction: ["'self'"],
  frameAncestors: ["'none'"],
};

/** Whether browsers take this server's origin for a trustworthy one. */
const trusted = ({ host, origin }: Settings): boolean => (origin ? origin.startsWith("https:") : isLoopback(host));

/** Builds the server on the store of `settings.dataFolder`; `close` ends requests, then the store. */
export async function buildApp(settings: Settings, log = false): Promise<App> {
  const access = openAccess(settings.dataFolder);
  if (isOpen(settings) && !access.isSet())
    throw new Unusable(
      `Others could reach this server (${isLoopback(settings.host) ? `UPRISE_ORIGIN=${settings.origin}` : `HOST=${settings.host}`}), and no passcode is set. Set one with npm run passcode, or start it with HOST=127.0.0.1 for this machine alone.`,
    );
  const store = await openStore(settings.dataFolder);
  if (settings.demo && (await store.isEmpty())) await fillDemo(store);
  const computer = openComputer(settings.workerFile ?? null);
  const app: App = Fastify({
    logger: log
      ? {
          level: process.env["LOG_LEVEL"] ?? "warn",
          redact: ["req.headers.cookie", "req.headers.authorization", "res.headers['set-cookie']"],
          serializers: { err: bareError },
        }
      : false,
    // Who asks stands behind the proxy only where there is one.
    trustProxy: (settings.origin ?? null) === null ? false : "loopback",
    bodyLimit: BODY_LIMIT,
    requestTimeout: REQUEST_TIMEOUT_MS,
    // A closing server does not wait for browsers that keep their lines open.
    forceCloseConnections: true,
    routerOptions: { maxParamLength: 200 },
    // Half-sent requests are looked for so often that the time limit is about what it says.
    http: { connectionsCheckingInterval: CHECKED_MS },
    // What the router itself refuses (an address that cannot be decoded) is told like every other refusal.
    frameworkErrors: (error, _, reply) => {
      const problem = explain(error);
      void (reply as FastifyReply).status(problem.status).type("application/problem+json").send(JSON.stringify(problem));
    },
  }).withTypeProvider<ZodTypeProvider>();
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  // A form of another page can send text; only what says that it is JSON is listened to.
  app.removeContentTypeParser("text/plain");
  answerProblems(app);
  const endCopies =
    settings.copies === false ? null : copyNightly(store, settings.dataFolder, VERSION, (error) => app.log.error(error));
  app.addHook("onClose", async () => {
    await endCopies?.();
    await computer.close();
    await store.close();
  });
  const needed = (): boolean => isOpen(settings) || access.isSet();
  const whoAsks = await guard(app, access, { host: settings.host, origin: settings.origin ?? null, needed });
  await app.register(helmet, {
    contentSecurityPolicy: { useDefaults: false, directives: policy },
    strictTransportSecurity: false,
    crossOriginEmbedderPolicy: false,
    // Browsers keep these to origins that they trust; over plain HTTP in a kitchen's network they would only complain.
    ...(trusted(settings) ? {} : { crossOriginOpenerPolicy: false, originAgentCluster: false }),
  });
  await app.register(swagger, {
    openapi: { info: { title: "Uprise", version: VERSION, description: "Everything Uprise knows, for a person's own script." } },
    transform: jsonSchemaTransform,
  });
  await app.register(async (scope: App) => {
    // The page for reading the API comes with routes of its own.
    scope.addHook("onRoute", (route) => void (route.config = { ...route.config, ...forHelpers.config }));
    await scope.register(swaggerUi, { routePrefix: "/api/docs", staticCSP: false, uiConfig: { docExpansion: "list" } });
  });
  await app.register(async (scope: App) => {
    await scope.register(compress, { threshold: 1024, encodings: ["br", "gzip"] });
    scope.addHook("onSend", async (_, reply) => {
      if (!reply.hasHeader("cache-control")) void reply.header("cache-control", "no-store");
    });
    scope.get(
      "/api/health",
      { ...forAnybody, schema: { summary: "Is it up? More to those who are in", response: { 200: healthSchema } } },
      async (request) => {
        const up = { status: "ok" as const, version: VERSION };
        if (whoAsks(request) === "nobody") return up;
        const { bavail, bsize } = await statfs(settings.dataFolder);
        const copies = copyState(settings.dataFolder);
        return { ...up, shape: NEWEST, freeBytes: bavail * bsize, lastCopyHours: copies.ageHours, ...(copies.fault ? { copyFault: copies.fault } : {}) };
      },
    ); // prettier-ignore
    scope.get("/api/openapi.json", { ...forHelpers, schema: { hide: true } }, () => app.swagger());
    const tell = changeRoutes(scope);
    const news = (): void => tell({ what: "formulas", id: null, version: null, by: null });
    const glances = openGlances(store, computer, settings.workerFile, news, (error) => app.log.error(error));
    scope.addHook("preClose", () => glances.close());
    computeRoutes(scope, store, computer);
    formulaRoutes(scope, store, glances);
    kitchenRoutes(scope, store);
    planRoutes(scope, store, computer);
    bakeRoutes(scope, store, computer);
    trialRoutes(scope, store, computer);
    learntRoutes(scope, store, computer);
    seasonRoutes(scope, store, computer);
    photoRoutes(scope, store);
    await exchangeRoutes(scope, store, computer, VERSION, settings.dataFolder);
    await deviceRoutes(scope, store);
  });
  await serveWeb(app, settings.webFolder);
  return app;
}
