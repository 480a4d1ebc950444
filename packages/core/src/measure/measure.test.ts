import fc from "fast-check";
import { celsiusFromFahrenheit, fahrenheitFromCelsius, gramsPer, millilitresPer, unitIds, unitLabel, unitOf } from "./units";
import { plainText, quantityAtStart } from "./quantity";
import type { Term } from "./grammar/amounts";
import type { WrittenItem } from "./line";
import { readLine } from "./several";
import { readTemperatures } from "./oven-text";
import { readMinutes } from "./time-text";
import { readPan } from "./pan-text";
import { product, range, scaled, sum } from "./range";
import { eighthsText, gramsText, householdText, measurable } from "./amounts";
import { weigh } from "./weigh";

const flour = { behaviour: "powder" as const, gPerMl: range(0.55, 0.58, 0.61) };
const water = { behaviour: "liquid" as const, gPerMl: range(1, 1, 1) };
const exact = (quantity: number) => range(quantity, quantity, quantity);

describe("units", () => {
  test("definitions that stand in law", () => {
    expect(gramsPer.lb).toBeCloseTo(453.59237, 5);
    expect((gramsPer.oz ?? 0) * 16).toBeCloseTo(gramsPer.lb ?? 0, 4);
    expect(millilitresPer.cup?.us).toBeCloseTo(236.588, 2);
    expect((millilitresPer.tbsp?.us ?? 0) * 16).toBeCloseTo(236.588, 2);
    expect((millilitresPer.tsp?.us ?? 0) * 3).toBeCloseTo(millilitresPer.tbsp?.us ?? 0, 3);
    expect(millilitresPer.tbsp?.au).toBe(20);
    expect(millilitresPer.pint?.uk).toBeCloseTo(568.26, 1);
  });

  test.each(unitIds)("%s is read back from its own label", (id) => {
    expect(unitOf(unitLabel[id])).toBe(id);
  });

  test("temperatures go there and back", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -50, max: 400, noNaN: true }),
        (c) => Math.abs(celsiusFromFahrenheit(fahrenheitFromCelsius(c)) - c) < 1e-9,
      ),
    );
    expect(celsiusFromFahrenheit(350)).toBeCloseTo(176.67, 1);
  });

  test("a mass and a volume go there and back through any unit", () => {
    const volumes = unitIds.filter((id) => millilitresPer[id] !== undefined && id !== "pinch" && id !== "dash");
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 500, noNaN: true }),
        fc.constantFrom(...volumes),
        fc.constantFrom("us", "metric", "uk", "au"),
        (grams, unit, measures) => {
          const perUnit = weigh({ quantity: exact(1), unit }, water, measures)?.mid ?? 0;
          const back = weigh({ quantity: exact(grams / perUnit), unit }, water, measures)?.mid ?? 0;
          return Math.abs(back - grams) < 1e-9 * grams;
        },
      ),
    );
  });
});

describe("ranges", () => {
  const anyRange = fc
    .tuple(
      fc.double({ min: 0, max: 100, noNaN: true }),
      fc.double({ min: 0, max: 50, noNaN: true }),
      fc.double({ min: 0, max: 50, noNaN: true }),
    )
    .map(([m, a, b]) => range(Math.max(0, m - a), m, m + b));
  test("sums and products keep low ≤ mid ≤ high and the middle exact", () => {
    fc.assert(
      fc.property(anyRange, anyRange, (a, b) => {
        const s = sum([a, b]);
        const p = product(a, b);
        expect(s.mid).toBeCloseTo(a.mid + b.mid, 9);
        expect(p.mid).toBeCloseTo(a.mid * b.mid, 6);
        return s.low <= s.mid && s.mid <= s.high && p.low <= p.mid && p.mid <= p.high;
      }),
    );
  });
  test("a negative factor turns the range round", () => expect(scaled(range(1, 2, 4), -1)).toEqual({ low: -4, mid: -2, high: -1 }));
  test("independent spreads add in quadrature", () =>
    expect(sum([range(7, 10, 13), range(6, 10, 14)])).toEqual({ low: 15, mid: 20, high: 25 }));
});

