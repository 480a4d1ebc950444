import { baked } from "./balance/analyse";
import { formulaFrom } from "./begin";
import { bareKitchen } from "./formula/bare-kitchen";
import type { Formula } from "./formula/formula";
import { formulaLineId } from "./formula/nested-id";
import { openFormula } from "./formula/open";
import { stepsOf } from "./plan/steps";
import type { WorkStep } from "./plan/work-step-schema";
import { readRecipe } from "./read";
import recipes from "../corpus/recipes.json";

const formulaOf = (text: string): Formula => formulaFrom(readRecipe(text, "metric"), "metric");
const made = (formula: Formula, kitchen = bareKitchen): WorkStep[] => {
  const input = openFormula(formula, kitchen);
  const { analysis, simulation } = baked(input, undefined, { frames: 0, spread: 0.1 });
  return stepsOf(input, analysis, simulation);
};
const list =
  "200 g sorghum flour\n80 g tapioca starch\n10 g baking powder\n3 g salt\n100 g sugar\n2 eggs\n220 g milk\n70 g butter\n90 g walnuts";
/** Kinds, and the foods that each takes, as a baker who reads the method would weigh them out; written before the code was asked. */
const told = (method: string, foods = list): string[] => {
  const { process, lines } = formulaOf(`Walnut loaf\n${foods}\n\nMethod\n${method}`);
  return (process.written ?? []).map(({ kind, lines: ids }) => [kind, ...ids.flatMap((id) => lines.find((line) => line.id === id)?.ingredientId ?? [])].join(" ")); // prettier-ignore
};

