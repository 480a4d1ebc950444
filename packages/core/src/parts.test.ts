import fc from "fast-check";
import { readings } from "./balance/analyse";
import type { Formula } from "./formula/formula";
import { blendFromLabel, sharesByOrder } from "./formula/label";
import { asIngredient, type Book, expand, expandWeighed, formulaLineId } from "./formula/nested";
import type { WeighedLine } from "./formula/resolve";
import { builtInShelf, shelfWith } from "./pantry/catalogue";
import { ingredientSchema } from "./pantry/ingredient-schema";
import { openFormula } from "./formula/open";
import { bareKitchen } from "./formula/bare-kitchen";
import { pullsOf } from "./lift/pulls";
import { sharesByTins } from "./balance/new-part";
import { splitOf } from "./parts";

const entry = (title: string, formula: Record<string, number>): { title: string; lines: WeighedLine[] } => ({
  title,
  lines: Object.entries(formula).map(([ingredientId, grams]) => ({ ingredientId, grams })),
});
const pier = entry("Pier blend", { "sorghum-flour": 500, "tapioca-starch": 480, xanthan: 20 });
const bookOf =
  (entries: Record<string, ReturnType<typeof entry>>): Book =>
  (id) =>
    entries[id];
const exact = (grams: number) => ({ low: grams, mid: grams, high: grams });
const formula: Formula = {
  shape: 2,
  title: "Base batter",
  kind: "loaf",
  measures: "metric",
  lines: [
    { id: "a", ingredientId: formulaLineId("pier"), grams: exact(300) },
    { id: "b", ingredientId: "kefir", grams: exact(240) },
    { id: "c", ingredientId: "egg", grams: exact(100) },
    { id: "d", ingredientId: "soda", grams: exact(2.2) },
    { id: "e", ingredientId: "white-sugar", grams: exact(90) },
    { id: "f", ingredientId: "sunflower-oil", grams: exact(60) },
  ],
  vessel: { shape: "rectangular", lengthMm: 230, widthMm: 130, heightMm: 70 },
  oven: { celsius: 175 },
  process: {},
  notes: "",
};

describe("a formula as an ingredient", () => {
  test("is opened in its proportions and analysed as if its lines stood there", () => {
    const book = bookOf({ pier });
    const flat = readings({
      ...openFormula(formula, { ...bareKitchen, book }),
      lines: [
        ...formula.lines.slice(1),
        { ingredientId: "sorghum-flour", grams: 150 },
        { ingredientId: "tapioca-starch", grams: 144 },
        { ingredientId: "xanthan", grams: 6 },
      ],
    });
    const nested = readings(openFormula(formula, { ...bareKitchen, book }));
    expect(nested.batch.massG).toBeCloseTo(flat.batch.massG, 9);
    expect(nested.batch.flourG).toBeCloseTo(294, 9);
    expect(nested.lift.ph.mid).toBeCloseTo(flat.lift.ph.mid, 9);
    expect(nested.body.binder.percent).toBeCloseTo(flat.body.binder.percent, 9);
  });
  test("may be nested, and mass is kept at every depth", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 1, max: 900, noNaN: true }), { minLength: 1, maxLength: 5 }),
        fc.double({ min: 1, max: 500, noNaN: true }),
        (masses, grams) => {
          const entries: Record<string, ReturnType<typeof entry>> = { pier };
          masses.forEach(
            (mass, i) =>
              (entries[`f${i}`] = {
                title: `F${i}`,
                lines: [
                  { ingredientId: i === 0 ? formulaLineId("pier") : formulaLineId(`f${i - 1}`), grams: mass },
                  { ingredientId: "water", grams: 10 },
                ],
              }),
          );
          const lines = expandWeighed([{ ingredientId: formulaLineId(`f${masses.length - 1}`), grams }], bookOf(entries));
          const whole = lines.reduce((g, line) => g + (typeof line.grams === "number" ? line.grams : line.grams.mid), 0);
          return Math.abs(whole - grams) < 1e-9 * grams + 1e-9 && lines.every((line) => !line.ingredientId.startsWith("formula:"));
        },
      ),
    );
  });
  test("a cycle is refused with its path, a missing and an empty one are told", () => {
    const round = bookOf({
      a: entry("A", { [formulaLineId("b")]: 10 }),
      b: entry("B", { water: 5, [formulaLineId("a")]: 10 }),
      none: entry("None", {}),
    });
    expect(() => expand([{ ingredientId: formulaLineId("a"), grams: 1 }], round)).toThrow("“A” → “B” → “A”");
    expect(() => expand([{ ingredientId: formulaLineId("gone"), grams: 1 }], round)).toThrow(/No formula has the id "gone"/);
    expect(() => expand([{ ingredientId: formulaLineId("none"), grams: 1 }], round)).toThrow(/weighs nothing/);
  });
  test("stands on the sheet with its mean composition", () => {
    const blend = asIngredient("pier", pier, bookOf({ pier }), builtInShelf);
    expect(ingredientSchema.safeParse({ ...blend, id: "pier" }).error?.issues ?? []).toEqual([]);
    expect(blend.per100g.water).toBeCloseTo(0.5 * 10.5 + 0.48 * 11.5 + 0.02 * 11, 9);
    expect(blend.xanthanEquivalent).toBeCloseTo(2, 9);
  });
});

