import type { Simulation, Vessel } from "@uprise/core";
import { StyleSheet, View } from "react-native";
import Svg, { Circle, Line, Path, Rect } from "react-native-svg";
import { useColours } from "../../theme/theme";
import { Small } from "../../ui/words";

const HEIGHT = 150;
/** Free room between pieces that stand apart, as a share of a piece's width. */
const GAP = 0.5;

/** Four pieces on their sheet from above: as they were set (dashed) and as they come out (drawn through), at the same scale. */
export function FromAbove({ simulation, vessel, width = 260 }: { simulation: Simulation; vessel: Vessel; width?: number }) {
  const colours = useColours();
  const before = 2 * (simulation.section.xMm.at(-1) ?? 0);
  const after = before * (1 + simulation.spreadPercent / 100);
  if (!(before > 0)) return null;
  const close = vessel.touching === true;
  const pitch = close ? before : before * (1 + GAP);
  const scale = Math.min(width / (2.4 * pitch), (HEIGHT - 12) / (1.05 * Math.max(after, before)), 2.2);
  const n = Math.max(2, Math.min(4, Math.floor(width / (pitch * scale))));
  const start = width / 2 - ((n - 1) * pitch * scale) / 2;
  const y = HEIGHT / 2;
  const wedge = (cx: number, d: number): string => {
    // An eighth of a round, its tip up: as deep as its area asks for.
    const r = d * 1.42;
    const half = Math.PI / 8;
    return `M${cx} ${y - r * 0.55} l${r * Math.sin(half)} ${r * Math.cos(half)} A${r} ${r} 0 0 1 ${cx - r * Math.sin(half)} ${y - r * 0.55 + r * Math.cos(half)} z`;
  };
  const outline = (cx: number, d: number, dashed: boolean) => {
    const line = {
      fill: "none",
      stroke: dashed ? colours.faint : colours.ink,
      strokeWidth: dashed ? 1.2 : 2,
      ...(dashed ? { strokeDasharray: "4 3" } : {}),
    };
    const key = `${cx} ${dashed}`;
    if (vessel.piece === "wedge") return <Path key={key} d={wedge(cx, (d * scale) / 2)} {...line} />;
    if (vessel.piece === "log" || close) {
      const w = d * scale;
      const h = Math.min(HEIGHT - 10, vessel.piece === "log" ? 4 * w : w);
      return <Rect key={key} x={cx - w / 2} y={y - h / 2} width={w} height={h} rx={close ? 6 : w / 2} {...line} />;
    }
    return <Circle key={key} cx={cx} cy={y} r={(d * scale) / 2} {...line} />;
  };
  const said = close
    ? `Set close, each ${Math.round(before)} mm wide: they grow upward only, and their sides stay pale.`
    : `Each ${Math.round(before)} mm wide when it is set, ${Math.round(after)} when it comes out.`;
  return (
    <View style={styles.all} role="img" aria-label={`From above. ${said}`} testID="from-above">
      <Svg width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} aria-hidden>
        <Rect x={1} y={1} width={width - 2} height={HEIGHT - 2} fill="none" stroke={colours.rule} strokeWidth={1} />
        {Array.from({ length: n }, (_, i) => start + i * pitch * scale).flatMap((cx) => [
          outline(cx, before, true),
          outline(cx, close ? before : after, false),
        ])}
        <Line x1={10} y1={HEIGHT - 9} x2={10 + 50 * scale} y2={HEIGHT - 9} stroke={colours.ink} strokeWidth={1.6} />
      </Svg>
      <Small tone="faint">{`${said} The bar is 5 cm.`}</Small>
    </View>
  );
}

const styles = StyleSheet.create({ all: { alignItems: "center", gap: 4 } });
