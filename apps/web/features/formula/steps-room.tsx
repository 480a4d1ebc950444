import {
  type Analysis,
  CoreError,
  type Formula,
  listWords,
  type Opened,
  shortestMinutes,
  type Simulation,
  stepsOf,
  type WorkStep,
} from "@uprise/core";
import { useMemo } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Body, Small } from "../../ui/words";
import type { KitchenHere } from "../wire/queries";

const rangeText = ({ low, mid, high }: WorkStep["minutes"]): string => {
  const [from, to] = [Math.round(low), Math.round(high)];
  return from === to ? `${Math.max(1, Math.round(mid))} min` : `${from}–${to} min`;
};

const needWord: Record<WorkStep["needs"], string> = { hands: "hands", mixer: "mixer", oven: "oven", nothing: "by itself" };

/** When a step is, and what it takes, in words. */
export const stepTimes = ({ minutes, needs, at, within, ahead }: WorkStep): string =>
  [
    at === undefined ? `${rangeText(minutes)}, ${needWord[needs]}` : `after ${Math.round(at)} min in the oven`,
    ...(within ? [`begin within ${Math.round(within.minutes)} min of wetting it: ${within.why}`] : []),
    ...(ahead ? ["may be done the day before"] : []),
  ].join("; ");

interface StepsProps {
  formula: Formula;
  analysis: Analysis;
  simulation: Simulation | null;
  open: () => Opened;
  kitchen: KitchenHere;
}

/** How the formula on the sheet is made, from the oven's warming to the wrapping. */
export function StepsRoom({ formula, analysis, simulation, open, kitchen }: StepsProps) {
  const { shelf, ovens } = kitchen;
  const warm = ovens.get(formula.oven.ovenId ?? "")?.warmMinutes;
  const steps = useMemo(() => {
    try {
      return stepsOf(open(), analysis, simulation, shelf, warm);
    } catch (error) {
      if (error instanceof CoreError) return [];
      throw error;
    }
  }, [open, analysis, simulation, shelf, warm]);
  const whole = shortestMinutes(steps);
  return (
    <View style={styles.room}>
      <Body>
        {`About ${whole < 90 ? `${Math.round(whole / 5) * 5} min` : `${Math.floor(whole / 60)} h ${Math.round((whole % 60) / 5) * 5} min`} from the first hand to the last, one pair of hands and one oven.`}
      </Body>
      {analysis.open.length > 0 ? (
        <Body tone="caution">{`Not weighed yet, and in no step: ${listWords(analysis.open.map(({ name }) => name.toLowerCase()))}.`}</Body>
      ) : null}
      <Steps steps={steps} />
    </View>
  );
}

/** Steps as a list, numbered in the order in which they are begun. */
export function Steps({ steps }: { steps: readonly WorkStep[] }) {
  const colours = useColours();
  return (
    <View role="list" aria-label="Steps">
      {steps.map((step, k) => (
        <View key={step.id} role="listitem" style={[styles.step, { borderBottomColor: colours.rule }]}>
          <Body strong style={styles.number}>
            {`${k + 1}`}
          </Body>
          <View style={styles.words}>
            <Body>{`${step.words}.`}</Body>
            <Small tone="faint">{stepTimes(step)}</Small>
          </View>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  room: { gap: space.m },
  step: { flexDirection: "row", gap: space.m, borderBottomWidth: 1, paddingVertical: space.s },
  number: { width: 28, textAlign: "right", fontVariant: ["tabular-nums"] },
  words: { flex: 1, minWidth: 0, gap: space.hair },
});
