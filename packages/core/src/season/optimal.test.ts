import { seeded } from "../random";
import { blocked, dEfficiencyOf, optimalDesign } from "./optimal";
import { candidatesOf } from "./space";
import type { Factor } from "./season-schema";
import type { Formula } from "../formula/formula";

const grid = (levels: readonly number[], factors: number): number[][] =>
  factors === 0 ? [[]] : grid(levels, factors - 1).flatMap((row) => levels.map((level) => [...row, level]));
const mains = (x: readonly number[]): number[] => [1, ...x];
const pairs = (x: readonly number[]): number[] => [...mains(x), ...x.flatMap((a, i) => x.slice(i + 1).map((b) => a * b))];
const chosenOf = (points: readonly number[][], chosen: readonly number[]): string[] => chosen.map((k) => String(points[k])).sort();

test("eight runs for three factors and their pairs are the full factorial, whose columns are orthogonal", () => {
  const points = grid([-1, 0, 1], 3);
  const { chosen, dEfficiency } = optimalDesign({ rows: points.map(pairs), runs: 8 });
  expect(chosenOf(points, chosen)).toEqual(grid([-1, 1], 3).map(String).sort());
  expect(dEfficiency).toBeCloseTo(1, 6);
});

test("twelve runs for five factors are orthogonal, as those of Plackett and Burman", () => {
  const points = grid([-1, 1], 5);
  const { chosen, dEfficiency } = optimalDesign({ rows: points.map(mains), runs: 12, starts: 20 });
  expect(dEfficiency).toBeCloseTo(1, 6);
  for (let factor = 0; factor < 5; factor++) expect(chosen.reduce((sum, k) => sum + (points[k]?.[factor] ?? 0), 0)).toBe(0);
});

test("four runs for a cubic stand at the ends and at ±1/√5 (Guest 1958); three for a parabola at the ends and the middle", () => {
  const points = Array.from({ length: 201 }, (_, k) => [-1 + k / 100]);
  const power =
    (degree: number) =>
    ([x = 0]: readonly number[]): number[] =>
      Array.from({ length: degree + 1 }, (_, k) => x ** k);
  const at = (degree: number, runs: number, criterion: "D" | "I" = "D"): number[] =>
    optimalDesign({ rows: points.map(power(degree)), runs, criterion })
      .chosen.map((k) => points[k]?.[0] ?? 0)
      .sort((a, b) => a - b);
  const cubic = at(3, 4);
  [-1, -1 / Math.sqrt(5), 1 / Math.sqrt(5), 1].forEach((x, k) => expect(Math.abs((cubic[k] ?? 9) - x)).toBeLessThan(0.011));
  expect(at(2, 3).map((x) => Math.round(10 * x) / 10 + 0)).toEqual([-1, 0, 1]);
  // The map of a parabola is known best with half of the runs in the middle (Studden 1977).
  expect(at(2, 4, "I").map((x) => Math.round(x))).toEqual([-1, 0, 0, 1].map((x) => x + 0));
});

test("six runs for a blend of three with its pairs are the simplex lattice: each alone and each two by halves (Kiefer 1961)", () => {
  const points = grid([0, 0.25, 0.5, 0.75, 1], 3).filter((row) => Math.abs(row.reduce((a, b) => a + b, 0) - 1) < 1e-9);
  const blend = ([a = 0, b = 0, c = 0]: readonly number[]): number[] => [a, b, c, a * b, a * c, b * c];
  const { chosen } = optimalDesign({ rows: points.map(blend), runs: 6 });
  expect(chosenOf(points, chosen)).toEqual(["0,0,1", "0,0.5,0.5", "0,1,0", "0.5,0,0.5", "0.5,0.5,0", "1,0,0"]);
});

test("what was baked already is not asked for again: half of a factorial is filled up to the whole", () => {
  const points = grid([-1, 1], 3);
  const half = points.filter((row) => row.reduce((a, b) => a * b, 1) > 0);
  const { chosen, dEfficiency } = optimalDesign({ rows: points.map(pairs), runs: 4, fixed: half.map(pairs) });
  expect(chosenOf(points, chosen)).toEqual(points.filter((row) => row.reduce((a, b) => a * b, 1) < 0).map(String).sort()); // prettier-ignore
  expect(dEfficiency).toBeCloseTo(1, 6);
});

test("no exchange of one run betters what was chosen, for drawn rows; a ridge lets more terms stand than runs", () => {
  const random = seeded(5);
  for (let n = 0; n < 8; n++) {
    const rows = Array.from({ length: 24 }, () => [1, 2 * random() - 1, 2 * random() - 1, 2 * random() - 1]);
    const { chosen, dEfficiency } = optimalDesign({ rows, runs: 7, seed: n });
    for (let i = 0; i < chosen.length; i++)
      for (let j = 0; j < rows.length; j++) {
        const other = chosen.map((k, at) => rows[at === i ? j : k] ?? []);
        expect(dEfficiencyOf(other)).toBeLessThanOrEqual(dEfficiency + 1e-7);
      }
  }
  const points = grid([-1, 0, 1], 4);
  const ridge = pairs([0, 0, 0, 0]).map((_, k) => (k <= 4 ? 0 : 1));
  const few = optimalDesign({ rows: points.map(pairs), runs: 6, ridge });
  expect(dEfficiencyOf(few.chosen.map((k) => mains(points[k] ?? [])))).toBeGreaterThan(0.7);
});

test("a factorial in two blocks gives up the product of all three, and no effect by itself", () => {
  const points = grid([-1, 1], 3);
  const blocks = blocked(points, 4);
  for (let factor = 0; factor < 3; factor++)
    expect(points.reduce((sum, row, k) => sum + (blocks[k] === 0 ? (row[factor] ?? 0) : 0), 0)).toBe(0);
  expect(blocks.filter((block) => block === 0)).toHaveLength(4);
});

test("corners of a blend with ranges are those of McLean and Anderson's flare (1966), and every point adds up", () => {
  const shares = [["magnesium", 40, 60], ["nitrate", 10, 50], ["strontium", 10, 50], ["binder", 3, 8]] as const; // prettier-ignore
  const factors = shares.map(([id, low, high]): Factor => ({ kind: "share", id, ingredientId: id, low, high }));
  const formula = { lines: shares.map(([id]) => ({ id, ingredientId: id, grams: { low: 25, mid: 25, high: 25 } })), oven: { celsius: 180 }, process: {}, vessel: { shape: "loaf" } } as unknown as Formula; // prettier-ignore
  const points = candidatesOf({ formula, factors }, 400, 1).slice(1);
  for (const point of points) {
    expect(Object.values(point).reduce<number>((a, b) => a + Number(b), 0)).toBeCloseTo(100, 6);
    for (const [id, low, high] of shares) {
      expect(point[id]).toBeGreaterThanOrEqual(low - 1e-6);
      expect(point[id]).toBeLessThanOrEqual(high + 1e-6);
    }
  }
  const published = [[40, 10, 47, 3], [40, 10, 42, 8], [60, 10, 27, 3], [60, 10, 22, 8], [40, 47, 10, 3], [40, 42, 10, 8], [60, 27, 10, 3], [60, 22, 10, 8]]; // prettier-ignore
  const found = new Set(points.map((point) => shares.map(([id]) => Number(point[id]).toFixed(2)).join(",")));
  for (const corner of published) expect(found).toContain(corner.map((value) => value.toFixed(2)).join(","));
});
