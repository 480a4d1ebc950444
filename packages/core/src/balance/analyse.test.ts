import fc from "fast-check";
import { type AnalyseInput, analysisSchema, baked, readings } from "./analyse";
import { consistencyOf, stiffnessOf, type Consistency } from "../body/consistency";
import { fillVessel } from "../bake/geometry";
import { kinds } from "../formula/kinds";
import { resolve } from "../formula/resolve";
import { builtInShelf, catalogue } from "../pantry/catalogue";

const idsOf = (lines: [string, number][], more: Partial<Parameters<typeof readings>[0]> = {}) =>
  readings({ lines: lines.map(([ingredientId, grams]) => ({ ingredientId, grams })), ...more }).findings.map((f) => f.id);

const loaf: [string, number][] = [
  ["gf-blend-plain", 300],
  ["xanthan", 2],
  ["whole-milk", 230],
  ["egg", 110],
  ["sunflower-oil", 80],
  ["white-sugar", 130],
  ["powder-aluminium-free", 17],
  ["salt", 4],
];

describe("places to meet", () => {
  const cases: [string, [string, number][], Consistency[], "creaming" | "cut-in" | undefined][] = [
    [
      "crêpe",
      [
        ["white-rice-flour", 120],
        ["whole-milk", 300],
        ["egg", 100],
        ["butter", 20],
      ],
      ["pourable"],
      undefined,
    ],
    [
      "griddle cake",
      [
        ["gf-blend-plain", 150],
        ["whole-milk", 180],
        ["egg", 50],
        ["butter", 25],
        ["white-sugar", 15],
        ["powder-aluminium-free", 9],
      ],
      ["pourable"],
      undefined,
    ],
    ["quick-bread loaf", loaf, ["spoonable", "scoopable"], undefined],
    [
      "cornbread with buttermilk",
      [
        ["cornmeal", 250],
        ["buttermilk", 330],
        ["egg", 100],
        ["butter", 50],
        ["soda", 2],
        ["powder-aluminium-free", 8],
      ],
      ["pourable", "spoonable"],
      undefined,
    ],
    [
      "brownie",
      [
        ["gf-blend-plain", 100],
        ["egg", 110],
        ["butter", 115],
        ["white-sugar", 200],
        ["cocoa-natural", 45],
      ],
      ["scoopable"],
      undefined,
    ],
    [
      "scone",
      [
        ["gf-blend-plain", 250],
        ["xanthan", 1.5],
        ["whole-milk", 115],
        ["egg", 45],
        ["butter", 70],
        ["caster-sugar", 40],
        ["powder-aluminium-free", 16],
      ],
      ["soft-dough"],
      "cut-in",
    ],
    [
      "flatbread to roll",
      [
        ["gf-blend-plain", 200],
        ["psyllium-husk", 8],
        ["water", 135],
        ["olive-oil", 15],
      ],
      ["soft-dough", "firm-dough"],
      undefined,
    ],
  ];
  test.each(cases)("%s", (_, lines, words, method) => {
    const items = resolve(
      lines.map(([ingredientId, grams]) => ({ ingredientId, grams })),
      builtInShelf,
    );
    expect(words).toContain(consistencyOf(stiffnessOf(items, method)));
  });
  test("more water never makes a batter stiffer", () => {
    fc.assert(
      fc.property(fc.double({ min: 60, max: 400, noNaN: true }), fc.double({ min: 1, max: 100, noNaN: true }), (water, more) => {
        const at = (w: number) =>
          stiffnessOf(
            resolve(
              [
                { ingredientId: "sorghum-flour", grams: 200 },
                { ingredientId: "xanthan", grams: 1 },
                { ingredientId: "water", grams: w },
              ],
              builtInShelf,
            ),
            undefined,
          );
        expect(at(water + more)).toBeLessThanOrEqual(at(water) + 1e-9);
      }),
    );
  });
});

test("the liquid said to bring the next word brings it", () => {
  fc.assert(
    fc.property(fc.double({ min: 120, max: 420, noNaN: true }), (milk) => {
      const lines = loaf.map(([ingredientId, grams]) => ({ ingredientId, grams: ingredientId === "whole-milk" ? milk : grams }));
      for (const next of readings({ kind: "loaf", lines }).body.next) {
        const changed = lines.map((line) => (line.ingredientId === next.ingredientId ? { ...line, grams: next.toG } : line));
        expect(readings({ kind: "loaf", lines: changed }).body.consistency).toBe(next.consistency);
      }
    }),
    { numRuns: 40 },
  );
});

