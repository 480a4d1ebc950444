import type { Analysis, BandName, Edit, Opened, Shelf } from "@uprise/core";
import { gramsText, kindName } from "@uprise/core/page";
import { profileOf } from "@uprise/core/page-bench";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Body, Heading, Small } from "../../ui/words";
import { BandRange } from "../instruments/band-range";
import { Beliefs } from "../instruments/beliefs";
import { Ribbon } from "../instruments/ribbon";
import { consistencyWord, sentenceOf } from "../instruments/sentences";
import { Fact, Table } from "../../ui/facts";
import { BodyTarget } from "./target";

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
export function BodyRoom({
  analysis,
  shelf,
  open,
  edit,
  lines = [],
}: {
  analysis: Analysis;
  shelf: Shelf;
  /** The formula as it is computed with, and how it is changed; without them a target cannot be taken. */
  open?: () => Opened;
  edit?: (edit: Edit) => void;
  lines?: readonly { id: string; ingredientId?: string }[];
}) {
  const colours = useColours();
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
        head={["", "free water for what drinks it", "it"]}
        rows={body.atMinutes.map((at) => ({
          key: String(at.minutes),
          cells: [after(at.minutes), `${at.loading.toFixed(2)} ×`, consistencyWord[at.consistency]],
        }))}
      />
      <Small tone="faint">
        The free water, over what the flours, starches and fibres can drink by then: over 1 there is more than they hold, and the
        batter runs; the longer it stands, the more they drink. Gum and sugar thicken it besides.
      </Small>
      {body.next.map((next) => (
        <Body key={next.consistency}>
          With {gramsText(next.toG)} of {(shelf.get(next.ingredientId)?.name ?? next.ingredientId).toLowerCase()},{" "}
          {gramsText(Math.abs(next.toG - next.fromG))} {next.toG > next.fromG ? "more" : "less"}, it {verb[next.consistency]}.
        </Body>
      ))}
      {open && edit ? <BodyTarget now={body.consistency} shelf={shelf} open={open} edit={edit} lines={lines} /> : null}
      <Heading>{`Bands of ${kindName[analysis.given.kind].toLowerCase()}`}</Heading>
      <View role="list" aria-label="Bands of this kind of bake">
        {analysis.bands.map(({ name, low, high, value }) => {
          const out = value < low || value > high;
          const here = value.toFixed(name === "saltPercent" ? 1 : 0);
          return (
            <View
              key={name}
              role="listitem"
              aria-label={`${bandWord[name]}: ${here}, usual ${low} to ${high}${out ? ", outside" : ""}`}
              style={[styles.band, { borderBottomColor: colours.rule }]}
            >
              <View style={styles.bandName}>
                <Body strong={out}>{bandWord[name]}</Body>
                <Small tone="faint">
                  usual {low}–{high}
                </Small>
              </View>
              <BandRange low={low} high={high} value={value} width={132} />
              <Body strong={out} tone={out ? "caution" : "ink"} style={styles.bandValue}>
                {here}
              </Body>
            </View>
          );
        })}
      </View>
      <Small tone="faint">
        {profileOf(analysis.given.kind).why} The bar is what is usual, the mark is this formula, hollow where it stands outside;
        usual is not law.
      </Small>
      <Fact
        name="Water on the flour"
        value={onFlour(batch.waterG, batch.baseG)}
        why={`${gramsText(batch.waterG)} of water from everything in the batter, over ${gramsText(batch.baseG)} of what builds the crumb: flour and starch with cocoa, milk powder, nut butter and the dry matter of purées. Loading is the water that is free at mixing, with what acts like it, over what the dry things can drink.`}
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
        value={`${onFlour(batch.fatG, batch.baseG)}, ${onFlour(batch.sugarG, batch.baseG)}`}
        why={`${gramsText(batch.fatG)} of fat and ${gramsText(batch.sugarG)} of sugar in all, in whatever they come. The bands count what is added: the fat of a nut in its meal and the sugar of milk are left out there.`}
      />
      <Fact
        name="Sets at"
        value={`${Math.round(body.settingC.low)}–${Math.round(body.settingC.high)} °C`}
        why="Starch gelatinises at a temperature of its own; sugar raises it by about 20 °C on the way to pure syrup, dryness too. Until it sets the crumb can sink."
      />
      <Fact
        name="Density of the batter"
        value={`${body.densityGPerMl.toFixed(2)} g/mL`}
        why="Its parts by their own densities, with the air that this method of mixing beats in."
      />
      <Beliefs at="body" analysis={analysis} simulation={null} shelf={shelf} />
    </View>
  );
}

const styles = StyleSheet.create({
  room: { gap: space.m },
  drawing: { alignItems: "center" },
  band: { flexDirection: "row", alignItems: "center", gap: space.s, borderBottomWidth: 1, minHeight: 48 },
  bandName: { flex: 1, minWidth: 0 },
  bandValue: { width: 44, textAlign: "right", fontVariant: ["tabular-nums"] },
});
