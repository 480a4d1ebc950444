import type { RunState } from "@uprise/core";
import { StyleSheet, View } from "react-native";
import Svg, { Line, Path as Shape } from "react-native-svg";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Small } from "../../ui/words";

const W = 84;
const MOST_H = 92;
/** Over the tallest slice, and under the table's line. */
const [OVER, UNDER] = [6, 6];

/** A slice's outline: edge, middle, edge over its width, on the table's line. */
function outline(middleMm: number, edgeMm: number, widthMm: number, scale: number, base: number): string {
  const half = (widthMm * scale) / 2;
  const y = (mm: number): number => base - mm * scale;
  const [left, right, mid] = [W / 2 - half, W / 2 + half, W / 2];
  return `M${left} ${y(0)} L${left} ${y(edgeMm)} C${left + half / 2} ${y(middleMm)} ${mid - half / 4} ${y(middleMm)} ${mid} ${y(middleMm)} C${mid + half / 4} ${y(middleMm)} ${right - half / 2} ${y(middleMm)} ${right} ${y(edgeMm)} L${right} ${y(0)} Z`;
}

interface PathProps {
  runs: readonly RunState[];
  /** The one that promises most: an outline that the others are held against. */
  wished: RunState | null;
  best: string | undefined;
}

/**
 * The season as slices on their table, to one scale: what was baked is filled, as tall as it was measured; what is to come is dashed, as tall as the
 * computer thinks; the one that promises most stands behind each as a thin line.
 */
export function Path({ runs, wished, best }: PathProps) {
  const colours = useColours();
  const heightOf = (run: RunState): number => run.results["height"] ?? run.expected["height"]?.mid ?? run.slice.middleMm;
  const tallest = Math.max(1, ...[...runs, ...(wished ? [wished] : [])].map(heightOf));
  const widest = Math.max(1, ...runs.map(({ slice }) => slice.widthMm));
  const scale = Math.min((MOST_H - OVER - UNDER) / tallest, (W - 8) / widest);
  const base = OVER + tallest * scale;
  const height = base + UNDER;
  return (
    <View role="list" aria-label="The season's bakes" style={styles.path}>
      {runs.map((run, k) => {
        const isBaked = run.trialId !== undefined;
        const stands = heightOf(run);
        const range = run.expected["height"];
        const share = stands / Math.max(1, run.slice.middleMm);
        return (
          <View key={run.id} role="listitem" style={[styles.one, { borderBottomColor: colours.strongRule }]}>
            <Svg width={W} height={height} role="img" aria-label={`Bake ${k + 1}: ${isBaked ? "stood" : "expected to stand"} ${Math.round(stands)} mm in the middle`}>
              {wished && wished.id !== run.id ? <Shape d={outline(heightOf(wished), wished.slice.edgeMm * (heightOf(wished) / Math.max(1, wished.slice.middleMm)), wished.slice.widthMm, scale, base)} fill="none" stroke={colours.faint} strokeWidth={1} strokeDasharray="2 3" /> : null}
              <Shape d={outline(stands, run.slice.edgeMm * share, run.slice.widthMm, scale, base)} fill={isBaked ? colours.sunk : "none"} stroke={colours.ink} strokeWidth={run.trialId === best && isBaked ? 3.4 : 1.8} strokeDasharray={isBaked ? "" : "5 4"} />
              <Line x1={0} x2={W} y1={base} y2={base} stroke={colours.strongRule} strokeWidth={1.5} />
            </Svg>
            <Small strong={run.trialId === best && isBaked}>{`${k + 1}${run.trialId === best && isBaked ? ", best" : ""}`}</Small>
            <Small tone="faint">{isBaked || !range ? `${isBaked ? "" : "≈ "}${Math.round(stands)} mm` : `${Math.round(range.low)}–${Math.round(range.high)} mm`}</Small>
          </View>
        );
      })}
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  path: { flexDirection: "row", flexWrap: "wrap", rowGap: space.m },
  one: { width: W, alignItems: "center" },
});
