import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { OvenProfile, StoredOven } from "@uprise/contract";
import { useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Field } from "../../ui/field";
import { NumberField } from "../../ui/number-field";
import { Button, Press } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { Body, Small } from "../../ui/words";
import { wire } from "../wire/client";

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
  const { data, error, refetch } = useQuery({ queryKey: ["ovens", "shelf"], queryFn: wire.ovens });
  const [open, setOpen] = useState<string | null>(null);
  const save = useMutation({
    mutationFn: ({ stored, oven }: { stored: StoredOven | null; oven: OvenProfile }) =>
      stored ? wire.changeOven(stored.id, stored.version, oven) : wire.createOven(oven),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["ovens"] });
      setOpen(null);
    },
  });
  if (error) return <Failed title="The ovens did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data) return <Loading what="Fetching the ovens" />;
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
      <View role="list">
        {data.items.map((stored) => (
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
            {open === stored.id ? form(stored) : null}
          </View>
        ))}
      </View>
      {open === "new" ? form(null) : <Button onPress={() => setOpen("new")}>Another oven</Button>}
    </ScrollView>
  );
}

interface OvenFormProps {
  start: OvenProfile;
  fault: string | null;
  busy: boolean;
  onKeep: (oven: OvenProfile) => void;
  onLeave: () => void;
}

function OvenForm({ start, fault, busy, onKeep, onLeave }: OvenFormProps) {
  const [oven, setOven] = useState(start);
  const set = (part: Partial<OvenProfile>): void => setOven({ ...oven, ...part });
  const named = oven.name.trim() !== "";
  return (
    <View style={styles.form}>
      <Field
        label="Its name"
        value={oven.name}
        onChange={(name) => set({ name })}
        error={named ? undefined : "A name by which you know it."}
      />
      <View style={styles.fields}>
        <NumberField
          label="Hotter than its dial"
          unit="°C"
          least={-60}
          most={60}
          value={oven.biasK}
          onChange={(biasK) => set({ biasK })}
          style={styles.field}
        />
        <NumberField
          label="Swings by"
          unit="°C"
          least={0}
          most={60}
          value={oven.swingK}
          onChange={(swingK) => set({ swingK })}
          style={styles.field}
        />
        <NumberField
          label="Warm, to 180 °C, after"
          unit="min"
          least={0}
          most={90}
          value={oven.warmMinutes ?? 12}
          onChange={(warmMinutes) => set({ warmMinutes })}
          style={styles.field}
        />
        <NumberField
          label="Racks"
          unit=""
          least={1}
          most={20}
          value={oven.racks ?? 1}
          onChange={(racks) => set({ racks: Math.round(racks) })}
          style={styles.field}
        />
        <NumberField
          label="Width inside"
          unit="mm"
          least={100}
          most={2000}
          value={oven.widthMm ?? 450}
          onChange={(widthMm) => set({ widthMm })}
          style={styles.field}
        />
        <NumberField
          label="Depth inside"
          unit="mm"
          least={100}
          most={2000}
          value={oven.depthMm ?? 400}
          onChange={(depthMm) => set({ depthMm })}
          style={styles.field}
        />
      </View>
      <Small tone="faint">
        Put a thermometer in the middle of the rack for twenty minutes: what it says over the dial goes in the first field.
      </Small>
      {fault ? <Body tone="stop">{fault}</Body> : null}
      <View style={styles.fields}>
        <Button kind="main" disabled={!named || busy} onPress={() => onKeep({ ...oven, name: oven.name.trim() })}>
          Keep this oven
        </Button>
        <Button kind="quiet" onPress={onLeave}>
          Leave it
        </Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.m, gap: space.m },
  oven: { paddingVertical: space.xs },
  form: { gap: space.m, paddingVertical: space.m },
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 160 },
});
