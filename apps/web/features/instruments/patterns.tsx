import { Circle, Defs, Line, Pattern, Rect } from "react-native-svg";

/** Soda is dotted, acid is hatched, batter is stippled: the marks that stand beside the hues. */
export function Patterns({ id, soda, acid, batter }: { id: string; soda: string; acid: string; batter: string }) {
  return (
    <Defs>
      <Pattern id={`${id}-soda`} width={5} height={5} patternUnits="userSpaceOnUse">
        <Rect width={5} height={5} fill={soda} fillOpacity={0.18} />
        <Circle cx={2.5} cy={2.5} r={1.35} fill={soda} />
      </Pattern>
      <Pattern id={`${id}-acid`} width={5} height={5} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <Rect width={5} height={5} fill={acid} fillOpacity={0.18} />
        <Line x1={0} y1={0} x2={0} y2={5} stroke={acid} strokeWidth={2.6} />
      </Pattern>
      <Pattern id={`${id}-batter`} width={7} height={7} patternUnits="userSpaceOnUse">
        <Rect width={7} height={7} fill={batter} fillOpacity={0.16} />
        <Circle cx={1.5} cy={1.8} r={0.8} fill={batter} />
        <Circle cx={5} cy={5.2} r={0.8} fill={batter} />
      </Pattern>
    </Defs>
  );
}

export const fillOf = (id: string, pattern: "soda" | "acid" | "batter"): string => `url(#${id}-${pattern})`;
