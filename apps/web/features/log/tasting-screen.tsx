import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { StoredTasting, Tasting } from "@uprise/contract";
import { servingOrder, tasted, tastingCodes } from "@uprise/core/page-log";
import { useRef, useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Check } from "../../ui/check";
import { Choice } from "../../ui/choice";
import { Field } from "../../ui/field";
import { Button, Press } from "../../ui/press";
import { Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Lead, Small, Title } from "../../ui/words";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useTastings, useTrials } from "../wire/queries";

const MOST = 6;
const marks = ["1", "2", "3", "4", "5"].map((value) => ({ value, label: value }));

/** Rounds of blind tasting: samples under codes, each taster in an order of their own, and whether the difference is more than noise. */
export function TastingScreen() {
  useTitle("Blind tasting");
  const queries = useQueryClient();
  const colours = useColours();
  const { data, error, refetch } = useTastings();
  const [open, setOpen] = useState<string | null>(null);
  const [making, setMaking] = useState(false);
  if (error && !data) return <Failed title="The rounds did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data) return <Loading what="Fetching the rounds" />;
  const shown = data.find(({ id }) => id === open);
  if (shown) return <Round key={shown.id} stored={shown} onLeave={() => setOpen(null)} />;
  return (
    <ScrollView contentContainerStyle={styles.page} keyboardShouldPersistTaps="handled">
      <Title>Blind tasting</Title>
      <Body>Cut the samples alike and hide what they are. Each taster gets them under a code, in an order of their own.</Body>
      {making ? (
        <NewRound
          onDone={(id) => {
            void queries.invalidateQueries({ queryKey: keys.tastings.all }).then(() => setOpen(id));
            setMaking(false);
          }}
        />
      ) : (
        <Button kind="main" onPress={() => setMaking(true)}>
          A new round
        </Button>
      )}
      <View role="list" aria-label="Rounds">
        {data.map(({ id, tasting }) => (
          <View key={id} role="listitem" style={{ borderBottomWidth: 1, borderBottomColor: colours.rule }}>
            <Press onPress={() => setOpen(id)} style={styles.row}>
              <Lead>{tasting.title}</Lead>
              <Small tone="faint">{`${tasting.samples.length} samples, ${tasting.tasters.length} tasters`}</Small>
            </Press>
          </View>
        ))}
      </View>
    </ScrollView>
  );
}

function NewRound({ onDone }: { onDone: (id: string) => void }) {
  const { data: trials = [] } = useTrials();
  const [title, setTitle] = useState("Which is better?");
  const [picked, setPicked] = useState<readonly string[]>([]);
  const id = useRef(newId());
  const create = useMutation({
    mutationFn: () =>
      wire.createTasting(id.current, {
        title,
        question: "How much do you like it, from 1 to 5?",
        seed: Math.floor(Math.random() * 1_000_000),
        samples: picked.map((trialId) => ({ name: trials.find((one) => one.id === trialId)?.trial.title ?? trialId, trialId })),
        tasters: [],
      }),
    onSuccess: ({ id: made }) => onDone(made),
  });
  return (
    <View style={styles.part}>
      <Field label="Name of the round" value={title} onChange={setTitle} />
      <Small tone="faint">{`Two to ${MOST} trials:`}</Small>
      <View style={styles.tools}>
        {trials.slice(0, 60).map(({ id: trialId, trial }) => (
          <Check key={trialId} label={trial.title} on={picked.includes(trialId)} onChange={(on) => setPicked(on ? [...picked, trialId].slice(0, MOST) : picked.filter((one) => one !== trialId))} />
        ))}
      </View>
      {create.error ? <Body tone="stop">{create.error.message}</Body> : null}
      <Button kind="main" disabled={picked.length < 2 || title.trim() === "" || create.isPending} onPress={() => create.mutate()}>
        {picked.length < 2 ? "Pick two or more" : "Lay the round out"}
      </Button>
    </View>
  );
} // prettier-ignore

