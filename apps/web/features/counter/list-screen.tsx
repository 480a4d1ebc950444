import { useQuery } from "@tanstack/react-query";
import type { BakeSummary } from "@uprise/contract";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Link } from "../../ui/link";
import { Empty, Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Lead, Small, Title } from "../../ui/words";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useFormulas } from "../wire/queries";
import { BeginBake } from "../instruments/begin-bake";
import { monthDayClock } from "../../ui/dates";

const phaseWords: Record<BakeSummary["phase"], string> = {
  ready: "laid out",
  making: "being made",
  baking: "in the oven",
  cooling: "cooling",
  judged: "judged",
};

/** All bakes at the counter: those that go on first. */
export function CountersScreen() {
  const { data, error, refetch } = useQuery({
    queryKey: keys.bakes.all,
    queryFn: ({ signal }) => wire.bakes(signal),
    refetchInterval: 10_000,
  });
  const { data: list } = useFormulas("");
  useTitle("At the counter");
  if (error && !data) return <Failed title="The bakes did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data) return <Loading what="Fetching the bakes" />;
  const going = data.items.filter(({ phase }) => phase !== "judged");
  const over = data.items.filter(({ phase }) => phase === "judged");
  return (
    <ScrollView contentContainerStyle={styles.page}>
      <Title>At the counter</Title>
      {data.items.length === 0 ? (
        <Empty title="Nothing is being baked.">
          <Body>Begin one here, from a formula’s steps, or from a day.</Body>
        </Empty>
      ) : null}
      <Bakes label="Going on" items={going} />
      <Bakes label="Judged" items={over} />
      <Heading>Begin a bake</Heading>
      {(list?.pages.flatMap((page) => page.items) ?? []).slice(0, 12).map(({ id, title }) => (
        <View key={id} style={styles.begin}>
          <Body style={styles.grow}>{title}</Body>
          <BeginBake formulaId={id} title={title} />
        </View>
      ))}
    </ScrollView>
  );
}

function Bakes({ label, items }: { label: string; items: readonly BakeSummary[] }) {
  const colours = useColours();
  if (items.length === 0) return null;
  return (
    <View role="list" aria-label={label}>
      <Heading>{label}</Heading>
      {items.map(({ id, title, phase, startedAt, createdAt, rehearsal }) => (
        <View key={id} role="listitem" style={[styles.row, { borderBottomColor: colours.rule }]}>
          <Link to={`/counter/${id}`} style={styles.link}>
            <Lead>{title}</Lead>
            <Small tone="faint">{`${phaseWords[phase]}${rehearsal ? ", a rehearsal" : ""}; ${monthDayClock(new Date(startedAt ?? createdAt))}`}</Small>
          </Link>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.m, maxWidth: 720, width: "100%" },
  row: { borderBottomWidth: 1 },
  link: { paddingVertical: space.s },
  begin: { flexDirection: "row", alignItems: "center", gap: space.m, flexWrap: "wrap" },
  grow: { flex: 1, minWidth: 160 },
});
