import type { Trial } from "@uprise/core";
import { middleOf } from "@uprise/core/page-log";
import Svg, { Line, Path } from "react-native-svg";
import { useColours } from "../../theme/theme";

/** Heights across and the width of one outline, mm. */
export interface Outline {
  key: string;
  heightsMm: readonly number[];
  widthMm: number;
  /** How it is drawn: behind and filled, or a line with its own dash. */
  style: "behind" | 0 | 1 | 2 | 3;
}

const DASH = ["", "9 4", "2 4", "10 4 2 4"];

/** The profile of a trial as it was measured; one height is drawn with the shape that was predicted. Null where nothing was. */
export function heightsOf({ measured, predicted }: Pick<Trial, "measured" | "predicted">): readonly number[] | null {
  if (measured.heightsMm) return measured.heightsMm;
  const middle = middleOf(measured);
  if (middle === null) return null;
  const shape = predicted?.heightsMm;
  const top = shape?.[2] ?? 0;
  return shape && top > 0
    ? shape.map((height) => (height * middle) / top)
    : [0.75, 0.95, 1, 0.95, 0.75].map((share) => share * middle);
}

const PLACES = [0, 0.25, 0.5, 0.75, 1];

/** A smooth line through the heights, closed along the base. */
function outlinePath(heights: readonly number[], x: (share: number) => number, y: (mm: number) => number): string {
  const points = heights.map((height, k): [number, number] => [x(PLACES[k] ?? 0), y(height)]);
  const [first, last] = [points[0] ?? [0, 0], points.at(-1) ?? [0, 0]];
  const curve = points.slice(1).map(([px, py], k) => {
    const [qx, qy] = points[k] ?? [0, 0];
    const middle = (qx + px) / 2;
    return `C${middle} ${qy} ${middle} ${py} ${px} ${py}`;
  });
  return `M${first[0]} ${y(0)} L${first[0]} ${first[1]} ${curve.join(" ")} L${last[0]} ${y(0)} Z`;
}

interface ProfilesProps {
  outlines: readonly Outline[];
  width?: number;
  height?: number;
  label: string;
}

/** Silhouettes laid over each other on one base line, all to one scale: what was predicted behind, what came out over it. */
export function Profiles({ outlines, width = 320, height = 150, label }: ProfilesProps) {
  const colours = useColours();
  const widest = Math.max(1, ...outlines.map(({ widthMm }) => widthMm));
  const tallest = Math.max(1, ...outlines.flatMap(({ heightsMm }) => heightsMm));
  const scale = Math.min((width - 16) / widest, (height - 20) / tallest);
  const base = height - 8;
  const inks = [colours.ink, colours.heat, colours.soda, colours.set];
  return (
    <Svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} {...(label === "" ? { "aria-hidden": true } : { role: "img" as const, "aria-label": label })}>
      {outlines.map(({ key, heightsMm, widthMm, style }) => {
        const half = (widthMm * scale) / 2;
        const path = outlinePath(heightsMm, (share) => width / 2 - half + share * 2 * half, (mm) => base - mm * scale);
        return style === "behind" ? (
          <Path key={key} d={path} fill={colours.sunk} stroke={colours.faint} strokeWidth={1} strokeDasharray="3 3" />
        ) : (
          <Path key={key} d={path} fill="none" stroke={inks[style] ?? colours.ink} strokeWidth={2.4} strokeDasharray={DASH[style] ?? ""} strokeLinejoin="round" />
        );
      })}
      <Line x1={4} x2={width - 4} y1={base} y2={base} stroke={colours.strongRule} strokeWidth={1.5} />
    </Svg>
  );
} // prettier-ignore

/** The outlines of one trial: what was predicted behind what was measured. */
export function outlinesOf(trial: Trial, key: string, style: 0 | 1 | 2 | 3 = 0): Outline[] {
  const heights = heightsOf(trial);
  const widthMm = trial.predicted?.widthMm ?? 100;
  return [
    ...(trial.predicted ? [{ key: `${key}-p`, heightsMm: trial.predicted.heightsMm, widthMm, style: "behind" as const }] : []),
    ...(heights ? [{ key, heightsMm: heights, widthMm, style }] : []),
  ];
}
