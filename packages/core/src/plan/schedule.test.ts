import fc from "fast-check";
import { heatMinutes, type PlanOven, sameHeat } from "./heat";
import type { InOven, Job, JobStep, Placed } from "./job";
import { better, boundOf, type DayKitchen, schedule, type Schedule, type Worth } from "./schedule";

const oven = (id: string, racks = 2): PlanOven => ({ id, name: id, modes: ["still"], warmMinutes: 8, racks });
const step = (id: JobStep["kind"], minutes: number, more: Partial<JobStep> = {}): JobStep => ({
  id,
  kind: id,
  words: id,
  minutes,
  needs: "hands",
  after: [],
  lines: [],
  ...more,
});

interface Small {
  dry: number;
  combine: number;
  rest: number;
  bake: number;
  cool: number;
  celsius: number;
  load: number;
  mayStand: number;
  readyBy: number | null;
}

/** A job of the usual steps: dry, combine (which wets), a rest, the oven, out, cooling. */
function jobOf(k: number, small: Small, ovens: readonly PlanOven[]): Job {
  const { dry, combine, rest, bake, cool, celsius, load, mayStand, readyBy } = small;
  const steps = [
    step("preheat", 8, { needs: "oven" }),
    step("dry", dry),
    step("combine", combine, { after: ["dry"] }),
    ...(rest > 0 ? [step("rest", rest, { needs: "nothing", after: ["combine"] })] : []),
    step("bake", bake, {
      needs: "oven",
      after: [rest > 0 ? "rest" : "combine"],
      within: { of: "combine", minutes: mayStand, why: "" },
    }),
    step("out", 1, { after: ["bake"] }),
    step("cool-rack", cool, { needs: "nothing", after: ["out"] }),
  ];
  const here: InOven = { minutes: bake, bakes: { low: bake, mid: bake, high: bake }, load, celsius, mode: "still" };
  const inOven = new Map(ovens.map((one): [string, InOven] => [one.id, here]));
  return { id: `j${k}.1`, bakeId: `j${k}`, title: `J${k}`, batch: 1, batches: 1, steps, panHeats: 0, inOven, vessels: null, earliest: 0, heldAt: null, readyBy, done: new Map() }; // prettier-ignore
}

const smallArbitrary = (most: number): fc.Arbitrary<Small> =>
  fc.record({
    dry: fc.integer({ min: 1, max: 3 }),
    combine: fc.integer({ min: 1, max: 3 }),
    rest: fc.constantFrom(0, 0, 2),
    bake: fc.integer({ min: 2, max: most }),
    cool: fc.integer({ min: 0, max: 4 }),
    celsius: fc.constantFrom(160, 180),
    load: fc.constantFrom(0.5, 1),
    mayStand: fc.integer({ min: 2, max: 8 }),
    readyBy: fc.option(fc.integer({ min: 10, max: 40 })),
  });

/** Everything that may clash, looked for without the planner's own tables. */
function faultsOf({ placed }: Schedule, kitchen: DayKitchen): string[] {
  const faults: string[] = [];
  const busy: [number, number][] = [];
  const inOven: (InOven & { job: Job; ovenId: string; start: number; end: number })[] = [];
  for (const { job, spans, ovenId, evening } of placed) {
    for (const { id, after, minutes, needs, kind, at } of job.steps) {
      const span = spans.get(id);
      if (!span) {
        if (kind !== "preheat" && !evening.includes(id)) faults.push(`${job.id} never does ${id}`);
        continue;
      }
      if (kind !== "bake" && at === undefined && span.end - span.start !== minutes)
        faults.push(`${job.id} ${id} lasts ${span.end - span.start}`);
      if (span.start < kitchen.from) faults.push(`${job.id} ${id} begins before the day`);
      for (const one of after) if ((spans.get(one)?.end ?? 0) > span.start) faults.push(`${job.id} ${id} before ${one}`);
      if (needs === "hands") busy.push([span.start, span.end]);
      if (kind === "bake") inOven.push({ ...(job.inOven.get(ovenId) as InOven), job, ovenId, ...span });
      if (kind === "out" && span.start !== (spans.get("bake")?.end ?? -1)) faults.push(`${job.id} is left in the oven`);
    }
    const wet = spans.get("combine")?.end ?? 0;
    const bake = job.steps.find(({ kind }) => kind === "bake");
    const stands = (spans.get("bake")?.start ?? 0) - wet;
    const must = job.steps.find(({ kind }) => kind === "rest")?.minutes ?? 0;
    if (stands > Math.max(must, bake?.within?.minutes ?? Infinity)) faults.push(`${job.id} stands ${stands} min`);
  }
  for (const [start, end] of busy)
    for (let m = start; m < end; m++)
      if (busy.filter(([a, b]) => a <= m && b > m).length > kitchen.hands) faults.push(`hands at ${m}`);
  for (const one of inOven) {
    const there = inOven.filter((other) => other.ovenId === one.ovenId);
    const beside = there.filter(({ start, end }) => start <= one.start && end > one.start);
    if (beside.reduce((sum, { load }) => sum + load, 0) > 1 + 1e-9) faults.push(`${one.ovenId} holds too much at ${one.start}`);
    for (const other of beside) if (!sameHeat(other, one)) faults.push(`two heats in ${one.ovenId} at ${one.start}`);
    const before = there.filter(({ end }) => end <= one.start).sort((a, b) => b.end - a.end)[0];
    const known = kitchen.ovens.find(({ id }) => id === one.ovenId) as PlanOven;
    if (beside.length > 1) continue;
    const hot = before ? before.end + (sameHeat(before, one) ? 0 : heatMinutes(known, one.celsius, before.celsius)) : heatMinutes(known, one.celsius); // prettier-ignore
    if (one.start < hot) faults.push(`${one.ovenId} is not hot at ${one.start}`);
  }
  return [...new Set(faults)];
}

