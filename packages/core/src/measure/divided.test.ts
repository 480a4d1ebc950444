import fc from "fast-check";
import { readRecipe } from "../read";
import type { Line } from "./reading-schema";

const massesOf = (line: string): [string | null, number][] =>
  readRecipe(`${line}\n2 eggs\n1 tsp salt`)
    .lines.filter((one: Line) => one.role === "ingredient" && one.source === line)
    .map((one) => [one.ingredientId, Math.round((one.grams?.mid ?? 0) * 10) / 10]);

test.each([
  ["300 g gf flour blend (150 g white rice flour, 100 g tapioca starch, 50 g sorghum flour)", [["white-rice-flour", 150], ["tapioca-starch", 100], ["sorghum-flour", 50]]],
  ["150 g flour (100 g rice, 50 g buckwheat)", [["white-rice-flour", 100], ["buckwheat-flour", 50]]],
  ["200 g chocolate (150 g dark and 50 g milk)", [["dark-chocolate", 150], ["milk-chocolate", 50]]],
  ["100 g nuts (half walnuts, half pecans)", [["walnuts", 50], ["pecans", 50]]],
  ["300 g flour: 60% rice, 40% tapioca", [["white-rice-flour", 180], ["tapioca-starch", 120]]],
  ["150 g de farine (100 g de riz, 50 g de sarrasin)", [["white-rice-flour", 100], ["buckwheat-flour", 50]]],
] as const)("%s: the parts, not the whole as well", (line, parts) => expect(massesOf(line)).toEqual(parts)); // prettier-ignore

test("what the parts leave over is of the whole's name, and asked about where that is open", () =>
  expect(massesOf("200 g flour (100 g rice, 50 g tapioca)")).toEqual([
    ["white-rice-flour", 100],
    ["tapioca-starch", 50],
    ["gf-blend-plain", 50],
  ]));

test("parts by the cup", () =>
  expect(
    massesOf("2 cups flour (1 cup sorghum flour, 1/2 cup tapioca starch, 1/2 cup white rice flour)").map(([id]) => id),
  ).toEqual(["sorghum-flour", "tapioca-starch", "white-rice-flour"]));

test("parts in bare figures are grams where they add up to a mass that is said, by whatever unit", () => {
  expect(massesOf("flour mix 1.35 kg (rice 675, sorghum 405, potato starch 270)")).toEqual([
    ["white-rice-flour", 675],
    ["sorghum-flour", 405],
    ["potato-starch", 270],
  ]);
  expect(massesOf("300 g flour (200 rice, 100 tapioca)").map(([, grams]) => grams)).toEqual([200, 100]);
});

test("what a bracket says of the thing itself divides nothing", () => {
  expect(massesOf("1 kg bananas (about 600 g peeled, 400 g skins)")).toHaveLength(1);
  expect(massesOf("240 g gf flour blend (30 g for dusting)")[0]?.[0]).toBe("gf-blend-plain");
});

test("property: however a mass is divided, its parts weigh what it weighs", () => {
  const flours = ["white rice flour", "sorghum flour", "tapioca starch", "teff flour", "buckwheat flour", "potato starch"];
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.record({ name: fc.constantFrom(...flours), grams: fc.integer({ min: 5, max: 400 }) }), {
        minLength: 2,
        maxLength: 5,
        selector: ({ name }) => name,
      }),
      fc.constantFrom(["(", ")"], [": ", ""], [" (a mix of ", ")"]),
      fc.constantFrom(", ", " + "),
      (parts, [open, close], joint) => {
        const whole = parts.reduce((all, { grams }) => all + grams, 0);
        const line = `${whole} g flour mix${open}${parts.map(({ name, grams }) => `${grams} g ${name}`).join(joint)}${close}`;
        const read = massesOf(line);
        expect(read.map(([, grams]) => grams)).toEqual(parts.map(({ grams }) => grams));
      },
    ),
    { numRuns: 60 },
  );
});
