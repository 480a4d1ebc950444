import { useQueries } from "@tanstack/react-query";
import type { StoredTrial } from "@uprise/contract";
import type { Row } from "@uprise/core";
import { changedBetween, compared } from "@uprise/core/page-log";
import { ingredientOf } from "@uprise/core/page";
import { ScrollView, StyleSheet, View } from "react-native";
import Svg, { Circle, Line } from "react-native-svg";
import { space } from "../../theme/scale";
import { useColours, useWide } from "../../theme/theme";
import { Link } from "../../ui/link";
import { Empty, Failed, Loading } from "../../ui/state";
import { useTitle } from "../../ui/use-title";
import { Body, Heading, Small, Title } from "../../ui/words";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useKitchen, useOvenList } from "../wire/queries";
import { faultsOf } from "./list-screen";
import { heightsOf, Profiles } from "./profile";
import { dayText } from "./times";

const LETTERS = ["A", "B", "C", "D"];

/** Trials side by side: outlines over each other, readings as small pictures, and what was changed from one to the next. */
export function CompareScreen({ ids }: { ids: readonly string[] }) {
  useTitle("Trials compared");
  const found = useQueries({ queries: ids.map((id) => ({ queryKey: keys.trial.of(id), queryFn: () => wire.readTrial(id) })) });
  const failed = found.find(({ error }) => error);
  if (ids.length < 2)
    return (
      <Empty title="Two trials or more are compared.">
        <Link to="/log">
          <Body style={styles.underlined}>Pick them in the log</Body>
        </Link>
      </Empty>
    );
  if (failed?.error)
    return <Failed title="One of them did not come." detail={failed.error.message} onRetry={() => void failed.refetch()} />;
  const trials = found.flatMap(({ data }) => (data ? [data] : [])).sort((a, b) => Date.parse(a.trial.at) - Date.parse(b.trial.at));
  if (trials.length < ids.length) return <Loading what="Fetching the trials" />;
  return <Compared trials={trials} />;
}

function Compared({ trials }: { trials: readonly StoredTrial[] }) {
  const wide = useWide();
  const { shelf } = useKitchen(null).kitchen;
  const rows = compared(trials.map(({ trial }) => trial));
  const { ovens = [] } = useOvenList();
  /** Ovens by the names they have in the store. */
  const named = (text: string): string => ovens.find(({ id }) => id === text)?.oven.name ?? text;
  const name = (id: string): string => (shelf.get(id) ? ingredientOf(shelf, id).name : id);
  const first = trials[0]?.trial.predicted;
  const outlines = [
    ...(first ? [{ key: "predicted", heightsMm: first.heightsMm, widthMm: first.widthMm, style: "behind" as const }] : []),
    ...trials.flatMap(({ id, trial }, k) => {
      const heights = heightsOf(trial);
      return heights ? [{ key: id, heightsMm: heights, widthMm: trial.predicted?.widthMm ?? 100, style: (k % 4) as 0 | 1 | 2 | 3 }] : [];
    }),
  ];
  return (
    <ScrollView contentContainerStyle={styles.page}>
      <Title>{`${trials.length} trials compared`}</Title>
      <View style={wide ? styles.beside : styles.part}>
        <View style={styles.part}>
          <Profiles outlines={outlines} width={wide ? 520 : 350} height={wide ? 230 : 180} label={trials.map(({ trial }, k) => `${LETTERS[k] ?? ""}: ${(heightsOf(trial) ?? []).map((height) => Math.round(height)).join(", ")} mm`).join("; ")} />
          <Small tone="faint">Grey, behind: what was predicted of A.</Small>
        </View>
        <View style={styles.part}>
          {trials.map((stored, k) => (
            <Link key={stored.id} to={`/log/${stored.id}`} style={styles.line}>
              <Key k={k} />
              <View style={styles.grow}>
                <Body strong>{`${LETTERS[k] ?? ""}  ${stored.trial.title}`}</Body>
                <Small tone="faint">{`${dayText(stored.trial.at)}: ${faultsOf(stored)}`}</Small>
              </View>
            </Link>
          ))}
        </View>
      </View>
      <Heading>What came out</Heading>
      <View style={styles.multiples}>
        {rows.map((row) => (
          <Multiple key={row.id} row={row} />
        ))}
      </View>
      <Heading>What was changed</Heading>
      {trials.slice(1).map((stored, k) => {
        const before = trials[k];
        const changes = before ? changedBetween(before.trial, stored.trial, name) : [];
        const sameFormula = before?.trial.formulaId === stored.trial.formulaId;
        return (
          <View key={stored.id}>
            <Body strong>{`${LETTERS[k] ?? ""} to ${LETTERS[k + 1] ?? ""}${sameFormula ? "" : ", another formula"}`}</Body>
            {changes.length === 0 ? <Body>Nothing in formula, process, pan or oven: what differs came from the doing.</Body> : null}
            {changes.slice(0, MOST_CHANGES).map(({ what, before: was, after }) => (
              <Body key={what}>{`${what}: ${named(was)} → ${named(after)}`}</Body>
            ))}
            {changes.length > MOST_CHANGES ? <Small tone="faint">{`and ${changes.length - MOST_CHANGES} more`}</Small> : null}
          </View>
        );
      })}
      <Link to={`/print/compare?ids=${trials.map(({ id }) => id).join(",")}`} style={styles.left}>
        <Body style={styles.underlined}>On paper</Body>
      </Link>
    </ScrollView>
  );
} // prettier-ignore

