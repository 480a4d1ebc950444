import { useState } from "react";
import type { ViewStyle } from "react-native";
import { useColours } from "../theme/theme";

/** Whether the browser would show focus here: after a key, not after a finger. */
function byKeyboard(target: unknown): boolean {
  try {
    return target instanceof Element && target.matches(":focus-visible");
  } catch {
    return true;
  }
}

/** A ring around what the keyboard is on: handlers for the element, and its style while it is. */
export function useFocusRing(): {
  ring: ViewStyle | null;
  onFocus: (event: { target: unknown }) => void;
  onBlur: () => void;
} {
  const colours = useColours();
  const [focused, setFocused] = useState(false);
  return {
    ring: focused ? { outlineStyle: "solid", outlineWidth: 3, outlineColor: colours.focus, outlineOffset: -3 } : null,
    onFocus: (event) => setFocused(byKeyboard(event.target)),
    onBlur: () => setFocused(false),
  };
}
