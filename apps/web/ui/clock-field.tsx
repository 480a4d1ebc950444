import { useId } from "react";
import { type StyleProp, StyleSheet, View, type ViewStyle } from "react-native";
import { fonts, space, touch, type } from "../theme/scale";
import { useColours } from "../theme/theme";
import { PlainInput } from "./dom";
import { Small } from "./words";

interface ClockFieldProps {
  label: string;
  kind: "time" | "date";
  /** `HH:mm` or `yyyy-MM-dd`; empty where nothing is said. */
  value: string;
  onChange: (value: string) => void;
  style?: StyleProp<ViewStyle>;
}

/** A time of the day or a date, by the browser's own field for it. */
export function ClockField({ label, kind, value, onChange, style }: ClockFieldProps) {
  const colours = useColours();
  const id = useId();
  return (
    <View style={[styles.field, style]}>
      <Small tone="faint" id={id}>
        {label}
      </Small>
      <PlainInput
        type={kind}
        value={value}
        aria-label={label}
        onChange={(event) => onChange((event.target as HTMLInputElement).value)}
        style={StyleSheet.flatten([
          styles.input,
          { color: colours.ink, backgroundColor: colours.sunk, borderBottomColor: colours.faint },
        ])}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  field: { gap: space.xs },
  input: {
    ...type.body,
    fontFamily: fonts.body,
    minHeight: touch.least,
    paddingVertical: 0,
    paddingHorizontal: space.s,
    borderWidth: 0,
    borderBottomWidth: 3,
    borderStyle: "solid",
    boxSizing: "border-box",
  },
});
