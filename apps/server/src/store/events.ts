import { literal, Op, type Transaction } from "sequelize";
import type { Database } from "./database";
import type { EventRow, Models } from "./models";

/** Something that happened at a bake: when it really happened (ISO 8601), what kind it is, and what belongs to that kind. */
export interface StoredEvent {
  id: string;
  bakeId: string;
  at: string;
  kind: string;
  body: unknown;
}

/** An event with its number in the order in which events arrived. */
export interface ArrivedEvent extends StoredEvent {
  arrived: number;
}

export interface EventStore {
  /** Appends what is not there yet; an id that the bake has already counts once, whatever comes with it. Gives the ids that are new. */
  append(events: readonly StoredEvent[]): Promise<string[]>;
  /** The events of a bake by `at` and then by id. */
  of(bakeId: string): Promise<ArrivedEvent[]>;
  /** Those that arrived after a number, in the order in which they did. */
  since(bakeId: string, arrived: number): Promise<ArrivedEvent[]>;
  count(bakeId: string): Promise<number>;
}

const EVENT_SHAPE = 1;
/** Ids are made on devices: two bakes may well have the same. */
const keyOf = (bakeId: string, id: string): string => `${bakeId}/${id}`;
const attributes = { include: [[literal("rowid"), "arrived"] as [ReturnType<typeof literal>, string]] };

/** Appends what is not there yet, within a transaction; gives the ids that are new. */
export async function appendEvents({ events }: Models, sent: readonly StoredEvent[], transaction: Transaction): Promise<string[]> {
  const fresh: string[] = [];
  for (const event of sent) {
    const id = keyOf(event.bakeId, event.id);
    if (await events.findByPk(id, { transaction, attributes: ["id"] })) continue;
    await events.create({ ...event, id, shape: EVENT_SHAPE, receivedAt: new Date() }, { transaction });
    fresh.push(event.id);
  }
  return fresh;
}

export function eventStore({ write }: Database, models: Models): EventStore {
  const { events } = models;
  const from = (row: EventRow): ArrivedEvent => ({
    id: row.id.startsWith(`${row.bakeId}/`) ? row.id.slice(row.bakeId.length + 1) : row.id,
    bakeId: row.bakeId,
    at: row.at,
    kind: row.kind,
    body: row.body,
    arrived: Number(row.get("arrived")),
  });
  return {
    append: (sent) => write((transaction) => appendEvents(models, sent, transaction)),
    of: async (bakeId) =>
      (
        await events.findAll({
          attributes,
          where: { bakeId },
          order: [
            ["at", "ASC"],
            ["id", "ASC"],
          ],
        })
      ).map(from),
    since: async (bakeId, arrived) =>
      (await events.findAll({ attributes, where: { bakeId, [Op.and]: literal(`rowid > ${Math.max(0, Math.trunc(arrived))}`) }, order: literal("rowid ASC") })).map(from), // prettier-ignore
    count: (bakeId) => events.count({ where: { bakeId } }),
  };
}
