import { beginsAStep, componentOf, isHeading, isMeta } from "./roles";

const opened = (text: string) => componentOf(text, /:\s*$/.test(text));

test.each([
  ["For the topping:", "topping"],
  ["Topping", "topping"],
  ["OAT CRUMBLE", "topping"],
  ["For the glaze", "glaze"],
  ["Lemon icing:", "glaze"],
  ["Egg wash and top", "glaze"],
  ["For the tops", "topping"],
  ["Then the drizzle.", "glaze"],
  ["Date filling", "filling"],
  ["Cinnamon swirl:", "filling"],
  ["To serve:", "serve"],
  ["For the soaker:", "soaker"],
  ["MUFFINS", "batter"],
  ["Dry", "batter"],
  ["Wet ingredients:", "batter"],
  ["For the batter:", "batter"],
  ["Garlic butter for brushing", "glaze"],
  ["Filling 2:", "filling"],
  ["For the layer no. 1:", "filling"],
  ["Dough 2:", "batter"],
])("“%s” opens a part that is a %s", (text, role) => expect(opened(text)?.role).toBe(role));

test.each([
  "200 g oat flour",
  "jam and butter to serve",
  "demerara sugar to finish",
  "maple syrup",
  "soy sauce",
  "a pinch of salt",
  "Bake until golden.",
  "butter",
  "Step 1:",
  "Eggs 2:",
  "Muffins 12",
])("“%s” opens none", (text) => expect(opened(text)).toBeNull());

test.each(["Ingredients", "You will need:", "METHOD", "Directions", "What to do", "Notes", "Storage:"])(
  "“%s” is a heading of the whole",
  (text) => expect(isHeading(text)).toBe(true),
);

test.each(["Serves 8", "Prep time: 10 minutes", "Makes: 12", "Total time 1 hour", "Difficulty: easy"])(
  "“%s” is said about the recipe",
  (text) => expect(isMeta(text)).toBe(true),
);

test.each(["Whisk the eggs", "Then fold in the flour", "Prick all over", "Gently stir", "Meanwhile, melt the butter"])(
  "“%s” is something to do",
  (text) => expect(beginsAStep(text)).toBe(true),
);

test.each(["2 cups whisked eggs", "flour, sifted", "buttermilk", "oats"])("“%s” is nothing to do", (text) =>
  expect(beginsAStep(text)).toBe(false),
);

test("a numbered heading keeps its number in its name", () => expect(opened("Filling 2:")?.name).toBe("Filling 2"));