describe("the pan", () => {
  test("a straight-walled pan is filled by volume over area", () => {
    const fill = fillVessel({ shape: "rectangular", lengthMm: 200, widthMm: 100, heightMm: 80 }, 800, 1);
    expect([fill.depthMm, 100 * fill.fillFraction, fill.capacityMl].map((value) => Math.round(value * 1e6) / 1e6)).toEqual([
      40, 50, 1600,
    ]);
    const round = fillVessel({ shape: "round", diameterMm: 200, heightMm: 50 }, 1000, 1);
    expect(round.depthMm).toBeCloseTo(1e6 / (Math.PI * 1e4), 9);
  });
  test("a cup filled to its rim is as deep as it is high", () => {
    const cup = (Math.PI * 34 * (70 ** 2 + 70 * 54.6 + 54.6 ** 2)) / 12 / 1000;
    const fill = fillVessel({ shape: "muffin", pieces: 12, diameterMm: 70, heightMm: 34 }, 12 * cup, 1);
    expect(fill.fillFraction).toBeCloseTo(1, 6);
    expect(fill.depthMm).toBeCloseTo(34, 4);
  });
  test("free pieces keep their volume", () => {
    const fill = fillVessel({ shape: "free", pieceG: 80, thicknessMm: 25 }, 800, 1.1);
    expect(fill.pieces).toBe(10);
    expect((Math.PI / 4) * fill.widthMm ** 2 * 25).toBeCloseTo(80000 / 1.1, 3);
  });
  test("a missing measure is asked for by name", () => expect(() => fillVessel({ shape: "round" }, 500, 1)).toThrow(/diameterMm/));
});

describe("the race", () => {
  const raceIn = (input: AnalyseInput) => baked(input, undefined, { frames: 0, spread: 0 }).analysis.race;
  const raceFor = (leavener: [string, number], restMinutes = 0) =>
    raceIn({
      kind: "loaf",
      process: { restMinutes },
      lines: [...loaf.filter(([id]) => id !== "powder-aluminium-free"), leavener].map(([ingredientId, grams]) => ({
        ingredientId,
        grams,
      })),
    });
  test("gas and set only grow, from nothing to nearly all", () => {
    const { gas, set, minutes } = raceFor(["powder-double-acting", 17]);
    for (const curve of [gas, set, minutes])
      curve.slice(1).forEach((value, i) => expect(value).toBeGreaterThanOrEqual((curve[i] ?? 0) - 1e-12));
    expect(set[0]).toBeLessThan(1e-6);
    expect(set.at(-1)).toBeGreaterThan(0.95);
    expect(gas.at(-1)).toBeGreaterThan(0.95);
  });
  test("a single-acting powder that stands an hour has nearly run when the oven begins, a double-acting one has not", () => {
    const atDoor = (r: ReturnType<typeof raceFor>) => r.gas[r.minutes.findIndex((m) => m >= 0)] ?? 0;
    expect(atDoor(raceFor(["powder-single-acting", 17], 60))).toBeGreaterThan(0.9);
    expect(atDoor(raceFor(["powder-double-acting", 17], 60))).toBeLessThan(0.45);
  });
  test("sugar holds the setting back, so more of the gas comes before it", () => {
    const sweetened = (sugarG: number): AnalyseInput => ({
      kind: "loaf",
      lines: loaf.map(([ingredientId, grams]) => ({ ingredientId, grams: ingredientId === "white-sugar" ? sugarG : grams })),
    });
    expect(readings(sweetened(260)).body.settingC.mid).toBeGreaterThan(readings(sweetened(10)).body.settingC.mid);
    expect(raceIn(sweetened(260)).beforeSet).toBeGreaterThanOrEqual(raceIn(sweetened(10)).beforeSet);
  });
});

