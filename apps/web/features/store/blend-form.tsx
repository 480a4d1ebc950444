import { zodResolver } from "@hookform/resolvers/zod";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { blendFromLabel, CoreError, searchIngredients, type Shelf } from "@uprise/core";
import { useState } from "react";
import { Controller, useForm } from "react-hook-form";
import { StyleSheet, View } from "react-native";
import { z } from "zod";
import { space } from "../../theme/scale";
import { Field } from "../../ui/field";
import { NameSearch } from "../../ui/ingredient-search";
import { Button } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import { wire } from "../wire/client";

const percent = (most: number) =>
  z
    .string()
    .trim()
    .refine((text) => text === "" || (Number(text.replace(",", ".")) >= 0 && Number(text.replace(",", ".")) <= most), {
      error: `A percentage from 0 to ${most}, or nothing where the label is silent.`,
    });

const formSchema = z.object({
  name: z.string().trim().min(2, { error: "A name, as on the packet." }).max(100),
  gum: percent(10),
  powder: percent(10),
});

const numberOf = (text: string): number | undefined => (text.trim() === "" ? undefined : Number(text.replace(",", ".")));

/** An id out of a name that nothing on the shelf has. */
function idFrom(name: string, shelf: Shelf): string {
  const base =
    name
      .toLowerCase()
      .normalize("NFD")
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 50) || "blend";
  let id = base;
  for (let n = 2; shelf.get(id); n++) id = `${base}-${n}`;
  return id;
}

/** A bought blend described by its packet: ingredients in the order of the label, and what it holds of gum and powder. */
export function BlendForm({ shelf, onDone }: { shelf: Shelf; onDone: () => void }) {
  const queries = useQueryClient();
  const [order, setOrder] = useState<string[]>([]);
  const [query, setQuery] = useState("");
  const { control, handleSubmit } = useForm({
    resolver: zodResolver(formSchema),
    defaultValues: { name: "", gum: "", powder: "" },
  });
  const create = useMutation({
    mutationFn: async ({ name, gum, powder }: z.infer<typeof formSchema>) =>
      wire.createIngredient({
        ...blendFromLabel(
          { id: idFrom(name, shelf), name, order, gumPercent: numberOf(gum), powderPercent: numberOf(powder) },
          shelf,
        ),
        aliases: [name.toLowerCase()],
      }),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ["ingredients"] });
      onDone();
    },
  });
  const fault = create.error instanceof CoreError || create.error instanceof Error ? create.error.message : null;
  return (
    <View style={styles.form} role="form" aria-label="A bought blend">
      <Heading>A bought blend</Heading>
      <Small tone="faint">
        Its ingredients in the order of the packet: the law has them by falling weight, and from that their likely shares are
        reckoned.
      </Small>
      <Controller
        control={control}
        name="name"
        render={({ field, fieldState }) => (
          <Field
            label="Name"
            value={field.value}
            onChange={field.onChange}
            onBlur={field.onBlur}
            error={fieldState.error?.message}
          />
        )}
      />
      {order.map((id, index) => (
        <View key={id} style={styles.line}>
          <Body style={styles.grow}>
            {index + 1}. {shelf.get(id)?.name ?? id}
          </Body>
          <Button
            kind="quiet"
            label={`Remove ${shelf.get(id)?.name ?? id}`}
            onPress={() => setOrder(order.filter((other) => other !== id))}
          >
            Remove
          </Button>
        </View>
      ))}
      <NameSearch
        label={order.length === 0 ? "First on the label" : "Next on the label"}
        query={query}
        onQuery={setQuery}
        found={query.trim() === "" ? [] : searchIngredients(query, shelf, 5).filter((item) => !order.includes(item.id))}
        onPick={(item) => {
          setOrder([...order, item.id]);
          setQuery("");
        }}
      />
      <View style={styles.line}>
        <Controller
          control={control}
          name="gum"
          render={({ field, fieldState }) => (
            <Field
              label="Gum, %"
              value={field.value}
              onChange={field.onChange}
              onBlur={field.onBlur}
              keyboard="numeric"
              error={fieldState.error?.message}
              style={styles.grow}
            />
          )}
        />
        <Controller
          control={control}
          name="powder"
          render={({ field, fieldState }) => (
            <Field
              label="Baking powder, %"
              value={field.value}
              onChange={field.onChange}
              onBlur={field.onBlur}
              keyboard="numeric"
              error={fieldState.error?.message}
              style={styles.grow}
            />
          )}
        />
      </View>
      {fault ? <Body tone="stop">{fault}</Body> : null}
      <View style={styles.line}>
        <Button
          kind="main"
          disabled={order.length === 0 || create.isPending}
          onPress={() => void handleSubmit((values) => create.mutate(values))()}
        >
          Put it in the store
        </Button>
        <Button kind="quiet" onPress={onDone}>
          Leave it
        </Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  form: { padding: space.m, gap: space.m },
  line: { flexDirection: "row", alignItems: "flex-end", gap: space.m },
  grow: { flex: 1, minWidth: 0 },
});
