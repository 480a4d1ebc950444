import sqlite3 from "sqlite3";

/** A connection of its own to a database file, for what must not go through a pool: pragmas, migrations, copies. */
export interface Raw {
  run(sql: string, ...values: unknown[]): Promise<void>;
  exec(sql: string): Promise<void>;
  all<T>(sql: string, ...values: unknown[]): Promise<T[]>;
  close(): Promise<void>;
}

/** How long a lock of another program is waited for, ms. */
export const LOCK_WAIT_MS = 4000;

export function openRaw(file: string, waitMs = LOCK_WAIT_MS): Promise<Raw> {
  return new Promise((done, fail) => {
    const database = new sqlite3.Database(file, (error) => {
      if (error) return fail(error);
      database.configure("busyTimeout", waitMs);
      const settle = <T>(work: (end: (error: Error | null, value?: T) => void) => void): Promise<T> =>
        new Promise((good, bad) => work((problem, value) => (problem ? bad(problem) : good(value as T))));
      done({
        run: (sql, ...values) => settle((end) => database.run(sql, values, end)),
        exec: (sql) => settle((end) => database.exec(sql, end)),
        all: (sql, ...values) => settle((end) => database.all(sql, values, (error, rows) => end(error, rows as never))),
        close: () => settle((end) => database.close(end)),
      });
    });
  });
}
