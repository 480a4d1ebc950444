import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { LearntAnswer } from "@uprise/contract";
import { ScrollView, StyleSheet, View } from "react-native";
import Svg, { Circle, Line } from "react-native-svg";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button } from "../../ui/press";
import { Busy, Empty, Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Lead, Small, Title } from "../../ui/words";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useOvenList } from "../wire/queries";

type Item = LearntAnswer["learnt"][number];

const acts: Record<Item["kind"], string> = {
  oven: "Use this for the oven",
  cup: "Use this for the cup",
  powder: "Keep it in mind",
  colour: "Keep it in mind",
  minutes: "Keep it in mind",
};

/** What the logged bakes tell of this kitchen: shown first, accepted or not, undone. */
export function LearntScreen() {
  useTitle("What was learnt");
  const queries = useQueryClient();
  const { ovens = [] } = useOvenList();
  const { data, error, refetch, isFetching } = useQuery({ queryKey: keys.learnt.all, queryFn: ({ signal }) => wire.calibrate(signal), staleTime: 60_000, retry: false });
  const write = useMutation({
    mutationFn: ({ id, accept }: { id: string; accept: boolean }) => (accept ? wire.acceptLearnt(id) : wire.undoLearnt(id)),
    onSuccess: (answer) => {
      queries.setQueryData(keys.learnt.all, answer);
      for (const queryKey of [keys.ovens.all, keys.ingredients.all]) void queries.invalidateQueries({ queryKey });
    },
  });
  if (error && !data) return <Failed title="Nothing was learnt this time." detail={error.message} onRetry={() => void refetch()} />;
  if (!data) return <Loading what="Reading what the log tells" />;
  const [taken, open] = [data.learnt.filter(({ accepted }) => accepted), data.learnt.filter(({ accepted }) => !accepted)];
  const of = ({ kind, of: id }: Item): string => (kind === "oven" ? (ovens.find((oven) => oven.id === id)?.oven.name ?? id) : "");
  return (
    <ScrollView contentContainerStyle={styles.page}>
      <Title>What was learnt</Title>
      <Body>{`From ${data.trials} trials. Nothing of it is used before you say so, and everything can be undone.`}</Body>
      {isFetching || write.isPending ? <Busy on what="Working it out" /> : null}
      {write.error ? <Body tone="stop">{write.error.message}</Body> : null}
      {data.learnt.length === 0 ? (
        <Empty title="Not enough to tell yet.">
          <Body>Two bakes with their minutes and their core, or their loss, begin to tell of an oven.</Body>
        </Empty>
      ) : null}
      {open.map((item) => (
        <One key={`open ${item.id}`} item={item} of={of(item)} act={acts[item.kind]} busy={write.isPending} onAct={() => write.mutate({ id: item.id, accept: true })} />
      ))}
      {taken.length > 0 ? <Lead>In use</Lead> : null}
      {taken.map((item) => (
        <One key={`taken ${item.id}`} item={item} of={of(item)} act="Undo" busy={write.isPending} onAct={() => write.mutate({ id: item.id, accept: false })} />
      ))}
    </ScrollView>
  );
} // prettier-ignore

function One({ item, of, act, busy, onAct }: { item: Item; of: string; act: string; busy: boolean; onAct: () => void }) {
  return (
    <View style={styles.one}>
      {of === "" ? null : <Small tone="faint">{`${of}${item.mode ? `, ${item.mode}` : ""}`}</Small>}
      <Body strong>{item.words}</Body>
      <Narrowed item={item} />
      <Button onPress={onAct} disabled={busy} label={`${act}: ${item.words}`} style={styles.left}>
        {act}
      </Button>
    </View>
  );
}

const [W, H] = [320, 40];

/** What was thought before, as a thin line, and what is thought now, as a thick one: how far the range has narrowed. */
function Narrowed({ item: { value, before, words } }: { item: Item }) {
  const colours = useColours();
  const low = Math.min(before.low, value.low);
  const high = Math.max(before.high, value.high);
  const x = (at: number): number => 8 + ((W - 16) * (at - low)) / Math.max(1e-9, high - low);
  return (
    <Svg width={W} height={H} role="img" aria-label={`Before and now: ${words}`}>
      <Line x1={x(before.low)} x2={x(before.high)} y1={10} y2={10} stroke={colours.faint} strokeWidth={2} strokeDasharray="4 3" />
      <Circle cx={x(before.mid)} cy={10} r={3} fill={colours.faint} />
      <Line x1={x(value.low)} x2={x(value.high)} y1={28} y2={28} stroke={colours.ink} strokeWidth={5} />
      <Circle cx={x(value.mid)} cy={28} r={6} fill={colours.ink} />
    </Svg>
  );
}

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.l, maxWidth: 700, width: "100%" },
  one: { gap: space.xs },
  left: { alignSelf: "flex-start" },
});
