import fc from "fast-check";
import corpus from "../../corpus/recipes.json";
import { readRecipe } from "../read";

/** Foods by words that everybody would find, and amounts as everybody writes them: a scanner that knows nothing of the reader. */
const foods: [words: string, id: RegExp][] = [
  ["buckwheat flour", /^buckwheat-flour$/],
  ["tapioca starch", /^tapioca-starch$/],
  ["ground almonds", /^almond-flour$/],
  ["honey", /^honey$/],
  ["kefir", /^kefir$/],
  ["sunflower oil", /^sunflower-oil$/],
  ["desiccated coconut", /^coconut-shredded$/],
  ["cocoa powder", /^cocoa/],
  ["baking soda", /^soda$/],
  ["psyllium husk", /^psyllium/],
];
const amount = fc.oneof(
  fc.integer({ min: 5, max: 400 }).map((n) => `${n} g`),
  fc.integer({ min: 5, max: 400 }).map((n) => `${n}g`),
  fc.constantFrom("two tablespoons", "1 1/2 cups", "half a cup", "¾ cup", "a teaspoon", "three quarters of a cup", "2 tbsp"),
);
const food = fc.constantFrom(...foods);
const pair = fc.tuple(amount, food);
/** Ways in which people say an amount and a food, list or no list. */
const shapes: ((amount: string, food: string) => string)[] = [
  (a, f) => `${a} ${f}`,
  (a, f) => `${a} of ${f}`,
  (a, f) => `Whisk in ${a} ${f} and leave it for a minute.`,
  (a, f) => `then ${a} of ${f} goes in`,
  (a, f) => `Sam: ok so ${a} ${f}`,
  (a, f) => `- ${f}: ${a}`,
  (a, f) => `| ${f} | ${a} |`,
  (a, f) => `you will want ${a} of ${f}, nothing else`,
  (a, f) => `(b) ${a} ${f}`,
];
const line = fc.tuple(fc.constantFrom(...shapes), pair).map(([shape, [a, [words, id]]]) => ({ text: shape(a, words), id }));

test("a food with an amount never falls silently: it is weighed, asked about, or said to be left aside", () => {
  fc.assert(
    fc.property(fc.array(line, { minLength: 1, maxLength: 8 }), (lines) => {
      const text = lines.map(({ text }) => text).join("\n");
      const { lines: read, accounted = [] } = readRecipe(text, "metric");
      let at = 0;
      for (const { text: one, id } of lines) {
        const [from, to] = [at, at + one.length];
        at = to + 1;
        const covered = accounted.filter((account) => account.from < to && account.to > from);
        expect([one, covered.length]).not.toEqual([one, 0]);
        const own = read.filter(({ source }) => source === one);
        const weighed = own.some(({ ingredientId, grams }) => ingredientId !== null && id.test(ingredientId) && grams !== null);
        const open = own.some(({ state }) => state !== "read") || covered.some(({ as }) => as === "aside" || as === "step");
        expect([one, weighed || open]).toEqual([one, true]);
      }
    }),
    { numRuns: 300 },
  );
});

test("without a list, every amount in sentences is gathered", () => {
  fc.assert(
    fc.property(fc.uniqueArray(pair, { minLength: 3, maxLength: 6, selector: ([, [words]]) => words }), (pairs) => {
      const said = pairs.map(([a, [words]]) => `${a} ${words}`);
      const text = `Grey harbour bake\nWhisk ${said.slice(0, 2).join(" with ")} until smooth. Stir in ${said.slice(2).join(", then ")}.\nBake for 40 minutes at 175 °C.`;
      const { lines } = readRecipe(text, "metric");
      for (const [, [words, id]] of pairs) {
        const found = lines.filter(({ ingredientId, grams }) => ingredientId !== null && id.test(ingredientId) && grams !== null);
        expect([text, words, found.length]).toEqual([text, words, 1]);
      }
    }),
    { numRuns: 200 },
  );
});

test("in the corpora every line that holds a figure is accounted for, and stretches neither overlap nor leave the text", () => {
  const cases = corpus as { text: string; measures: "us" | "metric" | "uk" | "au" }[];
  expect(cases.length).toBeGreaterThan(15);
  for (const { text, measures } of cases) {
    const { accounted = [], lines } = readRecipe(text, measures);
    const sorted = [...accounted].sort((a, b) => a.from - b.from);
    sorted.forEach(({ from, to, ref }, k) => {
      expect(from).toBeGreaterThanOrEqual(sorted[k - 1]?.to ?? 0);
      expect(to).toBeLessThanOrEqual(text.length);
      if (ref !== undefined) expect(text.slice(from, to)).toBe(lines[ref]?.source);
    });
    let at = 0;
    for (const one of text.split("\n")) {
      const [from, to] = [at, at + one.length];
      at = to + 1;
      if (/\d/.test(one)) expect([one, accounted.some((account) => account.from < to && account.to > from)]).toEqual([one, true]);
    }
  }
});

