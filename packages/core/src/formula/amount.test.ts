import fc from "fast-check";
import { amountText, readAmount } from "./amount";
import { builtInShelf, catalogue } from "../pantry/catalogue";
import { ingredientOf } from "../pantry/shelf";

const of = (id: string) => ingredientOf(builtInShelf, id);
const grams = (text: string, id: string, mode: "grams" | "household" | "percent" = "grams") => {
  const read = readAmount(text, of(id), { measures: "us", mode, flourG: 300 });
  return "error" in read ? read.error : read.grams.mid;
};

test.each([
  ["120", "sorghum-flour", "grams", 120],
  ["0,5 kg", "water", "grams", 500],
  ["1½ cups", "water", "grams", 354.882],
  ["2 large", "egg", "grams", 100],
  ["2", "egg", "household", 100],
  ["45 %", "whole-milk", "grams", 135],
  ["45", "whole-milk", "percent", 135],
  ["1 tsp", "soda", "grams", 4.6826 * 1.04],
] as const)("%s of %s in %s is %d g", (text, id, mode, expected) => expect(grams(text, id, mode)).toBeCloseTo(expected, 1));

test("what is no amount is answered with one that would be", () => {
  expect(grams("some", "water")).toMatch(/would be right/);
  expect(grams("1 stick", "water")).toBe(113.398);
  expect(grams("2 pieces", "water")).toMatch(/give grams/);
  expect(readAmount("45 %", of("water"), { measures: "us", mode: "grams", flourG: 0 })).toHaveProperty("error");
});

test("what the sheet shows in grams and per cent reads back to the same mass within its resolution", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...catalogue),
      fc.double({ min: 0.1, max: 2000, noNaN: true }),
      fc.constantFrom("grams" as const, "percent" as const),
      (ingredient, mass, mode) => {
        const context = { measures: "us" as const, mode, flourG: 300 };
        const { figure, unit } = amountText(mass, ingredient, context);
        const read = readAmount(`${figure} ${unit}`, ingredient, context);
        if ("error" in read) throw new Error(read.error);
        return Math.abs(read.grams.mid - mass) <= (mode === "grams" ? (mass < 20 ? 0.051 : 0.51) : 0.16);
      },
    ),
  );
});
