import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { StoredFormula } from "@uprise/contract";
import type { Factor, Season, SeasonGoal, Vessel } from "@uprise/core";
import { gramsOf, ingredientOf, isFlour, methodName, methods } from "@uprise/core/page";
import { qualities, STILL_GOOD, toScale, usualRange } from "@uprise/core/page-log";
import { type Href, useRouter } from "expo-router";
import { useRef, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Check } from "../../ui/check";
import { Field } from "../../ui/field";
import { NumberField } from "../../ui/number-field";
import { Button } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";
import { isSettled } from "../wire/kept";
import { useFormula, useFormulas, useKitchen, useVessels } from "../wire/queries";

/** A season to begin: of which formula, what is wished, what may move. */
export function BeginSeason({ formulaId }: { formulaId?: string }) {
  useTitle("Begin a season");
  return formulaId === undefined ? <Which /> : <OfFormula id={formulaId} />;
}

function Which() {
  const router = useRouter();
  const { data, error } = useFormulas("");
  return (
    <ScrollView contentContainerStyle={styles.page}>
      <Title>Begin a season</Title>
      <Body>Of which formula?</Body>
      {error ? <Body tone="stop">{error.message}</Body> : null}
      <View>
        {data?.pages.flatMap(({ items }) => items).map(({ id, title }) => (
          <Button key={id} kind="quiet" style={styles.left} onPress={() => router.replace(`/log/season/new?formula=${id}` as Href)}>
            {title}
          </Button>
        ))}
      </View>
    </ScrollView>
  );
} // prettier-ignore

function OfFormula({ id }: { id: string }) {
  const query = useFormula(id);
  const { data, error, refetch } = query;
  if (error && !data) return <Failed title="This formula did not come." detail={error.message} onRetry={() => void refetch()} />;
  return data && isSettled(query) ? <Form key={id} stored={data} /> : <Loading what="Fetching the formula" />;
}

const WISHES = 3;
const wishWords = (id: string): string => {
  const quality = qualities.find((one) => one.id === id);
  if (!quality) return id;
  return quality.how === "tasted" || quality.how === "preferred" ? quality.name : `${quality.name}: ${quality.side === 1 ? "more" : "less"}`; // prettier-ignore
};
const MOST_PANS = 6;
const sizeOf = ({ lengthMm, widthMm, diameterMm, pieces, material }: Vessel): string =>
  JSON.stringify([lengthMm, widthMm, diameterMm, pieces, material]);
/** What is wished most; the other scales of the log are a press away. */
const FIRST = ["height", "score", "moistness", "crumble", "grit", "keeps", "cost", "liked", "loss", "minutes", "sodium"];