test("a scan's figures are read and asked about; litres and words stay as they are", () => {
  const read = (text: string) => readRecipe(`Loaf\n200 g teff flour\n2 eggs\n${text}`, "metric");
  for (const [text, grams] of [["25Og oat flour", 250], ["lOOg honey", 100], ["1OOg rice flour", 100]] as const) {
    const { lines, questions } = read(text);
    expect(lines.at(-1)).toMatchObject({ state: "asked", grams: { mid: grams } });
    expect(questions.at(-1)?.message).toMatch(/was read as/);
  }
  expect(read("1 l milk").lines.at(-1)?.grams?.mid).toBeGreaterThan(990);
  expect(read("5l water").lines.at(-1)?.grams?.mid).toBeGreaterThan(4900);
}); // prettier-ignore

test("what a tale or a comment tells stays out of the list, and says so", () => {
  const list = "220 g brown rice flour\n80 g tapioca starch\n10 g baking powder\n250 g water\n2 eggs";
  const { lines, accounted = [] } = readRecipe(`Why it sank\nOnce I took 300 g water. Soup. Then 200 g water. Brick.\n${list}\nComments\nTrudy: I used 1 cup of walnuts!`, "metric"); // prettier-ignore
  expect(lines.filter(({ ingredientId }) => ingredientId === "water")).toHaveLength(1);
  expect(lines.some(({ ingredientId, grams }) => ingredientId === "walnuts" && grams !== null)).toBe(false);
  expect(accounted.filter(({ as }) => as === "aside").map(({ why }) => why).join(" ")).toMatch(/walnuts/); // prettier-ignore
});

test("what only the method speaks of is asked about", () => {
  const { lines, questions } = readRecipe("Loaf\n200 g teff flour\n2 eggs\n100 g yoghurt\nMethod\nWhisk all of it with 30 g honey.\nBake 40 minutes at 180 °C.", "metric"); // prettier-ignore
  expect(lines.find(({ ingredientId }) => ingredientId === "honey")).toMatchObject({ state: "asked", grams: { mid: 30 } });
  expect(questions.map(({ message }) => message).join(" ")).toContain("The method speaks of honey, and the list does not.");
});

test("foods without an amount in sentences are asked about: all of them without a list, else what the method adds", () => {
  const asked = (text: string) => readRecipe(text, "us").lines.flatMap(({ ingredientId, grams, state }) => (ingredientId && grams === null && state === "asked" ? [ingredientId] : [])); // prettier-ignore
  expect(asked("Hotcakes\nTake two cups sour milk, beat in one egg, one teaspoon soda, salt, sugar to taste and enough buckwheat flour for a thin batter.\nFry on a hot griddle.")).toEqual(expect.arrayContaining(["salt", "white-sugar", "buckwheat-flour"])); // prettier-ignore
  const list = "Loaf\n200 g teff flour\n2 eggs\n100 g yoghurt\nMethod\n";
  expect(asked(`${list}Whisk it all, then fold in the raisins.\nBake 40 minutes at 180 °C.`)).toEqual(["raisins"]);
  expect(asked(`${list}Whisk the flour with the eggs, add the yoghurt.\nBake, and eat with golden syrup.`)).toEqual([]);
});

test("another choice in a sentence is offered, and added to nothing", () => {
  const { lines, questions } = readRecipe("Bake\nStir 200 g yoghurt or 200 ml buttermilk into 300 g oat flour with 8 g baking powder.", "metric"); // prettier-ignore
  expect(lines.find(({ ingredientId }) => ingredientId === "plain-yoghurt")).toMatchObject({ state: "asked", alternatives: ["200 ml buttermilk"] }); // prettier-ignore
  expect(lines.some(({ ingredientId }) => ingredientId === "buttermilk")).toBe(false);
  expect(questions.some(({ kind, choices }) => kind === "which-one" && choices.some(({ ingredientId }) => ingredientId === "buttermilk"))).toBe(true); // prettier-ignore
});

test("a word of another clause leaves nothing aside", () => {
  const { lines } = readRecipe("Bake\nWhisk 2 eggs like mad, 30 g honey, not too long, then 200 g teff flour and 8 g baking powder.", "metric"); // prettier-ignore
  expect(lines.flatMap(({ ingredientId, grams }) => (ingredientId && grams ? [ingredientId] : []))).toEqual(["egg", "honey", "teff-flour", "powder-aluminium-free"]); // prettier-ignore
});
