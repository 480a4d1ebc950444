import type { StoredBake } from "@uprise/contract";
import type { Slip, WorkStep } from "@uprise/core";
import { counterOf, toWeigh } from "@uprise/core/page-live";
import { useKeepAwake } from "expo-keep-awake";
import { useMemo, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space, touch } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { Notice } from "../../ui/notice";
import { Button } from "../../ui/press";
import { Failed, Loading, NotFound } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { WireError } from "../wire/client";
import { useKitchen } from "../wire/queries";
import { type AlarmWay, alarmWays, useAlarm, useAlarmWay } from "./alarm";
import { Checks } from "./checks";
import { timerText } from "./figures";
import { Judge, Judged } from "./judge";
import { Oven } from "./oven";
import { Others, Timers } from "./running";
import { SlipPanel, slipWords, TellSlip } from "./slip";
import { useLiveBake, useStoredBake } from "./use-bake";
import { useDevice, useDevices } from "../wire/use-device";
import { Weigh } from "./weigh";

/** A bake at the counter: one step at a time, and everything that happened on record. */
export function CounterScreen({ id }: { id: string }) {
  const { data, error, refetch } = useStoredBake(id);
  if (error instanceof WireError && error.status === 404)
    return (
      <NotFound title="There is no such bake." to="/counter" way="To the counter">
        It may have been taken off the list.
      </NotFound>
    );
  if (error && !data) return <Failed title="This bake did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data) return <Loading what="Fetching the bake" />;
  return <BakeOf key={data.id} stored={data} />;
}

const alarmWords: Record<AlarmWay, string> = { silent: "Silent", sound: "Sound", voice: "Voice" };

function BakeOf({ stored }: { stored: StoredBake }) {
  const live = useLiveBake(stored);
  const { record, state, now, happen, waiting, linked, refused } = live;
  const { kitchen } = useKitchen(record.formula);
  const { data: devices = [] } = useDevices();
  const [way, setWay] = useAlarmWay();
  const [slip, setSlip] = useState<Slip | null>(null);
  const [telling, setTelling] = useState(false);
  useKeepAwake();
  useTitle(record.title);
  const { running, current, next, due } = counterOf(record, state, now);
  const lines = useMemo(() => toWeigh(record, state.lines), [record, state.lines]);
  const alarms = useMemo(
    () => [
      ...running.filter(({ until }) => until <= now).map(({ step }) => ({ id: step.id, words: `${step.words}: time is up` })),
      ...due.map(({ id, words }) => ({ id, words })),
    ],
    [running, due, now],
  );
  useAlarm(way, alarms);
  const idOf = (kind: "scale" | "probe"): string | null => devices.find((device) => device.kind === kind)?.id ?? null;
  const scale = devices.find(({ kind }) => kind === "scale");
  const told = (next: Slip): void => {
    happen("slip", { slip: next, words: slipWords(next, kitchen.shelf) });
    setSlip(next);
    setTelling(false);
  };
  const inBatter = (ingredientId: string): boolean =>
    record.formula.lines.some((line) => line.ingredientId === ingredientId && line.component === undefined);
  const open = current ? lines.filter(({ id, stepId }) => stepId === current.id && state.weighed[id] === undefined) : [];
  const line = open[0];
  const shown = useDevice(line && !slip ? (scale?.id ?? null) : null);
  return (
    <View style={styles.counter}>
      <ScrollView contentContainerStyle={styles.page}>
        <Title>{record.title}</Title>
        {record.rehearsal ? <Small tone="caution">{`A rehearsal: time runs ${record.rehearsal.factor} times faster.`}</Small> : null}
        <Link waiting={waiting} linked={linked} refused={refused} />
        <Others but={stored.id} />
        <Timers running={running} now={now} onDone={(stepId) => happen("step", { stepId, done: true })} />
        {due.map((step) => (
          <View key={step.id} style={styles.due}>
            <Body strong style={styles.grow}>
              {step.words}
            </Body>
            <Button style={styles.big} onPress={() => { happen(step.kind === "turn" ? "turned" : "looked", {}); happen("step", { stepId: step.id, done: true }); }}>
              Done
            </Button>
          </View>
        ))}
        {slip ? (
          <SlipPanel key={JSON.stringify(slip)} record={record} state={state} shelf={kitchen.shelf} slip={slip} happen={happen} onEnd={() => setSlip(null)} />
        ) : state.phase === "baking" ? (
          <Oven bakeId={stored.id} record={record} state={state} now={now} happen={happen} probeId={idOf("probe")} />
        ) : state.phase === "judged" && state.judged ? (
          <Judged judged={state.judged} bakeId={stored.id} />
        ) : (
          <>
            {current ? <Now step={current} small={line !== undefined} /> : null}
            {line ? (
              <Weigh
                key={line.id}
                line={line}
                rest={open.length - 1}
                shelf={kitchen.shelf}
                scaleId={scale?.id ?? null}
                scale={shown}
                played={scale?.simulated === true && record.rehearsal !== undefined}
                onWeighed={(grams, by, off) => {
                  happen("weighed", { lineId: line.id, grams, by });
                  if (off && inBatter(line.ingredientId)) told({ what: "amount", ingredientId: line.ingredientId, grams: grams + elsewhere(lines, line, state) });
                }}
              />
            ) : null}
          </>
        )}
        {state.phase === "cooling" ? <Cooling state={state} record={record} now={now} happen={happen} /> : null}
        {state.phase !== "judged" && state.outAt !== null ? <Judge happen={happen} /> : null}
        {next && state.phase !== "baking" ? <Small tone="faint">{`Then: ${next.words}.`}</Small> : null}
        {state.phase === "making" && !slip ? (
          <View style={styles.aside}>
            <Button kind="quiet" onPress={() => setTelling(!telling)}>
              Something went wrong
            </Button>
            {telling ? <TellSlip record={record} shelf={kitchen.shelf} onTold={told} /> : null}
            <Heading>Checks of the batter</Heading>
            <Checks record={record} state={state} happen={happen} />
          </View>
        ) : null}
        <Choice label="How this device calls" options={alarmWays.map((value) => ({ value, label: alarmWords[value] }))} value={way} onChange={setWay} />
        <Told live={live} />
      </ScrollView>
      {!slip && current && !line && state.phase !== "judged" && state.phase !== "baking" ? <Act step={current} happen={happen} /> : null}
    </View>
  ); // prettier-ignore
}

