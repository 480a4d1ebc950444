import { analyse, type AnalyseInput, ready, simulate } from "../balance/analyse";
import { typicalLines } from "../balance/bands";
import type { InputLine } from "../formula/components";
import type { FormulaComponent } from "../formula/components-schema";
import { prepare, step, tablesFor } from "./kernel";
import { standardModel } from "./model";
import { stepsFor, wholeKg } from "./start";

const loaf: AnalyseInput & { lines: InputLine[] } = { kind: "loaf", lines: typicalLines("loaf", 900) };
const quick = { spread: 0, frames: 0 };
/** The loaf with one component of so many grams of some things. */
function withComponent(component: Omit<FormulaComponent, "id">, things: Record<string, number>): AnalyseInput {
  return {
    ...loaf,
    components: [{ id: "x", ...component }],
    lines: [...loaf.lines, ...Object.entries(things).map(([ingredientId, grams]) => ({ ingredientId, grams, component: "x" }))],
  };
}
const bake = (input: AnalyseInput) => simulate(input, undefined, quick);
const plain = bake(loaf);
const filling = { name: "Filling", role: "filling" as const };
const fruit = { apple: 180, "white-sugar": 20 };

test("a wet filling slows the core, a cold one more, a large one more still", () => {
  const [warm, cold, large] = [
    bake(withComponent(filling, fruit)),
    bake(withComponent({ ...filling, celsius: 5 }, fruit)),
    bake(withComponent(filling, { apple: 360, "white-sugar": 40 })),
  ];
  expect(warm.done.mid).toBeGreaterThan(plain.done.mid * 1.03);
  expect(cold.done.mid).toBeGreaterThan(warm.done.mid);
  expect(large.done.mid).toBeGreaterThan(warm.done.mid);
  expect(large.done.mid).toBeLessThan(plain.done.mid * 2);
});

test("a wet topping keeps the top paler and the core later; crumbs keep the crumb below from the heat", () => {
  const wet = bake(withComponent({ name: "Cheese top", role: "topping" }, { "cream-cheese": 150, egg: 50 }));
  expect(wet.done.mid).toBeGreaterThan(plain.done.mid);
  expect(wet.browning.top).toBeLessThan(plain.browning.top);
  const crumbs = bake(withComponent({ name: "Crumble", role: "topping" }, { "sorghum-flour": 60, butter: 40, "white-sugar": 40 }));
  expect(crumbs.done.mid).toBeGreaterThan(plain.done.mid);
  // It dries and browns sooner than the batter would.
  expect(crumbs.browning.top).toBeGreaterThan(wet.browning.top);
});

test("milk brushed on browns the top and leaves the minutes; water alone does not brown", () => {
  const washed = bake(withComponent({ name: "Brushed on", role: "glaze" }, { "whole-milk": 12 }));
  const sugared = bake(withComponent({ name: "Brushed on", role: "glaze" }, { "whole-milk": 12, "white-sugar": 6 }));
  const water = bake(withComponent({ name: "Brushed on", role: "glaze" }, { water: 12 }));
  expect(washed.browning.top).toBeGreaterThan(1.3 * plain.browning.top);
  expect(sugared.browning.top).toBeGreaterThan(washed.browning.top);
  expect(water.browning.top).toBeLessThanOrEqual(plain.browning.top);
  expect(Math.abs(washed.done.mid / plain.done.mid - 1)).toBeLessThan(0.04);
});

test("an icing, what is served with it and what greases the tin change nothing in the oven", () => {
  for (const [name, role] of [
    ["Icing", "glaze"],
    ["To serve", "serve"],
    ["The pan", "pan"],
    ["Sauce", "sauce"],
  ] as const)
    expect(bake(withComponent({ name, role }, { "icing-sugar": 100, butter: 20 })).done.mid).toBe(plain.done.mid);
});

test("cooked thick a filling holds less water and slows the core less", () => {
  const raw = bake(withComponent(filling, { apple: 300, "white-sugar": 30 }));
  const cooked = bake(withComponent({ ...filling, cookedG: 150 }, { apple: 300, "white-sugar": 30 }));
  expect(cooked.done.mid).toBeLessThan(raw.done.mid);
});

test("done means the crumb, not the filling: nothing of a filling is gummy or unset", () => {
  const { gummy, reached, set } = bake(withComponent(filling, fruit));
  expect(reached).toBe(true);
  expect(gummy.share).toBeLessThan(0.05);
  expect(set.at(-1)).toBeGreaterThan(0.9);
});

