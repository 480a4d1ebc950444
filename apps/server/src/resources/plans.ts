import { forHelpers } from "../access/roles";
import {
  planInputSchema,
  planRequestSchema,
  type PlanRequest,
  planSchema,
  type StoredPlan,
  storedPlanSchema,
} from "@uprise/contract";
import type { Formula, InputLine, Plan } from "@uprise/core";
import { calendarOf } from "./calendar";
import type { Computer, Watch } from "../compute/pool";
import type { Asked, KitchenData } from "../compute/tasks";
import { Refusal } from "../errors";
import type { Store, StoredThing } from "../store/store";
import { type App, idParams, problems } from "../wire";
import { entriesFor } from "./kitchen-data";
import { pageOfAll, resource, withoutBody } from "./resource";
import { toldAs } from "./stream";
import type { Ingredient } from "@uprise/core";

interface StoredDay {
  title: string;
  day: PlanRequest;
}

/** A day as it is computed: the formulas that its bakes name are read, and what a bake says of its own goes before them. */
export async function askedDay(store: Store, day: PlanRequest): Promise<{ day: Asked["plan"]; kitchen: KitchenData }> {
  const found = new Map<string, Formula>();
  for (const [k, { formulaId }] of day.bakes.entries()) {
    if (formulaId === undefined || found.has(formulaId)) continue;
    const stored = await store.formulas.find(formulaId);
    if (!stored)
      throw new Refusal("not-found", `No formula has the id "${formulaId}". GET /api/formulas lists them.`, {
        errors: [{ path: `bakes.${k}.formulaId`, message: "The id of a formula." }],
      });
    found.set(formulaId, stored.formula);
  }
  const bakes = day.bakes.map((bake) => {
    const { id, title, formulaId, pieces, batches, vessels, readyBy, earliest, heldAt, done, ...own } = bake;
    const formula = found.get(formulaId ?? "");
    const base = formula
      ? { lines: formula.lines, components: formula.components, kind: formula.kind, vessel: formula.vessel, oven: formula.oven, process: formula.process, measures: formula.measures } // prettier-ignore
      : {};
    const said = Object.fromEntries(Object.entries(own).filter(([, value]) => value !== undefined));
    return {
      id,
      title: title ?? formula?.title ?? id,
      input: { ...base, ...said },
      // What is said of the bake itself is of one bake; a formula that is split is baked in its parts.
      ...(formula?.parts && formula.parts.length > 0 && Object.keys(said).length === 0 ? { split: formula } : {}),
      pieces,
      batches,
      vessels,
      readyBy,
      earliest,
      heldAt,
      done,
    };
  });
  const lines = bakes.flatMap(({ input }) => (input as { lines?: InputLine[] }).lines ?? []);
  const [own, formulas] = await Promise.all([store.things<Ingredient>("ingredients").list(), entriesFor(store, lines)]);
  return { day: { ...day, bakes }, kitchen: { ingredients: own.map(({ body }) => body), formulas, ovens: [] } };
}

/** `POST /api/plan` computes a day; `/api/plans` keeps what was asked, and gives it as a calendar. */
export function planRoutes(app: App, store: Store, computer: Computer): void {
  const tags = ["plan"];
  const planned = async (request: PlanRequest, watch?: Watch): Promise<Plan> => {
    const { day, kitchen } = await askedDay(store, request);
    return computer.run("plan", day, kitchen, watch);
  };
  app.post(
    "/api/plan",
    { ...forHelpers, schema: { summary: "Plan a day of bakes: who does what when, what is late, what to give up", tags, body: planRequestSchema, response: { 200: planSchema, ...problems } } },
    (request, reply) => toldAs("plan", request, reply, (watch) => planned(request.body, watch)) as Promise<Plan>,
  ); // prettier-ignore
  const rows = store.things<StoredDay>("plans");
  const from = (row: StoredThing<StoredDay>): StoredPlan => ({ ...withoutBody(row), ...row.body });
  resource(app, {
    path: "/api/plans",
    what: "plan",
    tag: "plan",
    input: planInputSchema,
    answer: storedPlanSchema,
    page: async (query) => pageOfAll(await rows.page(query), from),
    read: async (id) => rows.read(id).then((row) => (row ? from(row) : null)),
    create: async ({ id, title, day }) => from(await rows.create(id, { title, day })),
    change: async (id, version, { title, day }) => from(await rows.change(id, version, { title, day })),
    remove: (id, version) => rows.remove(id, version),
    restore: async (id) => from(await rows.restore(id)),
    isBuiltIn: () => false,
  });
  app.get(
    "/api/plans/:id/calendar.ics",
    { ...forHelpers, schema: { summary: "A planned day as a calendar (RFC 5545), with alarms", tags, params: idParams } },
    async ({ params }, reply) => {
      const row = await rows.read(params.id);
      if (!row) throw new Refusal("not-found", `No plan has the id "${params.id}". GET /api/plans lists them.`);
      const text = calendarOf(row.id, row.body.title, await planned(row.body.day), row.version);
      return reply.type("text/calendar; charset=utf-8").header("content-disposition", `attachment; filename="${row.id}.ics"`).send(text); // prettier-ignore
    },
  );
}
