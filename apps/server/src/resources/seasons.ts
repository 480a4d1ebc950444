import { seasonDesignRequestSchema, seasonDesignSchema, seasonInputSchema, seasonNextRequestSchema, seasonNextSchema, type StoredSeason, storedSeasonSchema, type Tasting } from "@uprise/contract"; // prettier-ignore
import { MOST_TRIALS, type Packet, type Season, type SeasonState, seasonSchema, seasonStateSchema, type Trial } from "@uprise/core";
import { forHelpers } from "../access/roles";
import type { Computer, Watch } from "../compute/pool";
import type { Store, StoredThing } from "../store/store";
import { type App, problems } from "../wire";
import { kitchenDataFor } from "./kitchen-data";
import { pageOfAll, resource, withoutBody } from "./resource";
import { toldAs } from "./stream";

/** `POST /api/season` tells how a season stands, by the log as it is; `/api/seasons` keeps what was wished and which bakes were chosen. */
export function seasonRoutes(app: App, store: Store, computer: Computer): void {
  const tags = ["log"];
  const rows = store.things<Season>("seasons");
  const from = (row: StoredThing<Season>): StoredSeason => ({ ...withoutBody(row), season: row.body });

  const shelf = async (): Promise<Packet[]> => (await store.things<Packet>("packets").list()).map(({ body }) => body);

  async function told(season: Season, watch?: Watch): Promise<SeasonState> {
    const [kitchen, { items }, rounds, packets] = await Promise.all([
      kitchenDataFor(store, season.formula),
      store
        .trials<Trial>()
        .page({ page: 1, pageSize: MOST_TRIALS, ...(season.formulaId === undefined ? {} : { q: season.formulaId }) }),
      store.things<Tasting>("tastings").list(),
      shelf(),
    ]);
    const asked = {
      season,
      trials: items.map(({ id, body }) => ({ id, trial: body })),
      tastings: rounds.map(({ body }) => body),
      packets,
    };
    return computer.run("season", asked, kitchen, watch);
  }

  app.post(
    "/api/season",
    { ...forHelpers, schema: { summary: "A season of trials as it stands: which bakes to make, what was learnt, what to bake next, when to stop", tags, body: seasonSchema, response: { 200: seasonStateSchema, ...problems } } },
    (request, reply) => toldAs("season", request, reply, (watch) => told(request.body, watch)) as Promise<SeasonState>,
  ); // prettier-ignore
  app.post(
    "/api/season/design",
    { ...forHelpers, schema: { summary: "The first bakes of a season: what is wished, what may move and how far, how many bakes", tags, body: seasonDesignRequestSchema, response: { 200: seasonDesignSchema, ...problems } } },
    async ({ body }) => computer.run("season-design", { ...body, packets: await shelf() }, await kitchenDataFor(store, body)),
  ); // prettier-ignore
  app.post(
    "/api/season/next",
    { ...forHelpers, schema: { summary: "What to bake next in a season, by what came out of its runs, and when to stop", tags, body: seasonNextRequestSchema, response: { 200: seasonNextSchema, ...problems } } },
    async ({ body }) => computer.run("season-next", { ...body, packets: await shelf() }, await kitchenDataFor(store, body.season)),
  ); // prettier-ignore
  resource(app, {
    path: "/api/seasons",
    what: "season",
    tag: "log",
    input: seasonInputSchema,
    answer: storedSeasonSchema,
    page: async (query) => pageOfAll(await rows.page(query), from),
    read: async (id) => rows.read(id).then((row) => (row ? from(row) : null)),
    create: async ({ id, ...season }) => from(await rows.create(id, season)),
    change: async (id, version, { id: _, ...season }) => from(await rows.change(id, version, season)),
    remove: (id, version) => rows.remove(id, version),
    restore: async (id) => from(await rows.restore(id)),
    isBuiltIn: () => false,
  });
}
