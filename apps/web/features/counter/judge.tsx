import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { StoredBake } from "@uprise/contract";
import type { BakeState } from "@uprise/core";
import { judgedScores } from "@uprise/core/page-live";
import { scales, trialFromBake } from "@uprise/core/page-judge";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space, touch } from "../../theme/scale";
import { Field } from "../../ui/field";
import { Link } from "../../ui/link";
import { Button } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import { Photos } from "../instruments/photos";
import { ScaleField } from "../instruments/scale-field";
import { keepTrial } from "../wire/keep-trial";
import { useTrials } from "../wire/queries";
import type { Happen } from "./use-bake";

/** What is asked while it is fresh; the other scales wait in the log. */
const QUICK = ["top", "colour-top", "crumb-size", "gummy", "moistness"] as const;
const quick = scales.filter(({ id }) => QUICK.some((one) => one === id));

/** The trial that a bake of the counter becomes; one bake has one. */
const trialIdOf = (bakeId: string): string => `${bakeId.slice(0, 56)}-judged`;

interface JudgeProps {
  bakeId: string;
  record: StoredBake["record"];
  state: BakeState;
  happen: Happen;
  /** Nothing else is to be done: keeping it is the one thing. */
  main: boolean;
}

/** A short judgement while it is fresh; with all that was measured it goes into the log at once. */
export function Judge({ bakeId, record, state, happen, main }: JudgeProps) {
  const queries = useQueryClient();
  const [answers, setAnswers] = useState<Record<string, number>>({});
  const [notes, setNotes] = useState("");
  const keep = useMutation({
    mutationFn: () => {
      const at = new Date().toISOString();
      const judged = { at, scores: {}, scales: answers, ...(notes.trim() === "" ? {} : { notes: notes.trim() }) };
      return keepTrial(queries, trialIdOf(bakeId), trialFromBake(record, { ...state, judged }, bakeId, at), null);
    },
    onSuccess: () => happen("judged", { scores: {}, scales: answers, ...(notes.trim() === "" ? {} : { notes: notes.trim() }) }),
  });
  const set = (id: string, step: number | undefined): void => {
    const { [id]: _, ...rest } = answers;
    setAnswers(step === undefined ? rest : { ...rest, [id]: step });
  };
  return (
    <View style={styles.judge}>
      <Heading>How did it come out?</Heading>
      <Small tone="faint">What you know now is enough; the log asks for more when you like.</Small>
      {quick.map((scale) => (
        <ScaleField key={scale.id} scale={scale} value={answers[scale.id]} onChange={(step) => set(scale.id, step)} />
      ))}
      <Photos
        photos={state.photos}
        onChange={(photos) => {
          for (const hash of photos) if (!state.photos.includes(hash)) happen("photo", { hash });
          for (const hash of state.photos) if (!photos.includes(hash)) happen("photo", { hash, off: true });
        }}
      />
      <Field label="Notes" value={notes} onChange={setNotes} multiline rows={3} />
      {keep.error ? <Body tone="stop">{keep.error.message}</Body> : null}
      <Button
        kind={main ? "main" : "plain"}
        style={styles.big}
        disabled={keep.isPending || (Object.keys(answers).length === 0 && notes.trim() === "")}
        onPress={() => keep.mutate()}
      >
        {keep.isPending ? "Keeping it" : "Keep it in the log"}
      </Button>
    </View>
  );
}

/** A judgement that was kept, and where it stands. */
export function Judged({ judged, bakeId }: { judged: NonNullable<BakeState["judged"]>; bakeId: string }) {
  const { data } = useTrials();
  const kept = data?.find(({ trial }) => trial.bakeId === bakeId);
  return (
    <View style={styles.judge}>
      <Heading>Judged</Heading>
      {kept ? (
        <>
          <Way to={`/log/${kept.id}`}>In the log, with all that was measured: what it says</Way>
          <Way to={`/log/${kept.id}/judge`}>Say more of it</Way>
        </>
      ) : (
        <Way to={`/log/new?bake=${bakeId}`}>Into the log, with all that was measured</Way>
      )}
      {scales.map(({ id, name, steps }) => {
        const word = steps[judged.scales[id] ?? -1]?.word;
        return word === undefined ? null : <Body key={id}>{`${name}: ${word}`}</Body>;
      })}
      {judgedScores.map((score) =>
        judged.scores[score] === undefined ? null : (
          <Body key={score}>{`${score.replace(/^./, (c) => c.toUpperCase())}: ${judged.scores[score]} of 5`}</Body>
        ),
      )}
      {judged.notes ? <Body>{judged.notes}</Body> : null}
    </View>
  );
}

function Way({ to, children }: { to: string; children: string }) {
  return (
    <Link to={to} style={styles.big}>
      <Body strong style={styles.underlined}>
        {children}
      </Body>
    </Link>
  );
}

const styles = StyleSheet.create({
  judge: { gap: space.m },
  big: { minHeight: touch.counter },
  underlined: { textDecorationLine: "underline" },
});
