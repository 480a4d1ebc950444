import { useMutation } from "@tanstack/react-query";
import type { StoredPlan } from "@uprise/contract";
import type { Plan } from "@uprise/core";
import { aroundNow } from "@uprise/core/page-live";
import { useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { download } from "../../device/download";
import { fonts, space, type } from "../../theme/scale";
import { useColours, useWide } from "../../theme/theme";
import { Check } from "../../ui/check";
import { ClockField } from "../../ui/clock-field";
import { Link } from "../../ui/link";
import { Notice } from "../../ui/notice";
import { NumberField } from "../../ui/number-field";
import { Button } from "../../ui/press";
import { Failed, Loading, NotFound, Progress } from "../../ui/state";
import { TitleField } from "../../ui/title-field";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small } from "../../ui/words";
import { wire, WireError } from "../wire/client";
import { isSettled } from "../wire/kept";
import { useFormulas, useOvenList } from "../wire/queries";
import { Bakes } from "./bakes";
import { ovenOfDay } from "./list-screen";
import { Ribbon, useNow } from "./ribbon";
import { fromNow } from "./so-far";
import { StartBakes } from "./start";
import { clockOf, dateOf, isoFrom, lengthWords } from "./times";
import { useDay, usePlan, usePlanned } from "./use-day";

/** A day of bakes: what is wanted by when, and the ribbon that it makes. */
export function DayScreen({ id }: { id: string }) {
  const query = usePlan(id);
  const { data, error, refetch } = query;
  if (error instanceof WireError && error.status === 404)
    return (
      <NotFound title="There is no such day." to="/day" way="To the days">
        It may have been taken off the list.
      </NotFound>
    );
  if (error && !data) return <Failed title="This day did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data || !isSettled(query)) return <Loading what="Fetching the day" />;
  return <DayOf key={data.id} stored={data} />;
}

function DayOf({ stored }: { stored: StoredPlan }) {
  const wide = useWide();
  const colours = useColours();
  const now = useNow();
  const { title, day, change, rename, undo, fault, retry } = useDay(stored);
  const { data: plan = null, error, isFetching, progress, stopped, stop, refetch } = usePlanned(day);
  const { data: list } = useFormulas("");
  const [shown, setShown] = useState<string | null>(null);
  useTitle(title);
  const table = useMutation({
    mutationFn: () => wire.exportFile({ what: "plan", ids: [stored.id], format: "csv" }),
    onSuccess: ({ name, content }) => download(name, content),
  });
  const again = useMutation({ mutationFn: () => fromNow(stored.id, day, Date.now()), onSuccess: change });
  const formulas = list?.pages.flatMap((page) => page.items) ?? [];
  const sheet = (
    <View style={styles.sheet}>
      <TitleField
        label="Name of the day"
        value={title}
        onChange={rename}
        style={[type.title, { fontFamily: fonts.display, color: colours.ink }]}
      />
      <Kitchen day={day} onChange={change} />
      <Heading>Bakes</Heading>
      <Bakes day={day} plan={plan} formulas={formulas} onChange={change} shown={shown} onShow={setShown} />
      <Progress on={isFetching} what="Planning the day" done={progress} onStop={stop} />
      {stopped && !error ? (
        <Notice
          gravity="caution"
          title={plan ? "Stopped: the plan below is of the day as it was before." : "Stopped: there is no plan yet."}
          action={<Button onPress={() => void refetch()}>Plan it</Button>}
        />
      ) : null}
      {error ? <Notice gravity="stop" title={error.message} /> : null}
      {fault ? (
        <Notice gravity="caution" title={`Not saved: ${fault}`} action={<Button onPress={retry}>Save again</Button>} />
      ) : null}
      {undo ? (
        <Button kind="quiet" onPress={undo}>
          Take the last change back
        </Button>
      ) : null}
      {again.error ? <Notice gravity="caution" title={`Not planned again: ${again.error.message}`} /> : null}
      {plan ? <Verdict plan={plan} /> : null}
      {plan ? <StartBakes plan={plan} day={day} planId={stored.id} /> : null}
      <View style={styles.tools}>
        <Link to={`/print/day/${stored.id}`} style={styles.link}>
          <Body style={styles.underlined}>Prep sheet, shopping list and ribbon on paper</Body>
        </Link>
        <Button kind="quiet" onPress={() => globalThis.location.assign(`/api/plans/${stored.id}/calendar.ics`)}>
          Into a calendar
        </Button>
        <Button kind="quiet" disabled={table.isPending} onPress={() => table.mutate()}>
          Steps as a table
        </Button>
        <Button kind="quiet" onPress={() => again.mutate()} disabled={again.isPending || now < Date.parse(day.start)}>
          Plan again from now
        </Button>
      </View>
    </View>
  );
  const ribbon = plan ? (
    <View style={styles.sheet}>
      <Heading>The ribbon of the day</Heading>
      <NowAndNext plan={plan} now={now} />
      <Ribbon
        plan={plan}
        now={now}
        shown={shown}
        onShow={(bake) => setShown(shown === bake ? null : bake)}
        onMove={(bake, heldAt) => change({ bakes: day.bakes.map((one) => (one.id === bake ? { ...one, heldAt } : one)) })}
      />
    </View>
  ) : null;
  if (!wide)
    return (
      <ScrollView contentContainerStyle={styles.page}>
        {sheet}
        {ribbon}
      </ScrollView>
    );
  return (
    <View style={styles.wide}>
      <ScrollView style={styles.left} contentContainerStyle={styles.page}>
        {sheet}
      </ScrollView>
      <ScrollView style={styles.right} contentContainerStyle={styles.page}>
        {ribbon}
      </ScrollView>
    </View>
  );
}

