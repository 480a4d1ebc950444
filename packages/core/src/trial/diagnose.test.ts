import { baked } from "../balance/analyse";
import { beginKind } from "../begin";
import type { Kind } from "../formula/kinds";
import { openFormula, type Opened } from "../formula/open";
import { bareKitchen } from "../formula/bare-kitchen";
import { builtInShelf } from "../pantry/catalogue";
import { causes, causeFamilies, causeOf } from "./causes";
import { clueIds, cluesOf } from "./clues";
import { type Asked, diagnose, type Diagnosis, diagnosisSchema } from "./diagnose";
import { asBaked } from "./as-baked";
import { normalFrom, seeded } from "../random";
import { clueWeight, isOfFormula, soundClue } from "./sound";
import type { Slip } from "../live/events-schema";
import type { BakedAnalysis } from "../balance/readings";
import { gramsIn, scaledGroup, withMore } from "./groups";
import { nextFor } from "./next";
import { goals } from "./goals";
import { madeUp } from "../practice";
import { symptomIds, type SymptomId } from "./symptoms";

const sound = (kind: Kind, massG = 950): Opened => openFormula(beginKind(kind, "metric", massG), bareKitchen);
const seen = (...list: [SymptomId, number][]): Asked["seen"] => list.map(([symptomId, degree]) => ({ symptomId, degree }));
const first = ({ causes: [one] }: Diagnosis): string => one?.id ?? "nothing";
const places = (found: Diagnosis, id: string): number => found.causes.findIndex((cause) => cause.id === id);
const loaf = sound("loaf");
const muffins = sound("muffin", 430);

test("the list is whole: every cause has a family, symptoms and clues that exist, a source; the names of the wire are among them", () => {
  const onTheWire = "too-much-soda acid-missing too-much-acid too-much-leavening too-little-leavening leavening-forgotten old-powder stood-too-long leavening-clumped too-much-water too-little-water rest-too-short no-binder too-much-binder too-much-fat too-little-fat too-much-sugar too-little-sugar too-much-egg too-little-egg overmixed undermixed cold-ingredients cup-too-heavy cup-too-light wrong-flour pieces-too-wet pieces-too-heavy pan-too-small pan-too-large pan-dark pan-insulating oven-hot oven-cold oven-uneven not-preheated door-opened rack-too-high rack-too-low taken-early taken-late cut-warm cooled-in-pan not-enough-salt".split(" "); // prettier-ignore
  expect(causes.map(({ id }) => id)).toEqual(expect.arrayContaining(onTheWire));
  for (const cause of causes) {
    expect(causeFamilies).toContain(cause.family);
    expect(symptomIds).toEqual(expect.arrayContaining(Object.keys(cause.does)));
    expect(clueIds).toEqual(expect.arrayContaining(cause.clues.map(({ of }) => of)));
    expect([cause.tell, cause.source, cause.words].every((text) => text.length > 4)).toBe(true);
    for (const strength of Object.values(cause.does)) expect(strength > 0 && strength < 1).toBe(true);
  }
  // Every symptom can come from something.
  for (const id of symptomIds.filter((one) => one !== "salty"))
    expect(causes.some(({ does }) => does[id] !== undefined)).toBe(true);
});

