import type { Opened, Shelf } from "@uprise/core";
import { CoreError } from "@uprise/core/page";
import { rangeOfFactors, ready } from "@uprise/core";
import { useEffect, useId, useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import Svg, { Line, Rect } from "react-native-svg";
import { whenIdle } from "../../device/idle";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Small } from "../../ui/words";
import { samplers } from "./oven-worker";

/** So many bakes, each with another oven, air, mass and another reading of what is known of batters. */
export const RUNS = 32;
const HEIGHT = 30;
/** The line ends at so many times the late end of the range. */
const EDGE = 1.25;

interface Sampled {
  of: object;
  factors: number[] | null;
}

/** The factors of many coarse bakes, shared out among the workers when the page has time; null until all are here. */
export function useManyRuns(open: () => Opened, shelf: Shelf, on: boolean): number[] | null {
  const channel = useId();
  const [sampled, setSampled] = useState<Sampled | null>(null);
  const made = useMemo(() => {
    // Without workers so many bakes would stop the page; the range that stands is then all there is.
    if (!on || typeof Worker === "undefined") return null;
    try {
      return ready(open(), shelf);
    } catch (error) {
      if (error instanceof CoreError) return null;
      throw error;
    }
  }, [open, shelf, on]);
  useEffect(() => {
    if (!made) return;
    const each = Math.ceil(RUNS / samplers.length);
    const parts = new Map<number, number[]>();
    const stop = whenIdle(() =>
      samplers.forEach((worker, k) => {
        const [from, to] = [1 + k * each, Math.min(RUNS, (k + 1) * each) + 1];
        worker.ask(
          channel,
          { do: "sample", start: made.start, massSpread: made.massSpread, from, to },
          (factors) => {
            if (!factors) return setSampled({ of: made, factors: null });
            parts.set(k, factors);
            if (parts.size === samplers.length) setSampled({ of: made, factors: [...parts.values()].flat() });
          },
          // A range that does not come leaves the one that stands.
          () => setSampled({ of: made, factors: null }),
        );
      }),
    );
    return () => {
      stop();
      for (const worker of samplers) worker.cancel(channel);
    };
  }, [made, channel]);
  return made && sampled?.of === made ? sampled.factors : null;
}

/** Many bakes on one line of time, a stroke each, over the span that holds four in five of them. */
export function ManyRuns({ factors, minutes, width }: { factors: readonly number[]; minutes: number; width: number }) {
  const colours = useColours();
  const { low, high } = rangeOfFactors(factors);
  const all = factors.map((factor) => factor * minutes);
  const [first, latest] = [Math.min(...all), Math.max(...all)];
  // One that never quite gets there would press all others together: it stands at the edge.
  const [from, to] = [Math.min(low * minutes, first), Math.max(high * minutes, Math.min(latest, EDGE * high * minutes))];
  const x = (at: number): number => Math.min(width - 2, 6 + ((width - 12) * (at - from)) / Math.max(1e-9, to - from));
  const words = `${factors.length} bakes with all of that at once: four in five are done between ${Math.round(low * minutes)} and ${Math.round(high * minutes)} min, the earliest at ${Math.round(first)}, the latest at ${Math.round(latest)}${latest > to ? ", over the edge" : ""}.`;
  return (
    <View style={styles.all} testID="many-runs">
      <Svg width={width} height={HEIGHT} role="img" aria-label={words}>
        <Rect
          x={x(low * minutes)}
          y={4}
          width={Math.max(1, x(high * minutes) - x(low * minutes))}
          height={HEIGHT - 10}
          fill={colours.sunk}
        />
        <Line x1={0} x2={width} y1={HEIGHT - 4} y2={HEIGHT - 4} stroke={colours.rule} strokeWidth={1} />
        {all.map((at, k) => (
          <Line key={k} x1={x(at)} x2={x(at)} y1={8} y2={HEIGHT - 4} stroke={colours.heat} strokeWidth={1.5} />
        ))}
        <Line x1={x(minutes)} x2={x(minutes)} y1={2} y2={HEIGHT - 2} stroke={colours.ink} strokeWidth={2.5} />
      </Svg>
      <Small tone="faint">{words}</Small>
    </View>
  );
}

const styles = StyleSheet.create({ all: { gap: space.xs, paddingVertical: space.s } });
