import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { Sequelize, Transaction } from "sequelize";
import sqlite3 from "sqlite3";
import { Unusable } from "../errors";
import { LOCK_WAIT_MS } from "./raw";

/**
 * sqlite3 with the settings of every connection: wait for a lock, keep foreign keys, and sync the log at each commit so that an
 * acknowledged write survives a killed process. Sequelize has no hook for this with SQLite, so the driver's class does it.
 */
class Connection extends sqlite3.Database {
  constructor(file: string, mode: number, done: (error: Error | null) => void) {
    super(file, mode, (error) => {
      if (error) return done(error);
      this.configure("busyTimeout", LOCK_WAIT_MS);
      this.exec("PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; PRAGMA foreign_keys = ON;", done);
    });
  }
}

export interface Database {
  sequelize: Sequelize;
  /** Runs a write in an IMMEDIATE transaction, one at a time; rolled back when it throws. */
  write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

/** The file of the database in a data folder, which is made where it is missing. Throws `Unusable` where it cannot be written. */
export function databaseFile(dataFolder: string): string {
  try {
    mkdirSync(dataFolder, { recursive: true });
    const probe = join(dataFolder, `.writable-${process.pid}`);
    writeFileSync(probe, "1");
    rmSync(probe);
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    throw new Unusable(
      code === "ENOSPC"
        ? `The disk with the data folder ${dataFolder} is full; free some space and start again.`
        : `The data folder ${dataFolder} cannot be written (${code}); make it writable, or set UPRISE_DATA to one that is.`,
    );
  }
  return join(dataFolder, "uprise.sqlite");
}

/** Opens the one database of a data folder. `onWrite` is told how many writes there were after each that is on the disk. */
export function openDatabase(dataFolder: string, onWrite: (writes: number) => void = () => undefined): Database {
  const sequelize = new Sequelize({
    dialect: "sqlite",
    storage: databaseFile(dataFolder),
    dialectModule: { ...sqlite3, Database: Connection },
    logging: false,
    // The driver waits for a lock already; what it gave up is told.
    retry: { max: 1 },
  });
  let last: Promise<unknown> = Promise.resolve();
  const write = <T>(work: (transaction: Transaction) => Promise<T>): Promise<T> => {
    const run = last.then(async () => {
      let writes = 0;
      const result = await sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, async (transaction) => {
        const [[counted]] = (await sequelize.query("UPDATE kitchen SET writes = writes + 1 RETURNING writes", { transaction })) as unknown as [[{ writes: number }]];
        writes = counted.writes;
        return work(transaction);
      });
      onWrite(writes);
      return result;
    });
    last = run.catch(() => undefined);
    return run;
  }; // prettier-ignore
  return {
    sequelize,
    write,
    async close() {
      await last;
      await sequelize.close();
    },
  };
}
