import type { SaidOnHand } from "@uprise/core";
import { USUAL_SHELF } from "@uprise/core/page-bench";
import { onHand } from "@uprise/core/page-live";
import { useState } from "react";
import { readDevice, writeDevice } from "../../device/local";
import { usePackets } from "./queries";

const NAME = "on-hand";
const NOTHING: SaidOnHand = { there: [], gone: [] };
const ids = (list: unknown): string[] => (Array.isArray(list) ? list.filter((id): id is string => typeof id === "string") : []);

function kept(): SaidOnHand {
  try {
    const said = JSON.parse(readDevice(NAME) ?? "null") as Partial<SaidOnHand> | null;
    return said ? { there: ids(said.there), gone: ids(said.gone) } : NOTHING;
  } catch {
    // What cannot be read says nothing beside the packets.
    return NOTHING;
  }
}

/**
 * What is on hand: the packets of the store, and what was said beside them on this device. A store without a packet says nothing of a kitchen; the
 * usual shelf stands in then, and `usual` says so.
 */
export function useOnHand(): {
  ticked: readonly string[];
  usual: boolean;
  /** The packets have not come yet. */
  pending: boolean;
  said: SaidOnHand;
  tick: (id: string, on: boolean) => void;
} {
  const [said, setSaid] = useState(kept);
  const { data = [], isPending: pending } = usePackets();
  const packets = data.map(({ packet }) => packet);
  const usual = packets.length === 0 && !pending;
  const held = onHand(packets, NOTHING);
  const all = onHand(packets, usual ? { ...said, there: [...USUAL_SHELF, ...said.there] } : said);
  return {
    ticked: [...all],
    usual,
    pending,
    said,
    tick: (id, on) => {
      const there = said.there.filter((other) => other !== id);
      const gone = said.gone.filter((other) => other !== id);
      const next = on
        ? { there: held.has(id) ? there : [...there, id], gone }
        : { there, gone: held.has(id) || usual ? [...gone, id] : gone };
      setSaid(next);
      writeDevice(NAME, JSON.stringify(next));
    },
  };
}
