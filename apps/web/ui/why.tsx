import { type ReactNode, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../theme/scale";
import { useColours } from "../theme/theme";
import { Press } from "./press";
import { Small } from "./words";

/** A number's reason, opened in place by one tap on the number. */
export function Why({ shown, children }: { shown: ReactNode; children: ReactNode }) {
  const colours = useColours();
  const [open, setOpen] = useState(false);
  return (
    <View>
      <Press onPress={() => setOpen(!open)} aria-expanded={open} style={styles.row}>
        {shown}
        <Small tone="faint" style={styles.why}>
          {open ? "close" : "why?"}
        </Small>
      </Press>
      {open ? <View style={[styles.told, { borderLeftColor: colours.rule }]}>{children}</View> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: "row", alignItems: "center", gap: space.m },
  why: { textDecorationLine: "underline", marginLeft: "auto" },
  told: { borderLeftWidth: 2, paddingLeft: space.m, paddingBottom: space.s, gap: space.xs },
});
