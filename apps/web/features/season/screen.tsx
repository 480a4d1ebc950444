import type { StoredSeason } from "@uprise/contract";
import type { RunState, Season, SeasonState } from "@uprise/core";
import { factorName, qualityOf, qualityText, valueText } from "@uprise/core/page-log";
import { type Href, useRouter } from "expo-router";
import { ScrollView, StyleSheet, View } from "react-native";
import { download } from "../../device/download";
import { ask } from "../../device/workers";
import { space } from "../../theme/scale";
import { useColours, useWide } from "../../theme/theme";
import { Beside } from "../../ui/beside";
import { Table } from "../../ui/facts";
import { FileButton } from "../../ui/file-button";
import { Link } from "../../ui/link";
import { NumberField } from "../../ui/number-field";
import { Button } from "../../ui/press";
import { Failed, Loading, NotFound, Progress } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Why } from "../../ui/why";
import { Body, Heading, Lead, Small, Title } from "../../ui/words";
import { BeginBake } from "../instruments/begin-bake";
import { WireError } from "../wire/client";
import { isSettled } from "../wire/kept";
import { useOvenList } from "../wire/queries";
import { WishMap } from "./map";
import { Path } from "./path";
import {
  nextBlock,
  useChangeSeason,
  useKeepBest,
  usePlanRuns,
  useRemoveSeason,
  useResults,
  useSeason,
  useSeasonNow,
  useTakeRuns,
} from "./use-season";

/** A season of trials: the next bake first, then what was baked, what it tells, and when to stop. */
export function SeasonScreen({ id }: { id: string }) {
  const query = useSeason(id);
  const { data, error, refetch } = query;
  if (error instanceof WireError && error.status === 404)
    return (
      <NotFound title="There is no such season." to="/log/seasons" way="To the seasons">
        It may have been taken off the list.
      </NotFound>
    );
  if (error && !data) return <Failed title="This season did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!data || !isSettled(query)) return <Loading what="Fetching the season" />;
  return <SeasonOf key={data.id} stored={data} />;
}

function SeasonOf({ stored }: { stored: StoredSeason }) {
  const wide = useWide();
  const { season } = stored;
  useTitle(season.title);
  const { data: state, error, isFetching, isWaiting, progress, stop, refetch } = useSeasonNow(season);
  const now = (
    <View style={styles.part}>
      <Title>{season.title}</Title>
      <Body>{goalWords(season)}</Body>
      {season.notes.trim() === "" ? null : <Body tone="faint">{season.notes}</Body>}
      {isWaiting ? <Loading what="Fetching the log" /> : null}
      <Progress on={isFetching} what="Baking what may be baked in the computer" done={progress} onStop={stop} />
      {error ? <Failed title="How it stands cannot be told." detail={error.message} onRetry={() => void refetch()} /> : null}
      {state ? <Now stored={stored} state={state} /> : null}
    </View>
  );
  if (!state || !wide) return <ScrollView contentContainerStyle={styles.page} keyboardShouldPersistTaps="handled">{now}{state ? <Told stored={stored} state={state} /> : null}</ScrollView>; // prettier-ignore
  return (
    <Beside
      list={<ScrollView contentContainerStyle={styles.page}>{now}</ScrollView>}
      detail={<ScrollView contentContainerStyle={styles.page}><Told stored={stored} state={state} /></ScrollView>}
    />
  ); // prettier-ignore
}

/** What is wished and what must hold, in one sentence. */
function goalWords({ goals, factors, bakes }: Season): string {
  const wishes = goals.flatMap(({ quality, wish, target }) => {
    const of = qualityOf(quality);
    return wish === undefined ? [] : [wish === "target" ? `${of.name.toLowerCase()} of ${qualityText(of, target ?? 0)}` : `${wish} ${of.name.toLowerCase()}`];
  });
  const holds = goals.flatMap(({ quality, keep }) => {
    const of = qualityOf(quality);
    return keep ? [`${of.name.toLowerCase()} ${[keep.low === undefined ? "" : `at least ${qualityText(of, keep.low)}`, keep.high === undefined ? "" : `at most ${qualityText(of, keep.high)}`].filter((one) => one !== "").join(" and ")}`] : [];
  });
  return `Wished: ${wishes.join(", ")}${holds.length > 0 ? `; kept: ${holds.join(", ")}` : ""}. In ${bakes} bakes ${factors.map((factor) => factorName(factor).toLowerCase()).join(", ")} may move.`;
} // prettier-ignore

