import { forBakers, forHelpers } from "../access/roles";
import { EventEmitter } from "node:events";
import {
  appendedSchema,
  bakeEventSchema,
  bakeEventsSchema,
  bakeInputSchema,
  type BakeInput,
  bakeSummarySchema,
  type BakeSummary,
  pageOf,
  pageQuerySchema,
  type StoredBake,
  storedBakeSchema,
} from "@uprise/contract";
import {
  type BakeAsked,
  type BakeEvent,
  bakeRecordSchema,
  type BakeRecord,
  foldBake,
  inOrderOfTime,
  type Packet,
  usedUp,
  wentIn,
} from "@uprise/core";
import { z } from "zod";
import type { OvenProfile } from "@uprise/contract";
import type { Computer } from "../compute/pool";
import { Refusal } from "../errors";
import type { ArrivedEvent } from "../store/events";
import type { Store, StoredThing } from "../store/store";
import { type App, etag, idParams, problems, versionOf } from "../wire";
import { kitchenDataFor } from "./kitchen-data";
import { withoutBody } from "./resource";
import { streamTo } from "./stream";

/** More than this of one bake is no bake. */
const MOST_EVENTS = 20_000;

const eventFrom = ({ id, at, kind, body }: ArrivedEvent): BakeEvent[] => {
  const parsed = bakeEventSchema.safeParse({ ...(body as object), id, at, kind });
  return parsed.success ? [parsed.data] : [];
};

/** Tells who listens that something of a bake arrived. */
export const bakeNews = new EventEmitter().setMaxListeners(0);

/** Everything that happened at a bake, in its order. */
export const bakeEventsOf = async (store: Store, id: string): Promise<BakeEvent[]> =>
  (await store.events.of(id)).flatMap(eventFrom).sort(inOrderOfTime);

