import { readings } from "./balance/analyse";
import { analyseText, answered, beginKind, formulaFrom, mended, type Mending } from "./begin";
import { mendingKey } from "./measure/mending";
import { isOpen, isWeighed } from "./formula/components";
import { type FormulaLine, formulaSchema } from "./formula/formula";
import { kinds } from "./formula/kinds";
import { openFormula } from "./formula/open";
import { bareKitchen } from "./formula/bare-kitchen";
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
  const formula = formulaFrom(readRecipe(text, "us"), "us");
  expect(formulaSchema.safeParse(formula).error?.issues ?? []).toEqual([]);
  expect(formula).toMatchObject({ kind: "muffin", oven: { celsius: 190 }, vessel: { shape: "muffin", pieces: 12 } });
  const open = formula.lines.filter(isOpen);
  expect(open.map(({ source, name, ingredientId, grams }) => [source, name, ingredientId, grams?.mid])).toEqual([
    ["3 tbsp moon dust", "Moon dust", undefined, undefined],
    ["butter", undefined, "butter", undefined],
  ]);
  expect(formula.notes).toContain("20 minutes");
  expect(formula.said).toMatchObject({ celsius: 190, minutes: { low: 20 }, panNamed: true });
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

describe("what was said of a line by hand", () => {
  const pier = `Pier bake
200 g sorghum flour
50 g walnuts or pecans
30 g chia seeds (optional)
1 tsp each of baking soda and salt
60 g moonbean flour
Topping:
40 g oats`;
  const reading = readRecipe(pier, "us");
  const linesOf = (mending: Mending): FormulaLine[] => formulaFrom(mended(reading, mending, "us"), "us").lines;
  const idsOf = (mending: Mending): string[] => linesOf(mending).flatMap((line) => (isWeighed(line) ? [line.ingredientId] : []));

  test("every line keeps its place: what is optional is off until it is taken, a topping stands in its component, what is unknown is open", () => {
    expect(idsOf({})).toEqual(["sorghum-flour", "walnuts", "soda", "salt", expect.stringMatching(/oats/)]);
    expect(idsOf({ "30 g chia seeds (optional)": { taken: true } })).toContain("chia");
    const formula = formulaFrom(reading, "us");
    expect(formula.components).toEqual([{ id: expect.any(String), name: "Topping", role: "topping" }]);
    expect(formula.lines.map(({ name, ingredientId, off, component }) => [ingredientId ?? name, off, component])).toEqual([
      ["sorghum-flour", undefined, undefined],
      ["walnuts", undefined, undefined],
      ["chia", true, undefined],
      ["soda", undefined, undefined],
      ["salt", undefined, undefined],
      ["Moonbean flour", undefined, undefined],
      [expect.stringMatching(/oats/), undefined, formula.components?.[0]?.id],
    ]);
    expect(readings(openFormula(formula, bareKitchen))).toMatchObject({
      open: [{ name: "Moonbean flour", matters: true }],
      final: false,
    });
  });

  test("a line that is left unread asks nothing more and weighs nothing", () => {
    const after = mended(reading, { "50 g walnuts or pecans": { left: true } }, "us");
    expect(after.questions.some(({ line }) => after.lines[line]?.source.startsWith("50 g"))).toBe(false);
    expect(idsOf({ "50 g walnuts or pecans": { left: true } })).not.toContain("walnuts");
  });

  test("an alternative that is chosen brings its own name; a stand-in keeps the baker's", () => {
    const pecans = mended(reading, { "50 g walnuts or pecans": { choice: { "which-one": 1 } } }, "us");
    const chosen = formulaFrom(pecans, "us").lines.find(({ ingredientId }) => ingredientId === "pecans");
    expect(chosen?.name ?? "Pecans").toMatch(/pecans/i);
    const stand = mended(reading, { "60 g moonbean flour": { ingredientId: "teff-flour" } }, "us");
    const line = formulaFrom(stand, "us").lines.find(({ ingredientId }) => ingredientId === "teff-flour");
    expect(line).toMatchObject({ name: "Moonbean flour", grams: { mid: 60 } });
  });

  test("of a line that holds two things, one is mended and the other stays", () => {
    const salt = reading.lines.find((line) => line.ingredientId === "salt");
    expect(salt && mendingKey(salt)).toBe("1 tsp each of baking soda and salt#1");
    const after = mended(reading, { "1 tsp each of baking soda and salt#1": { grams: 3 } }, "us");
    const gramsOf = (id: string) => after.lines.find(({ ingredientId }) => ingredientId === id)?.grams?.mid;
    expect(gramsOf("salt")).toBe(3);
    expect(gramsOf("soda")).toBeCloseTo(4.9, 0);
  });

  test("a name that was explained before is read without a question", () => {
    const own = new Map([["moonbean flour", "sorghum-flour"]]);
    const again = readRecipe("Pier bake\n60 g Moonbean flour", "us", undefined, undefined, own);
    expect(again.lines[1]).toMatchObject({ ingredientId: "sorghum-flour", state: "read" });
    expect(again.questions).toEqual([]);
  });
});

