import { z } from "zod";
import { inUse, isPriced, perGram, type Priced } from "../pantry/packet";
import type { Packet } from "../pantry/packet-schema";
import { type Range, rangeSchema } from "../measure/range-schema";

export const costLineSchema = z.object({
  ingredientId: z.string(),
  grams: z.number(),
  /** Null where no packet has a price. */
  cost: rangeSchema.nullable(),
  packet: z.string().optional(),
});
export const costSchema = z.object({
  currency: z.string(),
  batch: rangeSchema,
  piece: rangeSchema,
  /** Per kilogram of what comes out. */
  perKg: rangeSchema,
  lines: z.array(costLineSchema),
  unpriced: z.array(z.string()),
  /** Packets whose price is in another currency are not added. */
  otherCurrencies: z.array(z.string()),
  /** What the batch would have cost by the prices of earlier days, the oldest first; only what has a price then and now. */
  before: z.array(z.object({ on: z.string(), batch: z.number() })),
});
export type Cost = z.infer<typeof costSchema>;

/** What a packet cost a gram on a day: by the last price that was given up after it, else by today's. */
function onDay(packet: Priced, on: string): number {
  const then = (packet.prices ?? []).find((price) => price.on > on);
  return perGram(then ?? packet);
}

/**
 * What a batch costs by the packets of this kitchen: by the one in use, from the cheapest to the dearest that stands there. `netG` is what comes
 * out, so that loss in the oven is paid for. Null where nothing has a price.
 */
export function costOf(needs: readonly { ingredientId: string; grams: number }[], packets: readonly Packet[], pieces: number, netG: number): Cost | null {
  const priced = packets.filter(isPriced);
  const relevant = needs.flatMap(({ ingredientId }) => priced.filter((packet) => packet.ingredientId === ingredientId));
  const counts = new Map<string, number>();
  for (const { currency } of relevant) counts.set(currency, (counts.get(currency) ?? 0) + 1);
  const currency = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
  if (currency === undefined) return null;
  const paid = needs.filter(({ ingredientId, grams }) => ingredientId !== "water" && grams > 0);
  const lines = paid.map(({ ingredientId, grams }) => {
    const own = priced.filter((packet) => packet.ingredientId === ingredientId && packet.currency === currency);
    const used = inUse(own);
    if (!used) return { ingredientId, grams, cost: null };
    const all = own.map(perGram);
    const cost: Range = { low: grams * Math.min(...all), mid: grams * perGram(used), high: grams * Math.max(...all) };
    return { ingredientId, grams, cost, packet: used.name };
  });
  const batch = lines.reduce<Range>((sum, { cost }) => (cost ? { low: sum.low + cost.low, mid: sum.mid + cost.mid, high: sum.high + cost.high } : sum), { low: 0, mid: 0, high: 0 });
  const per = (n: number): Range => ({ low: batch.low / n, mid: batch.mid / n, high: batch.high / n });
  const used = lines.flatMap(({ ingredientId, grams, cost }) => {
    const packet = inUse(priced.filter((one) => one.ingredientId === ingredientId && one.currency === currency));
    return cost && packet ? [{ grams, packet }] : [];
  });
  const days = [...new Set(used.flatMap(({ packet }) => (packet.prices ?? []).map(({ on }) => on)))].sort();
  const dayBefore = (on: string): string => new Date(Date.parse(on) - 86_400_000).toISOString().slice(0, 10);
  return {
    currency,
    batch,
    piece: per(Math.max(1, pieces)),
    perKg: per(Math.max(1e-9, netG / 1000)),
    lines,
    unpriced: lines.filter(({ cost }) => cost === null).map(({ ingredientId }) => ingredientId),
    otherCurrencies: [...counts.keys()].filter((one) => one !== currency),
    before: days.map((on) => ({ on, batch: used.reduce((sum, { grams, packet }) => sum + grams * onDay(packet, dayBefore(on)), 0) })),
  };
} // prettier-ignore
