import fc from "fast-check";
import { analyse, readings } from "../analyse";
import { kinds } from "../formula/kinds";
import { carried, carryOf } from "./carry";
import { estimateMinutes } from "./estimate";
import { fillVessel } from "./geometry";
import { ready } from "../analyse";
import { rangeOf, rangeOfFactors, sampledFactors, sampledRange, uncertaintyOf } from "./sensitivity";
import { stepsFor } from "./start";

describe("an estimate that the last simulation corrects", () => {
  test.each(["loaf", "muffin", "scone"] as const)("of the very same %s it is the simulation's own middle", (kind) => {
    const estimate = readings({ kind, batchG: 800 });
    const simulated = analyse({ kind, batchG: 800 });
    const corrected = carried(estimate, carryOf(estimate, simulated));
    expect(corrected.bake.minutes.mid).toBeCloseTo(simulated.bake.minutes.mid, 9);
    expect(corrected.fill.crownMm.mid).toBeCloseTo(simulated.fill.crownMm.mid, 9);
    expect(corrected.lift).toEqual(estimate.lift);
  });
  test("of a slightly other batch it is nearer to that batch's simulation than the bare estimate", () => {
    const carry = carryOf(readings({ kind: "loaf", batchG: 800 }), analyse({ kind: "loaf", batchG: 800 }));
    const [bare, baked] = [readings({ kind: "loaf", batchG: 880 }), analyse({ kind: "loaf", batchG: 880 })];
    const miss = (minutes: number): number => Math.abs(minutes - baked.bake.minutes.mid);
    expect(miss(carried(bare, carry).bake.minutes.mid)).toBeLessThan(miss(bare.bake.minutes.mid));
  });
  test("nothing to divide by carries nothing", () => {
    const none = { fill: readings({ kind: "loaf", batchG: 800 }).fill, bake: readings({ kind: "loaf", batchG: 800 }).bake };
    const zero = { fill: { ...none.fill, crownMm: { low: 0, mid: 0, high: 0 } }, bake: none.bake };
    expect(carryOf(zero, none)).toMatchObject({ crown: 1, minutes: 1 });
  });
});

describe("the first estimate", () => {
  test("is 400 L over T − 80 by hand: 1 L in a box of 20 × 10 cm at 180 °C", () => {
    const filling = fillVessel({ shape: "rectangular", lengthMm: 200, widthMm: 100, heightMm: 80 }, 1000, 1);
    // 50 mm deep; wetted and open surface 2·200·100 + 2·300·50 = 70 000 mm²; L = 10⁶ / 70 000 = 14.3 mm.
    expect(estimateMinutes(filling, { celsius: 180 }).mid).toBeCloseTo((400 * (1e6 / 70_000)) / 100, 6);
  });
  test("hotter is never longer, fuller never shorter, and a quarter lies on either side", () => {
    const vessel = { shape: "round" as const, diameterMm: 220, heightMm: 60 };
    fc.assert(
      fc.property(
        fc.integer({ min: 120, max: 260 }),
        fc.integer({ min: 200, max: 1500 }),
        fc.integer({ min: 1, max: 60 }),
        (celsius, grams, more) => {
          const at = (c: number, g: number) => estimateMinutes(fillVessel(vessel, g, 1), { celsius: c });
          expect(at(celsius + more, grams).mid).toBeLessThanOrEqual(at(celsius, grams).mid);
          expect(at(celsius, grams + more).mid).toBeGreaterThan(at(celsius, grams).mid);
          expect(at(celsius, grams).high / at(celsius, grams).mid).toBeCloseTo(1.25, 9);
        },
      ),
    );
  });
  test.each(kinds)("lies within a factor of two of the simulated bake of a typical %s", (kind) => {
    const batchG = kind === "tray-bread" ? 1340 : 700;
    const ratio = readings({ kind, batchG }).bake.minutes.mid / analyse({ kind, batchG }).bake.minutes.mid;
    expect(ratio).toBeGreaterThan(0.5);
    expect(ratio).toBeLessThan(2);
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
