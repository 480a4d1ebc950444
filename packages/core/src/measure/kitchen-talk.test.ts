import { readRecipe } from "../read";

/** Foods of a text with their grams, by id; what is asked without a mass has null. */
const foodsOf = (text: string): [string | null | undefined, number | null][] =>
  readRecipe(text)
    .lines.filter(({ role }) => role === "ingredient")
    .map(({ ingredientId, grams }) => [ingredientId, grams ? Math.round(grams.mid) : null]);
const listed = (line: string) => foodsOf(`Loaf\n300 g sorghum flour\n${line}`).slice(1);

describe("what kitchens say", () => {
  test.each<[string, [string | undefined, number | null][]]>([
    ["200 ml full fat milk", [["whole-milk", 206]]],
    ["200 g full-fat yoghurt", [["plain-yoghurt", 200]]],
    ["a flat teaspoon salt", [["salt", 6]]],
    ["4 ea eggs", [["egg", 200]]],
    ["2 lrg eggs", [["egg", 100]]],
    ["eggs — 20 no.", [["egg", 1000]]],
    ["100 grams of sugar two teaspoons of baking powder a hundred and eighty of yoghurt", [["white-sugar", 100], ["powder-aluminium-free", 9], ["plain-yoghurt", 180]]],
    ["Boil 2 oranges whole for 1 hr, drain, blitz. Add 250 g sugar and 250 g ground almonds", [["orange", 260], ["white-sugar", 250], ["almond-flour", 250]]],
    ["half a pint of buttermilk, maybe a drop less", [["buttermilk", 244]]],
    ["70 g butter, then the same of sugar and honey", [["butter", 70], ["white-sugar", 70], ["honey", 70]]],
    ["3 eggs, then the same of sugar and butter", [["egg", 150], ["white-sugar", null], ["butter", null]]],
    ["200 g butter and as much milk as it takes", [["butter", 200], ["whole-milk", null]]],
    ["1/2 tsp each nutmeg, ginger and salt", [["nutmeg", 1], ["ginger-ground", 1], ["salt", 3]]],
    ["rice flour 150 • potato starch 100 • psyllium husk 5", [["white-rice-flour", 150], ["potato-starch", 100], ["psyllium-husk", 5]]],
    ["Fold in the zest of 2 clementines and 100 g raisins and 50 g walnuts", [["orange-zest", 12], ["raisins", 100], ["walnuts", 50]]],
    // What is said of one food is said of no other on its line.
    ["100 g polenta, 1 tin sweetcorn (drained), 2 eggs", [["cornmeal", 100], ["sweetcorn", 285], ["egg", 100]]],
    ["Two hundred grams polenta. Tin of sweetcorn drained. Two eggs", [["cornmeal", 200], ["sweetcorn", 237], ["egg", 100]]],
    ["1 egg, milk to mix (150 ml)", [["egg", 50], ["whole-milk", 155]]],
    ["one egg, and enough milk to make a thick batter (roughly a quarter pint)", [["egg", 50], ["whole-milk", 122]]],
    ["2 bananas, mashed (200 g)", [["banana-ripe", 200]]],
    // Speech leaves "a" out, puts right, and says what a thing weighs.
    ["Hundred grams polenta. Teaspoon salt. Tablespoon baking powder, two eggs", [["cornmeal", 100], ["salt", 6], ["powder-aluminium-free", 14], ["egg", 100]]],
    ["Two hundred grams polenta, no wait, two fifty. Fifty grams butter, sorry, sixty", [["cornmeal", 250], ["butter", 60]]],
    ["Three bananas, that's about 300 g, mashed. Two eggs", [["banana-ripe", 300], ["egg", 100]]],
    ["Rub in 100 g butter that is 20 degrees. Add 2 eggs", [["butter", 100], ["egg", 100]]],
    ["splash of milk (about a tablespoon)", [["whole-milk", 15]]],
    ["150 buckwheat flour then seventy-five butter and 10 baking powder. Two eggs", [["buckwheat-flour", 150], ["butter", 75], ["powder-aluminium-free", 10], ["egg", 100]]],
    ["GF AP flour   1 c   (140 g)", [["gf-blend-plain", 140]]],
    ["gluten-free bread flour   1 c   (140 g)", [["gf-bread-mix", 140]]],
  ])("%s", (line, foods) => {
    const found = listed(line);
    expect(found.map(([id]) => id).sort()).toEqual(foods.map(([id]) => id).sort());
    for (const [id, grams] of foods) expect([id, found.find(([of]) => of === id)?.[1]]).toEqual([id, grams]);
  }); // prettier-ignore

  test("what is brushed over belongs to a part of its own, whatever its name does elsewhere", () => {
    const { lines, components } = readRecipe(
      "Loaf\n300 g sorghum flour\n200 g milk\ndrizzle: 60 ml lemon juice + 85 g caster sugar",
    );
    expect(components?.map(({ role }) => role)).toEqual(["glaze"]);
    expect(lines.filter(({ component }) => component !== undefined).map(({ ingredientId }) => ingredientId)).toEqual(["lemon-juice", "caster-sugar"]); // prettier-ignore
  });

  test("no cups of heat, no muffins of a tin, no sprinkles of a verb", () => {
    const text =
      "Muffins\n200 g oat flour\n2 eggs\nSpoon into a 12-cup muffin tin and sprinkle with 2 tbsp. coarse sugar. Bake at 150C fan for 30 min.";
    expect(foodsOf(text).map(([id]) => id)).toEqual(["oat-flour", "egg", "demerara-sugar"]);
    expect(readRecipe(text).oven).toMatchObject({ celsius: 150, mode: "fan" });
  });
});

