import fc from "fast-check";
import { readRecipe } from "./read";

const pasted = `Millet skillet bread

Ingredients
1 1/2 cups millet flour
½ cup cornmeal (80 g)
2 tsp baking powder
1 cup flour (100 g)
2 medium eggs
1 cup oat milk
4 tbsp melted coconut oil
pinch of salt
10 g moon dust
Salt to taste

Method
Preheat the oven to 220 °C (425 °F) with a 10-inch cast-iron skillet in it.
Mix 2 tbsp of the oil in. Bake for 20 to 25 minutes.`;

test("a pasted recipe comes back line by line with its surroundings", () => {
  const reading = readRecipe(pasted);
  expect(reading.title).toBe("Millet skillet bread");
  expect(reading.lines.map((line) => line.source)).toEqual(pasted.split("\n").filter((line) => line.trim() !== ""));
  expect(reading.oven).toEqual({ celsius: 220 });
  expect(reading.minutes).toEqual({ low: 20, high: 25 });
  expect(reading.pan).toMatchObject({ shape: "round", diameterMm: 254, material: "cast-iron" });
  const of = (word: string) => reading.lines.find((line) => line.source.includes(word));
  expect(of("cornmeal")).toMatchObject({ ingredientId: "cornmeal", grams: { mid: 80 }, state: "read" });
  expect(of("moon dust")).toMatchObject({ ingredientId: null, grams: { mid: 10 }, state: "unread" });
  expect(of("flour (100 g)")).toMatchObject({ state: "asked", grams: { mid: 100 } });
  expect(of("to taste")).toMatchObject({ ingredientId: "salt", grams: null, optional: true });
  expect(of("Mix 2 tbsp")).toMatchObject({ role: "step" });
});

test("a volume and a weight apart by more than a fifth are asked about, a near pair is not", () => {
  const kindsOf = (text: string) => readRecipe(`Loaf\n${text}`).questions.map((q) => q.kind);
  expect(kindsOf("1 cup water (240 g)")).toEqual([]);
  expect(kindsOf("1 cup water (180 g)")).toEqual(["amounts-disagree"]);
  expect(kindsOf("2 cups sorghum flour (130 g)")).toEqual(["amounts-disagree"]);
  expect(kindsOf("1 cup sorghum flour (130 g)")).toEqual([]);
});

test("a temperature pair that is not one is asked about with both readings", () => {
  const [question] = readRecipe("Loaf\n200 g rice flour\nBake at 175 °C (300 °F) for 1 hour").questions;
  expect(question?.kind).toBe("temperatures-disagree");
  expect(question?.choices.map((c) => c.celsius)).toEqual([175, 149]);
});

test("the same cup weighs more in Australia's spoon and the metric cup", () => {
  const grams = (measures: "us" | "au" | "metric", line: string) => readRecipe(`x\n${line}`, measures).lines[1]?.grams?.mid ?? 0;
  expect(grams("au", "1 tbsp water") / grams("us", "1 tbsp water")).toBeCloseTo(20 / 14.787, 2);
  expect(grams("metric", "1 cup water")).toBeCloseTo(250, 0);
  expect(grams("us", "1 large egg")).toBe(50);
  expect(grams("metric", "1 large egg")).toBe(55);
});

test("no line is ever lost, whatever is pasted, and ranges are in order", () => {
  const words = fc.constantFrom(
    "1",
    "½",
    "cup",
    "200 g",
    "flour",
    "of",
    "(",
    ")",
    "eggs",
    "plus",
    ",",
    "-",
    "°C",
    "350",
    "bake",
    "Method",
    "Notes:",
    "•",
    "²",
    "to taste",
    "a",
    "/",
    "x",
    "💥",
    "juice of",
  );
  const line = fc.oneof(
    fc.string({ maxLength: 60 }),
    fc.array(words, { maxLength: 9 }).map((all) => all.join(" ")),
  );
  fc.assert(
    fc.property(fc.array(line, { maxLength: 12 }), (lines) => {
      const text = lines.join("\n");
      const reading = readRecipe(text);
      // A line that holds several things comes back once for each of them.
      expect(reading.lines.filter((l) => (l.item ?? 0) === 0).map((l) => l.source)).toEqual(
        text.split(/\r\n|\r|\n/).filter((l) => l.trim() !== ""),
      );
      for (const { grams } of reading.lines) {
        if (grams)
          expect(Number.isFinite(grams.mid) && grams.low <= grams.mid && grams.mid <= grams.high && grams.low >= 0).toBe(true);
      }
      return JSON.parse(JSON.stringify(reading)) !== null;
    }),
    { numRuns: 300 },
  );
});
