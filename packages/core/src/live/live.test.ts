import fc from "fast-check";
import { beginKind } from "../begin";
import { openFormula } from "../formula/open";
import { bareKitchen } from "../formula/bare-kitchen";
import { type Analysis, readings } from "../balance/readings";
import { builtInShelf } from "../pantry/catalogue";
import { ingredientOf } from "../pantry/shelf";
import { checkedAgainst } from "./checks";
import { bakeClock } from "./events";
import { type BakeEvent, bakeEventSchema, expectedSchema } from "./events-schema";
import { readyForCounter } from "./expected";
import { counterOf, foldBake, toWeigh } from "./fold";
import { coreOf, remainingOf } from "./remaining";
import { slipAnswer } from "./slip";
import { toleranceG } from "./tolerance";

const loaf = openFormula(beginKind("loaf", "metric", 900), bareKitchen);
const { steps, expected } = readyForCounter(loaf);
const record = { steps, expected };
const at = (minute: number): string => new Date(Date.UTC(2026, 10, 28, 5, 0) + minute * 60_000).toISOString();
const bakeId = steps.find(({ kind }) => kind === "bake")?.id ?? "";

const story: BakeEvent[] = [
  { id: "a", at: at(0), kind: "started" },
  { id: "b", at: at(1), kind: "step", stepId: "pan", done: true },
  { id: "c", at: at(2), kind: "step", stepId: "preheat", done: false },
  { id: "d", at: at(4), kind: "weighed", lineId: "dry:salt", grams: 4, by: "spoon" },
  { id: "e", at: at(10), kind: "step", stepId: "combine", done: true },
  { id: "f", at: at(14), kind: "step", stepId: bakeId, done: false },
  { id: "g", at: at(20), kind: "probe", celsius: 31 },
  { id: "h", at: at(75), kind: "out", by: "probe" },
  { id: "i", at: at(150), kind: "cut" },
  { id: "j", at: at(155), kind: "judged", scores: { rise: 4 } },
];

describe("the state of a bake is folded from its events", () => {
  test("as they tell it", () => {
    const state = foldBake(record, story);
    expect(state).toMatchObject({ phase: "judged", startedAt: at(0), inOvenAt: at(14), outAt: at(75), cutAt: at(150) });
    expect(state.probe).toEqual([{ at: at(20), minutes: 6, celsius: 31 }]);
    expect(foldBake(record, story.slice(0, 7)).phase).toBe("baking");
    expect(foldBake(record, story.slice(0, 5)).phase).toBe("making");
    expect(foldBake(record, []).phase).toBe("ready");
  });
  test("in whatever order and however often they arrive", () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(story, { minLength: story.length }), fc.subarray(story), (shuffled, again) => {
        expect(foldBake(record, [...shuffled, ...again])).toEqual(foldBake(record, story));
      }),
    );
  });
  test("every event is one of the contract; one without a time is told what would be right", () => {
    for (const event of story) expect(bakeEventSchema.safeParse(event).error?.issues ?? []).toEqual([]);
    expect(bakeEventSchema.safeParse({ ...story[0], at: "soon" }).error?.issues[0]?.message).toMatch(/would be right/);
  });
  test("a rehearsal's clock runs faster, from its beginning", () => {
    const rehearsal = { from: at(0), factor: 60 };
    expect(bakeClock({ rehearsal }, Date.parse(at(1)))).toBe(Date.parse(at(60)));
    expect(bakeClock({}, 5)).toBe(5);
  });
});