describe("no food of a line falls silently", () => {
  test.each<[string, string[]]>([
    ["1 tbsp lemon juice topped up to 1 cup with milk", ["lemon-juice", "whole-milk"]],
    ["juice of both lemons + 85 g caster sugar", ["caster-sugar", "lemon-juice"]],
    ["+ egg wash, + 100 g sultanas", ["egg", "raisins"]],
    ["245 g gluten free all purpose flour with xanthan gum", ["gf-blend-gum"]],
    ["finely grated zest of 2 limes", ["lime-zest"]],
  ])("%s", (line, ids) => expect(listed(line).map(([id]) => id).sort()).toEqual(ids)); // prettier-ignore
});

describe("sheets and notes", () => {
  test("figures in the bracket of what they are together are its flours; what is no food is none", () => {
    const text = "Savoury muffins, my notes\nflour (white rice 120, sorghum 80, tapioca 50)\nxg 3\nbp 12\nsalt 4, mustard powder 2\nmilk 180\noil 70\n190c 20-22m, 10 holes\nnext time less salt"; // prettier-ignore
    expect(foodsOf(text)).toEqual([["white-rice-flour", 120], ["sorghum-flour", 80], ["tapioca-starch", 50], ["xanthan", 3], ["powder-aluminium-free", 12], ["salt", 4], ["mustard-powder", 2], ["whole-milk", 180], ["vegetable-oil", 70]]); // prettier-ignore
    const { oven, minutes, yield: made } = readRecipe(text);
    expect([oven?.celsius, minutes, made?.pieces]).toEqual([190, { low: 20, high: 22 }, 10]);
  });
  test("what readers say of a recipe is no line of it; what is to be done is a heading", () => {
    const { lines } = readRecipe("Loaf\n★★★★★ 4.9 from 212 reviews\nWHAT YOU NEED\n300 g sorghum flour\n2 eggs M\n1 tsp b. powder\nWHAT YOU DO\nMix and bake."); // prettier-ignore
    expect(lines.map(({ role, ingredientId }) => ingredientId ?? role)).toEqual(["title", "note", "heading", "sorghum-flour", "egg", "powder-aluminium-free", "heading", "step"]); // prettier-ignore
  });
  test("a verb behind its time is of that time, as other languages have it", () => {
    const { minutes, oven } = readRecipe("Brötchen\n300 g Haferflocken\n250 g Quark\n2 Eier\nAlles verkneten, bei 200 °C Umluft 20–25 Min. backen."); // prettier-ignore
    expect([minutes, oven?.celsius]).toEqual([{ low: 20, high: 25 }, 200]);
  });
  test("where no °F are spoken nobody is asked for the scale", () => {
    const text = "Farinata\n300 g di farina di ceci\n900 ml di acqua\nTeglia 32 cm, forno 250 gradi per 25-30 minuti.";
    const { oven, questions } = readRecipe(text);
    expect([oven?.celsius, questions.filter(({ kind }) => kind === "which-scale")]).toEqual([250, []]);
  });
  test("a line of a heat and a time alone", () => {
    const { minutes, oven } = readRecipe(
      "Loaf (by weight)\nalmond flour: 180\ntapioca: 60\nsugar: 130\neggs: 165 (3)\n170, 48-52'",
    );
    expect([minutes, oven?.celsius]).toEqual([{ low: 48, high: 52 }, 170]);
  });
});

describe("a table whose head says what its columns are", () => {
  const foods = [["sorghum-flour", 320], ["butter", 280], ["egg", 160]]; // prettier-ignore
  test.each([
    ["shares first", "| Ingredient | % | Batch (g) |\n|---|---|---|\n| Sorghum flour | 40 | 320 |\n| Butter | 35 | 280 |\n| Egg | 20 | 160 |"],
    ["shares last", "Item | Grams | Baker's %\nSorghum flour | 320 | 100\nButter | 280 | 87.5\nEgg | 160 | 50"],
    ["tabs", "Ingredient\t%\tg\nSorghum flour\t40\t320\nButter\t35\t280\nEgg\t20\t160"],
    ["another unit", "| Zutat | kg |\n|---|---|\n| Sorghum flour | 0.32 |\n| Butter | 0.28 |\n| Egg | 0.16 |"],
  ])("%s", (_, text) => expect(foodsOf(text)).toEqual(foods)); // prettier-ignore
});

describe("heats and times as they are jotted down", () => {
  test.each([
    ["Bake at 400°F for 5 minutes, then lower to 350°F and bake for 14-16 more minutes.", 204, 19, 21],
    ["bake in a 23 cm round tin 180c (fan160) 40-45", 180, 40, 45],
    ["bake 170fan. 22mins.", 170, 22, 22],
    ["Loaf tin 1 lb, 180, 45 min.", 180, 45, 45],
    ["Hot oven - 220 - for 12-15.", 220, 12, 15],
    ["in with 2 eggs, 100 soft brown sugar, then 170c 55min in the loaf tin w baking paper", 170, 55, 55],
  ])("%s", (step, celsius, low, high) => {
    const { oven, minutes } = readRecipe(`Loaf\n300 g sorghum flour\n200 g milk\n${step}`);
    expect(Math.round(oven?.celsius ?? 0)).toBe(celsius);
    expect(minutes).toEqual({ low, high });
  });
});
