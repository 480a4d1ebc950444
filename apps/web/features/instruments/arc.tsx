import type { Bake } from "@uprise/core";
import Svg, { Circle, Line, Path } from "react-native-svg";
import { useColours } from "../../theme/theme";

const WIDTH = 120;
const HEIGHT = 84;
const CENTRE = { x: 60, y: 72 };
const RADIUS = 48;

const nice = (minutes: number): number =>
  [5, 10, 15, 20, 30, 45, 60, 75, 90, 120, 180, 240].find((m) => m >= minutes) ?? Math.ceil(minutes / 60) * 60;

/** An arc of time with the window in which the bake is done; the hand stands at the middle, the notch at the first look, the recipe's own minutes outside. */
export function BakeArc({
  bake,
  said,
  width = WIDTH,
}: {
  bake: Bake;
  /** The recipe's own minutes. */
  said?: { low: number; high: number } | undefined;
  width?: number;
}) {
  const colours = useColours();
  const whole = nice(Math.max(bake.minutes.high, said?.high ?? 0) * 1.12);
  const point = (minutes: number, radius: number): { x: number; y: number } => {
    const angle = Math.PI * (1 - Math.min(1, minutes / whole));
    return { x: CENTRE.x + radius * Math.cos(angle), y: CENTRE.y - radius * Math.sin(angle) };
  };
  const arc = (from: number, to: number, radius: number): string => {
    const a = point(from, radius);
    const b = point(to, radius);
    return `M${a.x} ${a.y} A${radius} ${radius} 0 0 1 ${b.x} ${b.y}`;
  };
  const step = whole <= 10 ? 1 : whole <= 30 ? 5 : whole <= 90 ? 10 : 30;
  const ticks = Array.from({ length: Math.floor(whole / step) + 1 }, (_, i) => i * step);
  const hand = point(bake.minutes.mid, RADIUS - 12);
  const look = point(bake.checkAtMinutes, RADIUS - 15);
  return (
    <Svg width={width} height={(width * HEIGHT) / WIDTH} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      <Path d={arc(0, whole, RADIUS)} fill="none" stroke={colours.ink} strokeWidth={1.4} />
      {ticks.map((minutes) => {
        const a = point(minutes, RADIUS);
        const b = point(minutes, RADIUS + 5);
        return <Line key={minutes} x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke={colours.ink} strokeWidth={1.2} />;
      })}
      <Path d={arc(bake.minutes.low, bake.minutes.high, RADIUS - 6)} fill="none" stroke={colours.heat} strokeWidth={9} />
      {said ? (
        <>
          <Path
            d={arc(said.low, Math.max(said.high, said.low + 0.008 * whole), RADIUS + 8)}
            fill="none"
            stroke={colours.ink}
            strokeWidth={3}
          />
          {[said.low, said.high].map((minutes, end) => {
            const a = point(minutes, RADIUS + 2);
            const b = point(minutes, RADIUS + 12);
            return <Line key={end} x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke={colours.ink} strokeWidth={2.2} />;
          })}
        </>
      ) : null}
      <Line x1={CENTRE.x} y1={CENTRE.y} x2={hand.x} y2={hand.y} stroke={colours.ink} strokeWidth={2.4} strokeLinecap="round" />
      <Circle cx={look.x} cy={look.y} r={2.6} fill={colours.paper} stroke={colours.ink} strokeWidth={1.4} />
      <Circle cx={CENTRE.x} cy={CENTRE.y} r={4} fill={colours.ink} />
      <Line x1={8} y1={CENTRE.y + 6} x2={112} y2={CENTRE.y + 6} stroke={colours.ink} strokeWidth={1.6} />
    </Svg>
  );
}