function Form({ stored }: { stored: StoredFormula }) {
  const router = useRouter();
  const queries = useQueryClient();
  const { formula } = stored;
  const { shelf } = useKitchen(formula).kitchen;
  const { pans } = useVessels();
  const id = useRef(newId());
  const [title, setTitle] = useState(`A better ${formula.title.replace(/^./, (c) => c.toLowerCase())}`);
  const [wishes, setWishes] = useState<readonly string[]>(["height"]);
  const [kept, setKept] = useState<readonly string[]>(["moistness"]);
  const [all, setAll] = useState(false);
  const offered = all ? qualities.map(({ id: of }) => of) : FIRST;
  const [factors, setFactors] = useState<readonly Factor[]>([]);
  const [bakes, setBakes] = useState<number | undefined>(8);
  const [perDay, setPerDay] = useState<number | undefined>(2);
  const lines = formula.lines.filter((line) => line.component === undefined && line.ingredientId !== undefined && gramsOf(line) > 0);
  const nameOf = (line: (typeof lines)[number]): string => line.name ?? ingredientOf(shelf, line.ingredientId ?? "").name;
  const flours = lines.filter((line) => isFlour(ingredientOf(shelf, line.ingredientId ?? "")));
  const whole = flours.reduce((sum, line) => sum + gramsOf(line), 0);
  const put = (factor: Factor | null, of: string): void => setFactors([...factors.filter((one) => one.id !== of), ...(factor ? [factor] : [])]);
  const blended = factors.some(({ kind }) => kind === "share");
  const blend = (on: boolean): void =>
    setFactors([
      ...factors.filter(({ kind, id: of }) => kind !== "share" && !flours.some((line) => line.id === of)),
      ...(on ? flours.map((line): Factor => {
        const share = (100 * gramsOf(line)) / whole;
        return { id: line.id, kind: "share", lineId: line.id, name: nameOf(line), ...usualRange("share", Math.round(share)) };
      }) : []),
    ]);
  const rest = formula.process.restMinutes ?? 0;
  const movable: { now: string; factor: Factor }[] = [
    ...lines.filter((line) => !blended || !flours.includes(line)).map((line) => ({ now: `${toScale(gramsOf(line))} g`, factor: { id: line.id, kind: "amount" as const, lineId: line.id, name: nameOf(line), ...usualRange("amount", gramsOf(line)) } })),
    { now: `${formula.oven.celsius} °C`, factor: { id: "oven", kind: "oven", name: "Oven", ...usualRange("oven", formula.oven.celsius) } },
    { now: `${rest} min`, factor: { id: "rest", kind: "rest", name: "Rest", ...usualRange("rest", rest) } },
  ];
  const others = methods.filter((one) => one !== formula.process.method);
  const tried = factors.find(({ kind }) => kind === "method")?.options ?? [];
  const triedPans = factors.find(({ kind }) => kind === "pan")?.options ?? [];
  const alike = pans.filter(({ vessel }) => vessel.shape === formula.vessel.shape && sizeOf(vessel) !== sizeOf(formula.vessel)).slice(0, MOST_PANS);
  const own = { name: "as now", vessel: formula.vessel };
  const season = (): Season => ({
    title: title.trim(),
    formulaId: stored.id,
    formulaVersion: stored.version,
    formula,
    goals: [
      ...wishes.map((quality): SeasonGoal => ({ quality, wish: (qualities.find((one) => one.id === quality)?.side ?? 1) === 1 ? "more" : "less" })),
      ...kept.filter((quality) => !wishes.includes(quality)).map((quality): SeasonGoal => ({ quality, keep: { low: STILL_GOOD } })),
    ],
    factors: [...factors],
    bakes: bakes ?? 8,
    ...(perDay === undefined ? {} : { blocks: { size: perDay, by: "day" as const } }),
    seed: Math.floor(Math.random() * 1_000_000),
    runs: [],
    notes: "",
  });
  const create = useMutation({
    mutationFn: () => wire.createSeason(id.current, season()),
    onSuccess: (saved) => {
      void queries.invalidateQueries({ queryKey: keys.seasons.all });
      router.replace(`/log/season/${saved.id}` as Href);
    },
  });
  const toggled = (all: readonly string[], one: string, on: boolean, most: number): readonly string[] => (on ? [...all, one].slice(-most) : all.filter((other) => other !== one));
  return (
    <ScrollView contentContainerStyle={styles.page} keyboardShouldPersistTaps="handled">
      <Title>Begin a season</Title>
      <Body>{`With ${formula.title} as it is now.`}</Body>
      <Field label="Name of the season" value={title} onChange={setTitle} />
      <Heading>{`What should be better? Up to ${WISHES}`}</Heading>
      <View style={styles.tools}>
        {offered.map((of) => <Check key={of} label={wishWords(of)} on={wishes.includes(of)} onChange={(on) => setWishes(toggled(wishes, of, on, WISHES))} />)}
      </View>
      {all ? null : <Button kind="quiet" style={styles.left} onPress={() => setAll(true)}>All scales of the log</Button>}
      <Heading>What must stay good?</Heading>
      <Small tone="faint">A small fault at most, by the log's scales.</Small>
      <View style={styles.tools}>
        {qualities.filter(({ how, id: of }) => how === "tasted" && !wishes.includes(of) && offered.includes(of)).map(({ id: of, name }) => <Check key={of} label={`Keep: ${name}`} on={kept.includes(of)} onChange={(on) => setKept(toggled(kept, of, on, 6))} />)}
      </View>
      <Heading>What may move, and how far?</Heading>
      {flours.length > 1 ? <Check label="The blend of flours: shares that add up" on={blended} onChange={blend} /> : null}
      {factors.filter(({ kind }) => kind === "share").map((factor) => <Ends key={factor.id} factor={factor} onChange={(next) => put(next, next.id)} />)}
      {movable.map(({ now, factor }) => {
        const on = factors.find(({ id: of }) => of === factor.id);
        return (
          <View key={factor.id} style={styles.part}>
            <Check label={`${factor.name ?? ""}, now ${now}`} on={on !== undefined} onChange={(is) => put(is ? factor : null, factor.id)} />
            {on ? <Ends factor={on} onChange={(next) => put(next, next.id)} /> : null}
          </View>
        );
      })}
      <Heading>Or another way?</Heading>
      <View style={styles.tools}>
        {others.map((method) => <Check key={method} label={methodName[method]} on={tried.includes(method)} onChange={(on) => {
          const left = on ? [...tried.filter((one) => one !== formula.process.method), method] : tried.filter((one) => one !== method && one !== formula.process.method);
          put(left.length > 0 ? { id: "method", kind: "method", name: "Method", options: [formula.process.method ?? "muffin", ...left] } : null, "method");
        }} />)}
        {alike.map(({ id: pan, name, vessel }) => <Check key={pan} label={name} on={triedPans.some((one) => typeof one === "object" && one.name === name)} onChange={(on) => {
          const left = triedPans.slice(1).filter((one) => typeof one === "object" && one.name !== name);
          const now = on ? [...left, { name, vessel }] : left;
          put(now.length > 0 ? { id: "pan", kind: "pan", name: "Pan", options: [own, ...now] } : null, "pan");
        }} />)}
      </View>
      <Heading>How many bakes?</Heading>
      <View style={styles.tools}>
        <NumberField label="Bakes there is time for" value={bakes} unit="" least={3} most={40} whole onChange={setBakes} style={styles.number} />
        <NumberField label="On a day" value={perDay} unit="" least={1} most={12} whole optional onChange={setPerDay} style={styles.number} />
      </View>
      {create.error ? <Body tone="stop">{create.error.message}</Body> : null}
      <Button kind="main" style={styles.left} disabled={create.isPending || wishes.length === 0 || factors.length === 0 || bakes === undefined || title.trim() === ""} onPress={() => create.mutate()}>
        {factors.length === 0 ? "Choose what may move" : wishes.length === 0 ? "Choose what should be better" : "Choose the bakes"}
      </Button>
    </ScrollView>
  );
} // prettier-ignore

/** From where to where something may move. */
function Ends({ factor, onChange }: { factor: Factor; onChange: (factor: Factor) => void }) {
  return (
    <View style={styles.tools}>
      <NumberField label={`${factor.name ?? ""}, from`} value={factor.low} unit={unitOf(factor)} least={0} most={100_000} style={styles.number} onChange={(low) => onChange({ ...factor, low: low ?? 0 })} />
      <NumberField label={`${factor.name ?? ""}, to`} value={factor.high} unit={unitOf(factor)} least={0} most={100_000} style={styles.number} onChange={(high) => onChange({ ...factor, high: high ?? 0 })} />
    </View>
  );
} // prettier-ignore

const unitOf = ({ kind }: Factor): "g" | "%" | "°C" | "min" => (kind === "oven" ? "°C" : kind === "share" ? "%" : kind === "rest" || kind === "minutes" ? "min" : "g"); // prettier-ignore

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.m, maxWidth: 720, width: "100%" },
  part: { alignItems: "flex-start" },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "flex-end" },
  left: { alignSelf: "flex-start" },
  number: { width: 160 },
});
