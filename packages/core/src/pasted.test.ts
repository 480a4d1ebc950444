import fc from "fast-check";
import { analyseText, formulaFrom, inputFrom } from "./begin";
import { simulate } from "./balance/analyse";
import { readRecipe } from "./read";

/** Recipes of our own as people paste them: mixed units, notes between the lines, ovens said in three ways. */
const loaf = `Pier house loaf (makes 1)
For the dry bowl:
- 1¾ cups (210 g) sorghum flour, sifted
- 90g tapioca starch
- 1 1/2 tsp xanthan gum
- 2 level teaspoons baking powder
- a pinch of salt
For the wet bowl:
- 240 ml milk
- 2 medium eggs
- 75 g butter, melted
* 100 g caster sugar
Method
1. Heat the oven to 175C/350F/Gas 4 and line a 2 lb loaf tin.
2. Whisk, fold, and bake for 55-60 minutes until the inside reads 205 °F.
Leave to cool for 30 minutes.`;

const muffins = `Millet muffins
2 cups millet flour
½ cup cornflour
1 Tbsp baking powder
1/2 tsp bicarb
1 cup plain yoghurt
3/4 cup milk plus 2 tbsp
1/3 cup oil
2 large eggs
1/2 cup honey
Bake 18 to 22 min at 375°F in a 12-cup muffin tin with paper cases.`;

const flat = `Quick skillet rounds
250 g chickpea flour
300 ml water
2 tbsp olive oil
1 tsp salt
Fry in a hot skillet.`;

const texts = { loaf, muffins, flat };
const gramsOf = (text: string, id: string, measures: "us" | "metric" | "uk" | "au" = "us"): number =>
  readRecipe(text, measures).lines.find((line) => line.ingredientId === id)?.grams?.mid ?? NaN;

describe("pasted recipes", () => {
  test.each(Object.entries(texts))("%s: every line comes back in order, and every ingredient weighs something", (_, text) => {
    const reading = readRecipe(text, "us");
    const pasted = text.split("\n").filter((line) => line.trim() !== "");
    expect(reading.lines.map((line) => line.source.trim())).toEqual(pasted.map((line) => line.trim()));
    for (const line of reading.lines.filter((l) => l.ingredientId !== null)) expect(line.grams?.mid).toBeGreaterThan(0);
  });
  test("a weight beside a volume wins; a level spoon is a spoon; sizes of eggs count", () => {
    expect(gramsOf(loaf, "sorghum-flour")).toBe(210);
    expect(gramsOf(loaf, "butter")).toBe(75);
    expect(gramsOf(loaf, "egg")).toBeGreaterThanOrEqual(84);
    expect(gramsOf(loaf, "egg")).toBeLessThan(gramsOf(muffins, "egg"));
  });
  test("one cup of milk plus two tablespoons is their sum in any kitchen", () => {
    for (const [measures, cup, spoon] of [
      ["us", 236.6, 14.79],
      ["metric", 250, 15],
      ["au", 250, 20],
    ] as const) {
      // prettier-ignore
      const milk = gramsOf(muffins, "whole-milk", measures);
      expect(milk / 1.03).toBeGreaterThan(0.96 * (0.75 * cup + 2 * spoon));
      expect(milk / 1.03).toBeLessThan(1.03 * (0.75 * cup + 2 * spoon));
    }
  });
  test("oven, minutes and pan are read where they stand; a core temperature and a cooling time are neither", () => {
    const reading = readRecipe(loaf, "uk");
    expect(reading.oven?.celsius).toBe(175);
    expect(reading.minutes).toEqual({ low: 55, high: 60 });
    const formula = formulaFrom(reading, "uk");
    expect([formula.kind, formula.vessel.shape, formula.vessel.lengthMm]).toEqual(["loaf", "rectangular", 215]);
    expect(formulaFrom(readRecipe(muffins, "us"), "us")).toMatchObject({
      kind: "muffin",
      oven: { celsius: 190.6 },
      vessel: { shape: "muffin", pieces: 12, lining: "paper-cups" },
    });
  });
  test("from the text alone the bake comes out near the minutes that the text names", () => {
    for (const [text, low, high] of [
      [loaf, 55, 60],
      [muffins, 18, 22],
    ] as const) {
      // prettier-ignore
      const { done } = simulate(inputFrom({ text, measures: "us" }), undefined, { frames: 0, withoutCooling: true });
      expect(done.mid).toBeGreaterThan(0.75 * low);
      expect(done.mid).toBeLessThan(1.3 * high);
    }
  });
  test("analysed from text or from its lines it is the same formula", () => {
    const fromText = analyseText(muffins, { measures: "us" });
    const { batch, lift } = analyseText(muffins.replace("1/3 cup oil", "1/3 cup sunflower oil"), { measures: "us" });
    expect(fromText.batch.massG).toBeCloseTo(batch.massG, 0);
    expect(fromText.lift.verdict).toBe(lift.verdict);
  });
  test("bullets, numbers, tabs and blank lines around a line change nothing of what it weighs", () => {
    const dress = fc.constantFrom("- ", "* ", "• ", "1. ", "2) ", "\t", "   ", "– ");
    const line = fc.constantFrom("200 g sorghum flour", "2 tsp baking powder", "1 1/2 cups milk", "2 large eggs");
    fc.assert(
      fc.property(dress, line, (mark, text) => {
        const bare = readRecipe(`Cakes\n${text}`, "us").lines.at(-1);
        const dressed = readRecipe(`Cakes\n\n${mark}${text}  \n`, "us").lines.at(-1);
        expect([dressed?.ingredientId, dressed?.grams]).toEqual([bare?.ingredientId, bare?.grams]);
      }),
    );
  });
});
