import type { Analysis, Edit, Formula, Shelf } from "@uprise/core";
import { gramsText } from "@uprise/core/page";
import { memo } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Field } from "../../ui/field";
import { NumberField } from "../../ui/number-field";
import { Button, Press } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import { KindPicker, MeasuresPicker } from "../instruments/kind-picker";
import { RecipeWord } from "./recipe-word";
import type { RoomName } from "./rooms";

interface ParticularsProps {
  formula: Formula;
  massG: number;
  analysis: Analysis | null;
  shelf: Shelf;
  edit: (edit: Edit) => void;
  onRoom: (room: RoomName) => void;
  faults: ReadonlyMap<string, string>;
}

const factors = [
  ["½", 0.5],
  ["×2", 2],
  ["×3", 3],
] as const;

/** What else belongs to a formula: kind, batch, whose cups, notes. */
export const Particulars = memo(function Particulars({ formula, massG, analysis, shelf, edit, onRoom, faults }: ParticularsProps) {
  const colours = useColours();
  const parts = formula.parts?.length ?? 0;
  return (
    <View style={styles.all}>
      <Heading>Particulars</Heading>
      <KindPicker kind={formula.kind} onKind={(kind) => edit({ edit: "set-kind", kind })} />
      <View style={styles.batch}>
        {massG > 0 ? (
          <NumberField
            label="Whole batch"
            unit="g"
            least={1}
            most={1_000_000}
            value={massG}
            onChange={(grams) => grams !== undefined && edit({ edit: "scale", factor: grams / massG })}
            style={styles.mass}
          />
        ) : null}
        {factors.map(([label, factor]) => (
          <Press
            key={label}
            label={`${label}, scale by ${factor}`}
            onPress={() => edit({ edit: "scale", factor })}
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
      <View style={styles.ways}>
        <Button onPress={() => onRoom("steps")}>Step by step</Button>
        <Button onPress={() => onRoom("balance")}>Make it vegan, cheaper …</Button>
        <Button onPress={() => onRoom("parts")}>{parts > 0 ? `Split into ${parts} parts` : "Split this batter"}</Button>
        <Button onPress={() => onRoom("many")}>Many of it</Button>
        <Button onPress={() => onRoom("label")}>Label, keeping, cost</Button>
        <Button onPress={() => onRoom("send")}>Send it or print it</Button>
      </View>
      <RecipeWord formula={formula} analysis={analysis} shelf={shelf} edit={edit} />
      <Small tone="faint">Cups and spoons</Small>
      <MeasuresPicker
        label="Cups and spoons"
        measures={formula.measures}
        onMeasures={(measures) => edit({ edit: "set-measures", measures })}
      />
      <Field
        label="Notes"
        value={formula.notes}
        multiline
        rows={6}
        error={faults.get("notes")}
        onChange={(notes) => edit({ edit: "set-notes", notes })}
      />
    </View>
  );
});

const styles = StyleSheet.create({
  all: { padding: space.m, gap: space.s },
  batch: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "flex-end" },
  mass: { width: 150 },
  factor: { borderWidth: 1.5, alignItems: "center" },
  ways: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
});
