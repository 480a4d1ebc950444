import type { Analysis, Formula, FormulaLine } from "@uprise/core";
import {
  gramsText,
  householdText,
  ingredientOf,
  kindName,
  openFormula,
  openParts,
  panText,
  placeOf,
  ownOf,
  minuteSpan,
} from "@uprise/core/page";
import { useLocalSearchParams } from "expo-router";
import { useMemo } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { PaperPage, PaperTable, usePaper } from "../../ui/paper";
import { Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { type KitchenHere, useFormula, useKitchen } from "../wire/queries";
import { whereText } from "../instruments/component-words";
import { groupsOf, lineName } from "./groups";
import { stepTimes } from "./steps-room";
import { useAsked } from "../../device/use-asked";
import { opened } from "../../device/opened";

/** A stored formula on paper: what to weigh, the pan, the oven, the steps, the notes; on A6 what hangs on the wall. */
export function FormulaPage({ id }: { id: string }) {
  const { size: asked } = useLocalSearchParams<{ size?: string }>();
  const [size, setSize] = usePaper(asked);
  const { data, error, refetch } = useFormula(id);
  const formula = data?.formula ?? null;
  const { kitchen } = useKitchen(formula);
  useTitle(formula?.title ?? "A page to print");
  const toBake = useMemo(() => {
    const { input } = formula ? opened(() => openFormula(formula, kitchen)) : { input: null };
    const warm = kitchen.ovens.get(formula?.oven.ovenId ?? "")?.warmMinutes;
    return input && formula ? ([input, openParts(formula, kitchen), ownOf(kitchen.shelf), warm] as const) : null;
  }, [formula, kitchen]);
  const { data: made, pending } = useAsked("paper", toBake ? [...toBake] : null);
  if (error) return <Failed title="This formula did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data || !formula) return <Loading what="Fetching the formula" />;
  // A page that is sent to a printer is whole.
  if (pending) return <Loading what="Baking it for its paper" />;
  const small = size === "A6";
  const { pan, bake } = wordsOf(formula, made?.analysis ?? null);
  return (
    <PaperPage size={size} onSize={setSize} sizes={["A4", "Letter", "A6"]}>
      <View style={styles.page}>
        {small ? <Heading>{formula.title}</Heading> : <Title>{formula.title}</Title>}
        <Small>{`${kindName[formula.kind]}, version ${data.version}. ${pan}. ${bake}`}</Small>
        <WeighTable formula={formula} kitchen={kitchen} small={small} />
        {made && !small ? (
          <>
            <Heading>Steps</Heading>
            <PaperTable
              label="Steps"
              head={["", "what", "how long"]}
              right={[0]}
              rows={made.steps.map((step, k) => ({ key: step.id, cells: [String(k + 1), `${step.words}.`, stepTimes(step)] }))}
            />
          </>
        ) : null}
        {formula.notes.trim() === "" || small ? null : (
          <>
            <Heading>Notes</Heading>
            <Body>{formula.notes}</Body>
          </>
        )}
      </View>
    </PaperPage>
  );
}

function WeighTable({ formula, kitchen, small }: { formula: Formula; kitchen: KitchenHere; small: boolean }) {
  const { shelf } = kitchen;
  const spoons = ({ ingredientId = "", grams }: FormulaLine): string =>
    grams && shelf.get(ingredientId) ? householdText(grams.mid, ingredientOf(shelf, ingredientId), formula.measures) : "";
  return (
    <PaperTable
      label="What to weigh"
      small={small}
      head={["weigh", "", small ? "" : "spoons and cups"]}
      right={[0]}
      rows={groupsOf(formula).flatMap(({ component, lines }) => [
        ...(component
          ? [
              {
                key: component.id,
                strong: true,
                cells: [
                  "",
                  `${component.name}, ${whereText(placeOf(component), component.role)}${component.cookedG === undefined ? "" : `, cooked to ${gramsText(component.cookedG)}`}`,
                  "",
                ],
              },
            ]
          : []),
        ...lines
          .filter(({ line }) => line.off !== true)
          .map(({ line }) => ({
            key: line.id,
            cells: [
              line.grams ? gramsText(line.grams.mid) : "……… g",
              `${lineName(line, kitchen)}${line.note ? `, ${line.note}` : ""}`,
              small ? "" : spoons(line),
            ],
          })),
      ])}
    />
  );
}

/** Pan and oven in a line. */
function wordsOf({ vessel, oven }: Formula, analysis: Analysis | null): { pan: string; bake: string } {
  const pan = panText(vessel).replace(/^./, (c) => c.toUpperCase());
  const heat = `${Math.round(oven.celsius)} °C${oven.mode ? `, ${oven.mode.replace("-", " ")}` : ""}`;
  if (!analysis?.bake) return { pan, bake: `${heat}.` };
  const { minutes, targetCoreC } = analysis.bake;
  return {
    pan,
    bake: `${heat}, ${minuteSpan(minutes)} min, ${Math.round(targetCoreC)} °C inside.`,
  };
}

const styles = StyleSheet.create({ page: { gap: space.m, width: "100%" } });
