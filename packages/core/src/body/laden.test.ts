import fc from "fast-check";
import { openedText } from "../../corpus/kitchen-texts";
import { ready, simulate } from "../balance/analyse";
import { builtInShelf } from "../pantry/catalogue";
import { resolve, type Item } from "../formula/resolve";
import { yieldStressPa } from "./consistency";
import { ladenYieldPa, packedWith } from "./laden";

const items = (grams: Record<string, number>): Item[] =>
  resolve(
    Object.entries(grams).map(([ingredientId, g]) => ({ ingredientId, grams: g })),
    builtInShelf,
  );
const paste = { "white-rice-flour": 200, water: 160, egg: 50 };

describe("pieces in a batter", () => {
  test("none of them change nothing", () => {
    expect(ladenYieldPa(items(paste), 1.5)).toBe(yieldStressPa(1.5));
  });
  test("a few stiffen as Chateau, Ovarlez and Trung have it, reckoned by hand", () => {
    // 200 g of chocolate, 0.66 g/mL in the cup: φ = 181.8 / (181.8 + 410 / 1.15) = 0.338; packed 303 / 538.3 = 0.563; φm = 0.6.
    const all = items({ ...paste, "dark-chocolate": 200 });
    const { packed, share } = packedWith(all);
    expect(share).toBeCloseTo(0.338, 3);
    expect(packed).toBeCloseTo(0.563, 3);
    expect(ladenYieldPa(all, 1.5) / yieldStressPa(1.5)).toBeCloseTo(Math.sqrt((1 - 0.338) * (1 - 0.563) ** -1.5), 2);
  });
  test("more pieces never make it softer, and what is full of them stands like a dough", () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 900, noNaN: true }), fc.double({ min: 0.5, max: 2.5, noNaN: true }), (g, reading) => {
        const [less, more] = [g, g + 40].map((grams) => ladenYieldPa(items({ ...paste, walnuts: grams }), reading));
        expect(more).toBeGreaterThanOrEqual((less ?? Infinity) * 0.999);
      }),
    );
    expect(ladenYieldPa(items({ ...paste, walnuts: 900 }), 1)).toBeCloseTo(500, 6);
  });
  test("a mound of coconut stands as it was shaped, and takes as long as kitchens say", () => {
    const mound = openedText({
      formula: "macaroon",
      kind: "drop",
      vessel: { shape: "free", pieces: 18, thicknessMm: 25, piece: "drop", material: "light-metal", lining: "paper" },
      celsius: 165,
    });
    const { start } = ready(mound);
    expect(start.yieldPa).toBeCloseTo(500, 6);
    const { minutes } = simulate(mound);
    expect(minutes).toBeGreaterThan(15);
    expect(minutes).toBeLessThan(26);
  });
});
