import { analyse, catalogue, kinds, ovenModes, readRecipe, type Vessel, vesselLibrary } from "@uprise/core";
import fc from "fast-check";
import {
  analysisSchema,
  balanceRequestSchema,
  formulaInputSchema,
  formulaRequestSchema,
  idSchema,
  ingredientInputSchema,
  ovenInputSchema,
  pageQuerySchema,
  problemSchema,
  readingSchema,
  readRequestSchema,
  simulateRequestSchema,
  swapRequestSchema,
  vesselInputSchema,
} from "./index";

const overTheWire = <T>(value: T): unknown => JSON.parse(JSON.stringify(value)) as unknown;
/** The messages of what a schema refuses. */
const told = (
  schema: { safeParse: (value: unknown) => { error?: { issues: { path: PropertyKey[]; message: string }[] } | undefined } },
  value: unknown,
): string => (schema.safeParse(value).error?.issues ?? []).map((issue) => `${issue.path.join(".")}: ${issue.message}`).join("; ");

const formula = {
  shape: 2,
  title: "Pier loaf",
  kind: "loaf",
  measures: "metric",
  lines: [{ id: "a", ingredientId: "sorghum-flour", grams: { low: 195, mid: 200, high: 205 }, unit: "g" }],
  vessel: { shape: "rectangular", lengthMm: 230, widthMm: 130, heightMm: 70 },
  oven: { celsius: 175, mode: "fan", ovenId: "kiosk-oven" },
  process: { method: "muffin", restMinutes: 10 },
  notes: "",
};

describe("requests", () => {
  test.each([
    ["analyse", formulaRequestSchema],
    ["simulate", simulateRequestSchema],
    ["balance", balanceRequestSchema],
  ])("%s takes lines, a text, or a kind with a batch, and says so when there is none of them", (_, schema) => {
    const lines = [{ ingredientId: "water", grams: 5 }];
    for (const body of [{ lines }, { text: "5 g water" }, { kind: "loaf", batchG: 800 }]) expect(told(schema, body)).toBe("");
    for (const body of [{}, { kind: "loaf" }, { lines: [] }])
      expect(told(schema, body)).toMatch(/Send text, lines, or a kind with batchG/);
  });
  test.each([
    [{ lines: [{ ingredientId: "water", grams: -1 }] }, /lines.0.grams/],
    [{ lines: [{ ingredientId: "", grams: 1 }] }, /lines.0.ingredientId/],
    [{ kind: "cake", batchG: 500 }, /kind/],
    [{ kind: "loaf", batchG: 0 }, /batchG/],
    [{ kind: "loaf", batchG: 500, oven: { celsius: 350 } }, /°F\? 350 °F is 177 °C/],
    [{ kind: "loaf", batchG: 500, vessel: { shape: "round", diameterMm: 9 } }, /Did you mean centimetres/],
    [{ kind: "loaf", batchG: 500, process: { restMinutes: -5 } }, /process.restMinutes/],
  ])("%j is refused at the place where it is wrong", (body, message) => expect(told(formulaRequestSchema, body)).toMatch(message));
  test("swap must know what to replace; minutes of a bake have an end", () => {
    expect(told(swapRequestSchema, { kind: "loaf", batchG: 500, replace: "" })).toMatch(/which ingredient to replace/);
    expect(told(swapRequestSchema, { kind: "loaf", batchG: 500, replace: "egg", avoid: ["milk"] })).toBe("");
    for (const minutes of [0.4, 241])
      expect(told(simulateRequestSchema, { kind: "loaf", batchG: 500, minutes })).toMatch(/0.5 to 240/);
  });
  test("a text has an end", () => {
    expect(told(readRequestSchema, { text: "x".repeat(100_001) })).toMatch(/100 000/);
    expect(told(readRequestSchema, { text: "1 cup oats", measures: "imperial" })).toMatch(/measures/);
  });
});

