import type { Plan, PlannedStep } from "@uprise/core";
import { createEvents, type DateTime, type EventAttributes } from "ics";

/** Steps that a calendar rings for: what must not be missed by a minute or is begun long before. */
const RINGS: ReadonlySet<PlannedStep["kind"]> = new Set<PlannedStep["kind"]>(["preheat", "combine", "bake", "out", "change"]);

const utc = (iso: string): DateTime => {
  const at = new Date(iso);
  return [at.getUTCFullYear(), at.getUTCMonth() + 1, at.getUTCDate(), at.getUTCHours(), at.getUTCMinutes()];
};

/** A planned day as iCalendar (RFC 5545): one event a step, ids that stay when the day is planned anew, alarms where one is waited for. Throws where the day cannot be written. */
export function calendarOf(planId: string, title: string, plan: Plan, sequence: number): string {
  const titles = new Map(plan.bakes.map((bake) => [bake.id, bake.title]));
  const events = plan.steps.map((step): EventAttributes => ({
    uid: `${planId}.${step.id}@uprise.invalid`,
    sequence,
    title: `${titles.get(step.bakeId) ?? title}: ${step.words}`,
    start: utc(step.start),
    startInputType: "utc",
    startOutputType: "utc",
    end: utc(step.end),
    endInputType: "utc",
    endOutputType: "utc",
    categories: [title],
    productId: "uprise",
    calName: title,
    ...(RINGS.has(step.kind)
      ? { alarms: [{ action: "display" as const, description: step.words, trigger: { minutes: 0, before: true } }] }
      : {}),
  }));
  const { error, value } = createEvents(events);
  if (error || !value) throw error ?? new Error("the calendar could not be written");
  return value;
}
