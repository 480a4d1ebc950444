import { useState } from "react";
import { StyleSheet } from "react-native";
import { space } from "../theme/scale";
import { useColours } from "../theme/theme";
import { PlainButton } from "./dom";
import { Small } from "./words";

/** A way past something long, for who goes by keys: seen while it has the focus. `to` is the testID of what it leads to. */
export function SkipLink({ to, children }: { to: string; children: string }) {
  const colours = useColours();
  const [seen, setSeen] = useState(false);
  return (
    <PlainButton
      onFocus={() => setSeen(true)}
      onBlur={() => setSeen(false)}
      onClick={() => document.querySelector<HTMLElement>(`[data-testid="${to}"]`)?.focus()}
      style={StyleSheet.flatten([styles.link, seen ? { backgroundColor: colours.paper } : styles.unseen])}
    >
      <Small strong>{children}</Small>
    </PlainButton>
  );
}

const styles = StyleSheet.create({
  link: { minHeight: 48, paddingHorizontal: space.m, alignItems: "center", justifyContent: "center" },
  unseen: { position: "absolute", width: 1, height: 1, minHeight: 1, overflow: "hidden", opacity: 0 },
});
