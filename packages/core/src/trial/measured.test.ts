import { doubtsOf, lossOf, middleOf, profileOfHeights } from "./measured";
import { allSeen, scales, scoresSchema, seenFrom, worthOf } from "./scales";
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
