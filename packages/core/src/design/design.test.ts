import { analyse, baked } from "../balance/analyse";
import { readings } from "../balance/readings";
import { applyEdit } from "../formula/edits";
import { formulaSchema } from "../formula/formula";
import { kinds } from "../formula/kinds";
import type { Kind } from "../formula/kinds";
import { openFormula } from "../formula/open";
import { bareKitchen } from "../formula/bare-kitchen";
import { builtInShelf, catalogue } from "../pantry/catalogue";
import { vesselLibrary } from "../pantry/vessel";
import { knobbed } from "./knobs";
import { type Design, design, designsSchema, moved } from "./design";
import { blendOf, insteadOf, isGround, isStarch, knownRole, roleOf } from "./flours";
import { randomWish } from "./shelves";
import { designVessels, formulaOf } from "./to-formula";
import { USUAL_SHELF } from "./wish";
import { wishSchema } from "./wish-schema";

const inputOf = ({ lines, kind, vessel, oven, process }: Design) => ({ lines, kind, vessel, oven, process });
const gramsOf = ({ lines }: Pick<Design, "lines">, wanted: (id: string) => boolean): number =>
  lines.reduce((g, { ingredientId, grams }) => g + (wanted(ingredientId) ? grams : 0), 0);

/** Sound by the findings of the bench, inside its bands, done in its pan. */
function expectSound(one: Design): void {
  const { analysis } = baked(inputOf(one), undefined, { frames: 0, spread: 0.1 });
  expect([one.id, analysis.findings.filter(({ severity }) => severity !== "note").map(({ message }) => message)]).toEqual([
    one.id,
    [],
  ]);
  for (const { name, low, high, value } of analysis.bands)
    if (value < 0.995 * low - 0.01 || value > 1.005 * high + 0.01)
      throw new Error(`${one.kind} ${one.id}: ${name} ${value} of ${low}–${high}`);
  expect(analysis.bake.fidelity).toBe("fine");
}

describe("from the usual shelf", () => {
  test.each(kinds)("%s: two to four designs, each sound, in their bands, done in their pan, and differing", (kind: Kind) => {
    const { designs, missing } = design({ kind });
    expect(missing).toBeUndefined();
    expect(designs.length).toBeGreaterThanOrEqual(2);
    expect(designs.length).toBeLessThanOrEqual(4);
    expect(designsSchema.safeParse({ designs }).error?.issues ?? []).toEqual([]);
    designs.forEach(expectSound);
    expect(new Set(designs.map(({ lines }) => JSON.stringify(lines))).size).toBe(designs.length);
  });
  test("the same wish has the same answer", () => {
    expect(design({ kind: "muffin", tall: 0.7 })).toEqual(design({ kind: "muffin", tall: 0.7 }));
  });
  test("nothing is in a design that was not on hand, and nothing that was to be avoided", () => {
    const have = USUAL_SHELF.filter((id) => id !== "butter");
    const { designs } = design({ kind: "loaf", have: [...have], avoid: ["milk", "nuts"] });
    expect(designs.length).toBeGreaterThan(0);
    for (const { lines } of designs)
      for (const { ingredientId } of lines) {
        expect([...have, "water", "salt"]).toContain(ingredientId);
        expect(builtInShelf.get(ingredientId)?.allergens ?? []).not.toEqual(expect.arrayContaining(["milk"]));
      }
  });
});

