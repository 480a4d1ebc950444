import { CoreError } from "@uprise/core";
import type { Problem } from "@uprise/contract";
import type { FastifyError, FastifyReply, FastifyRequest } from "fastify";
import { hasZodFastifySchemaValidationErrors } from "fastify-type-provider-zod";
import { Refusal, type RefusalCode, refusals } from "./errors";
import type { App } from "./wire";

const problem = (code: RefusalCode, detail: string, more: Partial<Problem> = {}, type: string = code): Problem => ({
  type: `urn:uprise:problem:${type}`,
  title: refusals[code].title,
  status: refusals[code].status,
  detail,
  ...more,
});

/** SQLite says so of itself, and Sequelize passes it on. */
const isDiskFull = (error: Error & { code?: unknown; original?: { code?: unknown } }): boolean =>
  [error.code, error.original?.code].some((code) => code === "SQLITE_FULL" || code === "ENOSPC") ||
  /SQLITE_FULL/.test(error.message);

/** Every error as problem details; what is not foreseen is logged and told without its insides. */
export function explain(error: FastifyError | Error): Problem {
  if (isDiskFull(error))
    return problem("disk-full", "The disk that holds the data folder is full. Nothing was changed; make room and send it again.");
  if (error instanceof Refusal) return problem(error.code, error.message, error.more);
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
  if (status === 413)
    return problem("too-large", "The request is larger than 1 MB; a recipe of up to 100 000 characters would be right.");
  if (status >= 400 && status < 500) return { ...problem("invalid", error.message), status };
  return problem(
    "internal",
    "The server could not finish this. Nothing was changed; try again, and look into the server's log if it happens again.",
  );
}

export function answerProblems(app: App): void {
  app.setErrorHandler((error: FastifyError, request: FastifyRequest, reply: FastifyReply) => {
    const answer = explain(error);
    if (answer.status >= 500) request.log.error(error);
    void reply.status(answer.status).type("application/problem+json").send(JSON.stringify(answer));
  });
}

export const nothingAt = (path: string): Problem =>
  problem("not-found", `Nothing answers at ${path}. /api/docs lists what there is.`);
