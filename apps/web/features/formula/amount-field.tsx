import type { AmountContext, FormulaLine, Ingredient } from "@uprise/core";
import { amountText, readAmount } from "@uprise/core/page-bench";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Field } from "../../ui/field";
import { Small } from "../../ui/words";

/** The amount below, or where a line is added; in the order of the sheet. */
function nextAmount(lineId: string): void {
  const seen = (element: HTMLElement): boolean => element.offsetParent !== null;
  const stops = [
    ...document.querySelectorAll<HTMLElement>('[data-testid^="amount-"], [data-testid="sheet-scroll"] [role="combobox"]'),
  ].filter(seen);
  stops[stops.findIndex((stop) => stop.dataset["testid"] === `amount-${lineId}`) + 1]?.focus();
}

export type AmountRead = Exclude<ReturnType<typeof readAmount>, { error: string }>;

interface AmountFieldProps {
  line: FormulaLine;
  ingredient: Ingredient;
  context: AmountContext;
  /** The component it stands in, where that is not the batter. */
  where?: string | undefined;
  /** A fault of this line's amount that was found elsewhere. */
  fault?: string | undefined;
  onAmount: (read: AmountRead) => void;
}

/** What was typed, and what it is read against: a percentage stands on the flour as it was when the field was entered. */
interface Typing {
  text: string;
  changed: boolean;
  context: AmountContext;
}

/** The amount of a line: typed in any unit, read at every key, shown in the unit of the sheet. */
export function AmountField({ line, ingredient, context, where, fault, onAmount }: AmountFieldProps) {
  const [typing, setTyping] = useState<Typing | null>(null);
  const { figure, unit } = line.grams ? amountText(line.grams.mid, ingredient, context) : { figure: "", unit: "" };
  const read = typing?.changed ? readAmount(typing.text, ingredient, typing.context) : null;
  const error = read && "error" in read ? read.error : fault;
  const leave = (): void => {
    if (!(read && "error" in read)) setTyping(null);
  };
  return (
    <View style={styles.amount}>
      <Field
        label={`Amount of ${line.name ?? ingredient.name}${where === undefined ? "" : `, ${where}`}`}
        placeholder={line.grams ? undefined : "open"}
        hideLabel
        value={typing?.changed ? typing.text : figure}
        align="right"
        error={error}
        onFocus={() => setTyping((before) => before ?? { text: figure, changed: false, context })}
        onChange={(text) => {
          const against = typing?.context ?? context;
          const next = readAmount(text, ingredient, against);
          if (!("error" in next)) onAmount(next);
          setTyping({ text, changed: true, context: against });
        }}
        onBlur={leave}
        testID={`amount-${line.id}`}
        onSubmit={() => {
          leave();
          if (!error) nextAmount(line.id);
        }}
        suffix={
          <Small tone="faint" style={styles.unit}>
            {typing?.changed ? "" : unit}
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
