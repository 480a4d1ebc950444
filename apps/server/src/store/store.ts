import { randomUUID } from "node:crypto";
import type { FormulaSummary, FormulaVersion, StoredFormula } from "@uprise/contract";
import type { Formula } from "@uprise/core";
import { Op, type Transaction } from "sequelize";
import { Refusal } from "../errors";
import { type Database, openDatabase } from "./database";
import { migrate } from "./migrations";
import { defineModels, type FormulaRow, type Models, type ThingRow } from "./models";

export interface Page<T> {
  items: T[];
  page: number;
  pageSize: number;
  total: number;
}

export interface Query {
  q?: string | undefined;
  page: number;
  pageSize: number;
}

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
  create(id: string | undefined, body: B): Promise<StoredThing<B>>;
  change(id: string, version: number, body: B): Promise<StoredThing<B>>;
  remove(id: string, version: number): Promise<void>;
}

export interface Store {
  formulas: FormulaStore;
  things<B>(name: keyof Models["things"]): ThingStore<B>;
  isEmpty(): Promise<boolean>;
  close(): Promise<void>;
}

export interface FormulaStore {
  list(query: Query): Promise<Page<FormulaSummary>>;
  read(id: string): Promise<StoredFormula>;
  /** The same, or null where there is none. */
  find(id: string): Promise<StoredFormula | null>;
  create(formula: Formula, reason: string, id?: string): Promise<StoredFormula>;
  /** Saves a new version. Refuses with `stale` and the stored formula when `version` is not the current one. */
  change(id: string, version: number, formula: Formula, reason: string): Promise<StoredFormula>;
  /** Takes a formula off the list; `restore` brings it back with all its versions. */
  remove(id: string, version: number): Promise<void>;
  restore(id: string): Promise<StoredFormula>;
  versions(id: string, query: Query): Promise<Page<FormulaVersion>>;
}

/** Opens the store of a data folder and brings it to the newest shape. */
export async function openStore(dataFolder: string): Promise<Store> {
  const database = openDatabase(dataFolder);
  await migrate(database);
  const models = defineModels(database.sequelize);
  return {
    formulas: formulaStore(database, models),
    things: (name) => thingStore(database, models.things[name]),
    isEmpty: async () => (await models.formulas.count()) === 0,
    close: () => database.close(),
  };
}

const noFormula = (id: string): Refusal => new Refusal("not-found", `No formula has the id "${id}". GET /api/formulas lists them.`);

const storedFormula = (row: FormulaRow): StoredFormula => ({
  id: row.id,
  version: row.version,
  createdAt: row.createdAt.toISOString(),
  updatedAt: row.updatedAt.toISOString(),
  formula: row.body,
});

function checkVersion(current: number, sent: number, stored: unknown): void {
  if (current === sent) return;
  throw new Refusal(
    "stale",
    `This was version ${sent} for you, and is version ${current} now. What you sent is not lost: read the current one, compare, and send again with If-Match "${current}".`,
    { current: stored },
  );
}

function formulaStore({ write }: Database, { formulas, versions }: Models): FormulaStore {
  const find = async (id: string, transaction: Transaction | null = null, removed = false): Promise<FormulaRow> => {
    const row = await formulas.findByPk(id, { transaction });
    if (!row || (row.removedAt !== null && !removed)) throw noFormula(id);
    return row;
  };
  const keep = (row: FormulaRow, reason: string, transaction: Transaction): Promise<unknown> =>
    versions.create({ formulaId: row.id, number: row.version, reason, body: row.body, savedAt: new Date() }, { transaction });
  return {
    async list({ q, page, pageSize }) {
      const like = `%${(q ?? "").replace(/[\\%_]/g, "")}%`;
      const where = { removedAt: null, ...(q ? { title: { [Op.like]: like } } : {}) };
      const { rows, count } = await formulas.findAndCountAll({
        where,
        order: [
          ["updatedAt", "DESC"],
          ["id", "ASC"],
        ],
        limit: pageSize,
        offset: (page - 1) * pageSize,
      });
      const items = rows.map((row): FormulaSummary => {
        const { formula, ...rest } = storedFormula(row);
        return {
          ...rest,
          title: row.title,
          kind: formula.kind,
          lines: formula.lines.length,
          massG: formula.lines.reduce((g, line) => g + line.grams.mid, 0),
        };
      });
      return { items, page, pageSize, total: count };
    },
    async read(id) {
      return storedFormula(await find(id));
    },
    async find(id) {
      const row = await formulas.findByPk(id);
      return row && row.removedAt === null ? storedFormula(row) : null;
    },
    create: (formula, reason, id) =>
      write(async (transaction) => {
        const taken = id === undefined ? null : await formulas.findByPk(id, { transaction });
        if (taken)
          throw new Refusal("conflict", `A formula with the id "${id}" is there already; leave the id out to get a new one.`, {
            current: storedFormula(taken),
          });
        const row = await formulas.create(
          { id: id ?? randomUUID(), version: 1, title: formula.title, body: formula, removedAt: null },
          { transaction },
        );
        await keep(row, reason, transaction);
        return storedFormula(row);
      }),
    change: (id, version, formula, reason) =>
      write(async (transaction) => {
        const row = await find(id, transaction);
        checkVersion(row.version, version, storedFormula(row));
        row.set({ version: version + 1, title: formula.title, body: formula });
        row.changed("body", true);
        await row.save({ transaction });
        await keep(row, reason, transaction);
        return storedFormula(row);
      }),
    remove: (id, version) =>
      write(async (transaction) => {
        const row = await find(id, transaction);
        checkVersion(row.version, version, storedFormula(row));
        await row.update({ removedAt: new Date() }, { transaction });
      }),
    restore: (id) =>
      write(async (transaction) => {
        const row = await find(id, transaction, true);
        return storedFormula(await row.update({ removedAt: null }, { transaction }));
      }),
    async versions(id, { page, pageSize }) {
      await find(id);
      const { rows, count } = await versions.findAndCountAll({
        where: { formulaId: id },
        order: [["number", "DESC"]],
        limit: pageSize,
        offset: (page - 1) * pageSize,
      });
      const items = rows.map((row) => ({
        number: row.number,
        reason: row.reason,
        savedAt: row.savedAt.toISOString(),
        formula: row.body,
      }));
      return { items, page, pageSize, total: count };
    },
  };
}

function thingStore<B>({ write }: Database, model: Models["things"]["ovens"]): ThingStore<B> {
  const stored = (row: ThingRow): StoredThing<B> => ({
    id: row.id,
    version: row.version,
    createdAt: row.createdAt.toISOString(),
    updatedAt: row.updatedAt.toISOString(),
    body: row.body as B,
  });
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
        if (id !== undefined && (await model.findByPk(id, { transaction })))
          throw new Refusal("conflict", `The id "${id}" is taken; choose another or leave it out.`);
        return stored(await model.create({ id: id ?? randomUUID(), version: 1, body }, { transaction }));
      }),
    change: (id, version, body) =>
      write(async (transaction) => {
        const row = await find(id, transaction);
        checkVersion(row.version, version, stored(row).body);
        row.set({ version: version + 1, body });
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
