import { baked } from "../balance/analyse";
import { beginKind, formulaFrom } from "../begin";
import type { Formula } from "../formula/formula";
import { kinds } from "../formula/kinds";
import { openFormula } from "../formula/open";
import { bareKitchen } from "../formula/bare-kitchen";
import { methods } from "../formula/process";
import { readRecipe } from "../read";
import { shortestMinutes, stepsOf } from "./steps";
import { type WorkStep, workStepSchema } from "./work-step-schema";

const of = (formula: Formula, warmMinutes?: number): WorkStep[] => {
  const input = openFormula(formula, bareKitchen);
  const { analysis, simulation } = baked(input, undefined, { frames: 0, spread: 0.1 });
  return stepsOf(input, analysis, simulation, undefined, warmMinutes);
};
const find = (steps: readonly WorkStep[], id: string): WorkStep => {
  const step = steps.find((one) => one.id === id);
  if (!step) throw new Error(`no step ${id} among ${steps.map((one) => one.id).join(", ")}`);
  return step;
};
/** Whether one step must be over before another begins, through any chain. */
const precedes = (steps: readonly WorkStep[], first: string, then: string): boolean =>
  find(steps, then).after.some((one) => one === first || precedes(steps, first, one));

describe.each(kinds)("steps of %s", (kind) => {
  test.each(methods)("made by %s: every line is weighed for one step, once, and nothing waits for what comes later", (method) => {
    const begun = beginKind(kind, "metric", 700);
    const formula: Formula = { ...begun, process: { ...begun.process, method } };
    const steps = of(formula);
    for (const step of steps) expect(workStepSchema.safeParse(step).error?.issues ?? []).toEqual([]);
    expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length);
    const grams = new Map<string, number>();
    for (const { ingredientId, grams: g } of steps.flatMap(({ lines }) => lines))
      grams.set(ingredientId, (grams.get(ingredientId) ?? 0) + g);
    for (const { ingredientId = "", grams: g } of formula.lines) expect(grams.get(ingredientId)).toBeCloseTo(g?.mid ?? -1, 6);
    expect(grams.size).toBe(formula.lines.length);
    const seen = new Set<string>();
    for (const { id, after } of steps) {
      for (const one of after) expect([...seen]).toContain(one);
      seen.add(id);
    }
    expect(precedes(steps, "combine", "bake")).toBe(true);
    expect(precedes(steps, "preheat", "bake")).toBe(true);
    expect(precedes(steps, "bake", "wrap")).toBe(true);
  });
});

describe("what goes before what", () => {
  const loaf = beginKind("loaf", "metric", 900);
  const withLines = (formula: Formula, more: [string, number][]): Formula => ({
    ...formula,
    lines: [
      ...formula.lines,
      ...more.map(([ingredientId, g], k) => ({ id: `m${k}`, ingredientId, grams: { low: g, mid: g, high: g } })),
    ],
  });
  test("oats soak in the liquid before the leavening is wet", () => {
    const steps = of(withLines(loaf, [["rolled-oats", 80]]));
    expect(find(steps, "soak").words).toMatch(/^Soak 80 g rolled oats.* in the whole milk; nothing that lifts is in yet$/);
    expect(find(steps, "soak").lines.some(({ ingredientId }) => ingredientId.startsWith("powder"))).toBe(false);
    expect(precedes(steps, "soak", "combine")).toBe(true);
  });
  test("vinegar sours the milk first; fruit is folded in last and dusted, chocolate is not", () => {
    const steps = of(withLines(loaf, [["vinegar", 12], ["pear", 120]])); // prettier-ignore
    expect(
      find(steps, "sour")
        .lines.map(({ ingredientId }) => ingredientId)
        .sort(),
    ).toEqual(["vinegar", "whole-milk"]);
    expect(find(steps, "fold").words).toMatch(/dust what is wet/);
    expect(precedes(steps, "combine", "fold")).toBe(true);
    expect(find(of(withLines(loaf, [["dark-chocolate", 80]])), "fold").words).not.toMatch(/dust/);
  });
  test("butter is creamed when it is soft, cut in when it is cold, at the oven's own rate of warming", () => {
    const scone = beginKind("scone", "metric", 680);
    expect(find(of(scone), "cut-in").words).toMatch(/^Cut \d+ g butter, cold/);
    const creamed = of({ ...scone, process: { ...scone.process, method: "creaming" } }, 22);
    expect(precedes(creamed, "temper", "cream")).toBe(true);
    expect(find(creamed, "cream").needs).toBe("mixer");
    expect(find(creamed, "preheat").minutes.mid).toBe(22);
  });
  test("a filling is made before the tin is filled, a glaze after it has cooled", () => {
    const text =
      "Plum loaf\n300 g sorghum flour\n300 ml milk\n2 eggs\n60 g oil\n120 g sugar\n12 g baking powder\n\nPlum filling\n200 g plums\n30 g sugar\n\nGlaze\n60 g icing sugar\n10 g lemon juice";
    const steps = of(formulaFrom(readRecipe(text, "metric"), "metric", "loaf"));
    const filling = steps.find(({ kind }) => kind === "component")?.id ?? "";
    const glaze = steps.find(({ kind }) => kind === "glaze")?.id ?? "";
    expect(precedes(steps, filling, "portion")).toBe(true);
    expect(precedes(steps, "cool-tin", glaze)).toBe(true);
    expect(precedes(steps, glaze, "cut")).toBe(true);
  });
});

