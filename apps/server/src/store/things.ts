import { randomUUID } from "node:crypto";
import type { Transaction } from "sequelize";
import { Refusal } from "../errors";
import type { Database } from "./database";
import { isRemovable, type Models, type ThingRow, type ThingTable } from "./models";
import { checkVersion, digestOf, type Page, type Query } from "./pages";
import { readThing, THING_SHAPE } from "./shapes";

export interface StoredThing<B> {
  id: string;
  version: number;
  createdAt: string;
  updatedAt: string;
  body: B;
}

export interface ThingStore<B> {
  /** All of them, what was written last first: for what a shelf holds. What grows by the day is asked for by the page. */
  list(): Promise<StoredThing<B>[]>;
  /** A page, in the same order; only its own rows are read whole. */
  page(query: Pick<Query, "page" | "pageSize">): Promise<Page<StoredThing<B>>>;
  /** One that is there; one that was removed only where that is asked for. */
  read(id: string, removedToo?: boolean): Promise<StoredThing<B> | null>;
  /** The same call once more answers what has become of what it made. */
  create(id: string | undefined, body: B): Promise<StoredThing<B>>;
  change(id: string, version: number, body: B): Promise<StoredThing<B>>;
  /** Takes it off; `restore` brings it back, but for devices and what was learnt, which are gone. */
  remove(id: string, version: number): Promise<void>;
  restore(id: string): Promise<StoredThing<B>>;
}

/** A row as the thing that it is, its body in the newest shape. */
export const storedFrom = <B>(
  row: Pick<ThingRow, "id" | "version" | "createdAt" | "updatedAt" | "body" | "shape">,
): StoredThing<B> => ({
  id: row.id,
  version: row.version,
  createdAt: row.createdAt.toISOString(),
  updatedAt: row.updatedAt.toISOString(),
  body: readThing<B>(row.body, row.shape),
});

const onAShelf: ReadonlySet<ThingTable> = new Set<ThingTable>(["ingredients", "vessels", "ovens", "packets"]);

export function thingStore<B>({ write }: Database, table: ThingTable, model: Models["things"]["ovens"]): ThingStore<B> {
  const stored = storedFrom<B>;
  const kept = isRemovable(table);
  const there = kept ? { removedAt: null } : {};
  const find = async (id: string, transaction: Transaction, removedToo = false): Promise<ThingRow> => {
    const row = await model.findOne({ where: { id, ...(removedToo ? {} : there) }, transaction });
    if (!row) throw new Refusal("not-found", `Nothing of yours has the id "${id}" here.`);
    return row;
  };
  const newest: [string, string][] = [
    ["updatedAt", "DESC"],
    ["id", "ASC"],
  ];
  return {
    list: async () => (await model.findAll({ where: there, order: newest })).map(stored),
    async page({ page, pageSize }) {
      const [total, ids] = await Promise.all([
        model.count({ where: there }),
        model.findAll({
          attributes: ["id"],
          where: there,
          order: newest,
          limit: pageSize,
          offset: (page - 1) * pageSize,
          raw: true,
        }),
      ]);
      const rows = await model.findAll({ where: { id: ids.map(({ id }) => id) }, order: newest });
      return { items: rows.map(stored), page, pageSize, total };
    },
    async read(id, removedToo = false) {
      const row = await model.findOne({ where: { id, ...(removedToo ? {} : there) } });
      return row ? stored(row) : null;
    },
    create: (id, body) =>
      write(async (transaction) => {
        const taken = id === undefined ? null : await model.findByPk(id, { transaction });
        const made = digestOf(body);
        const again = taken !== null && (taken.made === made || (taken.version === 1 && digestOf(stored(taken).body) === made));
        const removed = kept && taken?.removedAt != null;
        if (again && !removed) return stored(taken);
        // What stands on a shelf is put there again; an event of the day that was taken off is brought back on purpose only.
        if (again && onAShelf.has(table)) return stored(await taken.update({ removedAt: null }, { transaction }));
        if (again)
          throw new Refusal(
            "conflict",
            `What had the id "${id}" was removed. POST …/${id}/restore brings it back; another id makes a new one.`,
          );
        if (taken && removed) {
          // Something else under the name of what is gone: its next version.
          taken.set({ version: taken.version + 1, shape: THING_SHAPE, body, made, removedAt: null });
          taken.changed("body", true);
          return stored(await taken.save({ transaction }));
        }
        if (taken) throw new Refusal("conflict", `The id "${id}" is taken; choose another or leave it out.`);
        return stored(
          await model.create({ id: id ?? randomUUID(), version: 1, shape: THING_SHAPE, body, made } as never, { transaction }),
        );
      }),
    change: (id, version, body) =>
      write(async (transaction) => {
        const row = await find(id, transaction);
        checkVersion(row.version, version, stored(row).body);
        row.set({ version: version + 1, shape: THING_SHAPE, body });
        row.changed("body", true);
        return stored(await row.save({ transaction }));
      }),
    remove: (id, version) =>
      write(async (transaction) => {
        const row = await find(id, transaction);
        checkVersion(row.version, version, stored(row).body);
        if (kept) await row.update({ removedAt: new Date() }, { transaction });
        else await row.destroy({ transaction });
      }),
    restore: (id) =>
      write(async (transaction) => {
        const row = await find(id, transaction, true);
        return stored(kept ? await row.update({ removedAt: null }, { transaction }) : row);
      }),
  };
}
