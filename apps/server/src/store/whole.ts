import type { Formula } from "@uprise/core";
import { Op, type Transaction } from "sequelize";
import type { Database } from "./database";
import { appendEvents, type StoredEvent } from "./events";
import { isRemovable, type Models, type ThingTable, thingTables } from "./models";

/** One thing as it is carried from kitchen to kitchen: times in ISO 8601; the versions of a formula go by themselves. */
export interface WholeThing {
  table: ThingTable | "formulas";
  id: string;
  version: number;
  shape: number;
  createdAt: string;
  updatedAt: string;
  body: unknown;
  /** When it was taken off. */
  removedAt?: string | null;
  /** Digest of the body that it was created with. */
  made?: string | null;
}

export interface WholeVersion {
  number: number;
  reason: string;
  savedAt: string;
  body: unknown;
}

export type WholeKey = Pick<WholeThing, "table" | "id">;

/** What may be done within one restore: all of it or none. */
export interface Hand {
  find(key: WholeKey): Promise<WholeThing | null>;
  /** Puts a thing in place of what is there. */
  put(thing: WholeThing): Promise<void>;
  /** Takes a thing out as if it had never been. */
  drop(key: WholeKey): Promise<void>;
  versionNumbers(formulaId: string): Promise<number[]>;
  /** Adds versions whose numbers are not there. */
  addVersions(formulaId: string, versions: readonly WholeVersion[]): Promise<void>;
  /** Takes out the versions but for these numbers. */
  keepVersions(formulaId: string, numbers: readonly number[]): Promise<void>;
  append(events: readonly StoredEvent[]): Promise<string[]>;
}

export interface WholeStore {
  /** What there is, by table in their order and by id; a page at a time. */
  keys(): AsyncGenerator<WholeKey>;
  count(): Promise<number>;
  find(key: WholeKey): Promise<WholeThing | null>;
  /** The versions of a formula in their order, one at a time. */
  versions(formulaId: string): AsyncGenerator<WholeVersion>;
  /** Does a restore in one transaction, with nothing written in between. */
  inOne<T>(work: (hand: Hand) => Promise<T>): Promise<T>;
}

const PAGE = 500;
const VERSIONS_AT_ONCE = 10;
const iso = (date: Date): string => date.toISOString();
const orNull = (date: Date | null | undefined): string | null => (date ? iso(date) : null);

/** What the list of formulas shows of a body, in columns of its own. */
type Columns = (formula: Formula) => { title: string; kind: string; lineCount: number; massG: number; search: string };

export function wholeStore({ write }: Database, models: Models, columnsOf: Columns): WholeStore {
  const { formulas, versions, things } = models;
  const tables: WholeThing["table"][] = ["formulas", ...thingTables];
  const modelOf = (table: WholeThing["table"]) => (table === "formulas" ? (formulas as unknown as (typeof things)["ovens"]) : things[table]);

  const find = async ({ table, id }: WholeKey, transaction?: Transaction): Promise<WholeThing | null> => {
    const within = transaction ? { transaction } : {};
    if (table === "formulas") {
      const row = await formulas.findByPk(id, within);
      return row && { table, id, version: row.version, shape: 1, createdAt: iso(row.createdAt), updatedAt: iso(row.updatedAt), body: row.body, removedAt: orNull(row.removedAt) };
    }
    const row = await things[table].findByPk(id, within);
    return row && { table, id, version: row.version, shape: row.shape, createdAt: iso(row.createdAt), updatedAt: iso(row.updatedAt), body: row.body, made: row.made, removedAt: orNull(row.removedAt) };
  };

  const put = async (thing: WholeThing, transaction: Transaction): Promise<void> => {
    const { table, id, version, body, shape, made = null } = thing;
    const times = { createdAt: new Date(thing.createdAt), updatedAt: new Date(thing.updatedAt) };
    const removedAt = thing.removedAt ? new Date(thing.removedAt) : null;
    const values = table === "formulas"
      ? { version, ...columnsOf(body as Formula), body, removedAt, ...times }
      : { version, shape, body, made, ...(isRemovable(table) ? { removedAt } : {}), ...times };
    const model = modelOf(table);
    const row = await model.findByPk(id, { transaction });
    if (!row) return void (await model.create({ id, ...values } as never, { transaction, silent: true }));
    row.set(values as never);
    row.changed("body", true);
    // Times are those of the thing, not of the restore.
    row.changed("createdAt", true);
    row.changed("updatedAt", true);
    await row.save({ transaction, silent: true });
  };

  const handIn = (transaction: Transaction): Hand => ({
    find: (key) => find(key, transaction),
    put: (thing) => put(thing, transaction),
    async drop({ table, id }) {
      if (table === "formulas") await versions.destroy({ where: { formulaId: id }, transaction });
      await modelOf(table).destroy({ where: { id }, transaction });
    },
    versionNumbers: async (formulaId) =>
      (await versions.findAll({ attributes: ["number"], where: { formulaId }, order: [["number", "ASC"]], transaction, raw: true })).map(({ number }) => number),
    async addVersions(formulaId, all) {
      for (const { number, reason, savedAt, body } of all)
        await versions.findOrCreate({ where: { formulaId, number }, defaults: { formulaId, number, reason, savedAt: new Date(savedAt), body: body as Formula }, transaction });
    },
    async keepVersions(formulaId, numbers) {
      await versions.destroy({ where: { formulaId, number: { [Op.notIn]: [...numbers] } }, transaction });
    },
    append: (events) => appendEvents(models, events, transaction),
  });

  return {
    async *keys() {
      for (const table of tables) {
        for (let last = ""; ; ) {
          const page = await modelOf(table).findAll({ attributes: ["id"], where: { id: { [Op.gt]: last } }, order: [["id", "ASC"]], limit: PAGE, raw: true });
          for (const { id } of page) yield { table, id };
          if (page.length < PAGE) break;
          last = page.at(-1)?.id ?? "";
        }
      }
    },
    count: async () => (await Promise.all(tables.map((table) => modelOf(table).count()))).reduce((sum, n) => sum + n, 0),
    find,
    async *versions(formulaId) {
      for (let last = 0; ; ) {
        const rows = await versions.findAll({ where: { formulaId, number: { [Op.gt]: last } }, order: [["number", "ASC"]], limit: VERSIONS_AT_ONCE });
        for (const { number, reason, savedAt, body } of rows) yield { number, reason, savedAt: iso(savedAt), body };
        if (rows.length < VERSIONS_AT_ONCE) return;
        last = rows.at(-1)?.number ?? last;
      }
    },
    inOne: (work) => write((transaction) => work(handIn(transaction))),
  };
} // prettier-ignore