describe("what the recipe says is said once", () => {
  const told = (method: string): WorkStep[] => {
    const text = `Orange loaf\n200 g almond flour\n90 g sorghum flour\n10 g baking powder\n150 g sugar\n3 eggs\n120 g oil\n80 g chocolate chips\n\n${method}`;
    return of(formulaFrom(readRecipe(text, "metric"), "metric", "loaf"));
  };
  test("who folds the flour into the whisked eggs folds it once", () => {
    const words = told("Whisk the eggs and sugar until pale, trickle in the oil. Fold in the almond flour, sorghum flour, baking powder and the chocolate. Bake at 170 °C for 50 minutes in a 900 g loaf tin.").map((step) => step.words); // prettier-ignore
    expect(words.filter((one) => /fold/i.test(one))).toHaveLength(1);
    expect(words.some((one) => /^Stir|knocking/.test(one))).toBe(false);
  });
  test("where nothing combines them, a step is added that does", () => {
    const words = told("Whisk the eggs and sugar until pale, trickle in the oil. Bake at 170 °C for 50 minutes.").map((step) => step.words); // prettier-ignore
    expect(words.filter((one) => /^Fold the dry into the whisked/.test(one))).toHaveLength(1);
  });
  test("fat for the hot pan goes in when it is hot, after the oven, before the batter", () => {
    const text = "Skillet cornbread\n250 g cornmeal\n70 g sorghum flour\n10 g baking powder\n380 ml buttermilk\n2 eggs\n60 g butter, melted, plus 15 g for the skillet\n\nPut a 10 inch cast-iron skillet in the oven while it heats to 220 °C. Whisk the dry. Beat eggs, buttermilk and melted butter; stir into the dry. Drop the 15 g of butter into the hot skillet, pour in the batter. Bake 22 minutes."; // prettier-ignore
    const steps = of(formulaFrom(readRecipe(text, "metric"), "metric", "cornbread-plain"));
    expect(precedes(steps, "preheat", "pan-hot")).toBe(true);
    expect(precedes(steps, "pan-hot", "portion")).toBe(true);
    expect(find(steps, "pan-hot").lines.map(({ grams }) => grams)).toEqual([15]);
    expect(find(steps, "pan").lines).toEqual([]);
    expect(find(steps, "portion").words).toMatch(/^Pour in the batter: \d+ g$/);
  });
  test("what is done the night before is done the night before; what is poured over while warm waits for no cooling", () => {
    const oats = "Oat muffins\n200 g oat flour\n300 g buttermilk\n2 eggs\n50 g oil\n10 g baking powder\n\nThe night before stir the oat flour into the buttermilk and leave it in the fridge. In the morning beat in the eggs and oil, then the powder. Bake 22 minutes at 190 °C."; // prettier-ignore
    const soaked = of(formulaFrom(readRecipe(oats, "metric"), "metric", "muffin")).find(({ words }) =>
      /^The night before/.test(words),
    );
    expect(soaked).toMatchObject({ kind: "soak", ahead: true });
    expect(soaked?.minutes.low).toBeGreaterThanOrEqual(480);
    const drizzle = "Lemon loaf\n225 g butter\n225 g sugar\n275 g sorghum flour\n12 g baking powder\n4 eggs\n\nFor the drizzle:\n100 g sugar\n40 g lemon juice\n\nCream the butter and sugar, beat in the eggs, fold in the flour and powder. Bake 50 minutes at 170 °C. Mix the drizzle and spoon it over while warm."; // prettier-ignore
    const kinds = of(formulaFrom(readRecipe(drizzle, "metric"), "metric", "loaf")).map(({ kind }) => kind);
    expect(kinds.indexOf("glaze")).toBeGreaterThan(kinds.indexOf("out"));
    expect(kinds.indexOf("glaze")).toBeLessThan(kinds.indexOf("cool-tin"));
  });
  test("the minutes in the tin are the recipe's own", () => {
    const method = "Whisk everything together. Bake at 170 °C for 50 minutes. Leave in the tin 25 minutes.";
    expect(find(told(method), "cool-tin").minutes.mid).toBe(25);
    expect(told(method).filter(({ kind }) => kind === "rest")).toEqual([]);
  });
});

