import { DataTypes, type QueryInterface } from "sequelize";
import { SequelizeStorage, Umzug } from "umzug";
import type { Database } from "./database";

const times = { createdAt: { type: DataTypes.DATE, allowNull: false }, updatedAt: { type: DataTypes.DATE, allowNull: false } };
const key = { type: DataTypes.STRING(80), primaryKey: true, allowNull: false };
const version = { type: DataTypes.INTEGER, allowNull: false, defaultValue: 1 };

interface Migration {
  name: string;
  up: (queries: QueryInterface) => Promise<void>;
  down: (queries: QueryInterface) => Promise<void>;
}

/** The shapes of the database in order. A new shape is a new entry; an old entry is never changed. */
export const migrations: Migration[] = [
  {
    name: "001-formulas",
    async up(queries) {
      await queries.createTable("formulas", {
        id: key,
        version,
        title: { type: DataTypes.STRING(160), allowNull: false },
        body: { type: DataTypes.JSON, allowNull: false },
        ...times,
      });
      await queries.createTable("formula_versions", {
        formulaId: {
          type: DataTypes.STRING(80),
          primaryKey: true,
          references: { model: "formulas", key: "id" },
          onDelete: "CASCADE",
        },
        number: { type: DataTypes.INTEGER, primaryKey: true },
        reason: { type: DataTypes.STRING(300), allowNull: false, defaultValue: "" },
        body: { type: DataTypes.JSON, allowNull: false },
        savedAt: { type: DataTypes.DATE, allowNull: false },
      });
    },
    async down(queries) {
      await queries.dropTable("formula_versions");
      await queries.dropTable("formulas");
    },
  },
  {
    name: "002-kitchen-and-removed-formulas",
    async up(queries) {
      for (const table of ["ingredients", "vessels", "ovens"]) {
        await queries.createTable(table, { id: key, version, body: { type: DataTypes.JSON, allowNull: false }, ...times });
      }
      await queries.addColumn("formulas", "removedAt", { type: DataTypes.DATE, allowNull: true });
      await queries.addIndex("formulas", ["removedAt", "updatedAt"], { name: "formulas_recent" });
    },
    async down(queries) {
      await queries.removeIndex("formulas", "formulas_recent");
      await queries.removeColumn("formulas", "removedAt");
      for (const table of ["ovens", "vessels", "ingredients"]) await queries.dropTable(table);
    },
  },
];

/** Brings a database to the newest shape, or up to the migration named. */
export async function migrate(database: Database, to?: string): Promise<void> {
  const umzug = new Umzug<QueryInterface>({
    migrations: migrations.map(({ name, up, down }) => ({
      name,
      up: ({ context }) => up(context),
      down: ({ context }) => down(context),
    })),
    context: database.sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize: database.sequelize, tableName: "migrations" }),
    logger: undefined,
  });
  await umzug.up(to === undefined ? undefined : { to });
}
