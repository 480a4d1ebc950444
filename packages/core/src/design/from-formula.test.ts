import { analyse, readings } from "../balance/analyse";
import { beginKind, formulaFrom } from "../begin";
import { ingredientSchema } from "../pantry/ingredient-schema";
import { builtInShelf, shelfWith } from "../pantry/catalogue";
import { vesselLibrary } from "../pantry/vessel";
import { readRecipe } from "../read";
import { knobbed, knobOf } from "./knobs";
import { design } from "./design";
import { blendFrom, floursOf, wishFrom } from "./from-formula";
import { filledAsLiked } from "./to-formula";
import { USUAL_SHELF } from "./wish";
import { wishSchema } from "./wish-schema";

const wheat = `Raisin muffins
250 g plain wheat flour
2 tsp instant yeast
120 g sugar
2 eggs
180 ml milk
80 g butter
100 g raisins
1/2 tsp salt
Bake at 190 C for 20 minutes in a 12-hole muffin tin.`;

describe("a recipe of wheat and yeast as the start", () => {
  const formula = formulaFrom(readRecipe(wheat, "metric"), "metric");
  const { wish, gone } = wishFrom(formula, USUAL_SHELF);
  test("keeps kind, pan, oven and raisins, and names what cannot stay", () => {
    expect(wishSchema.safeParse(wish).error?.issues ?? []).toEqual([]);
    expect(wish).toMatchObject({ kind: "muffin", vessel: formula.vessel, oven: formula.oven });
    expect(wish.useUp).toEqual([{ ingredientId: "raisins", grams: 100 }]);
    expect(gone.join(", ")).toMatch(/wheat/i);
    expect(gone.join(", ")).toMatch(/yeast/i);
  });
  test("becomes sound designs about as rich and as sweet, without wheat or yeast", () => {
    const { designs } = design(wish);
    expect(designs.length).toBeGreaterThan(0);
    const before = readings({ ...formula, measures: "metric" });
    for (const { lines, readings: now } of designs) {
      expect(lines.filter(({ ingredientId }) => /wheat|yeast/.test(ingredientId))).toEqual([]);
      const sugar = before.bands.find(({ name }) => name === "sugarPercent")?.value ?? 0;
      expect(Math.abs(now.sugarPercent - sugar)).toBeLessThan(0.5 * sugar);
    }
  });
  test("a sound formula as the start gives sliders near the middle of what is usual", () => {
    const { wish: usual } = wishFrom(beginKind("loaf", "metric", 900), USUAL_SHELF);
    expect(usual.rich).toBeCloseTo(0.5, 1);
    expect(usual.sweet).toBeCloseTo(0.5, 1);
  });
});

test("the flours that a recipe is named after stay in its designs, and one without egg stays without", () => {
  const text =
    "Buckwheat scones\n200 g buckwheat flour\n80 g tapioca starch\n150 ml milk\n70 g butter\n30 g sugar\n14 g baking powder\n2 g xanthan gum\n2 g salt\nBake at 210 C for 15 minutes.";
  const { wish } = wishFrom(formulaFrom(readRecipe(text, "metric"), "metric"), USUAL_SHELF);
  expect(wish).toMatchObject({ kind: "scone", variant: "eggless", prefer: ["buckwheat-flour", "tapioca-starch"] });
  const { designs } = design(wish);
  expect(designs.length).toBeGreaterThan(0);
  for (const { lines, flours } of designs) {
    expect(flours.find(({ ingredientId }) => ingredientId === "buckwheat-flour")?.percent ?? 0).toBeGreaterThanOrEqual(20);
    expect(lines.some(({ ingredientId }) => ingredientId === "egg")).toBe(false);
  }
});

test("a slider and its value are each other's inverse inside of the band", () => {
  const ends = { usual: 30, low: 10, high: 70 };
  for (const at of [0, 0.2, 0.5, 0.8, 1]) expect(knobOf(knobbed(ends.usual, ends.low, ends.high, at), ends)).toBeCloseTo(at, 9);
  expect(knobOf(200, ends)).toBe(1);
  expect(knobOf(-5, ends)).toBe(0);
});

describe("kept as a blend", () => {
  const mix = [
    { ingredientId: "sorghum-flour", grams: 500 },
    { ingredientId: "tapioca-starch", grams: 440 },
    { ingredientId: "powder-aluminium-free", grams: 60 },
  ];
  const kept = blendFrom("blend-mine", "Pier mix", mix);
  test("is an ingredient that the store takes, with the mean of its parts and the lift of its powder", () => {
    expect(ingredientSchema.safeParse(kept).error?.issues ?? []).toEqual([]);
    const protein = (id: string): number => builtInShelf.get(id)?.per100g.protein ?? 0;
    expect(kept.per100g.protein).toBeCloseTo(
      0.5 * protein("sorghum-flour") + 0.44 * protein("tapioca-starch") + 0.06 * protein("powder-aluminium-free"),
      6,
    );
    expect(kept.leavening?.share).toBeCloseTo(0.06, 9);
  });
  test("lifts as its parts weighed one by one do", () => {
    const wet = [
      { ingredientId: "whole-milk", grams: 300 },
      { ingredientId: "egg", grams: 100 },
      { ingredientId: "sunflower-oil", grams: 80 },
      { ingredientId: "white-sugar", grams: 120 },
    ];
    const of = (lines: { ingredientId: string; grams: number }[], shelf = builtInShelf) =>
      analyse({ kind: "loaf", lines: [...lines, ...wet] }, shelf).lift.gasMlPer100g.mid;
    const parts = mix.map(({ ingredientId, grams }) => ({ ingredientId, grams: 0.4 * grams }));
    const whole = of([{ ingredientId: "blend-mine", grams: 400 }], shelfWith([kept]));
    expect(whole / of(parts)).toBeCloseTo(1, 2);
  });
  test("the flours of a design are its flours and starches alone", () => {
    const [one] = design({ kind: "bun" }).designs;
    const dry = floursOf(one?.lines ?? []);
    expect(dry.length).toBe(one?.flours.length);
  });
});

test("a pan is drawn as full as a batter likes it, with its crown by the rim", () => {
  for (const { vessel } of vesselLibrary) {
    const { fillFraction, rimMm, crownMm, depthMm } = filledAsLiked(vessel);
    if (rimMm === null) expect(crownMm.mid).toBeGreaterThan(depthMm);
    else {
      expect(fillFraction).toBeCloseTo(0.62, 2);
      expect(crownMm.mid / rimMm).toBeCloseTo(1.05, 6);
    }
  }
});
