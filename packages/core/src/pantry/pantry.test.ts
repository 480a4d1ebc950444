import { catalogue, builtInShelf, powders, shelfWith } from "./catalogue";
import { ingredientOf } from "./shelf";
import { findIngredient, searchIngredients } from "./find";
import { ingredientSchema } from "./ingredient-schema";
import { vesselLibrary } from "./vessel";
import { vesselSchema } from "./vessel-schema";
import { CoreError } from "../errors";

test("at least 120 ingredients, each with its own id", () => {
  expect(catalogue.length).toBeGreaterThanOrEqual(120);
  expect(new Set(catalogue.map((i) => i.id)).size).toBe(catalogue.length);
});

test.each(catalogue.map((i) => [i.id, i] as const))("%s is whole", (_, ingredient) => {
  const parsed = ingredientSchema.safeParse(ingredient);
  expect(parsed.error?.issues ?? []).toEqual([]);
  const whole = Object.values(ingredient.per100g).reduce((all, part) => all + part, 0);
  expect(Math.abs(whole - 100)).toBeLessThanOrEqual(3);
  for (const r of [
    ingredient.gPerMl,
    ingredient.acidity,
    ingredient.carbonation,
    ...(ingredient.pieces ?? []).map((p) => p.grams),
  ]) {
    if (r) expect(r.low <= r.mid && r.mid <= r.high).toBe(true);
  }
  if (ingredient.acids) expect(ingredient.ph).toBeDefined();
});

test("no two ingredients claim the same words", () => {
  const claimed = new Map<string, string>();
  const doubled: string[] = [];
  for (const ingredient of catalogue) {
    for (const alias of new Set([...ingredient.aliases, ingredient.name].map((a) => a.toLowerCase()))) {
      if (claimed.has(alias)) doubled.push(`${alias}: ${claimed.get(alias)} and ${ingredient.id}`);
      claimed.set(alias, ingredient.id);
    }
  }
  expect(doubled).toEqual([]);
});

test("a powder holds nearly as much acid as soda and makes 12 to 15 % of carbon dioxide", () => {
  for (const powder of powders.values()) {
    const co2 = (powder.soda * 44.01) / 84.007;
    expect(co2).toBeGreaterThan(0.12);
    expect(co2).toBeLessThan(0.155);
  }
});

test.each([
  ["buckwheat flour", "buckwheat-flour"],
  ["finely ground almonds", "almond-flour"],
  ["unsalted butter, softened", "butter"],
  ["free-range eggs", "egg"],
  ["gluten-free self-raising flour", "gf-blend-self-raising"],
  ["golden caster sugar", "caster-sugar"],
  ["Dutch-process cocoa powder", "cocoa-alkalised"],
  ["full-fat Greek yoghurt", "greek-yoghurt"],
  ["ripe bananas", "banana-ripe"],
  ["sparkling water", "seltzer"],
  ["double-acting baking powder", "powder-double-acting"],
  ["bicarb", "soda"],
  ["light muscovado sugar", "light-brown-sugar"],
  ["flax eggs", "flax-egg"],
  ["ground flaxseed", "ground-flax"],
  ["crème fraîche", "creme-fraiche"],
  ["pepper", "pepper-black"],
  ["freshly squeezed orange juice", "orange-juice"],
  ["lukewarm water", "water"],
  ["certified gluten-free rolled oats", "rolled-oats"],
  ["grated mature cheddar", "cheddar"],
])("%s is %s", (name, id) => expect(findIngredient(name)?.ingredient.id).toBe(id));

test("a thing nobody knows is not guessed", () => expect(findIngredient("wibble dust")).toBeNull());

test("search finds by the start of any name", () => {
  expect(searchIngredients("buck")[0]?.id).toBe("buckwheat-flour");
  expect(searchIngredients("besan")[0]?.id).toBe("chickpea-flour");
});

test("an unknown id is refused with its neighbours", () => {
  expect(() => ingredientOf(builtInShelf, "rice-flour")).toThrow(CoreError);
  expect(() => ingredientOf(builtInShelf, "rice-flour")).toThrow(/white-rice-flour/);
});

test("a kitchen's own ingredient stands before the built-in one", () => {
  const own = { ...ingredientOf(builtInShelf, "honey"), name: "Heather honey" };
  expect(shelfWith([own]).get("honey")?.name).toBe("Heather honey");
  expect(shelfWith([own]).all().length).toBe(catalogue.length);
});

test.each(vesselLibrary.map((v) => [v.id, v] as const))("vessel %s is whole", (_, v) =>
  expect(vesselSchema.safeParse(v.vessel).success).toBe(true),
);
