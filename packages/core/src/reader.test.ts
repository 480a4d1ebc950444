import fc from "fast-check";
import { formulaFrom } from "./begin";
import { catalogue } from "./pantry/catalogue";
import { findIngredient } from "./pantry/find";
import { readRecipe } from "./read";

const lineOf = (text: string, measures: "us" | "metric" | "uk" | "au" = "us") =>
  readRecipe(`Pier bake\n${text}`, measures).lines.filter(({ source }) => source !== "Pier bake");
const gramsOf = (text: string, measures: "us" | "metric" | "uk" | "au" = "us"): number | undefined =>
  lineOf(text, measures)[0]?.grams?.mid;

const countries = ["us", "metric", "uk", "au"] as const;

test("the own name of every ingredient of the pantry leads to it, or to one with the same allergens and gluten", () => {
  const wrong = catalogue.flatMap((ingredient) =>
    [ingredient.name, ...ingredient.aliases].flatMap((name) => {
      const found = findIngredient(name)?.ingredient;
      const same =
        found !== undefined &&
        [...found.allergens].sort().join() === [...ingredient.allergens].sort().join() &&
        found.gluten === ingredient.gluten;
      return same ? [] : [`${name}: ${found?.id ?? "none"} for ${ingredient.id}`];
    }),
  );
  expect(wrong).toEqual([]);
});

test("no telling word before a name is dropped: what is free of milk or egg never comes back with it", () => {
  const holding = (allergen: string): string[] =>
    catalogue.filter((each) => each.allergens.includes(allergen as never)).flatMap((each) => [each.name, ...each.aliases]);
  for (const [word, allergen] of [
    ["vegan", "milk"],
    ["dairy-free", "milk"],
    ["plant-based", "milk"],
    ["vegan", "egg"],
    ["egg-free", "egg"],
  ] as const) {
    const kept = holding(allergen).flatMap((name) => {
      const found = findIngredient(`${word} ${name}`)?.ingredient;
      return found?.allergens.includes(allergen as never) ? [`${word} ${name}: ${found.id}`] : [];
    });
    expect(kept).toEqual([]);
  }
});

test("gluten-free before a grain with gluten never comes back as that grain", () => {
  const kept = catalogue
    .filter(({ gluten }) => gluten === "contains")
    .flatMap(({ name, aliases }) => [name, ...aliases])
    .flatMap((name) => {
      const found = findIngredient(`gluten-free ${name}`)?.ingredient;
      return found?.gluten === "contains" ? [`${name}: ${found.id}`] : [];
    });
  expect(kept).toEqual([]);
});

test("every spelling of an amount weighs the same in every country", () => {
  const spellings: string[][] = [
    [
      "1 1/2 cups",
      "1½ cups",
      "1.5 cups",
      "1,5 cups",
      "one and a half cups",
      "1 and 1/2 cups",
      "a cup and a half of",
      "1 cup plus 1/2 cup",
    ],
    ["1/2 cup", "½ cup", ".5 cup", "0.5 cups", "half a cup of", "a half cup", "½ c."],
    ["3/4 tsp", "¾ teaspoon", "0.75 tsp.", "three quarters of a teaspoon", "¾ t"],
    ["250 g", "250g", "0.25 kg", "0,25 kg", "250 grams", "a quarter of a kilo of", "¼ kg"],
    ["2 tbsp", "2 tablespoons", "two Tbsp.", "2 T", "1 tbsp plus 1 tbsp"],
    ["1 lb", "1 pound", "16 oz", "one lb.", "12 oz plus 4 oz"],
    ["100 ml", "0.1 l", "1 dl", "100ml", "10 cl"],
  ];
  fc.assert(
    fc.property(
      fc.constantFrom(...spellings),
      fc.constantFrom("sorghum flour", "honey", "water", "potato starch", "caster sugar"),
      fc.constantFrom(...countries),
      (same, name, measures) => {
        const [first, ...others] = same.map((amount) => gramsOf(`${amount} ${name}`, measures));
        expect(first).toBeGreaterThan(0);
        for (const other of others) expect(other).toBeCloseTo(first ?? 0, 4);
      },
    ),
    { numRuns: 120 },
  );
});

test("a sum weighs the same whichever part stands first, and as much as its parts", () => {
  const parts = ["1 cup", "2 tbsp", "1/4 cup", "3 tsp", "50 ml", "½ cup"];
  fc.assert(
    fc.property(
      fc.constantFrom(...parts),
      fc.constantFrom(...parts),
      fc.constantFrom("plus", "+", "and"),
      fc.constantFrom(...countries),
      (a, b, join, measures) => {
        const sum = gramsOf(`${a} ${join} ${b} buttermilk`, measures) ?? NaN;
        expect(sum).toBeCloseTo(gramsOf(`${b} ${join} ${a} buttermilk`, measures) ?? NaN, 6);
        expect(sum).toBeCloseTo((gramsOf(`${a} buttermilk`, measures) ?? NaN) + (gramsOf(`${b} buttermilk`, measures) ?? NaN), 6);
      },
    ),
  );
});

test("a formula written out in grams is read back as it was", () => {
  const plain = catalogue.filter(({ id, gluten }) => gluten === "free" && findIngredient(id)?.ingredient.id === id);
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.tuple(fc.constantFrom(...plain), fc.integer({ min: 1, max: 900 })), {
        minLength: 1,
        maxLength: 12,
        selector: ([{ id }]) => id,
      }),
      (written) => {
        const text = ["Round trip loaf", ...written.map(([{ name }, grams]) => `${grams} g ${name}`)].join("\n");
        const reading = readRecipe(text, "metric");
        const asked = new Set(reading.questions.map(({ line }) => line));
        reading.lines.slice(1).forEach((line, n) => {
          const [ingredient, grams] = written[n] ?? [];
          expect(line.grams?.mid).toBeCloseTo(grams ?? 0, 6);
          // A name that stands for several things is asked, never quietly another.
          if (!asked.has(n + 1)) expect([line.name, line.ingredientId]).toEqual([line.name, ingredient?.id]);
        });
        const formula = formulaFrom(reading, "metric");
        expect(formula.lines).toHaveLength(written.length);
      },
    ),
    { numRuns: 150 },
  );
});

test("a line that holds several things keeps one source; a line that weighs nothing certain is asked or unread", () => {
  const both = lineOf("1 tsp each of baking soda and salt");
  expect(both.map(({ source, item }) => [source, item])).toEqual([
    ["1 tsp each of baking soda and salt", 0],
    ["1 tsp each of baking soda and salt", 1],
  ]);
  for (const line of lineOf("a jug of moonshine flour")) expect(line.state).not.toBe("read");
});
