import { resolve } from "../formula/resolve";
import { builtInShelf } from "../pantry/catalogue";
import { liftOf } from "../lift/lift";
import { releasedAfter } from "../lift/kinetics";
import { stand } from "./bench";
import { browned } from "./browning";
import { materialOf } from "./material";
import { standardModel } from "./model";

const items = resolve(
  [
    ["white-rice-flour", 300],
    ["water", 300],
    ["powder-double-acting", 14],
    ["sunflower-oil", 40],
  ].map(([ingredientId, grams]) => ({
    ingredientId: String(ingredientId),
    grams: Number(grams),
  })),
  builtInShelf,
);
const { gas } = liftOf(items, {});
const material = materialOf(items);
const massKg = 0.654;
const after = (seconds: number, celsius = 22) => stand(gas, massKg, 0.08, seconds, celsius, material, 1, standardModel, 101325);
const sum = (values: readonly number[]): number => values.reduce((all, value) => all + value, 0);

describe("a batter that stands", () => {
  test("what is still bound is what its reactions have not freed, by their closed form", () => {
    const expected = sum(gas.sources.map(({ mmol, reaction }) => mmol * (1 - releasedAfter(reaction, 1200, 22)))) / 1000 / massKg;
    expect(sum(after(1200).bound) / expected).toBeCloseTo(1, 6);
  });
  test("carbon is never made: free and bound stay under the whole, and less is there the longer it stands", () => {
    const left = [60, 600, 3600, 4 * 3600].map((seconds) => {
      const risen = after(seconds);
      return risen.carbonDioxide + sum(risen.bound);
    });
    expect(left[0]).toBeLessThanOrEqual(after(0.001).whole + 1e-12);
    left.slice(1).forEach((value, i) => expect(value).toBeLessThan(left[i] ?? 0));
  });
  test("before any gas has come it holds the air that was beaten in", () => {
    const condensed = material.dryVolume + material.water / 983.7;
    const { gasM3 } = after(1e-6);
    expect(gasM3 / (gasM3 + condensed)).toBeCloseTo(0.08, 3);
  });
  test("warmth hurries it", () => {
    expect(sum(after(600, 35).bound)).toBeLessThan(sum(after(600, 10).bound));
  });
});

test("the material of a batter: water by its table, sugar per kilogram of water, volume as of its parts", () => {
  const syrup = materialOf(
    resolve(
      [
        { ingredientId: "white-sugar", grams: 342.3 },
        { ingredientId: "water", grams: 1000 },
      ],
      builtInShelf,
    ),
  );
  expect(syrup.sugarMolality).toBeCloseTo(1, 1);
  expect(syrup.water + syrup.dry).toBeCloseTo(1, 12);
  expect(material.water).toBeGreaterThan(0.45);
  const density = 1 / (material.dryVolume + material.water / 983.7);
  expect(density).toBeGreaterThan(1050);
  expect(density).toBeLessThan(1250);
});

test("a minute at 150 °C browns by one, at 140 °C by half as much, under 105 °C not at all", () => {
  expect(browned(150, 95e3, 60)).toBeCloseTo(1, 9);
  // Q10 of 95 kJ/mol at 145 °C: exp(95000/8.314·(1/413.15 − 1/423.15)) = 1.92.
  expect(1 / browned(140, 95e3, 60)).toBeCloseTo(1.92, 1);
  expect(browned(104, 95e3, 60)).toBe(0);
});
