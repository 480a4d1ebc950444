import * as Checkbox from "@radix-ui/react-checkbox";
import { StyleSheet } from "react-native";
import { space, touch } from "../theme/scale";
import { useColours } from "../theme/theme";
import { PlainButton } from "./dom";
import { useFocusRing } from "./use-focus-ring";
import { Body } from "./words";

/** Something on or off: a word, underscored when it is on. */
export function Check({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  const colours = useColours();
  const { ring, onFocus, onBlur } = useFocusRing();
  return (
    <Checkbox.Root checked={on} onCheckedChange={(next) => onChange(next === true)} onFocus={onFocus} onBlur={onBlur} asChild>
      <PlainButton style={StyleSheet.flatten([styles.check, { borderBottomColor: on ? colours.ink : colours.rule }, ring])}>
        <Body strong={on}>{label}</Body>
      </PlainButton>
    </Checkbox.Root>
  );
}

const styles = StyleSheet.create({
  check: {
    display: "flex",
    alignItems: "center",
    justifyContent: "center",
    minHeight: touch.least,
    minWidth: touch.least,
    paddingVertical: 0,
    paddingHorizontal: space.xs,
    borderWidth: 0,
    borderStyle: "solid",
    borderBottomWidth: 3,
    backgroundColor: "transparent",
    cursor: "pointer",
  },
});
