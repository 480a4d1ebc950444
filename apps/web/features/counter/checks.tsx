import { minuteSpan } from "@uprise/core/page";
import { useQuery } from "@tanstack/react-query";
import type { Analysis, BakeRecord, BakeState } from "@uprise/core";
import { checkedAgainst, falls } from "@uprise/core/page-live";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space, touch } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { NumberField } from "../../ui/number-field";
import { Button } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { wire } from "../wire/client";
import { requestOf } from "./request";
import type { Happen } from "./use-bake";

const fallOptions = falls.map((label, k) => ({ value: String(k), label }));

/** What few bakers write down and every bake hangs on: how warm the batter is, how heavy a cup of it, how it falls. Each moves what is expected. */
export function Checks({ record, state, happen }: { record: BakeRecord; state: BakeState; happen: Happen }) {
  const [batterC, setBatterC] = useState<number | undefined>(undefined);
  const [cupG, setCupG] = useState<number | undefined>(undefined);
  const [cupMl, setCupMl] = useState<number | undefined>(100);
  const newest = (what: string): number | undefined => state.measured.filter((one) => one.what === what).at(-1)?.value;
  const [warm, density, fell] = [newest("batterC"), newest("densityGPerMl"), newest("falls")];
  const body = requestOf(record.part?.whole ?? record.formula, state.lines);
  const asked = { ...body, process: { ...body.process, ...(warm === undefined ? {} : { batterC: warm }) } };
  const { data } = useQuery({
    queryKey: ["checked", asked],
    queryFn: ({ signal }) => wire.analyse(asked, signal),
    enabled: state.measured.length > 0,
    staleTime: Infinity,
  });
  return (
    <View style={styles.checks}>
      <View style={styles.tools}>
        <NumberField label="Batter" value={batterC} unit="°C" least={0} most={60} optional onChange={setBatterC} style={styles.field} />
        <Button style={styles.big} disabled={batterC === undefined} onPress={() => { if (batterC !== undefined) happen("measured", { what: "batterC", value: batterC }); setBatterC(undefined); }}>
          Note
        </Button>
      </View>
      <View style={styles.tools}>
        <NumberField label="A full cup of it" value={cupG} unit="g" least={10} most={2000} optional onChange={setCupG} style={styles.field} />
        <NumberField label="The cup holds" value={cupMl} unit="mL" least={10} most={2000} optional onChange={setCupMl} style={styles.field} />
        <Button style={styles.big} disabled={cupG === undefined || cupMl === undefined} onPress={() => { if (cupG !== undefined && cupMl !== undefined) happen("measured", { what: "densityGPerMl", value: Math.round((1000 * cupG) / cupMl) / 1000 }); setCupG(undefined); }}>
          Note
        </Button>
      </View>
      <Choice label="How it falls from the spoon" options={fallOptions} value={fell === undefined ? "" : String(fell)} onChange={(value) => happen("measured", { what: "falls", value: Number(value) })} />
      {data ? <Told data={data} record={record} warm={warm} density={density} fell={fell} /> : null}
    </View>
  ); // prettier-ignore
}

function Told({
  data,
  record,
  warm,
  density,
  fell,
}: {
  data: Analysis;
  record: BakeRecord;
  warm: number | undefined;
  density: number | undefined;
  fell: number | undefined;
}) {
  if (!data.bake) return <Body tone="caution">{data.unbaked ?? "There is nothing to bake."}</Body>;
  const minutes = Math.round(data.bake.minutes.mid - record.expected.minutes.mid);
  const { heavierPercent: heavier, thicker } = checkedAgainst(data, fell, density);
  return (
    <View>
      {warm !== undefined ? (
        <Body>{`At ${Math.round(warm)} °C it bakes ${minuteSpan(data.bake.minutes)} min${minutes === 0 ? ", as was thought" : `, ${Math.abs(minutes)} min ${minutes > 0 ? "longer" : "less"} than was thought`}; it may stand ${data.lift.standMinutes.quarter === null ? "as long as you like" : `${Math.floor(data.lift.standMinutes.quarter)} min`}.`}</Body>
      ) : null}
      {density !== undefined && heavier !== null ? (
        <Body>{`${density.toFixed(2)} g in a mL: ${heavier === 0 ? "as was thought" : heavier > 0 ? `${heavier} % heavier than was thought, so it holds less air and will rise less` : `${-heavier} % lighter than was thought: it holds more air`}.`}</Body>
      ) : null}
      {thicker !== null ? (
        <Body>
          {thicker === 0
            ? `It falls as a ${data.body.consistency.replace("-", " ")} batter does, as was thought.`
            : `It is ${thicker > 0 ? "thicker" : "thinner"} than the ${data.body.consistency.replace("-", " ")} batter that was thought: is an amount off?`}
        </Body>
      ) : null}
      <Small tone="faint">Computed anew with what was measured.</Small>
    </View>
  );
}

const styles = StyleSheet.create({
  checks: { gap: space.m },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "flex-end" },
  field: { width: 130 },
  big: { minHeight: touch.counter },
});