/** Bakes as they are laid out, and everything that happens at them: only appended, told at once to whoever listens. */
export function bakeRoutes(app: App, store: Store, computer: Computer): void {
  const tags = ["live bake"];
  const rows = store.things<BakeRecord>("bakes");
  const recordOf = (row: StoredThing<BakeRecord>): BakeRecord => bakeRecordSchema.parse(row.body);
  const find = async (id: string, removedToo = false): Promise<StoredThing<BakeRecord>> => {
    const row = await rows.read(id, removedToo);
    if (!row) throw new Refusal("not-found", `No bake has the id "${id}". GET /api/bakes lists them.`);
    return row;
  };
  const whole = async (row: StoredThing<BakeRecord>): Promise<StoredBake> => {
    const arrived = await store.events.of(row.id);
    const events = arrived.flatMap(eventFrom).sort(inOrderOfTime);
    const record = recordOf(row);
    return { ...withoutBody(row), record, events, phase: foldBake(record, events).phase, last: Math.max(0, ...arrived.map((event) => event.arrived)) }; // prettier-ignore
  };
  const summary = async (row: StoredThing<BakeRecord>): Promise<BakeSummary> => {
    const { record, events, phase } = await whole(row);
    const { title, formula, planId, planBakeId, batch, rehearsal } = record;
    const { startedAt } = foldBake(record, events);
    return { ...withoutBody(row), title, kind: formula.kind, phase, startedAt, ...(planId ? { planId } : {}), ...(planBakeId ? { planBakeId } : {}), ...(batch ? { batch } : {}), rehearsal: rehearsal !== undefined }; // prettier-ignore
  };
  app.get(
    "/api/bakes",
    { ...forHelpers, schema: { summary: "List bakes, the newest first", tags, querystring: pageQuerySchema, response: { 200: pageOf(bakeSummarySchema), ...problems } } },
    async ({ query }) => {
      const { items, ...rest } = await rows.page(query);
      return { ...rest, items: await Promise.all(items.map(summary)) };
    },
  ); // prettier-ignore
  app.post(
    "/api/bakes",
    { ...forHelpers, schema: { summary: "Lay out a bake: the formula as it stands, its steps, what the oven should do", tags, body: bakeInputSchema, response: { 201: storedBakeSchema, ...problems } } },
    async ({ body }, reply) => {
      const there = body.id === undefined ? null : await rows.read(body.id);
      // Sent twice, laid out once.
      if (there) return reply.status(201).send(await whole(there));
      const row = await rows.create(body.id, await layOut(store, computer, body));
      return etag(reply, row.version).status(201).header("location", `/api/bakes/${row.id}`).send(await whole(row));
    },
  ); // prettier-ignore
  app.get("/api/bakes/:id", { ...forHelpers, schema: { summary: "A bake and everything that happened", tags, params: idParams, response: { 200: storedBakeSchema, ...problems } } }, async ({ params }, reply) => {
    const row = await find(params.id);
    return etag(reply, row.version).send(await whole(row));
  }); // prettier-ignore
  app.put(
    "/api/bakes/:id",
    { ...forBakers, schema: { summary: "Name a bake anew; what happened stays", tags, params: idParams, body: z.object({ title: z.string().trim().min(1).max(160) }), response: { 200: storedBakeSchema, ...problems } } },
    async (request, reply) => {
      const row = await find(request.params.id);
      const saved = await rows.change(row.id, versionOf(request), { ...recordOf(row), title: request.body.title });
      return etag(reply, saved.version).send(await whole(saved));
    },
  ); // prettier-ignore
  app.delete("/api/bakes/:id", { ...forBakers, schema: { summary: "Take a bake off the list; its events stay", tags, params: idParams, response: { 204: z.null(), ...problems } } }, async (request, reply) => {
    await rows.remove(request.params.id, versionOf(request));
    return reply.status(204).send(null);
  }); // prettier-ignore
  app.post(
    "/api/bakes/:id/restore",
    { ...forBakers, schema: { summary: "Bring a removed bake back", tags, params: idParams, response: { 200: storedBakeSchema, ...problems } } },
    async ({ params }, reply) => {
      const row = await rows.restore(params.id);
      return etag(reply, row.version).send(await whole(row));
    },
  ); // prettier-ignore
  app.post(
    "/api/bakes/:id/events",
    { ...forHelpers, schema: { summary: "Append what happened; an id that is there counts once, one that is not as described is refused by itself", tags, params: idParams, body: bakeEventsSchema, response: { 200: appendedSchema, ...problems } } },
    async ({ params, body, log }) => {
      // What happened at a bake that was taken off meanwhile is kept with it.
      const row = await find(params.id, true);
      const { good, refused } = sorted(body.events);
      if (good.length === 0)
        throw new Refusal("invalid", refused[0]?.message ?? "An event with its id, its time and its kind would be right.", { errors: refused.map(({ at, message }) => ({ path: `events.${at}`, message })) });
      if ((await store.events.count(row.id)) + good.length > MOST_EVENTS)
        throw new Refusal("unprocessable", `This bake has ${MOST_EVENTS} events already; no bake has more.`);
      const fresh = await store.events.append(good.map(({ id, at, kind, ...rest }) => ({ id, bakeId: row.id, at: new Date(at).toISOString(), kind, body: rest })));
      // What happened is on the disk; a shelf that could not be counted down takes nothing of that back.
      if (fresh.length > 0) await useUp(store, row.id, recordOf(row)).catch((error: unknown) => log.error(error, "packets were not counted down"));
      if (fresh.length > 0) bakeNews.emit(row.id);
      return { fresh, refused: refused.map(({ id, message }) => ({ id, message })) };
    },
  ); // prettier-ignore
  app.get("/api/bakes/:id/stream", { ...forHelpers, exposeHeadRoute: false, schema: { summary: "What happens, as server-sent events; Last-Event-ID goes on from there", tags, params: idParams, querystring: z.object({ last: z.coerce.number().int().min(0).optional() }) } }, async (request, reply) => {
    const { id } = await find(request.params.id);
    const header = Number(request.headers["last-event-id"]);
    let last = Number.isFinite(header) && request.headers["last-event-id"] !== undefined ? header : (request.query.last ?? 0);
    const stream = streamTo(reply);
    let asking = Promise.resolve();
    const tell = (): void => {
      // One question at a time, so that nothing is told twice or out of order.
      asking = asking.then(async () => {
        for (const event of await store.events.since(id, last)) {
          last = event.arrived;
          for (const data of eventFrom(event)) stream.send(data, String(last));
        }
      }).catch(() => stream.end());
    };
    bakeNews.on(id, tell);
    stream.onEnd(() => bakeNews.off(id, tell));
    tell();
    return reply;
  }); // prettier-ignore
}

