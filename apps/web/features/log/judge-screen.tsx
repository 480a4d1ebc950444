import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { StoredTrial } from "@uprise/contract";
import type { Formula, Measured, Scores, Seen, Trial } from "@uprise/core";
import {
  cupsToWeigh,
  doubtsOf,
  lossOf,
  powderAgeOf,
  profileOfHeights,
  scales,
  seenFrom,
  symptoms,
  trialFromBake,
} from "@uprise/core/page-log";
import { foldBake } from "@uprise/core/page-live";
import { type Href, useRouter } from "expo-router";
import { useRef, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Check } from "../../ui/check";
import { Choice } from "../../ui/choice";
import { Field } from "../../ui/field";
import { NumberField } from "../../ui/number-field";
import { Button } from "../../ui/press";
import { Failed, Loading, NotFound } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { newId, wire, WireError } from "../wire/client";
import { keys } from "../wire/keys";
import { isSettled } from "../wire/kept";
import { keepTrial } from "../wire/keep-trial";
import { useFormula, useFormulas, useKitchen, usePackets } from "../wire/queries";
import { useQuery } from "@tanstack/react-query";
import { Photos } from "../instruments/photos";
import { ScaleField } from "../instruments/scale-field";
import { useTrial } from "./use-log";
import { ask } from "../../device/workers";

const GROUPS = [
  { id: "seen", title: "Seen" },
  { id: "crumb", title: "The cut face" },
  { id: "eaten", title: "Eaten" },
  { id: "taste", title: "Tasted" },
] as const;

const doneSigns = ["probe", "skewer", "spring-back", "edge", "colour", "clock"] as const;

/** A trial of a formula that nobody led through the counter. */
const freshTrial = (formula: Formula, formulaId: string, version: number): Trial => ({
  title: formula.title,
  formulaId,
  formulaVersion: version,
  formula,
  at: new Date().toISOString(),
  ...(formula.oven.ovenId === undefined ? {} : { ovenId: formula.oven.ovenId }),
  measured: {},
  seen: [],
  scores: {},
  notes: "",
  photos: [],
  tags: [],
});

/** A bake to be judged: one from the counter, one of a formula, or a trial that is written on. */
export function JudgeScreen({ bakeId, formulaId, trialId }: { bakeId?: string; formulaId?: string; trialId?: string }) {
  useTitle("Judge a bake");
  if (trialId !== undefined) return <OfTrial id={trialId} />;
  if (bakeId !== undefined) return <OfBake id={bakeId} />;
  if (formulaId !== undefined) return <OfFormula id={formulaId} />;
  return <Which />;
}

const gone = (
  <NotFound title="There is no such bake." to="/log" way="To the log">
    It may have been taken off the list.
  </NotFound>
);

function OfTrial({ id }: { id: string }) {
  const query = useTrial(id);
  const { data, error, refetch } = query;
  if (error instanceof WireError && error.status === 404) return gone;
  if (error && !data) return <Failed title="This trial did not come." detail={error.message} onRetry={() => void refetch()} />;
  return data && isSettled(query) ? <Form key={data.id} first={data.trial} stored={data} /> : <Loading what="Fetching the trial" />;
}

function OfBake({ id }: { id: string }) {
  const query = useQuery({ queryKey: keys.bake.of(id), queryFn: ({ signal }) => wire.readBake(id, signal) });
  const { data, error, refetch } = query;
  if (error instanceof WireError && error.status === 404) return gone;
  if (error && !data) return <Failed title="This bake did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data || !isSettled(query)) return <Loading what="Fetching the bake" />;
  const state = foldBake(data.record, data.events);
  return <Form key={id} first={trialFromBake(data.record, state, id, new Date().toISOString())} stored={null} />;
}

