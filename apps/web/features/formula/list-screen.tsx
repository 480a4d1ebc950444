import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { FormulaSummary } from "@uprise/contract";
import type { Formula, Glance, Kind } from "@uprise/core";
import { gramsText, kindName, kinds } from "@uprise/core/page";
import { type Href, useRouter } from "expo-router";
import Trash from "lucide-react-native/icons/trash";
import { Fragment, memo, useRef, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours, useWide } from "../../theme/theme";
import { Field } from "../../ui/field";
import { focusSoon } from "../../ui/focus";
import { Link } from "../../ui/link";
import { Button, Press } from "../../ui/press";
import { Empty, Failed, Loading } from "../../ui/state";
import { ask } from "../../device/workers";
import { useKeptScroll } from "../../ui/use-kept-scroll";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Lead, Small, Title } from "../../ui/words";
import { Findings } from "../balance/findings";
import { Instrument } from "../instruments/instrument";
import { instrumentNames, sentenceOf } from "../instruments/sentences";
import { Strip } from "../instruments/strip";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useFormulas, useKitchenSoon } from "../wire/queries";
import { groupsOf, lineMass, lineName } from "./groups";
import { shortDay } from "../../ui/dates";

/** Mass of a batch that is begun without a recipe, g. */
const BEGIN_G = 850;
const SMALL = 44;

