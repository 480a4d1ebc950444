import type { Glance } from "@uprise/core";
import { StyleSheet, useWindowDimensions, View } from "react-native";
import { space, wideFrom } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Press } from "../../ui/press";
import { Small } from "../../ui/words";
import { Instrument } from "./instrument";
import { figureOf, type InstrumentName, instrumentNames, instrumentTitle, sentenceOf } from "./sentences";

interface StripProps {
  analysis: Glance | null;
  open: InstrumentName | null;
  onOpen: (name: InstrumentName) => void;
  /** The bake is still being computed: fill and bake may move once more. */
  busy?: boolean;
  /** Something to know of what is shown. */
  note?: string | null;
  /** Only to be seen: the drawings open nothing. */
  still?: boolean;
  /** Width of a drawing, where the strip does not go over the whole screen. */
  drawn?: number;
}

/** The four instruments in sight; a tap opens the room of one. */
export function Strip({ analysis, open, onOpen, busy = false, note = null, still = false, drawn }: StripProps) {
  const colours = useColours();
  const { width } = useWindowDimensions();
  const drawing = drawn ?? (width >= wideFrom ? 122 : Math.min(122, Math.floor(width / 4) - 12));
  const strip = (
    <View
      role="group"
      aria-label="Instruments"
      aria-busy={busy}
      style={[styles.strip, { borderColor: colours.strongRule, backgroundColor: colours.paper }]}
    >
      {instrumentNames.map((name, index) => {
        const here = open === name;
        return (
          <Press
            key={name}
            onPress={() => onOpen(name)}
            aria-expanded={here}
            testID={still ? `still-${name}` : `instrument-${name}`}
            disabled={still}
            {...(still
              ? { role: "img" as const, "aria-label": analysis ? sentenceOf(name, analysis) : instrumentTitle[name] }
              : {})}
            style={[
              styles.cell,
              {
                borderLeftWidth: index === 0 ? 0 : 1,
                borderColor: colours.rule,
                borderBottomColor: here ? colours.heat : "transparent",
              },
            ]}
          >
            <Small tone="faint">{instrumentTitle[name]}</Small>
            <View
              role="img"
              aria-label={analysis ? sentenceOf(name, analysis) : `${instrumentTitle[name]}: nothing to read yet.`}
              style={{ minHeight: drawing * 0.7 }}
            >
              {analysis ? <Instrument name={name} analysis={analysis} width={drawing} /> : null}
            </View>
            <Small strong lines={1}>
              {analysis ? figureOf(name, analysis) : "–"}
            </Small>
          </Press>
        );
      })}
    </View>
  );
  if (!note) return strip;
  return (
    <View>
      {strip}
      <View role="status" style={styles.note}>
        <Small tone="caution" strong>
          {note}
        </Small>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  note: { paddingHorizontal: space.m, paddingVertical: space.xs },
  strip: { flexDirection: "row", borderTopWidth: 1.5, borderBottomWidth: 1.5 },
  cell: { flex: 1, minWidth: 0, alignItems: "center", paddingTop: space.xs, paddingBottom: space.xs, borderBottomWidth: 5 },
});
