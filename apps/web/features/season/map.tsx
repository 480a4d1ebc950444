import type { RunState, Season, SeasonState } from "@uprise/core";
import { factorName, qualityOf } from "@uprise/core/page-log";
import { useQuery } from "@tanstack/react-query";
import { ask } from "../../device/workers";
import { keys } from "../wire/keys";
import { StyleSheet, View } from "react-native";
import Svg, { Circle, G, Path, Rect, Text as Words } from "react-native-svg";
import { fonts, space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Table } from "../../ui/facts";
import { Why } from "../../ui/why";
import { Body, Heading, Small } from "../../ui/words";

const [W, H] = [330, 240];
const [LEFT, BOTTOM, TOP, RIGHT] = [44, 34, 10, 10];
const LINES = 6;
/** Where the doubt is so much of the largest there is little known: hatched. */
const UNKNOWN = 0.75;

/** The lines of a map, drawn beside the page. */
const useLines = (map: SeasonState["map"]) =>
  useQuery({
    queryKey: keys.lines.of(map),
    enabled: map !== null,
    staleTime: Infinity,
    queryFn: async () => {
      const [means, doubts] = [map?.mean.flat() ?? [], map?.sd.flat() ?? []];
      const [least, most] = [Math.min(...means), Math.max(...means)];
      const columns = map?.xs.length ?? 1;
      const thresholds = Array.from({ length: LINES }, (_, k) => least + ((most - least) * (k + 0.5)) / LINES);
      const [mean, unknown] = await Promise.all([ask("isolines", columns, means, thresholds), ask("isolines", columns, doubts, [UNKNOWN * Math.max(...doubts)])]);
      return { mean, unknown };
    },
  }); // prettier-ignore

/** The first wish over the two things that tell most: lines of one height, hatched where little is known, bakes as dots, the best one ringed. */
export function WishMap({ season, state }: { season: Season; state: SeasonState }) {
  const colours = useColours();
  const { map } = state;
  const { data: lines } = useLines(map);
  const wish = season.goals.find(({ wish: is }) => is !== undefined);
  const [x, y] = [season.factors.find(({ id }) => id === map?.x), season.factors.find(({ id }) => id === map?.y)];
  if (!map || !wish || !x || !y) return null;
  const quality = qualityOf(wish.quality);
  const [nx, ny] = [map.xs.length, map.ys.length];
  const values = map.mean.flat();
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const px = (i: number): number => LEFT + ((W - LEFT - RIGHT) * i) / (nx - 1);
  const py = (j: number): number => H - BOTTOM - ((H - BOTTOM - TOP) * j) / (ny - 1);
  const path = (rings: readonly (readonly (readonly number[])[])[]): string =>
    rings.map((ring) => `M${ring.map(([a = 0, b = 0]) => `${px(a).toFixed(1)} ${py(b).toFixed(1)}`).join("L")}Z`).join("");
  const place = (run: RunState, id: string, all: readonly number[]): number => {
    const value = run.settings[id];
    const [low, high] = [all[0] ?? 0, all.at(-1) ?? 1];
    return ((typeof value === "number" ? value : low) - low) / (high - low);
  };
  const baked = state.runs.filter(({ trialId }) => trialId !== undefined);
  const end = (all: readonly number[], k: 0 | 1): string => String(Math.round((k === 0 ? all[0] : all.at(-1)) ?? 0));
  const corner = (j: number, i: number): string => `${(map.mean[j]?.[i] ?? 0).toFixed(quality.digits)} ± ${(1.645 * (map.sd[j]?.[i] ?? 0)).toFixed(quality.digits)}`;
  return (
    <View style={styles.part}>
      <Heading>{`${quality.name} by ${factorName(x).toLowerCase()} and ${factorName(y).toLowerCase()}`}</Heading>
      <Svg width={W} height={H} viewBox={`0 0 ${W} ${H}`} role="img" aria-label={`${quality.name} from ${least.toFixed(quality.digits)} to ${most.toFixed(quality.digits)} ${quality.unit}; the table below has the corners`}>
        <Rect x={LEFT} y={TOP} width={W - LEFT - RIGHT} height={H - BOTTOM - TOP} fill="none" stroke={colours.rule} />
        {lines?.unknown.map(({ rings, value }) => <Path key={value} d={path(rings)} fill={colours.sunk} />)}
        {lines?.mean.map(({ rings, value }, k) => (
          <Path key={value} d={path(rings)} fill="none" stroke={colours.ink} strokeOpacity={0.25 + (0.7 * (k + 1)) / LINES} strokeWidth={k === LINES - 1 ? 2.4 : 1.2} />
        ))}
        {baked.map((run) => (
          <G key={run.id}>
            <Circle cx={px(place(run, x.id, map.xs) * (nx - 1))} cy={py(place(run, y.id, map.ys) * (ny - 1))} r={4} fill={colours.ink} />
            {state.best?.trialId === run.trialId ? <Circle cx={px(place(run, x.id, map.xs) * (nx - 1))} cy={py(place(run, y.id, map.ys) * (ny - 1))} r={9} fill="none" stroke={colours.heat} strokeWidth={2.4} /> : null}
          </G>
        ))}
        <Words x={LEFT} y={H - 10} fontSize={13} fontFamily={fonts.body} fill={colours.faint}>{end(map.xs, 0)}</Words>
        <Words x={W - RIGHT} y={H - 10} fontSize={13} fontFamily={fonts.body} fill={colours.faint} textAnchor="end">{end(map.xs, 1)}</Words>
        <Words x={W / 2} y={H - 10} fontSize={13} fontFamily={fonts.body} fill={colours.ink} textAnchor="middle">{factorName(x)}</Words>
        <Words x={LEFT - 6} y={H - BOTTOM} fontSize={13} fontFamily={fonts.body} fill={colours.faint} textAnchor="end">{end(map.ys, 0)}</Words>
        <Words x={LEFT - 6} y={TOP + 12} fontSize={13} fontFamily={fonts.body} fill={colours.faint} textAnchor="end">{end(map.ys, 1)}</Words>
      </Svg>
      <Small tone="faint">{`Upwards: ${factorName(y).toLowerCase()}. Darker lines are ${quality.name.toLowerCase()} ${most.toFixed(quality.digits)}, lighter ones ${least.toFixed(quality.digits)} ${quality.unit}; where it is shaded little is known. Dots were baked, the ringed one is the best.`}</Small>
      <Why shown={<Small>The corners as a table</Small>}>
        <Table label="Corners of the map" head={[factorName(y), `${factorName(x)} ${end(map.xs, 0)}`, `${factorName(x)} ${end(map.xs, 1)}`]} rows={[ny - 1, 0].map((j) => ({ key: String(j), cells: [Math.round(map.ys[j] ?? 0).toString(), corner(j, 0), corner(j, nx - 1)] }))} />
        <Body>The half-widths hold 90 %.</Body>
      </Why>
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({ part: { gap: space.s } });
