import type { BakeRecord, BakeState } from "@uprise/core";
import { remainingOf } from "@uprise/core/page-live";
import { useEffect, useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import Svg, { Circle, Line, Path, Rect, Text as SvgText } from "react-native-svg";
import { fonts, space, touch } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { NumberField } from "../../ui/number-field";
import { Button } from "../../ui/press";
import { Body, Figure, Small } from "../../ui/words";
import { wire } from "../wire/client";
import { useDevice } from "../wire/use-device";
import type { Happen } from "./use-bake";

/** The probe is written down so often, minutes of the bake. */
const WRITE_EVERY_MIN = 0.5;
const LID_S = 30;

interface OvenProps {
  bakeId: string;
  record: BakeRecord;
  state: BakeState;
  now: number;
  happen: Happen;
  probeId: string | null;
}

/** In the oven: how long it still takes by what the probe shows, and what is seen and done meanwhile. */
export function Oven({ bakeId, record, state, now, happen, probeId }: OvenProps) {
  const { expected } = record;
  const { message, silent } = useDevice(probeId);
  const [probeC, setProbeC] = useState<number | undefined>(undefined);
  const [setC, setSetC] = useState<number | undefined>(undefined);
  useStandIn(record.rehearsal ? probeId : null, bakeId);
  const inAt = Date.parse(state.inOvenAt ?? "");
  const minutes = Math.max(0, (now - inAt) / 60_000);
  const piece = Math.floor(minutes / WRITE_EVERY_MIN);
  const shown = message?.kind === "probe" ? message.value : null;
  useEffect(() => {
    // Two phones at one bake write one reading.
    if (shown !== null && shown > -40 && shown < 400) happen("probe", { celsius: shown, by: "device" }, `probe-${piece}`);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once in each piece of time, with what is shown then
  }, [piece, shown === null]);
  const remaining = useMemo(() => remainingOf(expected, state.probe, piece * WRITE_EVERY_MIN), [expected, state.probe, piece]);
  const left = { low: remaining.doneAt.low - minutes, mid: remaining.doneAt.mid - minutes, high: remaining.doneAt.high - minutes };
  const last = state.probe.at(-1);
  const atTarget = last !== undefined && last.celsius >= expected.targetCoreC - 0.5;
  const whole = (n: number): number => Math.max(0, Math.round(n));
  return (
    <View style={styles.oven}>
      <View style={styles.figures} role="status" aria-label="Remaining time">
        <Figure style={styles.large}>{left.high <= 0.5 ? "now" : `${whole(left.low)}–${whole(left.high)} min`}</Figure>
        <Body>{left.high <= 0.5 ? "by all that is known it is done: look" : `about ${whole(left.mid)} min more`}</Body>
      </View>
      <Small>
        {`${whole(minutes)} min in; ${last ? `${last.celsius.toFixed(0)} °C inside, ${Math.round(expected.targetCoreC)} °C is done` : `done at ${Math.round(expected.targetCoreC)} °C inside`}.`}
      </Small>
      <Small tone="faint">{ovenWords(remaining)}</Small>
      {silent ? <Small tone="caution">The probe is silent. The time goes on by what it showed, and by the signs.</Small> : null}
      <View style={styles.tools}>
        <NumberField label="Your probe shows" value={probeC} unit="°C" least={-20} most={130} optional onChange={setProbeC} style={styles.field} />
        <Button style={styles.big} disabled={probeC === undefined} onPress={() => { if (probeC !== undefined) happen("probe", { celsius: probeC, by: "hand" }); setProbeC(undefined); }}>
          Note it
        </Button>
      </View>
      <Curve record={record} state={state} minutes={minutes} doneAt={remaining.doneAt} />
      <View style={styles.tools}>
        <Button kind="main" style={styles.big} onPress={() => happen("out", { by: atTarget ? "probe" : "signs" })}>
          {atTarget ? "Out: the probe says done" : "Out, by the signs"}
        </Button>
        <Button style={styles.big} onPress={() => happen("looked", {})}>
          Looked
        </Button>
        <Button style={styles.big} onPress={() => happen("turned", {})}>
          Turned
        </Button>
        <Button style={styles.big} onPress={() => happen("opened", { seconds: LID_S })}>
          Door was open
        </Button>
      </View>
      <Small>{`Signs: ${expected.signs.join("; ")}.`}</Small>
      <View style={styles.tools}>
        <NumberField label="Oven set to" value={setC} unit="°C" least={60} most={320} optional onChange={setSetC} style={styles.field} />
        <Button style={styles.big} disabled={setC === undefined} onPress={() => { if (setC !== undefined) happen("oven", { celsius: setC }); setSetC(undefined); }}>
          Changed
        </Button>
      </View>
      {state.ovenC.length > 0 ? <Small>{`Set to ${Math.round(state.ovenC.at(-1)?.celsius ?? 0)} °C: the probe tells what that does.`}</Small> : null}
    </View>
  ); // prettier-ignore
}

const TOLD_AGAIN_MS = 3000;

/** In a rehearsal the stand-in is told which bake it stands in, until the server has heard it. */
function useStandIn(probeId: string | null, bakeId: string): void {
  useEffect(() => {
    if (probeId === null) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let over = false;
    const tell = (): void =>
      void wire.tellDevice(probeId, { command: "rehearse", bakeId }).catch(() => {
        if (!over) timer = setTimeout(tell, TOLD_AGAIN_MS);
      });
    tell();
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [probeId, bakeId]);
}

function ovenWords({ ovenK, readings, ignored }: ReturnType<typeof remainingOf>): string {
  if (readings < 4) return "Expected from the formula and the oven as it is known; the probe has said little yet.";
  if (ignored >= 2 && 2 * ignored >= readings)
    return `${ignored} of ${readings} readings fit no oven that was thought of: is the probe in the middle of this bake? The time stands on what was expected; go by the signs.`;
  const [low, high] = [Math.round(ovenK.low), Math.round(ovenK.high)];
  const mid = Math.round(ovenK.mid);
  const word =
    Math.abs(mid) < 4
      ? "works about as thought"
      : mid > 0
        ? `works as if ${mid} °C hotter than thought`
        : `works as if ${-mid} °C cooler than thought`;
  return `By ${readings} readings the oven ${word}, between ${low > 0 ? "+" : ""}${low} and ${high > 0 ? "+" : ""}${high}.${ignored > 2 ? ` ${ignored} readings fit no oven: is the probe still in the middle?` : ""}`; // prettier-ignore
}

const WIDE = 340;
const HIGH = 170;
const PAD = { left: 30, bottom: 20, top: 8, right: 6 } as const;

/** What the probe showed over what was expected. */
function Curve({
  record,
  state,
  minutes,
  doneAt,
}: {
  record: BakeRecord;
  state: BakeState;
  minutes: number;
  doneAt: { low: number; mid: number; high: number };
}) {
  const colours = useColours();
  const { expected } = record;
  const most = Math.max(expected.minutes.high, doneAt.high, minutes) * 1.05;
  const x = (m: number): number => PAD.left + ((WIDE - PAD.left - PAD.right) * m) / most;
  const y = (c: number): number => HIGH - PAD.bottom - ((HIGH - PAD.top - PAD.bottom) * Math.max(0, Math.min(105, c))) / 105;
  const path = (points: readonly (readonly [number, number])[]): string =>
    points.map(([m, c], k) => `${k === 0 ? "M" : "L"}${x(m).toFixed(1)},${y(c).toFixed(1)}`).join("");
  const last = state.probe.at(-1);
  return (
    <View role="img" aria-label={`The probe over the expected curve: expected ${Math.round(expected.coreC.at(Math.round(Math.min(minutes, expected.coreC.length - 1))) ?? 0)} °C now${last ? `, the probe shows ${Math.round(last.celsius)} °C` : ""}; done between minute ${Math.round(doneAt.low)} and ${Math.round(doneAt.high)}.`}>
      <Svg width="100%" viewBox={`0 0 ${WIDE} ${HIGH}`}>
        <Rect x={x(doneAt.low)} y={PAD.top} width={Math.max(2, x(doneAt.high) - x(doneAt.low))} height={HIGH - PAD.top - PAD.bottom} fill={colours.sunk} stroke={colours.faint} strokeDasharray="2 3" />
        <Line x1={PAD.left} x2={WIDE - PAD.right} y1={y(expected.targetCoreC)} y2={y(expected.targetCoreC)} stroke={colours.faint} strokeWidth={1} />
        {[20, 60, Math.round(expected.targetCoreC)].map((c) => (
          <SvgText key={c} x={2} y={y(c) + 4} fontSize={11} fontFamily={fonts.body} fill={colours.faint}>{`${c}°`}</SvgText>
        ))}
        {[0, 0.25, 0.5, 0.75].map((share) => (
          <SvgText key={share} x={x(share * most)} y={HIGH - 5} fontSize={11} fontFamily={fonts.body} fill={colours.faint}>{`${Math.round(share * most)}`}</SvgText>
        ))}
        <Path d={path(expected.coreC.map((c, m) => [m, c] as const))} stroke={colours.faint} strokeWidth={1.5} strokeDasharray="5 4" fill="none" />
        {state.probe.length > 1 ? <Path d={path(state.probe.map(({ minutes: m, celsius }) => [m, celsius] as const))} stroke={colours.heat} strokeWidth={2.5} fill="none" /> : null}
        {last ? <Circle cx={x(last.minutes)} cy={y(last.celsius)} r={4} fill={colours.heat} /> : null}
        <Line x1={x(minutes)} x2={x(minutes)} y1={PAD.top} y2={HIGH - PAD.bottom} stroke={colours.ink} strokeWidth={1} />
      </Svg>
    </View>
  ); // prettier-ignore
}

const styles = StyleSheet.create({
  oven: { gap: space.s },
  figures: { gap: 0 },
  large: { fontSize: 44, lineHeight: 48 },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "flex-end" },
  big: { minHeight: touch.counter },
  field: { width: 130 },
});
