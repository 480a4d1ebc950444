import { beginKind } from "../begin";
import { openFormula } from "../formula/open";
import { bareKitchen } from "../formula/bare-kitchen";
import { normalFrom, seeded } from "../random";
import { hotterBy } from "../bake/start";
import { ready } from "../balance/readings";
import { simulateStart } from "../bake/simulate";
import { calibrate, type Logged, sharedNormal } from "./calibrate";
import { correctedAt, measureCutFace, type Picture, readCutFace } from "./cut-face";
import { madeSlice } from "./made-slice";
import { coreAtOut } from "./outcome";
import { friedmanOf, servingOrder, tasted, tastingCodes } from "./tasting";

describe("calibration", () => {
  const kinds = ["loaf", "muffin", "scone", "bar"] as const;
  const log = (truthK: number, bakes: number): Logged[] => {
    const normal = normalFrom(seeded(3));
    return Array.from({ length: bakes }, (_, k) => {
      const formula = beginKind(kinds[k % kinds.length] ?? "loaf", "metric", 800);
      const input = openFormula({ ...formula, oven: { ...formula.oven, ovenId: "deck" } }, bareKitchen);
      const { start } = ready(input);
      const minutes = simulateStart(start, 0, { frames: 0, spread: 0, withoutCooling: true }).minutes;
      const run = simulateStart(hotterBy(start, truthK), 0, { frames: 0, spread: 0, minutes, withoutCooling: true });
      return { input, ovenId: "deck", measured: { minutes, coreC: coreAtOut(run) + normal(), massInG: 800, massOutG: 800 * (1 - run.loss.oven / 100) } };
    });
  }; // prettier-ignore
  test("errors that all bakes share: three residuals by hand, with the covariance matrix written out", () => {
    // σ² = 4, τ² = 9: diagonal 13, else 9. Its inverse is (I − 9/(4 + 27) 11ᵀ)/4; r = (1, 2, 3) gives (14 − 36 · 9/31)/4.
    expect(sharedNormal([1, 2, 3], 2, 3)).toBeCloseTo(-0.5 * ((14 - (36 * 9) / 31) / 4), 10);
    expect(sharedNormal([1, 2, 3], 2, 0)).toBeCloseTo(-0.5 * (14 / 4), 10);
  });
  test("a probe that reads 3 K low in two dozen bakes does not make the oven surely cold", () => {
    const low = log(0, 24).map((one) => ({ ...one, measured: { ...one.measured, coreC: (one.measured.coreC ?? 96) - 3 } }));
    const [oven] = calibrate(low);
    expect(oven?.value.high).toBeGreaterThan(-4);
    expect((oven?.value.high ?? 0) - (oven?.value.low ?? 0)).toBeGreaterThan(4);
  });
  test("finds a hidden oven, and its range narrows with every bake", () => {
    const of = (trials: Logged[]) => calibrate(trials).find(({ kind }) => kind === "oven");
    const [few, many] = [of(log(14, 2)), of(log(14, 8))];
    expect(many?.value.low).toBeLessThanOrEqual(14);
    expect(many?.value.high).toBeGreaterThanOrEqual(14);
    expect(Math.abs((many?.value.mid ?? 0) - 14)).toBeLessThan(4);
    expect((many?.value.high ?? 0) - (many?.value.low ?? 0)).toBeLessThan((few?.value.high ?? 0) - (few?.value.low ?? 0));
    expect(many?.words).toMatch(/hotter than thought, between \d+ and \d+, from 8 bakes/);
    expect(of(log(14, 1))).toBeUndefined();
    expect(of(log(14, 4).map((trial) => ({ ...trial, spoilt: true })))).toBeUndefined();
  });
  test("cups by hand: two weighings 10 % over, with what was thought before", () => {
    const cups = [{ ingredientId: "millet-flour", meantG: 100, weighedG: 110 }];
    const [learnt] = calibrate([1, 2].map(() => ({ input: openFormula(beginKind("muffin", "metric", 400), bareKitchen), measured: {}, cups })));
    // Normal mean: 2/0.05² ln 1.1 over (1/0.1² + 2/0.05²) = 0.0847.
    expect(learnt?.value.mid).toBeCloseTo(Math.exp((800 * Math.log(1.1)) / 900), 9);
    expect(learnt?.words).toMatch(/weighs 9 % more/);
  }); // prettier-ignore
});