test.each([
  ["a filling", withComponent({ ...filling, celsius: 4 }, fruit)],
  ["a topping", withComponent({ name: "Crumble", role: "topping" }, { "sorghum-flour": 60, butter: 40, "white-sugar": 40 })],
  ["a filling without any water", withComponent(filling, { "white-sugar": 90, "sunflower-oil": 20 })],
  [
    "sugar and oil under it",
    withComponent({ name: "Caramel", role: "topping", place: "base" }, { "white-sugar": 80, "sunflower-oil": 20 }),
  ],
  ["fruit under it", withComponent({ name: "Pears", role: "topping", place: "base" }, { pear: 200, "dark-brown-sugar": 30 })],
])("%s: water and energy close to a millionth of what flowed, and layers stay layers", (_, input) => {
  const { start } = ready(input);
  const steps = stepsFor(start);
  const made = prepare(start, steps.grid);
  const { section } = made;
  const sum = (values: Float64Array): number => values.reduce((all, value) => all + value, 0);
  const heat = (): number =>
    sum(section.enthalpy) +
    section.base.reduce((all, celsius, j) => all + celsius * section.baseCapacity[j]!, 0) +
    section.wall.reduce((all, celsius, i) => all + celsius * section.wallCapacity[i]!, 0);
  const apart = (): number => section.dry.reduce((kg, dry, cell) => kg + (section.batter[cell] ? 0 : dry), 0);
  const [water, joules, layer] = [sum(section.water), heat(), apart()];
  expect(sum(section.water) + sum(section.dry)).toBeCloseTo(wholeKg(start), 9);
  const tables = tablesFor(start, standardModel, steps.dt);
  for (let second = 0; second < 1500; second += steps.dt) {
    made.around.airC = start.oven.celsius;
    step(made, tables, steps.dt);
  }
  const { vapourOutKg, vapourOutJ, heatIn } = made.account;
  expect(Math.abs(sum(section.water) + vapourOutKg - water)).toBeLessThan(1e-6 * water);
  expect(Math.abs(heat() - joules - (heatIn - vapourOutJ))).toBeLessThan(1e-6 * (Math.abs(heatIn) + vapourOutJ));
  expect(apart()).toBeCloseTo(layer, 12);
});

describe("the recipe's own word", () => {
  const said = (analysis: ReturnType<typeof analyse>) => analysis.findings.filter(({ id }) => id === "recipe-differs");
  const tin = { shape: "rectangular" as const, lengthMm: 215, widthMm: 115, heightMm: 68 };
  const base = { vessel: tin, panNamed: true, batterG: 1100 };
  const input: AnalyseInput = { kind: "loaf", lines: typicalLines("loaf", 1100), vessel: tin, oven: { celsius: 170 } };
  const minutesOf = (of: AnalyseInput): number => simulate(of, undefined, quick).done.mid;

  test("minutes that this tin cannot keep are told, with the two tins that can: computed, and so when they are baked", () => {
    const [found] = said(analyse({ ...input, said: { ...base, minutes: { low: 45, high: 45 } } }));
    expect(found?.message).toMatch(/^The recipe says 45 min; this tin with 1100 g of batter takes \d+ to \d+ min\.$/);
    const told = Number(/^Two tins would take about (\d+) min\.$/.exec(found?.fix ?? "")?.[1]);
    expect(told).toBe(Math.round(minutesOf({ ...input, vessel: { ...tin, pieces: 2 } })));
    expect(told).toBeLessThan(60);
  });
  test("minutes that agree are silent, and so is a change that the baker made", () => {
    const mid = minutesOf(input);
    expect(said(analyse({ ...input, said: { ...base, minutes: { low: mid - 3, high: mid + 3 } } }))).toEqual([]);
    const early = { ...base, celsius: 170, minutes: { low: 45, high: 45 } };
    for (const change of [
      { oven: { celsius: 190 } },
      { vessel: { ...tin, lengthMm: 300 } },
      { lines: typicalLines("loaf", 1400) },
    ] as AnalyseInput[])
      expect(said(analyse({ ...input, said: early, ...change }))).toEqual([]);
  });
  test("longer than the core needs is no fault while the top stays light; it is one where it burns", () => {
    const longer = (celsius: number, minutes: number) =>
      said(analyse({ ...input, oven: { celsius }, said: { ...base, celsius, minutes: { low: minutes, high: minutes } } }));
    expect(longer(150, Math.round(1.3 * minutesOf({ ...input, oven: { celsius: 150 } })))).toEqual([]);
    expect(longer(220, Math.round(2 * minutesOf({ ...input, oven: { celsius: 220 } })))[0]?.fix).toMatch(
      /Look at it from \d+ min on/,
    );
  });
  test("another number of pieces, another core and no pan are told with what they mean", () => {
    const cups: AnalyseInput = {
      kind: "muffin",
      lines: typicalLines("muffin", 900),
      vessel: { shape: "muffin", pieces: 12, diameterMm: 70, heightMm: 34 },
      oven: { celsius: 190 },
    };
    const found = said(
      analyse({ ...cups, said: { vessel: cups.vessel ?? tin, panNamed: true, batterG: 900, pieces: 18, coreC: 90 } }),
    );
    expect(found.map(({ message }) => message)).toEqual([
      "The recipe makes 18; here it is 12, of 75 g each.",
      expect.stringMatching(/stops at a core of 90 °C/),
    ]);
    expect(found[0]?.fix).toMatch(/^18 of them are 50 g each and take about \d+ min\.$/);
    const [noPan] = said(analyse({ ...input, said: { ...base, panNamed: false, minutes: { low: 40, high: 40 } } }));
    expect(noPan?.message).toMatch(/the recipe names no pan, and this tin/);
  });
  test("nothing is held against a recipe while its flour is open", () => {
    const lines = [...(input.lines ?? []), { name: "Flour of the house", unit: "cup" }];
    expect(said(analyse({ ...input, lines, said: { ...base, minutes: { low: 20, high: 20 } } }))).toEqual([]);
  });
});
