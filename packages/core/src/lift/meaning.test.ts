import fc from "fast-check";
import { builtInShelf } from "../pantry/catalogue";
import { resolve } from "../formula/resolve";
import { meaningOf } from "./meaning";

const items = (...lines: [string, number][]) =>
  resolve(
    lines.map(([ingredientId, grams]) => ({ ingredientId, grams })),
    builtInShelf,
  );
const flat = (ph: number) => ({ low: ph, mid: ph, high: ph });
const textOf = (aspect: string, ph: number, ...lines: [string, number][]): string =>
  meaningOf(items(["white-rice-flour", 200], ...lines), flat(ph))
    .filter((meaning) => meaning.aspect === aspect)
    .map((meaning) => meaning.text)
    .join("; ");

describe("what a crumb's pH means", () => {
  test.each([
    [5.9, /tangy/, /pale/],
    [7, /mild/, /golden/],
    [8.4, /soapy at the edge/, /dark/],
    [9, /metallic/, /very dark/],
  ])("at pH %d", (ph, taste, browning) => {
    expect(textOf("taste", ph)).toMatch(taste);
    expect(textOf("browning", ph)).toMatch(browning);
  });
  test("colours are told only for pigments that are there, and turn with pH", () => {
    expect(textOf("colour", 8)).toBe("");
    expect(textOf("colour", 5.5, ["blueberries", 80])).toMatch(/pink/);
    expect(textOf("colour", 7, ["blueberries", 80])).toMatch(/mauve/);
    expect(textOf("colour", 8, ["blueberries", 80])).toMatch(/blue-grey/);
    expect(textOf("colour", 8.5, ["cocoa-natural", 30])).toMatch(/nearly black/);
    expect(textOf("colour", 8.5, ["sunflower-seeds", 30])).toMatch(/green/);
    expect(textOf("colour", 7, ["sunflower-seeds", 30])).toMatch(/keep their colour/);
    expect(textOf("colour", 8.5, ["beetroot-puree", 80])).toMatch(/yellow-brown/);
    expect(textOf("colour", 8, ["blueberries", 0])).toBe("");
  });
  test("a wide range says what else it may be, a narrow one does not", () => {
    const wide = meaningOf(items(["white-rice-flour", 200]), { low: 5.9, mid: 7, high: 8.5 });
    expect(wide[0]?.text).toMatch(/^mild; perhaps tangy or soapy at the edge$/);
    expect(textOf("taste", 7)).not.toMatch(/perhaps/);
  });
  test("there is a word for every pH", () => {
    fc.assert(
      fc.property(fc.double({ min: 2, max: 12, noNaN: true }), (ph) => {
        for (const { text } of meaningOf(items(["cocoa-natural", 20], ["blueberries", 20]), flat(ph)))
          expect(text.length).toBeGreaterThan(3);
      }),
    );
  });
});
