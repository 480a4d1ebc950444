import type { PlanRequest, StoredBake } from "@uprise/contract";
import { foldBake } from "@uprise/core/page-live";
import { wire } from "../wire/client";
import { isoLike } from "./times";

type Done = NonNullable<PlanRequest["bakes"][number]["done"]>;

/** What has begun or is done of a batch, by its record: what runs is thought to take as long as it should, and no less than until now. */
export function soFarOf({ record, events }: Pick<StoredBake, "record" | "events">, now: number, like: string): Done {
  const state = foldBake(record, events);
  return record.steps.flatMap((step) => {
    const begun = state.begun[step.id];
    if (begun === undefined || step.at !== undefined) return [];
    const start = Date.parse(begun);
    const minutes = step.kind === "bake" ? record.expected.minutes.mid : step.minutes.mid;
    const over = state.done[step.id];
    const end = over === undefined ? Math.max(now, start + minutes * 60_000) : Math.max(start, Date.parse(over));
    return [{ batch: record.batch ?? 1, stepId: step.id, start: isoLike(start, like), end: isoLike(end, like), ...(record.ovenId === undefined ? {} : { ovenId: record.ovenId }) }]; // prettier-ignore
  });
}

/** The day planned anew from now, around everything that its bakes at the counter have begun; rehearsals do not count. */
export async function fromNow(planId: string, day: PlanRequest, now: number): Promise<Pick<PlanRequest, "now" | "bakes">> {
  const { items } = await wire.bakes();
  const mine = items.filter((item) => item.planId === planId && !item.rehearsal);
  const stored = await Promise.all(mine.map(({ id }) => wire.readBake(id)));
  const bakes = day.bakes.map((bake) => {
    const done = stored.filter(({ record }) => record.planBakeId === bake.id).flatMap((one) => soFarOf(one, now, day.start));
    return { ...bake, ...(done.length > 0 ? { done } : {}) };
  });
  return { now: isoLike(now, day.start), bakes };
}