describe("readings", () => {
  test.each(kinds)("a typical batter of %s is balanced enough to have no stop and no caution", (kind) => {
    const analysis = readings({ kind, batchG: kind === "muffin" ? 864 : kind === "tray-bread" ? 1340 : 800 });
    expect(analysisSchema.safeParse(analysis).error?.issues ?? []).toEqual([]);
    expect(analysis.batch.massG).toBeCloseTo(kind === "muffin" ? 864 : kind === "tray-bread" ? 1340 : 800, 6);
    expect(analysis.findings.filter((f) => f.severity !== "note").map((f) => f.id)).toEqual([]);
  });
  test("faults are found", () => {
    expect(idsOf([...loaf, ["soda", 5]])).toContain("soda-unmet");
    expect(idsOf(loaf.map(([id, g]) => [id, id === "powder-aluminium-free" ? 34 : g]))).toContain("powder-high");
    expect(idsOf(loaf.filter(([id]) => id !== "powder-aluminium-free"))).toContain("lift-low");
    expect(idsOf(loaf.filter(([id]) => id !== "xanthan" && id !== "egg"))).toContain("no-binder");
    expect(
      idsOf([
        ["gf-blend-gum", 300],
        ["xanthan", 6],
        ["whole-milk", 300],
        ["egg", 100],
        ["powder-aluminium-free", 15],
      ]),
    ).toContain("binder-doubled");
    expect(
      idsOf([
        ["gf-blend-self-raising", 300],
        ["powder-aluminium-free", 12],
        ["whole-milk", 250],
        ["egg", 100],
      ]),
    ).toContain("leavening-counted-twice");
    expect(idsOf([...loaf, ["water", 300]])).toContain("too-wet");
    expect(idsOf(loaf.map(([id, g]) => [id, id === "whole-milk" ? 20 : g]))).toContain("too-dry");
    expect(
      idsOf([
        ["wheat-flour", 250],
        ["whole-milk", 200],
        ["powder-aluminium-free", 12],
      ]),
    ).toContain("gluten-check");
    expect(
      idsOf([
        ["oat-flour", 250],
        ["whole-milk", 300],
        ["powder-aluminium-free", 12],
        ["xanthan", 2],
      ]),
    ).toContain("oats-check");
    expect(idsOf([...loaf, ["blueberries", 120], ["soda", 4]])).toContain("colour-shift");
    expect(idsOf(loaf.map(([id, g]) => [id, g * 2]))).toContain("pan-overfull");
    expect(idsOf(loaf, { vessel: { shape: "rectangular", lengthMm: 330, widthMm: 230, heightMm: 60 } })).toContain("pan-shallow");
    expect(
      idsOf(
        [
          ["white-rice-flour", 300],
          ["kefir", 330],
          ["egg", 100],
          ["soda", 3],
          ["xanthan", 2],
        ],
        { process: { restMinutes: 60 } },
      ),
    ).toContain("lift-early");
    expect(idsOf([...loaf, ["lemon-juice", 120]])).toContain("acid-excess");
  });
  test("the fix for unmet soda, when followed, unmeets no soda", () => {
    const bad: [string, number][] = [...loaf.filter(([id]) => id !== "powder-aluminium-free"), ["soda", 6]];
    const finding = readings(
      { lines: bad.map(([ingredientId, grams]) => ({ ingredientId, grams })) },
      undefined,
      true,
    ).findings.find((f) => f.id === "soda-unmet");
    const drop = /(?:Drop the soda to ([\d.]+) g|Leave the soda out).*?add ([\d.]+) g/.exec(finding?.fix ?? "");
    expect(drop).not.toBeNull();
    const mended = bad.map(([id, g]): [string, number] => [id, id === "soda" ? Number(drop?.[1] ?? 0) : g]);
    expect(idsOf([...mended, ["powder-aluminium-free", Number(drop?.[2])]])).not.toContain("soda-unmet");
  });
  test("the fix for a wet batter, when followed, is wet no more", () => {
    const wet: [string, number][] = loaf.map(([id, g]) => [id, id === "whole-milk" ? 420 : g]);
    const finding = readings(
      { kind: "scone", lines: wet.map(([ingredientId, grams]) => ({ ingredientId, grams })) },
      undefined,
      true,
    ).findings.find((f) => f.id === "too-wet");
    const held = /Hold back ([\d.]+) g/.exec(finding?.fix ?? "");
    expect(held).not.toBeNull();
    expect(
      idsOf(
        wet.map(([id, g]) => [id, id === "whole-milk" ? g - Number(held?.[1]) : g]),
        { kind: "scone" },
      ),
    ).not.toContain("too-wet");
  });
  test("whatever is on the sheet, the answer has the promised shape and finite numbers", () => {
    const line = fc.record({
      ingredientId: fc.constantFrom(...catalogue.map((i) => i.id)),
      grams: fc.double({ min: 0, max: 800, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 20 }), fc.constantFrom(...kinds), (lines, kind) => {
        fc.pre(lines.some((l) => l.grams > 0.1));
        const parsed = analysisSchema.safeParse(readings({ lines, kind }));
        expect(parsed.error?.issues ?? []).toEqual([]);
      }),
      { numRuns: 200 },
    );
  });
  test("nothing to readings is said", () => {
    expect(() => readings({ kind: "loaf" })).toThrow(/batchG/);
    expect(() => readings({ lines: [{ ingredientId: "water", grams: 0 }] })).toThrow(/0 g/);
  });
});
