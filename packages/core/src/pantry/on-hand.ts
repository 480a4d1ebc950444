import type { Packet } from "./packet-schema";

/** What a baker says beside the packets: there although no packet tells of it, or not there although one does. */
export interface SaidOnHand {
  there: readonly string[];
  gone: readonly string[];
}

/** Ids of the ingredients that are on hand: of packets that still hold something or do not say how much, and as was said beside them. */
export function onHand(packets: readonly Packet[], { there, gone }: SaidOnHand): Set<string> {
  const held = packets.filter(({ leftG }) => leftG === undefined || leftG > 0).map(({ ingredientId }) => ingredientId);
  const out = new Set([...held, ...there]);
  for (const id of gone) out.delete(id);
  return out;
}

/** What one packet holds after a bake, g. */
export interface UsedPacket {
  id: string;
  usedG: number;
  leftG: number;
}

/**
 * What a bake takes out of packets that say what they hold: the one that is best before the earliest day first, then the one opened first; never
 * below nothing. `used` in g by ingredient. What no packet counts is nobody's.
 */
export function usedUp(packets: readonly { id: string; packet: Packet }[], used: ReadonlyMap<string, number>): UsedPacket[] {
  const out: UsedPacket[] = [];
  for (const [ingredientId, grams] of used) {
    let open = grams;
    const counted = packets
      .filter(({ packet }) => packet.ingredientId === ingredientId && (packet.leftG ?? 0) > 0)
      .sort((a, b) => dayOf(a.packet.bestBefore).localeCompare(dayOf(b.packet.bestBefore)) || dayOf(a.packet.openedOn).localeCompare(dayOf(b.packet.openedOn))); // prettier-ignore
    for (const { id, packet } of counted) {
      const usedG = Math.min(open, packet.leftG ?? 0);
      if (usedG <= 0) break;
      out.push({ id, usedG, leftG: Math.round(10 * ((packet.leftG ?? 0) - usedG)) / 10 });
      open -= usedG;
    }
  }
  return out;
}

/** What has no day comes last. */
const dayOf = (day: string | undefined): string => day ?? "9999";
