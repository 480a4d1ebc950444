import { titrationOf } from "../lift/charge";
import { waterGiven } from "../body/water";
import { catalogue, builtInShelf } from "./catalogue";
import { ingredientOf } from "./shelf";
import { findIngredient, candidatesOf, mayMean, titledIngredient } from "./find";
import { isInclusion, releasedAtMixing, releasedAtSetting } from "./pieces";
import { drained, preparedAs } from "./prepared";

const of = (id: string) => ingredientOf(builtInShelf, id);

test("a piece gives a share, later more, never all; what is no piece gives all", () => {
  for (const each of catalogue) {
    const [mixing, setting] = [releasedAtMixing(each), releasedAtSetting(each)];
    expect(mixing).toBeGreaterThanOrEqual(0);
    expect(setting).toBeGreaterThanOrEqual(mixing);
    expect(setting).toBeLessThanOrEqual(1);
    expect(isInclusion(each) ? setting < 0.6 : mixing === 1).toBe(true);
  }
});

test("water and acid go by the same table: whole berries sour a batter less than the same berries as a purée", () => {
  const whole = of("blueberries");
  const puree = of("berry-puree");
  expect(waterGiven(whole)).toBeCloseTo((whole.per100g.water / 100) * releasedAtMixing(whole), 9);
  const sour = (id: string): number => {
    const t = titrationOf(of(id));
    return t.buffer + t.acids.reduce((all, acid) => all + acid.mmol, 0);
  };
  expect(sour("blueberries")).toBeLessThan(0.5 * sour("berry-puree"));
  expect(releasedAtSetting(puree)).toBe(1);
});

test.each([
  ["carrot", "boiled and mashed", "carrot-puree"],
  ["apple", "puréed", "apple-puree"],
  ["orange", "juiced", "orange-juice"],
  ["pear", "juiced", "pear-juice"],
  ["ginger-ground", "freshly grated", "ginger-fresh"],
  ["lemon-juice", "zest", "lemon-zest"],
  ["egg", "whites only", "egg-white"],
  ["rolled-oats", "ground to a flour", "oat-flour"],
])("%s, %s, is %s", (id, said, becomes) => {
  const made = preparedAs(id, said);
  expect(made?.ingredientId).toBe(becomes);
  expect(builtInShelf.get(becomes)).toBeDefined();
  expect(made && made.keeps.low <= made.keeps.mid && made.keeps.mid <= made.keeps.high && made.keeps.high <= 1).toBe(true);
});

test.each([
  ["carrot", "grated"],
  ["apple", "diced"],
  ["ginger-ground", "ground"],
  ["egg", "lightly beaten"],
  ["butter", "melted"],
])("%s, %s, stays what it is", (id, said) => expect(preparedAs(id, said)).toBeNull());

test("a drained can holds half to nine tenths of what was in it", () => {
  for (const id of ["sweetcorn", "olives", "chickpeas"]) {
    expect(drained(id).low).toBeGreaterThan(0.4);
    expect(drained(id).high).toBeLessThanOrEqual(0.9);
  }
});

test("an unknown flour is offered flours, and what holds gluten stands last", () => {
  expect(findIngredient("moonbean flour")).toBeNull();
  const offered = candidatesOf("moonbean flour");
  expect(offered.length).toBeGreaterThan(1);
  const first = offered.findIndex(({ gluten }) => gluten === "contains");
  if (first >= 0) expect(offered.slice(first).every(({ gluten }) => gluten === "contains")).toBe(true);
  expect(offered[0]?.gluten).not.toBe("contains");
});

test("a name that means several things says so, whatever its case; a title is one thing", () => {
  for (const name of ["dairy-free milk", "Dairy-free Milk", "flour", "gluten-free flour", "cornflour", "vegan yogurt"])
    expect(mayMean(name).length).toBeGreaterThan(1);
  expect(mayMean("sorghum flour")).toEqual([]);
  for (const each of catalogue) expect(titledIngredient(each.name.toUpperCase())?.id).toBe(each.id);
  expect(titledIngredient("nothing of the kind")).toBeNull();
});
