import type { Body } from "@uprise/core";
import { useId } from "react";
import Svg, { Ellipse, Line, Path } from "react-native-svg";
import { useColours } from "../../theme/theme";
import { fillOf, Patterns } from "./patterns";

const WIDTH = 120;
const HEIGHT = 84;
const TOP = 17;
const FLOOR = 80;

/** A ribbon of batter falling from a spoon: thin and long when it pours, a lump on the spoon when it is a dough. */
export function Ribbon({ body, width = WIDTH }: { body: Body; width?: number }) {
  const colours = useColours();
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const v = Math.max(0.2, Math.min(3.6, body.stiffness.mid));
  const half = 1.6 + 4.2 * Math.min(v, 2.4);
  const falls = v < 1.75;
  const pool = { rx: Math.max(11, 40 / (v + 0.45)), ry: 2.4 + 2.6 * v };
  const end = falls ? FLOOR - pool.ry * 1.5 : TOP + Math.max(9, 44 * (1 - (v - 1.75) / 1.7));
  const crumbles = body.consistency === "crumbly";
  return (
    <Svg width={width} height={(width * HEIGHT) / WIDTH} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      <Patterns id={id} soda={colours.soda} acid={colours.acid} batter={colours.set} />
      <Line x1={14} y1={FLOOR + 0.5} x2={106} y2={FLOOR + 0.5} stroke={colours.ink} strokeWidth={1.6} />
      {crumbles ? (
        <Path
          d="M52 34 h5 v4 h-5 Z M66 44 h4 v4 h-4 Z M58 58 h6 v4 h-6 Z M47 70 h6 v5 h-6 Z M70 68 h5 v5 h-5 Z"
          fill={fillOf(id, "batter")}
          stroke={colours.set}
          strokeWidth={1.2}
        />
      ) : (
        <Path
          d={ribbonPath(half, end, falls)}
          fill={fillOf(id, "batter")}
          stroke={colours.set}
          strokeWidth={1.5}
          strokeLinejoin="round"
        />
      )}
      {falls ? (
        <Ellipse
          cx={60}
          cy={FLOOR - pool.ry * 0.55}
          rx={pool.rx}
          ry={pool.ry}
          fill={fillOf(id, "batter")}
          stroke={colours.set}
          strokeWidth={1.5}
        />
      ) : null}
      <Path d="M40 9 Q60 -2 80 9 Q60 26 40 9 Z" fill={colours.paper} stroke={colours.ink} strokeWidth={1.6} />
      <Line x1={79} y1={8.6} x2={116} y2={2.5} stroke={colours.ink} strokeWidth={3.2} strokeLinecap="round" />
    </Svg>
  );
}

/** Edges that draw in as the ribbon falls; a dough ends in a round. */
function ribbonPath(half: number, end: number, falls: boolean): string {
  const neck = falls ? half * 0.55 : half * 1.05;
  const middle = (TOP + end) / 2;
  const tip = falls
    ? `L${60 + neck} ${end} L${60 - neck} ${end}`
    : `Q${60 + half} ${end} 60 ${end} Q${60 - half} ${end} ${60 - neck} ${middle}`;
  return falls
    ? `M${60 - half} ${TOP - 4} Q${60 - neck} ${middle} ${60 - neck} ${end} ${tip.replace(/^L\S+ \S+ /, "")} L${60 + neck} ${end} Q${60 + neck} ${middle} ${60 + half} ${TOP - 4} Z`
    : `M${60 - half} ${TOP - 4} Q${60 - half * 1.2} ${middle} ${60 - neck} ${middle} Q${60 - half} ${end} 60 ${end} Q${60 + half} ${end} ${60 + neck} ${middle} Q${60 + half * 1.2} ${middle} ${60 + half} ${TOP - 4} Z`;
}
