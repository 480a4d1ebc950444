import type { Database } from "./database";
import type { Models } from "./models";

/** Something that happened at a bake: when it really happened (ISO 8601), what kind it is, and what belongs to that kind. */
export interface StoredEvent {
  id: string;
  bakeId: string;
  at: string;
  kind: string;
  body: unknown;
}

export interface EventStore {
  /** Appends what is not there yet; an id that is there already counts once, whatever comes with it. Gives the ids that are new. */
  append(events: readonly StoredEvent[]): Promise<string[]>;
  /** The events of a bake by `at` and then by id. */
  of(bakeId: string): Promise<StoredEvent[]>;
}

const EVENT_SHAPE = 1;

export function eventStore({ write }: Database, { events }: Models): EventStore {
  return {
    append: (sent) =>
      write(async (transaction) => {
        const fresh: string[] = [];
        for (const event of sent) {
          if (await events.findByPk(event.id, { transaction, attributes: ["id"] })) continue;
          await events.create({ ...event, shape: EVENT_SHAPE, receivedAt: new Date() }, { transaction });
          fresh.push(event.id);
        }
        return fresh;
      }),
    of: async (bakeId) =>
      (
        await events.findAll({
          where: { bakeId },
          order: [
            ["at", "ASC"],
            ["id", "ASC"],
          ],
        })
      ).map(({ id, at, kind, body }) => ({ id, bakeId, at, kind, body })),
  };
}
