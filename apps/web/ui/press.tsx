import type { ReactNode } from "react";
import { Pressable, type PressableProps, type StyleProp, StyleSheet, View, type ViewStyle } from "react-native";
import { space, touch } from "../theme/scale";
import { useColours } from "../theme/theme";
import { useFocusRing } from "./use-focus-ring";
import { Body } from "./words";

export interface PressProps extends Omit<PressableProps, "style" | "children"> {
  children: ReactNode;
  style?: StyleProp<ViewStyle>;
  label?: string;
}

/** Something to press, with a visible ring when the keyboard is on it. */
export function Press({ children, style, label, ...rest }: PressProps) {
  const { ring, onFocus, onBlur } = useFocusRing();
  return (
    <Pressable
      role="button"
      {...(label ? { "aria-label": label } : {})}
      {...rest}
      onFocus={(event) => {
        onFocus(event);
        rest.onFocus?.(event);
      }}
      onBlur={(event) => {
        onBlur();
        rest.onBlur?.(event);
      }}
      style={({ pressed }) => [styles.press, style, pressed ? styles.pressed : null, ring]}
    >
      {children}
    </Pressable>
  );
}

interface ButtonProps {
  children: string;
  onPress: () => void;
  /** The one main action of a view is filled with ink; others are underlined or outlined. */
  kind?: "main" | "plain" | "quiet";
  icon?: ReactNode;
  disabled?: boolean;
  label?: string;
  style?: StyleProp<ViewStyle>;
  testID?: string;
}

export function Button({ children, onPress, kind = "plain", icon, disabled = false, label, style, testID }: ButtonProps) {
  const colours = useColours();
  const look: ViewStyle =
    kind === "main"
      ? { backgroundColor: disabled ? colours.sunk : colours.ink }
      : kind === "plain"
        ? { borderWidth: 1.5, borderColor: disabled ? colours.rule : colours.strongRule }
        : {};
  return (
    <Press
      onPress={onPress}
      disabled={disabled}
      aria-disabled={disabled}
      testID={testID}
      style={[styles.button, look, style]}
      {...(label ? { label } : {})}
    >
      {icon ? <View>{icon}</View> : null}
      <Body
        strong
        tone={disabled ? "faint" : kind === "main" ? "paper" : "ink"}
        style={kind === "quiet" ? styles.underlined : null}
      >
        {children}
      </Body>
    </Press>
  );
}

const styles = StyleSheet.create({
  press: { minHeight: touch.least, minWidth: touch.least, justifyContent: "center" },
  pressed: { opacity: 0.65 },
  button: { flexDirection: "row", alignItems: "center", justifyContent: "center", gap: space.s, paddingHorizontal: space.l },
  underlined: { textDecorationLine: "underline" },
});
