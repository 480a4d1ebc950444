import fc from "fast-check";
import { bareKitchen } from "../formula/bare-kitchen";
import { judgeOf } from "./judge";
import { blocksOf, rowsOf } from "./layout";
import { pageLines, readingsOf } from "./page-lines";
import type { PageWord } from "./words";

/** Words of lines of print as a page has them: each letter 10 px wide, 20 high, lines 30 apart. */
const set = (lines: readonly string[], { x = 40, y = 40, confidence = 96, pitch = 30 } = {}): PageWord[] =>
  lines.flatMap((line, k) =>
    [...line.matchAll(/\S+/g)].map(({ 0: text, index }): PageWord => ({ text, confidence, box: { x0: x + 10 * index, y0: y + pitch * k, x1: x + 10 * (index + text.length), y1: y + pitch * k + 20 } })),
  ); // prettier-ignore
const judge = judgeOf("en", bareKitchen.shelf);
const lines = (words: readonly PageWord[]): string[] => pageLines(words, judge).map(({ text }) => text);
const shuffled = <T>(all: readonly T[]): T[] => [...all].sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1));

test("lines come from top to bottom, words from left to right, in whatever order they were read", () => {
  const list = ["Pear loaf", "200 g buckwheat flour", "2 large eggs", "240 ml buttermilk"];
  expect(lines(shuffled(set(list)))).toEqual(list);
});

test("two columns under a title are read one after the other, and what stands under both comes last", () => {
  const left = ["Ingredients", "200 g buckwheat flour", "2 large eggs", "240 ml buttermilk"];
  const right = ["Method", "Whisk the dry ones.", "Stir in the wet ones.", "Bake it."];
  const page = [
    ...set(["A loaf for a Sunday in the autumn with pears and kefir in it"], { y: 0 }),
    ...set(left, { y: 60 }),
    ...set(right, { x: 400, y: 60 }),
    ...set(["Keeps three days under a cloth, in a tin of its own, away from the stove"], { y: 260 }),
  ];
  expect(lines(shuffled(page))).toEqual([
    "A loaf for a Sunday in the autumn with pears and kefir in it",
    ...left,
    ...right,
    "Keeps three days under a cloth, in a tin of its own, away from the stove",
  ]);
});

test("a table is read row by row, whichever column has the amounts", () => {
  const [amounts, foods] = [["200 g", "2", "240 ml", "½ tsp"], ["buckwheat flour", "large eggs", "buttermilk", "fine salt"]]; // prettier-ignore
  const rows = (a: string[], b: string[]): string[] => a.map((cell, k) => `${cell} ${b[k]}`);
  expect(lines([...set(amounts), ...set(foods, { x: 300 })])).toEqual(rows(amounts, foods));
  const [block] = blocksOf([...set(foods), ...set(amounts, { x: 400 })]);
  expect(block?.isTable).toBe(true);
});

test("a line that had no room goes on; one that ends early, and the next amount of a list, do not", () => {
  const text = ["Whisk the dry ingredients well, then stir in the", "wet ones until no flour is to be seen."];
  expect(lines(set(text))).toEqual([text.join(" ")]);
  const list = ["200 g buckwheat flour and as much again", "100 g sorghum flour"];
  expect(lines(set(list))).toEqual(list);
  expect(lines(set(["Leave it to stand for the rest of the after-", "noon, covered."]))).toEqual([
    "Leave it to stand for the rest of the afternoon, covered.",
  ]);
});

test("rows that sag are one line each", () => {
  const sagging = set(["200 g buckwheat flour sifted twice over", "100 g sorghum flour toasted in a pan"]).map((word) => ({
    ...word,
    box: { ...word.box, y0: word.box.y0 + word.box.x0 / 16, y1: word.box.y1 + word.box.x0 / 16 },
  }));
  expect(rowsOf(sagging)).toHaveLength(2);
});

test.each([
  ["2009 buckwheat flour", "200 g buckwheat flour"],
  ["250 mi buttermilk", "250 ml buttermilk"],
  ["200 9 buckwheat flour", "200 g buckwheat flour"],
  ["2 thsp honey", "2 tbsp honey"],
  ["l2O g buckwheat flour", "120 g buckwheat flour"],
  ["Bake at 180*C for 40 minutes.", "Bake at 180°C for 40 minutes."],
])("print that came as “%s” is “%s”", (came, is) => {
  expect(lines(set([came], { confidence: 70 }))).toEqual([is]);
});

test("letters that were in the file itself stay as they are", () => {
  const odd = ["a 23 × 13 cm tin", "2009 a good year", "1 thsp honey"];
  expect(odd.flatMap((line) => lines(set([line], { confidence: 100 })))).toEqual(odd);
  fc.assert(
    fc.property(
      fc.string({ minLength: 1, maxLength: 8 }),
      (text) => readingsOf({ text, confidence: 100, box: { x0: 0, y0: 0, x1: 1, y1: 1 } }).length === 1,
    ),
  );
});

test("an amount that two looks saw otherwise, that was hardly seen, or that is a strange sign is open; a sure one is not", () => {
  const [amount, ...rest] = set(["250 g buckwheat flour"]);
  if (!amount) throw new Error("no words");
  const of = (change: Partial<PageWord>) => pageLines([{ ...amount, ...change }, ...rest], judge)[0];
  expect(of({})).toMatchObject({ text: "250 g buckwheat flour", isOpen: false, choices: [] });
  expect(of({ confidence: 50 })).toMatchObject({ isOpen: true });
  const twice = of({ others: [{ text: "350", worth: 0.9 }] });
  expect([twice?.isOpen, twice?.choices]).toEqual([true, ["350 g buckwheat flour"]]);
  expect(of({ text: "%" })?.isOpen).toBe(true);
  // What weighs nothing is never asked about.
  expect(pageLines(set(["Serve it warm."], { confidence: 40 }), judge)[0]?.isOpen).toBe(false);
});

test("noughts with a stroke, seen as other figures by two looks, are offered as noughts first", () => {
  const [amount, ...rest] = set(["159 g buckwheat flour"]);
  if (!amount) throw new Error("no words");
  const [line] = pageLines([{ ...amount, others: [{ text: "158", worth: 0.9 }] }, ...rest], judge);
  expect([line?.text, line?.isOpen]).toEqual(["150 g buckwheat flour", true]);
});

test("an uneven amount is asked about only on a page whose noughts have strokes", () => {
  const even = pageLines(set(["128 g buckwheat flour", "2 large eggs"]), judge);
  expect(even.map(({ isOpen }) => isOpen)).toEqual([false, false]);
  const [first, ...rest] = set(["240 g sorghum flour", "66 g buckwheat flour"]);
  if (!first) throw new Error("no words");
  const stroked = pageLines([{ ...first, others: [{ text: "248", worth: 0.9 }] }, ...rest], judge);
  expect(stroked[1]).toMatchObject({ text: "66 g buckwheat flour", isOpen: true });
});

test("no word that was read is lost on the way to a line", () => {
  const word = fc.constantFrom("flour", "200", "g", "eggs", "Bake", "and", "½", "milk", "xylo", "tin.");
  fc.assert(
    fc.property(fc.array(fc.array(word, { minLength: 1, maxLength: 6 }), { minLength: 1, maxLength: 8 }), (rows) => {
      const page = set(rows.map((row) => row.join(" ")), { confidence: 100 });
      expect(lines(page).join(" ").split(" ").sort()).toEqual(rows.flat().sort());
    }),
    { numRuns: 60 },
  );
}); // prettier-ignore
