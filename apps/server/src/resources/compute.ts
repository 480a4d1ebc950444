import { analysisSchema, formulaRequestSchema, readingSchema, readRequestSchema } from "@uprise/contract";
import { analyse, analyseText, type Ingredient, readRecipe, shelfWith, type Shelf } from "@uprise/core";
import type { Store } from "../store/store";
import { type App, problems } from "../wire";

/** The built-in shelf with the kitchen's own ingredients. */
export async function shelfOf(store: Store): Promise<Shelf> {
  const own = await store.things<Ingredient>("ingredients").list();
  return shelfWith(own.map((entry) => entry.body));
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
      const { text, ...input } = body;
      const shelf = await shelfOf(store);
      return text !== undefined && !input.lines ? analyseText(text, input, shelf) : analyse(input, shelf);
    },
  );
}
