import { type ReactNode, useId, useState } from "react";
import {
  type KeyboardTypeOptions,
  type StyleProp,
  StyleSheet,
  TextInput,
  type TextStyle,
  View,
  type ViewStyle,
} from "react-native";
import { fonts, space, touch, type } from "../theme/scale";
import { useColours } from "../theme/theme";
import { Small } from "./words";

interface FieldProps {
  label: string;
  value: string;
  onChange: (text: string) => void;
  onSubmit?: () => void;
  onBlur?: () => void;
  onFocus?: () => void;
  /** What was wrong and what would be right; the text stays as typed. */
  error?: string | undefined;
  hint?: string;
  hideLabel?: boolean;
  multiline?: boolean;
  rows?: number;
  placeholder?: string;
  keyboard?: KeyboardTypeOptions;
  align?: "left" | "right";
  suffix?: ReactNode;
  style?: StyleProp<ViewStyle>;
  autoFocus?: boolean;
  /** What is typed is not shown. */
  secret?: boolean;
  testID?: string;
}

/** A text field with its label, hint and error tied to it. */
export function Field({
  label,
  value,
  onChange,
  onSubmit,
  onBlur,
  onFocus,
  error,
  hint,
  hideLabel = false,
  multiline = false,
  rows,
  placeholder,
  keyboard,
  align = "left",
  suffix,
  style,
  autoFocus,
  secret = false,
  testID,
}: FieldProps) {
  const colours = useColours();
  const [focused, setFocused] = useState(false);
  const id = useId();
  const line = error ? colours.stop : focused ? colours.focus : hideLabel ? "transparent" : colours.faint;
  return (
    <View style={[styles.field, style]}>
      {hideLabel ? null : (
        <Small tone="faint" id={`${id}-label`}>
          {label}
        </Small>
      )}
      <View
        style={[
          styles.box,
          {
            borderBottomColor: line,
            borderBottomWidth: 3,
            backgroundColor: colours.sunk,
          },
        ]}
      >
        <TextInput
          value={value}
          onChangeText={onChange}
          aria-label={label}
          {...(error || hint ? { "aria-describedby": `${id}-told` } : {})}
          {...(error ? { "aria-invalid": true } : {})}
          multiline={multiline}
          {...(rows ? { numberOfLines: rows } : {})}
          {...(placeholder ? { placeholder, placeholderTextColor: colours.faint } : {})}
          {...(keyboard ? { inputMode: keyboard === "decimal-pad" ? "decimal" : keyboard === "numeric" ? "numeric" : "text" } : {})}
          onSubmitEditing={onSubmit}
          onFocus={() => {
            setFocused(true);
            onFocus?.();
          }}
          onBlur={() => {
            setFocused(false);
            onBlur?.();
          }}
          autoCapitalize="none"
          autoCorrect={false}
          {...(autoFocus ? { autoFocus } : {})}
          {...(testID ? { testID } : {})}
          {...(secret ? { secureTextEntry: true } : {})}
          style={[
            type.body,
            styles.input,
            multiline ? styles.multiline : null,
            { color: colours.ink, textAlign: align, fontVariant: ["tabular-nums"] },
            noOutline,
          ]}
        />
        {suffix}
      </View>
      {error || hint ? (
        <Small tone={error ? "stop" : "faint"} id={`${id}-told`} {...(error ? { live: "polite" as const } : {})}>
          {error ?? hint}
        </Small>
      ) : null}
    </View>
  );
}

/** The box around draws the focus; the browser need not. */
export const noOutline = { outlineStyle: "none" } as unknown as TextStyle;

const styles = StyleSheet.create({
  field: { gap: space.xs },
  box: { flexDirection: "row", alignItems: "center", minHeight: touch.least, paddingHorizontal: space.s },
  input: { flex: 1, minWidth: 0, fontFamily: fonts.body, minHeight: touch.least - 4, paddingVertical: space.s },
  multiline: { textAlignVertical: "top" },
});
