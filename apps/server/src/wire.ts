import type {
  FastifyBaseLogger,
  FastifyInstance,
  FastifyReply,
  FastifyRequest,
  RawReplyDefaultExpression,
  RawRequestDefaultExpression,
  RawServerDefault,
} from "fastify";
import type { ZodTypeProvider } from "fastify-type-provider-zod";
import { z } from "zod";
import { idSchema, problemSchema } from "@uprise/contract";
import { Refusal } from "./errors";

export type App = FastifyInstance<
  RawServerDefault,
  RawRequestDefaultExpression,
  RawReplyDefaultExpression,
  FastifyBaseLogger,
  ZodTypeProvider
>;

export const idParams = z.object({ id: idSchema });

/** Answers that every call may give beside its own. */
export const problems = {
  400: problemSchema,
  404: problemSchema,
  401: problemSchema,
  403: problemSchema,
  412: problemSchema,
  422: problemSchema,
  428: problemSchema,
  429: problemSchema,
  503: problemSchema,
};

/** The version a write was made from, out of `If-Match`. Refuses a missing or unreadable one. */
export function versionOf(request: FastifyRequest): number {
  const header = request.headers["if-match"];
  if (header === undefined)
    throw new Refusal(
      "version-missing",
      'A change needs the header If-Match with the version it was made from, such as If-Match: "3".',
    );
  const match = /^(?:W\/)?"?(\d{1,9})"?$/.exec(header.trim());
  if (!match)
    throw new Refusal("invalid", `If-Match is ${header}; a version such as "3" would be right.`, {
      errors: [{ path: "headers.if-match", message: "A version in quotation marks." }],
    });
  return Number(match[1]);
}

/** For long lists of what was checked when it was written: it goes out as it is stored, unchecked a second time. */
export const asStored =
  () =>
  (data: unknown): string =>
    JSON.stringify(data);

export const etag = (reply: FastifyReply, version: number): FastifyReply => reply.header("etag", `"${version}"`);
