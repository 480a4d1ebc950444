import Svg, { Line, Path, Rect } from "react-native-svg";
import { useColours } from "../../theme/theme";

const WIDTH = 150;
const HEIGHT = 30;
const EDGE = 6;
const AXIS = 20;

interface BandRangeProps {
  low: number;
  high: number;
  value: number;
  width?: number;
}

/** What is usual as a bar on a line, with a mark where this formula stands; outside of the bar the mark is hollow. */
export function BandRange({ low, high, value, width = WIDTH }: BandRangeProps) {
  const colours = useColours();
  const span = Math.max(high - low, 1e-6);
  // The line shows half a band on either side; what is farther out stands at its end, with an arrow.
  const from = Math.max(0, low - span / 2);
  const to = high + span / 2;
  const x = (v: number): number => EDGE + ((WIDTH - 2 * EDGE) * (Math.min(to, Math.max(from, v)) - from)) / (to - from);
  const out = value < low - 1e-9 || value > high + 1e-9;
  const beyond = value > to ? 1 : value < from ? -1 : 0;
  const at = x(value);
  return (
    <Svg width={width} height={(width * HEIGHT) / WIDTH} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      <Line x1={EDGE} y1={AXIS} x2={WIDTH - EDGE} y2={AXIS} stroke={colours.rule} strokeWidth={1.5} />
      <Rect x={x(low)} y={AXIS - 4} width={Math.max(3, x(high) - x(low))} height={8} fill={colours.good} fillOpacity={0.35} />
      <Line x1={x(low)} y1={AXIS - 5} x2={x(low)} y2={AXIS + 5} stroke={colours.good} strokeWidth={1.5} />
      <Line x1={x(high)} y1={AXIS - 5} x2={x(high)} y2={AXIS + 5} stroke={colours.good} strokeWidth={1.5} />
      {beyond === 0 ? (
        <Path
          d={`M${at} ${AXIS - 2}l-6 -12h12z`}
          fill={out ? colours.paper : colours.ink}
          stroke={out ? colours.caution : colours.ink}
          strokeWidth={2}
        />
      ) : (
        <Path d={`M${at} ${AXIS}l${-9 * beyond} -7v14z`} fill={colours.paper} stroke={colours.caution} strokeWidth={2} />
      )}
    </Svg>
  );
}