/** The event by which a bake takes from the shelf: one for each, so that it is taken once. */
const USED = "used-up";

/** Out of the oven, a bake has used up what went into it: packets that say what they hold are counted down, once, and the bake says which. A rehearsal eats nothing. */
async function useUp(store: Store, bakeId: string, record: BakeRecord): Promise<void> {
  if (record.rehearsal) return;
  const events = await bakeEventsOf(store, bakeId);
  const state = foldBake(record, events);
  const id = `${bakeId}.${USED}`.slice(-80);
  if (state.outAt === null || events.some((event) => event.id === id)) return;
  const packets = store.things<Packet>("packets");
  const stored = await packets.list();
  const taken = usedUp(
    stored.map((row) => ({ id: row.id, packet: row.body })),
    wentIn(record, state),
  );
  const nameOf = (packetId: string): string => stored.find((row) => row.id === packetId)?.body.name ?? packetId;
  const event = {
    id,
    bakeId,
    at: state.outAt,
    kind: "used",
    body: {
      packets: taken.map(({ id: packetId, usedG }) => ({ packetId, name: nameOf(packetId), grams: Math.round(10 * usedG) / 10 })),
    },
  };
  // Whoever writes it first takes from the shelf; who comes second finds it written.
  if ((await store.events.append([event])).length === 0) return;
  for (const { id: packetId, usedG } of taken) await lessOf(packets, packetId, usedG);
}

/** Somebody may write on the same packet at the same moment: it is read again, a few times. */
const TRIES = 4;
async function lessOf(packets: ReturnType<Store["things"]>, id: string, usedG: number): Promise<void> {
  for (let n = 1; ; n++) {
    const row = await packets.read(id);
    const { leftG } = (row?.body ?? {}) as Partial<Packet>;
    if (!row || leftG === undefined) return;
    try {
      await packets.change(id, row.version, { ...(row.body as Packet), leftG: Math.max(0, Math.round(10 * (leftG - usedG)) / 10) });
      return;
    } catch (error) {
      if (n >= TRIES) throw error;
    }
  }
}

/** Events that are as described, and what is wrong with the others; one does not take its neighbours with it. */
function sorted(sent: readonly unknown[]): { good: BakeEvent[]; refused: { at: number; id: string; message: string }[] } {
  const good: BakeEvent[] = [];
  const refused: { at: number; id: string; message: string }[] = [];
  for (const [at, event] of sent.entries()) {
    const parsed = bakeEventSchema.safeParse(event);
    if (parsed.success) good.push(parsed.data);
    else {
      const issue = parsed.error.issues[0];
      const id = z.object({ id: z.string().max(80) }).safeParse(event).data?.id ?? "";
      refused.push({ at, id, message: `${issue?.path.join(".") ?? ""}${issue?.path.length ? ": " : ""}${issue?.message ?? "It is not as described."}` });
    }
  }
  return { good, refused };
} // prettier-ignore

/** A bake laid out as it was asked for; one that began while nobody answered brings its formula and version, and a rehearsal its own beginning. */
async function layOut(store: Store, computer: Computer, { id: _, formula: sent, formulaVersion: sentVersion, ovenId, rehearsal, ...of }: BakeInput): Promise<BakeRecord> {
  const found = of.formulaId === undefined ? null : await store.formulas.find(of.formulaId);
  const formula = sent ?? found?.formula;
  if (!formula) throw new Refusal("not-found", `No formula has the id "${of.formulaId}". GET /api/formulas lists them.`);
  const oven = ovenId ?? formula.oven.ovenId;
  const profile = oven === undefined ? null : await store.things<OvenProfile>("ovens").read(oven);
  const formulaVersion = sent ? sentVersion : found?.version;
  const asked: BakeAsked = {
    ...of,
    formula,
    ...(formulaVersion === undefined ? {} : { formulaVersion }),
    ...(ovenId === undefined ? {} : { ovenId }),
    warmMinutes: profile?.body.warmMinutes,
    ...(rehearsal ? { rehearsal: { from: rehearsal.from ?? new Date().toISOString(), factor: rehearsal.factor } } : {}),
  };
  return computer.run("counter", asked, await kitchenDataFor(store, { ...formula, oven: { ...formula.oven, ovenId: oven } }));
} // prettier-ignore
