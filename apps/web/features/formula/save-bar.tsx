import Undo from "lucide-react-native/icons/undo-2";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button, Press } from "../../ui/press";
import { Small } from "../../ui/words";

interface SaveBarProps {
  version: number;
  dirty: boolean;
  /** It was saved while nobody answered, and goes out by itself. */
  waits: boolean;
  /** The proposal that is tried on: what is seen is not what would be saved. */
  trying: string | null;
  onTake: () => void;
  onPutBack: () => void;
  saving: boolean;
  error: string | null;
  /** What must be mended before it can be saved. */
  fault: string | null;
  canUndo: boolean;
  onUndo: () => void;
  onSave: () => void;
  onVersions: () => void;
}

/** Within the thumb's reach: what is saved, undo, save. What is not saved yet looks so. */
export function SaveBar({
  version,
  dirty,
  waits,
  trying,
  onTake,
  onPutBack,
  saving,
  error,
  fault,
  canUndo,
  onUndo,
  onSave,
  onVersions,
}: SaveBarProps) {
  const colours = useColours();
  const told =
    error ??
    (trying !== null
      ? `Trying on: ${trying}. Nothing is changed yet`
      : saving
        ? "Saving…"
        : fault
          ? fault
          : dirty && waits
            ? "Saved on this device; it goes out when the server answers"
            : dirty
              ? `Not saved, from version ${version}`
              : `Saved, version ${version}`);
  return (
    <View
      style={[
        styles.bar,
        { borderTopColor: colours.strongRule, backgroundColor: colours.paper, borderStyle: dirty ? "dashed" : "solid" },
      ]}
    >
      <Press testID="told-versions" onPress={onVersions} label={`${told}. Versions`} style={styles.told}>
        <Small
          tone={error || fault ? "stop" : dirty ? "caution" : "faint"}
          strong={dirty}
          live="polite"
          lines={error || fault ? 3 : 2}
        >
          {told}
        </Small>
      </Press>
      {trying === null ? null : (
        <Button kind="quiet" onPress={onPutBack}>
          Put it back
        </Button>
      )}
      <Press onPress={onUndo} disabled={!canUndo} aria-disabled={!canUndo} label="Undo" style={styles.undo}>
        <Undo size={22} color={canUndo ? colours.ink : colours.rule} strokeWidth={2.2} />
      </Press>
      {trying === null ? (
        <Button kind="main" onPress={onSave} disabled={!dirty || saving || fault !== null}>
          {error && dirty && !saving ? "Try again" : "Save"}
        </Button>
      ) : (
        <Button kind="main" onPress={onTake}>
          Take it
        </Button>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  bar: {
    flexDirection: "row",
    alignItems: "center",
    gap: space.s,
    borderTopWidth: 1.5,
    paddingHorizontal: space.m,
    paddingVertical: space.xs,
  },
  told: { flex: 1 },
  undo: { alignItems: "center" },
});
