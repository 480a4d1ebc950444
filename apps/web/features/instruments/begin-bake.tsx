import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { BakeInput } from "@uprise/contract";
import { type Href, useRouter } from "expo-router";
import { useRef } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Button } from "../../ui/press";
import { Small } from "../../ui/words";
import { beginBake } from "../wire/begin-bake";
import { newId } from "../wire/client";

/** A minute of a rehearsal takes a second. */
const REHEARSAL_FACTOR = 60;

/** Lays a bake out and goes to the counter with it; for real, or as a rehearsal with the stand-ins. */
export function BeginBake({ title, ...of }: Omit<BakeInput, "id" | "rehearsal"> & { title: string }) {
  const router = useRouter();
  const queries = useQueryClient();
  const id = useRef(newId());
  const begin = useMutation({
    mutationFn: (rehearse: boolean) =>
      beginBake(queries, { ...of, title, id: id.current, ...(rehearse ? { rehearsal: { factor: REHEARSAL_FACTOR } } : {}) }),
    onSuccess: (saved) => {
      id.current = newId();
      router.navigate(`/counter/${saved.id}` as Href);
    },
  });
  return (
    <View style={styles.begin}>
      <Button disabled={begin.isPending} onPress={() => begin.mutate(false)} label={`Bake it: ${title}`}>
        Bake it
      </Button>
      <Button kind="quiet" disabled={begin.isPending} onPress={() => begin.mutate(true)} label={`Rehearse: ${title}`}>
        Rehearse
      </Button>
      {begin.error ? <Small tone="stop">{begin.error.message}</Small> : null}
    </View>
  );
}

const styles = StyleSheet.create({ begin: { flexDirection: "row", flexWrap: "wrap", gap: space.xs, alignItems: "center" } });
