import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { StoredPacket } from "@uprise/contract";
import { gramsText, moneyText, type Packet } from "@uprise/core";
import { useRef, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button, Press } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { Body, Small } from "../../ui/words";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useKitchen, usePackets } from "../wire/queries";
import { PacketForm } from "./packet-form";
import { TakenOffNotice } from "./taken-off";
import { useTakeOff } from "./use-shelf-writes";

/** A packet in a sentence. */
export function packetSentence({ sizeG, price, currency, leftG, openedOn, bestBefore, lot }: Packet): string {
  return [
    `${gramsText(sizeG)}${price === undefined ? ", no price" : ` for ${moneyText(price, currency)}`}`,
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
  const colours = useColours();
  const queries = useQueryClient();
  const { data: packets, error, refetch } = usePackets();
  const { kitchen } = useKitchen(null);
  const off = useTakeOff(keys.packets.all);
  const id = useRef(newId());
  const [open, setOpen] = useState<string | null>(null);
  const save = useMutation({
    mutationFn: ({ stored, packet }: { stored: StoredPacket | null; packet: Packet }) =>
      stored ? wire.changePacket(stored.id, stored.version, packet) : wire.createPacket(id.current, packet),
    onSuccess: async () => {
      id.current = newId();
      await queries.invalidateQueries({ queryKey: keys.packets.all });
      setOpen(null);
    },
  });
  if (error) return <Failed title="The packets did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!packets) return <Loading what="Fetching the packets" />;
  const form = (stored: StoredPacket | null) => (
    <PacketForm
      start={stored?.packet ?? {}}
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
    <ScrollView contentContainerStyle={styles.list} keyboardShouldPersistTaps="handled">
      <TakenOffNotice {...off} />
      {packets.length === 0 ? (
        <Body>No packets yet. Write one down with its price, and the shopping list of a day adds up what it costs.</Body>
      ) : null}
      <View role="list">
        {[...packets]
          .sort((a, b) => a.packet.name.localeCompare(b.packet.name))
          .map((stored) => (
            <View role="listitem" key={stored.id} style={{ borderBottomWidth: 1, borderBottomColor: colours.rule }}>
              <Press
                onPress={() => {
                  save.reset();
                  setOpen(open === stored.id ? null : stored.id);
                }}
                aria-expanded={open === stored.id}
                style={styles.packet}
              >
                <Body strong>{stored.packet.name}</Body>
                <Small tone="faint">{packetSentence(stored.packet)}.</Small>
              </Press>
              {open === stored.id ? (
                <>
                  {form(stored)}
                  <Button
                    kind="quiet"
                    label={`Remove ${stored.packet.name}`}
                    onPress={() => {
                      setOpen(null);
                      off.takeOff({ name: stored.packet.name, back: () => wire.createPacket(stored.id, stored.packet) }, () =>
                        wire.removePacket(stored.id, stored.version),
                      );
                    }}
                  >
                    Remove this packet
                  </Button>
                </>
              ) : null}
            </View>
          ))}
      </View>
      {open === "new" ? form(null) : <Button onPress={() => setOpen("new")}>Another packet</Button>}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.m, gap: space.m },
  packet: { paddingVertical: space.xs },
});
