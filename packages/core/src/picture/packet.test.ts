import fc from "fast-check";
import { builtInShelf } from "../pantry/catalogue";
import { packetPrint, printedDate } from "./packet";

const print = `Harbour Mill bread blend
500 g e
Ingredients: white rice flour, tapioca starch, potato
starch, whey powder (milk), xanthan gum (E415), moonlight extract.
May contain traces of nuts and soya.
Gluten-free. Best before: 24.11.2027  Lot L27-311A`;

test("a packet's list comes in its order, with what is not known asked about", () => {
  const { ingredients, open } = packetPrint(print, builtInShelf);
  expect(ingredients.map(({ text }) => text)).toEqual(["white rice flour", "tapioca starch", "potato starch", "whey powder (milk)", "xanthan gum (E415)", "moonlight extract"]);
  expect(ingredients.slice(0, 3).map(({ id }) => id)).toEqual(["white-rice-flour", "tapioca-starch", "potato-starch"]);
  expect(ingredients[4]?.id).toMatch(/xanthan/);
  expect(ingredients[5]?.id).toBeNull();
  expect(open).toContain("“moonlight extract” is not known for certain.");
}); // prettier-ignore

test("allergens of the list and of the statement are both told; the statement stands word by word", () => {
  const { allergens, statement, gluten } = packetPrint(print, builtInShelf);
  expect(allergens).toEqual(expect.arrayContaining(["milk"]));
  expect(allergens.some((one) => /nut/.test(one))).toBe(true);
  expect(allergens.some((one) => /soy/.test(one))).toBe(true);
  expect([statement, gluten]).toEqual(["May contain traces of nuts and soya.", "claimed"]);
  expect(packetPrint("Ingredients: rice flour. May contain wheat. Gluten-free", builtInShelf).gluten).toBe("may-contain");
});

test("size, lot and date go where they belong", () => {
  expect(packetPrint(print, builtInShelf)).toMatchObject({ sizeG: 500, lot: "L27-311A", bestBefore: "2027-11-24" });
  expect(packetPrint("Zutaten: Reismehl. Nettogewicht: 1,5 kg. Mindestens haltbar bis Ende 03.2028. Charge: 88421", builtInShelf)).toMatchObject({ sizeG: 1500, bestBefore: "2028-03-31", lot: "88421" }); // prettier-ignore
  expect(packetPrint("Rice cakes, best enjoyed warm", builtInShelf)).toMatchObject({ ingredients: [], open: [expect.stringMatching(/No list/) as string] });
}); // prettier-ignore

test("its table and the percentages that stand beside ingredients are told; a share of something within one is none", () => {
  const { nutrition, percents } = packetPrint("Ingredients: white rice flour (45 %), tapioca starch, cocoa (fat 20 %). Nutrition per 100 g: fat 1.1 g, protein 5.2 g, salt 0.01 g", builtInShelf); // prettier-ignore
  expect(nutrition).toEqual({ fat: 1.1, protein: 5.2, salt: 0.01 });
  expect(percents).toEqual({ "white-rice-flour": 45 });
  expect(packetPrint(print, builtInShelf)).toMatchObject({ percents: {} });
});

test.each([
  ["24.11.2027", "2027-11-24"],
  ["05.03.28", "2028-03-05"],
  ["25/12/2027", "2027-12-25"],
  ["12/25/2027", "2027-12-25"],
  ["04/05/2027", "ambiguous"],
  ["2027-02-28", "2027-02-28"],
  ["14 Mar 2027", "2027-03-14"],
  ["Feb 2028", "2028-02-29"],
  ["31.02.2027", null],
  ["soon", null],
])("%s is the day %s", (text, day) => {
  expect(printedDate(text)).toBe(day);
});

test("every day comes back from the ways in which packets print it", () => {
  const day = fc.date({ min: new Date("2020-01-01"), max: new Date("2039-12-31"), noInvalidDate: true });
  fc.assert(
    fc.property(day, (at) => {
      const iso = at.toISOString().slice(0, 10);
      const [year = "", month = "", of = ""] = iso.split("-");
      expect([iso, `${of}.${month}.${year}`, `${of}.${month}.${year.slice(2)}`].map(printedDate)).toEqual([iso, iso, iso]);
    }),
  );
});

test("nothing of a list is lost, whatever stands in it", () => {
  const item = fc.constantFrom(
    "rice flour",
    "sugar",
    "salt (0,5 %)",
    "emulsifier: lecithins (soya)",
    "xyz",
    "raising agents (E450, E500)",
  );
  fc.assert(
    fc.property(fc.array(item, { minLength: 1, maxLength: 9 }), (items) => {
      expect(packetPrint(`Ingredients: ${items.join(", ")}.`, builtInShelf).ingredients.map(({ text }) => text)).toEqual(items);
    }),
    { numRuns: 50 },
  );
});
