import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { Analysis, Formula } from "@uprise/core";
import { gramsText } from "@uprise/core/page";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Fact } from "../../ui/facts";
import { NumberField } from "../../ui/number-field";
import { Busy, Failed } from "../../ui/state";
import { Body, Heading, Small } from "../../ui/words";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";
import { readDevice, writeDevice } from "../../device/local";

const kept = (name: string, usual: number): number => Number(readDevice(name) ?? usual) || usual;

/** From the test bake to a day's worth: batches, loads, packets, and what does not grow in proportion. */
export function ManyRoom({ formula, analysis, name }: { formula: Formula; analysis: Analysis; name: (id: string) => string }) {
  const onePieces = Math.max(1, analysis.fill.pieces);
  const [pieces, setPieces] = useState(onePieces === 1 ? 40 : onePieces * 10);
  const [bowlL, setBowlL] = useState(() => kept("bowl-litres", 10));
  const [places, setPlaces] = useState(() => kept(`places-${formula.vessel.shape}`, onePieces === 1 ? 6 : onePieces * 2));
  const asked = {
    lines: formula.lines.map(({ ingredientId, grams, component, name: called, off }) => ({ ...(off || ingredientId === undefined ? {} : { ingredientId }), ...(off || !grams ? {} : { grams }), ...(component ? { component } : {}), ...(called ? { name: called } : {}) })).filter(({ grams }) => grams !== undefined),
    ...(formula.components ? { components: formula.components } : {}),
    kind: formula.kind, vessel: formula.vessel, oven: formula.oven, process: formula.process, measures: formula.measures,
    times: pieces / onePieces, bowlMl: bowlL * 1000, placesPerLoad: places,
  };
  const { data, error, isFetching, refetch } = useQuery({
    queryKey: keys.scaleUp.of(asked),
    queryFn: ({ signal }) => wire.scaleUp(asked, signal),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  return (
    <View style={styles.room}>
      <View style={styles.fields}>
        <NumberField label="Pieces wanted" unit="" whole least={1} most={2000} value={pieces} onChange={(next) => next !== undefined && setPieces(next)} style={styles.field} />
        <NumberField label="Largest bowl, litres" unit="" least={0.5} most={300} value={bowlL} onChange={(next) => { if (next !== undefined) { setBowlL(next); writeDevice("bowl-litres", String(next)); } }} style={styles.field} />
        <NumberField label="Pieces the oven takes at once" unit="" whole least={1} most={2000} value={places} onChange={(next) => { if (next !== undefined) { setPlaces(next); writeDevice(`places-${formula.vessel.shape}`, String(next)); } }} style={styles.field} />
      </View>
      <Busy on={isFetching} what="Reckoning it through" />
      {error ? <Failed title="This was not reckoned." detail={error.message} onRetry={() => void refetch()} /> : null}
      {data ? (
        <>
          <Fact name="To mix" value={`${data.batches} ${data.batches === 1 ? "batch" : "batches"} of ${gramsText(data.perBatch.massG)}`} why={`${data.perBatch.pieces} pieces each${data.perBatch.lastPieces < data.perBatch.pieces ? `, the last ${data.perBatch.lastPieces}` : ""}; ${gramsText(data.massG)} in all. A batch fills ${Math.round(100 * data.perBatch.bowlShare)} % of the bowl, and no batch is larger than the oven takes at once or than its lift waits for.`} />
          <Fact name="To bake" value={`${data.loads} ${data.loads === 1 ? "load" : "loads"}, ${Math.round(data.ovenMinutes)} min`} why={`${data.pieces} pieces, ${places} at once. A load takes about ${data.kWhPerLoad.toFixed(1)} kWh to heat and dry.`} />
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
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 150 },
});
