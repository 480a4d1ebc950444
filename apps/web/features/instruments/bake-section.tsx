import type { Simulation } from "@uprise/core";
import { useId } from "react";
import Svg, { ClipPath, Defs, G, Line, Path, Text as SvgText } from "react-native-svg";
import { mixed } from "../../theme/colours";
import { fonts } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { type FrameDrawing, type Rings, shadeFrom } from "../../workers/isotherms";
import { fillOf, Patterns } from "./patterns";

type Section = Simulation["section"];
type Frame = Section["frames"][number];

const WIDTH = 340;
const HEIGHT = 200;
const FLOOR = 176;
const ROOF = 14;
const MIDDLE = WIDTH / 2;

/** Deeper by a steeper step the hotter it is: what is done and what is crust must stand apart. */
const depthOf = (shade: number): number => 0.06 + 0.94 * (shade / shadeFrom.length) ** 1.7;

interface BakeSectionProps {
  section: Section;
  frame: Frame;
  /** The same moment as areas; until they are here only the outline stands. */
  drawing: FrameDrawing | null;
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

/** Upper face of a row (the top one where none is said) from the left wall over the middle to the right one, as points in mm. */
function outline(section: Section, frame: Frame, row = section.rows - 1): [number, number][] {
  const half = section.xMm.map((x, j): [number, number] => {
    const z = row < 0 ? 0 : (frame.z[j * section.rows + row] ?? 0);
    const inner = j === 0 ? 0 : (section.xMm[j - 1] ?? 0);
    return [wideAt(section, frame, (x + inner) / 2, z), z];
  });
  const edge = half.at(-1) ?? [0, 0];
  const last = section.xMm.at(-1) ?? 0;
  const right: [number, number][] = [...half, [wideAt(section, frame, last, edge[1]), edge[1]]];
  return [...right.map(([x, z]): [number, number] => [-x, z]).reverse(), ...right];
}

/**
 * The bake in section at one moment: isotherms filled by heat, what still flows stippled, the edge of the crust, the pan, and its rim. A second bake can lie over it
 * as an outline.
 */
export function BakeSection({ section, frame, drawing, tallestMm, other, width = WIDTH }: BakeSectionProps) {
  const colours = useColours();
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const widest = wideAt(section, frame, section.xMm.at(-1) ?? 1, section.rimMm ?? 0);
  const otherWidest = other ? wideAt(other.section, other.frame, other.section.xMm.at(-1) ?? 1, other.section.rimMm ?? 0) : 0;
  const tall = Math.max(tallestMm, section.rimMm ?? 0, 1);
  const scale = Math.min((FLOOR - ROOF) / tall, (MIDDLE - 16) / Math.max(widest, otherWidest, 1));
  const px = (x: number): string => (MIDDLE + x * scale).toFixed(1);
  const py = (z: number): string => (FLOOR - z * scale).toFixed(1);
  const area = (rings: Rings): string =>
    rings
      .map((ring) => {
        let path = "";
        for (let i = 0; i < ring.length; i += 2) path += `${i === 0 ? "M" : "L"}${px(ring[i] ?? 0)} ${py(ring[i + 1] ?? 0)}`;
        return `${path}Z`;
      })
      .join("");
  const line = (points: [number, number][]): string =>
    points.map(([x, z], k) => `${k === 0 ? "M" : "L"}${px(x)} ${py(z)}`).join("");
  const base = section.xMm.at(-1) ?? 1;
  const top = outline(section, frame);
  const foot = wideAt(section, frame, base, 0);
  const edge = `${line(top)}L${px(foot)} ${py(0)}L${px(-foot)} ${py(0)}`;
  const { rimMm } = section;
  return (
    <Svg width={width} height={(width * HEIGHT) / WIDTH} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      <Patterns id={id} soda={colours.soda} acid={colours.acid} batter={colours.set} />
      <Defs>
        <ClipPath id={`${id}-inside`}>
          <Path d={`${edge}Z`} />
        </ClipPath>
      </Defs>
      {drawing ? (
        <G clipPath={`url(#${id}-inside)`}>
          {drawing.shades.map((rings, shade) =>
            rings.length === 0 ? null : (
              <Path key={shade} d={area(rings)} fill={mixed(colours.paper, colours.heat, depthOf(shade + 1))} fillRule="evenodd" />
            ),
          )}
          {drawing.flowing.length === 0 ? null : <Path d={area(drawing.flowing)} fill={fillOf(id, "batter")} fillRule="evenodd" />}
          {drawing.crust.length === 0 ? null : (
            <Path d={area(drawing.crust)} fill="none" stroke={colours.ink} strokeWidth={1.3} strokeDasharray="1 2.5" />
          )}
        </G>
      ) : null}
      {section.layers.map(({ from, to }) => (
        <Path
          key={from}
          d={`${line(outline(section, frame, to))}${line(outline(section, frame, from - 1).reverse()).replace("M", "L")}Z`}
          fill={fillOf(id, "acid")}
          fillOpacity={0.55}
          stroke={colours.ink}
          strokeWidth={1.1}
          strokeLinejoin="round"
        />
      ))}
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
  const step = (WIDTH - 40) / (shadeFrom.length + 1);
  return (
    <Svg width={width} height={(width * 40) / WIDTH} viewBox={`0 0 ${WIDTH} 40`} aria-hidden>
      {[0, ...shadeFrom].map((from, shade) => (
        <Path
          key={from}
          d={`M${20 + shade * step} 4h${step}v14h${-step}z`}
          fill={mixed(colours.paper, colours.heat, shade === 0 ? 0 : depthOf(shade))}
          stroke={colours.rule}
          strokeWidth={0.75}
        />
      ))}
      {shadeFrom.map((end, band) => (
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
