import type { Analysis, Range, Shelf } from "@uprise/core";
import { asSodaG, asSodaText, gramsText } from "@uprise/core/page";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Body, Heading, Small } from "../../ui/words";
import { Beam } from "../instruments/beam";
import { Beliefs } from "../instruments/beliefs";
import { RaceDrawing, raceSentence } from "../instruments/race";
import { sentenceOf } from "../instruments/sentences";
import { Fact, Table } from "../../ui/facts";

const one = (value: number): string => (Math.abs(value) < 0.05 ? "–" : value.toFixed(Math.abs(value) < 10 ? 1 : 0));
/** Soda, or acid by the soda it meets, g. */
const grams = (mmol: number): string => (Math.abs(mmol) < 0.05 ? "–" : asSodaG(Math.abs(mmol)) < 0.05 ? "< 0.1 g" : `${mmol < 0 ? "−" : ""}${asSodaText(Math.abs(mmol))}`); // prettier-ignore
const rangeOf = (r: Range, digits: number): string =>
  r.high - r.low < 0.5 * 10 ** -digits ? r.mid.toFixed(digits) : `${r.low.toFixed(digits)}–${r.high.toFixed(digits)}`;
const percent = (share: number): string => `${Math.round(100 * share)} %`;
const standing = (minutes: number | null): string =>
  minutes === null
    ? "a day and more"
    : minutes < 2
      ? "under 2 min"
      : minutes < 90
        ? `${Math.round(minutes)} min`
        : `${Math.round(minutes / 60)} h`;

/** Who brings soda, who brings acid, what is left, what comes when. */
export function LiftRoom({ analysis, shelf }: { analysis: Analysis; shelf: Shelf }) {
  const colours = useColours();
  const { lift } = analysis;
  const onPlate = analysis.given.oven.mode === "hob";
  const nameOf = (id: string): string => shelf.get(id)?.name ?? id;
  const rows = [...lift.entries]
    .sort((a, b) => b.sodaMmol + Math.abs(b.acidMmol) - a.sodaMmol - Math.abs(a.acidMmol))
    .filter((e) => e.sodaMmol > 0.05 || Math.abs(e.acidMmol) > 0.05)
    .map((e) => ({ key: e.ingredientId, cells: [nameOf(e.ingredientId), grams(e.sodaMmol), grams(e.acidMmol)] }));
  return (
    <View style={styles.room}>
      <View style={styles.drawing}>
        <Beam lift={lift} width={260} />
      </View>
      <Body>{sentenceOf("lift", analysis)}</Body>
      <Heading>Who brings soda, who meets it</Heading>
      <Table
        label="Soda, and the acid that meets it, in grams of soda"
        head={["in grams of soda", "soda", "acid meets"]}
        rows={[...rows, { key: "all", strong: true, cells: ["Together", grams(lift.sodaMmol.mid), grams(lift.acidMmol.mid)] }]}
      />
      <Heading>The race</Heading>
      {lift.sources.length === 0 && lift.gasMlPer100g.mid < 1 ? (
        <Body>No gas runs here; steam alone lifts it.</Body>
      ) : analysis.race === null ? (
        <Body>It is run once there is a bake.</Body>
      ) : (
        <View>
          <View style={styles.drawing}>
            <RaceDrawing race={analysis.race} hob={onPlate} />
          </View>
          <View style={styles.legend}>
            <View style={[styles.key, { borderTopColor: colours.gas, borderStyle: "solid" }]} />
            <Small>gas released</Small>
            <View style={[styles.key, { borderTopColor: colours.set, borderStyle: "dashed" }]} />
            <Small>crumb set</Small>
          </View>
          <Body>{raceSentence(analysis.race, onPlate)}</Body>
          <Small tone="faint">Over the whole crumb, along the simulated bake.</Small>
        </View>
      )}
      <Fact
        name="Soda met by acid"
        value={
          lift.sodaMmol.mid < 0.05
            ? "no soda"
            : `${gramsText(Math.min(asSodaG(lift.acidMmol.mid), asSodaG(lift.sodaMmol.mid)))} of ${asSodaText(lift.sodaMmol.mid)}`
        }
        why={`The acids would meet ${percent(lift.neutralised.low)}–${percent(lift.neutralised.high)} of it: ${one(lift.acidMmol.mid)} of acid over ${one(lift.sodaMmol.mid)} of soda, in millimoles. Under 85 % soda is left, over 135 % the crumb is sour. The spread is how far the acids of the ingredients are known and how they were measured.`}
        source="Acids titrated to pH 7.5; leavening acids by neutralising value."
      />
      <Fact
        name="Soda left over"
        value={lift.residualSodaG < 0.05 ? "none" : gramsText(lift.residualSodaG)}
        why={`What finds no acid stays behind as carbonate. In ${gramsText(analysis.batch.massG)} of batter it is tasted from about ${gramsText(0.0015 * analysis.batch.massG)}.`}
        source="84.007 g of soda are one mole."
      />
      <Fact
        name="pH of the crumb"
        value={rangeOf(lift.ph, 1)}
        why={`The pH at which all charges cancel: acids with their pKa, the buffering of flours, egg and milk, and the soda's carbonate after the crumb has lost its carbon dioxide. The batter itself stands at ${lift.batterPh.toFixed(1)}. Under 6 it is tangy and pale, 6.5 to 7.5 mild, over 8 dark and soapy.`}
        source="Electroneutrality, 16 fixed samples of the uncertain inputs."
      />
      <Heading>What that means</Heading>
      {lift.meaning.map(({ aspect, text }) => (
        <Body key={aspect + text}>
          {aspect.replace(/^./, (c) => c.toUpperCase())}: {text}.
        </Body>
      ))}
      <Fact
        name="Gas in 100 g of batter"
        value={`${Math.round(lift.gasMlPer100g.low)}–${Math.round(lift.gasMlPer100g.high)} mL`}
        why={`At 25 °C, ${lift.sources.map((s) => `${asSodaText(s.mmol)} of soda that reacts from ${s.name}`).join(", ") || "none from soda"}. Of all the carbon dioxide that went in, ${percent(lift.stages.bench)} comes on the bench, ${percent(lift.stages.oven)} ${onPlate ? "on the plate" : "in the oven"}, ${percent(lift.stages.never)} never.`}
        source="Two first-order stages a reaction; rates in docs/science/lift.md."
      />
      <Fact
        name="May stand, mixed"
        value={standing(lift.standMinutes.tenth)}
        why={`Until a tenth of what is left for the oven is gone; a quarter is gone after ${standing(lift.standMinutes.quarter)}. Acids already dissolved react at once, a double-acting powder waits for the oven.`}
      />
      <Beliefs at="lift" analysis={analysis} simulation={null} shelf={shelf} />
    </View>
  );
}

const styles = StyleSheet.create({
  room: { gap: space.m },
  drawing: { alignItems: "center" },
  legend: { flexDirection: "row", alignItems: "center", gap: space.s },
  key: { width: 28, borderTopWidth: 3 },
});