/** Where it stands: the bakes to be taken, or the next one; the best so far; whether to stop. */
function Now({ stored, state }: { stored: StoredSeason; state: SeasonState }) {
  const router = useRouter();
  const { season } = stored;
  const take = useTakeRuns(stored);
  const keep = useKeepBest(stored);
  const made = state.runs.filter(({ trialId }) => trialId !== undefined).length;
  const isNew = season.runs.length === 0 && state.design !== null;
  const waits = state.proposed.length > 0;
  return (
    <View style={styles.part}>
      {isNew ? <First season={season} state={state} /> : null}
      {waits && isNew ? (
        <Button kind="main" style={styles.left} disabled={take.isPending} onPress={() => take.mutate(state.proposed)}>{`Take these ${state.proposed.length} bakes`}</Button>
      ) : null}
      {!isNew && state.next ? <Next stored={stored} state={state} next={state.next} onTake={waits ? () => take.mutate(state.proposed) : null} taking={take.isPending} /> : null}
      {take.error ? <Body tone="stop">{take.error.message}</Body> : null}
      <Body strong={state.stop.isTime}>{state.stop.words}</Body>
      {state.best ? (
        <View style={styles.part}>
          <Heading>The best so far</Heading>
          <Body>{state.best.changes.length === 0 ? "The present bake." : `${state.best.changes.join("; ")}.`}</Body>
          <Expected season={season} run={state.best} />
          <View style={styles.tools}>
            {state.best.trialId ? <Link to={`/log/${state.best.trialId}`}><Body strong>Its trial in the log</Body></Link> : null}
            <Button disabled={keep.isPending || state.best.changes.length === 0} onPress={() => state.best && keep.mutate({ best: state.best, made }, { onSuccess: (id) => router.navigate(`/bench/${id}` as Href) })}>
              {state.best.changes.length === 0 ? "The present bake stays" : "Make it the formula's next version"}
            </Button>
          </View>
          {keep.error ? <Body tone="stop">{keep.error.message}</Body> : null}
        </View>
      ) : null}
    </View>
  );
} // prettier-ignore

function First({ season, state }: { season: Season; state: SeasonState }) {
  return (
    <View style={styles.part}>
      <Heading>The first bakes</Heading>
      <Body>{state.design?.words ?? ""}</Body>
      {state.design?.together.map((one) => <Body key={one} tone="caution">{one}</Body>)}
      <Runs season={season} runs={state.proposed} label="The first bakes" />
      <Small tone="faint">{`${state.candidates} bakes were judged and baked in the computer${state.unsound.length > 0 ? `; left out: ${state.unsound.map(({ why, count }) => `${count} (${why.replace(/\.$/, "")})`).join("; ")}` : ", all of them sound"}. How independently of each other the things move: ${(100 * (state.design?.efficiency ?? 0)).toFixed(0)} of 100.`}</Small>
    </View>
  );
} // prettier-ignore

interface NextProps {
  stored: StoredSeason;
  state: SeasonState;
  next: NonNullable<SeasonState["next"]>;
  onTake: (() => void) | null;
  taking: boolean;
}

