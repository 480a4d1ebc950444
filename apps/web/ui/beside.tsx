import type { ReactNode } from "react";
import { StyleSheet, View } from "react-native";
import { useColours } from "../theme/theme";

interface BesideProps {
  /** A list, or what is asked. */
  list: ReactNode;
  /** What of it is open, or what comes of it; absent, the list stands alone. */
  detail: ReactNode;
  /** The share of the width that the list takes. */
  share?: number;
}

/** A list and what is open of it, beside each other on a wide screen; each scrolls by itself. */
export function Beside({ list, detail, share = 0.4 }: BesideProps) {
  const colours = useColours();
  return (
    <View style={styles.both}>
      <View style={[styles.side, { flex: share }]}>{list}</View>
      <View style={[styles.side, styles.detail, { flex: 1 - share, borderLeftColor: colours.rule }]}>{detail}</View>
    </View>
  );
}

const styles = StyleSheet.create({
  both: { flex: 1, flexDirection: "row", minHeight: 0 },
  side: { minWidth: 0, minHeight: 0 },
  detail: { borderLeftWidth: 1 },
});