const kitchenOf = (ovens: PlanOven[], hands = 1): DayKitchen => ({ ovens, hands, mixers: 1, vessels: new Map(), from: 0 });

test("no schedule has a clash, whatever the day", () => {
  fc.assert(
    fc.property(fc.array(smallArbitrary(30), { minLength: 1, maxLength: 7 }), fc.integer({ min: 1, max: 2 }), fc.integer({ min: 1, max: 2 }), (smalls, ovenCount, hands) => {
      const ovens = Array.from({ length: ovenCount }, (_, k) => oven(`o${k}`));
      const kitchen = kitchenOf(ovens, hands);
      const jobs = smalls.map((small, k) => jobOf(k, small, ovens));
      const found = schedule(jobs, kitchen, { tries: 20 });
      expect(found && faultsOf(found, kitchen)).toEqual([]);
      const bound = boundOf(jobs, kitchen);
      expect(found?.end).toBeGreaterThanOrEqual(bound.end);
      expect(found?.lateMinutes).toBeGreaterThanOrEqual(bound.lateMinutes);
    }),
    { numRuns: 60 },
  ); // prettier-ignore
});

/** Every way to set the minutes of two or three jobs with dry, combine, bake, out: an exhaustive search that shares nothing with the planner. */
function exact(jobs: readonly Job[], kitchen: DayKitchen, from: Worth): Worth {
  const horizon = from.end + 2;
  const [one] = kitchen.ovens as [PlanOven];
  let best: Worth = from;
  const go = (
    k: number,
    hands: Uint8Array,
    bookings: (InOven & { start: number; end: number })[],
    late: number,
    waiting: number,
    end: number,
  ): void => {
    const inTime = [...bookings].sort((a, b) => a.start - b.start);
    const changes = inTime.filter((booking, n) => n > 0 && !sameHeat(inTime[n - 1] as typeof booking, booking)).length;
    const worth = { lateMinutes: late, waitingMinutes: waiting, ovenChanges: changes, end };
    // All four only grow: what is no better already is not followed.
    if (!better(worth, best)) return;
    const job = jobs[k];
    if (!job) {
      best = worth;
      return;
    }
    const of = (id: string): number => job.steps.find((s) => s.id === id)?.minutes ?? 0;
    const here = job.inOven.get(one.id) as InOven;
    const may = Math.max(of("rest"), job.steps.find(({ kind }) => kind === "bake")?.within?.minutes ?? 0);
    const free = (a: number, n: number): boolean => {
      for (let m = a; m < a + n; m++) if (hands[m]) return false;
      return a >= 0;
    };
    const take = (a: number, n: number, v: number): void => void hands.fill(v, a, a + n);
    for (let bake = heatMinutes(one, here.celsius); bake + here.minutes + 1 < horizon; bake++) {
      const out = bake + here.minutes;
      const booking = { ...here, start: bake, end: out };
      const clash = bookings.some((b) => {
        if (b.start < out && b.end > bake) return !sameHeat(b, here);
        const [first, then] = b.end <= bake ? [b, booking] : [booking, b];
        return !sameHeat(first, then) && then.start - first.end < heatMinutes(one, then.celsius, first.celsius);
      });
      if (clash || !free(out, 1)) continue;
      const full = [...bookings, booking].some((b) => [...bookings, booking].filter((c) => c.start <= b.start && c.end > b.start).reduce((s, c) => s + c.load, 0) > 1 + 1e-9); // prettier-ignore
      if (full) continue;
      take(out, 1, 1);
      for (let wet = bake - of("rest"); wet >= bake - may; wet--) {
        const mix = wet - of("combine");
        if (!free(mix, of("combine"))) continue;
        take(mix, of("combine"), 1);
        for (let dry = mix - of("dry"); dry >= 0; dry--) {
          if (!free(dry, of("dry"))) continue;
          take(dry, of("dry"), 1);
          const ready = out + 1 + of("cool-rack");
          go(k + 1, hands, [...bookings, booking], late + Math.max(0, ready - (job.readyBy ?? Infinity)), waiting + bake - wet - of("rest"), Math.max(end, ready)); // prettier-ignore
          take(dry, of("dry"), 0);
        }
        take(mix, of("combine"), 0);
      }
      take(out, 1, 0);
    }
  };
  go(0, new Uint8Array(horizon + 8), [], 0, 0, 0);
  return best;
}

