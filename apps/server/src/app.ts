import compress from "@fastify/compress";
import helmet from "@fastify/helmet";
import swagger from "@fastify/swagger";
import swaggerUi from "@fastify/swagger-ui";
import Fastify from "fastify";
import { jsonSchemaTransform, serializerCompiler, validatorCompiler, type ZodTypeProvider } from "fastify-type-provider-zod";
import { healthSchema } from "@uprise/contract";
import { openComputer } from "./compute/pool";
import { fillDemo } from "./demo/fill";
import { Unusable } from "./errors";
import { answerProblems } from "./problems";
import { computeRoutes } from "./resources/compute";
import { statfs } from "node:fs/promises";
import { openAccess } from "./access/access";
import { guard } from "./access/guard";
import { isLoopback } from "./access/places";
import { copyAgeHours, copyNightly } from "./archive/copies";
import { changeRoutes } from "./resources/changes";
import { NEWEST } from "./store/migrations";
import { exchangeRoutes } from "./resources/exchange";
import { formulaRoutes } from "./resources/formulas";
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
import type { App } from "./wire";

export const VERSION = "0.1.0";

/** Whether others than this machine can reach the server, by its own address or through a proxy. */
const isOpen = ({ host, origin }: Settings): boolean => !isLoopback(host) || (origin ?? null) !== null;

const BODY_LIMIT = 1024 * 1024;
const REQUEST_TIMEOUT_MS = 30_000;

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
        }
      : false,
    // Who asks stands behind the proxy only where there is one.
    trustProxy: (settings.origin ?? null) === null ? false : "loopback",
    bodyLimit: BODY_LIMIT,
    requestTimeout: REQUEST_TIMEOUT_MS,
    // A closing server does not wait for browsers that keep their lines open.
    forceCloseConnections: true,
    routerOptions: { maxParamLength: 200 },
  }).withTypeProvider<ZodTypeProvider>();
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  answerProblems(app);
  const endCopies =
    settings.copies === false ? null : copyNightly(store, settings.dataFolder, VERSION, (error) => app.log.error(error));
  app.addHook("onClose", async () => {
    await endCopies?.();
    await computer.close();
    await store.close();
  });
  await guard(app, access, { host: settings.host, origin: settings.origin ?? null, needed: isOpen(settings) || access.isSet() });
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
  await app.register(swaggerUi, { routePrefix: "/api/docs", staticCSP: false, uiConfig: { docExpansion: "list" } });
  await app.register(async (scope: App) => {
    await scope.register(compress, { threshold: 1024, encodings: ["br", "gzip"] });
    scope.get("/api/health", { schema: { summary: "Is it up?", response: { 200: healthSchema } } }, async () => {
      const { bavail, bsize } = await statfs(settings.dataFolder);
      return {
        status: "ok" as const,
        version: VERSION,
        shape: NEWEST,
        freeBytes: bavail * bsize,
        lastCopyHours: await copyAgeHours(settings.dataFolder, Date.now()),
      };
    });
    scope.get("/api/openapi.json", { schema: { hide: true } }, () => app.swagger());
    changeRoutes(scope);
    computeRoutes(scope, store, computer);
    formulaRoutes(scope, store);
    kitchenRoutes(scope, store);
    planRoutes(scope, store, computer);
    bakeRoutes(scope, store, computer);
    trialRoutes(scope, store, computer);
    learntRoutes(scope, store, computer);
    photoRoutes(scope, store);
    exchangeRoutes(scope, store, computer, VERSION, settings.dataFolder);
    await deviceRoutes(scope, store);
  });
  await serveWeb(app, settings.webFolder);
  return app;
}