const MOST_CHANGES = 12;

function Key({ k }: { k: number }) {
  const colours = useColours();
  const inks = [colours.ink, colours.heat, colours.soda, colours.set];
  return (
    <Svg width={34} height={12} aria-hidden>
      <Line
        x1={1}
        x2={33}
        y1={6}
        y2={6}
        stroke={inks[k % 4] ?? colours.ink}
        strokeWidth={3}
        strokeDasharray={["", "9 4", "2 4", "10 4 2 4"][k % 4] ?? ""}
      />
    </Svg>
  );
}

const [PLOT_W, PLOT_H] = [150, 56];

/** One reading of all trials as a small picture: a dot each, what was predicted as a ring. */
function Multiple({ row }: { row: Row }) {
  const colours = useColours();
  const known = [...row.values, ...row.predicted].filter((value): value is number => value !== null);
  const [low, high] = [Math.min(...known), Math.max(...known)];
  const span = Math.max(high - low, 0.02 * Math.abs(high), 1e-6);
  const y = (value: number): number => 8 + (PLOT_H - 16) * (1 - (value - low) / span);
  const x = (k: number): number => 12 + ((PLOT_W - 24) * k) / Math.max(1, row.values.length - 1);
  const unit = row.unit === "" ? "" : ` ${row.unit}`;
  const words = row.values.map((value, k) => `${LETTERS[k] ?? ""} ${value === null ? "–" : value.toFixed(row.digits).replace("-", "−")}`).join(", ");
  return (
    <View style={styles.multiple}>
      <Small tone="faint">{row.name}</Small>
      <Svg width={PLOT_W} height={PLOT_H} role="img" aria-label={`${row.name}: ${words}${unit}`}>
        <Line x1={4} x2={PLOT_W - 4} y1={PLOT_H - 2} y2={PLOT_H - 2} stroke={colours.rule} strokeWidth={1} />
        {row.predicted.map((value, k) => (value === null ? null : <Circle key={`p${k}`} cx={x(k)} cy={y(value)} r={5} fill="none" stroke={colours.faint} strokeWidth={1.4} />))}
        {row.values.map((value, k) => (value === null ? null : <Circle key={k} cx={x(k)} cy={y(value)} r={4} fill={colours.ink} />))}
      </Svg>
      <Small>{`${words}${unit}`}</Small>
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  page: { padding: space.l, gap: space.m, maxWidth: 1080, width: "100%" },
  part: { gap: space.s, flexShrink: 1 },
  beside: { flexDirection: "row", gap: space.xl, alignItems: "flex-start" },
  line: { flexDirection: "row", gap: space.m, alignItems: "center", minHeight: 48 },
  grow: { flex: 1, minWidth: 0 },
  multiples: { flexDirection: "row", flexWrap: "wrap", gap: space.l },
  multiple: { width: PLOT_W, gap: space.hair },
  left: { alignItems: "flex-start" },
  underlined: { textDecorationLine: "underline" },
});
