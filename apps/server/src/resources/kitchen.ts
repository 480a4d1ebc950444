import {
  ingredientInputSchema,
  ovenInputSchema,
  type ovenProfileSchema,
  kitchenQuerySchema,
  pageOf,
  storedIngredientSchema,
  storedOvenSchema,
  type StoredVessel,
  storedVesselSchema,
  type StoredIngredient,
  vesselInputSchema,
} from "@uprise/contract";
import { catalogue, type Ingredient, type Vessel, searchIngredients, shelfWith, vesselLibrary } from "@uprise/core";
import type { FastifyInstance, FastifyRequest } from "fastify";
import { z } from "zod";
import { Refusal } from "../errors";
import type { Page, Query, Store, StoredThing } from "../store/store";
import { type App, etag, idParams, problems, versionOf } from "../wire";

const builtInTimes = { version: 1, createdAt: "2026-01-01T00:00:00.000Z", updatedAt: "2026-01-01T00:00:00.000Z" };

const pageFrom = <T>(all: T[], { page, pageSize }: Query): Page<T> => ({
  items: all.slice((page - 1) * pageSize, page * pageSize),
  page,
  pageSize,
  total: all.length,
});

const withoutBody = ({ id, version, createdAt, updatedAt }: StoredThing<unknown>) => ({ id, version, createdAt, updatedAt });

interface Resource<Body, Stored extends { id: string; version: number }> {
  path: string;
  what: string;
  input: z.ZodType<Body & { id?: string | undefined }>;
  answer: z.ZodType<Stored>;
  list: (query: Query) => Promise<Stored[]>;
  read: (id: string) => Promise<Stored | null>;
  create: (body: Body & { id?: string | undefined }) => Promise<Stored>;
  change: (id: string, version: number, body: Body & { id?: string | undefined }) => Promise<Stored>;
  remove: (id: string, version: number) => Promise<void>;
  isBuiltIn: (id: string) => boolean;
}

/**
 * List, read, create, change, remove: the five calls of a resource whose things are a body with a version. The schemas are
 * parameters here, so what they checked is named once (`Body`) instead of being inferred.
 */
function resource<Body, Stored extends { id: string; version: number }>(typed: App, r: Resource<Body, Stored>): void {
  const app = typed as unknown as FastifyInstance;
  type Sent = Body & { id?: string | undefined };
  const tags = ["kitchen"];
  const one = `${r.path}/:id`;
  const idOf = (request: FastifyRequest): string => (request.params as { id: string }).id;
  const notBuiltIn = (id: string): void => {
    if (r.isBuiltIn(id))
      throw new Refusal(
        "built-in",
        `This ${r.what} ships with Uprise and stays as it is; create your own under another id instead.`,
      );
  };
  app.get(
    r.path,
    {
      schema: {
        summary: `List every ${r.what}`,
        tags,
        querystring: kitchenQuerySchema,
        response: { 200: pageOf(r.answer), ...problems },
      },
    },
    async (request) => {
      const query = request.query as Query & { own?: boolean };
      const all = await r.list(query);
      return pageFrom(query.own ? all.filter((entry) => !r.isBuiltIn(entry.id)) : all, query);
    },
  );
  app.get(
    one,
    { schema: { summary: `Read one ${r.what}`, tags, params: idParams, response: { 200: r.answer, ...problems } } },
    async (request, reply) => {
      const found = await r.read(idOf(request));
      if (!found) throw new Refusal("not-found", `No ${r.what} has the id "${idOf(request)}". GET ${r.path} lists them.`);
      return etag(reply, found.version).send(found);
    },
  );
  app.post(
    r.path,
    { schema: { summary: `Create your own ${r.what}`, tags, body: r.input, response: { 201: r.answer, ...problems } } },
    async (request, reply) => {
      const body = request.body as Sent;
      if (body.id !== undefined) notBuiltIn(body.id);
      const created = await r.create(body);
      return etag(reply, created.version).status(201).header("location", `${r.path}/${created.id}`).send(created);
    },
  );
  app.put(
    one,
    {
      schema: {
        summary: `Change your own ${r.what}`,
        tags,
        params: idParams,
        body: r.input,
        response: { 200: r.answer, ...problems },
      },
    },
    async (request, reply) => {
      notBuiltIn(idOf(request));
      const saved = await r.change(idOf(request), versionOf(request), request.body as Sent);
      return etag(reply, saved.version).send(saved);
    },
  );
  app.delete(
    one,
    { schema: { summary: `Remove your own ${r.what}`, tags, params: idParams, response: { 204: z.null(), ...problems } } },
    async (request, reply) => {
      notBuiltIn(idOf(request));
      await r.remove(idOf(request), versionOf(request));
      return reply.status(204).send(null);
    },
  );
}

