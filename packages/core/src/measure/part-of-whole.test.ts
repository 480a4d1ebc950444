import { readRecipe } from "../read";

const read = (line: string) => {
  const { lines, questions } = readRecipe(`Loaf\n200 g sorghum flour\n${line}`, "metric");
  const found = lines.find(({ source }) => source === line);
  return { id: found?.ingredientId, grams: found?.grams?.mid, state: found?.state, questions: questions.length };
};
const whole = (name: string): number => read(`1 ${name}`).grams ?? NaN;

test.each(["pear", "peach", "apple", "banana", "fig"])("halves and quarters of a %s are that share of one", (food) => {
  expect(read(`4 ${food} halves`).grams).toBeCloseTo(2 * whole(food), 6);
  expect(read(`3 ${food} quarters`).grams).toBeCloseTo(0.75 * whole(food), 6);
});

const parts = ["slice", "wedge", "segment", "sliver", "strip", "ring"];
test.each(parts.flatMap((part) => ["lemon", "orange", "apple", "banana"].map((food) => [part, food])))(
  "a %s of %s is never taken for a whole one: its grams are asked",
  (part, food) => {
    for (const line of [`a ${part} of ${food}`, `2 ${food} ${part}s`, `3 ${part}s of ${food}`]) {
      const { grams, state, questions } = read(line);
      expect(state).toBe("asked");
      expect(grams).toBeUndefined();
      expect(questions).toBe(1);
    }
  },
);

test("more than a piece is not a piece: a head of garlic is no clove", () => {
  expect(read("1 head of garlic").state).toBe("asked");
  expect(read("2 cloves garlic").grams).toBeCloseTo(2 * whole("garlic clove"), 6);
});

test("a lump the size of an egg is about an egg of it, one like a walnut a third of that", () => {
  const egg = read("a lump of butter the size of an egg").grams ?? 0;
  expect(egg).toBeGreaterThan(40);
  expect(egg).toBeLessThan(60);
  expect(read("a knob of butter the size of a walnut").grams).toBeCloseTo(0.36 * egg, 1);
});

test("what is cut afterwards was whole when it was counted", () => {
  for (const line of ["2 apples in slices", "2 apples, cut in wedges", "2 apples, sliced"])
    expect(read(line).grams).toBeCloseTo(2 * whole("apple"), 6);
});

test("halves that have a mass of their own keep it", () => expect(read("12 walnut halves").grams).toBeCloseTo(24, 6));

// Masses of whole fruit without stone or peel: kitchen ranges, confidence B.
test.each([
  ["2 shallots", 30, 80],
  ["10 cherry tomatoes", 100, 200],
  ["3 clementines", 150, 225],
  ["4 apricots", 120, 200],
  ["6 damsons", 45, 100],
  ["juice of 2 clementines", 50, 90],
  ["a pair of bananas", 200, 280],
  ["juice of both limes", 40, 70],
  ["a trio of eggs", 130, 165],
])("%s weighs what that fruit weighs", (line, low, high) => {
  const { grams, state } = read(line);
  expect(state).toBe("read");
  expect(grams).toBeGreaterThanOrEqual(low);
  expect(grams).toBeLessThanOrEqual(high);
});
