import type { Packet } from "../pantry/packet-schema";
import type { Needed } from "./prep";

/** One line of a shopping list. Grams; money in the packet's own currency. */
export interface ToBuy {
  ingredientId: string;
  needG: number;
  /** What packets on the shelf still hold; null where nobody has said. */
  onHandG: number | null;
  buyG: number;
  /** Whole packets, the kind by which what is missing costs least; null without a price. */
  packets: { name: string; count: number; sizeG: number; cost: number; currency: string } | null;
}

export interface Shopping {
  buy: ToBuy[];
  /** Packets are there that do not say how much they hold: somebody looks. */
  look: ToBuy[];
  /** What is enough on the shelf. */
  enough: ToBuy[];
  /** What the list costs at the till, and what is used up by the day itself, by currency. */
  totals: { currency: string; toPay: number; used: number }[];
  /** Ingredients that have no price. */
  unpriced: string[];
}

/** Water comes from the tap. */
const FREE = "water";
/** Less than this is within what a scale and a spoon tell. */
const LEAST_G = 0.5;

const priced = (packet: Packet): packet is Packet & { price: number } => packet.price !== undefined;

/**
 * What is to be bought for what is needed: by what the packets on the shelf still hold. What has no packet is bought unless it was said that it is
 * there (`there`); a packet that does not say how much it holds is to be looked at. Whole packets, the cheapest for what is missing. Grams, and money as it is on the packets.
 */
export function shoppingFor(needed: readonly Needed[], packets: readonly Packet[], there: ReadonlySet<string>): Shopping {
  const buy: ToBuy[] = [];
  const look: ToBuy[] = [];
  const enough: ToBuy[] = [];
  const unpriced: string[] = [];
  const totals = new Map<string, { toPay: number; used: number }>();
  const add = (currency: string, what: "toPay" | "used", money: number): void => {
    const there = totals.get(currency) ?? { toPay: 0, used: 0 };
    there[what] += money;
    totals.set(currency, there);
  };
  for (const { ingredientId, grams: needG } of needed) {
    if (ingredientId === FREE) continue;
    const of = packets.filter((packet) => packet.ingredientId === ingredientId);
    const counted = of.filter(({ leftG }) => leftG !== undefined);
    const onHandG = counted.length > 0 ? counted.reduce((sum, { leftG = 0 }) => sum + leftG, 0) : null;
    const missing = onHandG === null ? (there.has(ingredientId) ? 0 : needG) : needG - onHandG;
    const uncounted = onHandG === null && of.length > 0 && !there.has(ingredientId);
    const buyG = missing < LEAST_G || uncounted ? 0 : missing;
    const withPrice = of.filter(priced);
    const perGram = [...withPrice].sort((a, b) => a.price / a.sizeG - b.price / b.sizeG)[0];
    if (perGram) add(perGram.currency, "used", (needG * perGram.price) / perGram.sizeG);
    else unpriced.push(ingredientId);
    const offers = withPrice.map((packet) => {
      const count = Math.ceil(buyG / packet.sizeG);
      return { name: packet.name, count, sizeG: packet.sizeG, cost: count * packet.price, currency: packet.currency };
    });
    const best = offers.sort((a, b) => a.cost - b.cost || a.count - b.count)[0];
    const line = { ingredientId, needG, onHandG, buyG, packets: buyG > 0 && best ? best : null };
    if (line.packets) add(line.packets.currency, "toPay", line.packets.cost);
    (buyG > 0 ? buy : uncounted ? look : enough).push(line);
  }
  return { buy, look, enough, unpriced, totals: [...totals].map(([currency, money]) => ({ currency, ...money })) };
}
