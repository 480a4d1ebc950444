import fc from "fast-check";
import {
  analyse,
  beginKind,
  openFormula,
  bareKitchen,
  packetSchema,
  regionIds,
  resolve,
  scaleUp,
  type Formula,
  type Packet,
} from "../index";
import { builtInShelf, catalogue } from "../pantry/catalogue";
import { repriced } from "../pantry/packet";
import { costOf } from "./cost";
import { costBy, pricesPerKg } from "../pantry/packet";
import { glutenChecks } from "./gluten";
import { ingredientList, listText } from "./ingredient-list";
import { keepingOf } from "./keeping";
import { labelOf } from "./label";
import { nutritionOf } from "./nutrition";
import { regions } from "./regions";
import { activityOf, solutionActivity } from "./water-activity";

const items = (parts: [string, number][]) =>
  resolve(
    parts.map(([ingredientId, grams]) => ({ ingredientId, grams })),
    builtInShelf,
  );
const exactly = (g: number) => ({ low: g, mid: g, high: g });
const formula = (parts: [string, number][], kind: Formula["kind"] = "loaf"): Formula => ({
  ...beginKind(kind, "metric", 800),
  lines: parts.map(([ingredientId, grams], k) => ({ id: `l${k}`, ingredientId, grams: exactly(grams) })),
});
const loaf: [string, number][] = [
  ["buckwheat-flour", 200], ["water", 260], ["egg", 110], ["almond-flour", 60], ["sunflower-oil", 50],
  ["white-sugar", 40], ["powder-aluminium-free", 12], ["salt", 4], ["xanthan", 2],
]; // prettier-ignore
const packet = (more: Partial<Packet> & { ingredientId: string }): Packet =>
  packetSchema.parse({ name: more.ingredientId, sizeG: 1000, price: 2, ...more });

describe("water activity against what was measured elsewhere", () => {
  it.each([
    // Saturated solutions at 25 °C, as in every table of humidity standards; the others from tables of solutions.
    ["saturated sucrose", solutionActivity({ sucrose: 67.5 / 32.5 }), 0.843, 0.01],
    ["sucrose 60 %", solutionActivity({ sucrose: 1.5 }), 0.9, 0.015],
    ["saturated salt", solutionActivity({ salt: 26.5 / 73.5 }), 0.753, 0.02],
    ["salt 10 %", solutionActivity({ salt: 10 / 90 }), 0.934, 0.01],
    ["flour with 12 % water", activityOf(12, 86, {}), 0.55, 0.1],
    ["white bread", activityOf(42, 50, { simple: 2, salt: 1.1 }), 0.955, 0.02],
    ["jam of two thirds sugar", activityOf(33, 1, { sucrose: 30, simple: 35 }), 0.82, 0.03],
  ])("%s", (_, found, known, within) => expect(Math.abs(found - known)).toBeLessThanOrEqual(within));

  it("rises with water and falls with sugar (property)", () => {
    const grams = fc.double({ min: 1, max: 60, noNaN: true });
    fc.assert(
      fc.property(grams, grams, grams, (water, dry, sucrose) => {
        expect(activityOf(water + 1, dry, { sucrose })).toBeGreaterThanOrEqual(activityOf(water, dry, { sucrose }) - 1e-9);
        expect(activityOf(water, dry, { sucrose: sucrose + 1 })).toBeLessThanOrEqual(activityOf(water, dry, { sucrose }) + 1e-9);
      }),
      { seed: 15, numRuns: 40 },
    );
  });
});

