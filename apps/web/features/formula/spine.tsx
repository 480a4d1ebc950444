import { memo, useId } from "react";
import Svg, { Line, Rect } from "react-native-svg";
import { useColours } from "../../theme/theme";
import { fillOf, Patterns } from "../instruments/patterns";

const WIDTH = 56;
const HEIGHT = 54;
const HALF = WIDTH / 2;

/** What one line pulls: soda to the left (dotted), acid to the right (hatched), on the spine of the sheet. */
export const Spine = memo(function Spine({
  soda,
  acid,
  most,
  plain = false,
}: {
  soda: number;
  acid: number;
  most: number;
  /** Beside the batter nothing pulls: only what one takes hold of. */
  plain?: boolean;
}) {
  const colours = useColours();
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const long = (mmol: number): number => (mmol < 0.05 ? 0 : (HALF - 3) * Math.sqrt(Math.min(1, mmol / most)));
  const alkali = soda + Math.max(0, -acid);
  return (
    <Svg width={WIDTH} height={HEIGHT} aria-hidden>
      <Patterns id={id} soda={colours.soda} acid={colours.acid} batter={colours.set} />
      {alkali > 0.05 ? (
        <Rect
          x={HALF - long(alkali)}
          y={18}
          width={long(alkali)}
          height={16}
          fill={fillOf(id, "soda")}
          stroke={colours.soda}
          strokeWidth={1.2}
        />
      ) : null}
      {acid > 0.05 ? (
        <Rect x={HALF} y={18} width={long(acid)} height={16} fill={fillOf(id, "acid")} stroke={colours.acid} strokeWidth={1.2} />
      ) : null}
      <Line
        x1={HALF}
        y1={0}
        x2={HALF}
        y2={HEIGHT}
        stroke={plain ? colours.rule : colours.ink}
        strokeWidth={1.6}
        {...(plain ? { strokeDasharray: "2 5" } : {})}
      />
      <Line x1={HALF - 3} y1={HEIGHT / 2} x2={HALF + 3} y2={HEIGHT / 2} stroke={colours.ink} strokeWidth={1.6} />
    </Svg>
  );
});
