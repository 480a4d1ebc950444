import fc from "fast-check";
import type { Measure, Term } from "./grammar/amounts";
import { exactly, range } from "./range";
import { measureSystems } from "./units";
import { type Measurable, MOST_G, weigh, weighMeasure } from "./weigh";

const flour: Measurable = { behaviour: "powder", gPerMl: range(0.55, 0.58, 0.61) };
const sugar: Measurable = { behaviour: "crystals", gPerMl: range(0.82, 0.845, 0.87) };
const water: Measurable = { behaviour: "liquid", gPerMl: exactly(1) };
const lemon: Measurable = {
  behaviour: "liquid",
  gPerMl: exactly(1.03),
  pieces: [
    { size: "juice", grams: range(30, 45, 60) },
    { size: "zest", grams: range(2, 4, 7) },
    { size: "medium", grams: range(90, 110, 130) },
  ],
  canG: 400,
  packetG: 7,
};
const term = (q: number, unit: Term["unit"], more: Partial<Term> = {}): Term => ({
  quantity: exactly(q),
  unit,
  sign: 1,
  withUnit: true,
  spoken: false,
  ...more,
});
const mid = (amount: Term, what: Measurable, measures: (typeof measureSystems)[number] = "us"): number | undefined =>
  weigh(amount, what, measures)?.mid;

test("a mass is a mass in every country and of every thing", () => {
  for (const measures of measureSystems)
    for (const what of [flour, sugar, water, lemon]) {
      expect(mid(term(250, "g"), what, measures)).toBe(250);
      expect(mid(term(1, "lb"), what, measures)).toBeCloseTo(453.59237, 5);
      expect(mid(term(1, "oz"), what, measures)).toBeCloseTo(28.349523, 5);
    }
});

test("cups and spoons are those of the country", () => {
  expect(mid(term(1, "cup"), water, "us")).toBeCloseTo(236.588, 2);
  expect(mid(term(1, "cup"), water, "metric")).toBeCloseTo(250, 6);
  expect(mid(term(1, "tbsp"), water, "au")).toBeCloseTo(20, 6);
  expect(mid(term(1, "tbsp"), water, "uk")).toBeCloseTo(15, 6);
});

test("a cup of sugar weighs what kitchens find, and packing it changes little", () => {
  const cup = weigh(term(1, "cup"), sugar, "us");
  expect(cup?.mid).toBeGreaterThan(195);
  expect(cup?.mid).toBeLessThan(205);
  expect(mid(term(1, "cup", { filling: "packed" }), sugar)).toBeCloseTo(cup?.mid ?? 0, 6);
  expect(mid(term(1, "cup", { filling: "packed" }), flour)).toBeGreaterThan(1.2 * (mid(term(1, "cup"), flour) ?? 0));
});

test("of a lemon, the juice, the zest and the whole are three masses", () => {
  expect(mid(term(2, "piece", { size: "juice" }), lemon)).toBe(90);
  expect(mid(term(2, "piece", { size: "zest" }), lemon)).toBe(8);
  expect(mid(term(2, "piece"), lemon)).toBe(220);
  expect(mid(term(1, "piece", { size: "small" }), lemon)).toBeLessThan(110);
  expect(mid(term(1, "piece", { size: "large" }), lemon)).toBeGreaterThan(110);
  expect(weigh(term(1, "piece"), flour, "us")).toBeNull();
});

test("a can and a packet have the content that is usual, a small one less", () => {
  expect(mid(term(1, "can"), lemon)).toBe(400);
  expect(mid(term(1, "can", { size: "small" }), lemon)).toBeLessThan(320);
  expect(mid(term(2, "packet"), lemon)).toBe(14);
  expect(weigh(term(1, "can"), flour, "us")).toBeNull();
});

test("what is taken off is taken off, ends with ends; nothing weighs less than nothing or more than a kitchen holds", () => {
  const less: Measure = [term(1, "cup"), term(2, "tbsp", { sign: -1 })];
  const grams = weighMeasure(less, water, "us");
  expect(grams?.mid).toBeCloseTo(236.588 - 2 * 14.787, 1);
  expect(grams && grams.low <= grams.mid && grams.mid <= grams.high).toBe(true);
  expect(weighMeasure([term(1, "tbsp"), term(1, "cup", { sign: -1 })], water, "us")).toBeNull();
  expect(weigh(term(MOST_G + 1, "g"), water, "us")).toBeNull();
  expect(weighMeasure([term(1, "cup"), term(1, "can")], flour, "us")).toBeNull();
});

test("a sum is as heavy as its parts, whatever they are", () => {
  const units = fc.constantFrom<Term["unit"]>("g", "cup", "tbsp", "tsp", "ml", "oz");
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.integer({ min: 1, max: 40 }), units), { minLength: 1, maxLength: 5 }), (parts) => {
      const measure = parts.map(([q, unit]) => term(q, unit));
      const whole = weighMeasure(measure, flour, "metric");
      const each = measure.reduce((all, one) => all + (weigh(one, flour, "metric")?.mid ?? NaN), 0);
      expect(whole?.mid).toBeCloseTo(each, 6);
      expect(whole && whole.low <= whole.mid && whole.mid <= whole.high).toBe(true);
    }),
  );
});
