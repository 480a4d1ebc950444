import { type Analysis, gramsText } from "@uprise/core";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Body, Heading } from "../../ui/words";
import { Ribbon } from "../instruments/ribbon";
import { consistencyWord, sentenceOf } from "../instruments/sentences";
import { Fact, Table } from "./facts";

const after = (minutes: number): string =>
  minutes === 0 ? "as mixed" : minutes < 60 ? `after ${minutes} min` : `after ${minutes / 60} h`;
const onFlour = (grams: number, flourG: number): string => (flourG > 0 ? `${Math.round((100 * grams) / flourG)} %` : "no flour");

/** Water against what drinks it, over time; binder, fat, sugar, setting. */
export function BodyRoom({ analysis }: { analysis: Analysis }) {
  const { body, batch } = analysis;
  return (
    <View style={styles.room}>
      <View style={styles.drawing}>
        <Ribbon body={body} width={260} />
      </View>
      <Body>{sentenceOf("body", analysis)}</Body>
      <Heading>While it stands</Heading>
      <Table
        label="Consistency while the batter stands"
        head={["", "load", "it"]}
        rows={body.atMinutes.map((at) => ({
          key: String(at.minutes),
          cells: [after(at.minutes), at.loading.toFixed(2), consistencyWord[at.consistency]],
        }))}
      />
      <Fact
        name="Water on the flour"
        value={onFlour(batch.waterG, batch.flourG)}
        why={`${gramsText(batch.waterG)} of water from everything on the sheet, over ${gramsText(batch.flourG)} of flour and starch. Loading is the water that is free at mixing, with what acts like it, over what the dry things can drink.`}
        source="Composition and water absorption capacity of each ingredient."
      />
      <Fact
        name="Binder"
        value={body.binder.kind}
        why={`It binds like ${body.binder.percent.toFixed(2)} % xanthan on the flour, ${Math.round(100 * body.binder.adequacy)} % of what this kind of bake wants. What a bought blend holds is counted.`}
        source="One egg to 100–150 g of flour binds like 0.4 % xanthan."
      />
      <Fact
        name="Fat, sugar on the flour"
        value={`${onFlour(batch.fatG, batch.flourG)}, ${onFlour(batch.sugarG, batch.flourG)}`}
        why={`${gramsText(batch.fatG)} of fat and ${gramsText(batch.sugarG)} of sugar in all, in whatever they come.`}
      />
      <Fact
        name="Sets at"
        value={`${Math.round(body.settingC.low)}–${Math.round(body.settingC.high)} °C`}
        why="Starch gelatinises at a temperature of its own; sugar raises it by about 20 K on the way to pure syrup, dryness too. Until it sets the crumb can sink."
      />
      <Fact
        name="Density of the batter"
        value={`${body.densityGPerMl.toFixed(2)} g/mL`}
        why="Its parts by their own densities, with the air that this method of mixing beats in."
      />
    </View>
  );
}

const styles = StyleSheet.create({ room: { gap: space.m }, drawing: { alignItems: "center" } });
