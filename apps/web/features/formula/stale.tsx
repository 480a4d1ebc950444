import type { StoredFormula } from "@uprise/contract";
import type { Formula } from "@uprise/core";
import { differencesOf } from "@uprise/core/page";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Notice } from "../../ui/notice";
import { Button } from "../../ui/press";
import { Body } from "../../ui/words";

interface StaleProps {
  mine: Formula;
  theirs: StoredFormula;
  nameOf: (ingredientId: string) => string;
  /** Puts one's own edits on the newer version, where they can be told. */
  onMerge: (() => void) | null;
  onMine: () => void;
  onTheirs: () => void;
  onBoth: () => void;
}

/** Somebody saved meanwhile: both are shown, nothing is lost, the baker chooses. */
export function Stale({ mine, theirs, nameOf, onMerge, onMine, onTheirs, onBoth }: StaleProps) {
  const differences = differencesOf(theirs.formula, mine, nameOf);
  return (
    <View style={styles.stale} role="alert">
      <Notice gravity="caution" title={`Version ${theirs.version} was saved elsewhere while you worked. Yours is still here.`}>
        {differences.slice(0, 6).map((d) => (
          <Body key={d.what}>
            {d.what}: theirs {d.before}, yours {d.after}
          </Body>
        ))}
        {differences.length > 6 ? <Body>and {differences.length - 6} more</Body> : null}
      </Notice>
      <View style={styles.buttons}>
        {onMerge ? (
          <Button kind="main" onPress={onMerge}>
            Put my changes on it
          </Button>
        ) : null}
        <Button onPress={onMine}>Save mine on top</Button>
        <Button onPress={onTheirs}>Take theirs</Button>
        <Button onPress={onBoth}>Keep mine as a new formula</Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  stale: { padding: space.m, gap: space.s },
  buttons: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
});
