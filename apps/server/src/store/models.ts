import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type ModelStatic,
  type Sequelize,
} from "sequelize";
import type { Formula } from "@uprise/core";

export class FormulaRow extends Model<InferAttributes<FormulaRow>, InferCreationAttributes<FormulaRow>> {
  declare id: string;
  declare version: number;
  declare title: string;
  declare kind: string;
  declare lineCount: number;
  declare massG: number;
  /** The title in lower case, for searching. */
  declare search: string;
  declare body: Formula;
  declare removedAt: Date | null;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

export class FormulaVersionRow extends Model<InferAttributes<FormulaVersionRow>, InferCreationAttributes<FormulaVersionRow>> {
  declare formulaId: string;
  declare number: number;
  declare reason: string;
  declare body: Formula;
  declare savedAt: Date;
}

/** A stored thing that is a body with a version: an own ingredient, a vessel, an oven. */
export class ThingRow extends Model<InferAttributes<ThingRow>, InferCreationAttributes<ThingRow>> {
  declare id: string;
  declare version: number;
  declare shape: number;
  declare body: unknown;
  /** SHA-256 of the body that it was created with: the same call once more is known by it. */
  declare made: CreationOptional<string | null>;
  declare removedAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

/** A thing that is listed by its day and searched by its words. */
export class ListedRow extends Model<InferAttributes<ListedRow>, InferCreationAttributes<ListedRow>> {
  declare id: string;
  declare version: number;
  declare shape: number;
  declare body: unknown;
  declare made: CreationOptional<string | null>;
  declare removedAt: CreationOptional<Date | null>;
  declare at: CreationOptional<string>;
  declare search: CreationOptional<string>;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

/** What a trial is listed by, out of its body. */
function listTrial(row: ListedRow): void {
  const { at, title, formulaId = "", tags = [] } = row.body as { at: string; title: string; formulaId?: string; tags?: string[] };
  row.at = new Date(at).toISOString();
  row.search = [title, formulaId, ...tags].join(" ").toLowerCase();
}

/** Something that happened at a bake; only appended. */
export class EventRow extends Model<InferAttributes<EventRow>, InferCreationAttributes<EventRow>> {
  declare id: string;
  declare bakeId: string;
  declare at: string;
  declare kind: string;
  declare shape: number;
  declare body: unknown;
  declare receivedAt: Date;
}

/** A file by the SHA-256 of its bytes; the bytes stand in the folder beside the database. */
export class FileRow extends Model<InferAttributes<FileRow>, InferCreationAttributes<FileRow>> {
  declare hash: string;
  declare type: string;
  declare bytes: number;
  declare createdAt: CreationOptional<Date>;
}

/** Tables of bodies with a version. */
export const thingTables = [
  "ingredients",
  "vessels",
  "ovens",
  "plans",
  "bakes",
  "devices",
  "packets",
  "trials",
  "tastings",
  "learnt",
  "seasons",
] as const;
export type ThingTable = (typeof thingTables)[number];

/** Of these nothing is kept when they are removed: a device is paired anew, what was accepted is accepted anew. */
const passing: readonly ThingTable[] = ["devices", "learnt"];
export const isRemovable = (table: ThingTable): boolean => !passing.includes(table);

export interface Models {
  events: ModelStatic<EventRow>;
  files: ModelStatic<FileRow>;
  formulas: ModelStatic<FormulaRow>;
  versions: ModelStatic<FormulaVersionRow>;
  things: Record<ThingTable, ModelStatic<ThingRow>>;
  /** The table of trials once more, with the columns that it is listed by. */
  trials: ModelStatic<ListedRow>;
}

const key = { type: DataTypes.STRING(80), primaryKey: true };
const version = { type: DataTypes.INTEGER, allowNull: false };
const body = { type: DataTypes.JSON, allowNull: false };
const made = DataTypes.CHAR(64);
const removedAt = DataTypes.DATE;
const times = { createdAt: DataTypes.DATE, updatedAt: DataTypes.DATE };

/** The models on one database; classes of their own, so that two stores in one process do not share them. */
export function defineModels(sequelize: Sequelize): Models {
  class Event extends EventRow {}
  class File extends FileRow {}
  class StoredFormula extends FormulaRow {}
  class FormulaVersion extends FormulaVersionRow {}
  const thing = (tableName: ThingTable): ModelStatic<ThingRow> => {
    class Row extends ThingRow {}
    return Row.init(
      {
        id: key,
        version,
        shape: DataTypes.INTEGER,
        body,
        made,
        ...(isRemovable(tableName) ? { removedAt } : {}),
        ...times,
      } as never,
      { sequelize, tableName, modelName: tableName },
    ) as ModelStatic<ThingRow>;
  };
  class Trial extends ListedRow {}
  const trials = Trial.init(
    { id: key, version, shape: DataTypes.INTEGER, body, made, removedAt, at: DataTypes.STRING, search: DataTypes.TEXT, ...times },
    { sequelize, tableName: "trials", modelName: "trial", hooks: { beforeSave: listTrial } },
  ) as ModelStatic<ListedRow>;
  const others = Object.fromEntries(thingTables.filter((table) => table !== "trials").map((table) => [table, thing(table)])) as Omit<Models["things"], "trials">; // prettier-ignore
  return {
    events: Event.init(
      {
        id: key,
        bakeId: DataTypes.STRING,
        at: DataTypes.STRING,
        kind: DataTypes.STRING,
        shape: DataTypes.INTEGER,
        body,
        receivedAt: DataTypes.DATE,
      },
      { sequelize, tableName: "events", modelName: "event", timestamps: false },
    ),
    files: File.init(
      {
        hash: { type: DataTypes.CHAR(64), primaryKey: true },
        type: DataTypes.STRING,
        bytes: DataTypes.INTEGER,
        createdAt: DataTypes.DATE,
      },
      { sequelize, tableName: "files", modelName: "file", updatedAt: false },
    ),
    formulas: StoredFormula.init(
      {
        id: key,
        version,
        title: DataTypes.STRING,
        kind: DataTypes.STRING,
        lineCount: DataTypes.INTEGER,
        massG: DataTypes.REAL,
        search: DataTypes.TEXT,
        body,
        removedAt: DataTypes.DATE,
        ...times,
      },
      { sequelize, tableName: "formulas", modelName: "formula" },
    ),
    versions: FormulaVersion.init(
      {
        formulaId: { type: DataTypes.STRING, primaryKey: true },
        number: { type: DataTypes.INTEGER, primaryKey: true },
        reason: DataTypes.STRING,
        body,
        savedAt: DataTypes.DATE,
      },
      { sequelize, tableName: "formula_versions", modelName: "version", timestamps: false },
    ),
    things: { ...others, trials: trials as unknown as ModelStatic<ThingRow> },
    trials,
  };
}
