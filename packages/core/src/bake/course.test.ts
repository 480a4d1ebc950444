import { analyse, type AnalyseInput, simulate } from "../balance/analyse";
import { processSchema } from "../formula/process-schema";
import { type BakeStage, stagesFromText } from "../formula/stage-schema";
import { withWhatIf } from "../formula/what-if";
import { readRecipe } from "../read";
import { formulaFrom } from "../begin";
import { ready } from "../balance/readings";
import { typicalLines } from "../balance/bands";
import { bakeThrough } from "./through";
import { stepsFor } from "./start";
import type { Simulation } from "./simulation-schema";

const quick = { spread: 0, frames: 0, withoutCooling: true };
const loaf: AnalyseInput = { kind: "loaf", batchG: 950 };
const skillet: AnalyseInput = {
  kind: "cornbread-plain",
  batchG: 940,
  vessel: { shape: "round", diameterMm: 255, heightMm: 50, material: "cast-iron", lining: "greased" },
};
const staged = (input: AnalyseInput, stages: BakeStage[], options = quick): Simulation =>
  simulate({ ...input, process: { ...input.process, stages } }, undefined, options);

describe("stages", () => {
  test("one stage until it is done is the bake without stages, to the last digit", () => {
    expect(staged(loaf, [{}])).toEqual(simulate(loaf, undefined, quick));
    const plain = simulate(loaf, undefined, quick);
    const halves = staged(loaf, [{ minutes: 20 }, {}]);
    expect(halves.done.mid).toBeCloseTo(plain.done.mid, 1);
    expect(halves.stages.map(({ from, to }) => [from, to])).toEqual([
      [0, 20],
      [20, halves.stages[1]?.to],
    ]);
  });
  test("a stage ends to the second, and the last one by the clock too", () => {
    const { stages, minutes } = staged(loaf, [{ minutes: 12.25 }, { minutes: { low: 8, high: 10 }, celsius: 160 }]);
    expect(stages.map(({ to }) => to)).toEqual([12.3, 21.3]);
    expect(minutes).toBeCloseTo(21.25, 1);
  });
  test("taken out by the clock before it is done, it says what it would need: what the open bake takes", () => {
    const short = staged(loaf, [{ minutes: 40 }]);
    expect(short.reached).toBe(false);
    expect(short.done.mid).toBeCloseTo(simulate(loaf, undefined, quick).done.mid, 6);
    expect(short.notes.join(" ")).toMatch(/after 40 min, before it is done; it is done after about \d+/);
    expect(staged(loaf, [{ minutes: 80 }, { minutes: 5 }]).notes.join(" ")).toMatch(/before its last stage begins/);
  });
  test("covered is never browner and never drier, and what is covered first and then open lies between", () => {
    const open = staged(loaf, [{ minutes: 60 }]);
    const covered = staged(loaf, [{ minutes: 60, covered: true }]);
    const both = staged(loaf, [{ minutes: 30, covered: true }, { minutes: 30 }]);
    expect(covered.browning.top).toBeLessThan(both.browning.top);
    expect(both.browning.top).toBeLessThan(open.browning.top);
    expect(covered.loss.oven).toBeLessThan(both.loss.oven);
    expect(both.loss.oven).toBeLessThan(open.loss.oven);
  });
  test("out of its tin at the end its sides brown and it loses more", () => {
    const tin = staged(loaf, [{ minutes: 45 }, { minutes: 12 }]);
    const rack = staged(loaf, [{ minutes: 45 }, { minutes: 12, free: true }]);
    expect(rack.loss.oven).toBeGreaterThan(tin.loss.oven);
    expect(rack.stages[1]).toMatchObject({ free: true });
  });
  test("a grill colours the top in minutes, and hardly the base", () => {
    const before = staged(skillet, [{ minutes: 18 }]);
    const plain = staged(skillet, [{ minutes: 18 }, { minutes: 3 }]);
    const grilled = staged(skillet, [{ minutes: 18 }, { minutes: 3, mode: "grill" }]);
    expect(grilled.browning.top - before.browning.top).toBeGreaterThan(3 * (plain.browning.top - before.browning.top));
    expect(grilled.browning.base).toBeLessThan(1.2 * plain.browning.base);
  });
  test("minutes on the hob colour the underside of a cold skillet and shorten the oven", () => {
    const oven = staged(skillet, [{}]);
    const hob = staged(skillet, [{ mode: "hob", celsius: 200, minutes: 3 }, {}]);
    expect(hob.browning.base).toBeGreaterThan(oven.browning.base);
    expect(hob.minutes - 3).toBeLessThan(oven.minutes);
  });
  test("two temperatures: done between the two, and the cooler end colours it less than the hot one", () => {
    const at = (celsius: number): number => simulate({ ...loaf, oven: { celsius } }, undefined, quick).minutes;
    const two = staged({ ...loaf, oven: { celsius: 200 } }, [{ minutes: 15 }, { celsius: 160 }]);
    expect(two.minutes).toBeGreaterThan(at(200));
    expect(two.minutes).toBeLessThan(at(160));
    expect(two.browning.top).toBeLessThan(simulate({ ...loaf, oven: { celsius: 200 } }, undefined, quick).browning.top);
  });
  test("turned over, what was the base is the top", () => {
    const turned = staged({ kind: "flatbread", batchG: 200 }, [{ minutes: 5 }, { minutes: 2, turned: true }]);
    const flat = staged({ kind: "flatbread", batchG: 200 }, [{ minutes: 5 }]);
    expect(turned.browning.top).toBeGreaterThanOrEqual(flat.browning.base);
  });
  test("until set and until golden end where those marks stand", () => {
    const set = staged({ kind: "bun", batchG: 640 }, [{ until: "set" }, { minutes: 1 }]);
    expect(set.stages[0]?.to).toBeCloseTo(set.marks.core ?? 0, 0);
    const golden = staged({ kind: "bun", batchG: 640 }, [{ until: "golden" }, { covered: true }]);
    expect(golden.stages[0]?.to).toBeCloseTo(golden.marks.golden ?? 0, 0);
  });
  test("water and energy stay closed over stages, a turn and a topping", () => {
    const { start } = ready({
      kind: "bar",
      components: [{ id: "t", name: "Curd", role: "topping", place: "top" }],
      lines: [
        ...typicalLines("bar", 600),
        { ingredientId: "egg", grams: 100, component: "t" },
        { ingredientId: "white-sugar", grams: 120, component: "t" },
        { ingredientId: "lemon-juice", grams: 80, component: "t" },
      ],
      process: { stages: [{ minutes: 14 }, { mode: "counter", minutes: 10 }, { topped: true }] },
    });
    const { run, passed, doneS } = bakeThrough(start, stepsFor(start));
    const water = start.massKg * start.material.water + (start.layers ?? []).reduce((kg, l) => kg + l.massKg * l.material.water, 0);
    const left = run.section.water.reduce((all, kg) => all + kg, 0);
    expect(Math.abs(left + run.account.vapourOutKg - water)).toBeLessThan(1e-6 * water);
    expect(start.layers).toHaveLength(1);
    // The base was done before; it comes out when the curd holds.
    expect(passed).toHaveLength(3);
    expect((doneS ?? 0) - (passed[2]?.fromS ?? 0)).toBeGreaterThan(120);
  });
  test("frames keep one number of rows over a topping, and the topping has no height before it is there", () => {
    const input: AnalyseInput = {
      kind: "bar",
      components: [{ id: "t", name: "Curd", role: "topping", place: "top" }],
      lines: [...typicalLines("bar", 600), { ingredientId: "lemon-juice", grams: 80, component: "t" }, { ingredientId: "egg", grams: 120, component: "t" }, { ingredientId: "white-sugar", grams: 100, component: "t" }],
      process: { stages: [{ minutes: 12 }, { topped: true }] },
    }; // prettier-ignore
    const { section } = simulate(input, undefined, { ...quick, frames: 24 });
    const top = section.rows - 1;
    for (const frame of section.frames) {
      expect(frame.z).toHaveLength(section.rows * section.columns);
      const thick = (frame.z[top] ?? 0) - (frame.z[(section.layers[0]?.from ?? 0) - 1] ?? 0);
      if (frame.time < 12 * 60) expect(thick).toBeCloseTo(0, 6);
      else expect(thick).toBeGreaterThan(3);
    }
  });
});

