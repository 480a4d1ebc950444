import type { BakeEvent, BakeRecord } from "./events-schema";

/** The moment it is at a bake, ms: the device's clock, or the faster one of a rehearsal. */
export function bakeClock({ rehearsal }: Pick<BakeRecord, "rehearsal">, now: number): number {
  if (!rehearsal) return now;
  const from = Date.parse(rehearsal.from);
  return from + Math.max(0, now - from) * rehearsal.factor;
}
/** The order in which events count. */
export const inOrderOfTime = (a: BakeEvent, b: BakeEvent): number =>
  Date.parse(a.at) - Date.parse(b.at) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);
