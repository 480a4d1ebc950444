import type { StoredSeason } from "@uprise/contract";
import type { RunState } from "@uprise/core";
import { gramsOf, gramsText, ingredientOf } from "@uprise/core/page";
import { tastingCodes } from "@uprise/core/page-log";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { PaperPage, PaperTable, usePaper } from "../../ui/paper";
import { Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { useKitchen } from "../wire/queries";
import { useSeason, useSeasonNow } from "./use-season";

/** The bakes of a season on paper: what is weighed of each, under a code that tells nothing, and the key on a sheet of its own to be kept back. */
export function SeasonPage({ id }: { id: string }) {
  const { data, error, refetch } = useSeason(id);
  const state = useSeasonNow(data?.season);
  if (error) return <Failed title="This season did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (state.error) return <Failed title="How it stands cannot be told." detail={state.error.message} onRetry={() => void state.refetch()} />;
  if (!data || !state.data) return <Loading what="Fetching the season" />;
  const { runs, proposed } = state.data;
  const open = [...runs, ...proposed].filter(({ trialId }, k, all) => trialId === undefined && all.findIndex((one) => one.id === all[k]?.id) === k);
  return <Sheet stored={data} runs={open} />;
} // prettier-ignore

function Sheet({ stored: { season }, runs }: { stored: StoredSeason; runs: readonly RunState[] }) {
  useTitle(`${season.title}, on paper`);
  const [size, setSize] = usePaper();
  const { shelf } = useKitchen(season.formula).kitchen;
  const codes = tastingCodes(Math.max(1, runs.length), season.seed);
  const lines = season.formula.lines.filter((line) => line.ingredientId !== undefined && gramsOf(line) > 0);
  const amount = (run: RunState, id: string): string => gramsText(gramsOf(run.formula.lines.find((line) => line.id === id) ?? {}));
  return (
    <PaperPage size={size} onSize={setSize}>
      <View style={styles.page}>
        <Title>{season.title}</Title>
        {runs.length === 0 ? (
          <Body>All bakes of this season are made.</Body>
        ) : (
          <>
            <Body>Weighed by one, tasted by others: each packet bears its code only.</Body>
            <PaperTable label="What is weighed" head={["", ...codes.slice(0, runs.length)]} right={runs.map((_, k) => k + 1)} rows={[
              ...lines.map((line) => ({ key: line.id, cells: [line.name ?? ingredientOf(shelf, line.ingredientId ?? "").name, ...runs.map((run) => amount(run, line.id))] })),
              { key: "oven", cells: ["Oven", ...runs.map((run) => `${run.formula.oven.celsius} °C`)] },
              { key: "rest", cells: ["Rest", ...runs.map((run) => `${run.formula.process.restMinutes ?? 0} min`)] },
            ]} />
            <Heading>The key, to be kept back</Heading>
            {runs.map((run, k) => <Body key={run.id}>{`${codes[k] ?? ""}: bake ${run.id.replace("run-", "")}, ${run.changes.length === 0 ? "the present bake" : run.changes.join("; ")}`}</Body>)}
            <Small>{`Judge each under its number in the log; the season reads it there.`}</Small>
          </>
        )}
      </View>
    </PaperPage>
  );
} // prettier-ignore

const styles = StyleSheet.create({ page: { gap: space.m } });
