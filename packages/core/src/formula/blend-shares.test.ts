import fc from "fast-check";
import { builtInShelf } from "../pantry/catalogue";
import { ingredientOf } from "../pantry/shelf";
import { printedTable } from "../pantry/printed-table";
import { seeded } from "../random";
import { blendShares } from "./blend-shares";
import { blendFromLabel, likelyShares, sharesByOrder } from "./label";

const part = (id: string) => ingredientOf(builtInShelf, id, "order");
const flours = ["white-rice-flour", "brown-rice-flour", "buckwheat-flour", "chickpea-flour", "tapioca-starch", "potato-starch", "corn-starch", "sorghum-flour", "teff-flour", "oat-flour", "almond-flour"]; // prettier-ignore
/** A table as a mill would print it: of the true shares, rounded to a tenth of a gram. */
const tableOf = (ids: readonly string[], shares: readonly number[]) => {
  const sum = (of: "protein" | "fat" | "fibre"): number => Math.round(10 * ids.reduce((all, id, k) => all + (shares[k] ?? 0) * (part(id).per100g[of] ?? 0), 0)) / 10; // prettier-ignore
  return { protein: sum("protein"), fat: sum("fat"), fibre: sum("fibre") };
};

test("with the order alone the shares are the means of all divisions", () => {
  for (const n of [2, 3, 5]) {
    const { shares } = blendShares(flours.slice(0, n).map(part), {});
    sharesByOrder(n).forEach((share, k) => expect(shares[k]?.mid).toBeCloseTo(share, 1));
    expect(shares.reduce((all, { mid }) => all + mid, 0)).toBeCloseTo(1, 6);
  }
});

test("chickpea with starch: the protein of the table is that of so much chickpea, by hand", () => {
  const ids = ["chickpea-flour", "tapioca-starch"];
  const of = part("chickpea-flour").per100g.protein;
  const { shares, misfit } = blendShares(ids.map(part), { nutrition: { protein: 0.7 * of } });
  expect(misfit).toBe(false);
  expect(shares[0]?.mid).toBeGreaterThan(0.6);
  expect(shares[0]?.mid).toBeLessThan(0.8);
  expect(shares[0]?.low).toBeLessThan(0.7);
  expect(shares[0]?.high).toBeGreaterThan(0.7);
});

test("a printed percentage is believed to its rounding", () => {
  const { shares } = blendShares(flours.slice(0, 4).map(part), { percents: [undefined, 27, undefined, undefined] });
  expect(100 * (shares[1]?.mid ?? 0)).toBeGreaterThan(25);
  expect(100 * (shares[1]?.mid ?? 0)).toBeLessThan(29);
});

test("what no division in that order gives is said, and the order stands", () => {
  const ids = ["tapioca-starch", "potato-starch"];
  expect(blendShares(ids.map(part), { nutrition: { protein: 24 } }).misfit).toBe(true);
  const label = { id: "x", name: "X", order: ids, nutrition: { protein: 24 } };
  expect(likelyShares(label, builtInShelf)).toMatchObject({ misfit: true, shares: [{ mid: 0.75 }, { mid: 0.25 }] });
});

test("shares fall, add up, hold the mid within their range, whatever is printed", () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.constantFrom(...flours), { minLength: 2, maxLength: 6 }),
      fc.record({ protein: fc.float({ min: 0, max: 20, noNaN: true }), fat: fc.float({ min: 0, max: 20, noNaN: true }) }, { requiredKeys: [] }),
      (ids, nutrition) => {
        const { shares } = blendShares(ids.map(part), { nutrition });
        expect(shares.reduce((all, { mid }) => all + mid, 0)).toBeCloseTo(1, 6);
        shares.forEach(({ low, mid, high }, k) => {
          expect(low).toBeLessThanOrEqual(mid);
          expect(high).toBeGreaterThanOrEqual(mid);
          expect(mid).toBeLessThanOrEqual((shares[k - 1]?.mid ?? 1) + 1e-9);
        });
      },
    ),
    { numRuns: 30 },
  );
}); // prettier-ignore

