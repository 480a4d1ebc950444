import { baked } from "../balance/analyse";
import { beginKind } from "../begin";
import { bareKitchen } from "../formula/bare-kitchen";
import type { Formula, Part } from "../formula/formula";
import { openFormula } from "../formula/open";
import { openParts, partAsFormula } from "../formula/open-part";
import { builtInShelf } from "../pantry/catalogue";
import { type Day, planDay } from "./day";
import { splitSteps, stepsOfWhole } from "./split-steps";
import type { WorkStep } from "./work-step-schema";

const line = (id: string, ingredientId: string, g: number): Formula["lines"][number] => ({ id, ingredientId, grams: { low: g, mid: g, high: g } }); // prettier-ignore
const muffins = { shape: "muffin" as const, diameterMm: 70, heightMm: 35, pieces: 6 };
const loafTin = { shape: "rectangular" as const, lengthMm: 180, widthMm: 90, heightMm: 60, material: "light-metal" as const };
const base = beginKind("loaf", "metric", 1200);
const part = (id: string, share: number, more: Partial<Part>): Part => ({ id, name: `with ${id}`, share, additions: [], kind: "loaf", vessel: loafTin, oven: { celsius: 180, mode: "still" }, ...more }); // prettier-ignore
const split: Formula = {
  ...base,
  parts: [
    part("plain", 0.5, {}),
    part("raisins", 0.3, { additions: [line("r", "raisins", 60)], kind: "muffin", vessel: muffins }),
    part("cocoa", 0.2, { additions: [line("c", "cocoa-natural", 12)], kind: "muffin", vessel: { ...muffins, pieces: 4 }, oven: { celsius: 190, mode: "still" } }), // prettier-ignore
  ],
};
const input = openFormula(split, bareKitchen);
const { analysis, simulation } = baked(input, undefined, { frames: 0, spread: 0.1 });
const parts = openParts(split, bareKitchen);

const massOf = (steps: readonly WorkStep[]): Map<string, number> => {
  const out = new Map<string, number>();
  for (const { ingredientId, grams } of steps.flatMap(({ lines }) => lines)) out.set(ingredientId, (out.get(ingredientId) ?? 0) + grams); // prettier-ignore
  return out;
};

describe("one batter that becomes three things", () => {
  const steps = stepsOfWhole(input, analysis, simulation, parts);
  test("one mixing, three fillings, three bakes, each with what is added to it; nothing weighs twice and nothing is lost", () => {
    const count = (kind: WorkStep["kind"]): number => steps.filter((step) => step.kind === kind).length;
    expect([count("combine"), count("portion"), count("bake"), count("out")]).toEqual([1, 3, 3, 3]);
    const weighed = massOf(steps);
    for (const { ingredientId = "", grams } of base.lines) expect(weighed.get(ingredientId)).toBeCloseTo(grams?.mid ?? -1, 6);
    expect([weighed.get("raisins"), weighed.get("cocoa-natural")]).toEqual([60, 12]);
    expect(steps.find(({ id }) => id === "raisins:take")?.words).toMatch(
      /^with raisins: take 3[56]\d g of the batter, and fold in 60 g raisins$/,
    );
    // The fillings hold the shares and what was added, by hand: 0.5, 0.3 and 0.2 of the batter.
    const batter = analysis.batch.massG;
    const filled = splitSteps(input, analysis, simulation, parts).parts.map((one) => one.analysis.batch.massG);
    [0.5 * batter, 0.3 * batter + 60, 0.2 * batter + 12].forEach((grams, k) => expect(filled[k]).toBeCloseTo(grams, 3));
  });
  test("nothing waits for what comes later, and no batter stands longer than from its wetting", () => {
    const seen = new Set<string>();
    for (const { id, after, within } of steps) {
      for (const one of [...after, ...(within ? [within.of] : [])]) expect([...seen]).toContain(one);
      seen.add(id);
    }
    expect(seen.size).toBe(steps.length);
  });
  test("a part is a formula of its own, with its share of every line", () => {
    const own = partAsFormula(split, split.parts?.[1] as Part);
    expect(own).toMatchObject({ title: `${base.title}, with raisins`, kind: "muffin", vessel: muffins });
    expect(own.parts).toBeUndefined();
    const first = base.lines[0];
    expect(own.lines.find(({ ingredientId }) => ingredientId === first?.ingredientId)?.grams?.mid).toBeCloseTo(0.3 * (first?.grams?.mid ?? 0), 6); // prettier-ignore
  });
});

describe("a day with a split batter", () => {
  const day = (ovens: Day["ovens"]): Day => ({
    start: "2026-11-28T05:00:00+01:00",
    hands: 1,
    mixers: 0,
    ovens,
    bakes: [{ id: "a", title: "Split", input, parts }],
  });
  const planned = (ovens: Day["ovens"]) => planDay(day(ovens), builtInShelf);
  test("is mixed once; each part goes into an oven after it was filled, and no oven holds two heats at once", () => {
    const plan = planned([{ id: "o", racks: 2, warmMinutes: 15 }]);
    expect(plan.bakes).toMatchObject([{ id: "a", batches: 1, piecesABatch: 11 }]);
    const of = (kind: WorkStep["kind"]) => plan.steps.filter((step) => step.kind === kind);
    expect([of("combine").length, of("portion").length, of("bake").length]).toEqual([1, 3, 3]);
    const mixed = Date.parse(of("combine")[0]?.end ?? "");
    for (const id of ["plain", "raisins", "cocoa"]) {
      const at = (kind: WorkStep["kind"], edge: "start" | "end"): number => Date.parse(of(kind).find(({ stepId }) => stepId.startsWith(`${id}:`))?.[edge] ?? ""); // prettier-ignore
      expect(at("portion", "start")).toBeGreaterThanOrEqual(mixed);
      expect(at("bake", "start")).toBeGreaterThanOrEqual(at("portion", "end"));
    }
    const heats = of("bake").map(({ stepId, start, end }) => ({ hot: stepId.startsWith("cocoa"), start: Date.parse(start), end: Date.parse(end) })); // prettier-ignore
    for (const a of heats) for (const b of heats) if (a.hot !== b.hot) expect(a.start < b.end && b.start < a.end).toBe(false);
    // Hands do one thing at a time.
    const busy = plan.steps.filter(({ resources }) => resources.includes("hands")).map(({ start, end }) => [Date.parse(start), Date.parse(end)] as const); // prettier-ignore
    busy.sort(([a], [b]) => a - b).forEach(([start], k) => expect(start).toBeGreaterThanOrEqual(busy[k - 1]?.[1] ?? 0));
  });
  test("with an oven for each heat the last part waits less", () => {
    const one = planned([{ id: "o", racks: 2, warmMinutes: 15 }]);
    const two = planned([{ id: "o", racks: 2, warmMinutes: 15 }, { id: "p", racks: 2, warmMinutes: 15 }]); // prettier-ignore
    expect(two.waitingMinutes).toBeLessThan(one.waitingMinutes);
  });
});
