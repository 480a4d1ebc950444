import { type AmountContext, amountText, type FormulaLine, type Ingredient, readAmount } from "@uprise/core";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Field } from "../../ui/field";
import { Small } from "../../ui/words";

interface AmountFieldProps {
  line: FormulaLine;
  ingredient: Ingredient;
  context: AmountContext;
  /** `first` is true for the first change of one go at the field. */
  onAmount: (read: Exclude<ReturnType<typeof readAmount>, { error: string }>, first: boolean) => void;
}

/** The amount of a line: typed in any unit, read at every key, shown in the unit of the sheet. */
export function AmountField({ line, ingredient, context, onAmount }: AmountFieldProps) {
  const [typed, setTyped] = useState<{ text: string; changed: boolean } | null>(null);
  const { figure, unit } = amountText(line.grams.mid, ingredient, context);
  const read = typed?.changed ? readAmount(typed.text, ingredient, context) : null;
  const error = read && "error" in read ? read.error : undefined;
  const name = line.name ?? ingredient.name;
  return (
    <View style={styles.amount}>
      <Field
        label={`Amount of ${name}`}
        hideLabel
        value={typed?.text ?? figure}
        align="right"
        error={error}
        onChange={(text) => {
          const next = readAmount(text, ingredient, context);
          if (!("error" in next)) onAmount(next, typed?.changed !== true);
          setTyped({ text, changed: true });
        }}
        onBlur={() => {
          if (error === undefined) setTyped(null);
        }}
        onSubmit={() => {
          if (error === undefined) setTyped(null);
        }}
        suffix={
          <Small tone="faint" style={styles.unit}>
            {typed?.changed ? "" : unit}
          </Small>
        }
        style={context.mode === "household" ? styles.household : styles.figure}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  amount: { justifyContent: "center" },
  figure: { width: 92 },
  household: { width: 112 },
  unit: { width: 18, paddingLeft: space.xs },
});
