import type { StoredTrial } from "@uprise/contract";
import { seenFrom, symptomOf, worthOf } from "@uprise/core/page-log";
import { type Href, useRouter } from "expo-router";
import { lazy, Suspense, useMemo, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { fonts, space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Check } from "../../ui/check";
import { Choice } from "../../ui/choice";
import { Field } from "../../ui/field";
import { Link } from "../../ui/link";
import { Button } from "../../ui/press";
import { Empty, Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Figure, Lead, Small, Title } from "../../ui/words";
import { heightsOf, outlinesOf, Profiles } from "./profile";
import { dayText } from "./times";
import { useTrials } from "../wire/queries";

const LineChart = lazy(async () => ({ default: (await import("../../ui/charts")).LineChart }));

const orders = [
  { value: "new", label: "Newest" },
  { value: "good", label: "Best" },
  { value: "bad", label: "Worst" },
] as const;
type Order = (typeof orders)[number]["value"];

/** The score of a trial out of a hundred; null where nothing was scored. */
export const scoreOf = ({ trial }: Pick<StoredTrial, "trial">): number | null => {
  const worth = worthOf(trial.scores, trial.seen);
  return worth === null ? null : Math.round(100 * worth);
};

/** Its faults in words, the strongest first. */
export function faultsOf({ trial }: Pick<StoredTrial, "trial">, most = 3): string {
  const all = [...trial.seen, ...seenFrom(trial.scores)].filter(({ degree }) => degree > 0).sort((a, b) => b.degree - a.degree);
  const words = [...new Set(all.map(({ symptomId }) => symptomOf(symptomId).words.toLowerCase()))];
  return words.length === 0
    ? "nothing to fault"
    : words.slice(0, most).join(", ") + (words.length > most ? ` and ${words.length - most} more` : "");
}

/** Every trial, to be searched, sorted and laid side by side; `here` stands open beside the list. */
export function LogScreen({ here = null, titled = true }: { here?: string | null; titled?: boolean }) {
  const router = useRouter();
  const { data: trials, error, refetch } = useTrials();
  const [q, setQ] = useState("");
  const [order, setOrder] = useState<Order>("new");
  const [tag, setTag] = useState<string | null>(null);
  const [picked, setPicked] = useState<readonly string[]>([]);
  useTitle("Log", titled);
  const tags = useMemo(() => [...new Set((trials ?? []).flatMap(({ trial }) => trial.tags))].sort(), [trials]);
  const shown = useMemo(() => {
    const words = q.trim().toLowerCase();
    const fits = ({ trial }: StoredTrial): boolean =>
      (tag === null || trial.tags.includes(tag)) &&
      (words === "" ||
        `${trial.title} ${trial.formula.title} ${trial.notes} ${faultsOf({ trial }, 9)}`.toLowerCase().includes(words));
    const list = (trials ?? []).filter(fits);
    const score = (one: StoredTrial): number => scoreOf(one) ?? (order === "good" ? -1 : 101);
    if (order === "new") return list;
    return [...list].sort((a, b) => (order === "good" ? score(b) - score(a) : score(a) - score(b)));
  }, [trials, q, order, tag]);
  if (error && !trials) return <Failed title="The log did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!trials) return <Loading what="Fetching the log" />;
  return (
    <ScrollView contentContainerStyle={styles.page} keyboardShouldPersistTaps="handled">
      <Title>Log</Title>
      <View style={styles.tools}>
        <Button kind="main" onPress={() => router.navigate("/log/new" as Href)}>
          Judge a bake
        </Button>
        <Button onPress={() => router.navigate("/log/seasons" as Href)}>Seasons of trials</Button>
        <Button onPress={() => router.navigate("/log/practice" as Href)}>Practise on faults</Button>
        <Button kind="quiet" onPress={() => router.navigate("/log/learnt" as Href)}>
          What was learnt
        </Button>
        <Button kind="quiet" onPress={() => router.navigate("/log/tasting" as Href)}>
          Blind tasting
        </Button>
      </View>
      {trials.length === 0 ? (
        <Empty title="Nothing is judged yet.">
          <Body>A trial is a bake that was judged: what it weighed, how it stood, how it tasted. Every one teaches something.</Body>
        </Empty>
      ) : (
        <>
          <Field label={`Search ${trials.length} trials`} value={q} onChange={setQ} placeholder="a name, a fault, a note" />
          <View style={styles.tools}>
            <Choice label="Order" options={orders} value={order} onChange={setOrder} />
            {tags.map((one) => (
              <Check key={one} label={one} on={tag === one} onChange={(on) => setTag(on ? one : null)} />
            ))}
          </View>
          <Trend trials={shown} />
          {picked.length > 0 ? (
            <View style={styles.tools}>
              <Button
                kind="main"
                disabled={picked.length < 2}
                onPress={() => router.navigate(`/log/compare?ids=${picked.join(",")}` as Href)}
              >
                {picked.length < 2 ? "Pick another to compare" : `Compare these ${picked.length}`}
              </Button>
              <Button kind="quiet" onPress={() => setPicked([])}>
                None
              </Button>
            </View>
          ) : null}
          {shown.length === 0 ? <Body>Nothing fits. A shorter word, or no tag, would show more.</Body> : null}
          <View role="list" aria-label="Trials">
            {shown.map((stored) => (
              <TrialRow
                key={stored.id}
                stored={stored}
                here={here === stored.id}
                picked={picked.includes(stored.id)}
                full={picked.length >= MOST_PICKED}
                onPick={(on) => setPicked(on ? [...picked, stored.id] : picked.filter((id) => id !== stored.id))}
              />
            ))}
          </View>
        </>
      )}
    </ScrollView>
  );
}

const MOST_PICKED = 4;

function TrialRow({
  stored,
  here,
  picked,
  full,
  onPick,
}: {
  stored: StoredTrial;
  here: boolean;
  picked: boolean;
  full: boolean;
  onPick: (on: boolean) => void;
}) {
  const colours = useColours();
  const { trial } = stored;
  const score = scoreOf(stored);
  return (
    <View
      role="listitem"
      style={[styles.row, { borderBottomColor: colours.rule, backgroundColor: here ? colours.sunk : "transparent" }]}
    >
      <Link to={`/log/${stored.id}`} aria-current={here ? "page" : undefined} style={styles.link}>
        <View style={styles.small}>
          {heightsOf(trial) ? <Profiles outlines={outlinesOf(trial, stored.id)} width={72} height={44} label="" /> : null}
        </View>
        <View style={styles.words}>
          <Lead>{trial.title}</Lead>
          <Small tone="faint">{`${dayText(trial.at)}: ${faultsOf(stored)}`}</Small>
        </View>
        {score === null ? null : (
          <View style={styles.score}>
            <Figure>{String(score)}</Figure>
          </View>
        )}
      </Link>
      {full && !picked ? null : <Check label={picked ? "Picked" : "Pick"} on={picked} onChange={onPick} />}
    </View>
  );
}

/** Scores over time, the newest at the right. */
function Trend({ trials }: { trials: readonly StoredTrial[] }) {
  const colours = useColours();
  const scored = [...trials]
    .sort((a, b) => Date.parse(a.trial.at) - Date.parse(b.trial.at))
    .flatMap((one) => {
      const score = scoreOf(one);
      return score === null ? [] : [{ value: score, at: one.trial.at }];
    });
  if (scored.length < 3) return null;
  const [first, last] = [scored[0], scored.at(-1)];
  return (
    <View
      role="img"
      aria-label={`Scores from ${first ? dayText(first.at) : ""} to ${last ? dayText(last.at) : ""}: ${scored.map(({ value }) => value).join(", ")}.`}
      style={styles.trend}
    >
      <Small tone="faint">{`Scores from ${first ? dayText(first.at) : ""} to ${last ? dayText(last.at) : ""}, of 100`}</Small>
      <View aria-hidden>
        <Suspense fallback={<View style={{ height: 110 }} />}>
          <LineChart
            data={scored}
            height={90}
            width={300}
            spacing={Math.max(6, 280 / Math.max(1, scored.length - 1))}
            initialSpacing={6}
            endSpacing={10}
            maxValue={100}
            noOfSections={4}
            color1={colours.ink}
            dataPointsColor1={colours.ink}
            dataPointsRadius={3}
            thickness={2}
            yAxisColor={colours.strongRule}
            xAxisColor={colours.strongRule}
            rulesColor={colours.rule}
            rulesType="solid"
            yAxisTextStyle={{ color: colours.faint, fontFamily: fonts.body, fontSize: 12 }}
            xAxisLabelsHeight={2}
            yAxisLabelWidth={30}
            disableScroll
            isAnimated={false}
          />
        </Suspense>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.m, maxWidth: 760, width: "100%" },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "center" },
  row: { borderBottomWidth: 1, flexDirection: "row", alignItems: "center", gap: space.s },
  link: { flex: 1, minWidth: 0, flexDirection: "row", alignItems: "center", gap: space.m, paddingVertical: space.s },
  small: { width: 72, height: 44 },
  words: { flex: 1, minWidth: 0 },
  score: { minWidth: 34, alignItems: "flex-end" },
  trend: { gap: space.xs, overflow: "hidden" },
});