function Next({ stored: { season }, next: { run, gainWords, holdsBy, minutes, cost }, onTake, taking }: NextProps) {
  const colours = useColours();
  const isNext = run.kind === "next";
  return (
    <View style={[styles.card, { borderColor: colours.strongRule }]}>
      <Small tone="faint">{`Next: bake ${run.id.replace("run-", "")} of ${season.bakes}`}</Small>
      <Lead strong>{run.changes.length === 0 ? "The present bake, as it is" : `${run.changes.join("; ")}`}</Lead>
      <Body>{run.why}</Body>
      {isNext ? <Body>{`It may gain ${gainWords}${season.goals.some(({ keep }) => keep) ? `; what must be kept is kept with ${Math.round(100 * holdsBy)} of 100` : ""}.`}</Body> : null}
      <Small tone="faint">{`It takes about ${Math.round(minutes)} min in the oven${cost ? ` and ${cost.amount.toFixed(2)} ${cost.currency} by the packets` : ""}.`}</Small>
      {run.minutes === undefined ? null : <Body strong>{`Take it out after ${run.minutes} min.`}</Body>}
      {onTake ? (
        <Button kind="main" style={styles.left} disabled={taking} onPress={onTake}>Take it as the next bake</Button>
      ) : (
        <BeginBake title={`${season.formula.title}, bake ${run.id.replace("run-", "")}`} formula={run.formula} {...(season.formulaId ? { formulaId: season.formulaId } : {})} {...(season.formulaVersion ? { formulaVersion: season.formulaVersion } : {})} />
      )}
      <Small tone="faint">Judged in the log, it counts here by itself: nothing is typed twice.</Small>
    </View>
  );
} // prettier-ignore

const rangeText = (quality: string, run: RunState): string => {
  const of = qualityOf(quality);
  const range = run.expected[quality];
  return range ? `${range.low.toFixed(of.digits)} to ${range.high.toFixed(of.digits)}` : "–";
};

function Expected({ season, run }: { season: Season; run: RunState }) {
  return (
    <View>
      {season.goals.map(({ quality }) => {
        const of = qualityOf(quality);
        const came = run.results[quality];
        return <Body key={quality}>{`${of.name}: ${came === undefined ? "" : `came out ${qualityText(of, came)}, `}is ${rangeText(quality, run)} ${of.unit}`.trimEnd()}</Body>;
      })}
    </View>
  );
} // prettier-ignore

/** Runs as a plain table: what each is, what is expected and what came out. */
function Runs({ season, runs, label }: { season: Season; runs: readonly RunState[]; label: string }) {
  const wish = season.goals.find(({ wish: is }) => is !== undefined)?.quality ?? "height";
  const of = qualityOf(wish);
  const at = (run: RunState): string => season.factors.map((factor) => valueText(factor, run.settings[factor.id] ?? 0)).join(", ");
  return (
    <Table
      label={label}
      head={[`Bake: ${season.factors.map((factor) => factorName(factor).toLowerCase()).join(", ")}`, ...(season.blocks ? [season.blocks.by.replace(/^./, (c) => c.toUpperCase())] : []), `${of.name}, ${of.unit}`]}
      rows={runs.map((run, k) => {
        const came = run.results[wish];
        const block = run.kind === "logged" ? "before" : String(run.block + 1);
        return { key: run.id, cells: [`${k + 1}:  ${at(run)}`, ...(season.blocks ? [block] : []), came === undefined ? rangeText(wish, run) : came.toFixed(of.digits)] };
      })}
    />
  );
} // prettier-ignore