test("what the lines pull adds up to the ledger, nested or not", () => {
  const book = bookOf({ pier });
  const analysis = readings(openFormula(formula, { ...bareKitchen, book }));
  const pulls = [...pullsOf(formula, book, analysis.lift).values()];
  expect(pulls.reduce((all, p) => all + p.soda, 0)).toBeCloseTo(analysis.lift.sodaMmol.mid, 9);
  expect(pulls.reduce((all, p) => all + p.acid, 0)).toBeCloseTo(analysis.lift.acidMmol.mid, 6);
});

describe("a bought blend by its label", () => {
  test("expected shares fall in order and add up to one; three things are 11, 5 and 2 eighteenths", () => {
    expect(sharesByOrder(3).map((s) => s * 18)).toEqual([11, 5, 2].map((n) => expect.closeTo(n, 9)));
    for (let n = 1; n < 9; n++) {
      const shares = sharesByOrder(n);
      expect(shares.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
      expect([...shares].sort((a, b) => b - a)).toEqual(shares);
    }
  });
  test("its gum and its powder are counted, and neither is doubled unseen", () => {
    const blend = blendFromLabel(
      {
        id: "corner-shop",
        name: "Corner shop flour",
        order: ["white-rice-flour", "potato-starch", "corn-starch", "xanthan"],
        gumPercent: 0.8,
        powderPercent: 4,
      },
      builtInShelf,
    );
    expect(ingredientSchema.safeParse(blend).error?.issues ?? []).toEqual([]);
    expect(Object.values(blend.per100g).reduce((a, b) => a + (b ?? 0), 0)).toBeCloseTo(100, 0);
    expect(blend.xanthanEquivalent).toBeCloseTo(0.8 / 0.96, 1);
    const shelf = shelfWith([blend]);
    const analysis = readings(
      {
        kind: "scone",
        lines: [
          { ingredientId: "corner-shop", grams: 250 },
          { ingredientId: "xanthan", grams: 4 },
          { ingredientId: "powder-aluminium-free", grams: 10 },
          { ingredientId: "whole-milk", grams: 140 },
          { ingredientId: "butter", grams: 60 },
        ],
      },
      shelf,
    );
    expect(analysis.lift.sodaMmol.mid).toBeCloseTo(((0.285 * 20) / 84.007) * 1000, 0);
    expect(analysis.findings.map((f) => f.id)).toEqual(expect.arrayContaining(["binder-doubled", "leavening-counted-twice"]));
  });
  test("a label without flour, or with more gum than can be, is refused", () => {
    expect(() => blendFromLabel({ id: "x", name: "X", order: ["xanthan"] }, builtInShelf)).toThrow(/at least one flour/);
    expect(() =>
      blendFromLabel({ id: "x", name: "X", order: ["white-rice-flour", "xanthan"], gumPercent: 60 }, builtInShelf),
    ).toThrow(/up to 30 %/);
  });
});

describe("one batter, several parts", () => {
  const part = (id: string, share: number, kind: "muffin" | "loaf", additions: Formula["lines"] = []) => ({
    id,
    name: id,
    share,
    additions,
    kind,
    vessel: kind === "muffin" ? { shape: "muffin" as const, pieces: 6, diameterMm: 70, heightMm: 34 } : formula.vessel,
    oven: { celsius: 180 },
  });
  test("the parts and what is left make up the batter; each is judged by its own kind and pan", () => {
    const split = splitOf(
      {
        ...formula,
        parts: [part("cups", 0.4, "muffin", [{ id: "r", ingredientId: "raisins", grams: exact(40) }]), part("tin", 0.5, "loaf")],
      },
      { ...bareKitchen, book: bookOf({ pier }) },
    );
    const whole = readings(openFormula(formula, { ...bareKitchen, book: bookOf({ pier }) })).batch.massG;
    expect(split.left).toBeCloseTo(0.1, 9);
    expect(split.parts[0]?.analysis?.batch.massG).toBeCloseTo(0.4 * whole + 40, 6);
    expect(split.parts[1]?.analysis?.batch.massG).toBeCloseTo(0.5 * whole, 6);
    expect(split.parts[0]?.analysis?.fill.pieces).toBe(6);
    expect(split.parts[0]?.analysis?.given.kind).toBe("muffin");
  });
  test("a part without a share and without additions is there, but judged by nothing", () => {
    expect(
      splitOf({ ...formula, parts: [part("none", 0, "loaf")] }, { ...bareKitchen, book: bookOf({ pier }) }).parts[0]?.analysis,
    ).toBeNull();
  });
});

describe("one batter in several tins of different sizes", () => {
  const tin = (id: string, lengthMm: number): NonNullable<Formula["parts"]>[number] => ({ id, name: id, share: 0.5, additions: [], kind: "loaf", vessel: { shape: "rectangular", lengthMm, widthMm: 100, heightMm: 70 }, oven: { celsius: 175 } }); // prettier-ignore
  const sheet = {
    ...tin("buns", 1),
    share: 0.4,
    kind: "biscuit" as const,
    vessel: { shape: "free" as const, pieces: 4, thicknessMm: 25 },
  };
  test("filled alike by what they hold: of 200 and 100 mm, two thirds and one; each is as full as the other", () => {
    const shares = sharesByTins([tin("long", 200), tin("short", 100)]);
    expect(shares).toEqual([{ id: "long", share: 0.67 }, { id: "short", share: 0.33 }]); // prettier-ignore
    const parts = [tin("long", 200), tin("short", 100)].map((part, k) => ({ ...part, share: shares?.[k]?.share ?? 0 }));
    const [long = 0, short = 0] = splitOf({ ...formula, parts }, { ...bareKitchen, book: bookOf({ pier }) }).parts.map(({ analysis }) => analysis?.fill.fillFraction); // prettier-ignore
    expect(long / short).toBeCloseTo(1, 1);
  });
  test("what has no wall keeps its share, and a single tin is not shared", () => {
    expect(sharesByTins([tin("long", 200), sheet, tin("short", 100)])).toEqual([{ id: "long", share: 0.4 }, { id: "short", share: 0.2 }]); // prettier-ignore
    expect(sharesByTins([tin("long", 200), sheet])).toBeNull();
  });
  test("whatever the tins, their shares are whole percents that add up", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 40, max: 400 }), { minLength: 2, maxLength: 9 }), (lengths) => {
        const shares = sharesByTins(lengths.map((mm, k) => tin(`t${k}`, mm))) ?? [];
        expect(Math.round(100 * shares.reduce((sum, { share }) => sum + share, 0))).toBe(100);
        for (const { share } of shares) expect(Math.abs(100 * share - Math.round(100 * share))).toBeLessThan(1e-9);
      }),
    );
  });
});
