import { openFormula } from "../formula/open";
import { bareKitchen } from "../formula/bare-kitchen";
import type { BakeEvent } from "../live/events-schema";
import { readyForCounter } from "../live/expected";
import { foldBake, toWeigh } from "../live/fold";
import { trialFromBake } from "./from-bake";
import { trialSchema } from "./trial";
import { beginKind } from "../begin";
import { builtInShelf } from "../pantry/catalogue";
import type { Packet } from "../pantry/packet-schema";
import { cupsToWeigh, powderAgeOf } from "./from-shelf";
import { doubtsOf, lossOf, middleOf, profileOfHeights } from "./measured";
import { allSeen, scales, seenFrom, worthOf } from "./scales";
import { scoresSchema } from "./scales-schema";
import { symptomIds, symptoms } from "./symptoms";

test("indices of a profile, by hand: B 58, C 66, D 60 give 184, 14 and −2", () => {
  expect(profileOfHeights([40, 58, 66, 60, 44])).toEqual({
    volumeIndex: 184,
    symmetryIndex: 14,
    uniformityIndex: -2,
    domeRatio: 66 / 42,
  });
  // A sunken middle is under 0.
  expect(profileOfHeights([50, 48, 40, 48, 50])?.symmetryIndex).toBe(-16);
  expect(profileOfHeights([1, 2, 3])).toBeNull();
});

test("loss by the scale; what cannot be is doubted and not computed", () => {
  expect(lossOf({ massInG: 950, massOutG: 874 })).toBeCloseTo(8, 9);
  expect(lossOf({ massInG: 874, massOutG: 950 })).toBeNull();
  expect(doubtsOf({ massInG: 874, massOutG: 950 })[0]).toMatch(/were the two exchanged/);
  expect(doubtsOf({ massInG: 950, massOutG: 300 })[0]).toMatch(/68 %/);
  expect(doubtsOf({ massInG: 950, massOutG: 874, heightsMm: [40, 50, 60, 50, 40] })).toEqual([]);
  expect(middleOf({ heightMm: 61 })).toBe(61);
});

test("every scale has a good step, its symptoms exist, and a form that is all usual says that nothing is wrong", () => {
  for (const { steps, usual } of scales) {
    expect(Math.max(...steps.map(({ worth }) => worth))).toBe(1);
    expect(steps[usual]?.worth).toBe(1);
    for (const { says = [] } of steps) for (const { symptomId } of says) expect(symptomIds).toContain(symptomId);
  }
  expect(symptoms.map(({ id }) => id)).toEqual([...symptomIds]);
  const usual = Object.fromEntries(scales.map(({ id, usual: step }) => [id, step]));
  expect(seenFrom(usual).every(({ degree }) => degree === 0)).toBe(true);
  expect(worthOf(usual)).toBe(1);
  expect(worthOf({})).toBeNull();
});

test("scores say symptoms with their degree, and what was ticked by hand counts before them", () => {
  const seen = new Map(seenFrom({ top: 0, moistness: 5 }).map(({ symptomId, degree }) => [symptomId, degree]));
  expect([seen.get("sunk-middle"), seen.get("flat-top"), seen.get("wet-sticky"), seen.get("dry")]).toEqual([2, 0, 2, 0]);
  expect(
    allSeen({ top: 0 }, [{ symptomId: "sunk-middle", degree: 3 }]).filter(({ symptomId }) => symptomId === "sunk-middle"),
  ).toEqual([{ symptomId: "sunk-middle", degree: 3 }]);
  expect(scoresSchema.safeParse({ top: 9 }).success).toBe(false);
  expect(scoresSchema.safeParse({ tops: 1 }).error?.issues[0]?.message).toMatch(/A scale is one of: top/);
});

