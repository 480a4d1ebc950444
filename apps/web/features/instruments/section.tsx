import type { Fill, Vessel } from "@uprise/core";
import { useId } from "react";
import Svg, { Line, Path, Rect } from "react-native-svg";
import { useColours } from "../../theme/theme";
import { fillOf, Patterns } from "./patterns";

const WIDTH = 120;
const HEIGHT = 84;
const FLOOR = 76;
const TALL = 52;

/** The pan in section: batter line, crown as expected (dashed), rim. Pieces without a wall stand on their sheet. */
export function FillSection({ fill, vessel, width = WIDTH }: { fill: Fill; vessel: Vessel; width?: number }) {
  const colours = useColours();
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const rim = fill.rimMm;
  const { crownMm } = fill;
  const tallest = Math.max(rim ?? 0, crownMm?.high ?? 0, fill.depthMm, 1);
  const scale = TALL / tallest;
  const free = rim === null;
  const cup = vessel.shape === "muffin";
  const half = free ? 19 : cup ? 30 : 44;
  const lean = cup ? 7 : free ? 0 : 3;
  const depth = fill.depthMm * scale;
  const crown = (crownMm?.mid ?? fill.depthMm) * scale;
  const wallTop = (rim ?? 0) * scale;
  const at = (height: number): number => half + (free ? 0 : (lean * height) / Math.max(wallTop, 1));
  return (
    <Svg width={width} height={(width * HEIGHT) / WIDTH} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      <Patterns id={id} soda={colours.soda} acid={colours.acid} batter={colours.set} />
      {(free ? [34, 86] : [60]).map((x) => (
        <Path
          key={x}
          d={`M${x - half} ${FLOOR} L${x - at(Math.min(depth, wallTop || depth))} ${FLOOR - depth} H${x + at(Math.min(depth, wallTop || depth))} L${x + half} ${FLOOR} Z`}
          fill={fillOf(id, "batter")}
          stroke={colours.set}
          strokeWidth={1.5}
        />
      ))}
      {(crownMm ? (free ? [34, 86] : [60]) : []).map((x) => {
        const w = free ? half + 4 : at(Math.min(crown, wallTop));
        const edge = free ? FLOOR - crown * 0.55 : FLOOR - Math.max(depth, Math.min(crown * 0.8, crown - 2));
        return (
          <Path
            key={`c${x}`}
            d={`M${x - w} ${free ? FLOOR : edge} Q${x - w} ${edge - (free ? 0 : 1)} ${x - w * 0.6} ${FLOOR - crown * 0.94} Q${x} ${FLOOR - crown * 1.05} ${x + w * 0.6} ${FLOOR - crown * 0.94} Q${x + w} ${edge - (free ? 0 : 1)} ${x + w} ${free ? FLOOR : edge}`}
            fill="none"
            stroke={fill.overflow ? colours.stop : colours.ink}
            strokeWidth={1.8}
            strokeDasharray="4 3"
          />
        );
      })}
      {free ? (
        <Rect x={6} y={FLOOR + 1} width={108} height={3} fill={colours.ink} />
      ) : (
        <Path
          d={`M${60 - half - lean - 5} ${FLOOR - wallTop} H${60 - half - lean} L${60 - half} ${FLOOR + 1.5} H${60 + half} L${60 + half + lean} ${FLOOR - wallTop} H${60 + half + lean + 5}`}
          fill="none"
          stroke={colours.ink}
          strokeWidth={2.6}
          strokeLinejoin="round"
        />
      )}
      {fill.overflow ? (
        <>
          <Line
            x1={8}
            y1={FLOOR - wallTop + 4}
            x2={8}
            y2={FLOOR - wallTop + 16}
            stroke={colours.stop}
            strokeWidth={3}
            strokeLinecap="round"
          />
          <Line
            x1={112}
            y1={FLOOR - wallTop + 4}
            x2={112}
            y2={FLOOR - wallTop + 13}
            stroke={colours.stop}
            strokeWidth={3}
            strokeLinecap="round"
          />
        </>
      ) : null}
    </Svg>
  );
}
