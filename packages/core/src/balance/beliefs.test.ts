import { baked, readings } from "./analyse";
import type { AnalyseInput } from "../formula/open";
import { typicalLines } from "./bands";
import { beliefsOf } from "./beliefs";

const muffin: AnalyseInput = {
  kind: "muffin",
  lines: [
    { ingredientId: "sorghum-flour", grams: 150 },
    { ingredientId: "tapioca-starch", grams: 90 },
    { ingredientId: "kefir", grams: 210 },
    { ingredientId: "egg", grams: 100 },
    { ingredientId: "white-sugar", grams: 110 },
    { ingredientId: "soda", grams: 2 },
    { ingredientId: "powder-aluminium-free", grams: 6 },
    { ingredientId: "salt", grams: 2 },
    { ingredientId: "xanthan", grams: 1.2 },
  ],
};
const answer = (id: string, input = muffin): string => beliefsOf(readings(input), null).find((one) => one.id === id)?.answer ?? "";

test("sugar and salt meet no soda, and who does is named with its share", () => {
  // 2 g of soda are 2 / 84.007 mol.
  expect(answer("sugar-sets-off")).toMatch(
    /^Acid does. Of the 24 mmol of soda here the kefir meets \d+.*sugar and salt meet none\.$/,
  );
});
test("a sour liquid meets what its acid comes to, in grams of soda", () => {
  const [, mmol, grams] = /kefir here (\d+) mmol, which is ([\d.]+) g of soda/.exec(answer("any-sour")) ?? [];
  expect(Number(grams)).toBeCloseTo((Number(mmol) * 84.007) / 1000, 1);
});
test("twice the powder is said in per cent of this flour", () => {
  expect(answer("more-powder")).toMatch(/Here it is 2\.5 %, and twice as much would be 5\.0 %\.$/);
  const much = {
    ...muffin,
    lines: (muffin.lines ?? []).map((line) => (line.ingredientId?.startsWith("powder") ? { ...line, grams: 14 } : line)),
  };
  expect(answer("more-powder", much)).toMatch(/a sunken middle, not a taller one/);
});
test("soda and powder are not one for one: by the soda in the powder", () => {
  const [, ratio] = /gas of ([\d.]+) g of powder/.exec(answer("one-for-one")) ?? [];
  expect(Number(ratio)).toBeGreaterThan(3);
  expect(Number(ratio)).toBeLessThan(4.2);
});
test("when the top colours the middle of a loaf is not done, by its own bake; without a bake nothing is said", () => {
  const { analysis, simulation } = baked({ kind: "loaf", lines: typicalLines("loaf", 950) }, undefined, { frames: 0, spread: 0 });
  const told = beliefsOf(analysis, simulation).find(({ id }) => id === "dark-is-done")?.answer ?? "";
  const [, early, core, target, late] =
    /after (\d+) min, when the middle is at (\d+) °C; it is done at (\d+) °C, after (\d+)/.exec(told) ?? [];
  expect(Number(core)).toBeLessThan(Number(target));
  expect(Number(early)).toBeLessThan(Number(late));
  expect(answer("dark-is-done")).toBe("");
});
test("a fat that smokes in a hot pan is told with one that does not; yeast is said to be not computed, and is no missing lift", () => {
  const skillet: AnalyseInput = {
    ...muffin,
    kind: "cornbread-plain",
    vessel: { shape: "round", diameterMm: 250, heightMm: 50, material: "cast-iron", preheated: true },
    oven: { celsius: 210, mode: "still" },
    components: [{ id: "pan", name: "The pan", role: "pan" }],
    lines: [...(muffin.lines ?? []), { ingredientId: "butter", grams: 15, component: "pan" }],
  };
  const found = readings(skillet).findings.find(({ id }) => id === "fat-smokes");
  expect(found?.message).toMatch(/Butter begins to smoke at about 150 °C; the pan meets it at 210 °C/);
  expect(found?.fix).toMatch(/sunflower oil \(225 °C\)/i);
  expect(
    readings({ ...skillet, vessel: { shape: "round", diameterMm: 250, heightMm: 50 } }).findings.some(
      ({ id }) => id === "fat-smokes",
    ),
  ).toBe(false);
  const yeasted = {
    kind: "tray-bread" as const,
    lines: [
      { ingredientId: "gf-blend-plain", grams: 400 },
      { ingredientId: "water", grams: 400 },
      { ingredientId: "psyllium-husk", grams: 14 },
      { ingredientId: "yeast-dry", grams: 7 },
    ],
  };
  const ids = readings(yeasted).findings.map(({ id }) => id);
  expect(ids).toContain("ferment");
  expect(ids).not.toContain("lift-low");
});

test("fizz is told with the little of it that reaches the oven, beside what powder gives; plain water says nothing of it", () => {
  const pouring = (liquid: string) => ({
    kind: "pourable-batter" as const,
    lines: [
      { ingredientId: "white-rice-flour", grams: 150 },
      { ingredientId: "corn-starch", grams: 60 },
      { ingredientId: liquid, grams: 250 },
      { ingredientId: "powder-double-acting", grams: 6 },
    ],
  });
  const found = readings(pouring("seltzer")).findings.find(({ id }) => id === "fizz");
  // 250 g with 12 to 17 mmol in 100 g, a tenth to a third of it kept: 3 to 15 mmol in 466 g, 24.5 mL each at 25 °C.
  const [low = 0, high = 0] = (found?.message.match(/(\d+) to (\d+) mL/) ?? []).slice(1).map(Number);
  expect(low).toBeGreaterThanOrEqual((250 * 0.12 * 0.1 * 24.4 * 100) / 466 / 1.1);
  expect(high).toBeLessThanOrEqual(((250 * 0.17 * 0.35 * 24.4 * 100) / 466) * 1.1);
  expect(found?.severity).toBe("note");
  expect(readings(pouring("water")).findings.some(({ id }) => id === "fizz")).toBe(false);
});
