import { formulaFrom } from "../begin";
import { readRecipe } from "../read";

/** What came out of six texts in other voices (a stall, a bench sheet, a school, a card, a blog, a voice note), by class. */
const read = (text: string) => readRecipe(text, "metric");
const grams = (text: string, id: RegExp): (number | undefined)[] =>
  read(text).lines.flatMap(({ ingredientId, grams: g }) => (ingredientId !== null && id.test(ingredientId) ? [g?.mid] : []));

describe("a name ends before what joins it to the next", () => {
  const list = "Scones\n225g sorghum flour\n25g caster sugar\n50g sultanas\n150ml milk\n";
  test.each(["Stir in sugar and sultanas.", "Stir in the sugar and the milk.", "Add sugar or leave it.", "Mix in sultanas with sugar."])("%s", (step) => {
    expect(read(`${list}1. Rub the flour with your hands.\n2. ${step}`).questions).toEqual([]);
  }); // prettier-ignore
});

test.each([
  ["nuts", "85 g pecans"],
  ["seeds", "40 g sunflower seeds"],
  ["spices", "2 tsp cinnamon"],
  ["berries", "150 g raspberries"],
])("who folds in the %s means those of the list", (group, line) => {
  const { questions, lines } = read(`Muffins\n200 g oat flour\n2 eggs\n150 ml milk\n${line}\n\nMix all. Fold in ${group}. Bake 20 minutes at 180 °C.`);
  expect([questions, lines.filter(({ role }) => role === "ingredient").length]).toEqual([[], 4]);
}); // prettier-ignore

test.each([
  "so its a hundred and fifty of rice flour and fifty cornflour, two teaspoons of baking powder. bake 20 minutes at 180",
  "take one fifty of rice flour then fifty tapioca and bake it 20 minutes",
])("a bare number of what is not counted is asked about, never passed over: %s", (text) => {
  const { lines, questions } = read(text);
  for (const id of [/rice-flour/, /starch/]) expect(lines.some(({ ingredientId, state }) => id.test(ingredientId ?? "") && state === "asked")).toBe(true); // prettier-ignore
  // One question for the figures of the whole text, or one for each of them.
  expect(questions.some(({ kind }) => kind === "figures") || questions.length >= 2).toBe(true);
});

test("a unit beside bare figures says what they are, and is no name", () => {
  const { lines } = read("Loaf\n150 g rice flour, 50 cornflour, 20 sugar\n2 eggs");
  expect(lines.slice(1, 4).map(({ ingredientId, grams: g }) => [ingredientId, g?.mid])).toEqual([
    ["white-rice-flour", 150],
    ["corn-starch", 50],
    ["white-sugar", 20],
  ]);
});

test("in speech a unit without its number is one of it; at the head of a line its number may be lost, and it is asked", () => {
  expect(grams("the crackers: mug of sunflower seeds, 2 tablespoons chia, teaspoon of salt. bake an hour at 150", /salt/)).toEqual(grams("x\n1 teaspoon salt\n2 eggs", /salt/)); // prettier-ignore
  expect(read("Loaf\n200 g sorghum flour\ncup of milk").lines.at(-1)).toMatchObject({ state: "asked" });
});

test.each(["BENCH SHEET 14 - Carrot & walnut loaf x4", "Batch 3: banana muffins", "Week 12 – orange cake"])(
  "%s names what is baked: its figures are no amounts",
  (title) => {
    const { lines } = read(`${title}\n1200 g sorghum flour\n900 g carrot, grated\n36 g baking powder`);
    expect(lines.filter(({ role }) => role === "ingredient")).toHaveLength(3);
    expect(lines[0]?.role).toBe("title");
  },
);
test("a cutter is no tin: its width is that of the pieces, which are as thick as they are patted out", () => {
  const reading = read("Scones\n225g sorghum flour\n55g butter\n150ml milk\n1. Grease a baking sheet.\n2. Pat out to 2 cm thick. Cut 8 rounds with a 5 cm cutter.\n3. Bake 14 mins at 220°C."); // prettier-ignore
  expect([reading.pan?.shape, reading.process?.shape]).toEqual([
    "free",
    { thicknessMm: 20, diameterMm: 50, count: 8, cut: "rounds" },
  ]);
  expect(formulaFrom(reading, "metric").vessel).toMatchObject({ shape: "free", pieces: 8, thicknessMm: 20 });
});

