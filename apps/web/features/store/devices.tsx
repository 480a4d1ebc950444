import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { DeviceCommand, StoredDevice } from "@uprise/contract";
import { useRef, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Check } from "../../ui/check";
import { Choice } from "../../ui/choice";
import { Field } from "../../ui/field";
import { Button, Press } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { Body, Figure, Small } from "../../ui/words";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useDevice, useDevices } from "../wire/use-device";
import { TakenOffNotice } from "./taken-off";
import { useTakeOff } from "./use-shelf-writes";

type Kind = StoredDevice["kind"];
const kindsOfDevice: readonly Kind[] = ["scale", "probe", "oven", "ph"];
const kindWord: Record<Kind, string> = { scale: "Scale", probe: "Probe thermometer", oven: "Oven thermometer", ph: "pH meter" };
const unitWord = { g: "g", C: "°C", pH: "pH" } as const;
const faults = [
  { value: "none", label: "Sound" },
  { value: "silent", label: "Silent" },
  { value: "nonsense", label: "Nonsense" },
  { value: "flood", label: "Too much" },
] as const;

/** Scale, probes and meters: paired, named, tried out, unplugged. Each ships as a stand-in that the server plays. */
export function Devices() {
  const colours = useColours();
  const { data, error, refetch } = useDevices();
  const off = useTakeOff(keys.devices.all);
  const [open, setOpen] = useState<string | null>(null);
  if (error && !data) return <Failed title="The devices did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data) return <Loading what="Fetching the devices" />;
  return (
    <ScrollView contentContainerStyle={styles.list} keyboardShouldPersistTaps="handled">
      <TakenOffNotice {...off} />
      <View role="list" aria-label="Devices">
        {data.map((device) => (
          <View role="listitem" key={device.id} style={{ borderBottomWidth: 1, borderBottomColor: colours.rule }}>
            <Press
              onPress={() => setOpen(open === device.id ? null : device.id)}
              aria-expanded={open === device.id}
              style={styles.device}
            >
              <Body strong>{device.name}</Body>
              <Small tone="faint">{`${kindWord[device.kind]}, ${device.simulated ? "a stand-in that the server plays" : "spoken for by its bridge"}`}</Small>
            </Press>
            {open === device.id ? (
              <Trial
                device={device}
                onUnplug={() => {
                  setOpen(null);
                  off.takeOff(
                    {
                      name: device.name,
                      back: () =>
                        wire.createDevice({ id: device.id, name: device.name, kind: device.kind, simulated: device.simulated }),
                    },
                    () => wire.removeDevice(device.id, device.version),
                  );
                }}
              />
            ) : null}
          </View>
        ))}
      </View>
      <Pair />
    </ScrollView>
  );
}

/** What a device shows now, and what it can be told. */
function Trial({ device, onUnplug }: { device: StoredDevice; onUnplug: () => void }) {
  const { message, silent } = useDevice(device.id);
  const [fault, setFault] = useState<(typeof faults)[number]["value"]>("none");
  const tell = useMutation({ mutationFn: (command: DeviceCommand) => wire.tellDevice(device.id, command) });
  return (
    <View style={styles.trial}>
      <Figure>{message ? `${message.value} ${unitWord[message.unit]}` : "…"}</Figure>
      <Small tone={silent ? "caution" : "faint"}>
        {silent ? "It says nothing now." : message ? (message.stable === false ? "moving" : "it speaks") : "listening"}
      </Small>
      {device.simulated ? (
        <>
          {device.kind === "scale" ? (
            <View style={styles.tools}>
              <Button onPress={() => tell.mutate({ command: "tare" })}>Tare</Button>
              <Button onPress={() => tell.mutate({ command: "rehearse", pourG: 100 })}>Pour 100 g</Button>
            </View>
          ) : null}
          {device.kind === "oven" ? (
            <View style={styles.tools}>
              <Button onPress={() => tell.mutate({ command: "set", celsius: 180 })}>Set to 180 °C</Button>
            </View>
          ) : null}
          <Choice
            label="How the stand-in behaves"
            options={faults}
            value={fault}
            onChange={(next) => {
              setFault(next);
              tell.mutate({ command: "rehearse", fault: next });
            }}
          />
        </>
      ) : (
        <Small>{`A bridge speaks for it over a WebSocket at /api/devices/${device.id}/stream, one JSON object a line.`}</Small>
      )}
      {tell.error ? <Small tone="stop">{tell.error.message}</Small> : null}
      <Button kind="quiet" onPress={onUnplug} label={`Unplug ${device.name}`}>
        Unplug
      </Button>
    </View>
  );
}

function Pair() {
  const queries = useQueryClient();
  const id = useRef(newId());
  const [name, setName] = useState("");
  const [kind, setKind] = useState<Kind>("scale");
  const [simulated, setSimulated] = useState(true);
  const pair = useMutation({
    mutationFn: () => wire.createDevice({ id: id.current, name: name.trim(), kind, simulated }),
    onSuccess: async () => {
      id.current = newId();
      setName("");
      await queries.invalidateQueries({ queryKey: keys.devices.all });
    },
  });
  return (
    <View style={styles.trial}>
      <Choice
        label="What it is"
        options={kindsOfDevice.map((value) => ({ value, label: kindWord[value] }))}
        value={kind}
        onChange={setKind}
      />
      <Field label="Name" value={name} onChange={setName} />
      <Check label="A stand-in" on={simulated} onChange={setSimulated} />
      <Button onPress={() => pair.mutate()} disabled={name.trim() === "" || pair.isPending}>
        Pair a device
      </Button>
      {pair.error ? <Small tone="stop">{pair.error.message}</Small> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.m, gap: space.l, maxWidth: 720, width: "100%" },
  device: { paddingVertical: space.s, alignItems: "flex-start" },
  trial: { gap: space.s, alignItems: "flex-start", paddingBottom: space.m },
  tools: { flexDirection: "row", gap: space.s, flexWrap: "wrap" },
});
