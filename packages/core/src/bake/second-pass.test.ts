import { ready, simulate } from "../balance/analyse";
import type { AnalyseInput } from "../formula/open";
import type { Vessel } from "../pantry/vessel-schema";
import { stepsFor } from "./start";
import { bakeThrough } from "./through";

const tin: Vessel = {
  shape: "rectangular",
  lengthMm: 230,
  widthMm: 130,
  heightMm: 70,
  material: "light-metal",
  lining: "greased",
};
const loaf: AnalyseInput = { kind: "loaf", batchG: 950 };
const bake = (input: AnalyseInput) => simulate(input, undefined, { spread: 0, frames: 0 });

describe("water follows the vapour", () => {
  test("the middle of a loaf gains a little water while it bakes, and its base dries to a crust", () => {
    const { start } = ready(loaf);
    const { run, out } = bakeThrough(start, stepsFor(start));
    const { layers, dry, perDry } = run.section;
    const share = (row: number): number => out.water[row]! / (dry[row]! * perDry.water[row]!);
    expect(share(layers >> 1)).toBeGreaterThan(1);
    expect(share(layers >> 1)).toBeLessThan(1.1);
    expect(share(0)).toBeLessThan(0.7);
    // A wetter band lies over the crust: the beginning of a gummy line.
    expect(Math.max(...Array.from({ length: layers }, (_, row) => share(row)))).toBeGreaterThan(share(layers >> 1));
  });
  test("a darker tin is never paler beneath, glass and dark steel colour more at the same time", () => {
    const base = (material: Vessel["material"]) =>
      simulate({ ...loaf, vessel: { ...tin, ...(material ? { material } : {}) } }, undefined, { spread: 0, frames: 0, minutes: 55 })
        .browning.base;
    expect(base("dark-steel")).toBeGreaterThanOrEqual(base("light-metal"));
    expect(base("light-metal")).toBeGreaterThanOrEqual(base("silicone"));
  });
});

describe("done is a conjunction", () => {
  const skillet: AnalyseInput = {
    kind: "cornbread-plain",
    batchG: 850,
    vessel: { shape: "round", diameterMm: 285, heightMm: 55, material: "cast-iron", lining: "greased", preheated: true },
    oven: { celsius: 220 },
  };
  test("a thin cornbread has its core long before its colour, and waits", () => {
    const { marks, minutes, judged } = bake(skillet);
    expect(judged).toBe("rim");
    expect(marks.golden).toBeGreaterThan((marks.core ?? 0) * 1.2);
    expect(minutes).toBeCloseTo(marks.golden ?? 0, 0);
  });
  test("told that only the inside counts it is out at its core", () => {
    const inside = bake({ ...skillet, process: { doneWhen: "inside" } });
    expect(inside.minutes).toBeLessThan(bake(skillet).minutes);
    expect(inside.minutes).toBeCloseTo(inside.marks.core ?? 0, 0);
  });
  test("in an oven too cool for colour it is taken out pale before it dries out, and says so", () => {
    const pale = bake({ kind: "scone", batchG: 680, oven: { celsius: 135 } });
    expect(pale.pale).toBe(true);
    expect(pale.loss.oven).toBeLessThan(20);
    expect(pale.notes.join(" ")).toMatch(/before it has its colour/);
  });
  test("the signs come in the order in which a kitchen sees them: it springs back, the skewer is clean, never before it has set", () => {
    const { marks } = bake(loaf);
    expect(marks.springs).not.toBeNull();
    expect(marks.skewer === null || marks.skewer >= (marks.springs ?? 0)).toBe(true);
    expect(marks.dry).toBeLessThan(marks.golden ?? Infinity);
  });
});