function Kitchen({ day, onChange }: { day: StoredPlan["day"]; onChange: ReturnType<typeof useDay>["change"] }) {
  const { ovens = [] } = useOvenList();
  const [date, clock] = [dateOf(day.start), clockOf(day.start)];
  /** Another day: everything that was said by the clock is said for that day. */
  const toDay = (next: string): void => {
    const moved = (iso: string | undefined): string | undefined =>
      iso === undefined ? undefined : (isoFrom(next, clockOf(iso), iso) ?? undefined);
    const start = isoFrom(next, clock, day.start);
    if (start) onChange({ start, now: undefined, bakes: day.bakes.map((bake) => ({ ...bake, readyBy: moved(bake.readyBy), earliest: moved(bake.earliest), heldAt: moved(bake.heldAt) })) }); // prettier-ignore
  };
  return (
    <View style={styles.kitchen}>
      <View style={styles.fields}>
        <ClockField label="Day" kind="date" value={date} onChange={toDay} style={styles.date} />
        <ClockField
          label="Hands from"
          kind="time"
          value={clock}
          onChange={(next) => {
            const start = isoFrom(date, next, day.start);
            if (start) onChange({ start });
          }}
          style={styles.field}
        />
        <NumberField label="Pairs of hands" value={day.hands} unit="" least={1} most={8} whole onChange={(hands) => hands !== undefined && onChange({ hands })} style={styles.field} />
        <NumberField label="Mixers" value={day.mixers} unit="" least={0} most={8} whole onChange={(mixers) => mixers !== undefined && onChange({ mixers })} style={styles.field} />
        <ClockField
          label="All ready by"
          kind="time"
          value={day.bakes[0]?.readyBy ? clockOf(day.bakes[0].readyBy) : ""}
          onChange={(next) => {
            const readyBy = next === "" ? undefined : (isoFrom(date, next, day.start) ?? undefined);
            onChange({ bakes: day.bakes.map((bake) => ({ ...bake, readyBy })) });
          }}
          style={styles.field}
        />
      </View>
      <View style={styles.tools} role="group" aria-label="Ovens of the day">
        {ovens.map((oven) => {
          const on = day.ovens.some(({ id }) => id === oven.id);
          return <Check key={oven.id} label={oven.oven.name} on={on} onChange={(next) => onChange({ ovens: next ? [...day.ovens, ovenOfDay(oven)] : day.ovens.filter(({ id }) => id !== oven.id) })} />;
        })}
      </View>
    </View>
  ); // prettier-ignore
}

function NowAndNext({ plan, now }: { plan: Plan; now: number }) {
  const { going, next } = aroundNow(plan, now);
  if (going.length === 0 && (next === null || Date.parse(next.start) - now > 12 * 3600_000)) return null;
  const until = next ? (Date.parse(next.start) - now) / 60_000 : 0;
  return (
    <Body>
      {going.length > 0 ? `Now: ${going.map(({ words }) => words).join("; ")}. ` : ""}
      {next ? `Next, in ${lengthWords(until)}: ${next.words}.` : ""}
    </Body>
  );
}

/** When the last bake may be eaten. */
const readyOf = ({ bakes, start }: Plan): string =>
  bakes.reduce((last, { ready }) => (Date.parse(ready) > Date.parse(last) ? ready : last), start);

function Verdict({ plan }: { plan: Plan }) {
  const title = new Map(plan.bakes.map((bake) => [bake.id, bake.title]));
  const bound = (Date.parse(plan.end) - Date.parse(plan.bound.end)) / 60_000;
  const changes = plan.ovenChanges === 0 ? "" : plan.ovenChanges === 1 ? ", one change of an oven's heat" : `, ${plan.ovenChanges} changes of an oven's heat`; // prettier-ignore
  return (
    <View style={styles.verdict}>
      {plan.late.length > 0 ? (
        <Notice
          gravity="stop"
          title={`Too late: ${plan.late.map(({ bakeId, minutes }) => `${title.get(bakeId) ?? "a bake"} by ${minutes} min`).join(", ")}.`}
        >
          {plan.giveUp.length > 0 ? <Body>What would help, each planned again:</Body> : <Body>Nothing that was tried helps.</Body>}
          {plan.giveUp.map(({ what, saves }) => (
            <Body key={what}>{`${what}: saves ${saves} min.`}</Body>
          ))}
        </Notice>
      ) : (
        <Body>{`Everything is ready by ${clockOf(readyOf(plan))}${Date.parse(plan.end) > Date.parse(readyOf(plan)) ? `, and what is kept is wrapped by ${clockOf(plan.end)}` : ""}${changes}; batter that is wet ${plan.waitingMinutes === 0 ? "waits for no oven" : `waits ${plan.waitingMinutes} min in all`}.`}</Body>
      )}
      <Small tone="faint">
        {bound <= 0
          ? "No plan of this day ends earlier."
          : `No plan of this day could end before ${clockOf(plan.bound.end)}. Each oven is held for the later half of a bake's minutes.`}
      </Small>
      {plan.evening.length > 0 ? (
        <Notice gravity="note" title="The evening before">
          {plan.evening.map((step) => (
            <Body key={step.id}>{`${title.get(step.bakeId) ?? ""}: ${step.words}.`}</Body>
          ))}
        </Notice>
      ) : null}
      {plan.notes.map((note) => (
        <Notice key={note} gravity="caution" title={note} />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.xl },
  sheet: { gap: space.m },
  wide: { flex: 1, flexDirection: "row", minHeight: 0 },
  left: { flex: 1, minWidth: 0 },
  right: { flex: 1.1, minWidth: 0 },
  kitchen: { gap: space.m },
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 140 },
  date: { width: 160 },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "center" },
  link: { paddingHorizontal: space.l },
  underlined: { textDecorationLine: "underline" },
  verdict: { gap: space.s },
});