function Round({ stored, onLeave }: { stored: StoredTasting; onLeave: () => void }) {
  const queries = useQueryClient();
  const [tasting, setTasting] = useState<Tasting>(stored.tasting);
  const version = useRef(stored.version);
  const [name, setName] = useState("");
  const [at, setAt] = useState<number | null>(null);
  const [told, setTold] = useState(false);
  const save = useMutation({
    scope: { id: `tasting-${stored.id}` },
    mutationFn: async (next: Tasting) => {
      const saved = await wire.changeTasting(stored.id, version.current, next);
      version.current = saved.version;
      return saved;
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.tastings.all }),
  });
  const put = (next: Tasting): void => {
    setTasting(next);
    save.mutate(next);
  };
  const { samples, tasters, seed } = tasting;
  const codes = tastingCodes(samples.length, seed);
  const result = tasted(tasters.map(({ scores }) => scores), samples.map((sample) => sample.name), seed);
  const taster = at === null ? null : tasters[at];
  if (at !== null && taster)
    return (
      <ScrollView contentContainerStyle={styles.page}>
        <Title>{taster.name}</Title>
        <Lead>{tasting.question}</Lead>
        <Body>A sip of water between two of them.</Body>
        {servingOrder(samples.length, at, seed).map((sample) => (
          <View key={sample} style={styles.part}>
            <Heading>{codes[sample] ?? ""}</Heading>
            <Choice
              label={`Sample ${codes[sample] ?? ""}`}
              options={marks}
              value={String(taster.scores[sample] ?? "")}
              onChange={(value) => put({ ...tasting, tasters: tasters.map((one, k) => (k === at ? { ...one, scores: samples.map((_, n) => (n === sample ? Number(value) : (one.scores[n] ?? null))) } : one)) })}
            />
          </View>
        ))}
        <Button kind="main" onPress={() => setAt(null)}>
          Done; hand it on
        </Button>
      </ScrollView>
    );
  return (
    <ScrollView contentContainerStyle={styles.page} keyboardShouldPersistTaps="handled">
      <Title>{tasting.title}</Title>
      {save.error ? <Body tone="stop">{`Not saved: ${save.error.message}`}</Body> : null}
      <View style={styles.tools}>
        <Field label="Next taster" value={name} onChange={setName} style={styles.name} />
        <Button
          disabled={name.trim() === ""}
          onPress={() => {
            put({ ...tasting, tasters: [...tasters, { name: name.trim(), scores: samples.map(() => null) }] });
            setAt(tasters.length);
            setName("");
          }}
        >
          Taste
        </Button>
      </View>
      {tasters.map((one, k) => (
        <Press key={k} onPress={() => setAt(k)} style={styles.row}>
          <Body>{`${one.name}: ${one.scores.filter((score) => score !== null).length} of ${samples.length} scored`}</Body>
        </Press>
      ))}
      {told ? (
        <View style={styles.part}>
          <Heading>What they were</Heading>
          {samples.map((sample, k) => (
            <Body key={k} strong>{`${codes[k] ?? ""}  ${sample.name}${result ? `: mean ${(result.means[k] ?? 0).toFixed(1)}` : ""}`}</Body>
          ))}
          <Body>{result ? result.words : "Two tasters who scored everything are needed before anything can be told."}</Body>
          {result ? <Small tone="faint">{`${result.exact ? "Counted over every exchange of scores within tasters" : "Drawn 20 000 times"}; Friedman's statistic ${result.friedman.toFixed(2)}.`}</Small> : null}
        </View>
      ) : (
        <Button onPress={() => setTold(true)}>Tell what they were</Button>
      )}
      <Button kind="quiet" onPress={onLeave}>
        To the rounds
      </Button>
    </ScrollView>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.l, maxWidth: 640, width: "100%" },
  part: { gap: space.s },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "flex-end" },
  row: { paddingVertical: space.s },
  name: { width: 200 },
});
