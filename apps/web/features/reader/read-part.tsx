import type { Component, Line, Reading } from "@uprise/core";
import { gramsText, placeOf, isLeftOpen } from "@uprise/core/page";
import ChevronDown from "lucide-react-native/icons/chevron-down";
import ChevronRight from "lucide-react-native/icons/chevron-right";
import { type ReactNode, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Press } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import { whereText } from "../instruments/component-words";

interface Segment {
  /** The component that the lines stand in; none for the batter and what is around it. */
  part: Component | undefined;
  lines: { line: Line; index: number }[];
}

/** The lines of a reading in their order, cut where another component begins; a heading stands with the lines it opens. */
export function segmentsOf({ lines, components = [] }: Pick<Reading, "lines" | "components">): Segment[] {
  const segments: Segment[] = [];
  lines.forEach((line, index) => {
    const next = line.role === "heading" ? lines.slice(index + 1).find(({ role }) => role !== "note") : line;
    const component = next?.role === "ingredient" ? next.component : undefined;
    const part = components.find(({ id }) => id === component);
    const last = segments.at(-1);
    if (last && last.part === part) last.lines.push({ line, index });
    else segments.push({ part, lines: [{ line, index }] });
  });
  return segments;
}

/** What lines weigh in all, g. */
export const gramsOfLines = (lines: readonly Line[]): number =>
  lines.reduce((g, line) => g + (isLeftOpen(line) ? 0 : (line.grams?.mid ?? 0)), 0);

/** A component of the paste under its heading, which folds; the batter has none. */
export function ReadPart({ part, grams, children }: { part: Component | undefined; grams: number; children: ReactNode }) {
  const colours = useColours();
  const [folded, setFolded] = useState(false);
  if (!part) return <>{children}</>;
  const Chevron = folded ? ChevronRight : ChevronDown;
  const name = part.name.replace(/^./, (c) => c.toUpperCase());
  return (
    <View role="listitem" style={[styles.part, { borderTopColor: colours.strongRule }]}>
      <Press
        onPress={() => setFolded(!folded)}
        aria-expanded={!folded}
        label={`${name}, ${folded ? "unfold" : "fold"}`}
        style={styles.head}
      >
        <View style={styles.name}>
          <Chevron size={20} color={colours.ink} strokeWidth={2.2} />
          <View style={styles.words}>
            <Heading level={3}>{name}</Heading>
            <Small tone="faint">
              {`Not in the batter: ${whereText(placeOf(part), part.role)}`.replace("Not in the batter: soaked", "Soaked")}
            </Small>
          </View>
        </View>
        <Body strong>{gramsText(grams)}</Body>
      </Press>
      {folded ? null : (
        <View role="list" aria-label={`Lines of ${name}`}>
          {children}
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  part: { borderTopWidth: 1.5, marginTop: space.s },
  head: { flexDirection: "row", alignItems: "center", gap: space.s, paddingVertical: space.xs },
  name: { flex: 1, minWidth: 0, flexDirection: "row", alignItems: "center", gap: space.xs },
  words: { flex: 1, minWidth: 0 },
});
