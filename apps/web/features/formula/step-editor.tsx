import type { Edit, Process, StepChange, WorkStep } from "@uprise/core";
import { freeId, isOwnStep, MOST_STEP_WORDS } from "@uprise/core/page";
import { mayLeaveOut, mayTime } from "@uprise/core/page-bench";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Check } from "../../ui/check";
import { Choice } from "../../ui/choice";
import { Field } from "../../ui/field";
import { NumberField } from "../../ui/number-field";
import { Button } from "../../ui/press";
import { Small } from "../../ui/words";

type Changes = NonNullable<Process["steps"]>;

const ownNeeds = ["hands", "mixer", "nothing"] as const;
const ownNeedWord = { hands: "Hands", mixer: "Mixer", nothing: "By itself" };

/** The edit that leaves these changes on the formula. */
export const stepsEdit = (changes: Changes): Edit =>
  changes.length > 0 ? { edit: "set-process", set: { steps: changes } } : { edit: "set-process", set: {}, clear: ["steps"] };

/** The changes with one step said otherwise. */
function said(changes: Changes, step: WorkStep, set: { words?: string; minutes?: number; off?: boolean }): Changes {
  if (changes.some((change) => isOwnStep(change) && change.own === step.id))
    return changes.map((change) => (isOwnStep(change) && change.own === step.id ? { ...change, ...set } : change));
  const before = changes.find((change) => !isOwnStep(change) && change.step === step.id) ?? { step: step.id };
  return [...changes.filter((change) => change !== before), { ...before, ...set } as StepChange];
}

/** The changes without those of one step: it is as it is derived, or gone where it was the baker's own. */
export const unsaid = (changes: Changes, id: string): Changes =>
  changes.filter((change) => (isOwnStep(change) ? change.own !== id : change.step !== id));

interface StepEditorProps {
  step: WorkStep;
  changes: Changes;
  onChange: (changes: Changes) => void;
  onClose: () => void;
}

/** One step opened in its place: its words and minutes, left out, or another one put after it. */
export function StepEditor({ step, changes, onChange, onClose }: StepEditorProps) {
  const colours = useColours();
  const own = changes.find((change) => isOwnStep(change) && change.own === step.id);
  const isChanged = changes.some((change) => (isOwnStep(change) ? change.own === step.id : change.step === step.id));
  const [words, setWords] = useState(step.words);
  const wrong = words.trim() === "" ? "Say in a few words what is done." : words.length > MOST_STEP_WORDS ? `Up to ${MOST_STEP_WORDS} characters would be right.` : undefined; // prettier-ignore
  const after = (): void => {
    const own = changes.filter(isOwnStep).map((change) => ({ id: change.own }));
    const next = { own: freeId("own-1", own), follows: step.id, words: "A step of your own", minutes: 5, needs: "hands" as const };
    onChange([...changes, next]);
  };
  return (
    <View style={[styles.editor, { borderLeftColor: colours.strongRule }]} role="group" aria-label={`Change: ${step.words}`}>
      <Field
        label="What is done"
        value={words}
        error={wrong}
        multiline
        onChange={(text) => {
          setWords(text);
          if (text.trim() !== "" && text.length <= MOST_STEP_WORDS) onChange(said(changes, step, { words: text }));
        }}
      />
      {mayTime(step) ? (
        <NumberField
          label="Minutes"
          value={step.minutes.mid}
          unit="min"
          least={0.5}
          most={2880}
          onChange={(minutes) => minutes !== undefined && onChange(said(changes, step, { minutes }))}
          style={styles.minutes}
        />
      ) : (
        <Small tone="faint">Its minutes come from the simulated bake.</Small>
      )}
      {own && isOwnStep(own) ? (
        <Choice
          label="It needs"
          value={own.needs}
          options={ownNeeds.map((need) => ({ value: need, label: ownNeedWord[need] }))}
          onChange={(needs) => onChange(changes.map((change) => (change === own ? { ...own, needs } : change)))}
        />
      ) : mayLeaveOut(step) ? (
        <Check label="Leave it out" on={false} onChange={() => onChange(said(changes, step, { off: true }))} />
      ) : null}
      <View style={styles.tools}>
        {step.at === undefined ? <Button onPress={after}>Put a step after it</Button> : null}
        {isChanged ? (
          <Button
            kind="quiet"
            onPress={() => {
              onChange(unsaid(changes, step.id));
              onClose();
            }}
          >
            {own ? "Take it off" : "As it was derived"}
          </Button>
        ) : null}
        <Button kind="quiet" onPress={onClose}>
          Done
        </Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  editor: { gap: space.m, borderLeftWidth: 3, paddingLeft: space.m, marginVertical: space.s },
  minutes: { width: 140 },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
});