describe("nutrition by hand", () => {
  // 100 g of white sugar, 100 g of sunflower oil, 10 g of salt; a quarter of the mass has left as water there was none of.
  const made = nutritionOf(items([["white-sugar", 100], ["sunflower-oil", 100], ["salt", 10]]), exactly(210), 2); // prettier-ignore

  it("energy by the factors of the law, per piece what went in", () => {
    const { perPiece, per100g } = made;
    expect(perPiece.kj.mid).toBeCloseTo((17 * 100 + 37 * 100) / 2, 0);
    expect(perPiece.kcal.mid).toBeCloseTo((4 * 100 + 9 * 100) / 2, 0);
    expect(per100g.sugars.mid).toBeCloseTo(100 / 2.1, 1);
    // Ten grams of salt, of which a few hundredths are no salt.
    expect(perPiece.salt.mid).toBeGreaterThan(4.8);
    expect(perPiece.salt.mid).toBeLessThan(5.05);
    // An eighth to a ninth of sunflower oil is saturated.
    expect(perPiece.saturated.mid / perPiece.fat.mid).toBeCloseTo(0.11, 2);
  });

  it("water that leaves makes 100 g richer and no piece", () => {
    const parts = items(loaf);
    const wet = nutritionOf(parts, exactly(700), 1);
    const dry = nutritionOf(parts, exactly(600), 1);
    expect(dry.per100g.protein.mid / wet.per100g.protein.mid).toBeCloseTo(7 / 6, 6);
    expect(dry.perPiece.protein.mid).toBeCloseTo(wet.perPiece.protein.mid, 9);
    for (const value of Object.values(wet.per100g)) {
      expect(value.low).toBeLessThanOrEqual(value.mid);
      expect(value.mid).toBeLessThanOrEqual(value.high);
    }
  });
});

describe("the list of ingredients", () => {
  const listed = (parts: [string, number][], region: (typeof regionIds)[number], netG: number): string =>
    listText(ingredientList(items(parts), exactly(netG), regions[region], builtInShelf).listed);

  it("falls by what went in, allergens set off in it, additives by their class", () => {
    expect(listed(loaf, "eu", 640)).toBe(
      "buckwheat flour, water, EGG, ALMOND flour, sunflower oil, white sugar, raising agents (diphosphates, sodium carbonates, calcium phosphates), maize starch, fine salt, thickener (xanthan gum)",
    );
  });

  it("counts added water as what is left of it where the law does: 738 g went in, 620 g came out, so 142 of 260 g are left", () => {
    const { listed: list } = ingredientList(items(loaf), exactly(620), regions.eu, builtInShelf);
    expect(list.find(({ ingredientId }) => ingredientId === "water")?.massG).toBeCloseTo(620 - 478, 6);
    // By the mass that went in it stands before the buckwheat flour.
    expect(listed(loaf, "us", 620).startsWith("water, buckwheat flour")).toBe(true);
  });

  it("leaves water out under five per cent of what is sold, and says so", () => {
    const { listed: list, waterLeftOut } = ingredientList(items([["white-sugar", 200], ["water", 40]]), exactly(205), regions.eu, builtInShelf); // prettier-ignore
    expect(waterLeftOut).toBe(true);
    expect(list.map(({ ingredientId }) => ingredientId)).toEqual(["white-sugar"]);
  });

  it("names nuts by their kernel, and what a law does not call a nut not at all", () => {
    const nuts: [string, number][] = [["hazelnuts", 30], ["pine-nuts", 20]]; // prettier-ignore
    expect(listed(nuts, "eu", 50)).toBe("HAZELNUTS, pine nuts");
    expect(listed(nuts, "us", 50)).toBe("HAZELNUTS, PINE nuts");
  });

  it("puts an allergen in brackets where the name does not say it", () => {
    expect(listed([["butter", 10]], "eu", 10)).toBe("butter (MILK)");
    expect(listed([["tahini", 10]], "au", 10)).toBe("tahini (SESAME)");
  });

  it("loses nothing and makes nothing up (property)", () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...catalogue), { minLength: 1, maxLength: 12, selector: ({ id }) => id }), fc.constantFrom(...regionIds), (some, region) => {
        const parts = items(some.map(({ id }, k) => [id, 10 + k]));
        const { listed: list, waterLeftOut } = ingredientList(parts, exactly(1e6), regions[region], builtInShelf);
        expect(list.length + (waterLeftOut ? 1 : 0)).toBe(some.length);
        const masses = list.map(({ massG }) => massG);
        expect([...masses].sort((a, b) => b - a)).toEqual(masses);
      }),
      { seed: 15, numRuns: 60 },
    ); // prettier-ignore
  });
});

