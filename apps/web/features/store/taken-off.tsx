import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Button } from "../../ui/press";
import { Body } from "../../ui/words";
import type { useTakeOff } from "./use-shelf-writes";

/** What was just taken off a shelf, with the way back. */
export function TakenOffNotice({ taken, error, putBack }: ReturnType<typeof useTakeOff>) {
  return (
    <>
      {taken ? (
        <View role="status" style={styles.taken}>
          <Body style={styles.grow}>“{taken.name}” is off the shelf.</Body>
          <Button testID="put-back" onPress={putBack}>
            Put it back
          </Button>
        </View>
      ) : null}
      {error ? <Body tone="stop">{error}</Body> : null}
    </>
  );
}

const styles = StyleSheet.create({
  taken: { flexDirection: "row", alignItems: "center", gap: space.s, paddingHorizontal: space.m },
  grow: { flex: 1, minWidth: 0 },
});
