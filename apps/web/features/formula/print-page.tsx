import {
  baked,
  CoreError,
  type Formula,
  type FormulaLine,
  gramsText,
  householdText,
  ingredientOf,
  kindName,
  openFormula,
  placeOf,
  stepsOf,
  type WorkStep,
} from "@uprise/core";
import { Fragment, useMemo } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { type KitchenHere, useFormula, useKitchen } from "../wire/queries";
import { whereText } from "../instruments/component-words";
import { groupsOf, lineName } from "./groups";
import { Steps } from "./steps-room";

/** A stored formula as a page of paper: what to weigh, the pan, the oven, the notes. It flows as pages do. */
export function FormulaPage({ id }: { id: string }) {
  const colours = useColours();
  const { data, error, refetch } = useFormula(id);
  const formula = data?.formula ?? null;
  const { kitchen } = useKitchen(formula);
  useTitle(formula?.title ?? "A page to print");
  const steps = useMemo(() => (formula ? stepsFor(formula, kitchen) : []), [formula, kitchen]);
  if (error) return <Failed title="This formula did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data || !formula) return <Loading what="Fetching the formula" />;
  const { shelf } = kitchen;
  const spoons = ({ ingredientId = "", grams }: FormulaLine): string =>
    grams && shelf.get(ingredientId) ? householdText(grams.mid, ingredientOf(shelf, ingredientId), formula.measures) : "";
  return (
    <View style={styles.page}>
      <Title>{formula.title}</Title>
      <Small>
        {kindName[formula.kind]}, version {data.version}
      </Small>
      <View role="table" aria-label="What to weigh">
        {groupsOf(formula).map(({ component, lines }) => (
          <Fragment key={component?.id ?? ""}>
            {component ? (
              <View role="row" style={[styles.line, styles.part, { borderBottomColor: colours.ink }]}>
                <View role="cell">
                  <Body strong>
                    {component.name}, {whereText(placeOf(component), component.role)}
                    {component.cookedG === undefined ? "" : `, cooked to ${gramsText(component.cookedG)}`}
                  </Body>
                </View>
              </View>
            ) : null}
            {lines
              .filter(({ line }) => line.off !== true)
              .map(({ line }) => (
                <View key={line.id} role="row" style={[styles.line, { borderBottomColor: colours.rule }]}>
                  <View role="cell" style={styles.mass}>
                    <Body strong style={styles.figure}>
                      {line.grams ? gramsText(line.grams.mid) : "……… g"}
                    </Body>
                  </View>
                  <View role="cell" style={styles.grow}>
                    <Body>
                      {lineName(line, kitchen)}
                      {line.note ? `, ${line.note}` : ""}
                    </Body>
                  </View>
                  <View role="cell">
                    <Small tone="faint">{spoons(line)}</Small>
                  </View>
                </View>
              ))}
          </Fragment>
        ))}
      </View>
      <Body>
        {Math.round(formula.oven.celsius)} °C{formula.oven.mode ? `, ${formula.oven.mode.replace("-", " ")}` : ""}
      </Body>
      {steps.length > 0 ? (
        <>
          <Heading>Steps</Heading>
          <Steps steps={steps} />
        </>
      ) : null}
      {formula.notes.trim() === "" ? null : (
        <>
          <Heading>Notes</Heading>
          <Body>{formula.notes}</Body>
        </>
      )}
      <View style={styles.screenOnly} testID="print-tools">
        <Button kind="main" onPress={() => globalThis.print()}>
          Print
        </Button>
      </View>
    </View>
  );
}

/** The steps of a stored formula, with its bake computed once; none where there is nothing to bake. */
function stepsFor(formula: Formula, kitchen: KitchenHere): WorkStep[] {
  try {
    const input = openFormula(formula, kitchen);
    const { analysis, simulation } = baked(input, kitchen.shelf, { frames: 0 });
    return stepsOf(input, analysis, simulation, kitchen.shelf, kitchen.ovens.get(formula.oven.ovenId ?? "")?.warmMinutes);
  } catch (error) {
    if (error instanceof CoreError) return [];
    throw error;
  }
}

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.m, maxWidth: 720, width: "100%" },
  line: { flexDirection: "row", gap: space.m, borderBottomWidth: 1, minHeight: 30, alignItems: "center" },
  part: { minHeight: 40, alignItems: "flex-end", paddingBottom: space.xs },
  mass: { width: 80 },
  figure: { textAlign: "right", fontVariant: ["tabular-nums"] },
  grow: { flex: 1, minWidth: 0 },
  screenOnly: { alignSelf: "flex-start" },
});