describe("what is wished for moves the whole", () => {
  const mild = (wish: Partial<Parameters<typeof design>[0]>): Design => {
    const found = design({ kind: "muffin", ...wish }).designs.find(({ id }) => id === "mild");
    if (!found) throw new Error("no mild design");
    return found;
  };
  test("richer has more fat, sweeter more sugar, taller more gas, each between the bands; moister more water", () => {
    expect(mild({ rich: 0.9 }).readings.fatPercent).toBeGreaterThan(mild({ rich: 0.1 }).readings.fatPercent + 5);
    expect(mild({ sweet: 0.9 }).readings.sugarPercent).toBeGreaterThan(mild({ sweet: 0.1 }).readings.sugarPercent + 5);
    expect(mild({ tall: 0.9 }).readings.gasMlPer100g).toBeGreaterThan(mild({ tall: 0.1 }).readings.gasMlPer100g + 10);
    expect(mild({ moist: 1 }).readings.waterPercent).toBeGreaterThan(mild({ moist: 0 }).readings.waterPercent);
  });
  test("twelve muffins of 75 g baked: the batter is 900 g and what the oven takes", () => {
    const one = mild({ pieces: 12, pieceG: 75 });
    const loss = one.bake.lossPercent.mid;
    const baked = (gramsOf(one, () => true) * (1 - loss / 100)) / 12;
    expect(baked).toBeGreaterThan(75 * 0.96);
    expect(baked).toBeLessThan(75 * 1.04);
  });
  test("filled so that its crown stands just over the rim, or as near to it as does not run over", () => {
    const crown = (wish: Parameters<typeof design>[0]): number[] =>
      design(wish).designs.map(({ fill }) => fill.crownMm.mid / (fill.rimMm ?? Infinity));
    const usual = crown({ kind: "loaf" });
    const toRim = crown({ kind: "loaf", toRim: true });
    expect(toRim.length).toBeGreaterThan(0);
    for (const share of toRim) {
      expect(Math.abs(share - 1.04)).toBeLessThanOrEqual(Math.max(0.05, Math.min(...usual.map((one) => Math.abs(one - 1.04)))));
      expect(share).toBeLessThan(1.12);
    }
  });
  test("the lift that is asked for is the lift that is there", () => {
    const has = (one: Design, id: RegExp): boolean => one.lines.some(({ ingredientId }) => id.test(ingredientId));
    for (const one of design({ kind: "loaf", lift: "powder" }).designs) expect(has(one, /^powder/)).toBe(true);
    for (const one of design({ kind: "loaf", lift: "soda-acid" }).designs) {
      expect(has(one, /^powder/)).toBe(false);
      expect(has(one, /^soda$/)).toBe(true);
      expect(analyse(inputOf(one)).lift.neutralised.mid).toBeGreaterThan(0.8);
    }
  });
  test("what must be used up goes in, or it is said how much of it does", () => {
    const all = mild({ useUp: [{ ingredientId: "plain-yoghurt", grams: 120 }] });
    expect(gramsOf(all, (id) => id === "plain-yoghurt")).toBe(120);
    const some = mild({ useUp: [{ ingredientId: "pear", grams: 2000 }] });
    const pear = gramsOf(some, (id) => id === "pear");
    expect(pear).toBeGreaterThan(50);
    expect(pear).toBeLessThan(500);
    expect(some.trades.join(" ")).toMatch(/^only .* of the 2000 g of pear go in|only \d+ g of the 2000 g/);
  });
  test("what is to be used up and avoided at once stays out, and it is said", () => {
    const one = mild({ useUp: [{ ingredientId: "plain-yoghurt", grams: 120 }], avoid: ["milk"] });
    expect(gramsOf(one, (id) => id === "plain-yoghurt")).toBe(0);
    expect(one.trades.join("; ")).toMatch(/plain yoghurt stays out: it holds what is to be avoided/);
  });
  test("savoury has no sugar, eggless no egg and a binder in its place", () => {
    for (const one of design({ kind: "muffin", variant: "savoury" }).designs)
      expect(gramsOf(one, (id) => /sugar|honey/.test(id))).toBe(0);
    for (const one of design({ kind: "muffin", variant: "eggless" }).designs) {
      expect(gramsOf(one, (id) => id === "egg")).toBe(0);
      expect(readings(inputOf(one)).body.binder.adequacy).toBeGreaterThan(0.6);
    }
  });
  test("a slider is followed without a bake, to what the design then has", () => {
    const quick = moved({ kind: "muffin", rich: 0.8 }, "mild");
    expect(quick?.analysis.bake).toBeNull();
    expect(quick?.lines).toEqual(mild({ rich: 0.8 }).lines);
  });
});

describe("where the shelf cannot", () => {
  test("it says what one thing to buy, and with that thing there is a design", () => {
    const have = ["sorghum-flour", "tapioca-starch", "whole-milk", "sunflower-oil", "white-sugar", "egg", "xanthan"];
    const { designs, missing } = design({ kind: "muffin", have });
    expect(designs).toEqual([]);
    const [buy = ""] = missing?.ingredientIds ?? [];
    expect(missing?.why).toMatch(/baking powder/i);
    expect(design({ kind: "muffin", have: [...have, buy] }).designs.length).toBeGreaterThan(0);
  });
  test("an unknown ingredient is told by its id; a slider outside of 0 to 1 by what would be right", () => {
    expect(() => design({ kind: "muffin", have: ["luck"] })).toThrow(/No ingredient has the id "luck"/);
    expect(wishSchema.safeParse({ kind: "muffin", rich: 2 }).error?.issues[0]?.message).toBe("Rich is from 0 to 1; 0.5 is usual.");
  });
  test("made-up shelves: whatever is given is sound; where nothing is, a reason stands there", () => {
    let given = 0;
    const until = Date.now() + 6_000;
    for (let seed = 1; seed <= 16 && Date.now() < until; seed++) {
      const { designs, missing } = design(randomWish(seed));
      designs.forEach(expectSound);
      given += designs.length;
      if (designs.length === 0) expect(missing?.why.length ?? 0).toBeGreaterThan(10);
    }
    expect(given).toBeGreaterThan(0);
  }, 60_000);
});

