import { randomUUID } from "node:crypto";
import type { Transaction } from "sequelize";
import { Refusal } from "../errors";
import type { Database } from "./database";
import type { Models, ThingRow } from "./models";
import { checkVersion, sameBody } from "./pages";
import { readThing, THING_SHAPE } from "./shapes";

export interface StoredThing<B> {
  id: string;
  version: number;
  createdAt: string;
  updatedAt: string;
  body: B;
}

export interface ThingStore<B> {
  list(): Promise<StoredThing<B>[]>;
  read(id: string): Promise<StoredThing<B> | null>;
  /** The same id with the same body once more answers what is there. */
  create(id: string | undefined, body: B): Promise<StoredThing<B>>;
  change(id: string, version: number, body: B): Promise<StoredThing<B>>;
  remove(id: string, version: number): Promise<void>;
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

export function thingStore<B>({ write }: Database, model: Models["things"]["ovens"]): ThingStore<B> {
  const stored = storedFrom<B>;
  const find = async (id: string, transaction: Transaction): Promise<ThingRow> => {
    const row = await model.findByPk(id, { transaction });
    if (!row) throw new Refusal("not-found", `Nothing of yours has the id "${id}" here.`);
    return row;
  };
  return {
    list: async () =>
      (
        await model.findAll({
          order: [
            ["updatedAt", "DESC"],
            ["id", "ASC"],
          ],
        })
      ).map(stored),
    async read(id) {
      const row = await model.findByPk(id);
      return row ? stored(row) : null;
    },
    create: (id, body) =>
      write(async (transaction) => {
        const taken = id === undefined ? null : await model.findByPk(id, { transaction });
        if (taken && taken.version === 1 && sameBody(stored(taken).body, body)) return stored(taken);
        if (taken) throw new Refusal("conflict", `The id "${id}" is taken; choose another or leave it out.`);
        return stored(await model.create({ id: id ?? randomUUID(), version: 1, shape: THING_SHAPE, body }, { transaction }));
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
        await row.destroy({ transaction });
      }),
  };
}
