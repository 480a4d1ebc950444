import fc from "fast-check";
import { outerMm, perRack } from "./oven-fit";
import { vesselLibrary, withProfile } from "./vessel";

const oven = { widthMm: 450, depthMm: 400, racks: 3 };

describe("what fits in an oven", () => {
  test("by hand: two loaf tins of 23 × 13 cm stand side by side, six of 14 × 8 cm, one tray of 33 × 23 cm", () => {
    // Each takes its rims of 10 mm on either side and 25 mm of air: 450 − 25 = 425 mm across, 400 − 25 = 375 mm deep.
    const tin = (lengthMm: number, widthMm: number): number | null =>
      perRack(oven, { shape: "rectangular", lengthMm, widthMm, heightMm: 60 });
    expect(tin(230, 130)).toBe(2);
    expect(tin(140, 80)).toBe(6);
    expect(tin(330, 230)).toBe(1);
    expect(tin(460, 300)).toBe(0);
  });
  test("a tin of twelve cups is three rows of four and fits once", () => {
    expect(outerMm({ shape: "muffin", pieces: 12, diameterMm: 70 })).toEqual({ long: 4 * 88 + 20, wide: 3 * 88 + 20 });
    expect(perRack(oven, { shape: "muffin", pieces: 12, diameterMm: 70 })).toBe(1);
  });
  test("a larger oven never takes fewer, a larger tin never more, and what stands there has room", () => {
    const size = fc.integer({ min: 60, max: 500 });
    fc.assert(
      fc.property(size, size, fc.integer({ min: 200, max: 900 }), fc.integer({ min: 200, max: 900 }), (a, b, widthMm, depthMm) => {
        const vessel = { shape: "rectangular" as const, lengthMm: Math.max(a, b), widthMm: Math.min(a, b) };
        const count = perRack({ widthMm, depthMm }, vessel) ?? NaN;
        expect(perRack({ widthMm: widthMm + 80, depthMm }, vessel)).toBeGreaterThanOrEqual(count);
        expect(perRack({ widthMm, depthMm }, { ...vessel, lengthMm: vessel.lengthMm + 40 })).toBeLessThanOrEqual(count);
        expect(count * vessel.lengthMm * vessel.widthMm).toBeLessThanOrEqual(widthMm * depthMm);
      }),
    );
  });
  test("what is not measured is not guessed; every walled pan of the library has an outline", () => {
    expect(perRack({ racks: 2 }, { shape: "round", diameterMm: 200 })).toBeNull();
    expect(perRack(oven, { shape: "free", pieces: 8 })).toBeNull();
    for (const { id, vessel } of vesselLibrary)
      expect([id, outerMm(vessel) !== null]).toEqual([id, vessel.shape !== "free" && vessel.shape !== "griddle"]);
  });
});

test("an oven's profile goes with what was asked for, and only when there is one", () => {
  expect(withProfile({ celsius: 180, ovenId: "x" }, { biasK: 14, swingK: 8 })).toEqual({
    celsius: 180,
    ovenId: "x",
    biasK: 14,
    swingK: 8,
  });
  expect(withProfile({ celsius: 180 }, undefined)).toEqual({ celsius: 180 });
});
