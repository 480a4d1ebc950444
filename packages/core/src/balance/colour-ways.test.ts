import { simulate } from "./analyse";
import { beginKind } from "../begin";
import { pansForDepth, panOptions, rolledThickness } from "../bake/pan-swap";
import type { Simulation } from "../bake/simulation-schema";
import { applyEdit } from "../formula/edits";
import type { Formula } from "../formula/formula";
import { processSchema } from "../formula/process-schema";
import { openFormula } from "../formula/open";
import { bareKitchen } from "../formula/bare-kitchen";
import { vesselLibrary } from "../pantry/vessel";
import { colourTroublesOf, type ColourTrouble, colourWays, mends } from "./colour-ways";

const bake = (formula: Formula): Simulation =>
  simulate(openFormula(formula, bareKitchen), undefined, { spread: 0, frames: 0, withoutCooling: true });
const loaf = beginKind("loaf", "metric", 950);
const hot: Formula = { ...loaf, oven: { celsius: 220 } };
const scones: Formula = { ...beginKind("scone", "metric", 680), oven: { celsius: 150 } };
const all: ColourTrouble[] = ["base-pale", "base-dark", "top-dark", "top-pale"];

describe("the shelf of an oven", () => {
  const at = (shelf: "low" | "high" | "middle"): Simulation => bake({ ...loaf, oven: { ...loaf.oven, shelf } });
  test("low colours the underside more and the top less, high the other way round, the middle is as unsaid", () => {
    const [low, middle, high] = [at("low"), at("middle"), at("high")];
    expect(low.browning.base).toBeGreaterThan(middle.browning.base);
    expect(low.browning.top).toBeLessThan(middle.browning.top);
    expect(high.browning.base).toBeLessThan(middle.browning.base);
    expect(high.browning.top).toBeGreaterThan(middle.browning.top);
    expect(middle.browning).toEqual(bake(loaf).browning);
  });
});

describe("ways out of a colour", () => {
  test("every way for every trouble is an edit that the formula takes, its process as the store takes it", () => {
    for (const formula of [hot, scones, beginKind("cornbread-plain", "metric", 900), beginKind("muffin", "metric", 800)])
      for (const trouble of all)
        for (const { edits, say, cost } of colourWays(trouble, formula, { minutes: 40 })) {
          const changed = edits.reduce(applyEdit, formula);
          expect(changed).not.toEqual(formula);
          expect(processSchema.safeParse(changed.process).success).toBe(true);
          expect(say.length * cost.length).toBeGreaterThan(0);
        }
  });
  test("a loaf in too hot an oven has a dark top; foil once golden and a cooler oven mend it, as they were baked", () => {
    const held = (formula: Formula): string[] => {
      const before = bake(formula);
      expect(colourTroublesOf(formula, before)).toContain("top-dark");
      return colourWays("top-dark", formula, before)
        .filter(({ edits }) => mends("top-dark", formula, before, bake(edits.reduce(applyEdit, formula))))
        .map(({ id }) => id);
    };
    expect(held({ ...loaf, oven: { celsius: 205 } })).toEqual(expect.arrayContaining(["foil", "175"]));
    // What is held comes out under dark on both sides, and done.
    const ways = colourWays("top-dark", hot, bake(hot)).filter(({ id }) => held(hot).includes(id));
    for (const after of ways.map(({ edits }) => bake(edits.reduce(applyEdit, hot)))) {
      expect(after.reached).toBe(true);
      expect(Math.max(after.browning.top, after.browning.base)).toBeLessThan(32);
    }
    expect(held(hot)).toContain("175");
  });
  test("what does not mend is not said to: a bake that is not done, or as dark as before, holds nothing", () => {
    const before = bake(hot);
    expect(mends("top-dark", hot, before, before)).toBe(false);
    expect(mends("top-dark", hot, before, { ...before, reached: false, browning: { ...before.browning, top: 3 } })).toBe(false);
    const fine = { ...before, browning: { top: 3, base: 3, rim: 3 } };
    expect(mends("top-dark", hot, before, fine)).toBe(true);
    expect(mends("top-dark", hot, before, { ...fine, loss: { ...fine.loss, oven: before.loss.oven + 5 } })).toBe(false);
    expect(mends("top-dark", hot, before, { ...fine, browning: { ...fine.browning, base: 0.1 } })).toBe(false);
  });
  test("soft bars and paper cups may be pale beneath, and nothing is asked of a hob", () => {
    const pale = { ...bake(hot), pale: false, browning: { top: 3, base: 0.1, rim: 3 } };
    expect(colourTroublesOf(loaf, pale)).toEqual(["base-pale"]);
    expect(colourTroublesOf({ ...loaf, kind: "bar" }, pale)).toEqual([]);
    expect(colourTroublesOf({ ...loaf, vessel: { shape: "muffin", lining: "paper-cups" } }, pale)).toEqual([]);
    expect(colourTroublesOf({ ...loaf, oven: { celsius: 180, mode: "hob" } }, pale)).toEqual([]);
  });
});

describe("a pan by its depth, a piece by its round", () => {
  test("the first pan stands nearer to the wanted depth than any other that holds it", () => {
    const options = panOptions(900, 1, loaf.vessel, loaf.oven, vesselLibrary);
    for (const wanted of [15, 30, 55]) {
      const [first, ...rest] = pansForDepth(options, wanted);
      const off = (depth: number): number => Math.abs(Math.log(depth / wanted));
      for (const { depthMm } of rest) expect(off(first?.depthMm ?? 0)).toBeLessThanOrEqual(off(depthMm));
    }
  });
  test("78.5 g at 1 g/mL rolled to a round of 200 mm are 2.5 mm thick, by hand", () => {
    expect(rolledThickness(78.54, 1, 200)).toBeCloseTo(2.5, 3);
  });
});