function OfFormula({ id }: { id: string }) {
  const query = useFormula(id);
  const { data, error, refetch } = query;
  if (error instanceof WireError && error.status === 404) return gone;
  if (error && !data) return <Failed title="This formula did not come." detail={error.message} onRetry={() => void refetch()} />;
  return data && isSettled(query) ? (
    <Form key={id} first={freshTrial(data.formula, data.id, data.version)} stored={null} />
  ) : (
    <Loading what="Fetching the formula" />
  );
}

function Which() {
  const router = useRouter();
  const { data, error } = useFormulas("");
  const formulas = data?.pages.flatMap((page) => page.items) ?? [];
  return (
    <ScrollView contentContainerStyle={styles.page}>
      <Title>Judge a bake</Title>
      <Body>
        Of which formula was it? A bake that went over the counter is judged from there, with all that was measured on the way.
      </Body>
      {error ? <Body tone="stop">{error.message}</Body> : null}
      <View style={styles.list}>
        {formulas.map(({ id, title }) => (
          <Button key={id} kind="quiet" style={styles.left} onPress={() => router.replace(`/log/new?formula=${id}` as Href)}>
            {title}
          </Button>
        ))}
      </View>
    </ScrollView>
  );
}

const HEIGHTS = ["Edge", "Quarter", "Middle", "Quarter, other side", "Edge, other side"];

function Form({ first, stored }: { first: Trial; stored: StoredTrial | null }) {
  const router = useRouter();
  const queries = useQueryClient();
  const [trial, setTrial] = useState(first);
  const [byFive, setByFive] = useState(first.measured.heightsMm !== undefined);
  const [fault, setFault] = useState<string | null>(null);
  const id = useRef(newId());
  const { data: packets = [] } = usePackets();
  const { shelf } = useKitchen(first.formula).kitchen;
  const powderAge = trial.powderAgeMonths ?? powderAgeOf(trial.formula, packets.map(({ packet }) => packet), shelf, trial.at); // prettier-ignore
  const { measured, scores, seen } = trial;
  const set = (next: Partial<Trial>): void => setTrial((now) => ({ ...now, ...next }));
  const measure = (next: Partial<Measured>): void =>
    setTrial((now) => ({ ...now, measured: Object.fromEntries(Object.entries({ ...now.measured, ...next }).filter(([, value]) => value !== undefined)) as Measured }));
  const save = useMutation({
    mutationFn: (checked: Trial) => keepTrial(queries, stored?.id ?? id.current, checked, stored),
    onSuccess: (saved) => {
      router.replace(`/log/${saved.id}` as Href);
    },
  });
  const keep = async (): Promise<void> => {
    const { heightsMm, ...rest } = trial.measured;
    // Five heights are told when all of them are there.
    const whole = heightsMm && heightsMm.every((height) => height > 0) ? { ...rest, heightsMm } : rest;
    const { predicted: _, ...plain } = trial;
    const checked = await ask("check", "trialSchema", {
      ...(stored ? trial : plain),
      measured: whole,
      ...(powderAge === undefined ? {} : { powderAgeMonths: powderAge }),
    });
    if (!checked.ok) return setFault(`${checked.issues[0]?.path.join(", ") ?? ""}: ${checked.message}`);
    setFault(null);
    save.mutate(checked.value as Trial);
  };
  return (
    <ScrollView contentContainerStyle={styles.page} keyboardShouldPersistTaps="handled">
      <Title>{stored ? trial.title : "How did it come out?"}</Title>
      <Field label="Name of the trial" value={trial.title} onChange={(title) => set({ title })} />
      <Small tone="faint">Answer what you know; what stays open tells nothing.</Small>
      {GROUPS.map(({ id: group, title }) => (
        <View key={group} style={styles.group}>
          <Heading>{title}</Heading>
          {scales.filter((scale) => scale.group === group).map((scale) => (
            <ScaleField key={scale.id} scale={scale} value={scores[scale.id]} onChange={(step) => set({ scores: withScore(scores, scale.id, step) })} />
          ))}
        </View>
      ))}
      <Besides seen={seen} onChange={(next) => set({ seen: next })} />
      <MeasuredFields measured={measured} measure={measure} byFive={byFive} onByFive={setByFive} />
      <View style={styles.group}>
        <Heading>Taken out by</Heading>
        <Choice label="Taken out by" value={trial.doneBy ?? ""} options={doneSigns.map((value) => ({ value, label: value }))} onChange={(doneBy) => set({ doneBy })} />
      </View>
      {powderAge === undefined ? null : <Small tone="faint">{`The powder was open for ${powderAge} months, by its packet in the store.`}</Small>}
      <Cups trial={trial} onChange={(cups) => set({ cups: cups.length > 0 ? cups : undefined })} />
      <Photos photos={trial.photos} onChange={(photos) => set({ photos })} />
      <Field label="Notes" value={trial.notes} onChange={(notes) => set({ notes })} multiline rows={3} />
      <Field label="Tags, with commas between" value={trial.tags.join(", ")} onChange={(text) => set({ tags: text.split(",").map((one) => one.trimStart()).filter((one, k, all) => one !== "" || k === all.length - 1).slice(0, 12) })} />
      {doubtsOf(measured).map((doubt) => (
        <Body key={doubt} tone="caution">{doubt}</Body>
      ))}
      {fault ?? save.error ? <Body tone="stop">{fault ?? save.error?.message ?? ""}</Body> : null}
      <Button kind="main" disabled={save.isPending} onPress={() => { set({ tags: trial.tags.filter((one) => one.trim() !== "") }); void keep(); }}>
        {save.isPending ? "Keeping it" : "Keep this trial"}
      </Button>
    </ScrollView>
  );
} // prettier-ignore

