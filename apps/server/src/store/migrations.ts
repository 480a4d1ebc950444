import { existsSync, readdirSync, rmSync } from "node:fs";
import { dirname, join } from "node:path";
import { Umzug, type UmzugStorage } from "umzug";
import { Unusable } from "../errors";
import { openRaw, type Raw } from "./raw";

interface Migration {
  name: string;
  up: string;
  down: string;
  /** What SQL cannot say; within the same transaction. */
  then?: (raw: Raw) => Promise<void>;
}

/** Things that are kept when they are taken off, so that they can be brought back. */
const removable = ["ingredients", "vessels", "ovens", "plans", "bakes", "packets", "trials", "tastings"] as const;
const daily = ["plans", "bakes", "tastings", "seasons"] as const;
const made = [...removable, "devices", "learnt"] as const;

const times = "createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL";
const things = ["ingredients", "vessels", "ovens"] as const;

/** The shapes of the database in order. A new shape is a new entry; an old entry is never changed. */
export const migrations: Migration[] = [
  {
    name: "001-formulas",
    up: `
      CREATE TABLE formulas (id VARCHAR(80) NOT NULL PRIMARY KEY, version INTEGER NOT NULL DEFAULT 1, title VARCHAR(160) NOT NULL,
        body JSON NOT NULL, ${times});
      CREATE TABLE formula_versions (formulaId VARCHAR(80) NOT NULL REFERENCES formulas (id) ON DELETE CASCADE, number INTEGER NOT NULL,
        reason VARCHAR(300) NOT NULL DEFAULT '', body JSON NOT NULL, savedAt DATETIME NOT NULL, PRIMARY KEY (formulaId, number));`,
    down: `DROP TABLE formula_versions; DROP TABLE formulas;`,
  },
  {
    name: "002-kitchen-and-removed-formulas",
    up: `
      ${things
        .map(
          (table) =>
            `CREATE TABLE ${table} (id VARCHAR(80) NOT NULL PRIMARY KEY, version INTEGER NOT NULL DEFAULT 1, body JSON NOT NULL, ${times});`,
        )
        .join("\n")}
      ALTER TABLE formulas ADD COLUMN removedAt DATETIME;
      CREATE INDEX formulas_recent ON formulas (removedAt, updatedAt);`,
    down: `
      DROP INDEX formulas_recent;
      ALTER TABLE formulas DROP COLUMN removedAt;
      ${things.map((table) => `DROP TABLE ${table};`).join("\n")}`,
  },
  {
    name: "003-shapes-columns-events-files",
    up: `
      ALTER TABLE formulas ADD COLUMN kind VARCHAR(40) NOT NULL DEFAULT 'loaf';
      ALTER TABLE formulas ADD COLUMN lineCount INTEGER NOT NULL DEFAULT 0;
      ALTER TABLE formulas ADD COLUMN massG REAL NOT NULL DEFAULT 0;
      UPDATE formulas SET
        kind = coalesce(json_extract(body, '$.kind'), 'loaf'),
        lineCount = json_array_length(body, '$.lines'),
        massG = coalesce((SELECT sum(json_extract(line.value, '$.grams.mid')) FROM json_each(body, '$.lines') AS line), 0);
      CREATE INDEX formulas_kind ON formulas (removedAt, kind, updatedAt);
      CREATE INDEX formulas_title ON formulas (removedAt, title);
      ${things.map((table) => `ALTER TABLE ${table} ADD COLUMN shape INTEGER NOT NULL DEFAULT 1;`).join("\n")}
      CREATE TABLE events (id VARCHAR(80) NOT NULL PRIMARY KEY, bakeId VARCHAR(80) NOT NULL, at VARCHAR(40) NOT NULL, kind VARCHAR(40) NOT NULL,
        shape INTEGER NOT NULL DEFAULT 1, body JSON NOT NULL, receivedAt DATETIME NOT NULL);
      CREATE INDEX events_in_order ON events (bakeId, at, id);
      CREATE TRIGGER events_stay BEFORE UPDATE ON events BEGIN SELECT RAISE(ABORT, 'events are only appended'); END;
      CREATE TRIGGER events_remain BEFORE DELETE ON events BEGIN SELECT RAISE(ABORT, 'events are only appended'); END;
      CREATE TABLE files (hash CHAR(64) NOT NULL PRIMARY KEY, type VARCHAR(80) NOT NULL, bytes INTEGER NOT NULL, createdAt DATETIME NOT NULL);`,
    down: `
      DROP TABLE files;
      DROP TABLE events;
      ${things.map((table) => `ALTER TABLE ${table} DROP COLUMN shape;`).join("\n")}
      DROP INDEX formulas_title;
      DROP INDEX formulas_kind;
      ALTER TABLE formulas DROP COLUMN massG;
      ALTER TABLE formulas DROP COLUMN lineCount;
      ALTER TABLE formulas DROP COLUMN kind;`,
  },
  {
    name: "004-plans-bakes-devices",
    up: ["plans", "bakes", "devices"]
      .map(
        (table) =>
          `CREATE TABLE ${table} (id VARCHAR(80) NOT NULL PRIMARY KEY, version INTEGER NOT NULL DEFAULT 1, body JSON NOT NULL, ${times}, shape INTEGER NOT NULL DEFAULT 1);`,
      )
      .join("\n"),
    down: `DROP TABLE plans; DROP TABLE bakes; DROP TABLE devices;`,
  },
  {
    name: "005-packets-trials-tastings-learnt",
    up: ["packets", "trials", "tastings", "learnt"]
      .map(
        (table) =>
          `CREATE TABLE ${table} (id VARCHAR(80) NOT NULL PRIMARY KEY, version INTEGER NOT NULL DEFAULT 1, body JSON NOT NULL, ${times}, shape INTEGER NOT NULL DEFAULT 1);`,
      )
      .join("\n"),
    down: `DROP TABLE packets; DROP TABLE trials; DROP TABLE tastings; DROP TABLE learnt;`,
  },
  {
    name: "006-trials-listed",
    // What a list of trials is ordered and searched by, in columns of its own; one index has all of it.
    up: `
      ALTER TABLE trials ADD COLUMN at VARCHAR(40) NOT NULL DEFAULT '';
      ALTER TABLE trials ADD COLUMN search TEXT NOT NULL DEFAULT '';
      UPDATE trials SET
        at = strftime('%Y-%m-%dT%H:%M:%fZ', json_extract(body, '$.at')),
        search = lower(json_extract(body, '$.title') || ' ' || coalesce(json_extract(body, '$.formulaId'), '') || ' ' ||
          coalesce((SELECT group_concat(tag.value, ' ') FROM json_each(body, '$.tags') AS tag), ''));
      CREATE INDEX trials_listed ON trials (at, id, search);`,
    down: `DROP INDEX trials_listed; ALTER TABLE trials DROP COLUMN search; ALTER TABLE trials DROP COLUMN at;`,
  },
  {
    name: "007-removed-things-words-writes",
    // What is removed stays and can be brought back; a create that comes twice is known by its content; how often the kitchen was written.
    up: `
      ${removable.map((table) => `ALTER TABLE ${table} ADD COLUMN removedAt DATETIME;`).join("\n")}
      ${made.map((table) => `ALTER TABLE ${table} ADD COLUMN made CHAR(64);`).join("\n")}
      ALTER TABLE formulas ADD COLUMN search TEXT NOT NULL DEFAULT '';
      CREATE TABLE kitchen (id INTEGER NOT NULL PRIMARY KEY CHECK (id = 1), writes INTEGER NOT NULL);
      INSERT INTO kitchen (id, writes) VALUES (1, 0);
      DROP INDEX trials_listed;
      CREATE INDEX trials_listed ON trials (removedAt, at, id, search);`,
    // Lower case as all of Unicode has it, which SQLite's own does not know.
    then: async (raw) => {
      for (const { id, title } of await raw.all<{ id: string; title: string }>("SELECT id, title FROM formulas"))
        await raw.run("UPDATE formulas SET search = ? WHERE id = ?", title.toLowerCase(), id);
      for (const { id, search } of await raw.all<{ id: string; search: string }>("SELECT id, search FROM trials"))
        await raw.run("UPDATE trials SET search = ? WHERE id = ?", search.toLowerCase(), id);
    },
    down: `
      DROP INDEX trials_listed;
      CREATE INDEX trials_listed ON trials (at, id, search);
      DROP TABLE kitchen;
      ALTER TABLE formulas DROP COLUMN search;
      ${made.map((table) => `ALTER TABLE ${table} DROP COLUMN made;`).join("\n")}
      ${removable.map((table) => `ALTER TABLE ${table} DROP COLUMN removedAt;`).join("\n")}`,
  },
  {
    name: "008-glances",
    // What a list shows of a formula: computed from it and its kitchen, and thrown away without loss.
    up: "CREATE TABLE glances (id VARCHAR(80) NOT NULL PRIMARY KEY, of CHAR(64) NOT NULL, body JSON);",
    down: "DROP TABLE glances;",
  },
  {
    name: "009-seasons",
    up: `CREATE TABLE seasons (id VARCHAR(80) NOT NULL PRIMARY KEY, version INTEGER NOT NULL DEFAULT 1, body JSON NOT NULL, ${times}, shape INTEGER NOT NULL DEFAULT 1, removedAt DATETIME, made CHAR(64));`,
    down: "DROP TABLE seasons;",
  },
  {
    name: "010-things-listed",
    // What grows by the day is listed by an index; of the rows, only those of the page are read.
    up: daily.map((table) => `CREATE INDEX ${table}_recent ON ${table} (removedAt, updatedAt DESC, id);`).join("\n"),
    down: daily.map((table) => `DROP INDEX ${table}_recent;`).join("\n"),
  },
];