describe("filling", () => {
  const cup = (filling?: Parameters<typeof weigh>[0]["filling"]) =>
    weigh({ quantity: exact(1), unit: "cup", ...(filling ? { filling } : {}) }, flour, "us");
  test("an unstated cup of flour spans spooned to dipped", () => {
    const unstated = cup();
    expect(unstated?.low).toBeLessThanOrEqual((cup("spooned")?.mid ?? 0) * 0.98);
    expect(unstated?.high).toBeGreaterThanOrEqual((cup("dipped")?.mid ?? 0) * 0.99);
  });
  test("sifted < spooned < dipped < packed", () => {
    const mids = (["sifted", "spooned", "dipped", "packed"] as const).map((f) => cup(f)?.mid ?? 0);
    expect([...mids].sort((a, b) => a - b)).toEqual(mids);
  });
  test("a scale has no spread", () =>
    expect(weigh({ quantity: exact(120), unit: "g" }, flour, "us")).toEqual({ low: 120, mid: 120, high: 120 }));
});

describe("quantities", () => {
  test.each([
    ["2", 2],
    ["1.5", 1.5],
    ["1,5", 1.5],
    ["1,000", 1000],
    ["1/2", 0.5],
    ["1 1/2", 1.5],
    ["1½", 1.5],
    ["2 ¾", 2.75],
    ["½", 0.5],
    ["⅔", 2 / 3],
    ["a", 1],
    ["half a", 0.5],
    ["a half", 0.5],
    ["one and a half", 1.5],
    ["2 and a half", 2.5],
    ["three quarters of a", 0.75],
    ["a dozen", 12],
    ["half a dozen", 6],
    ["twelve", 12],
    ["1 and 1/2", 1.5],
    ["a quarter", 0.25],
    ["a third of a", 1 / 3],
  ])("%s is %d", (text, value) => {
    expect(quantityAtStart(`${plainText(text)} cup`)?.value.mid).toBeCloseTo(value, 9);
  });
  test.each([
    ["2-3", 2, 3],
    ["2 to 3", 2, 3],
    ["1/2–3/4", 0.5, 0.75],
    ["two or three", 2, 3],
    ["a few", 2, 4],
  ])("%s is a range", (text, low, high) => {
    expect(quantityAtStart(`${plainText(text)} tbsp`)?.value).toMatchObject({ low, high });
  });
  test("division by zero is not a quantity", () => expect(quantityAtStart("1/0 cup")).toBeNull());
});

/** The first amount of a unit, or the first of all. */
const firstTerm = (item: WrittenItem, unit?: string): Term | undefined =>
  item.measures.flat().find((term) => term.unit === unit) ?? item.measures[0]?.[0];

describe("a line", () => {
  test.each([
    ["3/4 cup plus 2 tbsp sweet rice flour", "sweet rice flour", "cup", 0.75],
    ["3/4 cup milk plus 2 tbsp", "milk", "cup", 0.75],
    ["1 cup oat flour, plus 2 tbsp for dusting", "oat flour", "cup", 1],
    ["2 large eggs, separated", "eggs", "piece", 2],
    ["1 can (400 g) coconut milk", "coconut milk", "g", 400],
    ["1 (400 g) can coconut milk", "coconut milk", "g", 400],
    ["2 x 400 g tins of tomatoes", "tomatoes", "g", 800],
    ["1 heaped tsp baking powder", "baking powder", "tsp", 1],
    ["a heaped tablespoon of honey", "honey", "tbsp", 1],
    ["Buckwheat flour: 180 g", "Buckwheat flour", "g", 180],
    ["180g buckwheat flour", "buckwheat flour", "g", 180],
    ["Butter - 100 g", "Butter", "g", 100],
    ["1 stick butter", "butter", "stick", 1],
    ["sugar", "sugar", undefined, undefined],
    ["2 T sugar", "sugar", "tbsp", 2],
    ["2 t sugar", "sugar", "tsp", 2],
    ["8 fl. oz. milk", "milk", "fl-oz", 8],
    ["juice of half a lemon", "lemon juice", "piece", 0.5],
    ["[ ] 2 tsp. salt", "salt", "tsp", 2],
    ["1-inch piece of ginger", "inch piece of ginger", "piece", 1],
  ])("%s", (text, name, unit, quantity) => {
    const line = readLine(text);
    const main = firstTerm(line, unit);
    expect(line.name).toBe(name);
    expect(main?.unit).toBe(unit);
    if (quantity === undefined) expect(main).toBeUndefined();
    else expect(main?.quantity.mid).toBeCloseTo(quantity, 3);
  });
  test("says how it was filled", () => {
    expect(firstTerm(readLine("1 cup packed brown sugar"))?.filling).toBe("packed");
    expect(firstTerm(readLine("1 firmly packed cup brown sugar"))?.filling).toBe("packed");
    expect(firstTerm(readLine("2 cups sifted flour"))?.filling).toBe("sifted");
    expect(firstTerm(readLine("2 cups flour, sifted"))?.filling).toBeUndefined();
    expect(firstTerm(readLine("1 cup flour (spooned and levelled)"))?.filling).toBe("spooned");
    expect(firstTerm(readLine("1 scant cup milk"))?.filling).toBe("scant");
  });
  test("keeps preparation, option and taste", () => {
    expect(readLine("100 g butter, melted and cooled")).toMatchObject({ name: "butter", preparation: "melted and cooled" });
    expect(readLine("50 g walnuts (optional)").optional).toBe(true);
    expect(readLine("salt to taste")).toMatchObject({ name: "salt", toTaste: true });
  });
});

