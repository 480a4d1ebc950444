import { useEffect, useState } from "react";
import { StyleSheet, View } from "react-native";
import { registerWorker } from "../../device/worker";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button } from "../../ui/press";
import { Small } from "../../ui/words";

/** A new version of the application is offered, never forced; drafts are on the device and outlive it. */
export function NewVersion() {
  const colours = useColours();
  const [take, setTake] = useState<(() => void) | null>(null);
  useEffect(() => {
    if (process.env.NODE_ENV !== "production") return;
    return registerWorker((taken) => setTake(() => taken));
  }, []);
  if (!take) return null;
  return (
    <View
      role="region"
      aria-label="New version"
      style={[styles.bar, { borderTopColor: colours.strongRule, backgroundColor: colours.sunk }]}
    >
      <Small style={styles.grow}>A newer Uprise is here. What you are at stays.</Small>
      <Button kind="quiet" onPress={take}>
        Take it
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({
  bar: { flexDirection: "row", alignItems: "center", gap: space.s, borderTopWidth: 1.5, paddingHorizontal: space.m },
  grow: { flex: 1 },
});
