/**
 * What calibration is worth: made-up kitchens with a hidden oven, a hidden way of filling cups and a powder that fades at a hidden rate. Each bakes
 * and logs with the noise of a kitchen; what was learnt from the first bakes is held against the next ones, which it has not seen.
 */
import {
  bareKitchen,
  beginKind,
  builtInShelf,
  calibrate,
  type Kind,
  type Learnt,
  type Logged,
  type Measured,
  normalFrom,
  openFormula,
  type Opened,
  ready,
  seeded,
  simulateStart,
} from "@uprise/core";
import { hotterBy } from "@uprise/core/src/bake/start";
import { gramsIn, scaledGroup } from "@uprise/core/src/trial/groups";
import { coreAtOut } from "@uprise/core/src/trial/outcome";

const KITCHENS = Number(process.argv[2] ?? 12);
const LOGGED = 8;
const HELD_OUT = 4;
const kinds: Kind[] = ["loaf", "muffin", "scone", "bar", "cornbread-sweet", "tray-bread"];
const random = seeded(77);
const normal = normalFrom(random);

interface Truth {
  ovenK: number;
  cup: number;
  decay: number;
}

/** One bake in a hidden kitchen, and what its baker wrote down. */
function bake(kind: Kind, truth: Truth, minutes: number | undefined, age: number): { input: Opened; measured: Measured } {
  const input = openFormula(
    { ...beginKind(kind, "metric", kind === "loaf" ? 950 : 750), oven: { ...beginKind(kind, "metric", 750).oven, ovenId: "o" } },
    bareKitchen,
  );
  const strength = Math.exp(-truth.decay * age);
  const real = gramsIn(input, "powder", builtInShelf) > 0 ? scaledGroup(input, "powder", strength, builtInShelf) : input;
  const { start } = ready(real);
  const planned = simulateStart(ready(input).start, 0, { frames: 0, spread: 0 });
  const own = {
    ...hotterBy(start, truth.ovenK),
    massKg: start.massKg * (1 + 0.02 * normal()),
    batterC: start.batterC + 2 * normal(),
  };
  const baked = simulateStart(own, 0, {
    frames: 0,
    spread: 0,
    minutes: Math.round((minutes ?? planned.minutes) * (1 + 0.04 * normal())),
  });
  return {
    input,
    measured: {
      minutes: baked.minutes,
      massInG: 1000 * own.massKg,
      massOutG: 1000 * own.massKg * (1 - baked.loss.oven / 100 + 0.004 * normal()),
      coreC: coreAtOut(baked) + 1.2 * normal(),
      heightMm: baked.cooledMm.middle * Math.exp(0.05 * normal()),
    },
  };
}

const found: { kind: string; truth: number; value: Learnt["value"] }[] = [];
const heldOut = { before: [] as number[], after: [] as number[] };
for (let k = 0; k < KITCHENS; k++) {
  const truth: Truth = {
    ovenK: Math.max(-28, Math.min(28, 13 * normal())),
    cup: Math.exp(0.1 * normal()),
    decay: 0.02 + 0.07 * random(),
  };
  const logged = Array.from({ length: LOGGED }, (_, n): Logged => {
    const age = 2 * n;
    const made = bake(kinds[(n + k) % kinds.length] as Kind, truth, undefined, age);
    return {
      ...made,
      ovenId: "o",
      powderAgeMonths: age,
      cups: [{ ingredientId: "sorghum-flour", meantG: 130, weighedG: 130 * truth.cup * Math.exp(0.04 * normal()) }],
    };
  });
  const learnt = calibrate(logged);
  for (const one of learnt) {
    if (one.kind === "oven") found.push({ kind: "oven, K", truth: truth.ovenK, value: one.value });
    if (one.kind === "cup") found.push({ kind: "cup, factor", truth: truth.cup, value: one.value });
    if (one.kind === "powder")
      found.push({ kind: "powder left after a year", truth: Math.exp(-12 * truth.decay), value: one.value });
  }
  // The next bakes, fresh powder: minutes to the target, predicted with and without what was learnt of the oven.
  const oven = learnt.find(({ kind }) => kind === "oven")?.value.mid ?? 0;
  for (let n = 0; n < HELD_OUT; n++) {
    const input = openFormula(beginKind(kinds[(n + k + 1) % kinds.length] as Kind, "metric", 800), bareKitchen);
    const { start } = ready(input);
    const minutes = (biasK: number): number =>
      simulateStart(hotterBy(start, biasK), 0, { frames: 0, spread: 0, withoutCooling: true }).minutes;
    const true_ = minutes(truth.ovenK) * Math.exp(0.03 * normal());
    heldOut.before.push(Math.abs(Math.log(minutes(0) / true_)));
    heldOut.after.push(Math.abs(Math.log(minutes(oven) / true_)));
  }
}
const mean = (values: number[]): number => values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
console.log(`${KITCHENS} made-up kitchens, ${LOGGED} bakes logged in each`);
for (const kind of new Set(found.map((one) => one.kind))) {
  const these = found.filter((one) => one.kind === kind);
  const inside = these.filter(({ truth, value }) => truth >= value.low && truth <= value.high).length;
  console.log(
    `${kind}: mean error ${mean(these.map(({ truth, value }) => Math.abs(value.mid - truth))).toFixed(2)}, mean width of the range ${mean(these.map(({ value }) => value.high - value.low)).toFixed(2)}, truth inside it ${inside} of ${these.length} (eight of ten meant)`,
  );
}
console.log(
  `minutes of ${heldOut.before.length} bakes that were not logged: off by ${(100 * mean(heldOut.before)).toFixed(1)} % before, ${(100 * mean(heldOut.after)).toFixed(1)} % with the oven as learnt`,
);