describe("a label", () => {
  const labelled = (region: (typeof regionIds)[number], packets: Packet[] = []) => {
    const input = openFormula(formula(loaf), bareKitchen);
    return labelOf(input, analyse(input), "loaf", region, packets);
  };

  it.each(regionIds)("of %s: net mass after the bake, statement, limit, source; and the word safe nowhere", (region) => {
    const label = labelled(region);
    expect(label.netG.mid).toBeLessThan(738);
    expect(label.netG.mid).toBeGreaterThan(0.75 * 738);
    expect(label.contains === null).toBe(region === "eu" || region === "uk");
    if (label.contains !== null) expect(label.contains).toMatch(/egg.*almond|almond.*egg/i);
    expect(label.gluten.caution).toMatch(/test/);
    expect(label.gluten.caution).toMatch(region === "au" ? /no detectable gluten/ : /20 (?:mg\/kg|ppm)/);
    expect(JSON.stringify(label)).not.toMatch(/\bsafe\b/i);
    expect(label.source.length).toBeGreaterThan(20);
  });

  it("asks what each packet must say, and takes only what all of them say", () => {
    const region = regions.eu;
    const flour = [builtInShelf.get("buckwheat-flour")].flatMap((one) => one ?? []);
    const state = (packets: Packet[]) => glutenChecks(flour, packets, region)[0]?.state;
    expect(state([])).toBe("open");
    expect(state([packet({ ingredientId: "buckwheat-flour", gluten: "certified" })])).toBe("confirmed");
    expect(state([packet({ ingredientId: "buckwheat-flour", gluten: "certified" }), packet({ ingredientId: "buckwheat-flour" })])).toBe("open"); // prettier-ignore
    expect(state([packet({ ingredientId: "buckwheat-flour", statement: "Milled where oats are milled too." })])).toBe("against");
    expect(state([packet({ ingredientId: "buckwheat-flour", statement: "Gluten-free; no wheat is milled here." })])).toBe("confirmed"); // prettier-ignore
  });

  it("lets no oats into a claim where the law lets none, however they are certified", () => {
    const oats = [builtInShelf.get("rolled-oats")].flatMap((one) => one ?? []);
    const certified = [packet({ ingredientId: "rolled-oats", gluten: "certified" })];
    expect(glutenChecks(oats, certified, regions.au)[0]?.state).toBe("against");
    expect(glutenChecks(oats, certified, regions.eu)[0]?.state).toBe("confirmed");
  });

  it("tells what its packets print, and what is printed there against expectation", () => {
    const label = labelled("eu", [packet({ ingredientId: "buckwheat-flour", name: "Mill sack", statement: "May contain mustard.", allergens: ["mustard"] })]); // prettier-ignore
    expect(label.mayContain).toEqual([{ ingredientId: "buckwheat-flour", packet: "Mill sack", statement: "May contain mustard." }]);
    expect(label.open.join(" ")).toMatch(/Mill sack.*mustard/);
  });
});

describe("keeping", () => {
  const part = (parts: [string, number][], lost: number, place: "batter" | "after" | "inside" = "batter") => ({ items: items(parts), place, lostG: exactly(lost) });

  it("days as kitchens have them: a loaf two to four, a cream on top none on the counter, two in the fridge", () => {
    const plain = keepingOf("loaf", [part(loaf, 90)]);
    expect(plain.counterDays?.high).toBeLessThanOrEqual(4);
    expect(plain.counterDays?.low).toBeGreaterThanOrEqual(0.5);
    const filled = keepingOf("loaf", [part(loaf, 90), part([["double-cream", 200], ["icing-sugar", 20]], 0, "after")]); // prettier-ignore
    expect(filled.counterDays).toBeNull();
    expect(filled.fridgeDays.high).toBeLessThanOrEqual(3);
    expect(filled.freezerMonths).toBeNull();
  });

  it("a sugar glaze is no moist filling, a sweet dry bar outlasts a loaf, nut fat shortens the freezer", () => {
    expect(keepingOf("loaf", [part(loaf, 90), part([["icing-sugar", 100], ["lemon-juice", 18]], 0, "after")]).counterDays).not.toBeNull(); // prettier-ignore
    const bar = keepingOf("bar", [part([["almond-flour", 200], ["honey", 120], ["egg", 50]], 30)]); // prettier-ignore
    expect(bar.counterDays?.mid ?? 0).toBeGreaterThan(keepingOf("loaf", [part(loaf, 90)]).counterDays?.mid ?? 99);
    expect(bar.freezerMonths?.mid).toBeLessThan(3);
  }); // prettier-ignore
}); // prettier-ignore

