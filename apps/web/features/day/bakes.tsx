import type { FormulaSummary, PlanRequest } from "@uprise/contract";
import type { Plan } from "@uprise/core";
import X from "lucide-react-native/icons/x";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { ClockField } from "../../ui/clock-field";
import { NameSearch } from "../../ui/name-search";
import { NumberField } from "../../ui/number-field";
import { Button, Press } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { newId } from "../wire/client";
import { clockOf, dateOf, isoFrom, isoLike, lengthWords, markOf, minutesBetween } from "./times";

type DayBake = PlanRequest["bakes"][number];

interface BakesProps {
  day: PlanRequest;
  plan: Plan | null;
  formulas: readonly FormulaSummary[];
  onChange: (set: Partial<PlanRequest>) => void;
  shown: string | null;
  onShow: (id: string | null) => void;
}

/** The bakes of a day: which formula, how many, by when. */
export function Bakes({ day, plan, formulas, onChange, shown, onShow }: BakesProps) {
  const [adding, setAdding] = useState(false);
  const set = (id: string, next: Partial<DayBake>): void =>
    onChange({ bakes: day.bakes.map((bake) => (bake.id === id ? { ...bake, ...next } : bake)) });
  return (
    <View>
      <View role="list" aria-label="Bakes of the day">
        {day.bakes.map((bake, k) => (
          <BakeRow
            key={bake.id}
            bake={bake}
            mark={markOf(k)}
            day={day}
            plan={plan}
            title={formulas.find(({ id }) => id === bake.formulaId)?.title ?? bake.title ?? "A bake"}
            open={shown === bake.id}
            onOpen={() => onShow(shown === bake.id ? null : bake.id)}
            onSet={(next) => set(bake.id, next)}
            onRemove={day.bakes.length > 1 ? () => onChange({ bakes: day.bakes.filter(({ id }) => id !== bake.id) }) : null}
          />
        ))}
      </View>
      {adding ? (
        <PickFormula
          formulas={formulas}
          onPick={(formulaId) => {
            setAdding(false);
            const readyBy = day.bakes[0]?.readyBy;
            onChange({ bakes: [...day.bakes, { id: newId(), formulaId, batches: 1, ...(readyBy ? { readyBy } : {}) }] });
          }}
        />
      ) : (
        <Button onPress={() => setAdding(true)}>Add a bake</Button>
      )}
    </View>
  );
}

/** So many formulas are offered without a search. */
const OFFERED = 8;

function PickFormula({ formulas, onPick }: { formulas: readonly FormulaSummary[]; onPick: (id: string) => void }) {
  const [query, setQuery] = useState("");
  const wanted = query.trim().toLowerCase();
  const found = formulas
    .filter(({ title }) => title.toLowerCase().includes(wanted))
    .map(({ id, title }) => ({ id, name: title, aliases: [] }));
  return (
    <View style={styles.more}>
      <NameSearch
        label="Which formula"
        query={query}
        onQuery={setQuery}
        found={found.slice(0, OFFERED)}
        onPick={({ id }) => onPick(id)}
      />
      {wanted === "" ? (
        <View style={styles.tools}>
          {found.slice(0, OFFERED).map(({ id, name }) => (
            <Button key={id} kind="quiet" onPress={() => onPick(id)}>
              {name}
            </Button>
          ))}
        </View>
      ) : null}
    </View>
  );
}

interface BakeRowProps {
  bake: DayBake;
  mark: string;
  day: PlanRequest;
  plan: Plan | null;
  title: string;
  open: boolean;
  onOpen: () => void;
  onSet: (next: Partial<DayBake>) => void;
  onRemove: (() => void) | null;
}

