import { useQuery } from "@tanstack/react-query";
import type { Practice } from "@uprise/contract";
import type { CauseFamily } from "@uprise/core";
import { causes, causeFamilies, lossOf, symptomOf } from "@uprise/core/page-log";
import { gramsText, ingredientOf, kindName } from "@uprise/core/page";
import { useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { Button } from "../../ui/press";
import { Busy, Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Lead, Small, Title } from "../../ui/words";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useKitchen } from "../wire/queries";
import { Causes } from "./causes";
import { afterGuess, dueFamilies, keepScores, readScores, type Scores } from "./practice-kept";
import { Profiles } from "./profile";
import { useFaults } from "./use-log";

export const familyName: Record<CauseFamily, string> = {
  lift: "Lift", acid: "Acid", water: "Water", binder: "Binder", richness: "Fat, sugar, egg", mixing: "Mixing", standing: "Standing", pan: "Pan", oven: "Oven", core: "When it came out", cooling: "Cooling and cutting", ingredients: "Ingredients",
}; // prettier-ignore

/** What a baker may ask for, and what comes back. */
const checks: { id: string; name: string; of: (made: Practice) => string }[] = [
  { id: "core", name: "The core when it came out", of: ({ measured, planned }) => `${measured.coreC} °C; its target is ${Math.round(planned.targetCoreC)} °C.` },
  { id: "minutes", name: "Minutes in the oven", of: ({ measured, planned }) => `${measured.minutes} min; ${Math.round(planned.minutes)} were planned.` },
  { id: "loss", name: "Mass before and after", of: ({ measured, planned }) => `It lost ${(lossOf(measured) ?? 0).toFixed(1)} %; ${planned.lossPercent.toFixed(1)} % were expected.` },
  { id: "oven", name: "A thermometer in the oven", of: ({ measured, formula }) => `${measured.ovenC} °C; the dial says ${formula.oven.celsius} °C.` },
  { id: "ph", name: "A pH strip on the crumb", of: ({ measured }) => `About ${measured.crumbPh?.toFixed(1)}.` },
  { id: "batter", name: "Batter temperature", of: ({ measured }) => `${measured.batterC} °C.` },
  { id: "stood", name: "How long the batter stood", of: ({ measured }) => `${measured.stoodMinutes} min.` },
  { id: "door", name: "How long the door was open", of: ({ measured }) => `${measured.doorSeconds} s before it had set.` },
  { id: "pan", name: "How long it cooled in the pan", of: ({ measured }) => `${measured.inPanMinutes} min.` },
  { id: "cut", name: "When it was cut", of: ({ measured }) => `${measured.cutAfterMinutes} min after the oven.` },
  { id: "powder", name: "How old the powder is", of: ({ kitchen }) => `Open for ${kitchen.powderAgeMonths} months.` },
  { id: "scale", name: "Was the flour weighed?", of: ({ kitchen }) => ((kitchen.weighedShare ?? 0) > 0.5 ? "Yes, on a scale." : "No, by the cup.") },
]; // prettier-ignore

/** One bake in so many is sound: to leave a good bake alone is practised too. */
const SOUND_IN = 6;
const NOTHING = "nothing";
function newRound(scores: Scores): { seed: number; families: CauseFamily[]; sound: boolean } {
  const seed = Math.floor(Math.random() * 1_000_000_000);
  return { seed, families: dueFamilies(scores), sound: seed % SOUND_IN === 0 };
}

/** Made-up bakes with a hidden cause: look, ask for checks, guess, and see what spoke for it. */
export function PracticeScreen() {
  useTitle("Faults to practise on");
  const [scores, setScores] = useState(readScores);
  const [round, setRound] = useState(() => newRound(scores));
  const { data, error, refetch } = useQuery({
    queryKey: keys.practice.of(round.seed),
    queryFn: ({ signal }) => wire.practice(round, signal),
    staleTime: Infinity,
    retry: false,
  });
  if (error) return <Failed title="No bake was made up." detail={error.message} onRetry={() => void refetch()} />;
  if (!data) return <Loading what="Making up a bake" />;
  return (
    <ScrollView contentContainerStyle={styles.page}>
      <Title>What went wrong?</Title>
      <Round
        key={data.seed}
        made={data}
        onGuessed={(right) => {
          const next = afterGuess(scores, data.answer.family ?? "sound", right);
          setScores(next);
          keepScores(next);
        }}
        onNext={() => setRound(newRound(scores))}
      />
      <View>
        <Heading>So far</Heading>
        {Object.keys(scores).length === 0 ? <Body>Nothing guessed yet. What you miss comes back sooner.</Body> : null}
        {causeFamilies.map((family) => {
          const score = scores[family];
          return score ? <Body key={family}>{`${familyName[family]}: ${score.right} of ${score.asked}`}</Body> : null;
        })}
        {scores.sound ? <Body>{`Sound bakes left alone: ${scores.sound.right} of ${scores.sound.asked}`}</Body> : null}
      </View>
    </ScrollView>
  );
}

