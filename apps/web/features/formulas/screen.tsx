import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { FormulaSummary } from "@uprise/contract";
import { beginKind, gramsText, kindName, kinds, type Kind } from "@uprise/core";
import { format } from "date-fns";
import { useRouter } from "expo-router";
import Trash from "lucide-react-native/icons/trash";
import { useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Field } from "../../ui/field";
import { Button, Press } from "../../ui/press";
import { Empty, Failed, Loading } from "../../ui/state";
import { Body, Lead, Small, Title } from "../../ui/words";
import { wire } from "../wire/client";
import { useFormulas } from "../wire/queries";

/** Mass of a batch that is begun without a recipe, g. */
const BEGIN_G = 850;

/** All formulas, the newest first, with search; begin from a paste or from a kind of bake. */
export function FormulasScreen() {
  const router = useRouter();
  const queries = useQueryClient();
  const [q, setQ] = useState("");
  const [beginning, setBeginning] = useState(false);
  const [removed, setRemoved] = useState<FormulaSummary | null>(null);
  const { data, error, refetch } = useFormulas(q);
  const again = (): void => void queries.invalidateQueries({ queryKey: ["formulas"] });
  const begin = useMutation({
    mutationFn: (kind: Kind) => wire.createFormula({ ...beginKind(kind, "metric", BEGIN_G), reason: "begun from a kind of bake" }),
    onSuccess: (saved) => {
      again();
      router.navigate(`/bench/${saved.id}`);
    },
  });
  const remove = useMutation({
    mutationFn: (item: FormulaSummary) => wire.removeFormula(item.id, item.version),
    onSuccess: (_, item) => {
      setRemoved(item);
      again();
    },
    onError: again,
  });
  const restore = useMutation({
    mutationFn: (item: FormulaSummary) => wire.restoreFormula(item.id),
    onSuccess: () => {
      setRemoved(null);
      again();
    },
  });
  const failure = begin.error ?? remove.error ?? restore.error;
  return (
    <ScrollView style={styles.scroll} contentContainerStyle={styles.content}>
      <Title>Formulas</Title>
      <View style={styles.begin}>
        <Button kind="main" onPress={() => router.navigate("/read")}>
          Bring a recipe
        </Button>
        <Button onPress={() => setBeginning(!beginning)}>Begin from a kind</Button>
      </View>
      {beginning ? (
        <View style={styles.kinds} role="group" aria-label="Begin from a kind of bake">
          {kinds.map((kind) => (
            <Button key={kind} kind="quiet" onPress={() => begin.mutate(kind)} disabled={begin.isPending}>
              {kindName[kind]}
            </Button>
          ))}
        </View>
      ) : null}
      <Field label="Search by name" value={q} onChange={setQ} />
      {removed ? (
        <View style={styles.removed} role="status">
          <Body style={styles.grow}>“{removed.title}” is off the list.</Body>
          <Button onPress={() => restore.mutate(removed)}>Bring it back</Button>
        </View>
      ) : null}
      {failure ? <Body tone="stop">{failure.message}</Body> : null}
      {error ? (
        <Failed title="The list did not come." detail={error.message} onRetry={() => void refetch()} />
      ) : !data ? (
        <Loading what="Fetching the formulas" />
      ) : data.items.length === 0 ? (
        q.trim() === "" ? (
          <Empty title="No formula yet">
            <Body>Bring a recipe, or begin from a kind of bake; either is on the bench in a minute.</Body>
          </Empty>
        ) : (
          <Empty title={`Nothing is called “${q}”`}>
            <Body>Part of the name is enough.</Body>
          </Empty>
        )
      ) : (
        <View role="list">
          {data.items.map((item) => (
            <Item
              key={item.id}
              item={item}
              onOpen={() => router.navigate(`/bench/${item.id}`)}
              onRemove={() => remove.mutate(item)}
            />
          ))}
        </View>
      )}
    </ScrollView>
  );
}

function Item({ item, onOpen, onRemove }: { item: FormulaSummary; onOpen: () => void; onRemove: () => void }) {
  const colours = useColours();
  return (
    <View role="listitem" style={[styles.item, { borderBottomColor: colours.rule }]}>
      <Press role="link" onPress={onOpen} style={styles.grow}>
        <Lead strong>{item.title}</Lead>
        <Small tone="faint">
          {kindName[item.kind]}, {item.lines} lines, {gramsText(item.massG)}; version {item.version},{" "}
          {format(new Date(item.updatedAt), "d MMM")}
        </Small>
      </Press>
      <Press onPress={onRemove} label={`Take ${item.title} off the list`} style={styles.remove}>
        <Trash size={20} color={colours.faint} />
      </Press>
    </View>
  );
}

const styles = StyleSheet.create({
  scroll: { flex: 1 },
  content: { padding: space.m, gap: space.m, maxWidth: 760, width: "100%" },
  begin: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
  kinds: { flexDirection: "row", flexWrap: "wrap" },
  removed: { flexDirection: "row", alignItems: "center", gap: space.s },
  grow: { flex: 1, minWidth: 0 },
  item: { flexDirection: "row", alignItems: "center", borderBottomWidth: 1, paddingVertical: space.s },
  remove: { alignItems: "center" },
});
