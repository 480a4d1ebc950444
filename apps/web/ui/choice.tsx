import * as RadioGroup from "@radix-ui/react-radio-group";
import { type StyleProp, StyleSheet, View, type ViewStyle } from "react-native";
import { space, touch } from "../theme/scale";
import { useColours } from "../theme/theme";
import { Block, PlainButton } from "./dom";
import { useFocusRing } from "./use-focus-ring";
import { Body, Small } from "./words";

interface ChoiceProps<T extends string> {
  label: string;
  options: readonly { value: T; label: string }[];
  value: T;
  onChange: (value: T) => void;
  /** One below the other, each a line of its own. */
  list?: boolean;
  /** The label is seen too, where nothing beside it says what is chosen. */
  titled?: boolean;
  style?: StyleProp<ViewStyle>;
}

/** One of a few: words on a line (or lines), the chosen one underscored with a thick rule. Arrows move the choice, Space takes it. */
export function Choice<T extends string>({ label, options, value, onChange, list = false, titled = false, style }: ChoiceProps<T>) {
  const colours = useColours();
  // Radix takes an empty value for none, and a choice may well be the empty word.
  const group = (
    <RadioGroup.Root
      value={`=${value}`}
      onValueChange={(next) => onChange(next.slice(1) as T)}
      aria-label={label}
      orientation={list ? "vertical" : "horizontal"}
      asChild
    >
      <Block style={StyleSheet.flatten([list ? styles.list : [styles.row, { borderBottomColor: colours.rule }], style])}>
        {options.map((option) => (
          <Option key={option.value} value={option.value} label={option.label} chosen={option.value === value} list={list} />
        ))}
      </Block>
    </RadioGroup.Root>
  );
  if (!titled) return group;
  return (
    <View>
      <View aria-hidden>
        <Small tone="faint">{label}</Small>
      </View>
      {group}
    </View>
  );
}

function Option({ value, label, chosen, list }: { value: string; label: string; chosen: boolean; list: boolean }) {
  const colours = useColours();
  const { ring, onFocus, onBlur } = useFocusRing();
  return (
    <RadioGroup.Item value={`=${value}`} onFocus={onFocus} onBlur={onBlur} asChild>
      <PlainButton
        // Flat, since the primitive joins its own style with this one field by field.
        style={StyleSheet.flatten([
          styles.option,
          list
            ? {
                justifyContent: "flex-start",
                alignItems: "center",
                borderLeftWidth: 4,
                borderLeftColor: chosen ? colours.ink : colours.rule,
              }
            : {
                borderBottomWidth: 4,
                marginBottom: -1,
                alignItems: "center",
                borderBottomColor: chosen ? colours.ink : "transparent",
              },
          ring,
        ])}
      >
        <Body strong={chosen} tone={chosen ? "ink" : "faint"}>
          {label}
        </Body>
      </PlainButton>
    </RadioGroup.Item>
  );
}

const styles = StyleSheet.create({
  row: { display: "flex", flexDirection: "row", flexWrap: "wrap", borderBottomWidth: 1 },
  list: { display: "flex", flexDirection: "column" },
  option: {
    display: "flex",
    justifyContent: "center",
    minHeight: touch.least,
    paddingVertical: 0,
    paddingHorizontal: space.m,
    borderWidth: 0,
    borderStyle: "solid",
    backgroundColor: "transparent",
    cursor: "pointer",
  },
});