const known = new Set(migrations.map(({ name }) => name));

/** The names of what was done to a database, in a table beside its rows. */
const storage = (raw: Raw): UmzugStorage => ({
  logMigration: ({ name }) => raw.run("INSERT INTO migrations (name) VALUES (?)", name),
  unlogMigration: ({ name }) => raw.run("DELETE FROM migrations WHERE name = ?", name),
  executed: async () => (await raw.all<{ name: string }>("SELECT name FROM migrations ORDER BY name")).map(({ name }) => name),
});

/**
 * Brings the database of a file to the newest shape, or to the one named, up or down. Each migration runs in one transaction with foreign
 * keys off and is checked for broken references before it counts. What is there already is copied beside it first, once per start.
 * Throws `Unusable` for a database that a newer program wrote.
 */
export async function migrate(file: string, to?: string): Promise<void> {
  const there = existsSync(file);
  const raw = await openRaw(file);
  try {
    await raw.exec("PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; PRAGMA foreign_keys = OFF;");
    await raw.exec("CREATE TABLE IF NOT EXISTS migrations (name VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY);");
    const done = await storage(raw).executed({ context: raw });
    const newer = done.find((name) => !known.has(name));
    if (newer !== undefined)
      throw new Unusable(
        `The database in this data folder was written by a newer Uprise (${newer}); this program knows it up to ${migrations.at(-1)?.name}. Start the newer program, or set UPRISE_DATA to another folder.`,
      );
    const last = to === undefined ? migrations.length - 1 : migrations.findIndex(({ name }) => name === to);
    const pending = migrations.filter(({ name }, index) => index <= last !== done.includes(name));
    if (there && done.length > 0 && pending.length > 0) await copyBefore(raw, file, done.at(-1) ?? "");
    const umzug = new Umzug<Raw>({
      migrations: migrations.map(({ name, up, down, then }) => ({
        name,
        up: async ({ context }) => {
          await context.exec(up);
          await then?.(context);
        },
        down: ({ context }) => context.exec(down),
      })),
      context: raw,
      storage: storage(raw),
      logger: undefined,
    });
    const down = pending.length > 0 && done.includes(pending[0]?.name ?? "");
    for (const { name } of down ? [...pending].reverse() : pending) {
      await raw.exec("BEGIN IMMEDIATE");
      try {
        await (down ? umzug.down({ migrations: [name] }) : umzug.up({ migrations: [name] }));
        const broken = await raw.all<{ table: string }>("PRAGMA foreign_key_check");
        if (broken.length > 0) throw new Error(`${broken.length} rows of ${broken[0]?.table} would have lost what they refer to`);
        await raw.exec("COMMIT");
      } catch (error) {
        await raw.exec("ROLLBACK");
        throw new Unusable(
          `The database could not be brought to the shape ${name}: ${error instanceof Error ? error.message : String(error)}. Nothing was changed; a copy from before stands beside it.`,
        );
      }
    }
  } finally {
    await raw.close();
  }
}

/** The newest shape that the program writes. */
export const NEWEST = migrations.at(-1)?.name ?? "";

/** Copies from before a change of shape that stay beside the database. */
const KEEP_BEFORE = 2;

async function copyBefore(raw: Raw, file: string, shape: string): Promise<void> {
  const folder = dirname(file);
  const older = readdirSync(folder)
    .filter((name) => /\.of-.*\.sqlite$/.test(name))
    .sort();
  for (const name of older.slice(0, Math.max(0, older.length - KEEP_BEFORE + 1))) rmSync(join(folder, name), { force: true });
  const copy = `${file.replace(/\.sqlite$/, "")}.of-${shape}.sqlite`;
  if (existsSync(copy)) return;
  await raw.run("VACUUM INTO ?", copy);
}
