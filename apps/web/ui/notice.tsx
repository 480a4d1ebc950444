import type { ReactNode } from "react";
import { StyleSheet, View } from "react-native";
import Circle from "lucide-react-native/icons/circle";
import OctagonX from "lucide-react-native/icons/octagon-x";
import TriangleAlert from "lucide-react-native/icons/triangle-alert";
import { space } from "../theme/scale";
import { useColours } from "../theme/theme";
import { Body } from "./words";

const marks = { stop: OctagonX, caution: TriangleAlert, note: Circle } as const;
export type Gravity = keyof typeof marks;

/** Something said about the work: a mark by its gravity, one sentence, and what to do. */
export function Notice({
  gravity,
  title,
  children,
  action,
}: {
  gravity: Gravity;
  title: string;
  children?: ReactNode;
  action?: ReactNode;
}) {
  const colours = useColours();
  const Mark = marks[gravity];
  const colour = gravity === "note" ? colours.faint : colours[gravity];
  const said = gravity === "stop" ? "Stop" : gravity === "caution" ? "Caution" : "Note";
  return (
    <View style={[styles.notice, { borderLeftColor: colour, borderLeftWidth: gravity === "note" ? 2 : 5 }]}>
      <View style={styles.head}>
        <View role="img" aria-label={said} style={styles.mark}>
          <Mark size={20} color={colour} strokeWidth={2.4} />
        </View>
        <Body strong style={styles.grow}>
          {title}
        </Body>
      </View>
      {children}
      {action}
    </View>
  );
}

const styles = StyleSheet.create({
  notice: { paddingLeft: space.m, paddingVertical: space.s, gap: space.xs },
  head: { flexDirection: "row", gap: space.s, alignItems: "flex-start" },
  mark: { paddingTop: 2 },
  grow: { flex: 1 },
});
