import fc from "fast-check";
import { openedText, textBakes } from "../../corpus/kitchen-texts";
import { ready, simulate } from "../balance/analyse";
import type { Vessel } from "../pantry/vessel-schema";
import { standardModel } from "./model";
import { outer, over, radiation } from "./run";
import { stepsFor } from "./start";
import { aroundKitchen } from "./surroundings";
import { bakeThrough } from "./through";

const on = (formula: string, kind: "scone" | "pourable-batter" | "flatbread", vessel: Partial<Vessel>, celsius: number) =>
  openedText({ formula, kind, vessel: { shape: "griddle", material: "cast-iron", ...vessel }, celsius, mode: "hob" });
const startOn = (...asked: Parameters<typeof on>) => ready(on(...asked)).start;
const scone = (thicknessMm: number, lining: Vessel["lining"] = "greased") =>
  startOn("griddleScone", "scone", { pieces: 9, pieceG: 58, thicknessMm, ...(lining ? { lining } : {}) }, 165);

describe("on a plate", () => {
  test("it never gives more than its burner: the heat that came in is no more than that and what was in the iron", () => {
    const start = startOn("crepe", "pourable-batter", { pieceG: 65, thicknessMm: 2 }, 210);
    const { run, outS } = bakeThrough(start, stepsFor(start));
    const { area } = run.section;
    const plate = area.reduce((sum, one) => sum + one, 0);
    // Under the iron the burner, over the batter the kitchen, which takes heat and gives none.
    expect(run.account.heatIn).toBeLessThanOrEqual(standardModel.plateWatts * plate * outS * 1.001);
  });
  test("a weaker burner slows what is thin by far, what is thick less", () => {
    const weak = { ...standardModel, plateWatts: standardModel.plateWatts / 2 };
    const slower = (start: ReturnType<typeof scone>): number =>
      bakeThrough(start, stepsFor(start), { model: weak }).outS / bakeThrough(start, stepsFor(start)).outS;
    const thin = slower(startOn("crepe", "pourable-batter", { pieceG: 65, thicknessMm: 2 }, 210));
    expect(thin).toBeGreaterThan(1.25);
    expect(slower(scone(12))).toBeLessThan(thin - 0.05);
  });
  test("a griddle scone as thick as they are cut is done in the time that kitchens say, whatever its thickness, without a cliff", () => {
    const minutes = Array.from({ length: 13 }, (_, k) => bakeThrough(scone(9 + k / 2), stepsFor(scone(9 + k / 2))).doneS! / 60);
    expect(minutes.every(Number.isFinite)).toBe(true);
    // 14 mm: four to six minutes a side.
    expect(minutes[10]).toBeGreaterThan(8);
    expect(minutes[10]).toBeLessThan(14.3);
    for (let k = 1; k < minutes.length; k++) {
      expect(minutes[k]! / minutes[k - 1]!).toBeGreaterThan(0.99);
      // Time goes with the square and more of the thickness: 5 % of it make at most a fifth.
      expect(minutes[k]! / minutes[k - 1]!).toBeLessThan(1.22);
    }
  });
  test("its open side sees the plate with half its view: as in a room of one heat where both are as warm, and between them otherwise", () => {
    const kitchen = aroundKitchen(22, standardModel);
    over({ ...kitchen, plateC: 22 }, 0.9, 60, false);
    expect(outer.celsius).toBeCloseTo(22, 9);
    expect(outer.film).toBeCloseTo(kitchen.h + radiation(0.9, 22, 60), 9);
    over({ ...kitchen, plateC: 180 }, 0.9, 60, false);
    // By hand: the black-body powers of 180, 22 and 60 °C are 2391, 431 and 699 W/m²; the film of 6 W/m²K is at 101 °C.
    const flux = 0.9 * ((2391 - 699) / 2 + (431 - 699) / 2) + 6 * (101 - 60);
    expect(outer.film * (outer.celsius - 60)).toBeGreaterThan(0.99 * flux);
    expect(outer.film * (outer.celsius - 60)).toBeLessThan(1.01 * flux);
    over({ ...kitchen, plateC: 180 }, 0.9, 60, true);
    expect(outer.celsius).toBe(22);
  });
  test("a scone that is done on it is set between its faces; what is soft of its open side is told apart", () => {
    for (const mm of [10, 12, 14]) {
      const { gummy, notes } = simulate(
        on("griddleScone", "scone", { pieces: 9, pieceG: 58, thicknessMm: mm, lining: "greased" }, 165),
      );
      expect([mm, gummy.share <= 0.02 && gummy.side < 0.15]).toEqual([mm, true]);
      expect(notes.some((note) => note.startsWith("Part of the crumb"))).toBe(false);
      expect(notes.some((note) => note.startsWith("Its open side"))).toBe(gummy.side > 0.02);
    }
  });
  test("what is thick is turned again while its middle waits, what is thin once; every turn is told", () => {
    const thick = simulate(on("griddleScone", "scone", { pieces: 9, pieceG: 58, thicknessMm: 15, lining: "greased" }, 165));
    const thin = simulate(on("pancakeThin", "pourable-batter", { pieceG: 60 }, 180));
    expect(thick.againAtMinutes.length).toBeGreaterThan(0);
    expect(Math.min(...thick.againAtMinutes)).toBeGreaterThan(thick.turnAtMinutes ?? Infinity);
    expect(Math.max(...thick.againAtMinutes)).toBeLessThanOrEqual(thick.minutes);
    expect(thin.turnAtMinutes).not.toBeNull();
    expect(thin.againAtMinutes).toEqual([]);
  });
  test("fat under dough is better than air: greased it is done sooner", () => {
    const [greased, dry] = [scone(12), scone(12, "none")].map((start) => bakeThrough(start, stepsFor(start)).outS);
    expect(greased).toBeLessThan(dry!);
  });
  test("a thinner batter pours to a thinner cake", () => {
    const depth = (formula: string) => simulate(on(formula, "pourable-batter", { pieceG: 60 }, 180)).depthMm;
    expect(depth("crepe")).toBeLessThan(depth("pancakeThin"));
    expect(depth("pancakeThin")).toBeLessThan(depth("buttermilkPancake"));
  });
  test("hotter is never slower by more than a turn of it", () => {
    fc.assert(
      fc.property(fc.double({ min: 160, max: 190, noNaN: true }), fc.double({ min: 5, max: 11, noNaN: true }), (celsius, mm) => {
        const at = (c: number): number => {
          const start = startOn("thickflat", "flatbread", { pieceG: 95, thicknessMm: mm }, c);
          return bakeThrough(start, stepsFor(start)).outS;
        };
        expect(at(celsius + 5)).toBeLessThan(at(celsius) * 1.05);
      }),
      { numRuns: 12 },
    );
  });
});

