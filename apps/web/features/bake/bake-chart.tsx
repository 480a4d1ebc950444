import { lazy, memo, Suspense } from "react";
import type { Simulation } from "@uprise/core";
import { StyleSheet, View } from "react-native";
import { fonts, space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Small } from "../../ui/words";

const LineChart = lazy(async () => ({ default: (await import("../../ui/charts")).LineChart }));

const POINTS = 44;

/** So many points at even times, each with the value last known then. */
function evenly(times: readonly number[], values: readonly number[], last: number): number[] {
  let i = 0;
  return Array.from({ length: POINTS }, (_, k) => {
    const at = (last * k) / (POINTS - 1);
    while (i < times.length - 1 && (times[i + 1] ?? 0) <= at) i++;
    return values[i] ?? 0;
  });
}

interface BakeChartProps {
  what: "core" | "rise";
  simulation: Simulation;
  other?: Simulation | null;
  width?: number;
}

const told = {
  core: { title: "Core, °C", of: (s: Simulation) => s.coreC, top: 120, sections: 6 },
  rise: { title: "Highest point, mm", of: (s: Simulation) => s.crownMm, top: 0, sections: 4 },
} as const;

/** Core temperature or rise over time, through oven and cooling; a second bake is dashed. */
export const BakeChart = memo(function BakeChart({ what, simulation, other = null, width = 340 }: BakeChartProps) {
  const colours = useColours();
  const { title, of, top, sections } = told[what];
  const last = Math.max(simulation.times.at(-1) ?? 1, other?.times.at(-1) ?? 1);
  const line = evenly(simulation.times, of(simulation), last);
  const second = other ? evenly(other.times, of(other), last) : null;
  const high = top > 0 ? top : Math.ceil((1.12 * Math.max(...line, ...(second ?? [0]))) / (10 * sections)) * 10 * sections;
  const spacing = (width - 60) / (POINTS - 1);
  const marks = [0, 0.25, 0.5, 0.75, 1].map((share) => Math.round((share * last) / 60));
  const peak = Math.round(Math.max(...line));
  const out = Math.round(simulation.minutes);
  return (
    <View
      role="img"
      aria-label={`${title} over ${Math.round(last / 60)} minutes: from ${Math.round(line[0] ?? 0)} up to ${peak}, out of the oven after ${out} minutes.`}
      style={styles.chart}
    >
      <Small tone="faint">{title}, by minutes</Small>
      <View aria-hidden>
        <Suspense fallback={<View style={{ height: 150 }} />}>
          <LineChart
            data={line.map((value) => ({ value }))}
            {...(second ? { data2: second.map((value) => ({ value })) } : {})}
            height={120}
            width={width - 44}
            initialSpacing={4}
            endSpacing={12}
            spacing={spacing}
            maxValue={high}
            noOfSections={sections}
            color1={what === "core" ? colours.heat : colours.gas}
            color2={colours.soda}
            strokeDashArray2={[7, 5]}
            thickness={3}
            thickness2={2.4}
            hideDataPoints
            hideDataPoints2
            yAxisColor={colours.strongRule}
            xAxisColor={colours.strongRule}
            rulesColor={colours.rule}
            rulesType="solid"
            yAxisTextStyle={{ color: colours.faint, fontFamily: fonts.body, fontSize: 12 }}
            xAxisLabelsHeight={2}
            yAxisLabelWidth={34}
            disableScroll
            isAnimated={false}
          />
        </Suspense>
        <View style={[styles.marks, { width: width - 34 }]}>
          {marks.map((minute, i) => (
            <Small key={i} tone="faint">
              {minute}
            </Small>
          ))}
        </View>
      </View>
    </View>
  );
});

const styles = StyleSheet.create({
  chart: { gap: space.xs, overflow: "hidden" },
  marks: { flexDirection: "row", justifyContent: "space-between", marginLeft: 34 },
});
