/** Stable codes of everything the server refuses, with the status and title a client sees. */
export const refusals = {
  invalid: { status: 400, title: "The request is not as described" },
  "not-found": { status: 404, title: "There is no such thing here" },
  conflict: { status: 409, title: "That id is taken" },
  stale: { status: 412, title: "Somebody saved a newer version" },
  "too-large": { status: 413, title: "The request is too large" },
  unprocessable: { status: 422, title: "The request cannot be worked with" },
  "version-missing": { status: 428, title: "The version is missing" },
  "built-in": { status: 409, title: "That one ships with Uprise" },
  "not-let-in": { status: 401, title: "The passcode is wanted first" },
  "let-go": { status: 401, title: "This device was let go" },
  "not-allowed": { status: 403, title: "That is not for you to do" },
  "wrong-place": { status: 421, title: "That is not this server's name" },
  "too-often": { status: 429, title: "Too many tries" },
  "other-type": { status: 415, title: "That kind of content is not listened to" },
  busy: { status: 503, title: "The server has too much to compute" },
  "took-too-long": { status: 503, title: "This took too long to compute" },
  locked: { status: 503, title: "The database is held by another program" },
  "read-only": { status: 507, title: "The data folder may only be read" },
  "disk-full": { status: 507, title: "The disk is full" },
  internal: { status: 500, title: "Something went wrong on the server" },
} as const;
export type RefusalCode = keyof typeof refusals;

export class Refusal extends Error {
  constructor(
    readonly code: RefusalCode,
    message: string,
    readonly more: { errors?: { path: string; message: string }[]; current?: unknown } = {},
  ) {
    super(message);
    this.name = "Refusal";
  }
}

/** The server cannot start with what it was given; the message is a sentence for the one who started it. */
export class Unusable extends Error {
  constructor(message: string) {
    super(message);
    this.name = "Unusable";
  }
}

interface Coded {
  code?: unknown;
  original?: unknown;
  cause?: unknown;
}

/** The codes of an error and of those within it: SQLite says them of itself, and Sequelize passes them on. */
export function codesOf(error: unknown): string[] {
  if (typeof error !== "object" || error === null) return [];
  const { code, original, cause } = error as Coded;
  const told = error instanceof Error ? (/^SQLITE_[A-Z]+/.exec(error.message)?.[0] ?? "") : "";
  return [...(typeof code === "string" ? [code] : []), told, ...codesOf(original), ...codesOf(cause)].filter((one) => one !== "");
}
