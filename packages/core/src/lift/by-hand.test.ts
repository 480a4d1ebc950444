import fc from "fast-check";
import { bareKitchen } from "../formula/bare-kitchen";
import { beginKind } from "../begin";
import { resolve } from "../formula/resolve";
import { builtInShelf } from "../pantry/catalogue";
import { ingredientOf } from "../pantry/shelf";
import { crystalReaction } from "./kinetics";
import { airIn } from "./air";
import { acidFractions, givenUp, sodaPerGram, titrationOf } from "./charge";
import { airShare, benchGas, gasOf, gasVolume, minutesUntilLost, stagesOf } from "./gas";
import { acidPerGram, ledgerOf, perHundred } from "./ledger";
import { liftOf, verdictLimits } from "./lift";
import { pullsOf } from "./pulls";

/** What a change of one sign in the lift would upset, each against something worked out by hand. */
type Grams = number | { low: number; mid: number; high: number };
const items = (...lines: [string, Grams][]) => resolve(lines.map(([ingredientId, grams]) => ({ ingredientId, grams })), builtInShelf); // prettier-ignore
const of = (id: string) => ingredientOf(builtInShelf, id);

describe("what a gram brings", () => {
  test("cream of tartar, one proton of 188.2 g/mol: 5.31 mmol; half of them at its pKa, all of them far above it, none dry", () => {
    const gram = of("cream-of-tartar");
    expect(acidPerGram(gram)).toBeCloseTo(1000 / 188.18, 1);
    const t = { ...titrationOf(gram), acids: [], buffer: 0 };
    const whole = givenUp(t, 14);
    expect(whole).toBeCloseTo(acidPerGram(gram), 1);
    expect(givenUp(t, t.crystals[0]?.pKa ?? NaN)).toBeCloseTo(whole / 2, 6);
    expect(givenUp(t, -5)).toBeCloseTo(0, 6);
  });
  test("a blend that raises itself holds of its powder's soda and acids as much as of the powder", () => {
    const blend = of("gf-blend-self-raising");
    const { powder = "", share = NaN } = blend.leavening ?? {};
    const own = builtInShelf.all().find(({ leavening }) => leavening?.powder === powder && (leavening?.share ?? 1) === 1);
    if (!own) throw new Error(`no powder ${powder}`);
    expect(share).toBeLessThan(0.1);
    expect(sodaPerGram(blend)).toBeCloseTo(share * sodaPerGram(own), 9);
    expect(acidFractions(blend)).toEqual(acidFractions(own).map(([id, fraction]) => [id, expect.closeTo(share * fraction, 9) as number])); // prettier-ignore
    expect(sodaPerGram(of("white-rice-flour"))).toBe(0);
  });
});

describe("how far it is known", () => {
  test("the acid of buttermilk spreads as its titration does; a powder's soda by 8 %", () => {
    const { acidity } = of("buttermilk");
    const [entry] = ledgerOf(items(["buttermilk", 100])).entries;
    expect((entry?.acid.low ?? NaN) / (entry?.acid.mid ?? NaN)).toBeCloseTo((acidity?.low ?? NaN) / (acidity?.mid ?? NaN), 6);
    expect((entry?.acid.high ?? NaN) / (entry?.acid.mid ?? NaN)).toBeCloseTo((acidity?.high ?? NaN) / (acidity?.mid ?? NaN), 6);
    const { soda } = ledgerOf(items(["powder-double-acting", 10]));
    expect([soda.low / soda.mid, soda.high / soda.mid]).toEqual([expect.closeTo(0.92, 6), expect.closeTo(1.08, 6)]);
  });
  test("an unsure mass of a powder moves its soda and acid together, and not what it is met by; one of soda beside vinegar does", () => {
    const ratio = (...lines: [string, Grams][]) => ledgerOf(items(...lines)).neutralised;
    const unsure = { low: 7, mid: 10, high: 13 };
    const width = ({ low, high }: { low: number; high: number }): number => high - low;
    // Its acids by their values, alone, have the rest of the range.
    expect(width(ratio(["powder-phosphate", unsure])) / width(ratio(["powder-phosphate", 10]))).toBeLessThan(1.1);
    const sharp = ratio(["soda", 3], ["vinegar", 40]);
    const blurred = ratio(["soda", { low: 2, mid: 3, high: 4 }], ["vinegar", 40]);
    expect([blurred.mid, blurred.low < sharp.low, blurred.high > sharp.high]).toEqual([sharp.mid, true, true]);
    // A third more soda is a quarter less met, by hand: within the square sum.
    expect(blurred.mid - blurred.low).toBeGreaterThan(0.3 * blurred.mid);
  });
  test("what brings neither stands in no ledger; per hundred of nothing is nothing", () => {
    expect(ledgerOf(items(["soda", 3], ["white-sugar", 200])).entries.map(({ ingredientId }) => ingredientId)).toEqual(["soda"]);
    expect(perHundred({ low: 1, mid: 2, high: 3 }, 50)).toEqual({ low: 2, mid: 4, high: 6 });
    expect(perHundred({ low: 1, mid: 2, high: 3 }, 0)).toEqual({ low: 0, mid: 0, high: 0 });
  });
});

