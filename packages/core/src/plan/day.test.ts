import { baked } from "../balance/analyse";
import { beginKind } from "../begin";
import type { Kind } from "../formula/kinds";
import { openFormula } from "../formula/open";
import { bareKitchen } from "../formula/bare-kitchen";
import { Clock, type Day, type Plan, planDay, planSchema } from "./day";
import { aroundNow, earlyOf, neededFor } from "./prep";

const bake = (id: string, kind: Kind, grams: number, more: Partial<Day["bakes"][number]> = {}): Day["bakes"][number] => ({
  id,
  title: id,
  input: openFormula(beginKind(kind, "metric", grams), bareKitchen),
  ...more,
});
const day = (bakes: Day["bakes"], more: Partial<Day> = {}): Day => ({
  start: "2026-11-28T05:30:00+01:00",
  bakes,
  ovens: [{ id: "deck", name: "Deck", racks: 2, warmMinutes: 15 }],
  hands: 1,
  mixers: 1,
  ...more,
});
const plan = (asked: Day): Plan => planDay(asked, undefined, { tries: 60 });
const minutes = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 60_000;
const step = (planned: Plan, bakeId: string, kind: string, batch = 1) =>
  planned.steps.find((one) => one.bakeId === bakeId && one.kind === kind && one.batch === batch) as Plan["steps"][number];

describe("a clock in the offset in which the day was told", () => {
  test.each(["2026-11-28T05:30:00+01:00", "2026-11-28T05:30:00Z", "2026-06-01T23:50:00-07:00"])("%s", (start) => {
    const clock = new Clock(start);
    expect(Date.parse(clock.iso(0))).toBe(Date.parse(start));
    expect(clock.iso(0).slice(11, 16)).toBe(start.slice(11, 16));
    expect(clock.minute(clock.iso(95), "x")).toBe(95);
  });
  test("no time is told to be none, with what would be right", () => {
    expect(() => plan(day([bake("loaf", "loaf", 900)], { start: "half past five" }))).toThrow(
      /2026-11-28T05:30:00\+01:00 would be right/,
    );
  });
});

describe("a morning with a loaf, muffins and scones", () => {
  const readyBy = "2026-11-28T09:00:00+01:00";
  const asked = day([bake("loaf", "loaf", 900, { readyBy }), bake("muffins", "muffin", 800, { readyBy, pieces: 24 }), bake("scones", "scone", 700, { readyBy })]); // prettier-ignore
  const planned = plan(asked);
  test("is as its schema says, in time, and every line of every batch is weighed once", () => {
    expect(planSchema.safeParse(planned).error?.issues ?? []).toEqual([]);
    expect(planned.late).toEqual([]);
    expect(minutes(planned.bound.end, planned.end)).toBeGreaterThanOrEqual(0);
    for (const { id, input } of asked.bakes) {
      const batches = planned.bakes.find((one) => one.id === id)?.batches ?? 0;
      for (const { ingredientId = "", grams } of input.lines) {
        const one = neededFor(planned)
          .find((needed) => needed.ingredientId === ingredientId)
          ?.of.find((of) => of.bakeId === id);
        const same = input.lines.filter((line) => line.ingredientId === ingredientId);
        const meant = same.reduce((sum, line) => sum + (typeof line.grams === "number" ? line.grams : (line.grams?.mid ?? 0)), 0);
        expect({ ingredientId, grams: one?.grams.toFixed(3), batches: one?.batches }).toEqual({
          ingredientId,
          grams: meant.toFixed(3),
          batches,
        });
        expect(grams).toBeDefined();
      }
    }
  });
  test("a bake takes what the bench says, and what the oven is held beyond it is named", () => {
    for (const { id, input } of asked.bakes) {
      const { bake } = baked(input).analysis;
      const { start, end, minutes: takes, reserveMinutes = 0, words } = step(planned, id, "bake");
      expect(Math.abs(takes.mid / bake.minutes.mid - 1)).toBeLessThan(0.03);
      expect(takes.mid + reserveMinutes).toBeCloseTo(minutes(start, end), 0);
      expect(takes.high).toBeGreaterThanOrEqual(minutes(start, end) - 1);
      expect(words).toMatch(/\d min of it are held in reserve/);
    }
  });
  test("makes as many batches as the pieces ask for", () => {
    const muffins = planned.bakes.find(({ id }) => id === "muffins");
    expect((muffins?.batches ?? 0) * (muffins?.piecesABatch ?? 0)).toBeGreaterThanOrEqual(24);
    expect(((muffins?.batches ?? 0) - 1) * (muffins?.piecesABatch ?? 0)).toBeLessThan(24);
  });
  test("no pair of hands does two things at once, and bread that is done comes out at once", () => {
    const hands = planned.steps
      .filter(({ resources }) => resources.includes("hands"))
      .sort((a, b) => Date.parse(a.start) - Date.parse(b.start));
    for (const [k, one] of hands.entries())
      if (k > 0) expect(Date.parse(one.start)).toBeGreaterThanOrEqual(Date.parse(hands[k - 1]?.end ?? ""));
    for (const { id, batches } of planned.bakes)
      for (let batch = 1; batch <= batches; batch++)
        expect(step(planned, id, "out", batch).start).toBe(step(planned, id, "bake", batch).end);
  });
  test("what hands do next and what is going on is told for any moment", () => {
    const at = Date.parse(step(planned, "loaf", "bake").start) + 60_000;
    expect(aroundNow(planned, at).going.map(({ id }) => id)).toContain(step(planned, "loaf", "bake").id);
    expect(aroundNow(planned, Date.parse(planned.end) + 1).next).toBeNull();
    expect(earlyOf(planned).every(({ kind }) => ["temper", "soak", "sour", "component"].includes(kind))).toBe(true);
  });
});

