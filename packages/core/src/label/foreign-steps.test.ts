import fc from "fast-check";
import { analyse } from "../balance/analyse";
import { inputFrom } from "../begin";
import table from "../pantry/data/allergen-words.json";
import { allergensInWords } from "../pantry/allergen-words";
import { labelOf } from "./label";

const labelled = (text: string) => {
  const input = inputFrom({ text, kind: "loaf" });
  return labelOf(input, analyse(input), "loaf", "eu", []);
};
const lists: Record<string, string> = {
  en: "200 g white rice flour\n100 g sugar\n3 eggs\n80 ml sunflower oil\n8 g baking powder",
  de: "200 g Reismehl\n100 g Zucker\n3 Eier\n80 ml Sonnenblumenöl\n8 g Backpulver",
  fr: "200 g de farine de riz\n100 g de sucre\n3 œufs\n80 ml d'huile de tournesol\n8 g de levure chimique",
  it: "200 g di farina di riso\n100 g di zucchero\n3 uova\n80 ml di olio di semi\n8 g di lievito per dolci",
  es: "200 g de harina de arroz\n100 g de azúcar\n3 huevos\n80 ml de aceite de girasol\n8 g de levadura química",
};

/** What is put in, on or under a bake by a step or a line, in each language, and what the label must name. */
const eaten: [language: keyof typeof lists, text: string, names: RegExp][] = [
  ["en", "Pour into a well-buttered tin and bake 40 minutes.", /MILK/],
  ["en", "Sprinkle with flaked almonds.", /ALMOND/],
  ["en", "Serve with naan.", /WHEAT/],
  ["de", "In eine gebutterte Form füllen.", /MILK/],
  ["de", "Die Form mit Semmelbröseln ausstreuen und mit gehackten Haselnüssen bestreuen.", /HAZELNUT.*WHEAT|WHEAT.*HAZELNUT/],
  ["de", "Mit Schlagsahne servieren.", /MILK/],
  ["de", "50 g Garnelen", /CRUSTACEANS/],
  ["de", "1 TL Senf", /MUSTARD/],
  ["de", "50 g Dinkelmehl", /WHEAT/],
  ["de", "40 g Erdnüsse", /PEANUT/],
  ["fr", "Verser dans un moule beurré et fariné.", /MILK/],
  ["fr", "Parsemer de noisettes concassées.", /HAZELNUT/],
  ["fr", "40 g de chapelure", /WHEAT/],
  ["fr", "50 g de farine d'épeautre", /WHEAT/],
  ["fr", "100 ml de vin blanc", /SULPHITES/],
  ["fr", "50 g de céleri", /CELERY/],
  ["it", "Versare nello stampo imburrato.", /MILK/],
  ["it", "Cospargere di mandorle a lamelle.", /ALMOND/],
  ["it", "60 g di cozze", /MOLLUSCS/],
  ["it", "50 g di farina di farro", /WHEAT/],
  ["it", "2 acciughe", /FISH/],
  ["es", "Espolvorear con almendras laminadas y servir con nata montada.", /ALMOND.*MILK|MILK.*ALMOND/],
  ["es", "40 g de pan rallado", /WHEAT/],
  ["es", "20 g de salsa de soja", /SOYA/],
  ["es", "100 ml de cerveza", /BARLEY/],
  ["es", "50 g de harina de altramuz", /LUPIN/],
];

test.each(eaten)("%s: “%s” is on the label", (language, text, names) => {
  expect(labelled(`${lists[language]}\n\n${text}`).ingredientsText).toMatch(names);
});

test.each([
  ["Naan", "Divide into 6 and roll each naan to 5 mm. Cook the naan in a hot pan."],
  ["Gnocchi", "Form the gnocchi and boil them."],
  ["Sweet loaf", "Sprinkle with water, turn the bread out and slice it cold."],
])("what is being made is no food put in: %s", (title, steps) => {
  const { ingredientsText, gluten } = labelled(`${title}\n\n${lists["en"]}\n\nMethod\n${steps}`);
  expect(ingredientsText).not.toMatch(/WHEAT|sprinkle/);
  expect(gluten.claim).not.toBe("against");
});

describe("the words of allergens", () => {
  const rows = table.words as { words: string; allergens: string[]; gluten?: string }[];
  test("what holds gluten names the grain that the laws list", () => {
    const without = rows.filter(
      ({ gluten, allergens }) => gluten === "contains" && !allergens.some((one) => ["wheat", "rye", "barley"].includes(one)),
    );
    expect(without.map(({ words }) => words)).toEqual([]);
  });
  test("each is found by itself, in many and among other words, with all that it holds", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...rows),
        fc.constantFrom("50 g ", "2 tbsp chopped ", "a little "),
        fc.boolean(),
        ({ words, allergens }, before, many) => {
          const text = `${before}${words}${many && !words.endsWith("s") ? "s" : ""}`;
          const found = allergensInWords(text).allergens.map(({ allergen }) => allergen as string);
          expect([text, allergens.filter((one) => !found.includes(one))]).toEqual([text, []]);
        },
      ),
      { numRuns: 400 },
    );
  });
});