describe("the shape of stages", () => {
  test("a stage in the middle without an end is told which one and what would be right", () => {
    const { error } = processSchema.safeParse({ stages: [{}, { minutes: 10 }] });
    expect(error?.issues[0]?.message).toBe("Stage 1 needs its minutes, or what it waits for: set, golden, dry.");
    expect(processSchema.safeParse({ stages: [{ minutes: 10, celsius: 500 }] }).error?.issues[0]?.message).toMatch(
      /from 60 to 320/,
    );
    expect(processSchema.safeParse({ stages: [] }).success).toBe(false);
  });
  test("a text that bakes in stages is computed in them, its last one until it is done", () => {
    const text = `Oat loaf\n400 g oat flour\n400 g milk\n2 eggs\n60 g oil\n2 tsp baking powder\n1 tsp salt\nBake at 180 C for 30 minutes covered, then 20 minutes uncovered.`;
    const formula = formulaFrom(readRecipe(text, "metric"), "metric");
    expect(formula.process.stages).toEqual([{ minutes: 30, covered: true }, {}]);
    expect(stagesFromText([{ minutes: { low: 10, high: 12 } }])).toBeNull();
    // Nobody grills until the middle is done: it is set before, and the grill has its minutes.
    expect(stagesFromText([{ minutes: { low: 24, high: 26 } }, { minutes: { low: 2, high: 2 }, mode: "grill" }])).toEqual([
      { until: "set" },
      { minutes: 2, mode: "grill" },
    ]);
    const analysis = analyse({ ...formula, measures: "metric" });
    expect(analysis.bake?.minutes.mid).toBeGreaterThan(30);
  });
  test("what if it were hotter holds for every stage that names its heat, within what an oven does", () => {
    const input: AnalyseInput = { ...loaf, oven: { celsius: 180 }, process: { stages: [{ celsius: 310, minutes: 5 }, {}] } };
    expect(withWhatIf(input, { warmerK: 20 }).process?.stages).toEqual([{ celsius: 320, minutes: 5 }, {}]);
  });
});