function BakeRow({ bake, mark, day, plan, title, open, onOpen, onSet, onRemove }: BakeRowProps) {
  const colours = useColours();
  const planned = plan?.bakes.find(({ id }) => id === bake.id);
  const late = plan?.late.find(({ bakeId }) => bakeId === bake.id);
  const date = dateOf(day.start);
  const pieces = planned ? planned.batches * planned.piecesABatch : null;
  const time = (set: "readyBy" | "earliest" | "heldAt") => (clock: string) =>
    onSet({ [set]: clock === "" ? undefined : (isoFrom(date, clock, day.start) ?? undefined) });
  const inOven = plan?.steps.find(({ bakeId, kind }) => bakeId === bake.id && kind === "bake");
  const shift = (by: number): void => {
    if (inOven) onSet({ heldAt: isoLike(Date.parse(inOven.start) + by * 60_000, day.start) });
  };
  return (
    <View role="listitem" style={[styles.row, { borderBottomColor: colours.rule }]}>
      <Press onPress={onOpen} aria-expanded={open} style={styles.head}>
        <View style={[styles.mark, { backgroundColor: colours.ink }]}>
          <Body strong tone="paper">
            {mark}
          </Body>
        </View>
        <View style={styles.grow}>
          <Body strong={open}>{title}</Body>
          <Small tone={late ? "stop" : "faint"}>
            {planned
              ? `${planned.batches} ${planned.batches === 1 ? "batch" : "batches"}, ${pieces} ${pieces === 1 ? "piece" : "pieces"}; ready ${clockOf(planned.ready)}${late ? `, ${late.minutes} min late` : bake.readyBy ? `, for ${clockOf(bake.readyBy)}` : ""}`
              : "not planned yet"}
            {bake.heldAt ? "; put there by hand" : ""}
          </Small>
        </View>
      </Press>
      {open ? (
        <View style={styles.more}>
          <View style={styles.fields}>
            <NumberField label="Pieces wanted" value={bake.pieces ?? pieces ?? undefined} unit="" least={1} most={2000} whole onChange={(value) => onSet({ pieces: value, batches: undefined })} style={styles.field} />
            <NumberField label="Tins you have" value={bake.vessels} unit="" least={1} most={40} whole optional onChange={(value) => onSet({ vessels: value })} style={styles.field} />
            <ClockField label="Ready by" kind="time" value={bake.readyBy ? clockOf(bake.readyBy) : ""} onChange={time("readyBy")} style={styles.field} />
            <ClockField label="Begin no earlier" kind="time" value={bake.earliest ? clockOf(bake.earliest) : ""} onChange={time("earliest")} style={styles.field} />
          </View>
          {inOven ? (
            <View style={styles.tools}>
              <Small tone="faint">{`In the oven from ${clockOf(inOven.start)} for ${lengthWords(minutesBetween(inOven.start, inOven.end))}.`}</Small>
              <Button kind="quiet" onPress={() => shift(-10)}>
                10 min earlier
              </Button>
              <Button kind="quiet" onPress={() => shift(10)}>
                10 min later
              </Button>
              {bake.heldAt ? (
                <Button kind="quiet" onPress={() => onSet({ heldAt: undefined })}>
                  Let go
                </Button>
              ) : null}
            </View>
          ) : null}
          {onRemove ? (
            <Button kind="quiet" icon={<X size={18} color={colours.ink} />} onPress={onRemove}>
              Take it off the day
            </Button>
          ) : null}
        </View>
      ) : null}
    </View>
  ); // prettier-ignore
}

const styles = StyleSheet.create({
  row: { borderBottomWidth: 1 },
  head: { flexDirection: "row", alignItems: "center", justifyContent: "flex-start", gap: space.m, paddingVertical: space.s },
  mark: { width: 32, height: 32, alignItems: "center", justifyContent: "center" },
  grow: { flex: 1, minWidth: 0 },
  more: { gap: space.m, paddingBottom: space.m, alignItems: "flex-start" },
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 148 },
  tools: { flexDirection: "row", flexWrap: "wrap", alignItems: "center", gap: space.s },
});
