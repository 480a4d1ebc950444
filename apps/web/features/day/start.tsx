import type { PlanRequest } from "@uprise/contract";
import type { Plan } from "@uprise/core";

/** Beginning a bake of the day at the counter. */
export function StartBakes(_: { plan: Plan; day: PlanRequest; planId: string }) {
  return null;
}
