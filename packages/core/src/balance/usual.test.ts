import { readings } from "./analyse";
import type { Opened } from "../formula/open";
import { usualAmounts } from "./usual";

const loaf: Opened = {
  kind: "loaf",
  lines: [
    { ingredientId: "sorghum-flour", grams: 180 },
    { ingredientId: "tapioca-starch", grams: 120 },
    { ingredientId: "egg", grams: 100 },
    { ingredientId: "white-sugar", grams: 90 },
    { ingredientId: "xanthan", grams: 2 },
    { ingredientId: "powder-aluminium-free", grams: 14 },
  ],
};
const withMore = (ingredientId: string, grams: number): Opened => ({ ...loaf, lines: [...loaf.lines, { ingredientId, grams }] });

test("a liquid is offered by the body it gives: whoever takes it has that body, thicker with less", () => {
  const offered = usualAmounts("whole-milk", loaf);
  expect(offered.map(({ why }) => why)).toEqual([{ body: "spoonable" }, { body: "scoopable" }]);
  for (const { grams, why } of offered) expect({ body: readings(withMore("whole-milk", grams)).body.consistency }).toEqual(why);
  expect(offered[0]?.grams).toBeGreaterThan(offered[1]?.grams ?? Infinity);
});
test("fat, salt and spice are offered by what is usual on this flour, in kitchen ranges", () => {
  const one = (id: string): number => usualAmounts(id, loaf)[0]?.grams ?? 0;
  // A loaf has 20 to 35 % fat, 1 to 2 % salt, up to 2 % of a spice on its flour.
  expect(one("butter") / 300).toBeGreaterThan(0.2);
  expect(one("butter") / 300).toBeLessThan(0.36);
  expect(one("salt")).toBeGreaterThanOrEqual(3);
  expect(one("salt")).toBeLessThanOrEqual(6);
  expect(one("cinnamon")).toBeLessThanOrEqual(6);
});
test("what is there already is not offered twice, a flour is not guessed, and nothing stands on no flour", () => {
  expect(usualAmounts("butter", withMore("sunflower-oil", 100))).toEqual([]);
  expect(usualAmounts("teff-flour", loaf)).toEqual([]);
  expect(usualAmounts("butter", { lines: [{ ingredientId: "water", grams: 100 }] })).toEqual([]);
});