const withScore = (scores: Scores, id: string, step: number | undefined): Scores => {
  const { [id]: _, ...rest } = scores;
  return step === undefined ? rest : { ...rest, [id]: step };
};

/** Faults that no scale asks for, ticked where they are there. */
function Besides({ seen, onChange }: { seen: readonly Seen[]; onChange: (seen: Seen[]) => void }) {
  const [open, setOpen] = useState(seen.length > 0);
  const asked = new Set(seenFrom(Object.fromEntries(scales.map(({ id }) => [id, 0]))).map(({ symptomId }) => symptomId));
  const rest = symptoms.filter(({ id }) => !asked.has(id));
  const degreeOf = (id: Seen["symptomId"]): number => seen.find(({ symptomId }) => symptomId === id)?.degree ?? 0;
  return (
    <View style={styles.group}>
      <Heading>And besides</Heading>
      {open ? (
        <View style={styles.besides}>
          {rest.map(({ id, words, degrees }) => {
            const degree = degreeOf(id);
            const others = seen.filter(({ symptomId }) => symptomId !== id);
            return (
              <View key={id}>
                <Check label={words} on={degree > 0} onChange={(on) => onChange(on ? [...others, { symptomId: id, degree: 2 }] : others)} />
                {degree > 0 ? (
                  <Choice label={`How much: ${words}`} value={String(degree)} options={degrees.map((word, k) => ({ value: String(k + 1), label: word }))} onChange={(value) => onChange([...others, { symptomId: id, degree: Number(value) }])} />
                ) : null}
              </View>
            );
          })}
        </View>
      ) : (
        <Button onPress={() => setOpen(true)}>Something else was wrong</Button>
      )}
    </View>
  );
} // prettier-ignore

