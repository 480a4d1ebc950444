import { forBakers, forHelpers } from "../access/roles";
import {
  formulaInputSchema,
  formulaSummarySchema,
  formulaVersionSchema,
  formulasQuerySchema,
  pageOf,
  pageQuerySchema,
  storedFormulaSchema,
} from "@uprise/contract";
import { type Formula, FORMULA_SHAPE } from "@uprise/core";
import { z } from "zod";
import type { Store } from "../store/store";
import { refuseCycle } from "./book";
import type { Glances } from "./glances";
import { type App, asStored, etag, idParams, problems, versionOf } from "../wire";

const tags = ["formulas"];

export function formulaRoutes(app: App, store: Store, glances: Glances): void {
  const { formulas } = store;
  app.get(
    "/api/formulas",
    {
      ...forHelpers,
      serializerCompiler: asStored,
      schema: {
        summary: "List formulas",
        tags,
        querystring: formulasQuerySchema,
        response: { 200: pageOf(formulaSummarySchema), ...problems },
      },
    },
    async ({ query }) => {
      const page = await formulas.list(query);
      return query.whole ? { ...page, items: await glances.laidOn(page.items) } : page;
    },
  );
  app.post(
    "/api/formulas",
    {
      ...forBakers,
      schema: { summary: "Create a formula", tags, body: formulaInputSchema, response: { 201: storedFormulaSchema, ...problems } },
    },
    async ({ body }, reply) => {
      const { id, reason, ...sent } = body;
      const formula: Formula = { ...sent, shape: FORMULA_SHAPE };
      if (id !== undefined) await refuseCycle(store, id, formula);
      const created = await formulas.create(formula, reason ?? "first version", id);
      return etag(reply, created.version).status(201).header("location", `/api/formulas/${created.id}`).send(created);
    },
  );
  app.get(
    "/api/formulas/:id",
    {
      ...forHelpers,
      schema: { summary: "Read a formula", tags, params: idParams, response: { 200: storedFormulaSchema, ...problems } },
    },
    async ({ params }, reply) => {
      const found = await formulas.read(params.id);
      return etag(reply, found.version).send(found);
    },
  );
  app.put(
    "/api/formulas/:id",
    {
      ...forBakers,
      schema: {
        summary: "Save a new version",
        tags,
        params: idParams,
        body: formulaInputSchema,
        response: { 200: storedFormulaSchema, ...problems },
      },
    },
    async (request, reply) => {
      const { id: _, reason, ...sent } = request.body;
      const formula: Formula = { ...sent, shape: FORMULA_SHAPE };
      await refuseCycle(store, request.params.id, formula);
      const saved = await formulas.change(request.params.id, versionOf(request), formula, reason ?? "");
      return etag(reply, saved.version).send(saved);
    },
  );
  app.delete(
    "/api/formulas/:id",
    {
      ...forBakers,
      schema: { summary: "Take a formula off the list", tags, params: idParams, response: { 204: z.null(), ...problems } },
    },
    async (request, reply) => {
      await formulas.remove(request.params.id, versionOf(request));
      return reply.status(204).send(null);
    },
  );
  app.post(
    "/api/formulas/:id/restore",
    {
      ...forBakers,
      schema: {
        summary: "Bring a removed formula back",
        tags,
        params: idParams,
        response: { 200: storedFormulaSchema, ...problems },
      },
    },
    ({ params }) => formulas.restore(params.id),
  );
  app.get(
    "/api/formulas/:id/versions",
    {
      ...forHelpers,
      schema: {
        summary: "List the versions of a formula, the newest first",
        tags,
        params: idParams,
        querystring: pageQuerySchema,
        response: { 200: pageOf(formulaVersionSchema), ...problems },
      },
    },
    ({ params, query }) => formulas.versions(params.id, query),
  );
}