export function kitchenRoutes(app: App, store: Store): void {
  ingredientRoutes(app, store);
  vesselRoutes(app, store);
  const ovens = store.things<z.infer<typeof ovenProfileSchema>>("ovens");
  const ovenFrom = (row: StoredThing<z.infer<typeof ovenProfileSchema>>) => ({ ...withoutBody(row), oven: row.body });
  resource(app, {
    path: "/api/ovens",
    what: "oven",
    input: ovenInputSchema,
    answer: storedOvenSchema,
    list: async () => (await ovens.list()).map(ovenFrom),
    read: async (id) => ovens.read(id).then((row) => (row ? ovenFrom(row) : null)),
    create: async ({ id, ...oven }) => ovenFrom(await ovens.create(id, oven)),
    change: async (id, version, { id: _, ...oven }) => ovenFrom(await ovens.change(id, version, oven)),
    remove: (id, version) => ovens.remove(id, version),
    isBuiltIn: () => false,
  });
}

function ingredientRoutes(app: App, store: Store): void {
  const rows = store.things<Ingredient>("ingredients");
  const own = (row: StoredThing<Ingredient>): StoredIngredient => ({ ...withoutBody(row), own: true, ingredient: row.body });
  const builtIn = (ingredient: Ingredient): StoredIngredient => ({ id: ingredient.id, ...builtInTimes, own: false, ingredient });
  const ids = new Set(catalogue.map((entry) => entry.id));
  resource(app, {
    path: "/api/ingredients",
    what: "ingredient",
    input: ingredientInputSchema,
    answer: storedIngredientSchema,
    list: async ({ q }) => {
      const mine = await rows.list();
      const byId = new Map(mine.map((row) => [row.id, own(row)]));
      const shelf = shelfWith(mine.map((row) => row.body));
      const found = q ? searchIngredients(q, shelf, 500) : shelf.all();
      return found.map((entry) => byId.get(entry.id) ?? builtIn(entry));
    },
    read: async (id) => {
      const row = await rows.read(id);
      const shipped = catalogue.find((entry) => entry.id === id);
      return row ? own(row) : shipped ? builtIn(shipped) : null;
    },
    create: async (body) => own(await rows.create(body.id, body)),
    change: async (id, version, body) => own(await rows.change(id, version, { ...body, id })),
    remove: (id, version) => rows.remove(id, version),
    isBuiltIn: (id) => ids.has(id),
  });
}

function vesselRoutes(app: App, store: Store): void {
  const rows = store.things<{ name: string; vessel: Vessel }>("vessels");
  const own = (row: StoredThing<{ name: string; vessel: Vessel }>): StoredVessel => ({
    ...withoutBody(row),
    own: true,
    ...row.body,
  });
  const builtIn = vesselLibrary.map((entry): StoredVessel => ({ ...entry, ...builtInTimes, own: false }));
  const fits = (name: string, q: string | undefined): boolean => !q || name.toLowerCase().includes(q.toLowerCase());
  resource(app, {
    path: "/api/vessels",
    what: "vessel",
    input: vesselInputSchema,
    answer: storedVesselSchema,
    list: async ({ q }) => [...(await rows.list()).map(own), ...builtIn].filter((entry) => fits(entry.name, q)),
    read: async (id) => {
      const row = await rows.read(id);
      return row ? own(row) : (builtIn.find((entry) => entry.id === id) ?? null);
    },
    create: async ({ id, name, vessel }) => own(await rows.create(id, { name, vessel })),
    change: async (id, version, { name, vessel }) => own(await rows.change(id, version, { name, vessel })),
    remove: (id, version) => rows.remove(id, version),
    isBuiltIn: (id) => builtIn.some((entry) => entry.id === id),
  });
}
