import type { Scale } from "@uprise/core";
import { StyleSheet, View } from "react-native";
import Svg, { Path, Rect } from "react-native-svg";
import { crustColours } from "../../theme/colours";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Press } from "../../ui/press";
import { Small } from "../../ui/words";

/** Tops in a box of 48 by 28: sunken, flat, domed, peaked, cracked. */
const tops = [
  "M4 24 V9 Q24 20 44 9 V24 Z",
  "M4 24 V10 H44 V24 Z",
  "M4 24 V13 Q24 0 44 13 V24 Z",
  "M4 24 V14 L24 2 L44 14 V24 Z",
  "M4 24 V13 Q16 4 21 6 L24 11 L27 6 Q32 4 44 13 V24 Z",
];

function Drawing({ scale, step }: { scale: Scale; step: number }) {
  const colours = useColours();
  if (scale.id === "top")
    return (
      <Svg width={48} height={28} aria-hidden>
        <Path d={tops[step] ?? ""} fill={colours.sunk} stroke={colours.ink} strokeWidth={1.8} strokeLinejoin="round" />
      </Svg>
    );
  if (scale.id.startsWith("colour-")) {
    return (
      <Svg width={48} height={16} aria-hidden>
        <Rect x={1} y={1} width={46} height={14} fill={crustColours[step] ?? colours.ink} stroke={colours.ink} strokeWidth={1} />
      </Svg>
    );
  }
  return null;
}

interface ScaleFieldProps {
  scale: Scale;
  value: number | undefined;
  onChange: (step: number | undefined) => void;
}

/** One anchored scale: its steps by word and, where it says more, by drawing. A second tap takes the answer back. */
export function ScaleField({ scale, value, onChange }: ScaleFieldProps) {
  const colours = useColours();
  return (
    <View role="group" aria-label={scale.name} style={styles.scale}>
      <Small strong>{scale.name}</Small>
      <View style={styles.steps}>
        {scale.steps.map(({ word }, k) => {
          const on = value === k;
          return (
            <Press
              key={word}
              role="button"
              aria-pressed={on}
              label={`${scale.name}: ${word}`}
              onPress={() => onChange(on ? undefined : k)}
              style={[styles.step, { borderBottomColor: on ? colours.ink : colours.rule, borderBottomWidth: on ? 4 : 1 }]}
            >
              <Drawing scale={scale} step={k} />
              <Small strong={on}>{word}</Small>
            </Press>
          );
        })}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  scale: { gap: space.xs },
  steps: { flexDirection: "row", flexWrap: "wrap", columnGap: space.s, rowGap: space.xs },
  step: {
    minHeight: 48,
    paddingHorizontal: space.s,
    alignItems: "center",
    justifyContent: "center",
    paddingBottom: space.xs,
    gap: space.hair,
  },
});
