import type { Simulation } from "@uprise/core";
import { useId } from "react";
import Svg, { Line, Path, Text as SvgText } from "react-native-svg";
import { fonts } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { fillOf, Patterns } from "./patterns";

type Section = Simulation["section"];
type Frame = Section["frames"][number];

const WIDTH = 340;
const HEIGHT = 200;
const FLOOR = 176;
const ROOF = 14;
const MIDDLE = WIDTH / 2;
/** Upper ends of the shades, °C; the last is open. */
export const shades = [30, 45, 60, 70, 80, 90, 97, 105] as const;
/** A crumb flows until so much of it has set. */
const FLOWS_UNDER = 0.65;

/** Deeper by a steeper step the hotter it is: what is done and what is crust must stand apart. */
const opacityOf = (band: number): number => 0.05 + 0.95 * (band / shades.length) ** 1.7;
const bandOf = (celsius: number): number => {
  const found = shades.findIndex((end) => celsius < end);
  return found < 0 ? shades.length : found;
};

interface BakeSectionProps {
  section: Section;
  frame: Frame;
  /** Height that must fit, mm: the highest of all that is compared. */
  tallestMm: number;
  /** Another bake's outline at the same moment, drawn over this one. */
  other?: { section: Section; frame: Frame } | null;
  width?: number;
}

/** Half-width over height of a section at one moment, mm. */
const wideAt = (section: Section, frame: Frame, x: number, z: number): number => {
  const { flare, rimMm } = section;
  if (rimMm === null) return x * frame.spread;
  return x * (1 + (flare - 1) * Math.min(1, Math.max(0, z / rimMm)));
};

/** Top line of a section from the left wall over the middle to the right one, as points in mm. */
function outline(section: Section, frame: Frame): [number, number][] {
  const half = section.xMm.map((x, j): [number, number] => {
    const z = frame.z[(j + 1) * section.rows - 1] ?? 0;
    const inner = j === 0 ? 0 : (section.xMm[j - 1] ?? 0);
    return [wideAt(section, frame, (x + inner) / 2, z), z];
  });
  const edge = half.at(-1) ?? [0, 0];
  const last = section.xMm.at(-1) ?? 0;
  const right: [number, number][] = [...half, [wideAt(section, frame, last, edge[1]), edge[1]]];
  return [...right.map(([x, z]): [number, number] => [-x, z]).reverse(), ...right];
}

/**
 * The bake in section at one moment: temperature as shade, what still flows stippled, the pan, and its rim. A second bake can lie over it
 * as an outline.
 */
export function BakeSection({ section, frame, tallestMm, other, width = WIDTH }: BakeSectionProps) {
  const colours = useColours();
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const widest = wideAt(section, frame, section.xMm.at(-1) ?? 1, section.rimMm ?? 0);
  const otherWidest = other ? wideAt(other.section, other.frame, other.section.xMm.at(-1) ?? 1, other.section.rimMm ?? 0) : 0;
  const tall = Math.max(tallestMm, section.rimMm ?? 0, 1);
  const scale = Math.min((FLOOR - ROOF) / tall, (MIDDLE - 16) / Math.max(widest, otherWidest, 1));
  const px = (x: number): string => (MIDDLE + x * scale).toFixed(1);
  const py = (z: number): string => (FLOOR - z * scale).toFixed(1);
  const bands: string[] = Array.from({ length: shades.length + 1 }, () => "");
  let flowing = "";
  section.xMm.forEach((outer, j) => {
    const inner = j === 0 ? 0 : (section.xMm[j - 1] ?? 0);
    for (let i = 0; i < section.rows; i++) {
      const cell = j * section.rows + i;
      const top = frame.z[cell] ?? 0;
      const low = i === 0 ? 0 : (frame.z[cell - 1] ?? 0);
      const corner = (x: number, z: number): number => wideAt(section, frame, x, z);
      for (const side of [1, -1]) {
        const path = `M${px(side * corner(inner, low))} ${py(low)}L${px(side * corner(outer, low))} ${py(low)}L${px(side * corner(outer, top))} ${py(top)}L${px(side * corner(inner, top))} ${py(top)}Z`;
        bands[bandOf(frame.celsius[cell] ?? 0)] += path;
        if ((frame.set[cell] ?? 0) < FLOWS_UNDER) flowing += path;
      }
    }
  });
  const line = (points: [number, number][]): string =>
    points.map(([x, z], k) => `${k === 0 ? "M" : "L"}${px(x)} ${py(z)}`).join("");
  const base = section.xMm.at(-1) ?? 1;
  const { rimMm } = section;
  return (
    <Svg width={width} height={(width * HEIGHT) / WIDTH} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      <Patterns id={id} soda={colours.soda} acid={colours.acid} batter={colours.set} />
      {bands.map((path, band) =>
        path === "" ? null : <Path key={band} d={path} fill={colours.heat} fillOpacity={opacityOf(band)} />,
      )}
      {flowing === "" ? null : <Path d={flowing} fill={fillOf(id, "batter")} />}
      <Path d={line(outline(section, frame))} fill="none" stroke={colours.ink} strokeWidth={2} strokeLinejoin="round" />
      {other ? (
        <Path
          d={line(outline(other.section, other.frame))}
          fill="none"
          stroke={colours.soda}
          strokeWidth={2.4}
          strokeDasharray="7 5"
          strokeLinejoin="round"
        />
      ) : null}
      {rimMm === null ? (
        <Line x1={10} y1={FLOOR + 2} x2={WIDTH - 10} y2={FLOOR + 2} stroke={colours.ink} strokeWidth={3.5} />
      ) : (
        <>
          <Path
            d={`M${px(-base * section.flare)} ${py(rimMm)}L${px(-base)} ${Number(py(0)) + 1.5}L${px(base)} ${Number(py(0)) + 1.5}L${px(base * section.flare)} ${py(rimMm)}`}
            fill="none"
            stroke={colours.ink}
            strokeWidth={3.5}
            strokeLinejoin="round"
          />
          <Line x1={2} y1={py(rimMm)} x2={WIDTH - 2} y2={py(rimMm)} stroke={colours.faint} strokeWidth={1} strokeDasharray="2 4" />
          <SvgText x={4} y={Number(py(rimMm)) - 4} fill={colours.faint} fontFamily={fonts.body} fontSize={12}>
            rim
          </SvgText>
        </>
      )}
    </Svg>
  );
}

/** What the shades mean, in a row. */
export function Shades({ width = WIDTH }: { width?: number }) {
  const colours = useColours();
  const step = (WIDTH - 40) / (shades.length + 1);
  return (
    <Svg width={width} height={(width * 40) / WIDTH} viewBox={`0 0 ${WIDTH} 40`} aria-hidden>
      {[...shades, 120].map((end, band) => (
        <Path
          key={end}
          d={`M${20 + band * step} 4h${step}v14h${-step}z`}
          fill={colours.heat}
          fillOpacity={opacityOf(band)}
          stroke={colours.rule}
          strokeWidth={0.75}
        />
      ))}
      {shades.map((end, band) => (
        <SvgText
          key={end}
          x={20 + (band + 1) * step}
          y={32}
          textAnchor="middle"
          fill={colours.faint}
          fontFamily={fonts.body}
          fontSize={12}
        >
          {end}
        </SvgText>
      ))}
      <SvgText x={WIDTH - 2} y={16} textAnchor="end" fill={colours.faint} fontFamily={fonts.body} fontSize={12}>
        °C
      </SvgText>
    </Svg>
  );
}