test.each([
  ["Banana loaf\nMakes 2 loaves", 2],
  ["Carrot loaf x4", 4],
  ["Banana loaf\nCut into 10 slices", undefined],
])("%s: so many tins", (head, pieces) =>
  expect(formulaFrom(read(`${head}\n400 g sorghum flour\n600 g banana\n4 eggs\n\nBake 50 minutes at 175 °C.`), "metric").vessel.pieces).toBe(pieces),
); // prettier-ignore

test.each(["Cool in the tin.", "Keeps 4 days wrapped.", "Leave to cool completely in the tin."])(
  "“%s” takes nothing from the tin that another sentence names",
  (last) =>
    expect(read(`Traybake\n200 g oats\n50 g butter\n\nSpread in a 30 x 23 cm tin. Bake 35 minutes at 160 °C. ${last}`).pan).toMatchObject({ lengthMm: 300, widthMm: 230 }),
); // prettier-ignore

test("a paragraph that opens with what it bakes has that for its title, and no step of it", () => {
  const text = "Chocolate beetroot brownies. Melt 200g dark chocolate with 150g butter. Whisk 3 large eggs with 200g golden caster sugar till thick. Fold in the chocolate and 30g cocoa. Tip into a lined 20cm square tin, 25-30 mins at 180C."; // prettier-ignore
  const reading = read(text);
  expect([reading.title, reading.kind, reading.process?.method]).toEqual(["Chocolate beetroot brownies", "bar", "whisked"]);
  const { process } = formulaFrom(reading, "metric");
  expect(process.written?.some(({ words }) => /brownies/.test(words))).toBe(false);
});

test("what is flattened for a dry pan is a flatbread on the hob", () => {
  const formula = formulaFrom(read("Teff breads\n180 g teff flour\n120 g sweet rice flour\n270 g water\n18 g psyllium husk\n\nMix, stand 5 min. Flatten to 1 cm rounds. Dry pan, medium heat, 4 min per side."), "metric"); // prettier-ignore
  expect([formula.kind, formula.vessel.shape, formula.oven.mode]).toEqual(["flatbread", "griddle", "hob"]);
});

test("a church's card: oleo is margarine, corn meal is cornmeal", () => {
  const { lines } = read("Corn muffins\n1 c. yellow corn meal\n1/4 c. melted oleo\n1 T. baking powder\n2 eggs");
  expect(lines.slice(1, 3).map(({ ingredientId, state }) => [ingredientId, state])).toEqual([
    ["cornmeal", "read"],
    ["margarine", "read"],
  ]);
});

test("a French card: spoons in short, a blend, a little more to glaze", () => {
  const { lines } = read("Scones de mamie\n- 250 g de mélange de farines sans gluten\n- 1 c. à s. de levure chimique\n- 60 g de beurre bien froid\n- 12 cl de lait + un peu pour dorer\nSablez le beurre avec la farine, ajoutez le lait. 15 min à 210 °C."); // prettier-ignore
  const foods = lines.filter(({ role }) => role === "ingredient").map(({ ingredientId }) => ingredientId);
  expect(foods.slice(0, 4)).toEqual(["gf-blend-plain", expect.stringMatching(/^powder/), "butter", expect.stringMatching(/milk$/)]);
  expect(foods).not.toContain(null);
});