describe("what the shelf tells", () => {
  const loaf = beginKind("loaf", "us", 900);
  const packet = (ingredientId: string, openedOn?: string): Packet => ({
    ingredientId,
    name: "x",
    sizeG: 500,
    currency: "EUR",
    openedOn,
  });
  test("the powder's age is that of the packet opened last before the bake", () => {
    const age = (packets: Packet[]): number | undefined => powderAgeOf(loaf, packets, builtInShelf, "2026-07-01T06:00:00Z");
    expect(age([packet("powder-aluminium-free", "2026-01-01"), packet("powder-aluminium-free", "2026-04-01"), packet("powder-aluminium-free", "2026-08-01")])).toBeCloseTo(3, 1);
    expect(age([packet("soda", "2026-01-01"), packet("powder-aluminium-free")])).toBeUndefined();
  }); // prettier-ignore
  test("a cup of a flour is what the table says: its volume times its density", () => {
    const [cup] = cupsToWeigh(loaf, builtInShelf);
    expect(cup?.ingredientId).toBe("gf-blend-plain");
    const density = builtInShelf.get("gf-blend-plain")?.gPerMl.mid ?? 0;
    // A filling that is not stated stands between spooned and dipped.
    expect(cup?.meantG).toBeGreaterThan(236.588 * density * 0.99);
    expect(cup?.meantG).toBeLessThan(236.588 * density * 1.2);
    // A level teaspoon of powder is 4 to 4.9 g, of fine salt 5 to 6 g.
    const spoons = new Map(
      cupsToWeigh(loaf, builtInShelf).map(({ ingredientId, unit, meantG }) => [ingredientId, { unit, meantG }]),
    );
    expect(spoons.get("powder-aluminium-free")?.meantG).toBeGreaterThan(3.9);
    expect(spoons.get("powder-aluminium-free")?.meantG).toBeLessThan(5);
    expect(spoons.get("salt")?.unit).toBe("tsp");
  });
});

describe("a trial from the counter's record", () => {
  const formula = beginKind("muffin", "metric", 700);
  const { steps, expected } = readyForCounter(openFormula(formula, bareKitchen));
  const record = { title: "Muffins", formula, steps, expected, formulaId: "m", ovenId: "deck" };
  const at = (minute: number): string => new Date(Date.UTC(2026, 10, 26, 6, minute)).toISOString();
  const weighed = toWeigh(record, null).map(({ id, grams }, k): BakeEvent => ({ id: `w${k}`, at: at(1), kind: "weighed", lineId: id, grams, by: "scale" })); // prettier-ignore
  const rest: BakeEvent[] = [
    { id: "mixed", at: at(8), kind: "step", stepId: "combine", done: true },
    { id: "in", at: at(15), kind: "step", stepId: "bake", done: false },
    { id: "p", at: at(34), kind: "probe", celsius: 96.5 },
    { id: "o1", at: at(20), kind: "opened", seconds: 20 },
    { id: "out", at: at(35), kind: "out" },
    { id: "cut", at: at(75), kind: "cut" },
    { id: "s", at: at(2), kind: "slip", slip: { what: "amount", ingredientId: "salt", grams: 9 }, words: "too much salt" },
  ];
  test("has the minutes, the core, how long it stood, the slip, and the mass where everything was weighed", () => {
    const trial = trialFromBake(record, foldBake(record, [...weighed, ...rest]), "b", at(80));
    expect(trial.measured).toMatchObject({ minutes: 20, coreC: 96.5, stoodMinutes: 7, cutAfterMinutes: 40, doorSeconds: 20 });
    expect(trial.measured.massInG).toBeCloseTo(700, -1);
    expect(trial.slips).toEqual([{ what: "amount", ingredientId: "salt", grams: 9 }]);
    expect(trialSchema.safeParse(trial).error?.issues ?? []).toEqual([]);
  });
  test("tells what the scale showed of another amount, and what is in the bowl after a remedy in place of the slip", () => {
    const [soda] = weighed.filter((event) => event.kind === "weighed" && event.lineId.endsWith(":powder-aluminium-free"));
    if (soda?.kind !== "weighed") throw new Error("the muffins have no powder to weigh");
    const heavy = weighed.map((event) => (event === soda ? { ...soda, grams: 2 * soda.grams } : event));
    const slips = (events: BakeEvent[]) => trialFromBake(record, foldBake(record, events), "b", at(80)).slips;
    expect(slips([...heavy, ...rest])).toEqual([
      { what: "amount", ingredientId: "salt", grams: 9 },
      { what: "amount", ingredientId: "powder-aluminium-free", grams: 2 * soda.grams },
    ]);
    const lines = formula.lines.map(({ ingredientId = "", grams }) => ({ ingredientId, grams: ingredientId === "salt" ? 9 : 2 * (grams?.mid ?? 0) })); // prettier-ignore
    const mended = slips([...rest, { id: "r", at: at(3), kind: "remedy", remedyId: "more", words: "twice the rest", lines }]);
    expect(mended?.find(({ ingredientId }) => ingredientId === "egg")).toMatchObject({ what: "amount" });
    // A gram more of a gum is within what a scale and a hand do.
    const moved = lines.filter(({ ingredientId, grams }) => ingredientId === "salt" || grams / 2 > 1);
    expect(mended?.length).toBe(moved.length);
  });
  test("has no mass where a part of it never stood on the scale: a loss from half of a batter would be nonsense", () => {
    const trial = trialFromBake(record, foldBake(record, [...weighed.slice(1), ...rest]), "b", at(80));
    expect(trial.measured.massInG).toBeUndefined();
  });
});
