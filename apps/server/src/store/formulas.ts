import { randomUUID } from "node:crypto";
import type { FormulaSummary, FormulaVersion, StoredFormula } from "@uprise/contract";
import { type Formula, gramsOf } from "@uprise/core";
import { Op, type Transaction } from "sequelize";
import { Refusal } from "../errors";
import type { Database } from "./database";
import type { FormulaRow, Models } from "./models";
import { checkVersion, holds, type Page, type Query, sameBody } from "./pages";
import { readFormula } from "./shapes";

export interface FormulaStore {
  list(query: Query & { whole?: boolean | undefined }): Promise<Page<FormulaSummary>>;
  read(id: string): Promise<StoredFormula>;
  /** The same, or null where there is none. */
  find(id: string): Promise<StoredFormula | null>;
  /** The same id with the same formula once more answers what is there. */
  create(formula: Formula, reason: string, id?: string): Promise<StoredFormula>;
  /** Saves a new version. Refuses with `stale` and the stored formula when `version` is not the current one. */
  change(id: string, version: number, formula: Formula, reason: string): Promise<StoredFormula>;
  /** Takes a formula off the list; `restore` brings it back with all its versions. */
  remove(id: string, version: number): Promise<void>;
  restore(id: string): Promise<StoredFormula>;
  versions(id: string, query: Query): Promise<Page<FormulaVersion>>;
}

const noFormula = (id: string): Refusal => new Refusal("not-found", `No formula has the id "${id}". GET /api/formulas lists them.`);

const storedFormula = (row: FormulaRow): StoredFormula => ({
  id: row.id,
  version: row.version,
  createdAt: row.createdAt.toISOString(),
  updatedAt: row.updatedAt.toISOString(),
  formula: readFormula(row.body),
});

/** What a list sorts, filters or shows, in columns of its own. */
export const columnsOf = (formula: Formula) => ({
  title: formula.title,
  search: formula.title.toLowerCase(),
  kind: formula.kind,
  lineCount: formula.lines.length,
  massG: formula.lines.reduce((g, line) => g + gramsOf(line), 0),
});

export function formulaStore({ write }: Database, { formulas, versions }: Models): FormulaStore {
  const find = async (id: string, transaction: Transaction | null = null, removed = false): Promise<FormulaRow> => {
    const row = await formulas.findByPk(id, { transaction });
    if (!row || (row.removedAt !== null && !removed)) throw noFormula(id);
    return row;
  };
  const keep = (row: FormulaRow, reason: string, transaction: Transaction): Promise<unknown> =>
    versions.create({ formulaId: row.id, number: row.version, reason, body: row.body, savedAt: new Date() }, { transaction });
  return {
    async list({ q, page, pageSize, whole }) {
      const where = { removedAt: null, ...(q ? { [Op.and]: [holds(q)] } : {}) };
      const { rows, count } = await formulas.findAndCountAll({
        // Bodies are read where they are asked for; a list has what it shows in columns of its own.
        ...(whole ? {} : { attributes: ["id", "version", "title", "kind", "lineCount", "massG", "createdAt", "updatedAt"] }),
        where,
        order: [
          ["updatedAt", "DESC"],
          ["id", "ASC"],
        ],
        limit: pageSize,
        offset: (page - 1) * pageSize,
      });
      const items = rows.map((row): FormulaSummary => {
        return {
          id: row.id,
          version: row.version,
          createdAt: row.createdAt.toISOString(),
          updatedAt: row.updatedAt.toISOString(),
          title: row.title,
          kind: row.kind as FormulaSummary["kind"],
          lines: row.lineCount,
          massG: row.massG,
          ...(whole ? { formula: readFormula(row.body) } : {}),
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
        const first = taken && (await versions.findOne({ where: { formulaId: taken.id, number: 1 }, transaction }));
        const again = taken !== null && first !== null && sameBody(first.body, formula);
        if (taken?.removedAt)
          throw new Refusal(
            "conflict",
            `The formula “${taken.title}” had the id "${id}" and was removed. POST /api/formulas/${id}/restore brings it back; another id makes a new one.`,
          );
        // The same call again, its answer lost on the way: what has become of what it made is answered.
        if (again) return storedFormula(taken);
        if (taken)
          throw new Refusal("conflict", `A formula with the id "${id}" is there already; leave the id out to get a new one.`, {
            current: storedFormula(taken),
          });
        const row = await formulas.create(
          { id: id ?? randomUUID(), version: 1, ...columnsOf(formula), body: formula, removedAt: null },
          { transaction },
        );
        await keep(row, reason, transaction);
        return storedFormula(row);
      }),
    change: (id, version, formula, reason) =>
      write(async (transaction) => {
        const row = await find(id, transaction);
        checkVersion(row.version, version, storedFormula(row));
        row.set({ version: version + 1, ...columnsOf(formula), body: formula });
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
        formula: readFormula(row.body),
      }));
      return { items, page, pageSize, total: count };
    },
  };
}