describe("oven, time and pan", () => {
  test.each([
    ["Bake at 180 °C", 180],
    ["Preheat oven to 350°F.", 177],
    ["gas mark 4", 178],
    ["Oven 350F/175C", 175],
    ["180C (160C fan)", 180],
    ["Bake at 350 degrees", 177],
  ])("%s", (text, celsius) => expect(readTemperatures(text).celsius).toBeCloseTo(celsius, 0));
  test("fan alone stays a fan", () => expect(readTemperatures("160°C fan")).toEqual({ celsius: 160, mode: "fan" }));
  test("a core temperature is no oven", () =>
    expect(readTemperatures("until the internal temperature is 205 °F")).toEqual({ coreC: 96.1 }));
  test("a pair apart is a conflict, a rounded pair is none", () => {
    expect(readTemperatures("175 °C (300 °F)").conflict).toEqual({ celsius: 175, fahrenheit: 300 });
    expect(readTemperatures("180 °C (350 °F)").conflict).toBeUndefined();
  });
  test.each([
    ["Bake for 50-60 minutes", 50, 60],
    ["bake 1 hour 10 minutes", 70, 70],
    ["Cook time: 45 min", 45, 45],
    ["bake for 1 1/4 hours", 75, 75],
  ])("%s", (text, low, high) => expect(readMinutes(text)).toEqual({ low, high }));
  test("cooling is not baking", () => expect(readMinutes("Leave to cool for 30 minutes")).toBeNull());
  test.each([
    ["a 9x5 inch loaf tin", { shape: "rectangular", lengthMm: 229, widthMm: 127 }],
    ["23 x 13 cm loaf pan", { lengthMm: 230, widthMm: 130 }],
    ["a 9-inch round cake tin", { shape: "round", diameterMm: 229 }],
    ["20 cm square tin", { lengthMm: 200, widthMm: 200 }],
    ["12-hole muffin tin", { shape: "muffin", pieces: 12 }],
    ["a 2 lb loaf tin", { lengthMm: 215 }],
    ["10-inch cast-iron skillet", { shape: "round", material: "cast-iron" }],
  ])("%s", (text, pan) => expect(readPan(text)).toMatchObject(pan));
});

describe("amounts as written", () => {
  test("eighths", () => expect([0.125, 0.5, 1.25, 2, 0.9].map(eighthsText)).toEqual(["⅛", "½", "1¼", "2", "⅞"]));
  test("grams to the scale", () => expect([1.94, 19.96, 123.4, 742].map(gramsText)).toEqual(["1.9 g", "20 g", "123 g", "740 g"]));
  test("household measures", () => {
    expect(householdText(4.6, { behaviour: "leavener", gPerMl: range(0.93, 0.93, 1) }, "us")).toBe("1 tsp");
    expect(householdText(240, water, "us")).toBe("1 cup");
  });
  test("rounding to what can be measured moves an amount by no more than half a step", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 2000, noNaN: true }),
        (g) => Math.abs(measurable(g) - g) <= (g < 20 ? 0.05 : g < 100 ? 0.5 : 2.5) + 1e-9,
      ),
    );
  });
});