test("what is brushed on, sprinkled and lies under the batter is in its component; what says “if you like” is off", () => {
  const formula = formulaFrom(
    readRecipe(
      `Upside-down pear tray
For the pears:
3 pears, sliced
40 g butter
For the cake:
200 g sorghum flour
150 ml milk
1 tbsp milk, to brush
1 tbsp poppy seeds to sprinkle
20 g flaked almonds to scatter, optional
butter for the tin
Bake at 180 C for 40 minutes in a 23 cm round tin`,
      "uk",
    ),
    "uk",
  );
  const names = new Map((formula.components ?? []).map(({ id, name, place }) => [id, `${name}${place ? ` (${place})` : ""}`]));
  expect(formula.lines.map(({ source, component, off }) => [source, names.get(component ?? "") ?? "batter", off ?? false])).toEqual(
    [
      ["3 pears, sliced", "Pears (base)", false],
      ["40 g butter", "Pears (base)", false],
      ["200 g sorghum flour", "batter", false],
      ["150 ml milk", "batter", false],
      ["1 tbsp milk, to brush", "Brushed on", false],
      ["1 tbsp poppy seeds to sprinkle", "Topping", false],
      ["20 g flaked almonds to scatter, optional", "Topping", true],
      ["butter for the tin", "The pan", false],
    ],
  );
});

test("a heading that only names what is in it is the batter where there is no other", () => {
  const formula = formulaFrom(readRecipe("Muffins\nFor the muffin bowl:\n200 g sorghum flour\n180 ml milk\n2 eggs", "uk"), "uk");
  expect([formula.components, formula.lines.every(({ component }) => component === undefined)]).toEqual([undefined, true]);
});

test.each([
  ["Breakwater rocks\n200 g oat flour\nDrop rough heaps onto a tray", "drop"],
  ["Quay farls\n200 g oat flour", "flatbread"],
  ["Lantern cornbread, tall and sweet\n200 g cornmeal", "cornbread-sweet"],
  ["Caraway bread\n400 g sorghum flour\nBake in a 33 x 23 cm tin", "tray-bread"],
  ["Caraway loaf\n400 g sorghum flour\nBake in a 33 x 23 cm tin", "loaf"],
])("the kind is guessed by title, pan and words, and marked as a guess: %j", (text, kind) => {
  expect(readRecipe(text, "uk")).toMatchObject({ kind, kindIsGuess: true });
});

test("a recipe with more parts than a formula keeps is still a whole formula, its last lines in the last part", () => {
  const many = Array.from({ length: 30 }, (_, n) => `Filling ${n + 1}:\n100 g sugar\n`).join("\n");
  const reading = readRecipe(`Layered loaf\n200 g rice flour\n200 g milk\n\n${many}\nBake at 180 °C for 40 minutes.`, "metric");
  expect((reading.components ?? []).length).toBeGreaterThan(24);
  const formula = formulaFrom(reading, "metric");
  expect(formulaSchema.safeParse(formula).success).toBe(true);
  expect(formula.components?.length).toBe(24);
  expect(formula.lines).toHaveLength(32);
  const kept = formula.components?.map(({ id }) => id) ?? [];
  for (const { component } of formula.lines) if (component !== undefined) expect(kept).toContain(component);
  expect(formula.lines.at(-1)?.component).toBe(kept.at(-1));
});

test("a time beyond any bake is not kept as the recipe's word", () => {
  const formula = formulaFrom(
    readRecipe(
      `Loaf\n200 g rice flour\n200 g milk\nBake at 180 °C for 10 hours${", then bake another 10 hours".repeat(20)}.`,
      "metric",
    ),
    "metric",
  );
  expect(formulaSchema.safeParse(formula).success).toBe(true);
  expect(formula.said?.minutes).toBeUndefined();
  expect(formula.said?.celsius).toBe(180);
});
