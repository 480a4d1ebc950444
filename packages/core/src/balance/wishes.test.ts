import { beginKind } from "../begin";
import { stiffnessOf } from "../body/consistency";
import { binderPerGram } from "../body/binder";
import { bareKitchen } from "../formula/bare-kitchen";
import { gramsOf, type InputLine } from "../formula/components";
import { type Opened, openFormula } from "../formula/open";
import { kinds } from "../formula/kinds";
import { type WeighedLine, resolve } from "../formula/resolve";
import { builtInShelf } from "../pantry/catalogue";
import { pricesPerKg } from "../pantry/packet";
import { balanceWithout } from "./leave-out";
import { proposalsSchema } from "./proposal";
import { readings } from "./readings";
import { wholeWishes, type WholeWish } from "./wish-words";

const grams = (lines: readonly InputLine[], id: string): number => lines.filter(({ ingredientId }) => ingredientId === id).reduce((sum, line) => sum + gramsOf(line), 0); // prettier-ignore
const sheet = (masses: Record<string, number>, kind: Opened["kind"] = "muffin"): Opened => ({ kind, lines: Object.entries(masses).map(([ingredientId, g]) => ({ ingredientId, grams: g })) }); // prettier-ignore
/** A sound muffin batter with milk, egg, gum, refined sugar, powder and nuts. */
const muffins = sheet({ "sorghum-flour": 130, "tapioca-starch": 80, "almond-flour": 40, xanthan: 2, "whole-milk": 200, egg: 100, butter: 80, "white-sugar": 100, "powder-aluminium-free": 12, salt: 3 }); // prettier-ignore
const only = (wish: WholeWish, input = muffins, more = {}) => balanceWithout(input, { wish, ...more });
const first = (wish: WholeWish, input = muffins, more = {}) => {
  const { proposals, conflict } = only(wish, input, more);
  if (!proposals[0]) throw new Error(conflict?.message ?? "no proposal");
  return proposals[0];
};

/** What each wish must leave nothing of, as a baker would list it. */
const gone: [WholeWish, string[]][] = [
  ["vegan", ["whole-milk", "egg", "butter"]],
  ["no-egg", ["egg"]],
  ["no-milk", ["whole-milk", "butter"]],
  ["no-nuts", ["almond-flour"]],
  ["no-gum", ["xanthan"]],
  ["no-refined-sugar", ["white-sugar"]],
  ["no-powder", ["powder-aluminium-free"]],
];

describe("a wish of the whole formula", () => {
  test.each(gone)("%s: all of it is gone in one proposal, judged again, with its bake beside the present one", (wish, ids) => {
    const proposal = first(wish);
    for (const id of ids) expect(grams(proposal.lines, id)).toBe(0);
    const again = readings({ ...muffins, lines: proposal.lines as InputLine[] });
    expect(proposal.after.findings).toEqual(again.findings.map(({ id }) => id));
    expect(again.findings.filter(({ severity }) => severity === "stop")).toEqual([]);
    expect(Math.abs(again.batch.massG / readings(muffins).batch.massG - 1)).toBeLessThan(0.12);
    expect(proposal.baked?.after.minutes.mid).toBeGreaterThan(10);
    expect(proposalsSchema.parse(only(wish)).proposals).toHaveLength(1);
  });
  test("for every kind of bake a vegan one holds no animal, or says what nothing stands in for", () => {
    for (const kind of kinds) {
      const input = openFormula(beginKind(kind, "metric", 800), bareKitchen);
      const { proposals, stillHolds = [] } = balanceWithout(input, { wish: "vegan" });
      const lines = (proposals[0]?.lines ?? input.lines) as InputLine[];
      const left = lines.filter(({ ingredientId = "" }) => builtInShelf.get(ingredientId)?.allergens.some((a) => a === "milk" || a === "egg")); // prettier-ignore
      expect(left.map(({ ingredientId }) => ingredientId)).toEqual(stillHolds.map(({ ingredientId }) => ingredientId));
    }
  });
  test("without gum, another binder binds; without powder, soda meets an acid", () => {
    const bound = resolve(first("no-gum").lines as WeighedLine[], builtInShelf).reduce((sum, { ingredient, massG }) => sum + massG * binderPerGram(ingredient), 0); // prettier-ignore
    expect(bound).toBeGreaterThan(1);
    const soda = readings({ ...muffins, lines: first("no-powder").lines as InputLine[] });
    expect(soda.lift.sodaMmol.mid).toBeGreaterThan(10);
    expect(soda.lift.residualSodaG).toBeLessThan(0.4);
  });
  test("what is so already is said, and nothing is moved", () => {
    expect(only("no-nuts", sheet({ "sorghum-flour": 200, water: 150, "powder-aluminium-free": 8 }))).toMatchObject({ proposals: [], conflict: { message: "No nuts: it is so already." } }); // prettier-ignore
  });
  test("a locked line stays, and is named", () => {
    const locked = { ...muffins, lines: muffins.lines.map((line) => (line.ingredientId === "egg" ? { ...line, locked: true } : line)) }; // prettier-ignore
    const { proposals, stillHolds } = balanceWithout(locked, { wish: "vegan" });
    expect(grams((proposals[0]?.lines ?? []) as InputLine[], "egg")).toBe(100);
    expect(proposals[0]?.title).toBe("Vegan, as far as it goes");
    expect(stillHolds).toEqual([{ ingredientId: "egg", allergens: ["egg"], locked: true }]);
    expect(proposals[0]?.why).toMatch(/Locked, and left as it is: egg, whole\.$/);
  });
  test("from what is on hand: nothing else is in it but what is named, and nothing that is not on hand comes in", () => {
    const onHand = ["brown-rice-flour", "corn-starch", "guar", "oat-milk", "egg", "sunflower-oil", "white-sugar", "soda", "vinegar", "salt"]; // prettier-ignore
    const { proposals, stillHolds = [] } = balanceWithout(muffins, { wish: "on-hand", onHand });
    const named = new Set(stillHolds.map(({ ingredientId }) => ingredientId));
    const lines = (proposals[0]?.lines ?? []) as InputLine[];
    expect(lines.length).toBeGreaterThan(6);
    for (const { ingredientId = "" } of lines) expect(onHand.includes(ingredientId) || named.has(ingredientId) || ingredientId === "water").toBe(true); // prettier-ignore
  });
});