describe("a day that cannot be", () => {
  const readyBy = "2026-11-28T06:45:00+01:00";
  const planned = plan(day([bake("loaf", "loaf", 900, { readyBy }), bake("second", "loaf", 900, { readyBy }), bake("third", "loaf", 900, { readyBy })])); // prettier-ignore
  test("says how late, and what to give up for it", () => {
    expect(planned.late.length).toBeGreaterThan(0);
    expect(planned.giveUp.map(({ what }) => what).join("; ")).toMatch(/later deadline/);
    for (const { saves } of planned.giveUp) expect(saves).toBeGreaterThan(0);
  });
  test("a deadline that was told to help does", () => {
    const late = new Map(planned.late.map(({ bakeId, minutes: m }) => [bakeId, m]));
    const later = (id: string): string =>
      new Date(Date.parse(readyBy) + (Math.ceil((late.get(id) ?? 0) / 5) * 5 + 5) * 60_000).toISOString();
    const again = plan(day(["loaf", "second", "third"].map((id) => bake(id, "loaf", 900, { readyBy: late.has(id) ? later(id) : readyBy })))); // prettier-ignore
    expect(again.late).toEqual([]);
  });
});

test("two heats do not stand in one oven at once; two ovens bake side by side", () => {
  const bakes = [bake("loaf", "loaf", 900), bake("biscuits", "biscuit", 600)];
  const [one, two] = [plan(day(bakes)), plan(day(bakes, { ovens: [{ id: "a", racks: 2 }, { id: "b", racks: 2 }], hands: 2 }))]; // prettier-ignore
  const [loaf, biscuits] = [step(one, "loaf", "bake"), step(one, "biscuits", "bake")];
  expect(Date.parse(loaf.end) <= Date.parse(biscuits.start) || Date.parse(biscuits.end) <= Date.parse(loaf.start)).toBe(true);
  expect(one.ovenChanges).toBe(1);
  expect(two.ovenChanges).toBe(0);
  // The loaf's cooling is the same; the biscuits need not wait for its oven.
  expect(Date.parse(step(two, "biscuits", "out").end)).toBeLessThan(Date.parse(step(one, "biscuits", "out").end));
});

test("planned again from now, what was done stays and the rest goes on after now", () => {
  const first = plan(day([bake("loaf", "loaf", 900), bake("muffins", "muffin", 700)]));
  const begun = [...first.steps].filter(({ bakeId }) => bakeId === "loaf").slice(0, 3);
  const now = new Date(Date.parse(begun[2]?.end ?? first.start) + 25 * 60_000).toISOString();
  const done = begun.map(({ batch, stepId, start, end }) => ({ batch, stepId, start, end }));
  const again = plan(day([bake("loaf", "loaf", 900, { done }), bake("muffins", "muffin", 700)], { now }));
  for (const { id, start } of begun) expect(again.steps.find((one) => one.id === id)?.start).toBe(start);
  const ids = new Set(begun.map(({ id }) => id));
  for (const one of again.steps)
    if (!ids.has(one.id) && one.resources.length > 0)
      expect(Date.parse(one.start)).toBeGreaterThanOrEqual(Date.parse(now) - 60_000);
});

test("an oven that nobody has, and a day without bakes, are told", () => {
  expect(() => plan(day([]))).toThrow(/at the least/);
  expect(() => plan(day([bake("fritters", "loaf", 500, { input: { ...openFormula(beginKind("loaf", "metric", 500), bareKitchen), oven: { celsius: 180, mode: "air-fryer" } } })]))).toThrow(/no oven of this day does that/); // prettier-ignore
});
