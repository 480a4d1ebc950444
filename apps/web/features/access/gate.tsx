import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { usePathname } from "expo-router";
import { type ReactNode, useEffect, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { readDevice, writeDevice } from "../../device/local";
import { comeIn, ownerHere } from "../../device/owner";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Field } from "../../ui/field";
import { Button } from "../../ui/press";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Lead, Small, Title } from "../../ui/words";
import { useChanges } from "../wire/changes";
import { whenLocked, wire } from "../wire/client";
import { keys } from "../wire/keys";
import { forgetKitchen, oncePerPage } from "../wire/kept";
import { RecoveryCode } from "./recovery-code";
import { useFault } from "../wire/use-fault";

const DEVICE = "device-name";

const here = (): string => (typeof location === "undefined" ? "/" : `${location.pathname}${location.search}`);
/** The address that was asked for: when the page was loaded, before the router says another, then where one was last. */
let wanted = here();

/** Everything behind the passcode, where this kitchen asks for one. Without an answer it opens all the same: what is kept on the device is this device's. */
export function Gate({ children }: { children: ReactNode }) {
  const queries = useQueryClient();
  const { data } = useQuery({ queryKey: keys.session.all, queryFn: ({ signal }) => wire.session(signal), staleTime: oncePerPage });
  const locked = data?.needed === true && data.here === null;
  const at = usePathname();
  useEffect(() => {
    if (data && !locked) wanted = here();
  }, [at, data, locked]);
  useEffect(() => {
    whenLocked(() => void queries.invalidateQueries({ queryKey: keys.session.all }));
  }, [queries]);
  const letGo = data?.letGo === true;
  useEffect(() => {
    // A device that was let go keeps nothing of the kitchen; behind another passcode what was under work stays with its owner.
    if (locked) void forgetKitchen(queries, letGo);
  }, [locked, letGo, queries]);
  // A helper's things are kept apart from a baker's: with another owner the page is opened anew.
  const role = data?.here?.role ?? (data?.needed === false ? "baker" : undefined);
  useEffect(() => {
    if (role === undefined || role === ownerHere()) return;
    if (comeIn(role)) globalThis.location.reload();
  }, [role]);
  useChanges(data !== undefined && !locked);
  return locked ? <Enter /> : children;
}

function Enter() {
  const colours = useColours();
  const [passcode, setPasscode] = useState("");
  const [device, setDevice] = useState(() => readDevice(DEVICE) ?? "");
  const [lost, setLost] = useState(false);
  useTitle("Passcode");
  const enter = useMutation({
    mutationFn: () => wire.enter(passcode, device.trim()),
    onSuccess: ({ here: entered }) => {
      writeDevice(DEVICE, device.trim());
      if (entered) comeIn(entered.role);
      // The address that was asked for is opened anew, with everything behind the door.
      globalThis.location.replace(wanted);
    },
  });
  const ready = passcode !== "" && device.trim() !== "";
  if (lost) return <Recover onLeave={() => setLost(false)} />;
  return (
    <ScrollView style={{ backgroundColor: colours.paper }} contentContainerStyle={styles.page} keyboardShouldPersistTaps="handled">
      <View role="main" style={styles.form}>
        <Title>Uprise</Title>
        <Lead>This kitchen asks who comes in.</Lead>
        <form
          style={form}
          onSubmit={(event) => {
            event.preventDefault();
            if (ready) enter.mutate();
          }}
        >
          <Field
            label="This device"
            value={device}
            onChange={setDevice}
            hint="A name by which it can be let go again, such as “Counter phone”."
          />
          <Field
            label="Passcode"
            value={passcode}
            onChange={setPasscode}
            onSubmit={() => ready && enter.mutate()}
            secret
            {...(enter.error ? { error: enter.error.message } : {})}
          />
          <Button kind="main" disabled={!ready || enter.isPending} onPress={() => enter.mutate()}>
            Come in
          </Button>
        </form>
        <Button kind="quiet" onPress={() => setLost(true)}>
          The passcode is lost
        </Button>
      </View>
    </ScrollView>
  );
}

/** A new passcode by the code that was written down. */
function Recover({ onLeave }: { onLeave: () => void }) {
  const colours = useColours();
  const [code, setCode] = useState("");
  const [passcode, setPasscode] = useState("");
  const recover = useMutation({ mutationFn: () => wire.recover(code, passcode) });
  const fault = useFault("passcodeSchema", passcode);
  return (
    <ScrollView style={{ backgroundColor: colours.paper }} contentContainerStyle={styles.page} keyboardShouldPersistTaps="handled">
      <View role="main" style={styles.form}>
        <Title>Uprise</Title>
        {recover.data ? (
          <>
            <RecoveryCode code={recover.data.recovery} />
            <Button kind="main" onPress={onLeave}>
              I have written it down
            </Button>
          </>
        ) : (
          <>
            <Heading>A new passcode</Heading>
            <Body>The recovery code was shown when the passcode was set. With it, every device is let go and comes in anew.</Body>
            <Field
              label="Recovery code"
              value={code}
              onChange={setCode}
              {...(recover.error ? { error: recover.error.message } : {})}
            />
            <Field label="New passcode" value={passcode} onChange={setPasscode} secret {...(fault ? { error: fault } : {})} />
            <Button
              kind="main"
              disabled={code.trim() === "" || passcode === "" || fault !== undefined || recover.isPending}
              onPress={() => recover.mutate()}
            >
              Set it
            </Button>
            <Button kind="quiet" onPress={onLeave}>
              Back to the passcode
            </Button>
            <Small tone="faint">Without the code, whoever runs the server sets a new one there; its operating notes say how.</Small>
          </>
        )}
      </View>
    </ScrollView>
  );
}

/** A form of the page's own, so that a keeper of passwords knows it. */
const form = { display: "flex", flexDirection: "column", gap: space.l } as const;

const styles = StyleSheet.create({
  page: { flexGrow: 1, padding: space.xl, justifyContent: "center", alignItems: "center" },
  form: { gap: space.l, width: "100%", maxWidth: 420 },
});