describe("cost", () => {
  const needs = [{ ingredientId: "buckwheat-flour", grams: 200 }, { ingredientId: "egg", grams: 110 }, { ingredientId: "water", grams: 260 }]; // prettier-ignore

  it("by hand: 200 g at 3.40 a kilo and 110 g at 4.20 for 660 g are 0.68 and 0.70", () => {
    const packets = [
      packet({ ingredientId: "buckwheat-flour", price: 3.4 }),
      packet({ ingredientId: "egg", price: 4.2, sizeG: 660 }),
    ];
    const cost = costOf(needs, packets, 10, 500);
    expect(cost?.batch.mid).toBeCloseTo(0.68 + 0.7, 9);
    expect(cost?.piece.mid).toBeCloseTo(0.138, 9);
    expect(cost?.perKg.mid).toBeCloseTo(2.76, 9);
    expect(cost?.unpriced).toEqual([]);
  });

  it("of a design is that of the label, and what has no price is named", () => {
    const packets = [
      packet({ ingredientId: "buckwheat-flour", price: 3.4 }),
      packet({ ingredientId: "egg", price: 4.2, sizeG: 660 }),
    ];
    expect(costBy(pricesPerKg(packets), needs)).toEqual({ cost: expect.closeTo(1.38, 9) as number, unpriced: [] });
    expect(costBy({ egg: 6 }, needs)).toEqual({ cost: expect.closeTo(0.66, 9) as number, unpriced: ["buckwheat-flour"] });
  });

  it("goes by the packet in use and shows from the cheapest to the dearest; names what has no price", () => {
    const packets = [
      packet({ ingredientId: "buckwheat-flour", price: 2 }),
      packet({ ingredientId: "buckwheat-flour", price: 5, openedOn: "2026-11-01" }),
    ];
    const cost = costOf(needs, packets, 1, 500);
    expect(cost?.batch).toEqual({ low: 0.4, mid: 1, high: 0.4 + 0.6 });
    expect(cost?.unpriced).toEqual(["egg"]);
    expect(costOf(needs, [], 1, 500)).toBeNull();
  });

  it("keeps what a packet cost before, and what the batch would have cost then", () => {
    const before = packet({ ingredientId: "buckwheat-flour", price: 3 });
    const now = repriced(before, { ...before, price: 4 }, "2026-10-10");
    expect(now.prices).toEqual([{ on: "2026-10-10", price: 3, sizeG: 1000 }]);
    expect(repriced(now, { ...now, leftG: 5 }, "2026-11-11").prices).toHaveLength(1);
    expect(costOf(needs, [now], 1, 500)?.before).toEqual([{ on: "2026-10-10", batch: 200 * 0.003 }]);
  });
});

describe("scaling up", () => {
  const input = openFormula(formula(loaf), bareKitchen);
  it("no batch over the bowl nor over the oven; mass is kept", () => {
    const plan = scaleUp(input, 40, { bowlMl: 10_000, placesPerLoad: 12 }, [packet({ ingredientId: "buckwheat-flour", sizeG: 5000 })]);
    expect(plan.massG).toBeCloseTo(40 * 738, 6);
    const { pieces, lastPieces } = plan.perBatch;
    expect(pieces * (plan.batches - 1) + lastPieces).toBe(40);
    expect(Number.isInteger(pieces) && lastPieces > 0 && lastPieces <= pieces).toBe(true);
    expect(plan.perBatch.massG).toBeCloseTo(pieces * 738, 6);
    expect(plan.perBatch.bowlShare).toBeLessThanOrEqual(0.6 + 1e-9);
    expect(plan.loads).toBe(Math.ceil(plan.pieces / 12));
    // 8 kg of flour are nearest to two sacks of 5 kg, a quarter more.
    expect(plan.wholePackets[0]).toMatchObject({ ingredientId: "buckwheat-flour", packets: 2, factor: 50 });
    expect(plan.otherwise.join(" ")).toMatch(/Standing.*Oven/s);
  });
  it("refuses what is no number of times", () => expect(() => scaleUp(input, 0, { bowlMl: 5000, placesPerLoad: 4 })).toThrow(/0.1 to 1000/));
}); // prettier-ignore