describe("gas", () => {
  const gas = (carbon: number, ...lines: [string, Grams][]) => gasOf(items(...lines), ledgerOf(items(...lines)), carbon);
  test("the faster acid takes the soda first, the slower what is left", () => {
    const { sources } = gas(0, ["soda", 4.2], ["sapp", 20], ["cream-of-tartar", 5]);
    const [first, second] = sources.filter(({ id }) => id !== "dissolved");
    expect([first?.id, first?.mmol]).toEqual(["tartrate", expect.closeTo(5 * acidPerGram(of("cream-of-tartar")), 0)]);
    expect((first?.mmol ?? 0) + (second?.mmol ?? 0)).toBeCloseTo(4200 / 84.007, 0);
  });
  test("sparkling water loses on the bench what does not stay in, and the oven has the rest", () => {
    const fizzy = builtInShelf.all().find(({ carbonation, leavening }) => carbonation && !leavening);
    if (!fizzy) throw new Error("nothing fizzy in the pantry");
    const only = gas(0, [fizzy.id, 100]);
    expect(only.fizz.mid + only.fizzLost).toBeCloseTo(fizzy.carbonation?.mid ?? NaN, 6);
    const { bench, oven, never } = stagesOf(only, 600, 22);
    expect([bench + oven, never]).toEqual([expect.closeTo(1, 9), 0]);
    expect(bench).toBeCloseTo(only.fizzLost / (only.fizz.mid + only.fizzLost), 9);
    // 24.5 mL a mmol at 25 °C.
    expect(gasVolume(only, { low: 0, mid: 0, high: 0 }, 200).mid).toBeCloseTo((only.fizz.mid * 24.465) / 2, 1);
    expect(gasVolume(only, { low: 0, mid: 0, high: 0 }, 0).mid).toBe(0);
  });
  test("nothing gives nothing, and loses nothing", () => {
    const none = gas(0, ["water", 100]);
    expect(stagesOf(none, 600, 22)).toEqual({ bench: 0, oven: 0, never: 0 });
    expect(minutesUntilLost(none, 0.1, 22)).toBeNull();
  });
  test("the minutes until a share is lost lose that share; twice the share takes longer; in the cold it takes longer", () => {
    const dough = gas(0, ["soda", 3], ["cream-of-tartar", 7]);
    const whole = dough.sources.reduce((all, { mmol }) => all + mmol, 0);
    const lostBy = (minutes: number): number => {
      const start = benchGas(dough, 180, 22);
      return (benchGas(dough, 180 + minutes * 60, 22) - start) / (whole - start);
    };
    const [tenth, quarter] = [minutesUntilLost(dough, 0.1, 22) ?? NaN, minutesUntilLost(dough, 0.25, 22) ?? NaN];
    // What passes while it is handled is counted by the same clock: within a tenth of the share.
    expect([lostBy(tenth), lostBy(quarter)]).toEqual([expect.closeTo(0.1, 1), expect.closeTo(0.25, 1)]);
    expect(quarter).toBeGreaterThan(2 * tenth * 0.9);
    expect(minutesUntilLost(dough, 0.1, 6) ?? Infinity).toBeGreaterThan(tenth);
    expect(crystalReaction("tartrate").energy).toBeGreaterThan(0);
  });
});

