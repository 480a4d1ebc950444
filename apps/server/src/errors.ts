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
  "not-allowed": { status: 403, title: "That is not for you to do" },
  "wrong-place": { status: 421, title: "That is not this server's name" },
  "too-often": { status: 429, title: "Too many tries" },
  busy: { status: 503, title: "The server has too much to compute" },
  "took-too-long": { status: 503, title: "This took too long to compute" },
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
