import { DndContext, KeyboardSensor, MouseSensor, TouchSensor, useDraggable, useSensor, useSensors } from "@dnd-kit/core";
import type { Corners } from "@uprise/core";
import { useState } from "react";
import { Image, StyleSheet, View } from "react-native";
import Svg, { Polygon } from "react-native-svg";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { PlainButton } from "../../ui/dom";
import { Button } from "../../ui/press";
import { Small } from "../../ui/words";

const names = ["Upper left", "Upper right", "Lower right", "Lower left"] as const;
const HANDLE = 44;

interface Photograph {
  url: string;
  width: number;
  height: number;
}
/** The photograph with the four corners of its page, to be dragged where they belong. */
export function SetCorners({
  photograph,
  corners,
  onSet,
  onLeave,
}: {
  photograph: Photograph;
  corners: Corners;
  onSet: (corners: Corners) => void;
  onLeave: () => void;
}) {
  const colours = useColours();
  const [now, setNow] = useState(corners);
  const [wide, setWide] = useState(0);
  const scale = wide / photograph.width;
  const sensors = useSensors(useSensor(MouseSensor), useSensor(TouchSensor), useSensor(KeyboardSensor));
  const within = (value: number, most: number): number => Math.min(most, Math.max(0, value));
  return (
    <View style={styles.all}>
      <Small tone="faint">Drag each corner onto the corner of the page; by keys: Space takes hold, arrows move, Space lets go.</Small>
      <DndContext
        sensors={sensors}
        onDragEnd={({ active, delta }) =>
          setNow((before) =>
            before.map((point, k) =>
              k === Number(active.id)
                ? { x: within(point.x + delta.x / scale, photograph.width), y: within(point.y + delta.y / scale, photograph.height) }
                : point,
            ) as unknown as Corners,
          )
        }
      >
        <View style={styles.picture} onLayout={({ nativeEvent }) => setWide(nativeEvent.layout.width)}>
          <Image source={{ uri: photograph.url }} style={{ width: wide, height: photograph.height * scale }} alt="The photograph" />
          {wide > 0 ? (
            <>
              <Svg style={styles.over} width={wide} height={photograph.height * scale} pointerEvents="none">
                <Polygon points={now.map(({ x, y }) => `${x * scale},${y * scale}`).join(" ")} fill="none" stroke={colours.stop} strokeWidth={2} />
              </Svg>
              {now.map(({ x, y }, k) => (
                <Handle key={names[k]} id={`${k}`} name={names[k] ?? ""} x={x * scale} y={y * scale} />
              ))}
            </>
          ) : null}
        </View>
      </DndContext>
      <View style={styles.row}>
        <Button kind="main" onPress={() => onSet(now)}>
          Read it with these corners
        </Button>
        <Button kind="quiet" onPress={onLeave}>
          Leave them
        </Button>
      </View>
    </View>
  );
} // prettier-ignore

function Handle({ id, name, x, y }: { id: string; name: string; x: number; y: number }) {
  const colours = useColours();
  const { setNodeRef, listeners, attributes, transform } = useDraggable({ id });
  return (
    <PlainButton
      ref={setNodeRef}
      type="button"
      {...attributes}
      {...listeners}
      aria-label={`${name} corner`}
      style={{
        position: "absolute",
        left: x - HANDLE / 2 + (transform?.x ?? 0),
        top: y - HANDLE / 2 + (transform?.y ?? 0),
        width: HANDLE,
        height: HANDLE,
        borderWidth: 2,
        borderStyle: "solid",
        borderColor: colours.stop,
        backgroundColor: "transparent",
      }}
    />
  );
}

const styles = StyleSheet.create({
  all: { gap: space.s },
  picture: { width: "100%", position: "relative" },
  over: { position: "absolute", left: 0, top: 0 },
  row: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "center" },
});
