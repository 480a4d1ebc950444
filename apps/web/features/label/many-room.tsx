import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { ScaleUpRequest } from "@uprise/contract";
import type { Analysis, Formula, ScaleUp } from "@uprise/core";
import { gramsText } from "@uprise/core/page";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Fact } from "../../ui/facts";
import { Link } from "../../ui/link";
import { NumberField } from "../../ui/number-field";
import { PaperTable } from "../../ui/paper";
import { Busy, Failed } from "../../ui/state";
import { Body, Heading, Small } from "../../ui/words";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";
import { readDevice, writeDevice } from "../../device/local";

const kept = (name: string, usual: number): number => Number(readDevice(name) ?? usual) || usual;

/** What is asked of a formula for so many pieces. */
const manyOf = ({ lines, components, kind, vessel, oven, process, measures }: Formula, times: number, bowlL: number, places: number): ScaleUpRequest => ({
  lines: lines.map(({ ingredientId, grams, component, name: called, off }) => ({ ...(off || ingredientId === undefined ? {} : { ingredientId }), ...(off || !grams ? {} : { grams }), ...(component ? { component } : {}), ...(called ? { name: called } : {}) })).filter(({ grams }) => grams !== undefined),
  ...(components ? { components } : {}),
  kind, vessel, oven, process, measures, times, bowlMl: bowlL * 1000, placesPerLoad: places,
}); // prettier-ignore

/** The reckoning of so many pieces; the one before stays until it is there. */
export function useMany(formula: Formula, onePieces: number, pieces: number, bowlL: number, places: number) {
  const asked = manyOf(formula, pieces / onePieces, bowlL, places);
  return useQuery({
    queryKey: keys.scaleUp.of(asked),
    queryFn: ({ signal }) => wire.scaleUp(asked, signal),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
}

/** What is weighed for each batch: a whole one, the last where it is smaller, and in all. */
export function ManyTable({ formula, data: { perBatch, pieces }, onePieces, name }: { formula: Formula; data: ScaleUp; onePieces: number; name: (id: string) => string }) {
  const last = perBatch.lastPieces < perBatch.pieces;
  const of = (grams: number, many: number): string => gramsText((grams * many) / onePieces);
  return (
    <PaperTable
      label="What to weigh"
      head={["", `a batch of ${perBatch.pieces}`, ...(last ? [`the last, of ${perBatch.lastPieces}`] : []), `all ${pieces}`]}
      right={last ? [1, 2, 3] : [1, 2]}
      rows={formula.lines
        .filter(({ off }) => off !== true)
        .map(({ id, ingredientId, name: called, grams }) => ({
          key: id,
          cells: [
            called ?? name(ingredientId ?? ""),
            ...(grams ? [of(grams.mid, perBatch.pieces), ...(last ? [of(grams.mid, perBatch.lastPieces)] : []), of(grams.mid, pieces)] : ["not weighed yet", ...(last ? [""] : []), ""]),
          ],
        }))}
    />
  );
} // prettier-ignore

/** How many batches and loads, and how long a load bakes. */
export const manyWords = ({ batches, perBatch, loads, loadMinutes, massG, pieces }: ScaleUp): { mix: string; bake: string } => ({
  mix: `${batches} ${batches === 1 ? "batch" : "batches"} of ${gramsText(perBatch.massG)}: ${perBatch.pieces} pieces each${perBatch.lastPieces < perBatch.pieces ? `, the last ${perBatch.lastPieces}` : ""}; ${gramsText(massG)} for ${pieces} pieces in all`,
  bake: `${loads} ${loads === 1 ? "load" : "loads"}, each ${Math.round(loadMinutes.low)}–${Math.round(loadMinutes.high)} min`,
}); // prettier-ignore

interface ManyProps {
  formula: Formula;
  formulaId: string | undefined;
  analysis: Analysis;
  name: (id: string) => string;
}

/** From the test bake to a day's worth: batches with their amounts, loads, packets, and what does not grow in proportion. */
export function ManyRoom({ formula, formulaId, analysis, name }: ManyProps) {
  const onePieces = Math.max(1, analysis.fill.pieces);
  const [pieces, setPieces] = useState(onePieces === 1 ? 40 : onePieces * 10);
  const [bowlL, setBowlL] = useState(() => kept("bowl-litres", 10));
  const [places, setPlaces] = useState(() => kept(`places-${formula.vessel.shape}`, onePieces === 1 ? 6 : onePieces * 2));
  const { data, error, isFetching, refetch } = useMany(formula, onePieces, pieces, bowlL, places);
  const words = data ? manyWords(data) : null;
  return (
    <View style={styles.room}>
      <View style={styles.fields}>
        <NumberField label="Pieces wanted" unit="" whole least={1} most={2000} value={pieces} onChange={(next) => next !== undefined && setPieces(next)} style={styles.field} />
        <NumberField label="Largest bowl, litres" unit="" least={0.5} most={300} value={bowlL} onChange={(next) => { if (next !== undefined) { setBowlL(next); writeDevice("bowl-litres", String(next)); } }} style={styles.field} />
        <NumberField label="Pieces the oven takes at once" unit="" whole least={1} most={2000} value={places} onChange={(next) => { if (next !== undefined) { setPlaces(next); writeDevice(`places-${formula.vessel.shape}`, String(next)); } }} style={styles.field} />
      </View>
      <Busy on={isFetching} what="Reckoning it through" />
      {error ? <Failed title="This was not reckoned." detail={error.message} onRetry={() => void refetch()} /> : null}
      {data && words ? (
        <>
          <Fact name="To mix" value={`${data.batches} ${data.batches === 1 ? "batch" : "batches"} of ${gramsText(data.perBatch.massG)}`} why={`${words.mix}. A batch fills ${Math.round(100 * data.perBatch.bowlShare)} % of the bowl, and no batch is larger than the oven takes at once or than its lift waits for.`} />
          <Fact name="To bake" value={words.bake} why={`${data.pieces} pieces, ${places} at once; ${Math.round(data.ovenMinutes)} min of oven in all. A load takes about ${data.kWhPerLoad.toFixed(1)} kWh to heat and dry.`} />
          <ManyTable formula={formula} data={data} onePieces={onePieces} name={name} />
          {formulaId === undefined ? null : (
            <Link to={`/print/many/${formulaId}?pieces=${pieces}&bowl=${bowlL}&places=${places}`}>
              <Body strong style={styles.underlined}>This on one page of paper</Body>
            </Link>
          )}
          <View style={styles.part}>
            <Heading>What does not grow with it</Heading>
            {data.otherwise.map((sentence) => (
              <Body key={sentence}>{sentence}</Body>
            ))}
          </View>
          {data.wholePackets.length > 0 ? (
            <View style={styles.part}>
              <Heading>Whole packets</Heading>
              {data.wholePackets.map(({ ingredientId, packets, pieces: with_ }) => (
                <Body key={ingredientId}>{`${with_} pieces use ${packets} ${packets === 1 ? "packet" : "packets"} of ${name(ingredientId).toLowerCase()} to the end.`}</Body>
              ))}
            </View>
          ) : null}
          <Small tone="faint">Scaling the sheet itself is under Particulars; the day's plan lays out batches and loads by the clock.</Small>
        </>
      ) : null}
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  room: { gap: space.m },
  part: { gap: space.s },
  underlined: { textDecorationLine: "underline" },
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 150 },
});