describe("what any kitchen would say, with the formula sound as written", () => {
  test.each([
    ["the core was 8 K short of its target and the middle is raw", { seen: seen(["raw-centre", 3], ["sunk-middle", 2]), measured: { coreC: 88, minutes: 48 } }, "taken-early"],
    ["it stood for an hour and a half and came out dense", { seen: seen(["dense", 2], ["flat-top", 2]), measured: { stoodMinutes: 240 } }, "stood-too-long"],
    ["a tub that has been open for twenty months", { seen: seen(["dense", 3], ["flat-top", 2]), kitchen: { powderAgeMonths: 20 } }, "old-powder"],
    ["cut ten minutes after the oven, sticky at the knife", { seen: seen(["wet-sticky", 2], ["gummy-line", 1]), measured: { cutAfterMinutes: 10, coreC: 97 } }, "cut-warm"],
    ["left in the tin for two hours, its base wet", { seen: seen(["soggy-base", 3]), measured: { inPanMinutes: 130, coreC: 97 } }, "cooled-in-pan"],
    ["a thermometer said 25 K over the dial, the top is dark", { seen: seen(["dark-top", 2], ["cracked-top", 1]), measured: { ovenC: 200 } }, "oven-hot"],
    ["a thermometer said 25 K under the dial, the top is pale", { seen: seen(["pale-top", 2], ["took-longer", 2]), measured: { ovenC: 150 } }, "oven-cold"],
    ["the door stood open for three minutes and the middle sank", { seen: seen(["sunk-middle", 3]), measured: { doorSeconds: 180 } }, "door-opened"],
    ["yellow spots that taste of soap", { seen: seen(["yellow-spots", 2], ["soapy", 1]) }, "leavening-clumped"],
    ["lumps of dry flour", { seen: seen(["lumps", 2]) }, "undermixed"],
    ["tunnels that run up and a peak", { seen: seen(["tunnels", 3], ["peaked", 2]) }, "overmixed"],
    ["one side higher than the other", { seen: seen(["uneven-rise", 2]) }, "oven-uneven"],
    ["the leavening was forgotten, on record", { seen: seen(["dense", 3], ["flat-top", 3]), slips: [{ what: "forgotten", ingredientId: "powder-aluminium-free" }] }, "leavening-forgotten"],
    ["a batter stiffer than meant, flour by the cup", { seen: seen(["batter-too-thick", 2], ["dry", 2]), kitchen: { weighedShare: 0 } }, "cup-too-heavy"],
  ] as [string, Asked, string][])("%s", (_, asked, cause) => {
    expect(first(diagnose(loaf, asked))).toBe(cause);
  }); // prettier-ignore
});

describe("a fault of the formula itself", () => {
  test("soda that finds no acid, soapy and dark: more soda than acid, by its grams, and the remedy leaves none over", () => {
    const input = withMore(loaf, "soda", 6);
    const found = diagnose(input, { seen: seen(["soapy", 2], ["dark-top", 2]) });
    const cause = found.causes[places(found, "too-much-soda")];
    expect(["too-much-soda", "acid-missing"]).toContain(first(found));
    expect(cause?.for.some(({ what }) => what.startsWith("Soda without acid"))).toBe(true);
    expect(cause?.remedy?.changes.map(({ ingredientId }) => ingredientId)).toEqual(["soda"]);
    expect(cause?.remedy?.after.residualSodaG).toBeLessThan(0.2 * (cause?.remedy?.before.residualSodaG ?? 0));
    expect(diagnosisSchema.parse(found)).toEqual(found);
  });
  test("no gum and no egg, it falls apart: nothing binds it, and the remedy binds", () => {
    const input = scaledGroup(scaledGroup(loaf, "binder", 0, builtInShelf), "egg", 0.1, builtInShelf);
    const found = diagnose(input, { seen: seen(["crumbly", 3]) });
    expect(["no-binder", "too-little-egg"]).toContain(first(found));
    expect(found.causes[places(found, "no-binder")]?.remedy?.after.binderPercent ?? 0).toBeGreaterThan(0.3);
  });
  test("three times the powder, sunken and coarse: too much, and less is proposed", () => {
    const input = scaledGroup(loaf, "leavening", 3, builtInShelf);
    const found = diagnose(input, { seen: seen(["sunk-middle", 3], ["coarse-crumb", 2], ["metallic", 1]) });
    expect(first(found)).toBe("too-much-leavening");
    const { remedy } = found.causes[0] ?? {};
    expect(remedy?.changes.every(({ fromG, toG }) => toG < fromG)).toBe(true);
    expect(remedy?.bake?.after).toMatch(/min, \d+ °C inside/);
  });
});

