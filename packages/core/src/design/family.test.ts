import { baked } from "../balance/analyse";
import { catalogue } from "../pantry/catalogue";
import { isFlour } from "../pantry/ingredient";
import { family, familySchema } from "./family";

const flours = new Set(catalogue.filter(isFlour).map(({ id }) => id));

describe.each(["muffin", "loaf", "scone"] as const)("a family of %s", (kind) => {
  const made = family({ kind, avoid: ["soy"] });
  test("is five, each sound by itself on the bench", () => {
    expect(familySchema.safeParse(made).error?.issues ?? []).toEqual([]);
    expect(made.products.map(({ name }) => name)).toEqual([
      "Plain",
      "With fruit",
      "Savoury",
      "With cocoa",
      "With seeds, without nuts",
    ]);
    for (const { name, design } of made.products) {
      const { lines, vessel, oven, process } = design;
      const { findings, bake } = baked({ lines, kind, vessel, oven, process }, undefined, { frames: 0, spread: 0.1 }).analysis;
      expect([name, findings.filter(({ severity }) => severity !== "note").map(({ message }) => message)]).toEqual([name, []]);
      expect(bake.fidelity).toBe("fine");
    }
  });
  test("shares one dry mix: to a hundredth the same parts of flour, binder, salt and powder in every one", () => {
    const inMix = new Set(made.mix.map(({ ingredientId }) => ingredientId));
    const whole = made.mix.reduce((all, { grams }) => all + grams, 0);
    expect(whole).toBeGreaterThan(995);
    expect(whole).toBeLessThan(1005);
    for (const { name, design } of made.products) {
      const dry = design.lines.filter(({ ingredientId }) => inMix.has(ingredientId));
      const all = dry.reduce((sum, { grams }) => sum + grams, 0);
      for (const { ingredientId, grams } of dry) {
        const share = (made.mix.find((line) => line.ingredientId === ingredientId)?.grams ?? 0) / whole;
        // Amounts are rounded to what a kitchen weighs: 5 g in 100, 0.1 g in 20.
        if (Math.abs(grams / all - share) > 0.015) throw new Error(`${name}: ${ingredientId} ${grams / all} for ${share}`);
      }
      for (const { ingredientId } of design.lines) if (flours.has(ingredientId)) expect([...inMix]).toContain(ingredientId);
    }
  });
  test("holds no nuts and nothing that was to be avoided, and its list is the sum of its lines", () => {
    const sums = new Map<string, number>();
    for (const { ingredientId, grams } of made.products.flatMap(({ design }) => design.lines))
      sums.set(ingredientId, (sums.get(ingredientId) ?? 0) + grams);
    expect(made.shopping).toHaveLength(sums.size);
    for (const { ingredientId, grams } of made.shopping) {
      expect(grams).toBeCloseTo(sums.get(ingredientId) ?? 0, 0);
      const allergens = catalogue.find(({ id }) => id === ingredientId)?.allergens ?? [];
      expect(allergens.filter((one) => one === "nuts" || one === "soy")).toEqual([]);
    }
  });
});

test("where the plain one cannot be made, it says what to buy; what the mix cannot carry is left out with its reason", () => {
  const bare = family({
    kind: "muffin",
    have: ["sorghum-flour", "tapioca-starch", "sunflower-oil", "white-sugar", "egg", "xanthan"],
  });
  expect(bare.products).toEqual([]);
  expect(bare.missing?.why).toMatch(/powder/i);
  for (const { why } of family({ kind: "bar" }).left) expect(why.length).toBeGreaterThan(10);
});
