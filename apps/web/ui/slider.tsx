import { StyleSheet, View } from "react-native";
import { space, touch } from "../theme/scale";
import { useColours } from "../theme/theme";
import { Small } from "./words";

interface SliderProps {
  label: string;
  value: number;
  least: number;
  most: number;
  step: number;
  /** What the value means, read aloud and shown beside the label. */
  text: string;
  onChange: (value: number) => void;
}

/** A value slid along a line: the platform's own range control, so that keys and screen readers know it. */
export function Slider({ label, value, least, most, step, text, onChange }: SliderProps) {
  const colours = useColours();
  return (
    <View style={styles.slider}>
      <View style={styles.words}>
        <Small tone="faint">{label}</Small>
        <Small strong>{text}</Small>
      </View>
      <input
        type="range"
        aria-label={label}
        aria-valuetext={text}
        min={least}
        max={most}
        step={step}
        value={value}
        onChange={(event) => onChange(Number(event.currentTarget.value))}
        style={{ width: "100%", height: touch.least, margin: 0, accentColor: colours.ink, cursor: "pointer" }}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  slider: { width: "100%" },
  words: { flexDirection: "row", justifyContent: "space-between", gap: space.m },
});