function Round({ made, onGuessed, onNext }: { made: Practice; onGuessed: (right: boolean) => void; onNext: () => void }) {
  const { shelf } = useKitchen(null).kitchen;
  const [asked, setAsked] = useState<readonly string[]>([]);
  const [family, setFamily] = useState<CauseFamily | null>(null);
  const [guess, setGuess] = useState<string | null>(null);
  const { formula, seen, answer, planned, heightsMm, widthMm, measured } = made;
  const there = seen.filter(({ degree }) => degree > 0);
  const done = guess !== null;
  const { lines, kind, vessel, oven, process, measures } = formula;
  const { data: diagnosis, isFetching } = useFaults(done ? { lines: lines.map(({ ingredientId, grams }) => ({ ingredientId, grams })), kind, vessel, oven, process, measures, seen, measured, kitchen: made.kitchen } : null);
  const right = guess === answer.id;
  const judge = (id: string): void => {
    setGuess(id);
    onGuessed(id === answer.id);
  };
  return (
    <View style={styles.round}>
      <Lead>{`${kindName[kind]}, ${Math.round(oven.celsius)} °C, ${Math.round(planned.minutes)} min planned`}</Lead>
      <Profiles outlines={[{ key: "planned", heightsMm: planned.heightsMm, widthMm, style: "behind" }, { key: "is", heightsMm, widthMm, style: 0 }]} width={340} height={140} label={`Planned ${planned.heightsMm.map((h) => Math.round(h)).join(", ")} mm across; it stands ${heightsMm.join(", ")} mm.`} />
      <Small tone="faint">Grey, behind: as planned. Line: as it came out.</Small>
      <View>
        {there.map(({ symptomId, degree }) => (
          <Body key={symptomId} strong>{`${symptomOf(symptomId).words}: ${symptomOf(symptomId).degrees[degree - 1] ?? ""}`}</Body>
        ))}
        {there.length === 0 ? <Body strong>Nothing was noted on it.</Body> : null}
      </View>
      <Small tone="faint">{`As written: ${lines.map(({ ingredientId = "", grams }) => `${gramsText(grams?.mid ?? 0)} ${(shelf.get(ingredientId) ? ingredientOf(shelf, ingredientId).name : ingredientId).toLowerCase()}`).join(", ")}.`}</Small>
      <Heading>Ask for a check</Heading>
      <View style={styles.tools}>
        {checks.map((check) =>
          asked.includes(check.id) ? null : (
            <Button key={check.id} kind="quiet" disabled={done} onPress={() => setAsked([...asked, check.id])}>
              {check.name}
            </Button>
          ),
        )}
      </View>
      {checks.filter(({ id }) => asked.includes(id)).map(({ id, name, of }) => (
        <Body key={id}>{`${name}: ${of(made)}`}</Body>
      ))}
      <Heading>Your guess</Heading>
      {done ? null : (
        <View style={styles.tools}>
          <Button onPress={() => judge(NOTHING)}>Nothing was wrong</Button>
        </View>
      )}
      <Choice label="Family of faults" options={causeFamilies.map((value) => ({ value, label: familyName[value] }))} value={family ?? ("" as CauseFamily)} onChange={setFamily} />
      {family === null || done ? null : (
        <View style={styles.tools}>
          {causes.filter((cause) => cause.family === family).map((cause) => (
            <Button key={cause.id} onPress={() => judge(cause.id)}>
              {cause.words}
            </Button>
          ))}
        </View>
      )}
      {done ? (
        <View style={styles.round}>
          <Lead live="polite">{right ? `Right, with ${asked.length} ${asked.length === 1 ? "check" : "checks"}: ${answer.words}.` : `No. It was: ${answer.words}.`}</Lead>
          <Body>{answer.tell}</Body>
          <Button kind="main" onPress={onNext}>
            Another bake
          </Button>
          <Heading>{answer.family === null ? "What can be made of it" : "What spoke for it"}</Heading>
          <Busy on={isFetching} what="Looking at it with all checks" />
          {diagnosis ? <Causes diagnosis={diagnosis} /> : null}
        </View>
      ) : null}
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.xl, maxWidth: 720, width: "100%" },
  round: { gap: space.m },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
});
