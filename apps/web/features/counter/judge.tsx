import type { BakeState } from "@uprise/core";
import { judgedScores } from "@uprise/core/page-live";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space, touch } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { Field } from "../../ui/field";
import { Link } from "../../ui/link";
import { Button } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import type { Happen } from "./use-bake";

type Score = (typeof judgedScores)[number];
const names: Record<Score, { name: string; from: string; to: string }> = {
  rise: { name: "Rise", from: "flat", to: "as high as hoped" },
  crumb: { name: "Crumb", from: "dense or gummy", to: "even and light" },
  moistness: { name: "Moistness", from: "dry or wet", to: "right" },
  taste: { name: "Taste", from: "off", to: "good" },
};
const values = ["1", "2", "3", "4", "5"].map((value) => ({ value, label: value }));

/** A short judgement while it is fresh. */
export function Judge({ happen }: { happen: Happen }) {
  const [scores, setScores] = useState<Partial<Record<Score, number>>>({});
  const [notes, setNotes] = useState("");
  return (
    <View style={styles.judge}>
      <Heading>How did it come out?</Heading>
      {judgedScores.map((score) => (
        <View key={score}>
          <Small tone="faint">{`${names[score].name}: 1 is ${names[score].from}, 5 is ${names[score].to}`}</Small>
          <Choice label={names[score].name} options={values} value={String(scores[score] ?? "")} onChange={(value) => setScores({ ...scores, [score]: Number(value) })} />
        </View>
      ))}
      <Field label="Notes" value={notes} onChange={setNotes} multiline rows={3} />
      <Button kind="main" style={styles.big} disabled={Object.keys(scores).length === 0} onPress={() => happen("judged", { scores, ...(notes.trim() === "" ? {} : { notes: notes.trim() }) })}>
        Keep this judgement
      </Button>
    </View>
  ); // prettier-ignore
}

/** A judgement that was kept. */
export function Judged({ judged, bakeId }: { judged: NonNullable<BakeState["judged"]>; bakeId: string }) {
  return (
    <View style={styles.judge}>
      <Heading>Judged</Heading>
      <Link to={`/log/new?bake=${bakeId}`} style={styles.big}>
        <Body strong style={styles.underlined}>
          Into the log, with all that was measured
        </Body>
      </Link>
      {judgedScores.map((score) =>
        judged.scores[score] === undefined ? null : <Body key={score}>{`${names[score].name}: ${judged.scores[score]} of 5`}</Body>,
      )}
      {judged.notes ? <Body>{judged.notes}</Body> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  judge: { gap: space.m },
  big: { minHeight: touch.counter },
  underlined: { textDecorationLine: "underline" },
});
