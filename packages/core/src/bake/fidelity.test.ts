import { inputOf, windows } from "../../corpus/kitchen-windows";
import { baked, ready } from "../balance/analyse";
import { kinds } from "../formula/kinds";
import { rangeOf, rangeOfFactors, sampledFactors, sampledRange, uncertaintyOf } from "./sensitivity";
import { simulateStart } from "./simulate";
import { stepsFor } from "./start";

const near = (a: number, b: number, share: number): void => expect(Math.abs(a / b - 1)).toBeLessThanOrEqual(share);

describe("the coarse bake and the fine one", () => {
  const cases = [
    ...kinds.map((kind) => [`a typical ${kind}`, { kind, batchG: kind === "tray-bread" ? 1340 : 700 }] as const),
    ...windows.map((window) => [window.name, inputOf(window)] as const),
  ];
  test.each(cases)("%s: minutes, crown and loss within 3 %, and the fine range within the coarse one", (_, input) => {
    const { start, massSpread } = ready(input);
    const coarse = simulateStart(start, massSpread, { frames: 0, fidelity: "coarse" });
    const fine = simulateStart(start, massSpread, { frames: 0 });
    expect([coarse.fidelity, fine.fidelity]).toEqual(["coarse", "fine"]);
    near(coarse.minutes, fine.minutes, 0.03);
    near(coarse.highestMm, fine.highestMm, 0.03);
    // Both losses are rounded to a tenth of a per cent of the batter.
    expect(Math.abs(coarse.loss.oven - fine.loss.oven)).toBeLessThanOrEqual(0.03 * fine.loss.oven + 0.1);
    expect(coarse.done.low).toBeLessThanOrEqual(fine.done.low);
    expect(coarse.done.high).toBeGreaterThanOrEqual(fine.done.high);
  });
  test("the fine range lies within the coarse one where nobody knows how much batter it is, too", () => {
    const lines = ["gf-blend-gum", "whole-milk", "egg", "powder-aluminium-free"].map((ingredientId, k) => {
      const grams = [300, 260, 100, 12][k] ?? 0;
      return { ingredientId, grams: { low: 0.8 * grams, mid: grams, high: 1.2 * grams } };
    });
    const [coarse, fine] = (["coarse", "fine"] as const).map(
      (fidelity) => baked({ kind: "muffin", lines }, undefined, { frames: 0, fidelity }).simulation.done,
    );
    expect(coarse?.low).toBeLessThanOrEqual(fine?.low ?? 0);
    expect(coarse?.high).toBeGreaterThanOrEqual(fine?.high ?? Infinity);
  });
});

describe("what leaves the minutes open", () => {
  const { start } = ready({ kind: "muffin", batchG: 864 });
  const steps = stepsFor(start);
  test("ten kelvin make a tenth, as kitchens say; each input slower makes it longer; they add in quadrature", () => {
    const { sensitivity, spread } = uncertaintyOf(start, steps, 0.1);
    const oven = sensitivity.find(({ input }) => input === "oven, not measured");
    expect(oven?.percent).toBeGreaterThan(6);
    expect(oven?.percent).toBeLessThan(14);
    for (const { percent } of sensitivity) expect(percent).toBeGreaterThanOrEqual(0);
    const square = sensitivity.reduce((all, { percent }) => all + Math.log(1 + percent / 100) ** 2, 0.05 ** 2);
    expect(spread).toBeCloseTo(Math.sqrt(square), 2);
  });
  test("a griddle is asked for its contact, an oven for its air", () => {
    const names = (kind: "pourable-batter" | "muffin"): string[] => {
      const made = ready({ kind, batchG: 440 });
      return uncertaintyOf(made.start, stepsFor(made.start), 0).sensitivity.map(({ input }) => input);
    };
    expect(names("pourable-batter")).toContain("contact with the plate");
    expect(names("muffin")).toContain("air in the oven");
    expect(names("muffin")).not.toContain("mass of the batter");
  });
  test("32 runs over everything at once hold the middle, are wider in an oven that nobody has measured, and the same twice", () => {
    const unknown = sampledRange(start, steps, 0.02, 32);
    const known = sampledRange({ ...start, oven: { ...start.oven, biasK: 0, swingK: 0 } }, steps, 0.02, 32);
    expect(unknown?.low).toBeLessThan(1);
    expect(unknown?.high).toBeGreaterThan(1);
    expect((unknown?.high ?? 0) - (unknown?.low ?? 0)).toBeGreaterThan((known?.high ?? 0) - (known?.low ?? 0));
    // A muffin's minutes are known within about a quarter either way (kitchens: 12 % for a known oven).
    expect(unknown?.high).toBeLessThan(1.35);
    expect(unknown?.low).toBeGreaterThan(0.7);
    expect(sampledRange(start, steps, 0.02, 32)).toEqual(unknown);
  });
  test("shared out among several it is what one alone finds", () => {
    const alone = sampledFactors(start, steps, 0.02, 1, 13) ?? [];
    const shared = [1, 5, 9].flatMap((from) => sampledFactors(start, steps, 0.02, from, from + 4) ?? []);
    expect(shared).toEqual(alone);
    expect(rangeOfFactors(shared)).toEqual(sampledRange(start, steps, 0.02, 12));
  });
  test("the range is the same factor either way", () => {
    const { low, mid, high } = rangeOf(40, 0.15);
    expect(mid / low).toBeCloseTo(high / mid, 12);
    expect(high).toBeCloseTo(40 * Math.exp(0.15), 9);
  });
});