test("what one cause explains is not explained again: a cold oven that was read leaves nothing for a bake taken out early by the clock", () => {
  const planned = baked(loaf).analysis.bake;
  const asked = {
    seen: seen(["raw-centre", 3], ["pale-top", 2]),
    measured: { ovenC: 150, minutes: Math.round(planned.minutes.mid), coreC: 85 },
  };
  const found = diagnose(loaf, asked);
  expect(first(found)).toBe("oven-cold");
  expect(found.causes[0]?.probability).toBeGreaterThan(0.8);
  expect(found.causes.find(({ id }) => id === "taken-early")?.probability ?? 0).toBeLessThan(0.35);
  // Without the thermometer's word both stand, and the minutes as planned speak for neither.
  const blind = diagnose(loaf, { ...asked, measured: { coreC: 85 } });
  expect(places(blind, "taken-early")).toBeGreaterThanOrEqual(0);
  expect(places(blind, "oven-cold")).toBeGreaterThanOrEqual(0);
});

test("the first cause explains the complaint that tells most: what is soapy is soda, though a hot oven explains the colour", () => {
  const asked = {
    seen: seen(["soapy", 2], ["dark-top", 2], ["burnt-base", 1], ["thick-crust", 1]),
    measured: { crumbPh: 8.3 },
    kitchen: { ovenBiasK: 12 },
  };
  expect(["too-much-soda", "acid-missing"]).toContain(first(diagnose(loaf, asked)));
});

test("probabilities are chances: none over one, nothing seen makes a sound bake likeliest, a cause that is seen to be absent loses", () => {
  const quiet = diagnose(loaf, { seen: [] });
  expect(Math.max(...quiet.causes.map(({ probability }) => probability))).toBeLessThan(0.1);
  expect(quiet.sound).toBeGreaterThan(0.5);
  const soapy = diagnose(loaf, { seen: seen(["dense", 2]) });
  const notSoapy = diagnose(loaf, { seen: seen(["dense", 2], ["flat-top", 0], ["gummy-line", 0]) });
  for (const { probability } of [...soapy.causes, ...notSoapy.causes]) expect(probability).toBeLessThanOrEqual(1);
  const chance = (found: Diagnosis): number => found.causes.find(({ id }) => id === "leavening-forgotten")?.probability ?? 0;
  expect(chance(notSoapy)).toBeLessThanOrEqual(chance(soapy));
});

test("a measured bake that went as predicted speaks against the oven", () => {
  const { simulation } = baked(loaf, undefined, { frames: 0, spread: 0.1 });
  const measured = { minutes: simulation.minutes, coreC: 96, massInG: 950, massOutG: 950 * (1 - simulation.loss.oven / 100) };
  const without = diagnose(loaf, { seen: seen(["dark-top", 1]) });
  const with_ = diagnose(loaf, { seen: seen(["dark-top", 1]), measured });
  const chance = (found: Diagnosis): number => found.causes.find(({ id }) => id === "oven-hot")?.probability ?? 0;
  expect(chance(with_)).toBeLessThan(chance(without));
});

