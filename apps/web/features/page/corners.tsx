import type { Corners } from "@uprise/core";
import { useRef, useState } from "react";
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
  const within = (value: number, most: number): number => Math.min(most, Math.max(0, value));
  const move = (k: number, dx: number, dy: number): void =>
    setNow((before) => before.map((point, at) => (at === k ? { x: within(point.x + dx, photograph.width), y: within(point.y + dy, photograph.height) } : point)) as unknown as Corners); // prettier-ignore
  return (
    <View style={styles.all}>
      <Small tone="faint">Drag each corner onto the corner of the page, or move it with the arrow keys.</Small>
        <View style={styles.picture} onLayout={({ nativeEvent }) => setWide(nativeEvent.layout.width)}>
          <Image source={{ uri: photograph.url }} style={{ width: wide, height: photograph.height * scale }} alt="The photograph" />
          {wide > 0 ? (
            <>
              <Svg style={styles.over} width={wide} height={photograph.height * scale} pointerEvents="none">
                <Polygon points={now.map(({ x, y }) => `${x * scale},${y * scale}`).join(" ")} fill="none" stroke={colours.stop} strokeWidth={2} />
              </Svg>
              {now.map(({ x, y }, k) => (
                <Handle key={names[k]} name={names[k] ?? ""} x={x * scale} y={y * scale} onMove={(dx, dy) => move(k, dx / scale, dy / scale)} />
              ))}
            </>
          ) : null}
        </View>
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

const ARROWS: Record<string, readonly [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }; // prettier-ignore
/** An arrow moves a corner by so many px, with Shift by so many. */
const [STEP, FAR] = [2, 12];

/** A corner that follows the pointer or the arrows. Its own few lines: a library for it would come with the first page of all. */
function Handle({ name, x, y, onMove }: { name: string; x: number; y: number; onMove: (dx: number, dy: number) => void }) {
  const colours = useColours();
  const last = useRef<{ x: number; y: number } | null>(null);
  return (
    <PlainButton
      type="button"
      aria-label={`${name} corner`}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        last.current = { x: event.clientX, y: event.clientY };
      }}
      onPointerMove={(event) => {
        if (!last.current) return;
        onMove(event.clientX - last.current.x, event.clientY - last.current.y);
        last.current = { x: event.clientX, y: event.clientY };
      }}
      onPointerUp={() => {
        last.current = null;
      }}
      onPointerCancel={() => {
        last.current = null;
      }}
      onKeyDown={(event) => {
        const way = ARROWS[event.key];
        if (!way) return;
        event.preventDefault();
        onMove(way[0] * (event.shiftKey ? FAR : STEP), way[1] * (event.shiftKey ? FAR : STEP));
      }}
      style={{
        position: "absolute",
        left: x - HANDLE / 2,
        top: y - HANDLE / 2,
        width: HANDLE,
        height: HANDLE,
        borderWidth: 2,
        borderStyle: "solid",
        borderColor: colours.stop,
        backgroundColor: "transparent",
        ...({ touchAction: "none" } as object),
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