describe("a wish that moves amounts", () => {
  const stiff = (lines: readonly InputLine[]): number => stiffnessOf(resolve(lines as WeighedLine[], builtInShelf), "muffin");
  test("a quarter less sugar, a third less salt, a quarter more fat, by hand; the batter is as stiff as it was", () => {
    const sugar = first("less-sugar").lines as InputLine[];
    expect(grams(sugar, "white-sugar")).toBeCloseTo(75, 1);
    expect(stiff(sugar)).toBeCloseTo(stiff(muffins.lines as InputLine[]), 1);
    expect(grams(first("less-salt").lines as InputLine[], "salt")).toBeCloseTo(2, 1);
    const rich = first("richer").lines as InputLine[];
    expect(grams(rich, "butter")).toBeCloseTo(100, 1);
    expect(stiff(rich)).toBeCloseTo(stiff(muffins.lines as InputLine[]), 1);
  });
  test("sourer is a crumb whose pH is 0.3 lower, poured in the place of milk", () => {
    const before = readings(muffins).lift.ph.mid;
    const { lines } = first("sourer");
    expect(before - readings({ ...muffins, lines: lines as InputLine[] }).lift.ph.mid).toBeCloseTo(0.3, 1);
    const poured = grams(lines as InputLine[], "lemon-juice");
    expect(grams(lines as InputLine[], "whole-milk")).toBeCloseTo(200 - poured, 1);
    const soapy = sheet({ "sorghum-flour": 200, water: 180, soda: 6, salt: 2, xanthan: 2 });
    expect(only("sourer", soapy).conflict?.message).toMatch(/Mend that first/);
  });
  test("cheaper costs less, summed by hand, with nothing new that is wrong; without a price it says so", () => {
    const packet = (ingredientId: string, price: number) => ({
      ingredientId,
      name: ingredientId,
      sizeG: 500,
      price,
      currency: "EUR",
    });
    const prices = pricesPerKg([packet("almond-flour", 9), packet("sunflower-flour", 3), packet("butter", 6), packet("margarine", 2), packet("sunflower-oil", 1)]); // prettier-ignore
    expect(prices["almond-flour"]).toBe(18);
    const proposal = first("cheaper", muffins, { prices });
    const cost = (lines: readonly InputLine[]): number => Object.keys(prices).reduce((sum, id) => sum + (prices[id] ?? 0) * grams(lines, id), 0); // prettier-ignore
    expect(cost(proposal.lines as InputLine[])).toBeLessThan(0.95 * cost(muffins.lines as InputLine[]));
    expect(proposal.after.findings.length).toBeLessThanOrEqual(proposal.before.findings.length);
    // Butter that is solid is no oil.
    expect(grams(proposal.lines as InputLine[], "sunflower-oil")).toBe(0);
    expect(only("cheaper").conflict?.message).toMatch(/No price is known/);
  });
  test("whatever is wished, a proposal is what its lines come to", () => {
    for (const wish of wholeWishes) {
      const proposal = only(wish, muffins, { onHand: muffins.lines.map(({ ingredientId }) => ingredientId ?? "") }).proposals[0];
      if (proposal) expect(readings({ ...muffins, lines: proposal.lines as InputLine[] }).lift.ph.mid).toBeCloseTo(proposal.after.ph.mid, 6); // prettier-ignore
    }
  });
});