describe("what every sound bake shows tells nothing", () => {
  // Other masses than the table was counted from, and every group a little more or less of what is written.
  const normal = normalFrom(seeded(11));
  const some = ["loaf", "muffin", "scone", "biscuit", "cornbread-sweet", "tray-bread", "bun", "pourable-batter"] as const;
  const theirs = some.map((kind) => (["water", "fat", "sugar", "egg", "leavening"] as const).reduce((input, group) => scaledGroup(input, group, 1 + 0.07 * normal(), builtInShelf), sound(kind, 740))); // prettier-ignore
  test("the clues of a sound formula leave every cause about where it was, by clue", () => {
    const told = new Map<string, number[]>();
    for (const input of theirs) {
      const { analysis } = baked(input, undefined, { frames: 0, spread: 0 });
      const clues = cluesOf(input, analysis as BakedAnalysis, builtInShelf, {});
      for (const cause of causes)
        for (const clue of cause.clues) {
          const value = clues[clue.of];
          const key = `${cause.id} ${clue.of}`;
          // Dark pans and the like are the kitchen's; a batter as written has none.
          if (value !== undefined && isOfFormula(clue.of)) told.set(key, [...(told.get(key) ?? []), clueWeight(clue, value, analysis.given.kind)]);
        }
    }
    expect(told.size).toBeGreaterThan(15);
    const means = [...told].map(([key, weights]) => [key, weights.reduce((sum, one) => sum + one, 0) / weights.length] as const);
    expect(means.filter(([, mean]) => Math.abs(mean) > 0.3)).toEqual([]);
  }); // prettier-ignore
  test("every clue of the table has what it is in a sound bake, and its curve has the mean 0 there", () => {
    for (const { clues } of causes)
      for (const clue of clues) {
        const { mean, sd } = soundClue(clue.of, "loaf");
        const steps = Array.from({ length: 401 }, (_, k) => -4 + k / 50);
        const density = (z: number): number => Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI) / 50;
        const integral = steps.reduce((sum, z) => sum + density(z) * clueWeight(clue, mean + z * sd, "loaf"), 0);
        expect(Math.abs(integral)).toBeLessThan(0.02);
      }
  });
  test.each(["loaf", "muffin", "scone", "tray-bread", "cornbread-sweet"] as const)("a sound %s that was looked at and measured has no cause of three in ten", (kind) => {
    const input = sound(kind, 700);
    const { simulation } = baked(input, undefined, { frames: 0, spread: 0.1 });
    const measured = { minutes: Math.round(simulation.minutes), coreC: 97, stoodMinutes: 3, massInG: 700, massOutG: 700 * (1 - simulation.loss.oven / 100) };
    const found = diagnose(input, { seen: symptomIds.slice(0, 20).map((symptomId) => ({ symptomId, degree: 0 })), measured });
    expect(found.causes.filter(({ probability }) => probability >= 0.3)).toEqual([]);
    expect(found.sound).toBeGreaterThan(0.5);
  }); // prettier-ignore
});

describe("what really happened counts first", () => {
  const powder = "powder-aluminium-free";
  const grams = loaf.lines.find(({ ingredientId }) => ingredientId === powder)?.grams;
  const written = typeof grams === "object" ? grams.mid : (grams ?? 0);
  const dense = seen(["dense", 3], ["flat-top", 2]);
  test.each([
    ["a third of the powder", [{ what: "amount", ingredientId: powder, grams: written / 3 }], dense, "too-little-leavening"],
    ["twice the leavening", [{ what: "amount", ingredientId: powder, grams: 2 * written }], seen(["sunk-middle", 2], ["coarse-crumb", 2]), "too-much-leavening"],
    ["no salt", [{ what: "forgotten", ingredientId: "salt" }], seen(["bland", 3]), "not-enough-salt"],
    ["half the egg", [{ what: "amount", ingredientId: "egg", grams: 40 }], seen(["crumbly", 2]), "too-little-egg"],
    ["coconut flour for the blend", [{ what: "swapped", ingredientId: "gf-blend-plain", with: "coconut-flour" }], seen(["dry", 3], ["crumbly", 2]), "wrong-flour"],
  ] as [string, Slip[], Asked["seen"], string][])("%s on record is named first, with the grams, and the powder is not blamed", (_, slips, signs, cause) => {
    const found = diagnose(loaf, { seen: signs, slips });
    expect(first(found)).toBe(cause);
    expect(found.causes[0]?.for.some(({ what }) => what === "On record")).toBe(true);
    expect(found.causes.find(({ id }) => id === "old-powder")?.probability ?? 0).toBeLessThan(0.1);
  }); // prettier-ignore
  test("a slip is put into the batter it was made in, and only there", () => {
    const glazed: Opened = { ...loaf, lines: [...loaf.lines, { ingredientId: "egg", grams: 20, component: "glaze" }] };
    const real = asBaked(glazed, [
      { what: "forgotten", ingredientId: "egg" },
      { what: "amount", ingredientId: "salt", grams: 9 },
    ]);
    expect(real.lines.filter(({ ingredientId }) => ingredientId === "egg")).toEqual([
      { ingredientId: "egg", grams: 20, component: "glaze" },
    ]);
    expect(gramsIn(real, "salt", builtInShelf)).toBeCloseTo(9, 6);
  });
  test("a slip that leaves no batter, or names what is on no shelf, is still told of, and nothing breaks", () => {
    const flours = loaf.lines.flatMap(({ ingredientId = "" }) => (/flour|blend/.test(ingredientId) ? [{ what: "forgotten" as const, ingredientId }] : []));
    const none = diagnose(loaf, { seen: dense, slips: loaf.lines.flatMap(({ ingredientId = "" }) => [{ what: "forgotten" as const, ingredientId }]) });
    expect(none.causes.length).toBeGreaterThanOrEqual(3);
    expect(diagnose(loaf, { seen: dense, slips: flours }).causes.length).toBeGreaterThanOrEqual(3);
    expect(diagnose(loaf, { seen: dense, slips: [{ what: "swapped", ingredientId: "egg", with: "moon-dust" }] }).causes.length).toBeGreaterThanOrEqual(3);
  }); // prettier-ignore
  test("what cannot be is not told: no old powder where there is none, no stale tub that was opened last week", () => {
    const bare = scaledGroup(loaf, "powder", 0, builtInShelf);
    expect(places(diagnose(bare, { seen: dense }), "old-powder")).toBe(-1);
    const fresh = diagnose(loaf, { seen: dense, kitchen: { powderAgeMonths: 1 } });
    expect(fresh.causes.find(({ id }) => id === "old-powder")?.probability ?? 0).toBeLessThan(0.02);
  });
});

