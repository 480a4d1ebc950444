import type { Analysis, Edit, Formula, Opened, Simulation, WorkStep } from "@uprise/core";
import { isBaked, isOwnStep, listWords, openParts, ownOf } from "@uprise/core/page";
import { useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button, Press } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { BeginBake } from "../instruments/begin-bake";
import type { KitchenHere } from "../wire/queries";
import { StepEditor, stepsEdit, unsaid } from "./step-editor";
import { useAsked } from "../../device/use-asked";
import { Loading } from "../../ui/state";
import { opened } from "../../device/opened";

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
  /** Which formula is baked from here, and whether what is on the bench is not what is stored. */
  id?: string | undefined;
  unsaved?: boolean | undefined;
  formula: Formula;
  analysis: Analysis;
  simulation: Simulation | null;
  open: () => Opened;
  kitchen: KitchenHere;
  edit: (edit: Edit) => void;
}

/** How the formula on the sheet is made, from the oven's warming to the wrapping; a step opens to be said otherwise. */
export function StepsRoom({ id, unsaved = false, formula, analysis, simulation, open, kitchen, edit }: StepsProps) {
  const { shelf, ovens } = kitchen;
  const [shown, setShown] = useState<string | null>(null);
  const changes = formula.process.steps ?? [];
  const change = (next: typeof changes): void => edit(stepsEdit(next));
  const leftOut = changes.filter((one) => !isOwnStep(one) && one.off === true);
  const warm = ovens.get(formula.oven.ovenId ?? "")?.warmMinutes;
  const asked = useMemo(() => {
    const { input } = opened(open);
    // Its moments are for drawings; a step needs none of them.
    const bare = simulation && { ...simulation, section: { ...simulation.section, frames: [] } };
    return input && isBaked(analysis) ? ([input, analysis, bare, openParts(formula, kitchen), ownOf(shelf), warm] as const) : null;
  }, [open, formula, kitchen, analysis, simulation, shelf, warm]);
  const { data } = useAsked("steps", asked ? [...asked] : null);
  if (!asked) return <Body>There are steps once there is something to bake.</Body>;
  if (!data) return <Loading what="Laying out the steps" />;
  const { steps, wholeMinutes: whole } = data;
  return (
    <View style={styles.room}>
      <Body>
        {`About ${whole < 90 ? `${Math.round(whole / 5) * 5} min` : `${Math.floor(whole / 60)} h ${Math.round((whole % 60) / 5) * 5} min`} from the first hand to the last, one pair of hands and one oven.`}
      </Body>
      {id !== undefined && analysis.open.length === 0 ? (
        <BeginBake formulaId={id} title={formula.title} {...(unsaved ? { formula } : {})} />
      ) : null}
      {analysis.open.length > 0 ? (
        <Body tone="caution">{`Not weighed yet, and in no step: ${listWords(analysis.open.map(({ name }) => name.toLowerCase()))}.`}</Body>
      ) : null}
      {(formula.process.written?.length ?? 0) > 0 ? (
        <View style={styles.told}>
          <Small>The recipe's own order and words; amounts, minutes and pieces are this formula's.</Small>
          <Button kind="quiet" onPress={() => edit({ edit: "set-process", set: {}, clear: ["written"] })}>
            Steps that follow from the formula instead
          </Button>
        </View>
      ) : null}
      <Small tone="faint">Tap a step to say it otherwise, to leave it out, or to put one of your own after it.</Small>
      <View role="list" aria-label="Steps">
        {steps.map((step, k) => (
          <View key={step.id} role="listitem">
            {shown === step.id ? (
              <StepEditor step={step} changes={changes} onChange={change} onClose={() => setShown(null)} />
            ) : (
              <Press onPress={() => setShown(step.id)} aria-expanded={false}>
                <StepLine step={step} number={k + 1} />
              </Press>
            )}
          </View>
        ))}
      </View>
      {leftOut.map((one) =>
        isOwnStep(one) ? null : (
          <View key={one.step} style={styles.step}>
            <Small tone="faint" style={styles.words}>{`Left out: ${one.step.replace(/-/g, " ")}.`}</Small>
            <Button kind="quiet" onPress={() => change(unsaid(changes, one.step))}>
              Take it in again
            </Button>
          </View>
        ),
      )}
      {changes.length > 0 ? (
        <Button kind="quiet" onPress={() => change([])}>
          All steps as they are derived
        </Button>
      ) : null}
    </View>
  );
}

function StepLine({ step, number }: { step: WorkStep; number: number }) {
  const colours = useColours();
  return (
    <View style={[styles.step, { borderBottomColor: colours.rule }]}>
      <Body strong style={styles.number}>
        {`${number}`}
      </Body>
      <View style={styles.words}>
        <Body>{`${step.words}.`}</Body>
        <Small tone="faint">{stepTimes(step)}</Small>
      </View>
    </View>
  );
}

/** Steps as a list, numbered in the order in which they are begun. */
export function Steps({ steps }: { steps: readonly WorkStep[] }) {
  return (
    <View role="list" aria-label="Steps">
      {steps.map((step, k) => (
        <View key={step.id} role="listitem">
          <StepLine step={step} number={k + 1} />
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  room: { gap: space.m },
  told: { gap: space.xs, alignItems: "flex-start" },
  step: { flexDirection: "row", gap: space.m, borderBottomWidth: 1, paddingVertical: space.s },
  number: { width: 28, textAlign: "right", fontVariant: ["tabular-nums"] },
  words: { flex: 1, minWidth: 0, gap: space.hair },
});
