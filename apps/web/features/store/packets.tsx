import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { StoredPacket } from "@uprise/contract";
import type { Packet } from "@uprise/core";
import { gramsText, moneyText } from "@uprise/core/page";
import { repriced } from "@uprise/core/page-live";
import { useRef, useState } from "react";
import { Failed, Loading } from "../../ui/state";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useKitchen, usePackets } from "../wire/queries";
import { PacketForm } from "./packet-form";
import { useCurrency } from "../label/region";
import { OwnShelf } from "./own-shelf";
import { useTakeOff } from "./use-shelf-writes";
import { isoDay } from "../../ui/dates";

const today = (): string => isoDay(new Date());

/** What a packet cost before, where it cost otherwise. */
function dearer({ price, sizeG, prices = [] }: Packet): string | null {
  const before = prices.at(-1);
  if (!before || price === undefined || before.price <= 0) return null;
  const percent = Math.round(100 * (price / sizeG / (before.price / before.sizeG) - 1));
  return percent === 0 ? null : `${Math.abs(percent)} % ${percent > 0 ? "dearer" : "cheaper"} than before ${before.on}`;
}

/** A packet in a sentence. */
export function packetSentence(packet: Packet): string {
  const { sizeG, price, currency, leftG, openedOn, bestBefore, lot } = packet;
  return [
    `${gramsText(sizeG)}${price === undefined ? ", no price" : ` for ${moneyText(price, currency)}`}`,
    dearer(packet),
    leftG === undefined ? null : `${gramsText(leftG)} left`,
    openedOn === undefined ? null : `opened ${openedOn}`,
    bestBefore === undefined ? null : `best before ${bestBefore}`,
    lot === undefined || lot === "" ? null : `lot ${lot}`,
  ]
    .filter((part) => part !== null)
    .join("; ");
}

/** The packets of this kitchen: what they cost, how much is left, how old they are. The shopping list and the fault finder read them. */
export function Packets() {
  const queries = useQueryClient();
  const { data: packets, error, refetch } = usePackets();
  const { kitchen } = useKitchen(null);
  const off = useTakeOff(keys.packets.all);
  const currency = useCurrency((packets ?? []).map(({ packet }) => packet));
  const id = useRef(newId());
  const [open, setOpen] = useState<string | null>(null);
  const save = useMutation({
    mutationFn: ({ stored, packet }: { stored: StoredPacket | null; packet: Packet }) =>
      stored
        ? wire.changePacket(stored.id, stored.version, repriced(stored.packet, packet, today()))
        : wire.createPacket(id.current, packet),
    onSuccess: async () => {
      id.current = newId();
      await queries.invalidateQueries({ queryKey: keys.packets.all });
      setOpen(null);
    },
  });
  if (error && !packets) return <Failed title="The packets did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!packets) return <Loading what="Fetching the packets" />;
  const form = (stored: StoredPacket | null) => (
    <PacketForm
      start={stored?.packet ?? { currency }}
      shelf={kitchen.shelf}
      fault={save.error?.message ?? null}
      busy={save.isPending}
      onKeep={(packet) => save.mutate({ stored, packet })}
      onLeave={() => {
        save.reset();
        setOpen(null);
      }}
    />
  );
  return (
    <OwnShelf
      items={[...packets].sort((a, b) => a.packet.name.localeCompare(b.packet.name))}
      what="packet"
      name={(stored) => stored.packet.name}
      sentence={(stored) => packetSentence(stored.packet)}
      open={open}
      onOpen={(id) => {
        save.reset();
        setOpen(id);
      }}
      form={form}
      off={off}
      empty="No packets yet. Write one down with its price, and the shopping list of a day adds up what it costs."
      onRemove={(stored) => {
        setOpen(null);
        off.takeOff({ name: stored.packet.name, back: () => wire.createPacket(stored.id, stored.packet) }, () =>
          wire.removePacket(stored.id, stored.version),
        );
      }}
    />
  );
}
