import type { Diagnosis, FaultRemedy } from "@uprise/core";
import { experiments } from "@uprise/core/page-log";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button, Press } from "../../ui/press";
import { Body, Lead, Small } from "../../ui/words";
import { RemedyView } from "./remedy";

const chanceWords = (probability: number): string =>
  probability > 0.97 ? "very likely" : `${Math.round(100 * probability)} of 100`;
/** How strongly a sign speaks, in words: twice, five and twenty times likelier. */
const weightWords = (weight: number): string => {
  const size = Math.abs(weight);
  return size > 3 ? "very strongly" : size > 1.6 ? "strongly" : size > 0.7 ? "plainly" : "a little";
};

interface CausesProps {
  diagnosis: Diagnosis;
  onTake?: (remedy: FaultRemedy) => void;
  taking?: boolean;
}

/** Causes by their chance, each with what speaks for and against it in numbers of this bake, what would tell it apart, and what to do. */
export function Causes({ diagnosis, onTake, taking = false }: CausesProps) {
  const [open, setOpen] = useState<string | null>(diagnosis.causes[0]?.id ?? null);
  const colours = useColours();
  return (
    <View style={styles.all}>
      <View role="list" aria-label="Causes">
        {diagnosis.causes.map((cause, k) => {
          const next = diagnosis.causes[k + 1];
          const on = open === cause.id;
          return (
            <View key={cause.id} role="listitem" style={[styles.cause, { borderBottomColor: colours.rule }]}>
              <Press onPress={() => setOpen(on ? null : cause.id)} aria-expanded={on}>
                <View style={styles.head}>
                  <Lead style={styles.grow}>{cause.words}</Lead>
                  <Small tone="faint">{chanceWords(cause.probability)}</Small>
                </View>
                <View style={[styles.track, { backgroundColor: colours.sunk }]}>
                  <View style={[styles.bar, { backgroundColor: colours.ink, width: `${Math.max(1, Math.round(100 * cause.probability))}%` }]} />
                </View>
              </Press>
              {on ? (
                <View style={styles.body}>
                  <Reasons title="For it" reasons={cause.for} />
                  <Reasons title="Against it" reasons={cause.against} />
                  <Body>{`${next ? `To tell it from “${next.words.toLowerCase()}”: ` : ""}${cause.tell}`}</Body>
                  {cause.experiment ? <ExperimentView id={cause.experiment} /> : null}
                  <Body strong>{cause.next}</Body>
                  {cause.remedy ? <RemedyView remedy={cause.remedy} {...(onTake ? { onTake } : {})} taking={taking} /> : null}
                  <Small tone="faint">{`Known from: ${cause.source}; confidence ${cause.confidence}.`}</Small>
                </View>
              ) : null}
            </View>
          );
        })}
      </View>
      {diagnosis.sound > 0.5 ? (
        <Body>{`Most likely nothing was wrong: what is told here fits a sound bake in ${Math.round(100 * diagnosis.sound)} of 100.`}</Body>
      ) : null}
      {diagnosis.unknown > 0.2 ? <Body tone="caution">{`In ${Math.round(100 * diagnosis.unknown)} of 100 such cases it is nothing on this list.`}</Body> : null}
      {diagnosis.unexplained.length > 0 ? <Body tone="caution">{`Not explained by any of these: ${diagnosis.unexplained.join(", ").toLowerCase()}.`}</Body> : null}
    </View>
  );
} // prettier-ignore

function Reasons({ title, reasons }: { title: string; reasons: Diagnosis["causes"][number]["for"] }) {
  if (reasons.length === 0) return null;
  return (
    <View>
      <Small tone="faint">{title}</Small>
      {reasons.map(({ what, value, weight }) => (
        <View key={what} style={styles.reason}>
          <Body style={styles.grow}>{`${what}: ${value}`}</Body>
          <Small tone="faint">{weightWords(weight)}</Small>
        </View>
      ))}
    </View>
  );
}

/** Something to try, with its steps. */
export function ExperimentView({ id }: { id: string }) {
  const [open, setOpen] = useState(false);
  const experiment = experiments.find((one) => one.id === id);
  if (!experiment) return null;
  return (
    <View style={styles.experiment}>
      <Button kind="quiet" onPress={() => setOpen(!open)}>
        {`Try it out: ${experiment.title}`}
      </Button>
      {open ? (
        <>
          <Small tone="faint">{experiment.needs}</Small>
          {experiment.steps.map((step, k) => (
            <Body key={step}>{`${k + 1}. ${step}`}</Body>
          ))}
          {experiment.reading.map((line) => (
            <Body key={line}>{`– ${line}`}</Body>
          ))}
        </>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: space.m },
  cause: { borderBottomWidth: 1, paddingVertical: space.s },
  head: { flexDirection: "row", alignItems: "baseline", gap: space.s },
  grow: { flex: 1, minWidth: 0 },
  track: { height: 6, marginTop: space.xs },
  bar: { height: 6 },
  body: { gap: space.s, paddingVertical: space.s },
  reason: { flexDirection: "row", gap: space.s, alignItems: "baseline" },
  experiment: { alignItems: "flex-start", gap: space.xs },
});