describe("a method as it is written becomes steps", () => {
  test.each([
    [
      "Cream the butter and sugar until fluffy. Beat in the eggs one at a time. Sift the flour, starch, baking powder and salt, and fold in, alternating with the milk. Fold in the walnuts. Scrape into a lined loaf tin and bake for 50 minutes at 180 °C.",
      ["cream white-sugar butter", "wet egg", "combine sorghum-flour tapioca-starch powder-aluminium-free salt whole-milk", "fold walnuts", "portion"],
    ],
    [
      "Line a loaf tin. Whisk all the dry ingredients in a large bowl. In a jug, whisk the eggs with the milk and melted butter. Pour into the dry and stir. Add the walnuts. Pour into the tin.\nBake at 180 °C for 50 minutes.\nCool on a rack and slice when cold.",
      ["pan", "dry sorghum-flour tapioca-starch powder-aluminium-free salt white-sugar", "wet egg whole-milk butter", "combine", "fold walnuts", "portion", "serve"],
    ],
    [
      "Toast the walnuts for 8 minutes, and chop them. Put everything else in the blender and blend until smooth. Leave to stand for 20 minutes. Stir in the walnuts and fill the tin.",
      ["prepare walnuts", "blend sorghum-flour tapioca-starch powder-aluminium-free salt white-sugar egg whole-milk butter", "rest", "combine", "portion"],
    ],
    [
      "Rub the butter into the flour, starch and salt. Stir in the sugar and baking powder, then bind with the eggs and milk. Pat out 3 cm thick, cut 8 rounds and brush with milk. Scatter the walnuts on top. Bake 15 minutes at 220 °C.",
      ["cut-in sorghum-flour tapioca-starch salt butter", "dry powder-aluminium-free white-sugar", "combine egg whole-milk", "portion", "top", "top walnuts"],
    ],
    [
      "Whisk the egg whites to stiff peaks. Mix the rest. Fold the whites in and fill the tin.",
      ["whisk egg", "combine sorghum-flour tapioca-starch powder-aluminium-free salt white-sugar whole-milk butter walnuts", "fold", "portion"],
    ],
  ])("%s", (method, wanted) => expect(told(method)).toEqual(wanted)); // prettier-ignore

  test("a glaze, a wash and what is served stand where they are put on", () => {
    const text = `Plum scones\n${list}\n\nTo brush\n1 egg\n\nGlaze\n60 g icing sugar\n10 g lemon juice\n\nMethod\nStir everything together. Drop 10 heaps on a sheet. Brush with the beaten egg. Bake 15 minutes at 210 °C. Whisk the icing sugar with the lemon juice and drizzle over while still warm. Serve with plum jam.`;
    const steps = made(formulaOf(text));
    const at = (words: RegExp): number => steps.findIndex((step) => words.test(step.words));
    expect(at(/^Brush with the beaten egg: 1 egg \(\d\d g\)/)).toBeGreaterThan(at(/Drop 10 heaps/));
    expect(at(/^Brush/)).toBeLessThan(at(/^Into the oven/));
    expect(at(/icing sugar/)).toBeGreaterThan(at(/^Out/));
    expect(at(/^Serve with plum jam/)).toBeGreaterThan(at(/icing sugar/));
    expect(steps.some(({ words }) => /make (?:brushed|to )/i.test(words))).toBe(false);
  });
  test("rests and soaks keep their minutes: a night is done the day before, what waits after the bake is no rest", () => {
    const night = made(formulaOf(`Fruit loaf\n${list}\n200 g raisins\n150 g black tea\n\nMethod\nSoak the raisins in the tea overnight. Mix everything together. Bake 60 minutes at 170 °C. Leave 15 minutes.`)); // prettier-ignore
    expect(night.find(({ kind }) => kind === "soak")).toMatchObject({ ahead: true, minutes: { low: 480, high: 720 } });
    expect(night.some(({ kind }) => kind === "rest")).toBe(false);
    const short = formulaOf(`Loaf\n${list}\n\nMethod\nMix everything. Let the batter rest 25 minutes. Bake 50 minutes at 180 °C.`);
    expect(short.process.restMinutes).toBe(25);
    const rest = made(short).find(({ kind }) => kind === "rest");
    expect(rest).toMatchObject({ minutes: { mid: 25 } });
    // The bake reckons with the same wait, whatever is said of it later.
    expect(made({ ...short, process: { ...short.process, restMinutes: 40 } }).find(({ kind }) => kind === "rest")?.minutes.mid).toBe(40); // prettier-ignore
    expect(rest?.ahead).toBeUndefined();
  });
  test("what is strewn on top is weighed there and not in the bowl", () => {
    const steps = made(formulaOf(`Walnut muffins\n${list}\n\nMethod\nMix all but the walnuts. Fill 8 cups. Scatter the walnuts on top. Bake 20 minutes at 190 °C.`)); // prettier-ignore
    const where = steps.filter(({ lines }) => lines.some(({ ingredientId }) => ingredientId === "walnuts"));
    expect(where.map(({ kind }) => kind)).toEqual(["top"]);
  });
  test("a formula that stands in another is weighed where its line is named, and is not said to be gone", () => {
    const formula = formulaOf(`Loaf\n${list}\n\nMethod\nCream the butter and sugar. Stir in the eggs and milk, then the flour, starch, baking powder and salt. Fold in the walnuts.`); // prettier-ignore
    const lines = formula.lines.map((line) => (line.ingredientId === "walnuts" ? { ...line, ingredientId: formulaLineId("praline") } : line)); // prettier-ignore
    const praline = { title: "Praline", lines: [{ id: "a", ingredientId: "walnuts", grams: 200 }, { id: "b", ingredientId: "white-sugar", grams: 100 }] }; // prettier-ignore
    const steps = made({ ...formula, lines }, { ...bareKitchen, book: () => praline });
    // 90 g of two parts nuts and one of sugar.
    expect(steps.find(({ kind }) => kind === "fold")?.lines).toEqual([{ ingredientId: "walnuts", grams: 60 }, { ingredientId: "white-sugar", grams: 30 }]); // prettier-ignore
    expect(steps.some(({ words }) => words.includes("not in it any more"))).toBe(false);
  });
  test("what was taken off the sheet is said to be gone, what came for it is weighed with its like", () => {
    const formula = formulaOf(`Loaf\n${list}\n\nMethod\nCream the butter and sugar. Stir in the eggs and milk, then the flour, starch, baking powder and salt.`); // prettier-ignore
    const lines = formula.lines.map((line) =>
      line.ingredientId === "butter" ? { ...line, id: "new", ingredientId: "margarine" } : line,
    );
    const cream = made({ ...formula, lines }).find(({ kind }) => kind === "cream");
    expect(cream?.words).toMatch(/with it 70 g margarine; what the recipe names here and is not in it any more is left out$/);
  });
  test("a hostile sentence is let go: 100 kB of what the patterns look for comes back", () => {
    const hostile = ["in the ", "whites ", "into a lined ", "1 g the ", "mix, ", "all but the "].map((piece) => piece.repeat(16_000 / piece.length)); // prettier-ignore
    for (const text of hostile) expect(formulaOf(`Loaf\n${list}\n\nMethod\nMix ${text}`).lines.length).toBeGreaterThan(8);
  });
  test("amounts stand with the lines, not in the words; a part of one stays", () => {
    const steps = formulaOf("Loaf\n200 g teff flour\n100 g sugar\n8 g baking powder\n2 eggs\n200 ml milk\n\nMethod\nMix 200 g teff flour, 8 g baking powder and all but 2 tbsp of the sugar. Stir in 200 ml milk and 2 eggs. Divide into 2 tins of 300 g, or scrape into a lined 900 g loaf tin.").process.written; // prettier-ignore
    expect(steps?.map(({ words }) => words)).toEqual([
      "Mix the teff flour, the baking powder and all but 2 tbsp of the sugar",
      "Stir in the milk and 2 eggs",
      "Divide into 2 tins of 300 g, or scrape into a lined 900 g loaf tin",
    ]);
  });
});

describe.each(recipes.slice(0, 30).map(({ text }, k) => [k, text] as const))("recipe %i of the corpus", (_, text) => {
  test("everything that weighs is weighed for one step and once, nothing senseless is said, nothing waits for what comes later", () => {
    const formula = formulaOf(text);
    if (!formula.lines.some(({ ingredientId, grams, off }) => ingredientId && grams && !off)) return;
    const steps = made(formula);
    const weighed = new Map<string, number>();
    for (const { ingredientId, grams } of steps.flatMap(({ lines }) => lines)) weighed.set(ingredientId, (weighed.get(ingredientId) ?? 0) + grams); // prettier-ignore
    const wanted = new Map<string, number>();
    for (const { ingredientId, grams, off } of formula.lines)
      if (ingredientId && grams && !off) wanted.set(ingredientId, (wanted.get(ingredientId) ?? 0) + grams.mid);
    for (const [id, grams] of wanted) expect([id, Math.round(weighed.get(id) ?? 0)]).toEqual([id, Math.round(grams)]);
    const seen = new Set<string>();
    for (const { id, after, words, within } of steps) {
      for (const one of after) expect([...seen]).toContain(one);
      if (within) expect([...seen]).toContain(within.of);
      seen.add(id);
      expect(words).not.toMatch(/\bof 0 g|\b0 g\b|Make brushed|Whisk\s+together|\s{2}|undefined/);
    }
    expect(seen.size).toBe(steps.length);
  });
});
