import fc from "fast-check";
import { batchOf, resolve } from "./resolve";
import { scaleLines } from "./scale";
import { kindFromWords } from "./kinds";
import { differencesOf } from "./differences";
import type { Formula } from "./formula";
import { builtInShelf, catalogue } from "../pantry/catalogue";

const anyLine = fc.record({
  ingredientId: fc.constantFrom(...catalogue.map((i) => i.id)),
  grams: fc.double({ min: 1, max: 500, noNaN: true }),
});

test("scaling is linear in every amount of the batch and leaves the percentages alone", () => {
  fc.assert(
    fc.property(
      fc.array(anyLine, { minLength: 1, maxLength: 15 }),
      fc.double({ min: 0.1, max: 12, noNaN: true }),
      (lines, factor) => {
        const one = batchOf(resolve(lines, builtInShelf));
        const many = batchOf(resolve(scaleLines(lines, factor), builtInShelf));
        for (const key of ["massG", "flourG", "waterG", "fatG", "sugarG", "proteinG", "sodiumMg"] as const) {
          expect(many[key]).toBeCloseTo(one[key] * factor, 6);
        }
        many.bakersPercent.forEach((line, i) => expect(line.percent).toBeCloseTo(one.bakersPercent[i]?.percent ?? NaN, 5));
      },
    ),
  );
});

test("the flour and starch add up to a hundred per cent", () => {
  const batch = batchOf(
    resolve(
      [
        { ingredientId: "sorghum-flour", grams: 150 },
        { ingredientId: "tapioca-starch", grams: 50 },
        { ingredientId: "water", grams: 160 },
      ],
      builtInShelf,
    ),
  );
  expect(batch.flourG).toBe(200);
  expect(batch.bakersPercent.map((l) => l.percent)).toEqual([75, 25, 80]);
  expect(batch.waterG).toBeCloseTo(160 + 150 * 0.105 + 50 * 0.115, 6);
});

test("an amount below nothing and a factor of nothing are refused with what would be right", () => {
  expect(() => resolve([{ ingredientId: "water", grams: -5 }], builtInShelf)).toThrow(/0 g or more/);
  expect(() => scaleLines([{ grams: 5 }], 0)).toThrow(/above 0/);
});

test.each([
  ["Buckwheat pear loaf", "loaf"],
  ["Corn muffins", "muffin"],
  ["Millet cornbread", "cornbread-plain"],
  ["Orange griddle cakes", "pourable-batter"],
  ["Teff brownies", "bar"],
  ["Tea", null],
])("%s is %s", (title, kind) => expect(kindFromWords(title ?? "")).toBe(kind));

test("differences name what changed and nothing else", () => {
  const before: Formula = {
    shape: 2,
    title: "Loaf",
    kind: "loaf",
    measures: "us",
    lines: [{ id: "a", ingredientId: "water", grams: { low: 100, mid: 100, high: 100 } }],
    vessel: { shape: "round", diameterMm: 200 },
    oven: { celsius: 180 },
    process: {},
    notes: "",
  };
  const after: Formula = {
    ...before,
    oven: { celsius: 170 },
    lines: [
      { id: "a", ingredientId: "water", grams: { low: 120, mid: 120, high: 120 } },
      { id: "b", ingredientId: "soda", grams: { low: 2, mid: 2, high: 2 } },
    ],
  };
  expect(differencesOf(before, after, (id) => id)).toEqual([
    { what: "water", before: "100 g", after: "120 g" },
    { what: "soda", before: "–", after: "2 g" },
    { what: "Oven: °C", before: "180", after: "170" },
  ]);
  expect(differencesOf(before, before, (id) => id)).toEqual([]);
});
