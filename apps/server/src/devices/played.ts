import type { DeviceCommand, DeviceMessage } from "@uprise/contract";
import { type BakeRecord, type BakeState, bakeClock, coreOf } from "@uprise/core";

/** What a stand-in knows of the bake that it stands in. */
export interface PlayedBake {
  record: Pick<BakeRecord, "expected" | "formula" | "rehearsal">;
  state: Pick<BakeState, "inOvenAt" | "outAt" | "ovenC">;
}

/** A device that is played: it is told commands, and shows what it would show at a moment. */
export interface Played {
  tell(command: DeviceCommand): void;
  /** What it shows now, ms; null where it says nothing this time. */
  show(now: number, bake: PlayedBake | null): Omit<DeviceMessage, "device" | "at"> | null;
}

type Random = () => number;
const normal = (random: Random): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** A hand pours so fast, g/s, and slower near its aim; what it misses by, as a share and in grams. */
const POUR_G_S = 120;
const HAND_SHARE = 0.006;
const HAND_G = 0.3;
const DRIFT_G_MIN = 0.05;
const ROOM_C = 22;
/** A probe in its sleeve follows with this lag, s, and drops out so often. */
const PROBE_LAG_S = 20;
const DROPS = 0.05;
/** An oven swings about its setting, K, once in so many minutes. */
const SWING_K = 7;
const SWING_MIN = 6;
const CRUMB_PH = 7.1;

/** A kitchen scale with a hand that pours: noise, drift, and a hand that misses. */
export function playedScale(random: Random): Played {
  let onPan = 0;
  let aim = 0;
  let zero = 0;
  let last: number | null = null;
  return {
    tell(command) {
      if (command.command === "tare") zero = onPan;
      if (command.command === "rehearse" && command.pourG !== undefined)
        aim = Math.max(
          0,
          onPan +
            command.pourG * (1 + HAND_SHARE * normal(random)) +
            HAND_G * normal(random) * Math.min(1, Math.abs(command.pourG) / 20),
        );
    },
    show(now) {
      const seconds = last === null ? 0 : Math.min(2, (now - last) / 1000);
      last = now;
      const left = aim - onPan;
      const step = Math.min(Math.abs(left), POUR_G_S * seconds, Math.max(1, 0.6 * Math.abs(left)));
      onPan += Math.sign(left) * step;
      zero -= (DRIFT_G_MIN * seconds) / 60;
      const stable = Math.abs(aim - onPan) < 0.05;
      const shown = onPan - zero + (stable ? 0.04 : 1.5) * normal(random);
      return { kind: "scale", value: Math.round(shown * 10) / 10, unit: "g", stable, battery: 0.8 };
    },
  };
}

/** Numbers that belong to a word: the same bake hides the same oven, also when the server was started anew. */
function hiddenIn(word: string): Random {
  let state = 2166136261;
  for (const sign of word) state = Math.imul(state ^ (sign.codePointAt(0) ?? 0), 16777619) >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 4294967296;
  };
}

/** A probe in a bake: the core of an oven whose strength and pace nobody was told, with lag, noise and drop-outs. */
export function playedProbe(random: Random): Played {
  const hide = (from: Random) => ({
    biasK: Math.max(-24, Math.min(24, 11 * normal(from))),
    pace: 0.06 * normal(from),
    depth: 0.05 * from(),
  });
  let hidden = hide(random);
  let shown = ROOM_C;
  let last: number | null = null;
  return {
    tell(command) {
      if (command.command === "rehearse" && command.bakeId !== undefined) hidden = hide(hiddenIn(command.bakeId));
    },
    show(now, bake) {
      const here = bake ? bakeClock(bake.record, now) : now;
      const seconds = last === null ? 0 : Math.max(0, (here - last) / 1000);
      last = here;
      let toward = ROOM_C;
      if (bake?.state.inOvenAt) {
        const minutes =
          (Math.min(here, bake.state.outAt ? Date.parse(bake.state.outAt) : here) - Date.parse(bake.state.inOvenAt)) / 60_000;
        const core = coreOf(bake.record.expected, hidden.biasK, minutes / Math.exp(hidden.pace));
        toward = core + hidden.depth * (100 - core);
      }
      shown += (toward - shown) * (1 - Math.exp(-seconds / PROBE_LAG_S));
      if (random() < DROPS) return null;
      return { kind: "probe", value: Math.round((shown + 0.3 * normal(random)) * 10) / 10, unit: "C", battery: 0.6 };
    },
  };
}

/** An oven that heats to its setting and swings about it. */
export function playedOven(random: Random): Played {
  let setC = ROOM_C;
  let shown = ROOM_C;
  let last: number | null = null;
  return {
    tell(command) {
      if (command.command === "set") setC = command.celsius;
    },
    show(now, bake) {
      const here = bake ? bakeClock(bake.record, now) : now;
      const minutes = last === null ? 0 : Math.max(0, (here - last) / 60_000);
      last = here;
      const aim = bake ? bake.record.formula.oven.celsius : setC;
      shown += Math.max(-3 * minutes, Math.min(11 * minutes, aim - shown));
      const swing = Math.abs(aim - shown) < 1 ? SWING_K * Math.sin((2 * Math.PI * here) / (SWING_MIN * 60_000)) : 0;
      return { kind: "oven", value: Math.round(shown + swing + 0.5 * normal(random)), unit: "C" };
    },
  };
}

/** A pH meter in a crumb with a little water. */
export const playedPh = (random: Random): Played => ({
  tell: () => undefined,
  show: () => ({ kind: "ph", value: Math.round((CRUMB_PH + 0.05 * normal(random)) * 100) / 100, unit: "pH", stable: true }),
});