describe("made-up bakes", () => {
  test("are the same for a seed, and different for another", () => {
    const [one, same, other] = [madeUp(5), madeUp(5), madeUp(6)];
    expect(same?.measured).toEqual(one?.measured);
    expect(same?.seen).toEqual(one?.seen);
    expect([one?.cause.id, one?.measured]).not.toEqual([other?.cause.id, other?.measured]);
  });
  test("most hidden causes are among the first three (npm run faults has the whole)", () => {
    const asked = ["too-much-soda", "taken-early", "oven-hot", "cup-too-heavy", "cut-warm", "too-much-leavening"];
    const hits = asked.filter((causeId, k) => {
      const bake = madeUp(500 + k, { causeId, kind: "muffin" });
      return bake !== null && places(diagnose(bake.input, { seen: bake.seen, measured: bake.measured, kitchen: bake.kitchen }), causeId) >= 0 && places(diagnose(bake.input, { seen: bake.seen, measured: bake.measured, kitchen: bake.kitchen }), causeId) < 3;
    });
    expect(hits.length).toBeGreaterThanOrEqual(5);
  }); // prettier-ignore
});

describe("the next change", () => {
  test.each(goals)("for %s moves what is wished for, by one thing, and brings no new fault", (goal) => {
    const { ways } = nextFor(muffins, goal);
    for (const { effect, changes, set, after, before, title } of ways) {
      expect(changes.length > 0 || set !== undefined).toBe(true);
      expect(effect.low).not.toBe(effect.high);
      expect(after.findings.filter((id) => !before.findings.includes(id) && !/check|weighed/.test(id))).toEqual([]);
      expect(title).not.toBe("");
    }
  });
  test("what was tried before is not proposed again", () => {
    const titles = (tried: ReadonlySet<string>): string[] => nextFor(muffins, "moister", tried).ways.map(({ title }) => title);
    const [one = ""] = titles(new Set());
    expect(titles(new Set([one]))).not.toContain(one);
  });
  test("less sodium is what less leavening gives, by the sodium of what is in it", () => {
    const way = nextFor(muffins, "less-sodium").ways[0];
    const grams = gramsIn(muffins, "leavening", builtInShelf) + gramsIn(muffins, "salt", builtInShelf);
    expect(grams).toBeGreaterThan(0);
    expect(way?.changes.every(({ fromG, toG }) => toG < fromG)).toBe(true);
  });
});

test("a cause that is not there is refused", () => {
  expect(() => causeOf("the-weather")).toThrow(/no entry for the-weather/);
});