describe("a tasting", () => {
  test("five tasters who all prefer the second of two: exact, two ways in thirty-two", () => {
    const result = tasted(Array.from({ length: 5 }, () => [2, 4]), ["A", "B"]);
    expect(result?.p).toBeCloseTo(2 / 32, 12);
    expect(result?.exact).toBe(true);
    expect(result?.words).toMatch(/^B has the highest mean, but that may be noise/);
    expect(tasted(Array.from({ length: 8 }, () => [2, 4]), ["A", "B"])?.words).toMatch(/more than noise/);
  }); // prettier-ignore
  test("Friedman by hand: ranks 1 2 3 from three tasters give 6, all ties give 0", () => {
    expect(friedmanOf([[1, 2, 3], [1, 2, 3], [1, 2, 3]])).toBeCloseTo(6, 12);
    expect(friedmanOf([[2, 2, 2], [3, 3, 3]])).toBe(0);
  }); // prettier-ignore
  test("a draw agrees with the exact count, nobody's half sheet counts", () => {
    const scores = [[1, 2, 4], [2, 2, 3], [1, 3, 3], [2, 3, 4], [1, 1, 2], [3, 2, 4], [2, 3, 5], [null, 1, 2]];
    const drawn = tasted(scores, ["A", "B", "C"]);
    const exact = tasted(scores.slice(0, 5), ["A", "B", "C"]);
    expect([drawn?.exact, exact?.exact]).toEqual([false, true]);
    expect(drawn?.p).toBeLessThan(0.02);
    expect(drawn?.means[0]).toBeCloseTo(12 / 7, 9);
  }); // prettier-ignore
  test("codes are three digits, none twice; every sample is served once, and first to somebody", () => {
    const codes = tastingCodes(6, 9);
    expect(new Set(codes).size).toBe(6);
    for (const code of codes) expect(code).toMatch(/^\d{3}$/);
    const orders = [0, 1, 2, 3].map((taster) => servingOrder(4, taster, 9));
    for (const order of orders) expect([...order].sort()).toEqual([0, 1, 2, 3]);
    expect(new Set(orders.map(([one]) => one)).size).toBe(4);
  });
});

describe("the cut face", () => {
  test("porosity, number of pores and heights of made-up slices of known truth", () => {
    const errors: { porosity: number; count: number }[] = [];
    for (const [seed, pores, radius] of [[1, 40, 6], [2, 90, 4], [3, 25, 9]] as const) {
      const { picture, porosity, count } = madeSlice(seeded(seed), { pores, radius, band: 0 });
      const result = readCutFace(picture, 280);
      if (!result.ok) throw new Error(result.why);
      errors.push({ porosity: result.face.porosity - porosity, count: result.face.pores / count - 1 });
      expect(result.face.heights[2]).toBeGreaterThan(176);
      expect(result.face.heights[2]).toBeLessThan(184);
      expect(Math.abs(result.face.poreDiameter / (2 * radius) - 1)).toBeLessThan(0.25);
    }
    for (const { porosity, count } of errors) {
      expect(Math.abs(porosity)).toBeLessThan(0.03);
      expect(Math.abs(count)).toBeLessThan(0.15);
    }
  }); // prettier-ignore
  test("a dense band along the base is found where there is one, and only there", () => {
    const with_ = readCutFace(madeSlice(seeded(4), { pores: 120, radius: 4, band: 45 }).picture);
    const without = readCutFace(madeSlice(seeded(4), { pores: 160, radius: 4, band: 0 }).picture);
    if (!with_.ok || !without.ok) throw new Error("not read");
    expect(with_.face.band?.share).toBeGreaterThan(0.1);
    expect(with_.face.band?.share).toBeLessThan(0.4);
    expect(without.face.band).toBeNull();
  });
  test("a picture that cannot be used says why", () => {
    const flat: Picture = { width: 200, height: 200, data: new Uint8ClampedArray(160_000).fill(120) };
    const why = (picture: Picture): string => {
      const result = readCutFace(picture);
      return result.ok ? "read" : result.why;
    };
    expect(why(flat)).toMatch(/does not stand out/);
    expect(why({ ...flat, width: 50, height: 800 })).toMatch(/120 or more on each side/);
    const filled = madeSlice(seeded(1), { pores: 10, radius: 5, band: 0 }).picture;
    const cropped: Picture = { width: 260, height: 160, data: new Uint8ClampedArray(4 * 260 * 160) };
    for (let y = 0; y < 160; y++)
      cropped.data.set(filled.data.slice(4 * ((y + 45) * 360 + 60), 4 * ((y + 45) * 360 + 320)), 4 * 260 * y);
    expect(why(cropped)).not.toBe("read");
  });
  test("pores that were corrected by hand are counted again", () => {
    const result = readCutFace(madeSlice(seeded(5), { pores: 30, radius: 6, band: 0, rough: 0 }).picture);
    if (!result.ok) throw new Error(result.why);
    const { kinds, width, height } = result.face;
    const none = measureCutFace(
      kinds.map((kind) => (kind === 2 ? 1 : kind)),
      width,
      height,
    );
    expect([none.porosity, none.pores]).toEqual([0, 0]);
    // One taken away where it was marked, one made in the crumb, and the other back.
    const at = kinds.indexOf(2);
    const less = correctedAt(kinds, width, height, at % width, Math.floor(at / width));
    expect(measureCutFace(less, width, height).pores).toBe(result.face.pores - 1);
    const made = correctedAt(none.kinds, width, height, 180, 130);
    expect(measureCutFace(made, width, height).pores).toBe(1);
    expect(measureCutFace(correctedAt(made, width, height, 180, 130), width, height).pores).toBe(0);
  });
});