describe("what is to be done now", () => {
  test("walking through every step comes to the end, and the bake's timer stands all the while", () => {
    const events: BakeEvent[] = [];
    let minute = 0;
    let n = 0;
    const say = (event: Record<string, unknown>): void =>
      void events.push({ id: `s${n++}`, at: at(minute++), ...event } as BakeEvent);
    for (let k = 0; k < 200; k++) {
      const state = foldBake(record, events);
      const { current, running } = counterOf(record, state, Date.parse(at(minute)));
      if (state.phase === "baking") expect(running.map(({ step }) => step.id)).toContain(bakeId);
      if (state.phase === "baking" && !current) {
        minute += 70;
        say({ kind: "out" });
      } else if (current)
        say({
          kind: "step",
          stepId: current.id,
          done: current.needs !== "oven" && current.needs !== "nothing" ? true : current.id !== bakeId,
        });
      else break;
    }
    const state = foldBake(record, events);
    expect(steps.filter(({ id, at: beside }) => beside === undefined && state.done[id] === undefined).map(({ id }) => id)).toEqual(
      [],
    );
  });
  test("a look comes up at its minute, not before", () => {
    const look = steps.find(({ kind }) => kind === "look");
    const state = foldBake(record, story.slice(0, 7));
    const due = (minute: number): string[] => counterOf(record, state, Date.parse(at(14 + minute))).due.map(({ kind }) => kind);
    expect(due((look?.at ?? 0) - 1)).not.toContain("look");
    expect(due((look?.at ?? 0) + 1)).toContain("look");
  });
  test("after a remedy, what it changes is what is weighed; what it adds comes in when all is stirred", () => {
    const flour = toWeigh(record, null);
    const lines = [...new Map(flour.map(({ ingredientId, grams }) => [ingredientId, 2 * grams])), ["cream-of-tartar", 3] as const].map(([ingredientId, grams]) => ({ ingredientId, grams }));
    const then = toWeigh(record, lines);
    for (const { id, grams } of flour) expect(then.find((line) => line.id === id)?.grams).toBeCloseTo(2 * grams, 6);
    expect(then.find(({ ingredientId }) => ingredientId === "cream-of-tartar")).toMatchObject({ stepId: "combine", grams: 3 });
  }); // prettier-ignore
});

test.each(["muffin", "scone", "pourable-batter", "drop", "bar"] as const)("a %s can be laid out for the counter", (kind) => {
  const made = readyForCounter(openFormula(beginKind(kind, "metric", 700), bareKitchen));
  expect(expectedSchema.safeParse(made.expected).error?.issues ?? []).toEqual([]);
  // A hotter oven is never slower.
  const minutes = [...made.expected.ovens].sort((a, b) => a.biasK - b.biasK).map((oven) => oven.minutes);
  for (let k = 1; k < minutes.length; k++) expect(minutes[k]).toBeLessThanOrEqual((minutes[k - 1] ?? 0) + 0.1);
});

describe("remaining time", () => {
  const readingsOf = (biasK: number, until: number) => Array.from({ length: Math.floor(until * 2) }, (_, k) => ({ minutes: k / 2, celsius: coreOf(expected, biasK, k / 2) })); // prettier-ignore
  test("without a reading it is the expectation; with many it finds the oven", () => {
    expect(Math.abs(remainingOf(expected, [], 0).doneAt.mid - expected.minutes.mid)).toBeLessThan(3);
    for (const oven of expected.ovens.filter(({ biasK }) => Math.abs(biasK) <= 24)) {
      const { doneAt } = remainingOf(expected, readingsOf(oven.biasK, 0.75 * oven.minutes), 0.75 * oven.minutes);
      expect(Math.abs(doneAt.mid - oven.minutes)).toBeLessThan(Math.abs(oven.biasK) > 12 ? 0.07 * oven.minutes : 2.5);
      // An oven that is two standard deviations off is drawn towards the likelier ones.
      if (Math.abs(oven.biasK) > 12) continue;
      expect(doneAt.low).toBeLessThanOrEqual(oven.minutes);
      expect(doneAt.high).toBeGreaterThanOrEqual(oven.minutes);
    }
  });
  test("the range narrows as it bakes", () => {
    const wide = (share: number): number => {
      const { doneAt } = remainingOf(expected, readingsOf(12, share * expected.minutes.mid), share * expected.minutes.mid);
      return doneAt.high - doneAt.low;
    };
    expect(wide(0.75)).toBeLessThan(wide(0.25));
  });
  test("nonsense of a probe does no harm, and is counted", () => {
    const sound = readingsOf(0, 45);
    const bad = [...sound, ...Array.from({ length: 30 }, (_, k) => ({ minutes: 20 + k / 60, celsius: k % 3 === 0 ? Number.NaN : 3 })), { minutes: 30, celsius: 9000 }];
    expect(Math.abs(remainingOf(expected, bad, 45).doneAt.mid - remainingOf(expected, sound, 45).doneAt.mid)).toBeLessThan(1.5);
  }); // prettier-ignore
});

