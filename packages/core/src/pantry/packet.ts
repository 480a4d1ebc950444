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

/** The currency of a kitchen: that of most of its prices; before there are any, `usual`. */
export function currencyOf(packets: readonly Packet[], usual: string): string {
  const counts = new Map<string, number>();
  for (const { price, currency } of packets) if (price !== undefined) counts.set(currency, (counts.get(currency) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? usual;
}

export const perGram = ({ price, sizeG }: { price: number; sizeG: number }): number => price / sizeG;
export type Priced = Packet & { price: number };
export const isPriced = (packet: Packet): packet is Priced => packet.price !== undefined;

/** The packet that is used: the one that is open and holds something, else the cheapest. */
export function inUse(packets: readonly Priced[]): Priced | undefined {
  const byPrice = [...packets].sort((a, b) => perGram(a) - perGram(b));
  return byPrice.find(({ openedOn, leftG }) => openedOn !== undefined && (leftG ?? 1) > 0) ?? byPrice[0];
}

/** What amounts cost by these prices, and what of them has none; water is free. */
export function costBy(prices: Readonly<Record<string, number>>, lines: readonly { ingredientId: string; grams: number }[]): { cost: number; unpriced: string[] } {
  const bought = lines.filter(({ ingredientId, grams }) => ingredientId !== "water" && grams > 0);
  return {
    cost: bought.reduce((sum, { ingredientId, grams }) => sum + ((prices[ingredientId] ?? 0) * grams) / 1000, 0),
    unpriced: bought.flatMap(({ ingredientId }) => (prices[ingredientId] === undefined ? [ingredientId] : [])),
  };
} // prettier-ignore

/** What a kilogram of each thing costs by the packet in use, in the kitchen's own currency; what has no price is not there. */
export function pricesPerKg(packets: readonly Packet[]): Record<string, number> {
  const currency = currencyOf(packets, "");
  const own = packets.filter(isPriced).filter((packet) => packet.currency === currency);
  const ids = [...new Set(own.map(({ ingredientId }) => ingredientId))];
  return Object.fromEntries(
    ids.flatMap((id) => {
      const used = inUse(own.filter(({ ingredientId }) => ingredientId === id));
      return used ? [[id, 1000 * perGram(used)]] : [];
    }),
  );
}
