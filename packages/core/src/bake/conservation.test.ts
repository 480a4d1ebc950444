import { analyse, analysisSchema, ready, simulate } from "../balance/analyse";
import { prepare, step, tablesFor } from "./kernel";
import { standardModel } from "./model";
import type { Run } from "./run";
import { type Steps, stepsFor } from "./start";

/** Enthalpy of batter and pan, J. */
function heatIn({ section }: Run): number {
  let all = 0;
  for (const joules of section.enthalpy) all += joules;
  section.base.forEach((celsius, j) => (all += celsius * section.baseCapacity[j]!));
  section.wall.forEach((celsius, i) => (all += celsius * section.wallCapacity[i]!));
  return all;
}
const sum = (values: Float64Array): number => values.reduce((all, value) => all + value, 0);

const cases = [
  ["loaf", { kind: "loaf", batchG: 950 }],
  ["muffins in paper", { kind: "muffin", batchG: 864 }],
  ["scones without a wall", { kind: "scone", batchG: 680 }],
  ["cornbread in hot iron", { kind: "cornbread-plain", batchG: 940 }],
  ["griddle cakes", { kind: "pourable-batter", batchG: 440 }],
] as const;

function run(input: (typeof cases)[number][1], seconds: number, each: (run: Run) => void = () => {}): { made: Run; steps: Steps } {
  const { start } = ready(input);
  const steps = stepsFor(start);
  const made = prepare(start, steps.grid);
  const tables = tablesFor(start, standardModel, steps.dt);
  for (let second = 0; second < seconds; second += steps.dt) {
    made.around.airC = start.oven.mode === "hob" ? 22 : start.oven.celsius;
    step(made, tables, steps.dt);
    each(made);
  }
  return { made, steps };
}

/** Films on a hot skillet that boil off layer after layer within one step: nothing is overdrawn. */
test.each([
  ["rum with a trace of potato", [["rum", 13.278], ["potato-flakes", 0.0002]]],
  ["groats with what they hold", [["buckwheat-groats", 15.183], ["red-chilli", 1e-28]]],
] as const)("a film in hot iron loses no more water than it has: %s", (_, lines) => {
  const input = { kind: "cornbread-plain" as const, lines: lines.map(([ingredientId, grams]) => ({ ingredientId, grams })) };
  const { lossPercent, coreC } = simulate(input, undefined, { spread: 0, frames: 0, minutes: 10 });
  expect(Math.max(...lossPercent)).toBeLessThanOrEqual(100);
  expect(Math.min(...coreC)).toBeGreaterThan(0);
  expect(Math.max(...coreC)).toBeLessThan(220);
}); // prettier-ignore

test.each([
  ["oil by itself", [["walnut-oil", 300], ["cocoa-nibs", 1e-30]]],
  ["sugar by itself", [["white-sugar", 300]]],
] as const)("what holds no water is not baked but read, with finite numbers: %s", (_, lines) => {
  const input = { kind: "bar" as const, lines: lines.map(([ingredientId, grams]) => ({ ingredientId, grams })) };
  expect(() => simulate(input)).toThrow(/is water; from 1 % on/);
  const analysis = analyse(input);
  expect(analysis).toMatchObject({ bake: null, race: null, fill: { crownMm: null }, unbaked: expect.stringMatching(/% of this is water/) });
  expect(analysisSchema.safeParse(analysis).error?.issues ?? []).toEqual([]);
}); // prettier-ignore

describe.each(cases)("%s", (_, input) => {
  test("energy: what is in it is what came in less what the vapour took, to a millionth of what flowed", () => {
    const { start } = ready(input);
    const before = heatIn(prepare(start, stepsFor(start).grid));
    const { made } = run(input, 900);
    const { heatIn: came, vapourOutJ } = made.account;
    expect(Math.abs(heatIn(made) - before - (came - vapourOutJ))).toBeLessThan(1e-6 * (Math.abs(came) + vapourOutJ));
    expect(vapourOutJ).toBeGreaterThan(1000 * start.massKg);
  });

  test("water: what is left and what has gone are what went in; dry matter stays", () => {
    const { start } = ready(input);
    const { made } = run(input, 900);
    const water = start.massKg * start.material.water;
    expect(Math.abs(sum(made.section.water) + made.account.vapourOutKg - water)).toBeLessThan(1e-6 * water);
    expect(sum(made.section.dry)).toBeCloseTo(start.massKg * start.material.dry, 9);
  });

  test("gas: bound and free carbon dioxide never grow together, and nothing goes below zero", () => {
    let last = Infinity;
    run(input, 600, ({ section }) => {
      const all = sum(section.bound) + sum(section.carbonDioxide);
      expect(all).toBeLessThanOrEqual(last * (1 + 1e-12));
      last = all;
      for (let cell = 0; cell < section.cells; cell++) {
        if (!(
          section.gasVolume[cell]! >= 0 &&
          section.water[cell]! >= 0 &&
          section.carbonDioxide[cell]! >= -1e-15 &&
          section.set[cell]! <= 1
        ))
          throw new Error(`cell ${cell} is out of bounds`);
      }
    });
  });
});
