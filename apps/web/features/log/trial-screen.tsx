import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { StoredTrial } from "@uprise/contract";
import type { Trial } from "@uprise/core";
import { allSeen, compared, scales, symptomOf } from "@uprise/core/page-log";
import { type Href, useRouter } from "expo-router";

import { Image, ScrollView, StyleSheet, View } from "react-native";
import { download } from "../../device/download";
import { space } from "../../theme/scale";
import { useWide } from "../../theme/theme";
import { Table } from "../../ui/facts";
import { Link } from "../../ui/link";
import { Button } from "../../ui/press";
import { Busy, Failed, Loading, NotFound } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { wire, WireError } from "../wire/client";
import { keys } from "../wire/keys";
import { useTrials } from "../wire/queries";
import { Causes } from "./causes";
import { NextChange } from "./next-change";
import { outlinesOf, Profiles } from "./profile";
import { scoreOf } from "./list-screen";
import { SlicePicture } from "./slice";
import { longDayText } from "./times";
import { askedOf, useFaults, useOvenLearnt, useTakeNext, useTrial } from "./use-log";

/** One trial: what came out beside what was predicted, why, and the one thing to change next. `beside` its list it stands in one column. */
export function TrialScreen({ id, beside = false, titled = true }: { id: string; beside?: boolean; titled?: boolean }) {
  const { data, error, refetch } = useTrial(id);
  if (error instanceof WireError && error.status === 404)
    return (
      <NotFound title="There is no such trial." to="/log" way="To the log">
        It may have been taken off the list.
      </NotFound>
    );
  if (error && !data) return <Failed title="This trial did not come." detail={error.message} onRetry={() => void refetch()} />;
  return data ? <TrialOf key={data.id} stored={data} beside={beside} titled={titled} /> : <Loading what="Fetching the trial" />;
}

const figure = (value: number | null, digits: number, unit: string): string =>
  value === null ? "–" : `${value.toFixed(digits).replace("-", "−")}${unit === "" ? "" : ` ${unit}`}`;

function TrialOf({ stored, beside, titled }: { stored: StoredTrial; beside: boolean; titled: boolean }) {
  const { trial } = stored;
  const router = useRouter();
  const queries = useQueryClient();
  const wide = useWide();
  useTitle(trial.title, titled);
  const faulty = allSeen(trial.scores, trial.seen).some(({ degree }) => degree > 0);
  const remove = useMutation({
    mutationFn: () => wire.removeTrial(stored.id, stored.version),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.trials.all });
      router.replace("/log" as Href);
    },
  });
  const rows = compared([trial]);
  const score = scoreOf(stored);
  const facts = (
    <View style={styles.part}>
      <Title level={beside ? 2 : 1}>{trial.title}</Title>
      <Small tone="faint">{`${longDayText(trial.at)}${score === null ? "" : `; ${score} of 100`}`}</Small>
      <Profiles outlines={outlinesOf(trial, stored.id)} label={profileWords(trial)} width={340} height={160} />
      <Small tone="faint">Grey, behind: as predicted.</Small>
      <Table
        label="Measured"
        head={["", "came out", "predicted"]}
        rows={rows.map(({ id, name, unit, digits, values, predicted }) => ({ key: id, cells: [name, figure(values[0] ?? null, digits, unit), figure(predicted[0] ?? null, digits, unit)] }))}
      />
      <Seen trial={trial} />
      {trial.notes === "" ? null : <Body>{trial.notes}</Body>}
      {trial.photos.map((hash, k) => (
        <Image key={hash} source={{ uri: `/api/photos/${hash}` }} style={styles.photo} alt={`Photograph ${k + 1}`} accessibilityLabel={`Photograph ${k + 1}`} />
      ))}
      <SlicePicture photos={trial.photos} />
      <View style={styles.tools}>
        <Button onPress={() => router.navigate(`/log/${stored.id}/judge` as Href)}>Write on it</Button>
        {trial.formulaId ? (
          <Link to={`/bench/${trial.formulaId}`} style={styles.link}>
            <Body style={styles.underlined}>Its formula on the bench</Body>
          </Link>
        ) : null}
        {trial.bakeId ? <Curves bakeId={trial.bakeId} /> : null}
        <Link to={`/print/trial/${stored.id}`} style={styles.link}>
          <Body style={styles.underlined}>Its record on paper</Body>
        </Link>
        <Button kind="quiet" disabled={remove.isPending} onPress={() => remove.mutate()}>
          Take it off the log
        </Button>
      </View>
      {remove.error ? <Body tone="stop">{remove.error.message}</Body> : null}
      <Lineage stored={stored} />
    </View>
  );
  const why = (
    <View style={styles.part}>
      {faulty ? <Why stored={stored} /> : <Body>Nothing was faulted. What could still be better:</Body>}
      <NextChange stored={stored} />
    </View>
  );
  if (!wide || beside)
    return (
      <ScrollView contentContainerStyle={styles.page}>
        {facts}
        {why}
      </ScrollView>
    );
  return (
    <View style={styles.wide}>
      <ScrollView style={styles.side} contentContainerStyle={styles.page}>
        {facts}
      </ScrollView>
      <ScrollView style={styles.side} contentContainerStyle={styles.page}>
        {why}
      </ScrollView>
    </View>
  );
} // prettier-ignore

