import { type StyleProp, StyleSheet, View, type ViewStyle } from "react-native";
import { space } from "../theme/scale";
import { useColours } from "../theme/theme";
import { Press } from "./press";
import { Body } from "./words";

interface ChoiceProps<T extends string> {
  label: string;
  options: readonly { value: T; label: string }[];
  value: T;
  onChange: (value: T) => void;
  style?: StyleProp<ViewStyle>;
}

/** One of a few: words on a line, the chosen one underscored with a thick rule. */
export function Choice<T extends string>({ label, options, value, onChange, style }: ChoiceProps<T>) {
  const colours = useColours();
  return (
    <View role="radiogroup" aria-label={label} style={[styles.row, { borderBottomColor: colours.rule }, style]}>
      {options.map((option) => {
        const chosen = option.value === value;
        return (
          <Press
            key={option.value}
            role="radio"
            aria-checked={chosen}
            onPress={() => onChange(option.value)}
            style={[styles.option, { borderBottomColor: chosen ? colours.ink : "transparent" }]}
          >
            <Body strong={chosen} tone={chosen ? "ink" : "faint"}>
              {option.label}
            </Body>
          </Press>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: "row", flexWrap: "wrap", borderBottomWidth: 1 },
  option: { paddingHorizontal: space.m, borderBottomWidth: 4, marginBottom: -1, alignItems: "center" },
});
