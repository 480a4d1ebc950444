import fc from "fast-check";
import { builtInShelf } from "../pantry/catalogue";
import { baked, readings } from "../balance/analyse";
import { balance } from "../balance/balance";
import { swap } from "../balance/swap";
import { splitOf } from "../parts";
import { componentShare } from "./open-part";
import { type InputLine, placeOf, sortLines } from "./components";
import type { FormulaComponent } from "./components-schema";
import { applyEdit, applyEdits } from "./edits";
import type { Formula, FormulaLine } from "./formula";
import { openFormula } from "./open";
import { bareKitchen } from "./bare-kitchen";
import { bookEntryOf } from "./nested";
import { scaleLines } from "./scale";

const exact = (grams: number) => ({ low: grams, mid: grams, high: grams });
const line = (id: string, ingredientId: string, grams: number, component?: string): FormulaLine => ({
  id,
  ingredientId,
  grams: exact(grams),
  ...(component ? { component } : {}),
});
const components: FormulaComponent[] = [
  { id: "soak", name: "Soaker", role: "soaker" },
  { id: "fill", name: "Pear filling", role: "filling", cookedG: 150 },
  { id: "crumb", name: "Crumble", role: "topping" },
  { id: "ice", name: "Icing", role: "glaze" },
];
const loaf: Formula = {
  shape: 2,
  title: "Pear loaf, filled",
  kind: "loaf",
  measures: "metric",
  components,
  lines: [
    line("a", "sorghum-flour", 150),
    line("b", "tapioca-starch", 100),
    line("c", "buttermilk", 220),
    line("d", "egg", 100),
    line("e", "sunflower-oil", 50),
    line("f", "white-sugar", 80),
    line("g", "soda", 3),
    line("h", "powder-aluminium-free", 6),
    line("i", "psyllium-husk", 6),
    line("j", "rolled-oats", 40, "soak"),
    line("k", "water", 60, "soak"),
    line("l", "pear", 180, "fill"),
    line("m", "white-sugar", 20, "fill"),
    line("n", "sorghum-flour", 40, "crumb"),
    line("o", "butter", 30, "crumb"),
    line("p", "icing-sugar", 80, "ice"),
    line("q", "lemon-juice", 12, "ice"),
  ],
  vessel: { shape: "rectangular", lengthMm: 230, widthMm: 130, heightMm: 70, material: "light-metal" },
  oven: { celsius: 175, mode: "still" },
  process: { method: "muffin" },
  notes: "",
};
const read = (formula: Formula) => readings(openFormula(formula, bareKitchen));
/** The numbers of a reading, without its lists of names. */
const numbersOf = ({ batch, lift, body, fill, bake, race, bands }: ReturnType<typeof read>) => ({
  batch,
  lift,
  body,
  fill,
  bake,
  race,
  bands,
});

