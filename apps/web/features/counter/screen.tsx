import type { StoredBake } from "@uprise/contract";
import type { Slip, WorkStep } from "@uprise/core";
import { counterOf, toWeigh } from "@uprise/core/page-live";
import { useMemo, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space, touch } from "../../theme/scale";
import { useColours, useWide } from "../../theme/theme";
import { Beside } from "../../ui/beside";
import { Choice } from "../../ui/choice";
import { Notice } from "../../ui/notice";
import { Button } from "../../ui/press";
import { Failed, Loading, NotFound } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { WireError } from "../wire/client";
import { useKitchen } from "../wire/queries";
import { type AlarmWay, alarmWays, useAlarm, useAlarmWay } from "./alarm";
import { BeginBake } from "../instruments/begin-bake";
import { Checks } from "./checks";
import { timerText } from "./figures";
import { Judge, Judged } from "./judge";
import { Oven } from "./oven";
import { Others, Timers } from "./running";
import { SlipPanel, slipWords, TellSlip } from "./slip";
import { useLiveBake, useStoredBake } from "./use-bake";
import { useAwake } from "./use-awake";
import { useReadAloud } from "./read-aloud";
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
  const wide = useWide();
  const [way, setWay] = useAlarmWay();
  const [slip, setSlip] = useState<Slip | null>(null);
  const [telling, setTelling] = useState(false);
  useAwake();
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
  // What a stand-in shows belongs to a rehearsal: in a real bake it would be nobody's number.
  const here = devices.filter(({ simulated }) => record.rehearsal !== undefined || !simulated);
  const scale = here.find(({ kind }) => kind === "scale");
  const probe = here.find(({ kind }) => kind === "probe");
  const told = (next: Slip): void => {
    happen("slip", { slip: next, words: slipWords(next, kitchen.shelf) });
    setSlip(next);
    setTelling(false);
  };
  const inBatter = (ingredientId: string): boolean =>
    record.formula.lines.some((line) => line.ingredientId === ingredientId && line.component === undefined);
  const open = current ? lines.filter(({ id, stepId }) => stepId === current.id && state.weighed[id] === undefined) : [];
  const line = open[0];
  const free = !slip && !line && state.phase !== "judged" && state.phase !== "baking";
  /** What the one button is about: the step that is on, or where hands wait, what runs out first. */
  const first = [...running].sort((a, b) => a.until - b.until)[0];
  const acts = !free ? null : current ? { step: current, runs: false } : first ? { step: first.step, runs: true } : null;
  useReadAloud(way === "voice" && !line, current && state.phase !== "baking" ? current.words : null);
  const shown = useDevice(line && !slip ? (scale?.id ?? null) : null);
  // There is a batter to check once it is wet.
  const isMixed = state.done[record.steps.find(({ kind }) => kind === "bake")?.within?.of ?? ""] !== undefined;
  const head = (
    <>
      <Title>{record.title}</Title>
      {record.rehearsal ? <Small tone="caution">{`A rehearsal: time runs ${record.rehearsal.factor} times faster.`}</Small> : null}
    </>
  );
  const timers = (
    <>
      <Link waiting={waiting} linked={linked} refused={refused} />
      <Others but={stored.id} />
      <Timers running={running} now={now} onDone={(stepId) => happen("step", { stepId, done: true })} />
      {due.map((step) => (
        <View key={step.id} style={styles.due}>
          <Body strong style={styles.grow}>
            {step.words}
          </Body>
          <Button
            style={styles.big}
            onPress={() => {
              happen(step.kind === "turn" ? "turned" : "looked", {});
              happen("step", { stepId: step.id, done: true });
            }}
          >
            Done
          </Button>
        </View>
      ))}
    </>
  );
  const stage = (
    <>
      {slip ? (
        <SlipPanel
          key={JSON.stringify(slip)}
          record={record}
          state={state}
          shelf={kitchen.shelf}
          slip={slip}
          happen={happen}
          onEnd={() => setSlip(null)}
        />
      ) : state.phase === "baking" ? (
        <Oven bakeId={stored.id} record={record} state={state} now={now} happen={happen} probeId={probe?.id ?? null} />
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
                if (off && inBatter(line.ingredientId))
                  told({ what: "amount", ingredientId: line.ingredientId, grams: grams + elsewhere(lines, line, state) });
              }}
            />
          ) : null}
        </>
      )}
      {record.part && record.formulaId ? <OtherParts record={record} formulaId={record.formulaId} /> : null}
      {state.phase === "cooling" ? <Cooling state={state} record={record} now={now} happen={happen} /> : null}
      {state.phase !== "judged" && state.outAt !== null ? (
        <Judge bakeId={stored.id} record={record} state={state} happen={happen} main={acts === null} />
      ) : null}
    </>
  );
  const beside = (
    <>
      {state.phase === "making" && !slip ? (
        <View style={styles.aside}>
          <Button kind="quiet" onPress={() => setTelling(!telling)}>
            Something went wrong
          </Button>
          {telling ? <TellSlip record={record} shelf={kitchen.shelf} onTold={told} /> : null}
          {isMixed ? (
            <>
              <Heading>Checks of the batter</Heading>
              <Checks record={record} state={state} happen={happen} />
            </>
          ) : null}
        </View>
      ) : null}
      <Choice
        label="How this device calls"
        options={alarmWays.map((value) => ({ value, label: alarmWords[value] }))}
        value={way}
        onChange={setWay}
      />
      <Told live={live} />
    </>
  );
  const act = acts ? <Act of={acts} next={next} happen={happen} /> : null;
  if (wide)
    return (
      <Beside
        share={0.6}
        list={
          <View style={styles.counter}>
            <ScrollView contentContainerStyle={styles.page}>
              {head}
              {stage}
            </ScrollView>
            {act}
          </View>
        }
        detail={
          <ScrollView contentContainerStyle={styles.page}>
            {timers}
            {beside}
          </ScrollView>
        }
      />
    );
  return (
    <View style={styles.counter}>
      <ScrollView contentContainerStyle={styles.page}>
        {head}
        {timers}
        {stage}
        {beside}
      </ScrollView>
      {act}
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

/** What is said when something that went on by itself is over. */
const overWords: Partial<Record<WorkStep["kind"], string>> = {
  temper: "It is soft",
  soak: "It has soaked",
  sour: "It has turned",
  rest: "It has stood",
  preheat: "It is hot",
  "cool-tin": "Out of the tin",
  "cool-rack": "It has cooled",
  "cool-through": "It is cool",
};

/** The one thing to do, where the thumb is, and what comes behind it. */
function Act({
  of: { step, runs },
  next,
  happen,
}: {
  of: { step: WorkStep; runs: boolean };
  next: WorkStep | null;
  happen: ReturnType<typeof useLiveBake>["happen"];
}) {
  const colours = useColours();
  const byItself = step.needs === "nothing" || step.needs === "oven";
  const over = overWords[step.kind] ?? "Done";
  const does = runs ? over : step.kind === "bake" ? "It is in the oven" : byItself ? "Begun" : "Done";
  const done = runs || !byItself;
  const then = next && next.id !== step.id ? next : null;
  return (
    <View style={[styles.bar, { borderTopColor: colours.strongRule, backgroundColor: colours.paper }]}>
      {runs ? <Small lines={2}>{step.words}</Small> : null}
      <View style={styles.act}>
        <Button kind="main" style={styles.whole} onPress={() => happen("step", { stepId: step.id, done })}>
          {does}
        </Button>
        {byItself && !runs && step.kind !== "bake" ? (
          <Button style={styles.big} onPress={() => happen("step", { stepId: step.id, done: true })}>
            {over === "Done" ? "Done already" : over}
          </Button>
        ) : null}
      </View>
      {then ? <Small tone="faint" lines={2}>{`Then: ${then.words}.`}</Small> : null}
    </View>
  ); // prettier-ignore
}

/** The other parts of the same batter: each is begun here, beside this one. */
function OtherParts({ record: { part, title, formulaId: _, ...record }, formulaId }: { record: StoredBake["record"]; formulaId: string }) {
  const whole = title.slice(0, title.lastIndexOf(", "));
  return (
    <View style={styles.aside} role="group" aria-label="Other parts of this batter">
      {part?.others.map(({ id, name }) => (
        <View key={id} style={styles.due}>
          <Body style={styles.grow}>{`Of the same batter: ${name}`}</Body>
          <BeginBake formulaId={formulaId} partId={id} title={whole} {...(record.planId ? { planId: record.planId } : {})} {...(record.planBakeId ? { planBakeId: record.planBakeId } : {})} {...(record.batch ? { batch: record.batch } : {})} />
        </View>
      ))}
    </View>
  );
} // prettier-ignore

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
        <View key={`${at}${words}`} role="listitem">
          <Small tone="faint">{`${new Date(at).toTimeString().slice(0, 5)}  ${words}`}</Small>
        </View>
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
  bar: { borderTopWidth: 1.5, padding: space.s, gap: space.xs },
  act: { flexDirection: "row", gap: space.s },
  aside: { gap: space.m, alignItems: "flex-start" },
});