describe("what flours do", () => {
  const ids = (shares: ReturnType<typeof blendOf>): Record<string, number> =>
    Object.fromEntries((shares ?? []).map(({ flour, share }) => [flour.id, Math.round(100 * share)]));
  const shelf = catalogue.filter((one) => USUAL_SHELF.includes(one.id) && isGround(one));
  test("a blend is whole, keeps every flour under its most, and has the starch its kind wants within a tenth or so", () => {
    for (const kind of kinds)
      for (const tilt of ["mild", "wholegrain", "tender"] as const) {
        const shares = blendOf(shelf, kind, tilt) ?? [];
        expect(shares.reduce((all, { share }) => all + share, 0)).toBeCloseTo(1, 9);
        for (const { flour, share } of shares) expect(100 * share).toBeLessThanOrEqual(roleOf(flour).most + 1e-9);
      }
  });
  test("cornbread is corn, coconut flour stays a little, wholegrain has less starch than tender", () => {
    expect(ids(blendOf(shelf, "cornbread-plain", "mild"))["cornmeal"]).toBeGreaterThanOrEqual(60);
    const coconut = catalogue.filter(({ id }) => ["coconut-flour", "sorghum-flour", "tapioca-starch"].includes(id));
    expect(ids(blendOf(coconut, "muffin", "mild"))["coconut-flour"] ?? 0).toBeLessThanOrEqual(20);
    const starch = (tilt: "wholegrain" | "tender"): number =>
      (blendOf(shelf, "muffin", tilt) ?? []).reduce((all, { flour, share }) => all + (isStarch(flour) ? share : 0), 0);
    expect(starch("wholegrain")).toBeLessThan(starch("tender"));
  });
  test("every flour of the table is in the pantry; another one is judged by what it is made of", () => {
    for (const one of catalogue.filter(isGround)) expect(roleOf(one).brings.length).toBeGreaterThan(3);
    const breadfruit = catalogue.find(({ id }) => id === "breadfruit-flour");
    if (!breadfruit) throw new Error("no breadfruit");
    expect(knownRole("breadfruit-flour")).toBeUndefined();
    expect(roleOf(breadfruit)).toMatchObject({ source: "by its composition", structure: 1 });
  });
  test("what stands in for a starch is a starch", () => {
    const tapioca = catalogue.find(({ id }) => id === "tapioca-starch");
    if (!tapioca) throw new Error("no tapioca");
    const instead = insteadOf(tapioca, shelf);
    expect(instead && isStarch(instead)).toBe(true);
  });
  test("a slider: usual in the middle, the ends of its band at its ends", () => {
    expect([0, 0.5, 1].map((at) => knobbed(30, 10, 60, at))).toEqual([10, 30, 60]);
    expect(knobbed(30, 10, 60, 0.25)).toBeCloseTo(20, 9);
  });
});

describe("onto the bench", () => {
  test("a design is a formula that the store takes, reads as it did, and can be edited", () => {
    const [one] = design({ kind: "scone" }).designs;
    if (!one) throw new Error("no design");
    const formula = formulaOf(one, "metric");
    expect(formulaSchema.safeParse(formula).error?.issues ?? []).toEqual([]);
    expect(formula.title).toBe("Scones, mild and even");
    expect(analyse(openFormula(formula, bareKitchen)).batch).toEqual(analyse(inputOf(one)).batch);
    expect(applyEdit(formula, { edit: "rename", title: "Mine" }).title).toBe("Mine");
  });
  test("pans of a kind are of its shapes, its usual first", () => {
    for (const kind of kinds) expect(designVessels(kind, vesselLibrary).length).toBeGreaterThan(0);
    expect(designVessels("muffin", vesselLibrary).every(({ vessel }) => vessel.shape === "muffin")).toBe(true);
    expect(designVessels("loaf", vesselLibrary)[0]?.vessel.shape).toBe("rectangular");
  });
});
