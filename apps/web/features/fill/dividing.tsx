import type { Analysis, Divided, Division } from "@uprise/core";
import { divide, scoopsMl } from "@uprise/core/page-bench";
import { gramsText } from "@uprise/core/page";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { NumberField } from "../../ui/number-field";
import { Body, Small } from "../../ui/words";

type Way = Division["way"];
const ways: { value: Way; label: string }[] = [
  { value: "wedges", label: "Wedges" },
  { value: "slices", label: "Slices of a log" },
  { value: "squares", label: "Squares" },
  { value: "scoops", label: "Scoops" },
  { value: "balls", label: "Balls" },
];
const pieceWord: Record<Way, string> = {
  wedges: "wedges",
  slices: "slices",
  squares: "squares",
  scoops: "scoops",
  balls: "balls",
};

const sizeText = (sizes: Divided["sizes"]): string => sizes.map(({ name, mm }) => `${Math.round(mm)} mm ${name}`).join(", ");

/** Dividing a dough or a slab: how many, how heavy, how large. */
export function Dividing({ analysis }: { analysis: Analysis }) {
  const [way, setWay] = useState<Way>("wedges");
  const [across, setAcross] = useState(200);
  const [pieces, setPieces] = useState(8);
  const [rows, setRows] = useState(4);
  const [scoop, setScoop] = useState("40");
  const [grams, setGrams] = useState(85);
  const division: Division =
    way === "wedges"
      ? { way, diameterMm: across, pieces }
      : way === "slices"
        ? { way, lengthMm: across, pieces }
        : way === "squares"
          ? { way, lengthMm: across, widthMm: across, rows, columns: rows }
          : way === "scoops"
            ? { way, scoopMl: Number(scoop) }
            : { way, pieceG: grams };
  const divided = divide(analysis.batch.massG, analysis.body.densityGPerMl, division);
  return (
    <View style={styles.dividing}>
      <Choice label="Way to divide" options={ways} value={way} onChange={setWay} />
      <View style={styles.fields}>
        {way === "scoops" ? (
          <Choice
            label="Scoop, mL"
            options={scoopsMl.map((ml) => ({ value: `${ml}`, label: `${ml} mL` }))}
            value={scoop}
            onChange={setScoop}
          />
        ) : way === "balls" ? (
          <NumberField
            label="A ball weighs"
            unit="g"
            least={5}
            most={1000}
            value={grams}
            onChange={(value) => value !== undefined && setGrams(value)}
            style={styles.field}
          />
        ) : (
          <>
            <NumberField
              label={way === "wedges" ? "Disc across" : way === "slices" ? "Log is long" : "Slab is long and wide"}
              unit="mm"
              least={40}
              most={900}
              value={across}
              onChange={(value) => value !== undefined && setAcross(value)}
              style={styles.field}
            />
            {way === "squares" ? (
              <NumberField
                label="Cuts a side into"
                unit=""
                least={1}
                most={30}
                value={rows}
                whole
                onChange={(value) => value !== undefined && setRows(value)}
                style={styles.field}
              />
            ) : (
              <NumberField
                label="How many"
                unit=""
                least={1}
                most={100}
                value={pieces}
                whole
                onChange={(value) => value !== undefined && setPieces(value)}
                style={styles.field}
              />
            )}
          </>
        )}
      </View>
      <Body>
        {divided.pieces} {pieceWord[way]} of {gramsText(divided.pieceG)}: {sizeText(divided.sizes)}.
        {divided.leftG > 1 ? ` ${gramsText(divided.leftG)} are left.` : ""}
      </Body>
      <Small tone="faint">By the batter as it is mixed, {analysis.body.densityGPerMl.toFixed(2)} g/mL.</Small>
    </View>
  );
}

const styles = StyleSheet.create({
  dividing: { gap: space.s },
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 150 },
});
