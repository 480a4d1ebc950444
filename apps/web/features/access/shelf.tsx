import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { countWaiting } from "../../device/outbox";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Field } from "../../ui/field";
import { Button } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { Body, Heading, Small } from "../../ui/words";
import { wire } from "../wire/client";
import { forgetKitchen } from "../wire/kept";
import { keys } from "../wire/keys";
import { useOutbox } from "../wire/outbox";
import { RecoveryCode } from "./recovery-code";
import { useFault } from "../wire/use-fault";
import { shortDay } from "../../ui/dates";

/** Who may come in: the devices, a passcode for helpers, and another one for bakers. */
export function AccessShelf() {
  const { data: session, error, refetch } = useQuery({ queryKey: keys.session.all, queryFn: ({ signal }) => wire.session(signal) });
  if (error && !session) return <Failed title="Who may come in did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!session) return <Loading what="Asking who may come in" />;
  if (!session.needed)
    return (
      <View style={styles.page}>
        <Heading>This machine alone</Heading>
        <Body>
          The server answers on this machine and to nobody else, so it asks for no passcode. Set one with “npm run passcode”, then start it with
          HOST=0.0.0.0, and the phones of the kitchen reach it by this machine's address.
        </Body>
      </View>
    );
  if (session.here?.role === "helper")
    return (
      <View style={styles.page}>
        <Body>{`“${session.here.device}” came in as a helper: it weighs, judges and looks.`}</Body>
        <Leave />
      </View>
    );
  return (
    <ScrollView contentContainerStyle={styles.page} keyboardShouldPersistTaps="handled">
      <Devices />
      <Passcodes />
    </ScrollView>
  );
} // prettier-ignore

function Leave() {
  const queries = useQueryClient();
  const { waiting } = useOutbox();
  const [asked, setAsked] = useState<number | null>(null);
  const leave = useMutation({
    mutationFn: async () => {
      await wire.leave();
      await forgetKitchen(queries, true);
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.session.all }),
  });
  const press = async (): Promise<void> => {
    const open = waiting.length + (await countWaiting());
    if (open > 0 && asked === null) setAsked(open);
    else leave.mutate();
  };
  return (
    <View style={styles.leave}>
      {asked !== null ? (
        <Body tone="caution">{`${asked === 1 ? "One thing waits here and has" : `${asked} things wait here and have`} not been sent. Leaving takes ${asked === 1 ? "it" : "them"} off this device.`}</Body>
      ) : null}
      <Button disabled={leave.isPending} onPress={() => void press()}>
        {asked !== null ? "Leave all the same" : "Leave with this device"}
      </Button>
      {leave.error ? <Body tone="stop">{leave.error.message}</Body> : null}
      <Small tone="faint">Drafts and what was kept for work without a network leave with it.</Small>
    </View>
  );
} // prettier-ignore

function Devices() {
  const colours = useColours();
  const queries = useQueryClient();
  const { data, error, refetch } = useQuery({ queryKey: keys.access.all, queryFn: ({ signal }) => wire.access(signal) });
  const letGo = useMutation({
    mutationFn: (id: string) => wire.letGo(id),
    onSettled: () => queries.invalidateQueries({ queryKey: keys.access.all }),
  });
  if (error && !data) return <Failed title="The devices did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data) return <Loading what="Fetching the devices" />;
  return (
    <View style={styles.part}>
      <Heading>Devices that are let in</Heading>
      <View role="list">
        {data.devices.map(({ id, device, role, seen, here }) => (
          <View key={id} role="listitem" style={[styles.line, { borderBottomColor: colours.rule }]}>
            <View style={styles.grow}>
              <Body strong={here}>{`${device}${here ? ", this one" : ""}`}</Body>
              <Small tone="faint">{`${role}; last here ${shortDay(new Date(seen))}`}</Small>
            </View>
            {here ? null : (
              <Button kind="quiet" label={`Let it go: ${device}`} onPress={() => letGo.mutate(id)}>
                Let it go
              </Button>
            )}
          </View>
        ))}
      </View>
      {letGo.error ? <Body tone="stop">{letGo.error.message}</Body> : null}
      <Leave />
    </View>
  );
}

function Passcodes() {
  const queries = useQueryClient();
  const { data } = useQuery({ queryKey: keys.access.all, queryFn: ({ signal }) => wire.access(signal) });
  const [helper, setHelper] = useState("");
  const [old, setOld] = useState("");
  const [next, setNext] = useState("");
  const setFor = useMutation({
    mutationFn: (passcode: string | null) => wire.setHelper(passcode),
    onSuccess: async () => {
      setHelper("");
      await queries.invalidateQueries({ queryKey: keys.access.all });
    },
  });
  const change = useMutation({ mutationFn: () => wire.setPasscode(old, next) });
  const helperFault = useFault("passcodeSchema", helper);
  const nextFault = useFault("passcodeSchema", next);
  return (
    <>
      <View style={styles.part}>
        <Heading>For helpers at the counter</Heading>
        <Body>{data?.helper ? "Helpers have a passcode of their own: they weigh, judge and look, and change no formula." : "With a passcode of their own helpers weigh, judge and look, and change no formula."}</Body>
        <Field label="Passcode for helpers" value={helper} onChange={setHelper} secret {...(helperFault ?? setFor.error?.message ? { error: helperFault ?? setFor.error?.message } : {})} />
        <View style={styles.row}>
          <Button disabled={helper === "" || helperFault !== undefined || setFor.isPending} onPress={() => setFor.mutate(helper)}>
            {data?.helper ? "Another passcode for helpers" : "Let helpers in by it"}
          </Button>
          {data?.helper ? (
            <Button kind="quiet" onPress={() => setFor.mutate(null)}>
              No helpers any more
            </Button>
          ) : null}
        </View>
      </View>
      <View style={styles.part}>
        <Heading>Another passcode for bakers</Heading>
        {change.data ? (
          <>
            <RecoveryCode code={change.data.recovery} />
            <Button kind="main" onPress={() => void queries.invalidateQueries({ queryKey: keys.session.all })}>
              I have written it down
            </Button>
          </>
        ) : (
          <>
            <Body>Every device is let go, this one too, and comes in anew.</Body>
            <Field label="The passcode as it is" value={old} onChange={setOld} secret {...(change.error ? { error: change.error.message } : {})} />
            <Field label="The new one" value={next} onChange={setNext} secret {...(nextFault ? { error: nextFault } : {})} />
            <Button disabled={old === "" || next === "" || nextFault !== undefined || change.isPending} onPress={() => change.mutate()}>
              Change it
            </Button>
          </>
        )}
      </View>
    </>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  page: { padding: space.m, gap: space.xl, maxWidth: 620, width: "100%" },
  part: { gap: space.m, alignItems: "flex-start" },
  row: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
  leave: { gap: space.s, alignItems: "flex-start" },
  line: { flexDirection: "row", alignItems: "center", gap: space.m, borderBottomWidth: 1, minHeight: 56, width: "100%" },
  grow: { flex: 1, minWidth: 0 },
});
