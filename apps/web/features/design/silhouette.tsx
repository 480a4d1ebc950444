import type { Kind } from "@uprise/core";
import Svg, { Path } from "react-native-svg";
import { useColours } from "../../theme/theme";

/** Outlines of what comes out of the oven, in a box of 72 by 44 with the tray at 40. */
const outline: Record<Kind, string> = {
  loaf: "M14 40 L11 20 Q12 8 36 7 Q60 8 61 20 L58 40 Z M26 9 Q36 14 46 9",
  muffin:
    "M14 40 L10 22 Q4 18 12 12 Q24 4 30 14 Q34 19 30 22 L27 40 Z M45 40 L42 22 Q36 18 44 12 Q56 4 62 14 Q66 19 62 22 L58 40 Z",
  scone: "M8 40 L36 14 L64 40 Z M36 14 L36 40",
  bun: "M6 40 Q4 18 20 17 Q35 18 35 40 Z M37 40 Q37 18 52 17 Q68 18 66 40 Z",
  biscuit: "M8 40 L8 25 Q20 17 32 25 L32 40 Z M40 40 L40 25 Q52 17 64 25 L64 40 Z",
  "cornbread-plain": "M4 40 L8 24 Q34 17 60 24 L56 40 Z M60 28 L71 25",
  "cornbread-sweet": "M10 40 L10 23 Q36 15 62 23 L62 40 Z M27 20 L27 40 M45 20 L45 40",
  bar: "M8 40 L8 28 L64 28 L64 40 Z M22 28 L22 40 M36 28 L36 40 M50 28 L50 40",
  "tray-bread": "M4 40 L4 29 Q36 23 68 29 L68 40 Z",
  flatbread: "M6 40 Q6 34 36 33 Q66 34 66 40 Z M10 32 Q10 27 36 26 Q62 27 62 32",
  "pourable-batter": "M10 40 Q10 35 36 35 Q62 35 62 40 Z M12 34 Q12 29 36 29 Q60 29 60 34 M14 28 Q14 23 36 23 Q58 23 58 28",
  drop: "M6 40 Q8 24 15 22 Q20 16 27 23 Q34 28 34 40 Z M39 40 Q41 26 48 22 Q54 17 60 24 Q66 28 66 40 Z",
};

/** A kind of bake as it stands on the tray. */
export function Silhouette({ kind, width = 72 }: { kind: Kind; width?: number }) {
  const colours = useColours();
  return (
    <Svg width={width} height={(width * 44) / 72} viewBox="0 0 72 44" aria-hidden>
      <Path d={outline[kind]} fill={colours.sunk} stroke={colours.ink} strokeWidth={1.8} strokeLinejoin="round" />
      <Path d="M2 41 H70" stroke={colours.ink} strokeWidth={1.2} />
    </Svg>
  );
}