test("of sixty made-up blends the table tells the shares nearer than the order, and nine in ten lie in their ranges", () => {
  const random = seeded(4);
  let [byOrder, byTable, held, all] = [0, 0, 0, 0];
  for (let k = 0; k < 60; k++) {
    const ids = [...flours].sort(() => random() - 0.5).slice(0, 3 + Math.floor(3 * random()));
    const raw = ids.map(() => -Math.log(1 - random())).sort((a, b) => b - a);
    const whole = raw.reduce((a, b) => a + b, 0);
    const truth = raw.map((one) => one / whole);
    const { shares } = blendShares(ids.map(part), { nutrition: tableOf(ids, truth) });
    sharesByOrder(ids.length).forEach((share, n) => (byOrder += Math.abs(share - (truth[n] ?? 0))));
    shares.forEach(({ low, mid, high }, n) => {
      byTable += Math.abs(mid - (truth[n] ?? 0));
      all++;
      if ((truth[n] ?? 0) >= low - 0.005 && (truth[n] ?? 0) <= high + 0.005) held++;
    });
  }
  expect(byTable).toBeLessThan(0.7 * byOrder);
  expect(held / all).toBeGreaterThan(0.85);
});

test("a blend of its table holds what the table says, nearer than one of the order alone", () => {
  const order = ["tapioca-starch", "chickpea-flour", "potato-starch"];
  const nutrition = tableOf(order, [0.45, 0.43, 0.12]);
  const told = blendFromLabel({ id: "x", name: "X", order, nutrition }, builtInShelf).per100g.protein;
  const silent = blendFromLabel({ id: "x", name: "X", order }, builtInShelf).per100g.protein;
  expect(Math.abs(told - nutrition.protein)).toBeLessThan(Math.abs(silent - nutrition.protein));
  expect(Math.abs(told - nutrition.protein)).toBeLessThan(1);
});

describe("the table on a packet", () => {
  test.each([
    ["Nutrition per 100 g\nEnergy 1480 kJ\nFat 1.2 g\nof which saturates 0.3 g\nCarbohydrate 78 g\nof which sugars 0.6 g\nFibre 2.4 g\nProtein 6.1 g\nSalt 0.02 g", { fat: 1.2, sugars: 0.6, fibre: 2.4, protein: 6.1, salt: 0.02 }],
    ["Nährwerte je 100 g: Brennwert 1500 kJ, Fett 2,1 g, davon gesättigte Fettsäuren 0,4 g, Kohlenhydrate 74 g, davon Zucker 1,1 g, Ballaststoffe 3,9 g, Eiweiß 7,7 g, Salz 0,01 g", { fat: 2.1, sugars: 1.1, fibre: 3.9, protein: 7.7, salt: 0.01 }],
    ["Valeurs nutritionnelles pour 100 g. Matières grasses 1,5 g dont acides gras saturés 0,3 g. Glucides 79 g dont sucres <0,5 g. Fibres alimentaires 1,8 g. Protéines 5 g. Sel 0,05 g", { fat: 1.5, sugars: 0.25, fibre: 1.8, protein: 5, salt: 0.05 }],
    ["Información nutricional por 100 g Grasas 1,3 g Azúcares 0,7 g Fibra 2 g Proteínas 6,2 g Sal 0,1 g", { fat: 1.3, sugars: 0.7, fibre: 2, protein: 6.2, salt: 0.1 }],
    ["Valori nutrizionali per 100 g Grassi 1,4 g di cui zuccheri 0,8 g Fibre 2,2 g Proteine 6,5 g Sale 0,02 g", { fat: 1.4, sugars: 0.8, fibre: 2.2, protein: 6.5, salt: 0.02 }],
  ])("%s", (text, table) => expect(printedTable(text)).toEqual(table));
  test.each(["Ingredients: rice flour, salt, sugar", "Nutrition: see below", "Protein 6 g"])("%s is none", (text) =>
    expect(printedTable(text)).toBeNull());
}); // prettier-ignore
