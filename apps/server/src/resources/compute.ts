import {
  analysisSchema,
  balanceRequestSchema,
  designRequestSchema,
  diagnosisSchema,
  faultsRequestSchema,
  nextRequestSchema,
  nextSchema,
  practiceRequestSchema,
  practiceSchema,
  designsSchema,
  familySchema,
  formulaRequestSchema,
  proposalsSchema,
  readingSchema,
  readRequestSchema,
  simulateRequestSchema,
  simulationSchema,
  slipAnswerSchema,
  slipRequestSchema,
  swapRequestSchema,
  labelRequestSchema,
  labelSchema,
  scaleUpRequestSchema,
  scaleUpSchema,
} from "@uprise/contract";
import { causes, experiments, type Packet, symptoms } from "@uprise/core";
import { forHelpers } from "../access/roles";
import type { Computer } from "../compute/pool";
import type { Store } from "../store/store";
import { type App, problems } from "../wire";
import { kitchenDataFor } from "./kitchen-data";

const tags = ["compute"];

/** The calls that compute and store nothing; each is done in the pool, so that the server goes on answering. */
export function computeRoutes(app: App, store: Store, computer: Computer): void {
  app.post(
    "/api/read",
    {
      ...forHelpers,
      schema: {
        summary: "Read a recipe from text",
        tags,
        body: readRequestSchema,
        response: { 200: readingSchema, ...problems },
      },
    },
    async ({ body }) => computer.run("read", body, await kitchenDataFor(store, {})),
  );
  app.post(
    "/api/analyse",
    {
      ...forHelpers,
      schema: {
        summary: "Analyse a formula, a text or a typical batch",
        tags,
        body: formulaRequestSchema,
        response: { 200: analysisSchema, ...problems },
      },
    },
    async ({ body }) => computer.run("analyse", body, await kitchenDataFor(store, body)),
  );
  app.post(
    "/api/simulate",
    {
      ...forHelpers,
      schema: {
        summary: "Bake a formula, a text or a typical batch in the computer: curves, section, time to done",
        tags,
        body: simulateRequestSchema,
        response: { 200: simulationSchema, ...problems },
      },
    },
    async ({ body }) => computer.run("simulate", body, await kitchenDataFor(store, body)),
  );
  app.post(
    "/api/balance",
    {
      ...forHelpers,
      schema: {
        summary: "The smallest changes that bring a formula into its bands",
        tags,
        body: balanceRequestSchema,
        response: { 200: proposalsSchema, ...problems },
      },
    },
    async ({ body }) => computer.run("balance", body, await kitchenDataFor(store, body)),
  );
  app.post(
    "/api/swap",
    {
      ...forHelpers,
      schema: {
        summary: "Replace an ingredient and keep the rest where it was",
        tags,
        body: swapRequestSchema,
        response: { 200: proposalsSchema, ...problems },
      },
    },
    async ({ body }) => computer.run("swap", body, await kitchenDataFor(store, body)),
  );
  app.post(
    "/api/design",
    {
      ...forHelpers,
      schema: {
        summary: "Formulas from what is on hand: kind, pan, diet and wish; where the shelf cannot, what to buy",
        tags,
        body: designRequestSchema,
        response: { 200: designsSchema, ...problems },
      },
    },
    async ({ body }) => computer.run("design", body, await kitchenDataFor(store, {})),
  );
  app.post(
    "/api/family",
    {
      ...forHelpers,
      schema: {
        summary: "Five bakes from one dry mix: each sound by itself, with the mix and one shopping list",
        tags,
        body: designRequestSchema,
        response: { 200: familySchema, ...problems },
      },
    },
    async ({ body }) => computer.run("family", body, await kitchenDataFor(store, {})),
  );
  app.post(
    "/api/slip",
    {
      ...forHelpers,
      schema: {
        summary: "What a slip at the counter does, and what can still be done",
        tags,
        body: slipRequestSchema,
        response: { 200: slipAnswerSchema, ...problems },
      },
    },
    async ({ body }) => computer.run("slip", body, await kitchenDataFor(store, body)),
  );
  app.post(
    "/api/faults",
    {
      ...forHelpers,
      schema: {
        summary:
          "What went wrong with a bake: causes by their chance, with evidence, what would tell them apart, and a version that mends it",
        tags,
        body: faultsRequestSchema,
        response: { 200: diagnosisSchema, ...problems },
      },
    },
    async ({ body }) => computer.run("faults", body, await kitchenDataFor(store, body)),
  );
  app.post(
    "/api/next",
    {
      ...forHelpers,
      schema: {
        summary: "The next change of one thing worth trying for a goal, with what it does and how sure that is",
        tags,
        body: nextRequestSchema,
        response: { 200: nextSchema, ...problems },
      },
    },
    async ({ body }) => computer.run("next", body, await kitchenDataFor(store, body)),
  );
  app.post(
    "/api/practice",
    { ...forHelpers, schema: { summary: "A made-up bake with a hidden cause, to practise on", tags, body: practiceRequestSchema, response: { 200: practiceSchema, ...problems } } },
    async ({ body }) => computer.run("practice", body, await kitchenDataFor(store, {})),
  ); // prettier-ignore
  const onShelf = async (sent: Packet[] | undefined): Promise<Packet[]> => sent ?? (await store.things<Packet>("packets").list()).map(({ body }) => body); // prettier-ignore
  app.post(
    "/api/label",
    { ...forHelpers, schema: { summary: "A label for a region: ingredients, allergens, net mass, nutrition, keeping, what gluten-free asks, cost", tags, body: labelRequestSchema, response: { 200: labelSchema, ...problems } } },
    async ({ body: { shelf, ...body } }) => computer.run("label", { ...body, packets: await onShelf(shelf) }, await kitchenDataFor(store, body)),
  ); // prettier-ignore
  app.post(
    "/api/scale-up",
    { ...forHelpers, schema: { summary: "From a test bake to a day's worth: batches, loads, packets, and what does not grow in proportion", tags, body: scaleUpRequestSchema, response: { 200: scaleUpSchema, ...problems } } },
    async ({ body }) => computer.run("scale-up", { ...body, packets: await onShelf(undefined) }, await kitchenDataFor(store, body)),
  ); // prettier-ignore
  app.get(
    "/api/symptoms",
    { ...forHelpers, schema: { summary: "What can be seen, felt and tasted, with its degrees in words", tags } },
    () => ({
      symptoms,
    }),
  );
  app.get("/api/causes", { ...forHelpers, schema: { summary: "What can go wrong, with sources; and what to try to tell it", tags } }, () => ({
    causes: causes.map(({ id, family, words, does, tell, experiment, source, confidence }) => ({ id, family, words, does, tell, experiment, source, confidence })),
    experiments,
  })); // prettier-ignore
}