/** What was baked and what it tells. */
function Told({ stored, state }: { stored: StoredSeason; state: SeasonState }) {
  const router = useRouter();
  const { season } = stored;
  const { ovens = [] } = useOvenList();
  const plan = usePlanRuns(stored, ovens);
  const results = useResults(stored);
  const open = nextBlock(state);
  const shown = season.runs.length === 0 ? [...state.runs, ...state.proposed] : [...state.runs, ...state.proposed.filter(({ id }) => !state.runs.some((run) => run.id === id))];
  return (
    <View style={styles.part}>
      <Heading>The bakes on their table</Heading>
      <Path runs={shown} wished={state.next?.run ?? null} best={state.best?.trialId} />
      <Small tone="faint">Filled: as it was measured. Dashed: to come, as tall as is expected. The thin line behind is the next one.</Small>
      {season.runs.length === 0 ? null : <Runs season={season} runs={state.runs} label="The bakes of the season" />}
      <Why shown={<Small>What each was to tell</Small>}>
        {shown.map(({ id, why }, k) => <Body key={id}>{`${k + 1}: ${why}`}</Body>)}
      </Why>
      <Heading>What was learnt</Heading>
      <View role="list" aria-label="What was learnt">
        {state.learnt.map(({ words, sure, factorId, quality }) => (
          <View key={`${factorId}${quality}`} role="listitem"><Body strong={sure}>{words}</Body></View>
        ))}
      </View>
      <Small tone="faint">{checkedWords(state)}</Small>
      <WishMap season={season} state={state} />
      {state.front.length > 1 ? (
        <View style={styles.part}>
          <Heading>What can be had at once</Heading>
          <Table label="What can be had at once" head={["Changes", ...season.goals.map(({ quality }) => qualityOf(quality).name)]} rows={state.front.map((run) => ({ key: run.id, cells: [run.changes.join("; ") || "as now", ...season.goals.map(({ quality }) => rangeText(quality, run))] }))} />
        </View>
      ) : null}
      <View style={styles.tools}>
        {open.length > 0 ? <Button disabled={plan.isPending} onPress={() => plan.mutate(open, { onSuccess: (id) => router.navigate(`/day/${id}` as Href) })}>{open.length > 1 ? `Put the next ${open.length} into a day` : "Put the next into a day"}</Button> : null}
        <Button kind="quiet" onPress={() => router.navigate(`/print/season/${stored.id}` as Href)}>On paper</Button>
        <FileButton kind="quiet" accept=".csv,text/csv" disabled={results.isPending} onFile={(file) => void file.text().then((text) => results.mutate({ text, runs: state.runs }))}>Results from CSV</FileButton>
        <Button kind="quiet" onPress={() => void ask("season-csv", season, shown).then((text) => download(`${stored.id}.csv`, new Blob([text], { type: "text/csv" })))}>As CSV</Button>
      </View>
      {plan.error ?? results.error ? <Body tone="stop">{(plan.error ?? results.error)?.message ?? ""}</Body> : null}
      {results.isSuccess ? <Small tone="faint">{results.data === 0 ? "Nothing in it is new: bakes that are in the log already, or no results." : `${results.data} ${results.data === 1 ? "bake is" : "bakes are"} in the log now.`}</Small> : null}
      <Keeping stored={stored} />
    </View>
  );
} // prettier-ignore

/** How long the season is, and taking it off the list. */
function Keeping({ stored }: { stored: StoredSeason }) {
  const change = useChangeSeason(stored);
  const { remove, back } = useRemoveSeason(stored);
  const error = change.error ?? remove.error ?? back.error;
  return (
    <View style={styles.part}>
      <View style={styles.tools}>
        <NumberField label="Bakes there is time for" value={stored.season.bakes} unit="" least={3} most={40} whole style={styles.number} onChange={(bakes) => bakes !== undefined && bakes !== stored.season.bakes && change.mutate({ bakes })} />
        {remove.isSuccess ? (
          <Button disabled={back.isPending} onPress={() => back.mutate()}>Put it back</Button>
        ) : (
          <Button kind="quiet" disabled={remove.isPending} onPress={() => remove.mutate()}>Take it off the list</Button>
        )}
      </View>
      {remove.isSuccess ? <Small tone="faint">It is off the list; its trials are in the log as before.</Small> : null}
      {error ? <Body tone="stop">{error.message}</Body> : null}
    </View>
  );
} // prettier-ignore

function checkedWords({ model }: SeasonState): string {
  const asked = model.filter(({ of }) => of > 0);
  const [within, of] = [asked.reduce((sum, one) => sum + one.within, 0), asked.reduce((sum, one) => sum + one.of, 0)];
  return `Ranges hold 90 %.${of > 0 ? ` Each bake left out in turn, ${within} of ${of} results lay in the range that all others gave of them.` : " With so few bakes they cannot be checked yet."}`;
} // prettier-ignore

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.xl, maxWidth: 760, width: "100%" },
  part: { gap: space.m },
  card: { borderWidth: 1.5, padding: space.m, gap: space.s },
  left: { alignSelf: "flex-start" },
  number: { width: 200 },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "center" },
});
