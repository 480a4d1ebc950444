import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { Sequelize, Transaction } from "sequelize";
import sqlite3 from "sqlite3";

/**
 * sqlite3 with the settings of every connection: wait for a lock, keep foreign keys, and sync the log at each commit so that an
 * acknowledged write survives a killed process. Sequelize has no hook for this with SQLite, so the driver's class does it.
 */
class Connection extends sqlite3.Database {
  constructor(file: string, mode: number, done: (error: Error | null) => void) {
    super(file, mode, (error) => {
      if (error) return done(error);
      this.configure("busyTimeout", 5000);
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

/** Opens the one database of a data folder, which is made where it is missing. */
export function openDatabase(dataFolder: string): Database {
  mkdirSync(dataFolder, { recursive: true });
  const sequelize = new Sequelize({
    dialect: "sqlite",
    storage: join(dataFolder, "uprise.sqlite"),
    dialectModule: { ...sqlite3, Database: Connection },
    logging: false,
  });
  let last: Promise<unknown> = Promise.resolve();
  const write = <T>(work: (transaction: Transaction) => Promise<T>): Promise<T> => {
    const run = last.then(() => sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, work));
    last = run.catch(() => undefined);
    return run;
  };
  return {
    sequelize,
    write,
    async close() {
      await last;
      await sequelize.close();
    },
  };
}
