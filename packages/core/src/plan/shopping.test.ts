import type { Packet } from "../pantry/packet-schema";
import { shoppingFor } from "./shopping";

const packet = (ingredientId: string, sizeG: number, price?: number, leftG?: number): Packet => ({
  ingredientId,
  name: `${ingredientId} ${sizeG} g`,
  sizeG,
  price,
  leftG,
  currency: "EUR",
});
const need = (ingredientId: string, grams: number) => ({ ingredientId, grams, of: [] });

test("what is missing is bought in whole packets of the kind that costs least, by hand", () => {
  // 900 g needed, 250 g there: 650 g missing. Two packets of 500 g for 4.00, or one of 1000 g for 3.50.
  const list = shoppingFor(
    [need("sorghum-flour", 900), need("water", 500)],
    [packet("sorghum-flour", 500, 2, 250), packet("sorghum-flour", 1000, 3.5, 0)],
    new Set(),
  );
  expect(list.buy).toEqual([
    { ingredientId: "sorghum-flour", needG: 900, onHandG: 250, buyG: 650, packets: { name: "sorghum-flour 1000 g", count: 1, sizeG: 1000, cost: 3.5, currency: "EUR" } },
  ]); // prettier-ignore
  // Used up by the day: 900 g at 3.50 a kilogram.
  expect(list.totals).toEqual([{ currency: "EUR", toPay: 3.5, used: expect.closeTo(3.15, 9) as number }]);
});

test("a packet that does not say what it holds is to be looked at; what nobody has is bought", () => {
  const list = shoppingFor(
    [need("baking-soda", 10), need("butter", 200), need("egg", 100)],
    [packet("butter", 250, 2.5, 40), packet("baking-soda", 200)],
    new Set(),
  );
  expect(list.buy.map(({ ingredientId, buyG }) => [ingredientId, buyG])).toEqual([
    ["butter", 160],
    ["egg", 100],
  ]);
  expect(list.look.map(({ ingredientId }) => ingredientId)).toEqual(["baking-soda"]);
  // Said to be there, it is enough.
  expect(shoppingFor([need("egg", 100)], [], new Set(["egg"])).enough.map(({ ingredientId }) => ingredientId)).toEqual(["egg"]);
  expect(list.unpriced).toEqual(["baking-soda", "egg"]);
});

test("two currencies are not added up", () => {
  const list = shoppingFor(
    [need("egg", 100), need("butter", 100)],
    [packet("egg", 100, 1, 0), { ...packet("butter", 100, 2, 0), currency: "GBP" }],
    new Set(),
  );
  expect(list.totals.map(({ currency, toPay }) => [currency, toPay])).toEqual([
    ["EUR", 1],
    ["GBP", 2],
  ]);
});