describe("how long", () => {
  test("a batter of quick soda waits less than one of slow powder, and soda by itself says how long", () => {
    const with_ = (id: string): WorkStep => {
      const begun = beginKind("muffin", "metric", 800);
      const lines = begun.lines.map((line) => (line.ingredientId?.startsWith("powder") ? { ...line, ingredientId: id } : line));
      return find(of({ ...begun, lines }), "bake");
    };
    const quick = with_("powder-single-acting").within;
    const slow = with_("powder-double-acting").within;
    expect(quick?.of).toBe("combine");
    expect(quick?.minutes ?? Infinity).toBeLessThan(slow?.minutes ?? Infinity);
  });
  test("what the probe shows when it comes out is one figure, in the oven and in the words beside it", () => {
    for (const kind of ["loaf", "muffin", "scone"] as const) {
      const steps = of(beginKind(kind, "metric", 800));
      const inside = /(\d+) °C inside/.exec(find(steps, "bake").words)?.[1];
      expect(find(steps, "out").words).toMatch(new RegExp(`^Out: ${inside} °C in the middle`));
    }
  });
  test("stages, the first look and the turn are done beside the bake, at their minutes", () => {
    const begun = beginKind("loaf", "metric", 900);
    const steps = of({ ...begun, process: { ...begun.process, stages: [{ minutes: 30, covered: true }, {}] } });
    expect(find(steps, "change-2")).toMatchObject({ words: "Cover off", at: 30 });
    const bake = find(steps, "bake").minutes.mid;
    for (const { at } of steps) if (at !== undefined) expect(at).toBeLessThan(bake);
  });
  test("the shortest way is the longest chain: by hand for a chain of three with one beside", () => {
    const step = (id: string, mid: number, after: string[], at?: number): WorkStep => ({ id, kind: "dry", words: id, minutes: { low: mid, mid, high: mid }, needs: "hands", after, lines: [], ...(at === undefined ? {} : { at }) }); // prettier-ignore
    expect(shortestMinutes([step("a", 5, []), step("b", 10, []), step("c", 20, ["a", "b"]), step("d", 99, ["a"], 3), step("e", 2, ["c"])])).toBe(32); // prettier-ignore
  });
});

describe("what the baker changes of the steps", () => {
  const loaf = beginKind("loaf", "metric", 900);
  const changed = (steps: NonNullable<Formula["process"]["steps"]>): WorkStep[] =>
    of({ ...loaf, process: { ...loaf.process, steps } });
  test("words and minutes said by hand stand, a step left out hands on what it waited for", () => {
    const steps = changed([
      { step: "dry", words: "Sieve the dry twice", minutes: 9 },
      { step: "pan", off: true },
    ]);
    expect(find(steps, "dry")).toMatchObject({ words: "Sieve the dry twice", minutes: { low: 9, mid: 9, high: 9 } });
    expect(steps.some(({ id }) => id === "pan")).toBe(false);
    expect(steps.flatMap(({ after }) => after)).not.toContain("pan");
  });
  test("one of one's own stands between two others, and what followed waits for it", () => {
    const steps = changed([{ own: "own-1", follows: "portion", words: "Scatter seeds over it", minutes: 2, needs: "hands" }]);
    expect(find(steps, "bake").after).toContain("own-1");
    expect(find(steps, "bake").after).not.toContain("portion");
    expect(precedes(steps, "portion", "own-1")).toBe(true);
    // The oven heats longer than the batter takes; what comes after the oven door lengthens the day.
    const iced = changed([{ own: "own-1", follows: "cool-rack", words: "Brush with jam", minutes: 4, needs: "hands" }]);
    expect(shortestMinutes(iced)).toBeCloseTo(shortestMinutes(of(loaf)) + 4, 6);
  });
  test("what holds the bake together stays: nothing weighed is lost, the oven keeps its minutes", () => {
    const derived = of(loaf);
    const steps = changed([
      ...derived.map(({ id }) => ({ step: id, off: true })),
      { step: "bake", minutes: 5 },
      { step: "long-gone", words: "Nothing" },
      { own: "own-2", follows: "look", words: "Beside the bake", minutes: 1, needs: "hands" as const },
    ]);
    const grams = (list: readonly WorkStep[]): number =>
      list.flatMap(({ lines }) => lines).reduce((sum, line) => sum + line.grams, 0);
    expect(grams(steps)).toBeCloseTo(grams(derived), 6);
    expect(steps.map(({ id }) => id)).toEqual(expect.arrayContaining(["combine", "portion", "bake", "out"]));
    expect(steps.some(({ id }) => id === "own-2" || id === "wrap")).toBe(false);
    expect(find(steps, "bake").minutes).toEqual(find(derived, "bake").minutes);
    for (const [k, { after }] of steps.entries())
      for (const one of after) expect(steps.slice(0, k).map(({ id }) => id)).toContain(one);
  });
});
