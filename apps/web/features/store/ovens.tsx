import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { OvenProfile, StoredOven } from "@uprise/contract";
import { useRef, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button, Press } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { Body, Small } from "../../ui/words";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useOvenList } from "../wire/queries";
import { OvenForm } from "./oven-form";
import { TakenOffNotice } from "./taken-off";
import { useTakeOff } from "./use-shelf-writes";

const fresh: OvenProfile = { name: "", modes: ["still", "fan"], biasK: 0, swingK: 6 };

/** An oven in a sentence. */
export function ovenSentence({ biasK, swingK, modes, warmMinutes, racks }: OvenProfile): string {
  const off = biasK === 0 ? "True to its dial" : `${Math.abs(biasK)} °C ${biasK > 0 ? "hotter" : "cooler"} than its dial`;
  return [
    `${off}, swings by ${swingK} °C`,
    modes.includes("fan") ? "with a fan" : "without a fan",
    warmMinutes === undefined ? null : `${warmMinutes} min to 180 °C`,
    racks === undefined ? null : `${racks} racks`,
  ]
    .filter((part) => part !== null)
    .join("; ");
}

/** The ovens of this kitchen: how far each is off, how it swings, how it warms up, and what fits. */
export function Ovens() {
  const colours = useColours();
  const queries = useQueryClient();
  const { ovens, error, refetch } = useOvenList();
  const off = useTakeOff(keys.ovens.all);
  const id = useRef(newId());
  const [open, setOpen] = useState<string | null>(null);
  const save = useMutation({
    mutationFn: ({ stored, oven }: { stored: StoredOven | null; oven: OvenProfile }) =>
      stored ? wire.changeOven(stored.id, stored.version, oven) : wire.createOven(id.current, oven),
    onSuccess: async () => {
      id.current = newId();
      await queries.invalidateQueries({ queryKey: keys.ovens.all });
      setOpen(null);
    },
  });
  if (error) return <Failed title="The ovens did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!ovens) return <Loading what="Fetching the ovens" />;
  const form = (stored: StoredOven | null) => (
    <OvenForm
      start={stored?.oven ?? fresh}
      fault={save.error?.message ?? null}
      busy={save.isPending}
      onKeep={(oven) => save.mutate({ stored, oven })}
      onLeave={() => {
        save.reset();
        setOpen(null);
      }}
    />
  );
  return (
    <ScrollView contentContainerStyle={styles.list} keyboardShouldPersistTaps="handled">
      <TakenOffNotice {...off} />
      <View role="list">
        {ovens.map((stored) => (
          <View role="listitem" key={stored.id} style={{ borderBottomWidth: 1, borderBottomColor: colours.rule }}>
            <Press
              onPress={() => {
                save.reset();
                setOpen(open === stored.id ? null : stored.id);
              }}
              aria-expanded={open === stored.id}
              style={styles.oven}
            >
              <Body strong>{stored.oven.name}</Body>
              <Small tone="faint">{ovenSentence(stored.oven)}.</Small>
            </Press>
            {open === stored.id ? (
              <>
                {form(stored)}
                <Button
                  kind="quiet"
                  label={`Remove ${stored.oven.name}`}
                  onPress={() => {
                    setOpen(null);
                    off.takeOff({ name: stored.oven.name, back: () => wire.createOven(stored.id, stored.oven) }, () =>
                      wire.removeOven(stored.id, stored.version),
                    );
                  }}
                >
                  Remove this oven
                </Button>
              </>
            ) : null}
          </View>
        ))}
      </View>
      {open === "new" ? form(null) : <Button onPress={() => setOpen("new")}>Another oven</Button>}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.m, gap: space.m },
  oven: { paddingVertical: space.xs },
});
