import type { Packet, Shelf } from "@uprise/core";
import type { packetSchema } from "@uprise/core";
import { useState } from "react";
import { Controller, useForm, useWatch } from "react-hook-form";
import { StyleSheet, View } from "react-native";
import type { z } from "zod";
import { space } from "../../theme/scale";
import { ClockField } from "../../ui/clock-field";
import { Choice } from "../../ui/choice";
import { NameSearch } from "../../ui/name-search";
import { FormNumber, FormText } from "../../ui/form";
import { Button } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { useSearch } from "../wire/use-search";
import { byContract } from "./by-contract";
import { PrintPhoto } from "./print-photo";

type Draft = z.input<typeof packetSchema>;

interface PacketFormProps {
  start: Partial<Draft>;
  shelf: Shelf;
  fault: string | null;
  busy: boolean;
  onKeep: (packet: Packet) => void;
  onLeave: () => void;
}

const MOST_FOUND = 8;
const UNREAD = "unread";
/** What a packet says of gluten, read word by word. */
const glutenOptions = [
  { value: UNREAD, label: "Not read yet" },
  { value: "certified", label: "A gluten-free mark" },
  { value: "claimed", label: "“Gluten-free”" },
  { value: "silent", label: "Nothing" },
  { value: "may-contain", label: "May contain it" },
];
const empty = { name: "" };

/** A packet as it stands on the shelf: what is in it, what it cost, what is left, and what its label says. What is not known stays open. */
export function PacketForm({ start, shelf, fault, busy, onKeep, onLeave }: PacketFormProps) {
  const { control, handleSubmit, setValue, getValues } = useForm<Draft, unknown, Packet>({
    resolver: byContract("packetSchema"),
    defaultValues: { ...empty, ...start },
  });
  const [query, setQuery] = useState("");
  const found = useSearch(query, shelf, MOST_FOUND);
  const ingredient = shelf.get(useWatch({ control, name: "ingredientId" }) ?? "");
  return (
    <View style={styles.form} role="group" aria-label={start.name ?? "Another packet"}>
      <PrintPhoto
        shelf={shelf}
        onTake={({ ingredients, allergens, statement, gluten, sizeG, lot, bestBefore }) => {
          const found = { statement, gluten, sizeG, lot, bestBefore, ...(allergens.length > 0 ? { allergens } : {}) };
          for (const [name, value] of Object.entries(found)) if (value !== undefined) setValue(name as keyof Draft, value);
          const [only] = ingredients;
          if (ingredients.length === 1 && only?.id) setValue("ingredientId", only.id, { shouldValidate: true });
        }}
      />
      <Controller
        control={control}
        name="ingredientId"
        render={({ fieldState }) => (
          <View>
            <NameSearch
              label={ingredient ? `In it: ${ingredient.name}. Another?` : "What is in it?"}
              query={query}
              onQuery={setQuery}
              found={found}
              onPick={(found) => {
                setValue("ingredientId", found.id, { shouldValidate: true });
                if (getValues("name") === "") setValue("name", found.name);
                setQuery("");
              }}
            />
            {fieldState.error ? <Small tone="stop">Which ingredient is in it? Take one of the list.</Small> : null}
          </View>
        )}
      />
      <FormText control={control} name="name" label="Name on the packet" />
      <View style={styles.fields}>
        <FormNumber control={control} name="sizeG" label="A full packet" unit="g" least={1} most={1_000_000} style={styles.field} />
        <FormNumber control={control} name="price" label="Price" unit="" least={0} most={100_000} style={styles.field} />
        <FormText control={control} name="currency" label="Currency" style={styles.field} />
        <FormNumber control={control} name="leftG" label="Left of it" unit="g" least={0} most={1_000_000} style={styles.field} />
        {(["openedOn", "bestBefore"] as const).map((name) => (
          <Controller
            key={name}
            control={control}
            name={name}
            render={({ field }) => (
              <ClockField
                label={name === "openedOn" ? "Opened on" : "Best before"}
                kind="date"
                value={field.value ?? ""}
                onChange={(day) => field.onChange(day === "" ? undefined : day)}
                style={styles.field}
              />
            )}
          />
        ))}
        <FormText control={control} name="lot" label="Lot" style={styles.field} />
      </View>
      <FormText control={control} name="statement" label="What it says of traces, word by word" />
      <Controller
        control={control}
        name="gluten"
        render={({ field }) => (
          <Choice
            label="Of gluten it says"
            options={glutenOptions}
            value={field.value ?? UNREAD}
            onChange={(next) => field.onChange(next === UNREAD ? undefined : next)}
          />
        )}
      />
      {fault ? <Body tone="stop">{fault}</Body> : null}
      <View style={styles.fields}>
        <Button kind="main" disabled={busy} onPress={() => void handleSubmit(onKeep)()}>
          Keep this packet
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
  field: { width: 150 },
});
