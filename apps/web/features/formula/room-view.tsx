import X from "lucide-react-native/icons/x";
import { lazy, Suspense } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Guard } from "../../ui/guard";
import { Press } from "../../ui/press";
import { Loading } from "../../ui/state";
import { Body, Heading } from "../../ui/words";
import { Stages } from "../bake/stages";
import { useBench } from "./bench-context";
import { type RoomName, roomTitle } from "./rooms";

/** Rooms come when they are opened; `fetchRooms` brings them ahead. */
const parts = {
  lift: () => import("../lift/room"),
  body: () => import("../body/room"),
  fill: () => import("../fill/room"),
  bake: () => import("../bake/room"),
  balance: () => import("../balance/room"),
  versions: () => import("./versions-room"),
  parts: () => import("./parts-room"),
  steps: () => import("./steps-room"),
  label: () => import("../label/room"),
  many: () => import("../label/many-room"),
  send: () => import("../exchange/send-room"),
};
const LiftRoom = lazy(async () => ({ default: (await parts.lift()).LiftRoom }));
const BodyRoom = lazy(async () => ({ default: (await parts.body()).BodyRoom }));
const FillRoom = lazy(async () => ({ default: (await parts.fill()).FillRoom }));
const BakeRoom = lazy(async () => ({ default: (await parts.bake()).BakeRoom }));
const BalanceRoom = lazy(async () => ({ default: (await parts.balance()).BalanceRoom }));
const VersionsRoom = lazy(async () => ({ default: (await parts.versions()).VersionsRoom }));
const PartsRoom = lazy(async () => ({ default: (await parts.parts()).PartsRoom }));
const StepsRoom = lazy(async () => ({ default: (await parts.steps()).StepsRoom }));
const LabelRoom = lazy(async () => ({ default: (await parts.label()).LabelRoom }));
const ManyRoom = lazy(async () => ({ default: (await parts.many()).ManyRoom }));
const SendRoom = lazy(async () => ({ default: (await parts.send()).SendRoom }));

/** The room that is open, from its top, with a fence around it. */
export function RoomView() {
  const colours = useColours();
  const { room, byItself, leave, id, replace } = useBench();
  if (!room) return null;
  const title = roomTitle[room];
  return (
    <ScrollView key={`${room}-${replace ?? ""}`} style={styles.scroll} keyboardShouldPersistTaps="handled" testID="room-scroll">
      <View style={styles.room} role="region" aria-label={title}>
        <View style={styles.head}>
          <Heading>{title}</Heading>
          {byItself ? null : (
            <Press onPress={leave} label={`Close ${title}`} style={styles.close}>
              <X size={24} color={colours.ink} />
            </Press>
          )}
        </View>
        <Guard what="This room" resetKeys={[room, id]}>
          <Suspense fallback={<Loading what="Opening the room" />}>
            <Room room={room} />
          </Suspense>
        </Guard>
      </View>
    </ScrollView>
  );
}

function Room({ room }: { room: RoomName }) {
  const { formula, own, analysis, simulation, baking, unbaked, kitchen, open, edit, id, faults, ...bench } = useBench();
  const { shelf } = kitchen;
  switch (room) {
    case "balance":
    case "swap":
      return (
        <BalanceRoom
          id={id}
          formula={own}
          kitchen={kitchen}
          replace={room === "swap" ? bench.replace : null}
          tried={bench.tried}
          onTry={bench.onTry}
        />
      );
    case "parts":
      return <PartsRoom formula={formula} kitchen={kitchen} edit={edit} faults={faults} />;
    case "send":
      return <SendRoom id={id} unsaved={bench.unsaved} />;
    case "versions":
      return <VersionsRoom id={id} formula={formula} kitchen={kitchen} edit={edit} />;
    default:
  }
  if (!analysis && baking) return <Loading what="Reading the sheet" />;
  if (!analysis) return <Body>There is nothing to read yet: the sheet weighs nothing.</Body>;
  switch (room) {
    case "steps":
      return (
        <StepsRoom
          id={id}
          unsaved={bench.unsaved}
          formula={formula}
          analysis={analysis}
          simulation={simulation}
          open={open}
          kitchen={kitchen}
          edit={edit}
        />
      );
    case "label":
      return <LabelRoom id={id} formula={formula} open={open} kitchen={kitchen} />;
    case "many":
      return <ManyRoom formulaId={id} formula={formula} analysis={analysis} name={(one) => shelf.get(one)?.name ?? one} />;
    case "lift":
      return <LiftRoom analysis={analysis} shelf={shelf} />;
    case "body":
      return <BodyRoom analysis={analysis} shelf={shelf} open={open} edit={edit} lines={formula.lines} />;
    case "fill":
      return (
        <FillRoom
          formula={formula}
          analysis={analysis}
          simulation={simulation}
          open={open}
          shelf={shelf}
          edit={edit}
          faults={faults}
        />
      );
    case "bake":
      return (
        <BakeRoom
          stages={<Stages formula={formula} minutes={analysis.bake?.minutes.mid ?? null} edit={edit} />}
          formula={formula}
          analysis={analysis}
          simulation={simulation}
          baking={baking}
          unbaked={unbaked}
          open={open}
          kitchen={kitchen}
          edit={edit}
        />
      );
  }
}

const styles = StyleSheet.create({
  scroll: { flex: 1 },
  room: { padding: space.m, maxWidth: 620, width: "100%" },
  head: { flexDirection: "row", alignItems: "center", justifyContent: "space-between", minHeight: 48 },
  close: { alignItems: "center" },
});
