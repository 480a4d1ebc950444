import fc from "fast-check";
import {
  approach,
  boilingC,
  latentHeat,
  placeOf,
  pressurePa,
  saturationPa,
  saturationTable,
  solubility,
  vapourConductivityTable,
} from "./steam-tables";
import { solve, tridiagonal } from "./run";

/** Steam tables (IAPWS values as printed in engineering handbooks): °C, Pa. */
const printed: [number, number][] = [
  [10, 1228],
  [22, 2645],
  [40, 7384],
  [60, 19946],
  [80, 47414],
  [90, 70182],
  [100, 101420],
  [110, 143380],
  [120, 198670],
];

describe("water and its vapour against printed tables", () => {
  test.each(printed)("saturation at %d °C", (celsius, pascal) => {
    expect(Math.abs(saturationPa(celsius) / pascal - 1)).toBeLessThan(0.015);
  });
  test.each([
    [25, 2.442e6],
    [60, 2.358e6],
    [100, 2.257e6],
  ])("heat of vaporisation at %d °C", (celsius, joules) => {
    expect(Math.abs(latentHeat(celsius) / joules - 1)).toBeLessThan(0.004);
  });
  test.each([
    [0, 101325, 100],
    [1000, 89875, 96.7],
    [2000, 79495, 93.3],
    [3000, 70109, 90],
  ])("air and boiling %d m above the sea", (metres, pascal, celsius) => {
    expect(Math.abs(pressurePa(metres) / pascal - 1)).toBeLessThan(0.001);
    expect(Math.abs(boilingC(pressurePa(metres)) - celsius)).toBeLessThan(0.25);
  });
  test("carbon dioxide in water: the five points, falling between and beyond them", () => {
    const points: [number, number][] = [[4, 0.0585], [22, 0.0345], [40, 0.0216], [60, 0.0136], [80, 0.0091]]; // prettier-ignore
    for (const [celsius, molar] of points) expect(solubility(celsius)).toBeCloseTo(molar, 6);
    for (let t = 0; t < 110; t++) expect(solubility(t + 1)).toBeLessThan(solubility(t));
  });
  test("vapour carries as much heat through a bubble near 60 °C as water conducts, as texts on moist pores say", () => {
    expect(vapourConductivityTable[60 * 4]).toBeGreaterThan(0.3);
    expect(vapourConductivityTable[60 * 4]).toBeLessThan(0.6);
  });
  test("tables are read in between within a thousandth", () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 200, noNaN: true }), (celsius) => {
        const place = placeOf(celsius);
        const at = Math.floor(place);
        const low = saturationTable[at] ?? NaN;
        const read = low + (place - at) * ((saturationTable[at + 1] ?? NaN) - low);
        expect(Math.abs(read / saturationPa(celsius) - 1)).toBeLessThan(1e-3);
      }),
    );
    expect([placeOf(-5), placeOf(9999)]).toEqual([0, 330 * 4]);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 40, noNaN: true }), (x) => expect(approach(x)).toBeCloseTo(1 - Math.exp(-x), 4)),
    );
  });
});

test("the tridiagonal solver gives back the vector a random system was made from", () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 2, maxLength: 40 }),
      fc.integer(),
      (wanted, seed) => {
        const n = wanted.length;
        const system = tridiagonal(n);
        let state = Math.abs(seed) + 1;
        const random = (): number => (state = (state * 48271) % 2147483647) / 2147483647;
        for (let i = 0; i < n; i++) {
          system.lower[i] = i > 0 ? -random() : 0;
          system.upper[i] = i < n - 1 ? -random() : 0;
          system.middle[i] = 2.1 + random();
        }
        for (let i = 0; i < n; i++)
          system.right[i] =
            system.middle[i]! * wanted[i]! +
            (i > 0 ? system.lower[i]! * wanted[i - 1]! : 0) +
            (i < n - 1 ? system.upper[i]! * wanted[i + 1]! : 0);
        solve(system, n);
        wanted.forEach((value, i) => expect(system.x[i]).toBeCloseTo(value, 8));
      },
    ),
  );
});