/** The curves of its bake, probe, oven and scale, as a table for a spreadsheet. */
function Curves({ bakeId }: { bakeId: string }) {
  const keep = useMutation({
    mutationFn: () => wire.exportFile({ what: "curves", ids: [bakeId], format: "csv" }),
    onSuccess: ({ name, content }) => download(name, content),
  });
  return (
    <>
      <Button disabled={keep.isPending} onPress={() => keep.mutate()}>
        Its curves as a table
      </Button>
      {keep.error ? <Body tone="stop">{keep.error.message}</Body> : null}
    </>
  );
}

const profileWords = ({ measured, predicted }: Trial): string =>
  [
    measured.heightsMm ? `Heights across as measured, mm: ${measured.heightsMm.join(", ")}.` : measured.heightMm ? `Middle as measured: ${measured.heightMm} mm.` : "No height was measured.",
    predicted ? `As predicted: ${predicted.heightsMm.map((height) => Math.round(height)).join(", ")}.` : "",
  ].join(" "); // prettier-ignore

/** What was judged, in the scales' own words; what was good stands last. */
function Seen({ trial }: { trial: Trial }) {
  const scored = scales.flatMap(({ id, name, steps }) => {
    const step = steps[trial.scores[id] ?? -1];
    return step ? [{ id, name, word: step.word, worth: step.worth }] : [];
  });
  const [faults, fine] = [scored.filter(({ worth }) => worth < 0.75), scored.filter(({ worth }) => worth >= 0.75)];
  const besides = trial.seen.filter(({ degree }) => degree > 0).map(({ symptomId, degree }) => `${symptomOf(symptomId).words.toLowerCase()} (${symptomOf(symptomId).degrees[degree - 1] ?? ""})`);
  return (
    <View>
      {faults.map(({ id, name, word }) => (
        <Body key={id} strong>{`${name}: ${word}`}</Body>
      ))}
      {besides.length > 0 ? <Body strong>{`Besides: ${besides.join(", ")}`}</Body> : null}
      {fine.length > 0 ? <Small tone="faint">{fine.map(({ name, word }) => `${name.toLowerCase()} ${word}`).join(", ")}</Small> : null}
    </View>
  );
} // prettier-ignore

function Why({ stored }: { stored: StoredTrial }) {
  const router = useRouter();
  const { data, error, isFetching, refetch } = useFaults(askedOf(stored.trial, useOvenLearnt(stored.trial)));
  const take = useTakeNext(stored);
  return (
    <View style={styles.part}>
      <Heading>Why</Heading>
      {isFetching && !data ? <Busy on what="Baking it with every cause in turn" /> : null}
      {error ? <Failed title="No cause was looked for." detail={error.message} onRetry={() => void refetch()} /> : null}
      {take.error ? <Body tone="stop">{take.error.message}</Body> : null}
      {data ? (
        <Causes
          diagnosis={data}
          taking={take.isPending}
          onTake={(remedy) => take.mutate(remedy, { onSuccess: (id) => router.navigate(`/bench/${id}` as Href) })}
        />
      ) : null}
    </View>
  );
}

/** Trials of the same formula, the oldest first, with their scores. */
function Lineage({ stored }: { stored: StoredTrial }) {
  const { data = [] } = useTrials();
  const line = data.filter(({ trial }) => trial.formulaId !== undefined && trial.formulaId === stored.trial.formulaId).sort((a, b) => Date.parse(a.trial.at) - Date.parse(b.trial.at)); // prettier-ignore
  if (line.length < 2) return null;
  return (
    <View style={styles.part}>
      <Heading>{`Of the same formula, ${line.length} trials`}</Heading>
      {line.map((one) => (
        <Link key={one.id} to={`/log/${one.id}`} style={styles.line}>
          <Body strong={one.id === stored.id}>{`${longDayText(one.trial.at).split(",")[0] ?? ""}  ${one.trial.title}`}</Body>
          <Body>{scoreOf(one) === null ? "–" : String(scoreOf(one))}</Body>
        </Link>
      ))}
      <Link to={`/log/compare?ids=${line.slice(-4).map(({ id }) => id).join(",")}`} style={styles.link}>
        <Body style={styles.underlined}>Lay the last of them over each other</Body>
      </Link>
    </View>
  ); // prettier-ignore
}

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.xl, maxWidth: 700, width: "100%" },
  wide: { flex: 1, flexDirection: "row", minHeight: 0 },
  side: { flex: 1, minWidth: 0 },
  part: { gap: space.m },
  photo: { width: 300, height: 220 },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "center" },
  link: { paddingVertical: space.s },
  line: { flexDirection: "row", justifyContent: "space-between", gap: space.m, minHeight: 48, alignItems: "center" },
  underlined: { textDecorationLine: "underline" },
});
