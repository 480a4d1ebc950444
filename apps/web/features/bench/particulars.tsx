import { type Formula, gramsText, kindName, kinds, measureSystems, scaleLines, type Measures } from "@uprise/core";
import { memo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { Field } from "../../ui/field";
import { NumberField } from "../../ui/number-field";
import { Button, Press } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";

const measuresName: Record<Measures, string> = { us: "US", metric: "Metric", uk: "UK", au: "Australian" };

interface ParticularsProps {
  formula: Formula;
  massG: number;
  onChange: (formula: Formula, fold?: boolean) => void;
  onParts: () => void;
}

/** What else belongs to a formula: kind, batch, whose cups, notes. */
export const Particulars = memo(function Particulars({ formula, massG, onChange, onParts }: ParticularsProps) {
  const colours = useColours();
  const [choosing, setChoosing] = useState(false);
  const scale = (factor: number): void => onChange({ ...formula, lines: scaleLines(formula.lines, factor) });
  return (
    <View style={styles.all}>
      <Heading>Particulars</Heading>
      <Press
        onPress={() => setChoosing(!choosing)}
        aria-expanded={choosing}
        style={[styles.kind, { borderBottomColor: colours.rule }]}
      >
        <Small tone="faint">Kind of bake</Small>
        <Body strong>{kindName[formula.kind]}</Body>
      </Press>
      {choosing ? (
        <View role="radiogroup" aria-label="Kinds of bake" style={styles.kinds}>
          {kinds.map((kind) => (
            <Press
              key={kind}
              role="radio"
              aria-checked={kind === formula.kind}
              onPress={() => {
                onChange({ ...formula, kind });
                setChoosing(false);
              }}
              style={[styles.option, { borderLeftColor: kind === formula.kind ? colours.ink : colours.rule }]}
            >
              <Body strong={kind === formula.kind}>{kindName[kind]}</Body>
            </Press>
          ))}
        </View>
      ) : null}
      <View style={styles.batch}>
        {massG > 0 ? (
          <NumberField
            label="Whole batch"
            unit="g"
            least={1}
            most={1_000_000}
            value={massG}
            onChange={(grams) => onChange({ ...formula, lines: scaleLines(formula.lines, grams / massG) }, true)}
            style={styles.mass}
          />
        ) : null}
        {[
          ["½", 0.5],
          ["×2", 2],
          ["×3", 3],
        ].map(([label, factor]) => (
          <Press
            key={label}
            label={`${label}, scale by ${factor}`}
            onPress={() => scale(Number(factor))}
            style={[styles.factor, { borderColor: colours.strongRule }]}
          >
            <Body strong>{label}</Body>
          </Press>
        ))}
      </View>
      {massG > 0 ? (
        <Small tone="faint">
          Twice the batch is {gramsText(2 * massG)}; it does not take twice the time in two pans, and more than that in one.
        </Small>
      ) : null}
      <Button onPress={onParts}>
        {formula.parts && formula.parts.length > 0 ? `Split into ${formula.parts.length} parts` : "Split this batter"}
      </Button>
      <Small tone="faint">Cups and spoons</Small>
      <Choice
        label="Cups and spoons"
        options={measureSystems.map((value) => ({ value, label: measuresName[value] }))}
        value={formula.measures}
        onChange={(measures) => onChange({ ...formula, measures })}
      />
      <Field label="Notes" value={formula.notes} multiline rows={6} onChange={(notes) => onChange({ ...formula, notes }, true)} />
    </View>
  );
});

const styles = StyleSheet.create({
  all: { padding: space.m, gap: space.s },
  kind: { borderBottomWidth: 1 },
  kinds: { gap: 0 },
  option: { borderLeftWidth: 4, paddingLeft: space.m },
  batch: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "flex-end" },
  mass: { width: 150 },
  factor: { borderWidth: 1.5, alignItems: "center" },
});