describe("what is stored", () => {
  test("a formula comes back from the wire as it went", () => {
    expect(formulaInputSchema.parse(overTheWire(formula))).toEqual(formula);
  });
  test.each([
    [{ ...formula, title: "  " }, /needs a name/],
    [{ ...formula, shape: 3 }, /shape/],
    [{ ...formula, lines: [{ ...formula.lines[0], grams: { low: 9, mid: 5, high: 7 } }] }, /low ≤ mid ≤ high/],
    [{ ...formula, lines: Array.from({ length: 201 }, () => formula.lines[0]) }, /lines/],
    [{ ...formula, reason: "x".repeat(301) }, /reason/],
  ])("a faulty formula is refused", (body, message) => expect(told(formulaInputSchema, body)).toMatch(message));
  test("every vessel of the library passes, and any sensible one of one's own", () => {
    for (const { name, vessel } of vesselLibrary) expect(told(vesselInputSchema, { name, vessel })).toBe("");
    const own = fc.record({
      shape: fc.constantFrom("rectangular" as const, "round" as const, "ring" as const),
      lengthMm: fc.integer({ min: 20, max: 900 }),
      widthMm: fc.integer({ min: 20, max: 900 }),
      diameterMm: fc.integer({ min: 15, max: 900 }),
      heightMm: fc.integer({ min: 5, max: 300 }),
      capacityMl: fc.integer({ min: 5, max: 50_000 }),
    });
    fc.assert(
      fc.property(own, (vessel) => {
        const sent: { name: string; vessel: Vessel } = { name: "Mine", vessel };
        expect(vesselInputSchema.parse(overTheWire(sent))).toEqual(sent);
      }),
    );
  });
  test("an oven knows how far it is off, within reason", () => {
    const oven = { name: "Deck", modes: ["still"], biasK: -8, swingK: 10, warmMinutes: 20, racks: 2 };
    expect(ovenInputSchema.parse(overTheWire(oven))).toEqual(oven);
    expect(told(ovenInputSchema, { ...oven, biasK: 61 })).toMatch(/biasK/);
    expect(told(ovenInputSchema, { ...oven, modes: [] })).toMatch(/modes/);
    expect(told(ovenInputSchema, { ...oven, racks: 0 })).toMatch(/racks/);
    expect(ovenModes).toContain("air-fryer");
  });
  test("every ingredient of the pantry passes; one whose parts do not add up is told", () => {
    for (const entry of catalogue) expect([entry.id, told(ingredientInputSchema, entry)]).toEqual([entry.id, ""]);
    const short = { ...catalogue[0], per100g: { ...catalogue[0]?.per100g, water: 60, starch: 90 } };
    expect(told(ingredientInputSchema, short)).toMatch(/adds up to 100 g/);
  });
  test.each(["pear-loaf", "A_1", "x".repeat(64)])("%s is an id", (id) => expect(told(idSchema, id)).toBe(""));
  test.each(["", "a b", "../etc", "é", "x".repeat(65)])("%j is none", (id) =>
    expect(told(idSchema, id)).toMatch(/1 to 64 letters/),
  );
});

test("pages are counted from one and have an end", () => {
  expect(pageQuerySchema.parse({ page: "3", pageSize: "500" })).toEqual({ page: 3, pageSize: 500 });
  expect(pageQuerySchema.parse({})).toEqual({ page: 1, pageSize: 50 });
  for (const query of [{ page: "0" }, { pageSize: "501" }, { page: "two" }]) expect(told(pageQuerySchema, query)).not.toBe("");
});

test.each(kinds)("the analysis of a typical %s survives the wire unchanged", (kind) => {
  const analysis = analyse({ kind, batchG: 600 });
  expect(analysisSchema.parse(overTheWire(analysis))).toEqual(analysis);
});

test("so does a reading, with everything that was pasted", () => {
  const reading = readRecipe("Cakes\n1 1/2 cups oat flour\na handful of luck\nBake at 350 °F for 20 min");
  expect(readingSchema.parse(overTheWire(reading))).toEqual(overTheWire(reading));
  expect(reading.lines.map((line) => line.source)).toContain("a handful of luck");
});

test("a problem names its place and keeps what the server knows beside it", () => {
  const problem = {
    type: "about:blank",
    title: "Conflict",
    status: 412,
    detail: "Another version is newer.",
    current: { id: "x" },
  };
  expect(problemSchema.parse(problem)).toMatchObject(problem);
  expect(told(problemSchema, { title: "x" })).not.toBe("");
});