describe("components", () => {
  test("have their usual place in the bake by role and name, or the one that is said", () => {
    expect(components.map(placeOf)).toEqual(["batter", "inside", "top", "after"]);
    expect(placeOf({ role: "glaze", name: "Egg wash" })).toBe("top");
    expect(placeOf({ role: "glaze", name: "Brushed on" })).toBe("top");
    expect(placeOf({ role: "serve", name: "To serve" })).toBe("apart");
    expect(placeOf({ role: "topping", name: "Crumble", place: "base" })).toBe("base");
  });
  test("only the batter and what is soaked for it are in lift, body, bands and fill", () => {
    const whole = read(loaf);
    const alone = read({ ...loaf, lines: loaf.lines.filter(({ component }) => component === undefined || component === "soak") });
    expect(numbersOf(whole)).toEqual(numbersOf(alone));
    // By hand: 150 + 100 + 220 + 100 + 50 + 80 + 3 + 6 + 6 + 40 + 60.
    expect(whole.batch.massG).toBeCloseTo(815, 9);
  });
  test("masses add up to the whole, and a cooked filling has its cooked mass, with less water and as much sugar", () => {
    const { components: masses } = read(loaf);
    expect(masses.map(({ id, role, weighedG }) => [id, role, weighedG])).toEqual([
      ["batter", "batter", 715],
      ["soak", "soaker", 100],
      ["fill", "filling", 200],
      ["crumb", "topping", 70],
      ["ice", "glaze", 92],
    ]);
    const all = loaf.lines.reduce((g, { grams }) => g + (grams?.mid ?? 0), 0);
    expect(masses.reduce((g, { weighedG }) => g + weighedG, 0)).toBeCloseTo(all, 9);
    const filling = masses[2];
    const raw = read(applyEdit(loaf, { edit: "set-component", componentId: "fill", set: {}, clear: ["cookedG"] })).components[2];
    expect([filling?.massG, raw?.massG]).toEqual([150, 200]);
    expect((raw?.waterG ?? 0) - (filling?.waterG ?? 0)).toBeCloseTo(50, 9);
    expect(filling?.sugarG).toBeCloseTo(raw?.sugarG ?? 0, 9);
  });
  test("a cooked mass under what is no water is told, with the least that it can be", () => {
    const found = read(applyEdit(loaf, { edit: "set-component", componentId: "fill", set: { cookedG: 20 } })).findings;
    expect(found.find(({ id }) => id === "cooked-mass")?.fix).toMatch(/more than \d+ g would be right/);
  });
  test("a soaker has drunk: the batter is as stiff at once as it would be after hours", () => {
    const late = read({ ...loaf, process: { restMinutes: 480 } }).body;
    const asBatter = read({
      ...loaf,
      lines: loaf.lines.map(({ component, ...rest }) =>
        component === "soak" ? rest : { ...rest, ...(component ? { component } : {}) },
      ),
    });
    const soaked = read(loaf).body;
    expect(soaked.atMinutes[0]?.loading).toBeLessThan(asBatter.body.atMinutes[0]?.loading ?? 0);
    expect(asBatter.body.atMinutes.at(-1)?.loading).toBeCloseTo(late.atMinutes.at(-1)?.loading ?? 0, 2);
  });
  test("gluten in a glaze is gluten in the bake", () => {
    const malted = applyEdit(loaf, { edit: "add", line: line("z", "wheat-flour", 5, "ice") });
    expect(read(malted).findings[0]).toMatchObject({ id: "gluten-check", severity: "stop" });
  });
  test("a line in a component that is not there is refused with those that are", () => {
    expect(() => sortLines([{ ingredientId: "pear", grams: 1, component: "nowhere" }], components, builtInShelf)).toThrow(
      /No component has the id "nowhere"; one of soak, fill, crumb, ice/,
    );
  });
  test("moving a line out of the batter and back changes nothing", () => {
    fc.assert(
      fc.property(fc.constantFrom(..."abcdefghi"), fc.constantFrom("fill", "crumb", "ice", "soak"), (id, component) => {
        const next = loaf.lines[loaf.lines.findIndex((l) => l.id === id) + 1];
        const out = applyEdit(loaf, { edit: "place", lineId: id, component });
        const back = applyEdit(out, { edit: "place", lineId: id, ...(next && !next.component ? { before: next.id } : {}) });
        expect(back).toEqual(loaf);
        expect(read(back)).toEqual(read(loaf));
        if (component !== "soak") expect(read(out).batch.massG).toBeLessThan(read(loaf).batch.massG);
      }),
      { numRuns: 40 },
    );
  });
  test("scaling scales every component, cooked masses too", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 6, noNaN: true }), (factor) => {
        const before = read(loaf).components;
        read(applyEdit(loaf, { edit: "scale", factor })).components.forEach(({ massG, weighedG, waterG }, i) => {
          expect(massG).toBeCloseTo((before[i]?.massG ?? 0) * factor, 6);
          expect(weighedG).toBeCloseTo((before[i]?.weighedG ?? 0) * factor, 6);
          expect(waterG).toBeCloseTo((before[i]?.waterG ?? 0) * factor, 6);
        });
      }),
      { numRuns: 20 },
    );
  });
});

describe("open lines", () => {
  const openings: InputLine[] = [
    { name: "Flour of the house", unit: "cup" },
    { ingredientId: "buttermilk" },
    { ingredientId: "salt" },
    { name: "stardust" },
    { ingredientId: "icing-sugar", component: "ice" },
    { ingredientId: "pecans", grams: 40, off: true },
  ];
  test("never change a number, only whether it is final", () => {
    fc.assert(
      fc.property(fc.subarray(openings, { minLength: 1 }), fc.nat(17), (some, at) => {
        const input = openFormula(loaf, bareKitchen);
        const lines = [...input.lines.slice(0, at), ...some, ...input.lines.slice(at)];
        const [plain, open] = [readings(input), readings({ ...input, lines })];
        expect(numbersOf(open)).toEqual(numbersOf(plain));
        expect(open.components).toEqual(plain.components);
        expect(open.final).toBe(!some.some((l) => l === openings[0] || l === openings[1]));
        expect(open.open).toHaveLength(some.filter(({ off }) => off !== true).length);
      }),
      { numRuns: 60 },
    );
  });
  test("are named by what is open, and make every other finding provisional while a flour, the liquid or a leavener is", () => {
    const without = applyEdits(loaf, [
      { edit: "add", line: { id: "x", name: "Rye-like flour" } },
      { edit: "scale", factor: 4 },
    ]);
    const { findings, open, final } = read(without);
    expect([open, final]).toEqual([[{ name: "Rye-like flour", matters: true }], false]);
    expect(findings.find(({ id }) => id === "not-weighed")?.message).toMatch(/“Rye-like flour” is still open/);
    expect(findings.find(({ id }) => id === "pan-overfull")).toMatchObject({ severity: "stop", provisional: true });
  });
  test("stay in what balance and swap propose, and are named by them", () => {
    const soapy = applyEdits(loaf, [
      { edit: "set-amount", lineId: "g", grams: exact(9) },
      { edit: "add", line: { id: "x", name: "stardust" } },
    ]);
    const { proposals, without } = balance(openFormula(soapy, bareKitchen));
    expect(without).toEqual(["stardust"]);
    expect(proposals.length).toBeGreaterThan(0);
    for (const { lines } of proposals) {
      expect(lines).toContainEqual({ name: "stardust" });
      expect(lines).toContainEqual({ ingredientId: "pear", grams: 180, component: "fill" });
      expect(lines).toContainEqual(expect.objectContaining({ ingredientId: "rolled-oats", component: "soak" }));
    }
  });
  test("of a formula that stands on a line of another are open there", () => {
    const entry = bookEntryOf({ ...loaf, lines: [...loaf.lines, { id: "x", name: "Rye-like flour", unit: "cup" }] }, builtInShelf);
    expect(entry.lines.some(({ ingredientId }) => ingredientId === "icing-sugar")).toBe(false);
    const input = openFormula(
      { ...loaf, components: [], lines: [line("a", "formula:inner", 400)] },
      { ...bareKitchen, book: (id) => (id === "inner" ? entry : undefined) },
    );
    expect(readings(input).open.map(({ name }) => name)).toEqual(["Rye-like flour in “Pear loaf, filled”"]);
  });
  test("a batter of which nothing is weighed says what is open", () => {
    expect(() =>
      readings({ lines: [{ ingredientId: "butter" }, { ingredientId: "pear", grams: 5, component: "fill" }], components }),
    ).toThrow(/Its batter weighs 0 g.*Not weighed yet: Butter/);
  });
});

