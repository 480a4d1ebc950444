import { useState } from "react";
import { type StyleProp, StyleSheet, TextInput, type TextStyle, View } from "react-native";
import { space } from "../theme/scale";
import { useColours } from "../theme/theme";
import { noOutline } from "./field";
import { Small } from "./words";

/** A title that is typed over where it stands. */
export function TitleField({
  label = "Name of the formula",
  value,
  onChange,
  error,
  style,
}: {
  label?: string;
  value: string;
  onChange: (text: string) => void;
  error?: string | undefined;
  style: StyleProp<TextStyle>;
}) {
  const colours = useColours();
  const [focused, setFocused] = useState(false);
  return (
    <View
      role="heading"
      aria-level={1}
      aria-label={value}
      style={[styles.box, { borderBottomColor: focused ? colours.focus : "transparent" }]}
    >
      <TextInput
        aria-label={label}
        value={value}
        onChangeText={onChange}
        maxLength={160}
        {...(error ? { "aria-invalid": true } : {})}
        onFocus={() => setFocused(true)}
        onBlur={() => setFocused(false)}
        style={[style, styles.input, noOutline]}
      />
      {error ? (
        <Small tone="stop" live="polite">
          {error}
        </Small>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  box: { paddingHorizontal: space.m, borderBottomWidth: 3 },
  input: { minHeight: 52, textOverflow: "ellipsis" } as TextStyle,
});