describe("bakes by their written recipes", () => {
  const baked = textBakes.map((bake) => {
    const { start } = ready(openedText(bake));
    const trace = bakeThrough(start, stepsFor(start));
    return { bake, start, trace, minutes: (trace.doneS ?? trace.outS) / 60 };
  });
  test("nine in ten are done inside the kitchens' minutes, widened by a tenth; the middle of all is off by less than a tenth", () => {
    const hits = baked.filter(({ bake: { minutes: window }, minutes }) => minutes >= 0.9 * window[0] && minutes <= 1.1 * window[1]);
    expect(hits.length).toBeGreaterThanOrEqual(0.9 * baked.length);
    const off = baked.map(({ bake: { minutes: window }, minutes }) => Math.log(minutes / Math.sqrt(window[0] * window[1])));
    expect(Math.abs(off.reduce((sum, one) => sum + one, 0) / off.length)).toBeLessThan(0.1);
  });
  test("skewer, spring and probe are signs of one state: in an oven within an eighth of each other", () => {
    const walled = baked.filter(
      ({ start, trace }) => start.oven.mode !== "hob" && start.judged !== "snaps" && trace.marks.coreS !== null,
    );
    for (const { bake, trace, start } of walled) {
      const { coreS, skewerS, springsS } = trace.marks;
      if (start.shape.rim <= 0) continue;
      // What is a centimetre thin has all of them within a minute.
      const near = Math.max(0.13 * coreS!, 60);
      expect([bake.id, skewerS === null || Math.abs(skewerS - coreS!) < near]).toEqual([bake.id, true]);
      expect([bake.id, springsS !== null && Math.abs(springsS - coreS!) < near]).toEqual([bake.id, true]);
    }
    expect(walled.length).toBeGreaterThan(30);
  });
  test("what is judged by its inside waits for a golden top, but no longer than a fourteenth over its core", () => {
    for (const { trace, start } of baked.filter((one) => one.start.judged === "inside")) {
      const { coreS, goldenS } = trace.marks;
      expect(trace.doneS! / coreS!).toBeLessThan(1.0701);
      expect(trace.doneS! / coreS!).toBeGreaterThan(0.9999);
      if (goldenS !== null && goldenS <= coreS!) expect(trace.doneS).toBeCloseTo(coreS!, 6);
      const alone = bakeThrough({ ...start, insideAlone: true }, stepsFor(start));
      expect(alone.doneS).toBeCloseTo(coreS!, 6);
    }
  });
});