describe("figures without a unit", () => {
  const foods = ["Oat flour 180", "tapioca starch 60", "psyllium powder 6", "baking powder 9", "salt 4"];
  const read1 = (text: string) => read(text).lines.flatMap(({ role, ingredientId, grams: g, state }) => (role === "ingredient" ? [[ingredientId, g?.mid, state]] : [])); // prettier-ignore
  const wanted = read1(`Loaf\n${foods.join("\n")}`);
  test("each is grams, and asked about once", () => {
    expect(wanted.map(([, grams, state]) => [grams, state])).toEqual([180, 60, 6, 9, 4].map((grams) => [grams, "asked"]));
    expect(read(`Loaf\n${foods.join("\n")}`).questions.map(({ kind }) => kind)).toEqual(["figures"]);
  });
  test.each([
    ["between strokes", foods.join(" | ")],
    ["behind commas, with a full stop", `${foods.join(", ")}.`],
    ["behind points", foods.join(" • ")],
    ["in cells", foods.map((one) => `| ${one.replace(/ (\d+)$/, " | $1")} |`).join("\n")],
    ["in cells for two batches", ["| | x1 | x2 |", ...foods.map((one) => one.replace(/^(.*) (\d+)$/, (_, name: string, n: string) => `| ${name} | ${n} | ${2 * Number(n)} |`))].join("\n")],
  ])("%s they are the same", (_, text) => {
    const found = read1(`Loaf\n${text}`).filter(([id]) => id !== null);
    expect(found).toEqual(wanted);
  }); // prettier-ignore
  test("beside lines in grams a few of them are enough; a count stays a count, and no heat, yield or page is grams", () => {
    const text =
      "Scones\nGF flour 1.2 kg\nbaking powder 55 g\ncold butter dice 300\neggs 4\nb/milk 600\nmakes 30\ngas 7\nbake 14\npage 31";
    const found = read1(text).filter(([, g]) => g !== undefined);
    expect(found.map(([id, g]) => [id, g])).toEqual(expect.arrayContaining([["butter", 300], ["egg", 192], ["buttermilk", 600]])); // prettier-ignore
    expect(found.filter(([, g]) => [30, 7, 14].includes(g as number))).toEqual([]);
    expect(read("Egg, counted and weighed\nrice flour 90, kefir 230, egg 1 (50)").lines.find(({ ingredientId }) => ingredientId === "egg")?.grams?.mid).toBe(50); // prettier-ignore
  });
});

test.each([
  ["300 g white gf mix", "gf-blend-plain"],
  ["1 white, beaten", "egg-white"],
  ["2 whites", "egg-white"],
  ["Beat 3 whites stiff and fold them in.", "egg-white"],
])("%s: a colour before another word is no white of an egg", (line, id) =>
  expect(read(`Cake\n${line}\n100 g sugar`).lines.find(({ role }) => role === "ingredient")?.ingredientId).toBe(id),
);

test.each<[string, number | undefined, [number, number] | undefined]>([
  ["it goes in at a hundred and eighty for fifty minutes, check it at forty five", 180, [50, 50]],
  ["Bake 200 for 15 then 180 for another 30-35. Should sound hollow.", 200, [45, 50]],
  ["Rest it twenty minutes, cut, 215 degrees, 13 to 15 minutes.", 215, [13, 15]],
  ["Preheat the oven to 180 C, 20 minutes before you mix.", 180, undefined],
  ["160 fan, 55-60, turn at half", 160, [55, 60]],
  ["180 / 25", 180, [25, 25]],
  ["Ofen auf 180 Grad Ober-/Unterhitze vorheizen, ca. 50–55 Minuten backen (Stäbchenprobe!).", 180, [50, 55]],
])("%s", (said, celsius, minutes) => {
  const reading = read(`Loaf\n200 g sorghum flour\n2 eggs\n150 ml milk\n\n${said}`);
  expect([reading.oven?.celsius, reading.minutes && [reading.minutes.low, reading.minutes.high]]).toEqual([celsius, minutes]);
});

test.each<[string, number]>([
  ["= 30 pcs @ 85", 30],
  ["for 1 full gastro, cuts 24", 24],
  ["Scale 85 g/case, 12 per x1.", 12],
  ["12 at ~75 g", 12],
])("%s: so many pieces, and no heat", (said, pieces) => {
  const reading = read(`Muffins\n200 g sorghum flour\n2 eggs\n150 ml milk\n\n${said}`);
  expect([reading.yield?.pieces, reading.oven?.celsius]).toEqual([pieces, undefined]);
});

test.each([
  ["2 mugs oat flour (mug = 140g)", 280],
  ["1½ cups oat flour (1 cup = 100 g)", 150],
  ["1 gestr. TL Natron", 4.7],
])("%s is weighed as it is said", (line, wanted) =>
  expect(read(`Brot\n250 g Buchweizenmehl\n${line}`).lines.at(-1)?.grams?.mid).toBeCloseTo(wanted, 0),
);
