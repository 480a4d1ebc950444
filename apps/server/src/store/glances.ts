import type { Glance } from "@uprise/core";
import { QueryTypes } from "sequelize";
import type { Database } from "./database";

/** What lists show of formulas, each with what it was computed of. It may be lost at any time: it is computed again. */
export interface GlanceStore {
  read(ids: readonly string[]): Promise<Map<string, { of: string; glance: Glance | null }>>;
  keep(id: string, of: string, glance: Glance | null): Promise<void>;
}

export const glanceStore = ({ sequelize, write }: Database): GlanceStore => ({
  async read(ids) {
    if (ids.length === 0) return new Map();
    const rows = await sequelize.query<{ id: string; of: string; body: string }>(
      "SELECT id, of, body FROM glances WHERE id IN (:ids)",
      {
        replacements: { ids },
        type: QueryTypes.SELECT,
      },
    );
    return new Map(rows.map(({ id, of, body }) => [id, { of, glance: JSON.parse(body) as Glance | null }]));
  },
  keep: (id, of, glance) =>
    write(async (transaction) => {
      await sequelize.query("INSERT OR REPLACE INTO glances (id, of, body) VALUES (:id, :of, :body)", {
        replacements: { id, of, body: JSON.stringify(glance) },
        transaction,
      });
    }),
});
