import type { Role } from "@uprise/contract";

/** Calls that compute and store nothing. */
const COMPUTES = /^\/api\/(?:read|analyse|simulate|balance|swap|design|family|slip|faults|next|practice|label|scale-up|plan)$/;
/** What a helper at the counter writes: bakes and what happens at them, what came of them, photographs, the scale's tare. */
const AT_THE_COUNTER: [method: RegExp, path: RegExp][] = [
  [/^POST$/, /^\/api\/bakes(?:\/[^/]+\/events)?$/],
  [/^(?:POST|PUT)$/, /^\/api\/(?:trials|tastings)(?:\/[^/]+)?$/],
  [/^POST$/, /^\/api\/photos$/],
  [/^POST$/, /^\/api\/devices\/[^/]+\/command$/],
];

/** Whether somebody in this role may make a call. A helper weighs and judges, and changes no formula. */
export function may(role: Role, method: string, path: string): boolean {
  if (role === "baker") return true;
  if (/^\/api\/(?:access|restore|export|import)\b/.test(path)) return false;
  if (method === "GET" || method === "HEAD") return true;
  return (method === "POST" && COMPUTES.test(path)) || AT_THE_COUNTER.some(([m, p]) => m.test(method) && p.test(path));
}