test("the verdict goes by the ledger and never against the crumb's pH", () => {
  const seen = new Map<string, number>();
  const { noLiftMmol, heavyRatio, heavyPh, shortPh, shortRatio } = verdictLimits;
  fc.assert(
    fc.property(fc.double({ min: 0, max: 8, noNaN: true }), fc.double({ min: 0, max: 120, noNaN: true }), fc.double({ min: 0, max: 10, noNaN: true }), (soda, vinegar, tartar) => {
      const batter = items(["white-rice-flour", 250], ["water", 200], ["soda", soda], ["vinegar", vinegar], ["cream-of-tartar", tartar]);
      const { lift, ledger } = liftOf(batter, {});
      const per100 = (ledger.soda.mid * 100) / batter.reduce((g, { massG }) => g + massG, 0);
      seen.set(lift.verdict, (seen.get(lift.verdict) ?? 0) + 1);
      if (per100 < noLiftMmol) return lift.verdict === "no-lift";
      if (lift.ph.mid > shortPh) return lift.verdict === "short-of-acid";
      if (lift.verdict === "acid-heavy") return ledger.neutralised.mid > heavyRatio && lift.ph.mid < heavyPh;
      if (lift.verdict === "short-of-acid") return ledger.neutralised.mid < shortRatio;
      return lift.verdict === "balanced" && !(ledger.neutralised.mid > heavyRatio && lift.ph.mid < heavyPh);
    }),
    { seed: 8, numRuns: 150 },
  ); // prettier-ignore
  expect([...seen.keys()].sort()).toEqual(["acid-heavy", "balanced", "no-lift", "short-of-acid"]);
});

describe("air that is beaten in", () => {
  const plain: [string, Grams][] = [["white-rice-flour", 200], ["white-sugar", 250], ["egg", 200]]; // prettier-ignore
  test("eggs and sugar without a leavening hold as much as creaming does; with one, or with little sugar, what their method leaves", () => {
    expect(airIn(items(...plain), "muffin")).toBe(airShare.creaming.mid);
    expect(airIn(items(...plain, ["soda", 3]), "muffin")).toBe(airShare.muffin.mid);
    expect(airIn(items(...plain, ["powder-phosphate", 3]), "muffin")).toBe(airShare.muffin.mid);
    expect(airIn(items(["white-rice-flour", 200], ["white-sugar", 20], ["egg", 200]), "muffin")).toBe(airShare.muffin.mid);
  });
  test("whisking needs what foams: egg or aquafaba, not water; a whisked batter of eggs holds most", () => {
    expect(airIn(items(...plain), "whisked")).toBe(airShare.whisked.mid);
    expect(airIn(items(["white-rice-flour", 200], ["aquafaba", 120]), "whisked")).toBe(airShare.whisked.mid);
    expect(airIn(items(["white-rice-flour", 200], ["water", 200]), "whisked")).toBe(airShare["one-bowl"].mid);
    expect(airIn(items(["white-rice-flour", 900], ["egg", 40]), "whisked")).toBe(airShare["one-bowl"].mid);
  });
});

test("what each line pulls: an ingredient on two lines is shared out by mass, and all of them are the ledger", () => {
  const begun = beginKind("loaf", "metric", 900);
  const line = (id: string, ingredientId: string, mid: number) => ({ id, ingredientId, grams: { low: mid, mid, high: mid } });
  const formula = { ...begun, lines: [line("f", "white-rice-flour", 300), line("a", "vinegar", 10), line("b", "vinegar", 30), line("s", "soda", 4), line("w", "water", 250)] }; // prettier-ignore
  const { lift } = liftOf(resolve(formula.lines, builtInShelf), formula.process ?? {});
  const pulls = pullsOf(formula, bareKitchen.book, lift);
  expect(pulls.get("b")?.acid).toBeCloseTo(3 * (pulls.get("a")?.acid ?? NaN), 9);
  const [soda, acid] = [...pulls.values()].reduce(([s, a], one) => [s + one.soda, a + one.acid], [0, 0]);
  expect([soda, acid]).toEqual([expect.closeTo(lift.sodaMmol.mid, 6), expect.closeTo(lift.acidMmol.mid, 6)]);
  expect(pulls.get("s")).toEqual({ soda: expect.closeTo(4000 / 84.007, 1) as number, acid: 0 });
  expect(pulls.get("w")?.soda).toBe(0);
});
