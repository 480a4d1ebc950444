import { beginKind } from "../begin";
import { bareKitchen } from "../formula/bare-kitchen";
import { openFormula, type Opened } from "../formula/open";
import { builtInShelf } from "../pantry/catalogue";
import { scaledGroup, withMore } from "../trial/groups";
import { reactivity } from "./browning";
import { simulate } from "../balance/analyse";

const muffins = openFormula(beginKind("muffin", "metric", 860), bareKitchen);
const quick = { frames: 0, spread: 0 };
const top = (input: Opened, minutes?: number): number => simulate(input, undefined, { ...quick, minutes }).browning.top;

describe("how fast a crust reacts", () => {
  test("twice as fast for 1.4 units of pH, and with the powers of sugar and protein that are written", () => {
    expect(reactivity(8.5, 0.12, 0.05) / reactivity(7.1, 0.12, 0.05)).toBeCloseTo(2, 6);
    expect(reactivity(7.1, 0.12, 0.05)).toBeCloseTo(1, 6);
    expect(reactivity(7.1, 0.29, 0.05)).toBeCloseTo(2 ** 0.2, 6);
    expect(reactivity(7.1, 0.12, 0.0125)).toBeCloseTo(0.5, 6);
  });
  test("every one of pH, sugar and protein makes it faster, and no batter is outside a tenfold", () => {
    for (let ph = 4; ph < 11; ph += 0.5)
      for (const sugar of [0, 0.1, 0.3])
        for (const protein of [0.005, 0.05, 0.15]) {
          const here = reactivity(ph, sugar, protein);
          expect(reactivity(ph + 0.5, sugar, protein)).toBeGreaterThanOrEqual(here);
          expect(reactivity(ph, sugar + 0.1, protein)).toBeGreaterThanOrEqual(here);
          expect(here > 0.3 && here < 3.5).toBe(true);
        }
  });
  test("a muffin with a spoon of soda too much is plainly darker in the same minutes, one without sugar plainly paler", () => {
    const plain = top(muffins, 20);
    expect(top(withMore(muffins, "soda", 6), 20) / plain).toBeGreaterThan(1.3);
    expect(top(scaledGroup(muffins, "sugar", 0, builtInShelf), 20) / plain).toBeLessThan(0.9);
  });
});

describe("no cliff: a little more of anything moves the minutes a little", () => {
  const minutes = (input: Parameters<typeof simulate>[0]): number => simulate(input, undefined, quick).minutes;
  const skillet = { kind: "cornbread-plain", vessel: { shape: "round", diameterMm: 250, heightMm: 50, material: "cast-iron", preheated: true } } as const; // prettier-ignore
  const bun = {
    kind: "bun",
    batchG: 720,
    vessel: { shape: "free", pieces: 9, piece: "ball", material: "light-metal", lining: "paper" },
  } as const;
  test.each([
    [
      "the mass of a skillet bread, by a hundredth",
      (k: number) => ({ ...skillet, batchG: 480 * 1.012 ** k, oven: { celsius: 220 } }),
    ],
    ["the heat of a skillet bread, by a degree", (k: number) => ({ ...skillet, batchG: 700, oven: { celsius: 205 + k } })],
    [
      "the thickness of buns, by a hundredth",
      (k: number) => ({ ...bun, vessel: { ...bun.vessel, thicknessMm: 16 * 1.01 ** k }, oven: { celsius: 200 } }),
    ],
    [
      "the mass of a tray, by a hundredth",
      (k: number) => ({ kind: "tray-bread" as const, batchG: 600 * 1.012 ** k, oven: { celsius: 190 } }),
    ],
  ])("%s", (_, at) => {
    let before = minutes(at(0));
    for (let k = 1; k <= 22; k++) {
      const here = minutes(at(k));
      expect([k, Math.abs(here / before - 1) < 0.03 || [before, here]]).toEqual([k, true]);
      before = here;
    }
  });
});
