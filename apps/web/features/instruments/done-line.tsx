import type { Simulation } from "@uprise/core";
import Svg, { Line, Path, Rect, Text } from "react-native-svg";
import { fonts } from "../../theme/scale";
import { useColours } from "../../theme/theme";

const HEIGHT = 118;
/** The stages stand on a row of their own below. */
const STAGES = { y: 120, height: 22 };
const LEFT = 12;
const LINE_Y = 66;
const FONT = 13;

const nice = (minutes: number): number => [5, 10, 15, 20, 30, 45, 60, 75, 90, 120, 180, 240].find((m) => m >= minutes) ?? minutes;

/** The three marks of a bake on one line of time: set, golden and dry above it, the window and the way out on it; in words beside it. */
export function DoneLine({ simulation, width = 340 }: { simulation: Simulation; width?: number }) {
  const colours = useColours();
  const { marks, done, minutes, checkAtMinutes, stages } = simulation;
  const staged = stages.length > 1;
  const height = staged ? STAGES.y + STAGES.height + 4 : HEIGHT;
  const whole = nice(1.08 * Math.max(done.high, minutes, marks.golden ?? 0));
  const x = (at: number): number => LEFT + ((width - 2 * LEFT) * Math.min(at, whole)) / whole;
  const step = whole <= 10 ? 1 : whole <= 30 ? 5 : whole <= 90 ? 10 : 30;
  const above = [
    { word: "set", at: marks.core },
    { word: "golden", at: marks.golden },
    { word: "dry", at: marks.dry },
  ]
    .filter((mark): mark is { word: string; at: number } => mark.at !== null)
    .sort((a, b) => a.at - b.at);
  // Words that would touch stand one over the other.
  const rows: number[] = [];
  const placed = above.map((mark) => {
    const half = (mark.word.length * FONT * 0.56) / 2 + 4;
    const middle = Math.min(width - half, Math.max(half, x(mark.at)));
    let row = 0;
    while ((rows[row] ?? -Infinity) > middle - half) row++;
    rows[row] = middle + half;
    return { ...mark, middle, row };
  });
  return (
    <Svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden>
      <Rect x={x(done.low)} y={LINE_Y - 6} width={Math.max(2, x(done.high) - x(done.low))} height={12} fill={colours.heat} />
      <Line x1={LEFT} y1={LINE_Y} x2={width - LEFT} y2={LINE_Y} stroke={colours.ink} strokeWidth={1.6} />
      {Array.from({ length: Math.floor(whole / step) + 1 }, (_, i) => i * step).map((at) => (
        <Line key={at} x1={x(at)} y1={LINE_Y} x2={x(at)} y2={LINE_Y + 5} stroke={colours.ink} strokeWidth={1} />
      ))}
      {placed.map(({ word, at, row }) => (
        <Line
          key={`${word} line`}
          x1={x(at)}
          y1={LINE_Y - 13 - row * (FONT + 5)}
          x2={x(at)}
          y2={LINE_Y - 1}
          stroke={colours.ink}
          strokeWidth={1.4}
        />
      ))}
      {placed.map(({ word, middle, row }) => {
        const y = LINE_Y - 16 - row * (FONT + 5);
        const half = (word.length * FONT * 0.56) / 2;
        // A word stands on paper of its own, so that the line of a higher one does not go through it.
        return [
          <Rect key={`${word} paper`} x={middle - half} y={y - FONT + 2} width={2 * half} height={FONT} fill={colours.paper} />,
          <Text key={word} x={middle} y={y} fontFamily={fonts.body} fontSize={FONT} textAnchor="middle" fill={colours.ink}>
            {word}
          </Text>,
        ];
      })}
      <Path d={`M${x(checkAtMinutes)} ${LINE_Y + 8} l-5 9 h10 z`} fill={colours.paper} stroke={colours.ink} strokeWidth={1.3} />
      <Text
        x={Math.max(26, Math.min(width - 60, x(checkAtMinutes)))}
        y={LINE_Y + 32}
        fontFamily={fonts.body}
        fontSize={FONT}
        textAnchor="middle"
        fill={colours.ink}
      >
        look
      </Text>
      <Path d={`M${x(minutes)} ${LINE_Y + 8} l-5 9 h10 z`} fill={colours.ink} />
      <Text
        x={Math.min(width - 16, Math.max(x(minutes), x(checkAtMinutes) + 34))}
        y={LINE_Y + 32}
        fontFamily={fonts.body}
        fontSize={FONT}

        textAnchor="middle"
        fill={colours.ink}
      >
        out
      </Text>
      <Text x={LEFT} y={LINE_Y + 48} fontFamily={fonts.body} fontSize={FONT - 1} fill={colours.faint}>
        0
      </Text>
      <Text x={width - LEFT} y={LINE_Y + 48} fontFamily={fonts.body} fontSize={FONT - 1} textAnchor="end" fill={colours.faint}>
        {`${Math.round(whole)} min`}
      </Text>
      {staged
        ? stages.map(({ from, to, covered }, k) => [
            <Rect
              key={`stage ${k}`}
              x={x(from)}
              y={STAGES.y}
              width={Math.max(1, x(to) - x(from))}
              height={STAGES.height}
              fill={covered ? colours.sunk : colours.paper}
              stroke={colours.ink}
              strokeWidth={1.2}
            />,
            <Text
              key={`number ${k}`}
              x={(x(from) + x(to)) / 2}
              y={STAGES.y + 16}
              fontFamily={fonts.body}
              fontSize={FONT}
              textAnchor="middle"
              fill={colours.ink}
            >
              {x(to) - x(from) > 12 ? String(k + 1) : ""}
            </Text>,
          ])
        : null}
    </Svg>
  );
}
