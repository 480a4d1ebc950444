import { useQueries } from "@tanstack/react-query";
import type { StoredTrial } from "@uprise/contract";
import type { Diagnosis, Row, Shelf } from "@uprise/core";
import { changedBetween, compared } from "@uprise/core/page-log";
import { ingredientOf } from "@uprise/core/page";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { PaperPage, PaperTable, usePaper } from "../../ui/paper";
import { Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useKitchen } from "../wire/queries";
import { faultsOf } from "./list-screen";
import { heightsOf, outlinesOf, Profiles } from "./profile";
import { longDayText } from "./times";
import { askedOf, useFaults, useOvenLearnt, useTrial } from "./use-log";

const LETTERS = ["A", "B", "C", "D"];
const CAUSES_ON_PAPER = 5;

const figure = (value: number | null | undefined, { digits, unit }: Row): string =>
  value === null || value === undefined ? "–" : `${value.toFixed(digits).replace("-", "−")}${unit === "" ? "" : ` ${unit}`}`;

/** The record of a fault: what came out, what was seen, which causes it may have with their evidence, what to change. */
export function TrialPage({ id }: { id: string }) {
  const { data, error, refetch } = useTrial(id);
  if (error) return <Failed title="This trial did not come." detail={error.message} onRetry={() => void refetch()} />;
  return data ? <Record stored={data} /> : <Loading what="Fetching the trial" />;
}

function Record({ stored }: { stored: StoredTrial }) {
  const { trial } = stored;
  const [size, setSize] = usePaper();
  const { data, isFetching } = useFaults(askedOf(trial, useOvenLearnt(trial)));
  useTitle(`${trial.title}, record`);
  const rows = compared([trial]);
  return (
    <PaperPage size={size} onSize={setSize}>
      <View style={styles.page}>
        <Title>{trial.title}</Title>
        <Small>{`${longDayText(trial.at)}; ${trial.formula.title}${trial.formulaVersion === undefined ? "" : `, version ${trial.formulaVersion}`}.`}</Small>
        <Profiles outlines={outlinesOf(trial, stored.id)} label="Outline as it came out, the predicted one behind" width={420} height={150} />
        <PaperTable label="Measured" head={["", "came out", "predicted"]} right={[1, 2]} rows={rows.map((row) => ({ key: row.id, cells: [row.name, figure(row.values[0], row), figure(row.predicted[0], row)] }))} />
        <Body>{`Seen: ${faultsOf(stored, 12)}.`}</Body>
        {trial.notes.trim() === "" ? null : <Body>{trial.notes}</Body>}
        {data ? <CausesOnPaper diagnosis={data} /> : isFetching ? <Small>Looking for causes …</Small> : null}
      </View>
    </PaperPage>
  );
} // prettier-ignore

function CausesOnPaper({ diagnosis }: { diagnosis: Diagnosis }) {
  const told = (reasons: { what: string; value: string }[]): string => reasons.slice(0, 3).map(({ what, value }) => `${what}: ${value}`).join("; "); // prettier-ignore
  return (
    <>
      <Heading>Causes it may have</Heading>
      <PaperTable
        label="Causes"
        head={["of 100", "cause", "for it", "against it"]}
        right={[0]}
        rows={diagnosis.causes.slice(0, CAUSES_ON_PAPER).map((cause) => ({
          key: cause.id,
          cells: [String(Math.round(100 * cause.probability)), cause.words, told(cause.for), told(cause.against)],
        }))}
      />
      {diagnosis.causes[0] ? <Body strong>{diagnosis.causes[0].next}</Body> : null}
    </>
  );
}

/** Trials beside one another on paper: readings in a table, what was changed from one to the next. */
export function ComparePage({ ids }: { ids: readonly string[] }) {
  useTitle("Trials compared");
  const found = useQueries({ queries: ids.map((id) => ({ queryKey: keys.trial.of(id), queryFn: () => wire.readTrial(id) })) });
  const { shelf } = useKitchen(null).kitchen;
  const failed = found.find(({ error }) => error);
  if (failed?.error) return <Failed title="One of them did not come." detail={failed.error.message} onRetry={() => void failed.refetch()} />; // prettier-ignore
  const trials = found.flatMap(({ data }) => (data ? [data] : [])).sort((a, b) => Date.parse(a.trial.at) - Date.parse(b.trial.at));
  if (trials.length < ids.length || ids.length === 0) return <Loading what="Fetching the trials" />;
  return <Beside trials={trials} shelf={shelf} />;
}

function Beside({ trials, shelf }: { trials: readonly StoredTrial[]; shelf: Shelf }) {
  const [size, setSize] = usePaper();
  const name = (id: string): string => (shelf.get(id) ? ingredientOf(shelf, id).name : id);
  const outlines = trials.flatMap(({ id, trial }, k) => {
    const heightsMm = heightsOf(trial);
    return heightsMm ? [{ key: id, heightsMm, widthMm: trial.predicted?.widthMm ?? 100, style: (k % 4) as 0 | 1 | 2 | 3 }] : [];
  });
  return (
    <PaperPage size={size} onSize={setSize}>
      <View style={styles.page}>
        <Title>{`${trials.length} trials compared`}</Title>
        {trials.map((stored, k) => (
          <Body key={stored.id}>{`${LETTERS[k] ?? String(k + 1)}  ${stored.trial.title}, ${longDayText(stored.trial.at)}: ${faultsOf(stored)}`}</Body>
        ))}
        <Profiles outlines={outlines} label="Outlines over each other" width={520} height={190} />
        <PaperTable
          label="What came out"
          head={["", ...trials.map((_, k) => LETTERS[k] ?? String(k + 1))]}
          right={trials.map((_, k) => k + 1)}
          rows={compared(trials.map(({ trial }) => trial)).map((row) => ({ key: row.id, cells: [row.name, ...row.values.map((value) => figure(value, row))] }))}
        />
        <Heading>What was changed</Heading>
        <PaperTable
          label="What was changed"
          head={["from", "what", "was", "is"]}
          rows={trials.slice(1).flatMap((stored, k) => {
            const before = trials[k];
            const changes = before ? changedBetween(before.trial, stored.trial, name) : [];
            return changes.map(({ what, before: was, after }) => ({ key: `${stored.id}${what}`, cells: [`${LETTERS[k] ?? ""} to ${LETTERS[k + 1] ?? ""}`, what, was, after] }));
          })}
        />
      </View>
    </PaperPage>
  );
} // prettier-ignore

const styles = StyleSheet.create({ page: { gap: space.m, width: "100%" } });