describe("walls and cooling", () => {
  const cooled = (lining: NonNullable<Vessel["lining"]>) => bake({ ...loaf, vessel: { ...tin, lining } });
  test("bare walls hold the edge, greased ones let it down, and paper stands between", () => {
    const edge = (lining: NonNullable<Vessel["lining"]>): number => {
      const { outMm, cooledMm } = cooled(lining);
      return cooledMm.edge / outMm.edge;
    };
    expect(edge("none")).toBeGreaterThan(edge("paper"));
    expect(edge("paper")).toBeGreaterThan(edge("greased"));
    expect(edge("greased-base")).toBeCloseTo(edge("none"), 1);
  });
  test("upside down a wall that holds the crumb keeps it as high as it came out; a greased one would let it fall, and that is said", () => {
    const kept = (lining: NonNullable<Vessel["lining"]>, cooling: "upright" | "upside-down") => {
      const { outMm, cooledMm, notes, outOfTinMinutes } = bake({ ...loaf, vessel: { ...tin, lining }, process: { cooling } });
      return { share: cooledMm.middle / outMm.middle, notes: notes.join(" "), outOfTinMinutes };
    };
    const hung = kept("none", "upside-down");
    expect(hung.share).toBeGreaterThan(kept("none", "upright").share + 0.01);
    expect(hung.share).toBeGreaterThan(0.98);
    expect(hung.outOfTinMinutes).toBeGreaterThan(kept("none", "upright").outOfTinMinutes);
    expect(hung.notes).not.toMatch(/slide out/);
    expect(kept("greased", "upside-down").notes).toMatch(/slide out/);
    expect(kept("greased", "upside-down").share).toBeCloseTo(kept("greased", "upright").share, 2);
  });
  test("so many minutes in the tin are those that are told; in the tin to the end it takes longer to cool than on a rack", () => {
    const after = (process: NonNullable<Parameters<typeof bake>[0]["process"]>) => bake({ ...loaf, process });
    expect(after({ tinMinutes: 25 }).outOfTinMinutes).toBe(25);
    expect(after({ tinMinutes: 0 }).outOfTinMinutes).toBe(0);
    const rack = after({ tinMinutes: 0 });
    const tinned = after({ cooling: "in-tin" });
    // Air takes less heat from a crust behind metal than from a bare one.
    expect(tinned.cutAfterMinutes).toBeGreaterThan(rack.cutAfterMinutes);
    expect(tinned.outOfTinMinutes).toBeCloseTo(tinned.cutAfterMinutes, 6);
    // The bake itself does not know what comes after it.
    expect(tinned.done.mid).toBe(rack.done.mid);
  });
  test("a sound loaf draws in by 2 to 8 % of its height", () => {
    const { outMm, cooledMm } = cooled("greased");
    expect(1 - cooledMm.middle / outMm.middle).toBeGreaterThan(0.015);
    expect(1 - cooledMm.middle / outMm.middle).toBeLessThan(0.09);
  });
});

test("the warmer the pan goes in, the browner beneath; a hot one is the quickest, a warm one no slower than a cold one", () => {
  const iron: Vessel = { shape: "round", diameterMm: 235, heightMm: 50, material: "cast-iron", lining: "greased" };
  const of = (more: Partial<Vessel>) =>
    bake({
      kind: "cornbread-plain",
      batchG: 940,
      vessel: { ...iron, ...more },
      oven: { celsius: 220 },
      process: { doneWhen: "inside" },
    });
  const [cold, warm, hot] = [of({}), of({ warmC: 100 }), of({ preheated: true })];
  // The two grids differ by a few per cent.
  expect(warm.minutes).toBeLessThan(1.03 * cold.minutes);
  expect(hot.minutes).toBeLessThan(warm.minutes);
  expect(warm.browning.base).toBeGreaterThan(cold.browning.base);
  expect(hot.browning.base).toBeGreaterThan(warm.browning.base);
});

test("soda that finds no acid lifts a purée loaf all the same: 1.5 to 2 mL/g, as kitchens know", () => {
  const lines = Object.entries({
    "oat-flour": 180,
    "tapioca-starch": 60,
    "banana-ripe": 300,
    egg: 100,
    "sunflower-oil": 70,
    "light-brown-sugar": 100,
    soda: 5,
    salt: 3,
  }).map(([ingredientId, grams]) => ({ ingredientId, grams }));
  const { volumeMlPerG } = bake({ kind: "loaf", lines });
  expect(volumeMlPerG).toBeGreaterThan(1.5);
  expect(volumeMlPerG).toBeLessThan(2.1);
});
