import { readings } from "./analyse";
import { analyseText, answered, beginKind, formulaFrom, mended } from "./begin";
import { formulaSchema } from "./formula/formula";
import { kinds } from "./formula/kinds";
import { readRecipe } from "./read";

const text = `Sorghum muffins
1 cup sorghum flour (100 g)
60 g flour
2 medium eggs
1 cup milk
3 tbsp moon dust
2 tsp baking powder
butter
Bake at 190 °C (325 °F) for 20 minutes in a 12-hole muffin tin.`;

test("questions are answered one by one until none is open", () => {
  let reading = readRecipe(text, "us");
  expect(reading.questions.map((q) => q.kind).sort()).toEqual([
    "amounts-disagree",
    "how-much",
    "temperatures-disagree",
    "which-ingredient",
  ]);
  for (const question of reading.questions) {
    const choice = question.choices[1];
    if (choice) reading = answered(reading, question, choice);
  }
  expect(reading.oven?.celsius).toBe(163);
  expect(reading.lines[1]?.grams?.mid).toBeGreaterThan(120);
  expect(reading.lines[2]).toMatchObject({ ingredientId: "gf-blend-gum", state: "read" });
  expect(reading.questions.map((q) => q.kind)).toEqual(["how-much"]);
});

test("a line that could not be read is mended by an ingredient, a line without a mass by grams", () => {
  const reading = readRecipe(text, "us");
  const after = mended(
    reading,
    {
      "3 tbsp moon dust": { ingredientId: "honey" },
      butter: { grams: 40 },
      "60 g flour": { choice: { "which-ingredient": 0 } },
      "gone line": { grams: 3 },
    },
    "us",
  );
  expect(after.lines[5]).toMatchObject({ ingredientId: "honey", state: "read" });
  expect(after.lines[5]?.grams?.mid).toBeCloseTo(3 * 14.787 * 1.42, 1);
  expect(after.lines[7]).toMatchObject({ ingredientId: "butter", grams: { mid: 40 }, state: "read" });
  expect(after.questions.map((q) => q.kind)).toEqual(["amounts-disagree", "temperatures-disagree"]);
  expect(after.lines.map((l) => l.source)).toEqual(reading.lines.map((l) => l.source));
});

test("a formula is begun from a reading, and nothing of the text is lost", () => {
  const { formula, left } = formulaFrom(readRecipe(text, "us"), "us");
  expect(formulaSchema.safeParse(formula).error?.issues ?? []).toEqual([]);
  expect(formula).toMatchObject({ kind: "muffin", oven: { celsius: 190 }, vessel: { shape: "muffin", pieces: 12 } });
  expect(left.map((line) => line.source)).toEqual(["3 tbsp moon dust", "butter"]);
  for (const word of ["moon dust", "butter", "20 minutes"]) expect(formula.notes).toContain(word);
});

test("a text with a false pair of temperatures is analysed with that finding", () => {
  const analysis = analyseText(text, { measures: "us" });
  expect(analysis.findings[0]?.id).toBe("temperature-mismatch");
  expect(analysis.given.oven.celsius).toBe(190);
});

test.each(kinds)("%s can be begun from flours on the shelf", (kind) => {
  const formula = beginKind(kind, "metric", 800, ["sorghum-flour", "tapioca-starch"]);
  expect(formulaSchema.safeParse(formula).error?.issues ?? []).toEqual([]);
  expect(formula.lines.some((line) => line.ingredientId === "gf-blend-plain")).toBe(false);
  expect(readings(formula).batch.massG).toBeCloseTo(800, 0);
});
