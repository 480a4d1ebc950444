import { type Analysis, type Formula, fahrenheitFromCelsius, methodName, methods, ovenModes } from "@uprise/core";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { NumberField } from "../../ui/number-field";
import { Body, Heading, Small } from "../../ui/words";
import { BakeArc } from "../instruments/arc";
import { minutesText, sentenceOf } from "../instruments/sentences";
import { Fact } from "./facts";

const modeName: Record<(typeof ovenModes)[number], string> = {
  still: "Top and bottom",
  fan: "Fan",
  "air-fryer": "Air fryer",
  hob: "Hob",
};

interface BakeRoomProps {
  formula: Formula;
  analysis: Analysis;
  onChange: (formula: Formula, fold?: boolean) => void;
}

/** The oven and the batter's wait before it; when to look and by which sign it is done. */
export function BakeRoom({ formula, analysis, onChange }: BakeRoomProps) {
  const { bake } = analysis;
  const { oven, process } = formula;
  return (
    <View style={styles.room}>
      <View style={styles.drawing}>
        <BakeArc bake={bake} width={260} />
      </View>
      <Body>{sentenceOf("bake", analysis)}</Body>
      <View style={styles.fields}>
        <NumberField
          label="Oven"
          unit="°C"
          least={60}
          most={320}
          value={oven.celsius}
          onChange={(celsius) => onChange({ ...formula, oven: { ...oven, celsius } }, true)}
          style={styles.field}
        />
        <NumberField
          label="Batter stands"
          unit="min"
          least={0}
          most={2880}
          value={process.restMinutes ?? 0}
          onChange={(restMinutes) => onChange({ ...formula, process: { ...process, restMinutes } }, true)}
          style={styles.field}
        />
      </View>
      <Small tone="faint">{`${oven.celsius} °C is ${Math.round(fahrenheitFromCelsius(oven.celsius))} °F.`}</Small>
      <Choice
        label="Oven mode"
        options={ovenModes.map((value) => ({ value, label: modeName[value] }))}
        value={oven.mode ?? "still"}
        onChange={(mode) => onChange({ ...formula, oven: { ...oven, mode } })}
      />
      <Choice
        label="Method"
        options={methods.map((value) => ({ value, label: methodName[value] }))}
        value={process.method ?? "muffin"}
        onChange={(method) => onChange({ ...formula, process: { ...process, method } })}
      />
      <Fact
        name="Minutes, a first estimate"
        value={minutesText(bake.minutes)}
        why={
          oven.mode === "hob"
            ? "Each half of the thickness is heated by contact, one side after the other: twice (d/2)² over the batter's heat diffusivity."
            : "400 times the batter's volume over its surface, over the oven's temperature above 80 °C. It is a rule of thumb and may be a quarter off; a fan counts as 20 K."
        }
        source="Not calibrated to your oven."
      />
      <Fact
        name="Look first after"
        value={`${bake.checkAtMinutes} min`}
        why="The early end of the window. Opening the door before costs heat when the crumb is weakest."
      />
      <Fact
        name="Core when done"
        value={`${bake.targetCoreC} °C`}
        why="The coldest point, in the middle, a little under half the height."
      />
      <Fact
        name="Loses in the oven"
        value={`${bake.lossPercent.low}–${bake.lossPercent.high} %`}
        why="Water that leaves as steam, by the kind of bake."
      />
      <Fact
        name="Cut after"
        value={`${bake.restBeforeCuttingMinutes} min`}
        why="Starch firms while it cools; cut earlier, the knife drags a gummy line. Some bakers cut warm; this is a warning, not a rule."
      />
      <Heading>Signs that it is done</Heading>
      {bake.signs.map((sign) => (
        <Body key={sign}>– {sign}</Body>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  room: { gap: space.m },
  drawing: { alignItems: "center" },
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 150 },
});
