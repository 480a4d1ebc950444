import { CoreError } from "@uprise/core";
import type { Problem } from "@uprise/contract";
import type { FastifyError, FastifyReply, FastifyRequest } from "fastify";
import { hasZodFastifySchemaValidationErrors } from "fastify-type-provider-zod";
import { codesOf, Refusal, type RefusalCode, refusals } from "./errors";
import type { App } from "./wire";

const problem = (code: RefusalCode, detail: string, more: Partial<Problem> = {}, type: string = code): Problem => ({
  type: `urn:uprise:problem:${type}`,
  title: refusals[code].title,
  status: refusals[code].status,
  detail,
  ...more,
});

/** What the machine itself cannot do just now, by the codes in which it says so. */
const machineFaults: [codes: RegExp, code: RefusalCode, words: string][] = [
  [/^(?:SQLITE_FULL|ENOSPC|EDQUOT)$/, "disk-full", "The disk that holds the data folder is full. Nothing was changed; make room and send it again."],
  [/^(?:SQLITE_READONLY|EROFS|EACCES|EPERM)$/, "read-only", "The data folder may only be read. Nothing was changed; make it writable and send it again."],
  [/^(?:SQLITE_BUSY|SQLITE_LOCKED)$/, "locked", "Another program holds the database. Nothing was changed; close that program and send it again."],
]; // prettier-ignore

/** The refusal that a fault of the machine is, or null. */
export function machineFault(error: unknown): Refusal | null {
  const codes = codesOf(error);
  const fault = machineFaults.find(([pattern]) => codes.some((code) => pattern.test(code)));
  return fault ? new Refusal(fault[1], fault[2]) : null;
}

/** Every error as problem details; what is not foreseen is logged and told without its insides. */
export function explain(error: FastifyError | Error): Problem {
  const refusal = error instanceof Refusal ? error : machineFault(error);
  if (refusal) return problem(refusal.code, refusal.message, refusal.more);
  if (error instanceof CoreError) {
    return problem("unprocessable", error.message, { errors: [{ path: error.path, message: error.message }] }, error.code);
  }
  if (hasZodFastifySchemaValidationErrors(error)) {
    const errors = error.validation.map((issue) => ({
      path: issue.instancePath.replace(/^\//, "").replace(/\//g, "."),
      message: issue.message ?? "not as described",
    }));
    const first = errors[0];
    return problem("invalid", first ? `${first.path === "" ? "The request" : first.path}: ${first.message}` : error.message, {
      errors,
    });
  }
  const status = (error as FastifyError).statusCode ?? 500;
  if (status === 413) return problem("too-large", "The request is larger than this call takes.");
  if (status === 415)
    return problem("other-type", "That kind of content is not listened to here; application/json would be right.");
  if (status >= 400 && status < 500) return { ...problem("invalid", error.message), status };
  return problem(
    "internal",
    "The server could not finish this. Nothing was changed; try again, and look into the server's log if it happens again.",
  );
}

/** How large a body may be, as the sentence to one that is larger says it. */
const sizeText = (bytes: number): string =>
  bytes >= 1024 * 1024 ? `${Math.round(bytes / 1024 / 1024)} MB` : `${Math.round(bytes / 1024)} kB`;

export function answerProblems(app: App): void {
  app.setErrorHandler((error: FastifyError, request: FastifyRequest, reply: FastifyReply) => {
    const answer = explain(error);
    if (answer.status === 413) {
      const limit = request.routeOptions.bodyLimit;
      answer.detail = `What was sent is larger than ${sizeText(limit)}; up to ${sizeText(limit)} would be right here.`;
    }
    if (answer.status >= 500) request.log.error(error);
    void reply.status(answer.status).type("application/problem+json").send(JSON.stringify(answer));
  });
}

/** An error as the log may hold it: what kind it was and where, without its message, in which what a baker wrote may stand. */
export const bareError = (error: Error) => ({
  type: error.name,
  message: codesOf(error).join(" "),
  stack: (error.stack ?? "").split("\n").filter((line) => /^\s+at\s/.test(line)).join("\n"),
}); // prettier-ignore

export const nothingAt = (path: string): Problem =>
  problem("not-found", `Nothing answers at ${path}. /api/docs lists what there is.`);
