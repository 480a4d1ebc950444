import type { Race } from "@uprise/core";
import Svg, { Line, Path, Text as SvgText } from "react-native-svg";
import { fonts } from "../../theme/scale";
import { useColours } from "../../theme/theme";

const WIDTH = 340;
const HEIGHT = 172;
const BOX = { left: 8, right: 332, top: 22, bottom: 140 };

/** The race: gas released (solid) and crumb set (dashed) over one time axis, with the oven's door, or the plate, between bench and heat. */
export function RaceDrawing({ race, hob, width = WIDTH }: { race: Race; hob: boolean; width?: number }) {
  const colours = useColours();
  const first = race.minutes[0] ?? 0;
  const last = race.minutes.at(-1) ?? 1;
  const x = (minute: number): number => BOX.left + ((minute - first) / Math.max(last - first, 1e-9)) * (BOX.right - BOX.left);
  const y = (share: number): number => BOX.bottom - share * (BOX.bottom - BOX.top);
  const path = (curve: readonly number[]): string =>
    curve.map((share, i) => `${i === 0 ? "M" : "L"}${x(race.minutes[i] ?? 0).toFixed(1)} ${y(share).toFixed(1)}`).join(" ");
  const door = x(0);
  // Beside the line that it names, on the side that has room.
  const isLate = door > BOX.right - 96;
  const label = { fontFamily: fonts.body, fontSize: 13 };
  return (
    <Svg width={width} height={(width * HEIGHT) / WIDTH} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      <Line x1={BOX.left} y1={BOX.bottom} x2={BOX.right} y2={BOX.bottom} stroke={colours.ink} strokeWidth={1.6} />
      <Line x1={door} y1={BOX.top - 8} x2={door} y2={BOX.bottom + 6} stroke={colours.heat} strokeWidth={2} />
      <Path d={path(race.gas)} fill="none" stroke={colours.gas} strokeWidth={3.2} />
      <Path d={path(race.set)} fill="none" stroke={colours.set} strokeWidth={3.2} strokeDasharray="7 5" />
      <SvgText x={BOX.left} y={BOX.bottom + 22} fill={colours.faint} {...label}>
        bench
      </SvgText>
      <SvgText
        x={isLate ? door - 6 : door + 6}
        y={BOX.top - 6}
        textAnchor={isLate ? "end" : "start"}
        fill={colours.heat}
        {...label}
      >
        {hob ? "onto the plate" : "into the oven"}
      </SvgText>
      <SvgText x={BOX.right} y={BOX.bottom + 22} textAnchor="end" fill={colours.faint} {...label}>
        {Math.round(last)} min
      </SvgText>
    </Svg>
  );
}

/** The race in words. */
export function raceSentence(race: Race, hob: boolean): string {
  const [before, within] = hob ? ["the plate", "on the plate"] : ["the oven", "in the oven"];
  const door = race.minutes.findIndex((minute) => minute >= 0);
  const atDoor = race.gas[door] ?? 0;
  const half = race.set.findIndex((share) => share >= 0.5);
  const when =
    half < 0
      ? "the crumb does not set in this time"
      : `half of the crumb is set after ${Math.round(race.minutes[half] ?? 0)} min ${within}, and by then ${Math.round(100 * race.beforeSet)} % of the gas is out`;
  return `${Math.round(100 * atDoor)} % of the gas is out before ${before}; ${when}.`;
}
