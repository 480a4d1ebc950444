import { useQueries, useQuery } from "@tanstack/react-query";
import type { Running } from "@uprise/core";
import { bakeClock, counterOf, foldBake } from "@uprise/core/page-live";
import { StyleSheet, View } from "react-native";
import { space, touch } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Link } from "../../ui/link";
import { Button } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";
import { timerText } from "./figures";
import { useBakeNow } from "./use-bake";

const AGAIN_MS = 10_000;
/** The clock on the wall. */
const REAL = {};

/** The timers of this bake. */
export function Timers({ running, now, onDone }: { running: readonly Running[]; now: number; onDone: (stepId: string) => void }) {
  const colours = useColours();
  return (
    <View style={styles.timers} role="list" aria-label="Timers">
      {running.map(({ step, until }) => (
        <View key={step.id} role="listitem" style={[styles.timer, { borderColor: until < now ? colours.stop : colours.ink, borderWidth: until < now ? 3 : 1.5 }]}>
          <Body strong style={styles.figure} tone={until < now ? "stop" : "ink"}>
            {timerText(until - now)}
          </Body>
          <Small style={styles.grow}>{until < now ? `due: ${step.words}` : step.words}</Small>
          {step.kind === "bake" ? null : (
            <Button style={styles.big} onPress={() => onDone(step.id)} label={`Done: ${step.words}`}>
              Done
            </Button>
          )}
        </View>
      ))}
    </View>
  ); // prettier-ignore
}

/** Other bakes that go on, each with what runs in it: always in sight. */
export function Others({ but }: { but: string | null }) {
  const colours = useColours();
  const now = useBakeNow(REAL);
  const { data } = useQuery({ queryKey: keys.bakes.all, queryFn: ({ signal }) => wire.bakes(signal), refetchInterval: AGAIN_MS });
  const going = (data?.items ?? []).filter(({ id, phase }) => id !== but && phase !== "judged" && phase !== "ready").slice(0, 6);
  const bakes = useQueries({
    queries: going.map(({ id }) => ({ queryKey: keys.bake.of(id), queryFn: () => wire.readBake(id), refetchInterval: AGAIN_MS })),
  });
  if (going.length === 0) return null;
  return (
    <View style={styles.others} role="list" aria-label="Other bakes">
      {going.map(({ id, title }, k) => {
        const bake = bakes[k]?.data;
        const at = bake ? bakeClock(bake.record, now) : now;
        const running = bake ? counterOf(bake.record, foldBake(bake.record, bake.events), at).running : [];
        const next = [...running].sort((a, b) => a.until - b.until)[0];
        const late = next !== undefined && next.until < at;
        return (
          <Link key={id} to={`/counter/${id}`} style={[styles.other, { borderColor: late ? colours.stop : colours.faint }]}>
            <Small strong tone={late ? "stop" : "ink"} style={styles.figure}>
              {next ? timerText(next.until - at) : "·"}
            </Small>
            <Small lines={1}>{title}</Small>
          </Link>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  timers: { gap: space.xs },
  timer: { flexDirection: "row", alignItems: "center", gap: space.m, paddingHorizontal: space.s, minHeight: 48 },
  figure: { fontVariant: ["tabular-nums"], minWidth: 64 },
  grow: { flex: 1, minWidth: 0 },
  big: { minHeight: touch.counter, borderWidth: 0 },
  others: { flexDirection: "row", flexWrap: "wrap", gap: space.xs },
  other: { flexDirection: "row", alignItems: "center", gap: space.s, borderWidth: 1, paddingHorizontal: space.s, maxWidth: 220 },
});
