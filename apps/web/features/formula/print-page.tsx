import { gramsText, householdText, ingredientOf, kindName, nestedId } from "@uprise/core";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { useFormula, useKitchen } from "../wire/queries";

/** A stored formula as a page of paper: what to weigh, the pan, the oven, the notes. It flows as pages do. */
export function FormulaPage({ id }: { id: string }) {
  const colours = useColours();
  const { data, error, refetch } = useFormula(id);
  const formula = data?.formula ?? null;
  const { kitchen } = useKitchen(formula);
  useTitle(formula?.title ?? "A page to print");
  if (error) return <Failed title="This formula did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data || !formula) return <Loading what="Fetching the formula" />;
  const { shelf, book } = kitchen;
  const spoons = (ingredientId: string, grams: number): string =>
    shelf.get(ingredientId) ? householdText(grams, ingredientOf(shelf, ingredientId), formula.measures) : "";
  return (
    <View style={styles.page}>
      <Title>{formula.title}</Title>
      <Small>
        {kindName[formula.kind]}, version {data.version}
      </Small>
      <View role="table" aria-label="What to weigh">
        {formula.lines.map((line) => {
          const name =
            line.name ?? shelf.get(line.ingredientId)?.name ?? book(nestedId(line.ingredientId) ?? "")?.title ?? line.ingredientId;
          return (
            <View key={line.id} role="row" style={[styles.line, { borderBottomColor: colours.rule }]}>
              <View role="cell" style={styles.mass}>
                <Body strong style={styles.figure}>
                  {gramsText(line.grams.mid)}
                </Body>
              </View>
              <View role="cell" style={styles.grow}>
                <Body>
                  {name}
                  {line.note ? `, ${line.note}` : ""}
                </Body>
              </View>
              <View role="cell">
                <Small tone="faint">{spoons(line.ingredientId, line.grams.mid)}</Small>
              </View>
            </View>
          );
        })}
      </View>
      <Body>
        {Math.round(formula.oven.celsius)} °C{formula.oven.mode ? `, ${formula.oven.mode.replace("-", " ")}` : ""}
      </Body>
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

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.m, maxWidth: 720, width: "100%" },
  line: { flexDirection: "row", gap: space.m, borderBottomWidth: 1, minHeight: 30, alignItems: "center" },
  mass: { width: 80 },
  figure: { textAlign: "right", fontVariant: ["tabular-nums"] },
  grow: { flex: 1, minWidth: 0 },
  screenOnly: { alignSelf: "flex-start" },
});
