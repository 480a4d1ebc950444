import type { Simulation } from "@uprise/core";
import Pause from "lucide-react-native/icons/pause";
import Play from "lucide-react-native/icons/play";
import { memo, useEffect, useMemo, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Press } from "../../ui/press";
import { Slider } from "../../ui/slider";
import { Body, Small } from "../../ui/words";
import { BakeSection, Shades } from "../instruments/bake-section";
import { clock, isOnPlate, momentSentence, secondsIn } from "../instruments/bake-words";
import { useDrawings } from "./use-drawings";

/** The whole bake is played in about so many ms, one frame after the other. */
const PLAYED_IN = 8000;
const SLOWEST = 400;

type Frame = Simulation["section"]["frames"][number];

/** The frame nearest before a time. */
const frameAt = (frames: readonly Frame[], time: number): Frame | undefined =>
  frames.reduce<Frame | undefined>((found, frame) => (frame.time <= time + 1e-6 ? frame : found), frames[0]);

interface PlayerProps {
  simulation: Simulation;
  /** Another bake laid over this one, at the same time. */
  other?: Simulation | null;
  width?: number;
}

/** The bake as a moving cross-section with a time slider; opens at the moment it leaves the oven. */
export const BakePlayer = memo(function BakePlayer({ simulation, other = null, width = 340 }: PlayerProps) {
  const colours = useColours();
  const { frames } = simulation.section;
  const out = secondsIn(simulation);
  const last = frames.at(-1)?.time ?? out;
  const [time, setTime] = useState<number | null>(null);
  const [playing, setPlaying] = useState(false);
  const now = Math.min(time ?? out, last);
  const frame = frameAt(frames, now);
  const drawings = useDrawings(simulation.section);
  useEffect(() => {
    if (!playing) return;
    const pause = Math.min(SLOWEST, PLAYED_IN / Math.max(1, frames.length));
    const timer = setInterval(() => {
      setTime((before) => {
        const next = frames.find((f) => f.time > (before ?? 0) + 1e-6);
        if (!next) setPlaying(false);
        return next?.time ?? last;
      });
    }, pause);
    return () => clearInterval(timer);
  }, [playing, frames, last]);
  const tallest = Math.max(simulation.highestMm, other?.highestMm ?? 0);
  const otherFrame = useMemo(() => (other ? frameAt(other.section.frames, now) : undefined), [other, now]);
  if (!frame) return null;
  const Icon = playing ? Pause : Play;
  return (
    <View style={styles.player}>
      <View role="img" aria-label={momentSentence(simulation, now)} style={styles.drawing}>
        <BakeSection
          section={simulation.section}
          frame={frame}
          drawing={drawings?.[frames.indexOf(frame)] ?? null}
          tallestMm={tallest}
          width={width}
          other={other && otherFrame ? { section: other.section, frame: otherFrame } : null}
        />
        <Shades width={width} />
      </View>
      <View style={styles.controls}>
        <Press
          label={playing ? "Pause the bake" : "Play the bake"}
          onPress={() => {
            if (!playing && now >= last - 1) setTime(0);
            else if (!playing && time === null) setTime(0);
            setPlaying(!playing);
          }}
          style={styles.play}
        >
          <Icon size={26} color={colours.ink} />
        </Press>
        <View style={styles.slide}>
          <Slider
            label={isOnPlate(simulation) ? "Time on the plate" : "Time since the oven door"}
            value={Math.round(now)}
            least={0}
            most={Math.round(last)}
            step={15}
            text={clock(now)}
            onChange={(value) => {
              setPlaying(false);
              setTime(value);
            }}
          />
        </View>
      </View>
      <View testID="bake-moment">
        <Body>{momentSentence(simulation, now)}</Body>
      </View>
      <Small tone="faint">
        Shade is temperature; what is stippled still flows, and the dotted line is the inner edge of the crust.{" "}
        {simulation.section.layers.length > 0 ? "What is hatched is no batter: a filling, a topping. " : ""}
        {other ? "The dashed outline is the other bake." : ""}
      </Small>
    </View>
  );
});

const styles = StyleSheet.create({
  player: { gap: space.s },
  drawing: { alignItems: "center" },
  controls: { flexDirection: "row", alignItems: "flex-end", gap: space.m },
  play: { alignItems: "center", justifyContent: "center" },
  slide: { flex: 1, minWidth: 0 },
});
