import fc from "fast-check";
import { yieldStressPa } from "../body/consistency";
import { standardModel } from "./model";
import { heapHeight, heapRadius, standsUpright } from "./heap";
import { flowOut } from "./spread";
import { prepare } from "./kernel";
import { ready } from "../balance/analyse";
import { stepsFor } from "./start";
import { volumeOf } from "./section";

const G = 9.81;

describe("a heap of a stuff with a yield stress", () => {
  test("its volume, added up ring by ring from h² = 2τ/ρg·(R − r), is the one it was asked for", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-5, max: 1e-3, noNaN: true }),
        fc.double({ min: 1, max: 800, noNaN: true }),
        fc.double({ min: 500, max: 1300, noNaN: true }),
        (volume, tau, density) => {
          const radius = heapRadius(volume, tau, density);
          const n = 4000;
          let sum = 0;
          for (let i = 0; i < n; i++) {
            const r = ((i + 0.5) / n) * radius;
            sum += 2 * Math.PI * r * Math.sqrt(((2 * tau) / (density * G)) * (radius - r)) * (radius / n);
          }
          expect(sum / volume).toBeCloseTo(1, 2);
          expect(heapHeight(radius, tau, density)).toBeCloseTo(Math.sqrt(((2 * tau) / (density * G)) * radius), 12);
        },
      ),
    );
  });
  test("stiffer stands higher and narrower: radius by the −1/5th power of the yield stress", () => {
    const wide = heapRadius(5e-5, 20, 1000);
    expect(heapRadius(5e-5, 640, 1000) / wide).toBeCloseTo(1 / 2, 9);
    expect(standsUpright(500, 1000)).toBeGreaterThan(standsUpright(110, 1000));
  });
  test("words of the body are kitchen ranges of the yield stress, without a gap", () => {
    expect(yieldStressPa(0.95)).toBeCloseTo(3, 9);
    expect(yieldStressPa(1.3)).toBeCloseTo(20, 9);
    expect(yieldStressPa(2.15)).toBeCloseTo(110, 9);
    expect(yieldStressPa(3.1)).toBeCloseTo(500, 9);
    let last = 0;
    for (let v = 0; v < 6; v += 0.05) {
      expect(yieldStressPa(v)).toBeGreaterThanOrEqual(last);
      last = yieldStressPa(v);
    }
  });
  test("left alone and soft, a piece flows to the radius at which its heap rests, and not beyond it", () => {
    const { start } = ready({ kind: "drop", batchG: 330, vessel: { shape: "free", pieces: 6, piece: "ball", thicknessMm: 34 } });
    const run = prepare({ ...start, yieldPa: 15, fatShare: 0, cutIn: true }, stepsFor(start).grid, standardModel);
    if (!run.flow) throw new Error("It does not flow.");
    const rest = heapRadius(volumeOf(run.section), run.flow.yieldPa, run.flow.density);
    for (let step = 0; step < 4000; step++) flowOut(run, 5);
    const reach = start.shape.reach * Math.sqrt(run.flown);
    expect(reach / rest).toBeGreaterThan(0.97);
    expect(reach / rest).toBeLessThan(1.0001);
  });
});
