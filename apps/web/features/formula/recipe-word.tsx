import type { Analysis, Edit, Formula, Measures, Mending, Said, Shelf } from "@uprise/core";
import { ownOf } from "@uprise/core/page";
import { useState } from "react";
import { Image, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Table } from "../../ui/facts";
import { Button, Press } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import { MeasuresPicker } from "../instruments/kind-picker";
import { minutesText } from "../instruments/sentences";
import { ask } from "../../device/workers";

interface RecipeWordProps {
  formula: Formula;
  analysis: Analysis | null;
  shelf: Shelf;
  edit: (edit: Edit) => void;
}

/** The text read again with other cups; what was answered by hand is kept. */
async function readAgain({ pasted, kind }: Formula, measures: Measures, shelf: Shelf): Promise<Edit | null> {
  if (!pasted) return null;
  const mending = (pasted.mending ?? {}) as Mending;
  const { begun } = await ask("read", pasted.text, measures, mending, kind, ownOf(shelf), new Map(), {
    language: pasted.language,
    batch: pasted.batch,
    figures: pasted.figures,
  });
  const { lines, components, said } = begun;
  return {
    edit: "read-again",
    measures,
    lines,
    ...(components ? { components } : {}),
    ...(said ? { said } : {}),
    pasted: { ...pasted, measures },
  };
}

/** What the recipe says of its bake beside what is computed, and its text, which can be read again with another country's cups. */
export function RecipeWord({ formula, analysis, shelf, edit }: RecipeWordProps) {
  const { said, pasted } = formula;
  const [open, setOpen] = useState(false);
  const [measures, setMeasures] = useState<Measures>(pasted?.measures ?? formula.measures);
  if (!said && !pasted) return null;
  return (
    <View style={styles.all} testID="recipe-word">
      <Heading level={3}>The recipe's own word</Heading>
      {said ? (
        <Table label="The recipe and this bench" head={["", "recipe", "here"]} rows={rowsOf(said, formula, analysis)} />
      ) : null}
      {pasted ? (
        <>
          <Press onPress={() => setOpen(!open)} aria-expanded={open} style={styles.more}>
            <Small style={styles.underlined}>
              {open ? "Close the text" : pasted.pages ? "The page and its text" : "The text as pasted"}
            </Small>
          </Press>
          {open ? (
            <>
              {(pasted.pages ?? []).map((hash, k) => (
                <Image
                  key={hash}
                  source={{ uri: `/api/photos/${hash}` }}
                  resizeMode="contain"
                  style={styles.page}
                  alt={`The page that it was read from${k > 0 ? `, ${k + 1}` : ""}`}
                />
              ))}
              <Body style={styles.text}>{pasted.text}</Body>
              <MeasuresPicker label="Read it with the cups and spoons of" measures={measures} onMeasures={setMeasures} />
              <Button onPress={() => void readAgain(formula, measures, shelf).then((made) => made && edit(made))}>
                Read it again
              </Button>
              <Small tone="faint">
                Its lines and components take the place of those on the sheet; pan, oven and notes stay. Undo brings the sheet back.
              </Small>
            </>
          ) : null}
        </>
      ) : null}
    </View>
  );
}

function rowsOf(said: Said, { oven }: Formula, analysis: Analysis | null): { key: string; cells: string[] }[] {
  const range = ({ low, high }: { low: number; high: number }): string => minutesText({ low, mid: low, high });
  const rows: [string, string | null, string][] = [
    ["Minutes", said.minutes ? range(said.minutes) : null, analysis?.bake ? minutesText(analysis.bake.minutes) : "–"],
    ["Oven", said.celsius === undefined ? null : `${Math.round(said.celsius)} °C`, `${Math.round(oven.celsius)} °C`],
    [
      "Core",
      said.coreC === undefined ? null : `${Math.round(said.coreC)} °C`,
      analysis?.bake ? `${Math.round(analysis.bake.targetCoreC)} °C` : "–",
    ],
    ["Pieces", said.pieces === undefined ? null : String(said.pieces), analysis ? String(analysis.fill.pieces) : "–"],
  ];
  return rows.flatMap(([name, theirs, here]) => (theirs === null ? [] : [{ key: name, cells: [name, theirs, here] }]));
}

const styles = StyleSheet.create({
  all: { gap: space.s },
  more: { alignSelf: "flex-start" },
  underlined: { textDecorationLine: "underline" },
  text: { paddingLeft: space.m },
  page: { width: "100%", maxWidth: 560, height: 480 },
});