/** Cups and spoons that were filled as always and then weighed: what the log learns a baker's cup from. */
function Cups({ trial, onChange }: { trial: Trial; onChange: (cups: NonNullable<Trial["cups"]>) => void }) {
  const { shelf } = useKitchen(trial.formula).kitchen;
  const [open, setOpen] = useState((trial.cups?.length ?? 0) > 0);
  const { cups = [] } = trial;
  const measured = cupsToWeigh(trial.formula, shelf);
  if (measured.length === 0) return null;
  return (
    <View style={styles.group}>
      <Heading>Cups and spoons</Heading>
      {open ? (
        <>
          <Small tone="faint">Fill a cup or a spoon as you always do, and weigh what is in it.</Small>
          <View style={styles.fields}>
            {measured.map(({ ingredientId, name, unit, meantG }) => {
              const others = cups.filter((cup) => cup.ingredientId !== ingredientId);
              const own = cups.filter((cup) => cup.ingredientId === ingredientId);
              return (
                <NumberField key={ingredientId} label={`${unit === "cup" ? "A cup" : "A teaspoon"} of ${name.toLowerCase()}`} value={own[0]?.weighedG} unit="g" least={1} most={5000} optional onChange={(weighedG) => onChange(weighedG === undefined ? others : [...others, { ingredientId, meantG, weighedG }, ...own.slice(1)])} style={styles.wideField} />
              );
            })}
          </View>
        </>
      ) : (
        <Button onPress={() => setOpen(true)}>A cup or spoon was weighed</Button>
      )}
    </View>
  );
} // prettier-ignore

interface MeasuredProps {
  measured: Measured;
  measure: (next: Partial<Measured>) => void;
  byFive: boolean;
  onByFive: (on: boolean) => void;
}

function MeasuredFields({ measured, measure, byFive, onByFive }: MeasuredProps) {
  const loss = lossOf(measured);
  const heights = measured.heightsMm ?? [0, 0, 0, 0, 0];
  const profile = measured.heightsMm && measured.heightsMm.every((height) => height > 0) ? profileOfHeights(measured.heightsMm) : null;
  const number = (key: keyof Measured, label: string, unit: "g" | "mm" | "°C" | "min" | "", least: number, most: number) => (
    <NumberField key={key} label={label} value={measured[key] as number | undefined} unit={unit} least={least} most={most} optional onChange={(value) => measure({ [key]: value })} style={styles.field} />
  );
  return (
    <View style={styles.group}>
      <Heading>Measured</Heading>
      <View style={styles.fields}>
        {number("minutes", "In the oven", "min", 0.5, 600)}
        {number("coreC", "Core when it came out", "°C", -20, 130)}
        {number("massInG", "Mass into the oven", "g", 1, 1_000_000)}
        {number("massOutG", "Mass out of it", "g", 1, 1_000_000)}
        {number("stoodMinutes", "Batter stood", "min", 0, 2880)}
        {number("inPanMinutes", "In the pan after", "min", 0, 1440)}
        {number("cutAfterMinutes", "Cut after", "min", 0, 10_080)}
        {number("crumbPh", "Crumb pH by strip", "", 3, 12)}
        {number("densityGPerMl", "Density, g/mL", "", 0.1, 2)}
        {number("ovenC", "Oven, by a thermometer", "°C", 20, 400)}
        {byFive ? null : number("heightMm", "Height of the middle", "mm", 0, 400)}
      </View>
      <Check label="Heights at five places across" on={byFive} onChange={(on) => { onByFive(on); measure(on ? { heightsMm: heights, heightMm: undefined } : { heightsMm: undefined }); }} />
      {byFive ? (
        <View style={styles.fields}>
          {HEIGHTS.map((label, k) => (
            <NumberField key={label} label={label} value={heights[k] === 0 ? undefined : heights[k]} unit="mm" least={0} most={400} optional onChange={(value) => measure({ heightsMm: heights.map((height, n) => (n === k ? (value ?? 0) : height)) })} style={styles.field} />
          ))}
        </View>
      ) : null}
      {loss === null ? null : <Small tone="faint">{`Loss ${loss.toFixed(1)} %.`}</Small>}
      {profile ? <Small tone="faint">{`Volume index ${profile.volumeIndex} mm, symmetry ${profile.symmetryIndex} mm, uniformity ${profile.uniformityIndex} mm.`}</Small> : null}
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.l, maxWidth: 720, width: "100%" },
  list: { gap: space.xs },
  left: { justifyContent: "flex-start" },
  group: { gap: space.m },
  besides: { gap: space.xs },
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 150 },
  wideField: { width: 220 },
});