test("on small days an exhaustive search finds nothing less late, and seldom anything better at all", () => {
  const ovens = [oven("o0")];
  const kitchen = kitchenOf(ovens);
  const days = fc.sample(fc.array(smallArbitrary(6), { minLength: 2, maxLength: 2 }), { numRuns: 80, seed: 20261126 });
  let beaten = 0;
  for (const smalls of days) {
    const jobs = smalls.map((small, k) => jobOf(k, { ...small, readyBy: small.readyBy === null ? null : Math.min(small.readyBy, 26) }, ovens)); // prettier-ignore
    const found = schedule(jobs, kitchen) as Schedule;
    const best = exact(jobs, kitchen, found);
    expect(found.lateMinutes).toBe(best.lateMinutes);
    expect(found.waitingMinutes - best.waitingMinutes).toBeLessThanOrEqual(1);
    if (best.waitingMinutes === found.waitingMinutes && best.ovenChanges === found.ovenChanges)
      expect(found.end - best.end).toBeLessThanOrEqual(5);
    if (better(best, found)) beaten++;
  }
  // A search of moves is no proof: about one small day in fifty has a schedule that is a minute or some better.
  expect(beaten).toBeLessThanOrEqual(4);
});

describe("what was said by hand or has happened stays", () => {
  const ovens = [oven("o0")];
  const kitchen = kitchenOf(ovens);
  const plain: Small = { dry: 3, combine: 2, rest: 0, bake: 20, cool: 5, celsius: 180, load: 1, mayStand: 6, readyBy: null };
  const at = ({ placed }: Schedule, id: string): Placed => placed.find(({ job }) => job.id === id) as Placed;
  test("a bake that was put later goes in no earlier, and the other takes the oven before it", () => {
    const jobs = [jobOf(0, plain, ovens), jobOf(1, plain, ovens)];
    const held = schedule([{ ...(jobs[0] as Job), heldAt: 60 }, jobs[1] as Job], kitchen) as Schedule;
    expect(at(held, "j0.1").spans.get("bake")?.start).toBe(60);
    expect(at(held, "j1.1").spans.get("bake")?.end).toBeLessThanOrEqual(60);
    expect(faultsOf(held, kitchen)).toEqual([]);
  });
  test("planned again from now, what is in the oven stays there and nothing new begins in the past", () => {
    const jobs = [jobOf(0, plain, ovens), jobOf(1, plain, ovens)];
    const begun = { ...(jobs[0] as Job), done: new Map([["dry", { start: 0, end: 3 }], ["combine", { start: 4, end: 6 }], ["bake", { start: 12, end: 40, ovenId: "o0" }]]) }; // prettier-ignore
    const again = schedule([begun, jobs[1] as Job], { ...kitchen, from: 30 }) as Schedule;
    expect(at(again, "j0.1").spans.get("bake")).toEqual({ start: 12, end: 40 });
    expect(at(again, "j0.1").spans.get("out")?.start).toBe(40);
    for (const { start } of at(again, "j1.1").spans.values()) expect(start).toBeGreaterThanOrEqual(30);
    expect(at(again, "j1.1").spans.get("bake")?.start).toBeGreaterThanOrEqual(40);
  });
  test("what is being done for hours yet is waited for, however quiet the kitchen is else", () => {
    const begun = { ...jobOf(0, plain, ovens), done: new Map([["dry", { start: 0, end: 240 }]]) };
    const again = schedule([begun], { ...kitchen, from: 30 });
    expect(again?.placed[0]?.spans.get("combine")).toEqual({ start: 240, end: 242 });
    expect(again?.placed[0]?.spans.get("bake")?.start).toBe(242);
  });
  test("one tin bakes one after the other, two tins side by side", () => {
    const tins = (many: number): Schedule => {
      const jobs = [0, 1].map((k) => ({ ...jobOf(k, { ...plain, load: 0.5 }, ovens), vessels: { sort: "tin", many: 1 } }));
      return schedule(jobs, { ...kitchen, vessels: new Map([["tin", many]]) }) as Schedule;
    };
    expect(tins(1).end - tins(2).end).toBeGreaterThan(10);
  });
});
