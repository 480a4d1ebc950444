import { Op, type WhereOptions } from "sequelize";
import type { Models } from "./models";
import { holds, type Page, type Query } from "./pages";
import { type StoredThing, storedFrom } from "./things";

export interface ListedStore<B> {
  /** A page of trials, the newest first; every word of `q` must stand in title, formula or tags. */
  page(query: Query): Promise<Page<StoredThing<B>>>;
}

/** Trials by their day and words. The page is found in the index alone; only its own rows are read whole. */
export function listedStore<B>({ trials }: Pick<Models, "trials">): ListedStore<B> {
  return {
    async page({ q = "", page, pageSize }) {
      const words = q.split(/\s+/).filter((word) => word !== "");
      const where: WhereOptions = { removedAt: null, [Op.and]: words.map(holds) };
      const [total, ids] = await Promise.all([
        trials.count({ where }),
        trials.findAll({ attributes: ["id"], where, order: [["at", "DESC"], ["id", "ASC"]], limit: pageSize, offset: (page - 1) * pageSize, raw: true }), // prettier-ignore
      ]);
      const rows = new Map(
        (await trials.findAll({ where: { id: ids.map(({ id }) => id) } })).map((row) => [row.id, storedFrom<B>(row)]),
      );
      return { items: ids.flatMap(({ id }) => rows.get(id) ?? []), page, pageSize, total };
    },
  };
}
