import type { Formula } from "@uprise/core";
import type { Transaction } from "sequelize";
import type { Database } from "./database";
import { type Models, type ThingTable, thingTables } from "./models";

/** Everything of one thing, as it is carried from kitchen to kitchen: times in ISO 8601. */
export interface WholeThing {
  table: ThingTable | "formulas";
  id: string;
  version: number;
  shape: number;
  createdAt: string;
  updatedAt: string;
  body: unknown;
  /** Of a formula: when it was taken off the list, and every version. */
  removedAt?: string | null;
  versions?: { number: number; reason: string; savedAt: string; body: unknown }[];
}

export interface WholeStore {
  /** Every thing, the tables in their order and by id. */
  all(): Promise<WholeThing[]>;
  find(table: WholeThing["table"], id: string): Promise<WholeThing | null>;
  /** Puts these in place of what is there, all or none; versions of formulas are added to those that are there. */
  put(things: readonly WholeThing[]): Promise<void>;
  /** Takes these out with all their versions, all or none. */
  drop(things: readonly Pick<WholeThing, "table" | "id">[]): Promise<void>;
}

/** What the list of formulas shows of a body, in columns of its own. */
type Columns = (formula: Formula) => { title: string; kind: string; lineCount: number; massG: number };

export function wholeStore({ write }: Database, models: Models, columnsOf: Columns): WholeStore {
  const { formulas, versions, things } = models;
  const iso = (date: Date): string => date.toISOString();
  const formulaFrom = async (row: InstanceType<Models["formulas"]>): Promise<WholeThing> => ({
    table: "formulas",
    id: row.id,
    version: row.version,
    shape: 1,
    createdAt: iso(row.createdAt),
    updatedAt: iso(row.updatedAt),
    body: row.body,
    removedAt: row.removedAt ? iso(row.removedAt) : null,
    versions: (await versions.findAll({ where: { formulaId: row.id }, order: [["number", "ASC"]] })).map(({ number, reason, savedAt, body }) => ({ number, reason, savedAt: iso(savedAt), body })),
  }); // prettier-ignore
  const thingFrom = (table: ThingTable, row: InstanceType<Models["things"]["ovens"]>): WholeThing => ({
    table,
    id: row.id,
    version: row.version,
    shape: row.shape,
    createdAt: iso(row.createdAt),
    updatedAt: iso(row.updatedAt),
    body: row.body,
  });
  const putOne = async (thing: WholeThing, transaction: Transaction): Promise<void> => {
    const { id, version, body, shape } = thing;
    const times = { createdAt: new Date(thing.createdAt), updatedAt: new Date(thing.updatedAt) };
    if (thing.table !== "formulas") {
      const model = things[thing.table];
      await model.destroy({ where: { id }, transaction });
      await model.create({ id, version, shape, body, ...times }, { transaction, silent: true });
      return;
    }
    const formula = body as Formula;
    const removedAt = thing.removedAt ? new Date(thing.removedAt) : null;
    const row = await formulas.findByPk(id, { transaction });
    const values = { version, ...columnsOf(formula), body: formula, removedAt, ...times };
    if (row) {
      row.set(values);
      row.changed("body", true);
      await row.save({ transaction, silent: true });
    } else await formulas.create({ id, ...values }, { transaction, silent: true });
    for (const one of thing.versions ?? []) {
      const there = await versions.findOne({ where: { formulaId: id, number: one.number }, transaction });
      if (!there)
        await versions.create({ formulaId: id, number: one.number, reason: one.reason, body: one.body as Formula, savedAt: new Date(one.savedAt) }, { transaction }); // prettier-ignore
    }
  };
  return {
    async all() {
      const rows: WholeThing[] = [];
      for (const row of await formulas.findAll({ order: [["id", "ASC"]] })) rows.push(await formulaFrom(row));
      for (const table of thingTables)
        for (const row of await things[table].findAll({ order: [["id", "ASC"]] })) rows.push(thingFrom(table, row));
      return rows;
    },
    async find(table, id) {
      if (table === "formulas") {
        const row = await formulas.findByPk(id);
        return row ? formulaFrom(row) : null;
      }
      const row = await things[table].findByPk(id);
      return row ? thingFrom(table, row) : null;
    },
    put: (all) =>
      write(async (transaction) => {
        for (const thing of all) await putOne(thing, transaction);
      }),
    drop: (all) =>
      write(async (transaction) => {
        for (const { table, id } of all) {
          if (table === "formulas") {
            await versions.destroy({ where: { formulaId: id }, transaction });
            await formulas.destroy({ where: { id }, transaction });
          } else await things[table].destroy({ where: { id }, transaction });
        }
      }),
  };
}
