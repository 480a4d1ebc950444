import { createHash } from "node:crypto";
import { col, fn, where } from "sequelize";
import { Refusal } from "../errors";

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

/** Refuses a write that was made from another version than the stored one, which goes along. */
export function checkVersion(current: number, sent: number, stored: unknown): void {
  if (current === sent) return;
  throw new Refusal(
    "stale",
    `This was version ${sent} for you, and is version ${current} now. What you sent is not lost: read the current one, compare, and send again with If-Match "${current}".`,
    { current: stored },
  );
}

/** What was stored under an id that a caller chose, when the call came before: the same once more is no conflict. */
export const sameBody = (a: unknown, b: unknown): boolean => inOrder(a) === inOrder(b);

/** SHA-256 of a body, whatever the order of its keys. */
export const digestOf = (body: unknown): string => createHash("sha256").update(inOrder(body)).digest("hex");

/** Rows whose column `search`, which is in lower case, holds a word as it stands; no sign of it is a wild card. */
export const holds = (word: string) => where(fn("instr", col("search"), word.toLowerCase()), ">", 0);

/** JSON with the keys of every object in order. */
const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_, part: unknown) =>
    typeof part === "object" && part !== null && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  );
