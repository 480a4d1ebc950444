import type { Packet } from "./packet-schema";

/** A packet changed by the baker on a day: where its price or size is another one, what it was before is kept. */
export function repriced(before: Packet, after: Packet, on: string): Packet {
  const same = before.price === after.price && before.sizeG === after.sizeG && before.currency === after.currency;
  // Prices in another currency are no history of this one.
  const history = before.currency === after.currency ? (before.prices ?? []) : [];
  if (same || before.price === undefined) return { ...after, ...(history.length > 0 ? { prices: history } : {}) };
  const kept = before.currency === after.currency ? [...history, { on, price: before.price, sizeG: before.sizeG }].slice(-60) : [];
  return { ...after, ...(kept.length > 0 ? { prices: kept } : {}) };
}
