import type { OvenProfile } from "@uprise/contract";
import { useForm } from "react-hook-form";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { FormNumber, FormText } from "../../ui/form";
import { Button } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { byContract } from "./by-contract";

interface OvenFormProps {
  start: OvenProfile;
  fault: string | null;
  busy: boolean;
  onKeep: (oven: OvenProfile) => void;
  onLeave: () => void;
}

const inside = { unit: "mm", least: 100, most: 2000 } as const;

/** What is known of an oven; what is not known is left open. */
export function OvenForm({ start, fault, busy, onKeep, onLeave }: OvenFormProps) {
  const { control, handleSubmit } = useForm<OvenProfile>({ resolver: byContract("ovenProfileSchema"), defaultValues: start });
  return (
    <View style={styles.form} role="group" aria-label={start.name === "" ? "Another oven" : start.name}>
      <FormText control={control} name="name" label="Its name" />
      <View style={styles.fields}>
        <FormNumber
          control={control}
          name="biasK"
          label="Hotter than its dial"
          unit="K"
          least={-60}
          most={60}
          style={styles.field}
        />
        <FormNumber control={control} name="swingK" label="Swings by" unit="K" least={0} most={60} style={styles.field} />
        <FormNumber
          control={control}
          name="warmMinutes"
          label="Warm, to 180 °C, after"
          unit="min"
          least={0}
          most={90}
          style={styles.field}
        />
        <FormNumber control={control} name="racks" label="Racks" unit="" least={1} most={20} whole style={styles.field} />
        <FormNumber control={control} name="widthMm" label="Width inside" {...inside} style={styles.field} />
        <FormNumber control={control} name="depthMm" label="Depth inside" {...inside} style={styles.field} />
      </View>
      <Small tone="faint">
        Put a thermometer in the middle of the rack for twenty minutes: what it says over the dial goes in the first field. What you
        do not know stays open.
      </Small>
      {fault ? <Body tone="stop">{fault}</Body> : null}
      <View style={styles.fields}>
        <Button kind="main" disabled={busy} onPress={() => void handleSubmit(onKeep)()}>
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
  form: { gap: space.m, paddingVertical: space.m },
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 160 },
});