/** What of the same ingredient goes in elsewhere: a slip is told as the whole amount. */
const elsewhere = (
  lines: ReturnType<typeof toWeigh>,
  line: ReturnType<typeof toWeigh>[number],
  state: ReturnType<typeof useLiveBake>["state"],
): number =>
  lines.reduce(
    (sum, other) =>
      other.ingredientId === line.ingredientId && other.id !== line.id
        ? sum + (state.weighed[other.id]?.grams ?? other.grams)
        : sum,
    0,
  );

function Link({ waiting, linked, refused }: { waiting: number; linked: boolean; refused: string | null }) {
  if (refused) return <Notice gravity="stop" title={`The server does not take something that happened here: ${refused}`} />;
  if (waiting > 0 && !linked) return <Small tone="caution" live="polite">{`No line to the server: ${waiting} ${waiting === 1 ? "thing is" : "things are"} kept here and sent later. Timers go on.`}</Small>;
  if (!linked) return <Small tone="caution" live="polite">No line to the server. Timers go on, and what happens is kept here.</Small>;
  return null;
} // prettier-ignore

/** The step that is on: large, but while it is weighed what is weighed is larger. */
function Now({ step, small }: { step: WorkStep; small: boolean }) {
  return (
    <View role="status" aria-live="polite">
      {small ? <Small tone="faint">{`For: ${step.words}`}</Small> : <Heading style={styles.step}>{step.words}</Heading>}
      {step.hot ? <Small tone="heat">Hot.</Small> : null}
    </View>
  );
}

/** The one thing to do with the step, where the thumb is. */
function Act({ step, happen }: { step: WorkStep; happen: ReturnType<typeof useLiveBake>["happen"] }) {
  const colours = useColours();
  const byItself = step.needs === "nothing" || step.needs === "oven";
  const begin = (): void => happen("step", { stepId: step.id, done: false });
  const word = step.kind === "bake" ? "It is in the oven" : byItself ? "Begun" : "Done";
  return (
    <View style={[styles.act, { borderTopColor: colours.strongRule, backgroundColor: colours.paper }]}>
      <Button kind="main" style={styles.whole} onPress={() => (byItself ? begin() : happen("step", { stepId: step.id, done: true }))}>
        {word}
      </Button>
      {byItself && step.kind !== "bake" ? (
        <Button style={styles.big} onPress={() => happen("step", { stepId: step.id, done: true })}>
          Done already
        </Button>
      ) : null}
    </View>
  ); // prettier-ignore
}

function Cooling({
  state,
  record,
  now,
  happen,
}: {
  state: ReturnType<typeof useLiveBake>["state"];
  record: StoredBake["record"];
  now: number;
  happen: ReturnType<typeof useLiveBake>["happen"];
}) {
  const cutAt = Date.parse(state.outAt ?? "") + record.expected.restBeforeCuttingMinutes * 60_000;
  return (
    <View style={styles.aside}>
      <Body>
        {now < cutAt ? `The earliest clean cut is in ${timerText(cutAt - now)}; before that it may be gummy.` : "It may be cut."}
      </Body>
      {state.cutAt === null ? (
        <Button style={styles.big} onPress={() => happen("cut", {})}>
          Cut now
        </Button>
      ) : null}
    </View>
  );
}

/** What happened so far, the newest first. */
function Told({ live: { state, record } }: { live: ReturnType<typeof useLiveBake> }) {
  const entries = [
    ...Object.entries(state.done).map(([id, at]) => ({ at, words: record.steps.find((step) => step.id === id)?.words ?? id })),
    ...state.slips.map(({ at, words }) => ({ at, words: `Slip: ${words}` })),
    ...state.remedies.map(({ at, words }) => ({ at, words: `Remedy: ${words}` })),
    ...state.notes.map(({ at, text }) => ({ at, words: text })),
  ].sort((a, b) => Date.parse(b.at) - Date.parse(a.at));
  if (entries.length === 0) return null;
  return (
    <View role="list" aria-label="What happened">
      {entries.slice(0, 12).map(({ at, words }) => (
        <Small key={`${at}${words}`} tone="faint">{`${new Date(at).toTimeString().slice(0, 5)}  ${words}`}</Small>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  counter: { flex: 1, minHeight: 0 },
  page: { padding: space.l, gap: space.m, maxWidth: 720, width: "100%" },
  step: { fontSize: 26, lineHeight: 32 },
  due: { flexDirection: "row", alignItems: "center", gap: space.m },
  grow: { flex: 1, minWidth: 0 },
  big: { minHeight: touch.counter },
  whole: { minHeight: touch.counter, flex: 1 },
  act: { flexDirection: "row", gap: space.s, borderTopWidth: 1.5, padding: space.s },
  aside: { gap: space.m, alignItems: "flex-start" },
});
