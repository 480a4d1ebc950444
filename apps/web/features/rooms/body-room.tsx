import { type Analysis, type BandName, gramsText, kindName, profileOf, type Shelf } from "@uprise/core";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Body, Heading, Small } from "../../ui/words";
import { Ribbon } from "../instruments/ribbon";
import { consistencyWord, sentenceOf } from "../instruments/sentences";
import { Fact, Table } from "./facts";

const bandWord: Record<BandName, string> = {
  waterPercent: "Water, %",
  fatPercent: "Fat, %",
  sugarPercent: "Sugar, %",
  eggPercent: "Egg, %",
  gasMlPer100g: "Gas, mL in 100 g",
  saltPercent: "Salt, %",
};
const verb: Record<Analysis["body"]["consistency"], string> = {
  pourable: "pours",
  spoonable: "spoons",
  scoopable: "scoops",
  "soft-dough": "is a soft dough",
  "firm-dough": "is a firm dough",
  crumbly: "crumbles",
};

const after = (minutes: number): string =>
  minutes === 0 ? "as mixed" : minutes < 60 ? `after ${minutes} min` : `after ${minutes / 60} h`;
const onFlour = (grams: number, flourG: number): string => (flourG > 0 ? `${Math.round((100 * grams) / flourG)} %` : "no flour");

/** Water against what drinks it, over time; binder, fat, sugar, setting. */
export function BodyRoom({ analysis, shelf }: { analysis: Analysis; shelf: Shelf }) {
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
      {body.next.map((next) => (
        <Body key={next.consistency}>
          With {gramsText(next.toG)} of {(shelf.get(next.ingredientId)?.name ?? next.ingredientId).toLowerCase()},{" "}
          {gramsText(Math.abs(next.toG - next.fromG))} {next.toG > next.fromG ? "more" : "less"}, it {verb[next.consistency]}.
        </Body>
      ))}
      <Heading>{`Bands of ${kindName[analysis.given.kind].toLowerCase()}`}</Heading>
      <Table
        label="Bands of this kind of bake"
        head={["on the flour", "usual", "here"]}
        rows={analysis.bands.map((band) => {
          const out = band.value < band.low || band.value > band.high;
          return {
            key: band.name,
            strong: out,
            cells: [
              bandWord[band.name],
              `${band.low}–${band.high}`,
              `${band.value.toFixed(band.name === "saltPercent" ? 1 : 0)}${out ? " !" : ""}`,
            ],
          };
        })}
      />
      <Small tone="faint">{profileOf(analysis.given.kind).why} What stands outside is marked; it is usual, not law.</Small>
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