describe("a slip at the counter", () => {
  const grams = (id: string): number =>
    loaf.lines.reduce(
      (sum, line) =>
        line.ingredientId === id ? sum + (typeof line.grams === "number" ? line.grams : (line.grams?.mid ?? 0)) : sum,
      0,
    );
  const leavener = loaf.lines.find(({ ingredientId }) => /^powder/.test(ingredientId ?? ""))?.ingredientId ?? "";
  test("three times the leavening: what it does is told, taking it out comes first, and every remedy was analysed again", () => {
    const answer = slipAnswer(loaf, { what: "amount", ingredientId: leavener, grams: 3 * grams(leavener) });
    expect(answer.matters).toBe(true);
    expect(answer.effects.length).toBeGreaterThan(0);
    expect(answer.remedies[0]?.id).toBe("take-out");
    for (const { lines, after } of answer.remedies) {
      const again = readings({ ...loaf, lines: lines.filter((line) => line.ingredientId !== undefined) });
      expect(after.ph.mid).toBeCloseTo(again.lift.ph.mid, 6);
      expect(after.massG).toBeCloseTo(again.batch.massG, 6);
    }
  });
  test("once it is stirred in, nothing is taken out of the bowl", () => {
    const answer = slipAnswer(loaf, { what: "amount", ingredientId: leavener, grams: 2 * grams(leavener), mixed: true });
    for (const { id, changes } of answer.remedies)
      if (id !== "leave") for (const { fromG, toG } of changes) expect(toG).toBeGreaterThanOrEqual(fromG - 0.01);
    expect(answer.remedies.map(({ id }) => id)).toContain("leave");
    const more = answer.remedies.find(({ id }) => id === "more-of-the-rest");
    if (more) expect(more.after.massG / readings(loaf).batch.massG).toBeCloseTo(2, 1);
  });
  test("a little too much flour matters little: leave it comes first", () => {
    const flour = loaf.lines[0]?.ingredientId ?? "";
    const answer = slipAnswer(loaf, { what: "amount", ingredientId: flour, grams: 1.01 * grams(flour) });
    expect(answer).toMatchObject({ matters: false, effects: [] });
    expect(answer.remedies[0]?.id).toBe("leave");
  });
  test("forgotten leavening is found and put right; what is not in the formula is told", () => {
    const answer = slipAnswer(loaf, { what: "forgotten", ingredientId: leavener, mixed: true });
    expect(answer.effects.map(({ what }) => what)).toContain("lift");
    expect(answer.remedies[0]).toMatchObject({ id: "add", after: { verdict: readings(loaf).lift.verdict } });
    expect(() => slipAnswer(loaf, { what: "forgotten", ingredientId: "luck" })).toThrow(/would be right/);
  });
});

test("tolerance is tight for what lifts and loose for pears", () => {
  const share = (id: string, g: number): number => toleranceG(ingredientOf(builtInShelf, id), g) / g;
  expect(share("soda", 20)).toBeLessThan(0.05);
  expect(share("pear", 200)).toBeGreaterThan(share("sorghum-flour", 200));
  expect(toleranceG(ingredientOf(builtInShelf, "soda"), 2)).toBe(0.2);
});

test("a batter checked at the counter: how it falls against its word, a cup of it against what was thought, within what a cup tells", () => {
  const scoops = { body: { consistency: "scoopable", densityGPerMl: 1 } } as Pick<Analysis, "body">;
  expect(checkedAgainst(scoops, 2, 1.03)).toEqual({ thicker: 0, heavierPercent: 0 });
  expect(checkedAgainst(scoops, 0, 1.12)).toEqual({ thicker: -2, heavierPercent: 12 });
  expect(checkedAgainst(scoops, 3, 0.9)).toEqual({ thicker: 1, heavierPercent: -10 });
  expect(checkedAgainst(scoops, undefined, undefined)).toEqual({ thicker: null, heavierPercent: null });
});
