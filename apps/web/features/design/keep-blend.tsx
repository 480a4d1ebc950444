import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { Design, Shelf } from "@uprise/core";
import { ownOf } from "@uprise/core/page";
import { ask } from "../../device/workers";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Field } from "../../ui/field";
import { Button } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";

interface KeepBlendProps {
  /** What is pressed, and what it is called until the baker says otherwise. */
  label: string;
  name: string;
  lines: Design["lines"];
  shelf: Shelf;
}

/** Keeps what was designed dry as one thing in the store, by a name. */
export function KeepBlend({ label, name: first, lines, shelf }: KeepBlendProps) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState(first);
  const keep = useMutation({
    mutationFn: () => ask("blend", `blend-${newId().slice(0, 8)}`, name.trim(), lines, ownOf(shelf)).then(wire.createIngredient),
    onSuccess: () => {
      setOpen(false);
      void queries.invalidateQueries({ queryKey: keys.ingredients.all });
    },
  });
  if (keep.isSuccess && !open)
    return (
      <Small strong role="status">
        {`“${name.trim()}” is in the store.`}
      </Small>
    );
  if (!open)
    return (
      <Button kind="quiet" onPress={() => setOpen(true)}>
        {label}
      </Button>
    );
  return (
    <View style={styles.keep}>
      <Field label="Its name in the store" value={name} onChange={setName} style={styles.name} />
      <Button disabled={keep.isPending || name.trim() === ""} onPress={() => keep.mutate()}>
        Keep it
      </Button>
      {keep.error ? <Body tone="stop">{keep.error.message}</Body> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  keep: { flexDirection: "row", flexWrap: "wrap", alignItems: "flex-end", gap: space.m },
  name: { flexGrow: 1, minWidth: 200 },
});