describe("a swap with components", () => {
  test("takes what is leaving out of all of them, in the batter's proportion, and says what changes where", () => {
    const buttery = applyEdit(loaf, { edit: "add", line: line("x", "butter", 40) });
    const { proposals } = swap(openFormula(buttery, bareKitchen), { replace: "butter" });
    expect(proposals.length).toBeGreaterThan(0);
    for (const { lines, changes, allergensRemoved } of proposals) {
      expect(lines.some(({ ingredientId }) => ingredientId === "butter")).toBe(false);
      expect(changes).toContainEqual({ ingredientId: "butter", fromG: 30, toG: 0, component: "crumb" });
      expect(allergensRemoved).not.toContain("milk");
    }
    const taken = applyEdit(buttery, { edit: "take-changes", title: "", changes: proposals[0]?.changes ?? [] });
    expect(taken.lines.some(({ ingredientId }) => ingredientId === "butter")).toBe(false);
    const grams = (list: readonly InputLine[]): number =>
      list.reduce((g, l) => g + (l.off || l.grams === undefined ? 0 : typeof l.grams === "number" ? l.grams : l.grams.mid), 0);
    expect(grams(taken.lines)).toBeCloseTo(grams(proposals[0]?.lines ?? []), 6);
  });
  test("of what stands only in a topping leaves the batter as it is", () => {
    const { proposals } = swap(openFormula(loaf, bareKitchen), { replace: "butter", with: "coconut-oil" });
    expect(proposals[0]?.changes).toEqual([
      { ingredientId: "butter", fromG: 30, toG: 0, component: "crumb" },
      { ingredientId: "coconut-oil", fromG: 0, toG: 24, component: "crumb" },
    ]);
    expect(proposals[0]?.after).toEqual(proposals[0]?.before);
  });
});

describe("parts of a batter and its components", () => {
  const part = (id: string, share: number, some?: string[]) => ({
    id,
    name: id,
    share,
    additions: [],
    kind: "muffin" as const,
    vessel: { shape: "muffin" as const, diameterMm: 70, heightMm: 35, pieces: 6 },
    oven: { celsius: 190 },
    ...(some ? { components: some } : {}),
  });
  test("one part gets the filling, all of it; a component that all take is shared by their shares", () => {
    const split: Formula = { ...loaf, parts: [part("plain", 0.4, ["crumb"]), part("filled", 0.6, ["fill", "crumb"])] };
    const masses = splitOf(split).parts.map(({ analysis }) =>
      Object.fromEntries((analysis?.components ?? []).map(({ id, massG }) => [id, Math.round(massG)])),
    );
    expect(masses).toEqual([
      { batter: 286, soak: 40, crumb: 28 },
      { batter: 429, soak: 60, fill: 150, crumb: 42 },
    ]);
    expect(splitOf(split).unused.map(({ id }) => id)).toEqual(["ice"]);
  });
  test("a part without a list gets its share of everything", () => {
    const half: Formula = { ...loaf, parts: [part("half", 0.5)] };
    for (const component of components.slice(1)) expect(componentShare(half, half.parts?.[0] ?? part("x", 0), component)).toBe(0.5);
  });
});

test("a bake of everything that is on the sheet differs from that of the batter alone, and both close", () => {
  const input = openFormula(loaf, bareKitchen);
  const [whole, batter] = [baked(input), baked({ ...input, lines: sortLines(input.lines, components, builtInShelf).batter })].map(
    ({ analysis }) => analysis,
  );
  expect(whole?.bake.minutes.mid).toBeGreaterThan(batter?.bake.minutes.mid ?? Infinity);
  expect(whole?.fill.depthMm).toBeCloseTo(batter?.fill.depthMm ?? 0, 9);
  expect(scaleLines(loaf.lines, 1)).toEqual(loaf.lines);
});
