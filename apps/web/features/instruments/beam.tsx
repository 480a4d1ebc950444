import type { Lift } from "@uprise/core";
import { useId } from "react";
import Svg, { Circle, G, Line, Path, Rect } from "react-native-svg";
import { useColours } from "../../theme/theme";
import { fillOf, Patterns } from "./patterns";

const WIDTH = 120;
const HEIGHT = 84;
const PIVOT = { x: 60, y: 20 };
const ARM = 41;
const HANG = 20;
/** Degrees at which the beam rests when only one side is there. */
const MOST_TILT = 17;

/** The beam between soda (left, dotted) and acid (right, hatched); what finds no partner hangs from the heavier side. */
export function Beam({ lift, width = WIDTH }: { lift: Lift; width?: number }) {
  const colours = useColours();
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const soda = lift.sodaMmol.mid;
  const acid = Math.max(0, lift.acidMmol.mid);
  const empty = lift.verdict === "no-lift" && soda < 1;
  const tilt = empty || soda + acid === 0 ? 0 : Math.max(-1, Math.min(1, ((soda - acid) / (soda + acid)) * 2.2)) * MOST_TILT;
  const radians = (tilt * Math.PI) / 180;
  const left = { x: PIVOT.x - ARM * Math.cos(radians), y: PIVOT.y + ARM * Math.sin(radians) };
  const right = { x: PIVOT.x + ARM * Math.cos(radians), y: PIVOT.y - ARM * Math.sin(radians) };
  const most = Math.max(soda, acid, 1);
  const block = (mmol: number): number => 15 * Math.sqrt(mmol / most);
  const unbalanced = lift.verdict === "short-of-acid" || lift.verdict === "acid-heavy";
  const heavy = soda >= acid ? left : right;
  return (
    <Svg width={width} height={(width * HEIGHT) / WIDTH} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      <Patterns id={id} soda={colours.soda} acid={colours.acid} batter={colours.set} />
      <Path d={`M${PIVOT.x} ${PIVOT.y} L54 80 H66 Z`} fill="none" stroke={colours.ink} strokeWidth={1.4} strokeLinejoin="round" />
      <Line x1={36} y1={80.5} x2={84} y2={80.5} stroke={colours.ink} strokeWidth={1.6} />
      <Pan at={left} size={block(soda)} fill={fillOf(id, "soda")} ink={colours.ink} edge={colours.soda} />
      <Pan at={right} size={block(acid)} fill={fillOf(id, "acid")} ink={colours.ink} edge={colours.acid} />
      <Line
        x1={left.x}
        y1={left.y}
        x2={right.x}
        y2={right.y}
        stroke={colours.ink}
        strokeWidth={3}
        strokeLinecap="round"
        strokeDasharray={empty ? "3 5" : "0"}
      />
      <Circle cx={PIVOT.x} cy={PIVOT.y} r={3.6} fill={colours.paper} stroke={colours.ink} strokeWidth={1.6} />
      {unbalanced ? (
        <G>
          <Line
            x1={heavy.x}
            y1={heavy.y + HANG + 3}
            x2={heavy.x}
            y2={heavy.y + HANG + 10}
            stroke={colours.stop}
            strokeWidth={1.6}
          />
          <Path d={`M${heavy.x} ${heavy.y + HANG + 9} l5.5 6.5 l-5.5 6.5 l-5.5 -6.5 Z`} fill={colours.stop} />
        </G>
      ) : null}
    </Svg>
  );
}

function Pan({
  at,
  size,
  fill,
  ink,
  edge,
}: {
  at: { x: number; y: number };
  size: number;
  fill: string;
  ink: string;
  edge: string;
}) {
  const y = at.y + HANG;
  const wide = 8 + size * 0.35;
  return (
    <G>
      <Path d={`M${at.x} ${at.y} L${at.x - 14} ${y} M${at.x} ${at.y} L${at.x + 14} ${y}`} stroke={ink} strokeWidth={1} />
      {size > 0.4 ? (
        <Rect
          x={at.x - wide / 1.3}
          y={y - size}
          width={(wide * 2) / 1.3}
          height={size}
          fill={fill}
          stroke={edge}
          strokeWidth={1.2}
        />
      ) : null}
      <Path d={`M${at.x - 15} ${y} Q${at.x} ${y + 7} ${at.x + 15} ${y} Z`} fill={ink} />
    </G>
  );
}
