import fc from "fast-check";
import { readRecipe } from "../../read";
import de from "./de.json";
import es from "./es.json";
import fr from "./fr.json";
import it from "./it.json";
import { inEnglish, languageOf } from "./language";

const idsOf = (text: string): string[] =>
  readRecipe(text, "metric").lines.flatMap(({ ingredientId, grams }) =>
    ingredientId && grams ? [`${ingredientId} ${Math.round(grams.mid)}`] : [],
  );

/** The same small cake, as four kitchens write it; masses by hand. */
const cakes = {
  de: "Zitronenkuchen\n200 g Reismehl\n50 g Kartoffelstärke\n10 g Backpulver\n120 g Zucker\n100 g zerlassene Butter\n150 g Naturjoghurt\n5 g Salz\nBei 175 °C 40 Minuten backen.",
  fr: "Gâteau au citron\n200 g de farine de riz\n50 g de fécule de pommes de terre\n10 g de levure chimique\n120 g de sucre\n100 g de beurre fondu\n150 g de yaourt nature\n5 g de sel\nEnfourner 40 minutes à 175 °C.",
  es: "Bizcocho de limón\n200 g de harina de arroz\n50 g de fécula de patata\n10 g de levadura química\n120 g de azúcar\n100 g de mantequilla derretida\n150 g de yogur natural\n5 g de sal\nHornear 40 minutos a 175 °C.",
  it: "Torta al limone\n200 g di farina di riso\n50 g di fecola di patate\n10 g di lievito per dolci\n120 g di zucchero\n100 g di burro fuso\n150 g di yogurt bianco\n5 g di sale\nCuocere in forno a 175 °C per 40 minuti.",
} as const;

test.each(Object.entries(cakes))("a cake in %s is the one that stands there in English", (language, text) => {
  const english = "Lemon cake\n200 g rice flour\n50 g potato starch\n10 g baking powder\n120 g sugar\n100 g melted butter\n150 g plain yoghurt\n5 g salt\nBake 40 minutes at 175 °C.";
  const reading = readRecipe(text, "metric");
  expect(reading.language).toBe(language);
  expect(idsOf(text)).toEqual(idsOf(english));
  expect(reading.oven).toEqual({ celsius: 175 });
  expect(reading.minutes).toEqual({ low: 40, high: 40 });
}); // prettier-ignore

test("compounds and heads are put together, and nothing is lost of what is not known", () => {
  expect(inEnglish("200 g Buchweizenmehl", "de")).toBe("200 g buckwheat flour");
  expect(inEnglish("3 EL Sonnenblumenöl und 1 Prise Salz", "de")).toBe("3 tablespoons sunflower oil and 1 pinch salt");
  expect(inEnglish("10 cl d'huile d'olive", "fr")).toBe("10 cl of olive oil");
  expect(inEnglish("50 g de almidón de maíz", "es")).toBe("50 g of corn starch");
  fc.assert(
    fc.property(fc.array(fc.constantFrom("Mondstaub", "12", "g", "—", "(x)", "7,5"), { maxLength: 8 }), (words) => {
      const text = words.join(" ");
      expect(inEnglish(text, "de")).toBe(text);
    }),
  );
});

test("English stays English, with a foreign word in it too", () => {
  for (const text of ["200 g masa harina\n1 cup milk\n2 eggs", "Polenta cake\n200 g polenta\n100 g ground almonds\nBake at 160 °C", "1 cup crème fraîche\n200 g oat flour\n2 tsp baking powder", "rum and raisin loaf, 100 g raisins, 200 g teff flour"]) expect(languageOf(text)).toBe("en"); // prettier-ignore
  expect(idsOf("Loaf\n200 g masa harina\n250 ml water")[0]).toMatch(/^masa-harina/);
});

test("every entry of the data is used as it stands: an English word that means itself in a kitchen", () => {
  for (const { words, heads, stems } of [de, fr, es, it])
    for (const [key, value] of [...Object.entries(words), ...Object.entries(heads), ...Object.entries(stems)]) {
      expect(key).toMatch(/\p{L}/u);
      expect([key, value]).toEqual([key, expect.stringMatching(/^[a-z0-9][A-Za-z0-9 %-]*$/)]);
    }
});
