import {
  analysisSchema,
  balanceRequestSchema,
  formulaRequestSchema,
  proposalsSchema,
  readingSchema,
  readRequestSchema,
  simulateRequestSchema,
  simulationSchema,
  type OvenProfile,
  swapRequestSchema,
} from "@uprise/contract";
import {
  analyse,
  analyseText,
  balance,
  type AnalyseInput,
  expand,
  inputFrom,
  swap,
  type Ingredient,
  readRecipe,
  shelfWith,
  simulate,
  withProfile,
  type Shelf,
  type WeighedLine,
} from "@uprise/core";
import { bookFor } from "./book";
import type { Store } from "../store/store";
import { type App, problems } from "../wire";

/** The built-in shelf with the kitchen's own ingredients. */
export async function shelfOf(store: Store): Promise<Shelf> {
  const own = await store.things<Ingredient>("ingredients").list();
  return shelfWith(own.map((entry) => entry.body));
}

/** An input with the formulas among its lines opened into their ingredients. */
async function openLines<T extends { lines: readonly WeighedLine[] }>(store: Store, input: T): Promise<T> {
  return { ...input, lines: expand(input.lines, await bookFor(store, input.lines)) };
}

/** An input whose oven is one of the kitchen's, with what is known of it. */
async function knownOven<T extends Pick<AnalyseInput, "oven">>(store: Store, input: T): Promise<T> {
  if (input.oven?.ovenId === undefined) return input;
  const profile = await store.things<OvenProfile>("ovens").read(input.oven.ovenId);
  return { ...input, oven: withProfile(input.oven, profile?.body) };
}

/** The calls that compute and store nothing. */
export function computeRoutes(app: App, store: Store): void {
  app.post(
    "/api/read",
    {
      schema: {
        summary: "Read a recipe from text",
        tags: ["compute"],
        body: readRequestSchema,
        response: { 200: readingSchema, ...problems },
      },
    },
    async ({ body }) => readRecipe(body.text, body.measures ?? "us", body.title, await shelfOf(store)),
  );
  app.post(
    "/api/analyse",
    {
      schema: {
        summary: "Analyse a formula, a text or a typical batch",
        tags: ["compute"],
        body: formulaRequestSchema,
        response: { 200: analysisSchema, ...problems },
      },
    },
    async ({ body }) => {
      const { text, ...input } = await knownOven(store, body);
      const shelf = await shelfOf(store);
      if (text !== undefined && !input.lines) return analyseText(text, input, shelf);
      return analyse(input.lines ? await openLines(store, { ...input, lines: input.lines }) : input, shelf);
    },
  );
  app.post(
    "/api/simulate",
    {
      schema: {
        summary: "Bake a formula, a text or a typical batch in the computer: curves, section, time to done",
        tags: ["compute"],
        body: simulateRequestSchema,
        response: { 200: simulationSchema, ...problems },
      },
    },
    async ({ body }) => {
      const { minutes, ...request } = await knownOven(store, body);
      const shelf = await shelfOf(store);
      return simulate(await openLines(store, inputFrom(request, shelf)), shelf, { minutes });
    },
  );
  app.post(
    "/api/balance",
    {
      schema: {
        summary: "The smallest changes that bring a formula into its bands",
        tags: ["compute"],
        body: balanceRequestSchema,
        response: { 200: proposalsSchema, ...problems },
      },
    },
    async ({ body }) => {
      const { locked, avoid, onHand, ...formula } = body;
      const shelf = await shelfOf(store);
      return balance(await openLines(store, inputFrom(formula, shelf)), { locked, avoid, onHand }, shelf);
    },
  );
  app.post(
    "/api/swap",
    {
      schema: {
        summary: "Replace an ingredient and keep the rest where it was",
        tags: ["compute"],
        body: swapRequestSchema,
        response: { 200: proposalsSchema, ...problems },
      },
    },
    async ({ body }) => {
      const { locked, avoid, onHand, replace, with: by, ...formula } = body;
      const shelf = await shelfOf(store);
      return swap(await openLines(store, inputFrom(formula, shelf)), { replace, with: by }, { locked, avoid, onHand }, shelf);
    },
  );
}