/** All formulas, the newest first, with search; begin from a paste or from a kind of bake. */
export function FormulasScreen() {
  const router = useRouter();
  const wide = useWide();
  const queries = useQueryClient();
  const [q, setQ] = useState("");
  const [beginning, setBeginning] = useState(false);
  const [removed, setRemoved] = useState<FormulaSummary | null>(null);
  const [shown, setShown] = useState<string | null>(null);
  const { data, error, refetch, fetchNextPage, hasNextPage, isFetchingNextPage } = useFormulas(q);
  const scroll = useKeptScroll("formulas");
  useTitle("Formulas");
  const again = (): void => void queries.invalidateQueries({ queryKey: keys.formulas.all });
  const beginId = useRef(newId());
  const begin = useMutation({
    mutationFn: (kind: Kind) =>
      ask("begin", kind, "metric", BEGIN_G).then((begun) =>
        wire.createFormula({ ...begun, id: beginId.current, reason: "begun from a kind of bake" }),
      ),
    onSuccess: (saved) => {
      beginId.current = newId();
      again();
      router.navigate(`/bench/${saved.id}` as Href);
    },
  });
  const remove = useMutation({
    mutationFn: (item: FormulaSummary) => wire.removeFormula(item.id, item.version),
    onSuccess: (_, item) => {
      setRemoved(item);
      again();
      focusSoon("[data-testid=bring-back]");
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
  const items = data?.pages.flatMap((page) => page.items) ?? [];
  const preview = wide ? (items.find((item) => item.id === shown) ?? items[0]) : undefined;
  const head = (
    <View style={styles.head}>
      <Title>Formulas</Title>
      <View style={styles.begin}>
        <Button kind="main" onPress={() => router.navigate("/read")}>
          Bring a recipe
        </Button>
        <Button onPress={() => router.navigate("/begin" as Href)}>Design one</Button>
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
          <Button testID="bring-back" onPress={() => restore.mutate(removed)}>
            Bring it back
          </Button>
        </View>
      ) : null}
      {failure ? <Body tone="stop">{failure.message}</Body> : null}
      {error ? (
        <Failed title="The list did not come." detail={error.message} onRetry={() => void refetch()} />
      ) : !data ? (
        <Loading what="Fetching the formulas" />
      ) : items.length === 0 ? (
        q.trim() === "" ? (
          <Empty title="No formula yet">
            <Body>Bring a recipe, or begin from a kind of bake; either is on the bench in a minute.</Body>
          </Empty>
        ) : (
          <Empty title={`Nothing is called “${q}”`}>
            <Body>Part of the name is enough.</Body>
          </Empty>
        )
      ) : null}
    </View>
  );
  return (
    <View style={styles.screen}>
      <ScrollView {...scroll} style={[styles.list, wide ? styles.narrow : null]} contentContainerStyle={styles.content}>
        {head}
        <View role="list" aria-label="Formulas">
          {items.map((item) => (
            <Item
              key={item.id}
              item={item}
              here={preview?.id === item.id}
              onShow={wide ? () => setShown(item.id) : undefined}
              onRemove={() => remove.mutate(item)}
            />
          ))}
        </View>
        {hasNextPage ? (
          <Button kind="quiet" onPress={() => void fetchNextPage()}>
            {isFetchingNextPage ? "Fetching more" : "More formulas"}
          </Button>
        ) : null}
      </ScrollView>
      {preview?.formula ? <Preview id={preview.id} formula={preview.formula} glance={preview.glance ?? null} /> : null}
    </View>
  );
}

interface ItemProps {
  item: FormulaSummary;
  here: boolean;
  onShow: (() => void) | undefined;
  onRemove: () => void;
}

const Item = memo(function Item({ item, here, onShow, onRemove }: ItemProps) {
  const colours = useColours();
  const { glance = null } = item;
  return (
    <View
      role="listitem"
      style={[styles.item, { borderBottomColor: colours.rule, borderLeftColor: here ? colours.heat : "transparent" }]}
    >
      <Link to={`/bench/${item.id}`} {...(onShow ? { onHoverIn: onShow, onFocus: onShow } : {})} style={styles.grow}>
        <Lead strong>{item.title}</Lead>
        <Small tone="faint">
          {kindName[item.kind]}, {item.lines} lines, {gramsText(item.massG)}; version {item.version},{" "}
          {shortDay(new Date(item.updatedAt))}
        </Small>
        <View style={styles.smalls}>
          {instrumentNames.map((name) => (
            <View key={name} role="img" aria-label={glance ? sentenceOf(name, glance) : name} style={styles.small}>
              {glance ? <Instrument name={name} analysis={glance} width={SMALL} /> : null}
            </View>
          ))}
        </View>
      </Link>
      <Press onPress={onRemove} label={`Take ${item.title} off the list`} style={styles.remove}>
        <Trash size={20} color={colours.faint} />
      </Press>
    </View>
  );
});

/** A formula beside the list, on a wide screen: its instruments, what is found, its lines. */
function Preview({ id, formula, glance }: { id: string; formula: Formula; glance: Glance | null }) {
  const colours = useColours();
  const router = useRouter();
  const { kitchen } = useKitchenSoon(formula);
  const open = (): void => router.navigate(`/bench/${id}` as Href);
  return (
    <ScrollView key={id} style={[styles.preview, { borderLeftColor: colours.strongRule }]}>
      <View role="region" aria-label={formula.title} style={styles.previewBody}>
        <View style={styles.previewHead}>
          <View style={styles.grow}>
            <Heading>{formula.title}</Heading>
          </View>
          <Button kind="main" onPress={open}>
            Open on the bench
          </Button>
        </View>
        <Strip analysis={glance} open={null} onOpen={() => undefined} still />
        {glance ? <Findings findings={glance.findings} onBalance={() => router.navigate(`/bench/${id}/balance` as Href)} /> : null}
        <View role="list">
          {groupsOf(formula).map(({ component, lines }) => (
            <Fragment key={component?.id ?? ""}>
              {component ? (
                <View role="listitem" style={[styles.line, { borderBottomColor: colours.rule }]}>
                  <Body strong>{component.name}</Body>
                </View>
              ) : null}
              {lines
                .filter(({ line }) => line.off !== true)
                .map(({ line }) => (
                  <View key={line.id} role="listitem" style={[styles.line, { borderBottomColor: colours.rule }]}>
                    <Body style={styles.grow}>{lineName(line, kitchen)}</Body>
                    <Body style={styles.figure} tone={line.grams ? "ink" : "caution"}>
                      {lineMass(line)}
                    </Body>
                  </View>
                ))}
            </Fragment>
          ))}
        </View>
      </View>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  screen: { flex: 1, flexDirection: "row", minHeight: 0 },
  list: { flex: 1 },
  narrow: { maxWidth: 560 },
  content: { padding: space.m, maxWidth: 760, width: "100%" },
  head: { gap: space.m, paddingBottom: space.s },
  begin: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
  kinds: { flexDirection: "row", flexWrap: "wrap" },
  removed: { flexDirection: "row", alignItems: "center", gap: space.s },
  grow: { flex: 1, minWidth: 0 },
  item: {
    flexDirection: "row",
    alignItems: "center",
    borderBottomWidth: 1,
    borderLeftWidth: 4,
    paddingLeft: space.s,
    paddingVertical: space.s,
  },
  smalls: { flexDirection: "row", gap: space.l, paddingTop: space.xs },
  small: { width: SMALL, minHeight: 34 },
  remove: { alignItems: "center" },
  preview: { flex: 1, borderLeftWidth: 1.5 },
  previewBody: { padding: space.l, gap: space.m, maxWidth: 640 },
  line: { flexDirection: "row", gap: space.m, borderBottomWidth: 1, minHeight: 36, alignItems: "center" },
  figure: { fontVariant: ["tabular-nums"] },
  previewHead: { flexDirection: "row", alignItems: "center", gap: space.m },
});
