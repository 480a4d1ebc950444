import { forBakers, forHelpers } from "../access/roles";
import { kitchenQuerySchema, pageOf } from "@uprise/contract";
import type { FastifyInstance, FastifyRequest } from "fastify";
import { z } from "zod";
import { Refusal } from "../errors";
import type { Page, Query, StoredThing } from "../store/store";
import { type App, asStored, etag, idParams, problems, versionOf } from "../wire";

const pageFrom = <T>(all: T[], { page, pageSize }: Query): Page<T> => ({
  items: all.slice((page - 1) * pageSize, page * pageSize),
  page,
  pageSize,
  total: all.length,
});

/** A page of what is stored, as it is answered. */
export const pageOfAll = <A, B>({ items, ...rest }: Page<A>, answer: (item: A) => B): Page<B> => ({
  ...rest,
  items: items.map(answer),
});

export const withoutBody = ({ id, version, createdAt, updatedAt }: StoredThing<unknown>) => ({ id, version, createdAt, updatedAt });

type Listed<Stored> =
  /** What grows by the day: a page of it, as the store finds it. */
  | { page: (query: Query) => Promise<Page<Stored>> }
  /** What a shelf holds: all of it, what ships with Uprise too. */
  | { list: (query: Query) => Promise<Stored[]> };

type Resource<Body, Stored extends { id: string; version: number }> = Listed<Stored> & {
  path: string;
  what: string;
  tag?: string;
  input: z.ZodType<Body & { id?: string | undefined }>;
  answer: z.ZodType<Stored>;
  read: (id: string) => Promise<Stored | null>;
  create: (body: Body & { id?: string | undefined }) => Promise<Stored>;
  change: (id: string, version: number, body: Body & { id?: string | undefined }) => Promise<Stored>;
  remove: (id: string, version: number) => Promise<void>;
  isBuiltIn: (id: string) => boolean;
  /** Brings a removed one back; left out, what is removed is gone. */
  restore?: (id: string) => Promise<Stored>;
  /** Whether helpers at the counter write these too. */
  byHelpers?: true;
};

/**
 * List, read, create, change, remove: the five calls of a resource whose things are a body with a version. The schemas are
 * parameters here, so what they checked is named once (`Body`) instead of being inferred.
 */
export function resource<Body, Stored extends { id: string; version: number }>(typed: App, r: Resource<Body, Stored>): void {
  const app = typed as unknown as FastifyInstance;
  type Sent = Body & { id?: string | undefined };
  const tags = [r.tag ?? "kitchen"];
  const writes = r.byHelpers ? forHelpers : forBakers;
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
      ...forHelpers,
      serializerCompiler: asStored,
      schema: {
        summary: `List every ${r.what}`,
        tags,
        querystring: kitchenQuerySchema,
        response: { 200: pageOf(r.answer), ...problems },
      },
    },
    async (request) => {
      const query = request.query as Query & { own?: boolean };
      if ("page" in r) return r.page(query);
      const all = await r.list(query);
      return pageFrom(query.own ? all.filter((entry) => !r.isBuiltIn(entry.id)) : all, query);
    },
  );
  app.get(
    one,
    { ...forHelpers, schema: { summary: `Read one ${r.what}`, tags, params: idParams, response: { 200: r.answer, ...problems } } },
    async (request, reply) => {
      const found = await r.read(idOf(request));
      if (!found) throw new Refusal("not-found", `No ${r.what} has the id "${idOf(request)}". GET ${r.path} lists them.`);
      return etag(reply, found.version).send(found);
    },
  );
  app.post(
    r.path,
    { ...writes, schema: { summary: `Create your own ${r.what}`, tags, body: r.input, response: { 201: r.answer, ...problems } } },
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
      ...writes,
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
    {
      ...forBakers,
      schema: { summary: `Remove your own ${r.what}`, tags, params: idParams, response: { 204: z.null(), ...problems } },
    },
    async (request, reply) => {
      notBuiltIn(idOf(request));
      await r.remove(idOf(request), versionOf(request));
      return reply.status(204).send(null);
    },
  );
  const { restore } = r;
  if (restore)
    app.post(
      `${one}/restore`,
      {
        ...forBakers,
        schema: { summary: `Bring a removed ${r.what} back`, tags, params: idParams, response: { 200: r.answer, ...problems } },
      },
      async (request, reply) => {
        const back = await restore(idOf(request));
        return etag(reply, back.version).send(back);
      },
    );
}
