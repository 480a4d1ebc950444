import type { Opened, Shelf } from "@uprise/core";
import { ownOf } from "@uprise/core/page";
import { useMemo } from "react";
import { StyleSheet, View } from "react-native";
import Svg, { Line, Rect } from "react-native-svg";
import { useAsked } from "../../device/use-asked";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Small } from "../../ui/words";
import type { Result } from "../../workers/tasks";
import { opened } from "../../device/opened";

const HEIGHT = 30;
/** The line ends at so many times the late end of the range. */
const EDGE = 1.25;

type Runs = NonNullable<Result<"runs">>;

/** Many bakes, each with another oven, air, mass and another reading of what is known of batters, as factors of the minutes; null until they are here. */
export function useManyRuns(open: () => Opened, shelf: Shelf, on: boolean): Runs | null {
  const input = useMemo(() => (on ? opened(open).input : null), [on, open]);
  const { data, current } = useAsked("runs", input ? [input, ownOf(shelf)] : null);
  return current ? data : null;
}

/** Many bakes on one line of time, a stroke each, over the span that holds four in five of them. */
export function ManyRuns({ runs, minutes, width }: { runs: Runs; minutes: number; width: number }) {
  const colours = useColours();
  const { factors, low, high } = runs;
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
