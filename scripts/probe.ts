/**
 * How well the remaining time follows a probe: simulated bakes in ovens that nobody has measured, with true parameters that the estimate does not
 * know, and a probe that stands a little beside the coldest place, lags, drops out and now and then sends nonsense.
 */
import {
  bareKitchen,
  beginKind,
  type Kind,
  readyForCounter,
  minuteByMinute,
  openFormula,
  ready,
  remainingOf,
  simulateStart,
} from "@uprise/core";
import { hotterBy } from "@uprise/core/src/bake/start";

const BAKES = Number(process.argv[2] ?? 200);
const kinds: Kind[] = ["loaf", "muffin", "scone", "tray-bread", "cornbread-sweet", "bar"];

let state = 7;
const random = (): number => {
  state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
  return state / 4294967296;
};
const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

const errors: Record<"half" | "threeQuarters", number[]> = { half: [], threeQuarters: [] };
const within: Record<"half" | "threeQuarters", number> = { half: 0, threeQuarters: 0 };
const plain: number[] = [];
const laidOut = new Map(
  kinds.map((kind) => {
    const input = openFormula(beginKind(kind, "metric", kind === "loaf" ? 950 : 750), bareKitchen);
    return [kind, { input, ...readyForCounter(input), start: ready(input).start }] as const;
  }),
);
const began = Date.now();
let estimates = 0;
let spentMs = 0;
for (let n = 0; n < BAKES; n++) {
  const kind = kinds[n % kinds.length] as Kind;
  const { start, expected } = laidOut.get(kind) as NonNullable<ReturnType<typeof laidOut.get>>;
  const truth = {
    ...hotterBy(start, Math.max(-30, Math.min(30, 12 * normal()))),
    batterC: start.batterC + 3 * normal(),
    massKg: start.massKg * (1 + 0.03 * normal()),
    settingC: start.settingC + 1.5 * normal(),
  };
  const baked = simulateStart(truth, 0, { frames: 0, spread: 0, withoutCooling: true });
  const core = minuteByMinute(baked);
  const depth = Math.max(0, 0.05 + 0.05 * normal());
  const readings: { minutes: number; celsius: number }[] = [];
  let shown = core[0] ?? 20;
  for (let second = 0; second < baked.minutes * 60; second += 10) {
    const m = second / 60;
    const k = Math.min(core.length - 1, Math.floor(m));
    const here = (core[k] ?? 0) + ((core[Math.min(core.length - 1, k + 1)] ?? 0) - (core[k] ?? 0)) * (m - k);
    shown += (here + depth * (100 - here) - shown) * (1 - Math.exp(-10 / 25));
    if (random() < 0.1) continue;
    readings.push({ minutes: m, celsius: random() < 0.01 ? 130 * random() : shown + 0.4 * normal() });
  }
  plain.push(Math.abs(expected.minutes.mid - baked.minutes));
  for (const [name, share] of [
    ["half", 0.5],
    ["threeQuarters", 0.75],
  ] as const) {
    const at = share * baked.minutes;
    const from = performance.now();
    const { doneAt } = remainingOf(
      expected,
      readings.filter(({ minutes }) => minutes <= at),
      at,
    );
    spentMs += performance.now() - from;
    estimates++;
    errors[name].push(Math.abs(doneAt.mid - baked.minutes));
    if (doneAt.low <= baked.minutes && baked.minutes <= doneAt.high) within[name]++;
  }
}
const tell = (name: string, list: number[]): void => {
  const sorted = [...list].sort((a, b) => a - b);
  const at = (share: number): string => (sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0).toFixed(1);
  const share = (100 * list.filter((error) => error <= 2).length) / list.length;
  console.log(`${name.padEnd(28)} middle error ${at(0.5)} min, nine of ten under ${at(0.9)}, within 2 min ${share.toFixed(0)} %`);
};
tell("before it goes in", plain);
tell("at half time", errors.half);
tell("at three quarters", errors.threeQuarters);
console.log(`the range of four fifths held the truth: ${((100 * within.half) / BAKES).toFixed(0)} % at half time, ${((100 * within.threeQuarters) / BAKES).toFixed(0)} % at three quarters`); // prettier-ignore
console.log(
  `${BAKES} bakes in ${((Date.now() - began) / 1000).toFixed(0)} s; an estimate takes ${(spentMs / estimates).toFixed(1)} ms`,
);
