import fc from "fast-check";
import { beginKind, openFormula, analyse, bareKitchen, packetSchema, resolve, type Formula, type Packet } from "../index";
import { builtInShelf } from "../pantry/catalogue";
import { cautionsOf, type Caution } from "./cautions";
import { costOf } from "./cost";
import { glutenCaution, glutenChecks, glutenOfWords } from "./gluten";
import { holdersIn, ingredientList, listText, namedSpans } from "./ingredient-list";
import { keepingOf } from "./keeping";
import { labelOf } from "./label";
import { nutritionOf } from "./nutrition";
import { coldReason, grows, isWash, roughPh, type KeptPart } from "./perishable";
import { regions } from "./regions";

/* Each test stands on both sides of a bound of a label, or reckons a figure by hand. */

const items = (parts: [string, number][]) =>
  resolve(
    parts.map(([ingredientId, grams]) => ({ ingredientId, grams })),
    builtInShelf,
  );
const exactly = (g: number) => ({ low: g, mid: g, high: g });
const packet = (more: Partial<Packet> & { ingredientId: string }): Packet =>
  packetSchema.parse({ name: more.ingredientId, sizeG: 1000, price: 2, ...more });
const part = (lines: [string, number][], more: Partial<KeptPart> = {}): KeptPart => ({
  items: items(lines),
  place: "batter",
  lostG: exactly(0),
  ...more,
});

describe("nutrition by hand", () => {
  const sugar = builtInShelf.get("white-sugar");
  const oil = builtInShelf.get("sunflower-oil");
  const both = items([["white-sugar", 100], ["sunflower-oil", 100]]); // prettier-ignore
  it("energy is 17 and 37 kJ, 4 and 9 kcal a gram of what the tables give", () => {
    const { perPiece } = nutritionOf(both, exactly(200), 4);
    const sugars = (sugar?.per100g.sugars ?? NaN) + (sugar?.per100g.starch ?? NaN);
    const fat = oil?.per100g.fat ?? NaN;
    expect(perPiece.kj.mid).toBeCloseTo((17 * sugars + 37 * fat) / 4, 6);
    expect(perPiece.kcal.mid).toBeCloseTo((4 * sugars + 9 * fat) / 4, 6);
    expect(perPiece.fat.mid).toBeCloseTo(fat / 4, 6);
  });
  it("salt is two and a half times the sodium", () => {
    const salt = builtInShelf.get("salt");
    const { per100g } = nutritionOf(items([["salt", 10]]), exactly(1000), 1);
    expect(per100g.salt.mid).toBeCloseTo(((salt?.sodiumMg ?? NaN) / 1000) * 2.5 * 0.1 * 0.1, 6);
    // Kitchen salt is salt.
    expect(per100g.salt.mid).toBeGreaterThan(0.95);
    expect(per100g.salt.mid).toBeLessThanOrEqual(1.0);
  });
  it("an amount that is not sure widens every figure, never under nothing", () => {
    const sure = nutritionOf(items([["white-sugar", 100]]), exactly(100), 1).per100g.sugars;
    const unsure = nutritionOf(
      resolve([{ ingredientId: "white-sugar", grams: { low: 50, mid: 100, high: 150 } }], builtInShelf),
      exactly(100),
      1,
    ).per100g.sugars;
    expect(unsure.mid).toBeCloseTo(sure.mid, 9);
    // Half of it either way, and the table's own spread beside it.
    expect(unsure.high - unsure.mid).toBeCloseTo(Math.hypot(sure.high - sure.mid, 0.5 * sure.mid), 6);
    expect(unsure.low).toBeGreaterThanOrEqual(0);
  });
  it("property: a piece of a batch is the batch over its pieces, and 100 g are what was left", () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 120, max: 200 }), (pieces, netG) => {
        const { per100g, perPiece, pieceG } = nutritionOf(both, exactly(netG), pieces);
        expect(perPiece.kj.mid * pieces).toBeCloseTo((per100g.kj.mid * netG) / 100, 4);
        expect(pieceG.mid * pieces).toBeCloseTo(netG, 6);
      }),
    ));
});

describe("cost", () => {
  const needs = [
    { ingredientId: "sorghum-flour", grams: 200 },
    { ingredientId: "egg", grams: 100 },
    { ingredientId: "water", grams: 300 },
  ];
  it("is nothing where nothing has a price, and water is never bought", () => {
    expect(costOf(needs, [], 4, 500)).toBeNull();
    expect(costOf(needs, [packet({ ingredientId: "water", price: 9 })], 4, 500)?.lines.map(({ ingredientId }) => ingredientId)).toEqual(["sorghum-flour", "egg"]); // prettier-ignore
  });
  it("stands in the currency of most packets; the others are named and not added", () => {
    const cost = costOf(needs, [packet({ ingredientId: "sorghum-flour", price: 4 }), packet({ ingredientId: "egg", price: 5 }), packet({ ingredientId: "egg", price: 1, currency: "GBP" })], 4, 500); // prettier-ignore
    expect(cost?.currency).toBe("EUR");
    expect(cost?.otherCurrencies).toEqual(["GBP"]);
    expect(cost?.batch.mid).toBeCloseTo(0.8 + 0.5, 9);
    expect(cost?.piece.mid).toBeCloseTo(1.3 / 4, 9);
    expect(cost?.perKg.mid).toBeCloseTo(2.6, 9);
  });
  it("runs from the cheapest to the dearest packet, by the open one that holds something", () => {
    const flour = (price: number, more: Partial<Packet> = {}) => packet({ ingredientId: "sorghum-flour", price, ...more });
    const cost = (packets: Packet[]) => costOf(needs, packets, 1, 500)?.lines[0]?.cost;
    expect(cost([flour(3), flour(6, { openedOn: "2026-11-01" })])).toEqual({ low: 0.6, mid: 1.2, high: 1.2 });
    expect(cost([flour(3), flour(6, { openedOn: "2026-11-01", leftG: 0 })])?.mid).toBeCloseTo(0.6, 9);
  });
  it("tells what it would have been by the price before a day, the oldest first", () => {
    const flour = packet({
      ingredientId: "sorghum-flour",
      price: 5,
      prices: [
        { on: "2026-03-01", price: 3, sizeG: 1000 },
        { on: "2026-09-01", price: 4, sizeG: 1000 },
      ],
    });
    expect(costOf(needs, [flour], 1, 500)?.before).toEqual([
      { on: "2026-03-01", batch: expect.closeTo(0.6, 9) as number },
      { on: "2026-09-01", batch: expect.closeTo(0.8, 9) as number },
    ]);
  });
});

describe("what the packets say of gluten", () => {
  const check = (id: string, packets: Partial<Packet>[], region = regions.eu) =>
    glutenChecks(
      items([[id, 100]]).map(({ ingredient }) => ingredient),
      packets.map((one) => packet({ ingredientId: id, ...one })),
      region,
    ).map(({ state }) => state);
  it.each<[string, Partial<Packet>[], string[]]>([
    ["none there", [], ["open"]],
    ["a mark", [{ gluten: "certified" }], ["confirmed"]],
    ["its words", [{ statement: "Naturally gluten-free." }], ["confirmed"]],
    ["one of two is silent", [{ gluten: "certified" }, {}], ["open"]],
    ["a trace", [{ gluten: "certified" }, { statement: "May contain traces of barley." }], ["against"]],
    ["wheat among its allergens", [{ gluten: "claimed", allergens: ["wheat"] }], ["against"]],
    ["free of it and with a trace all the same", [{ statement: "Gluten-free. May contain traces of wheat." }], ["against"]],
    ["made where barley is", [{ gluten: "certified", statement: "Gluten free; packed where barley is handled." }], ["against"]],
    ["it is not free of it", [{ gluten: "claimed", statement: "We cannot guarantee that it is free from gluten." }], ["against"]],
    ["not gluten-free", [{ statement: "This product is not gluten-free." }], ["against"]],
    ["free from gluten names the grain and is no trace", [{ statement: "Free from gluten and wheat." }], ["confirmed"]],
  ])("a flour, %s", (_, packets, state) => expect(check("sorghum-flour", packets)).toEqual(state));
  it("wheat is against it whatever a packet says, an egg needs no packet", () => {
    expect(check("wheat-flour", [{ gluten: "certified" }])).toEqual(["against"]);
    expect(check("egg", [])).toEqual([]);
  });
  it("oats by the law of the place", () => {
    expect(check("rolled-oats", [{ gluten: "certified" }], regions.eu)).toEqual(["confirmed"]);
    expect(check("rolled-oats", [{ statement: "Gluten-free rolled oats, tested by lot." }], regions.eu)).toEqual(["confirmed"]);
    expect(check("rolled-oats", [{ gluten: "certified" }], regions.au)).toEqual(["against"]);
  });
  it("words that name a grain are against it, words that name none are nothing", () => {
    expect(glutenOfWords("malted biscuit", "malted biscuit (barley malt)").map(({ state }) => state)).toEqual(["against"]);
    expect(glutenOfWords("rice cake", "rice cake")).toEqual([]);
  });
  it("every caution gives the limit and says who decides", () => {
    for (const region of Object.values(regions)) {
      expect(glutenCaution(region)).toContain(region.gluten.limit);
      expect(glutenCaution(region)).toMatch(/authority/);
    }
  });
});

describe("the list", () => {
  it("sets off whole words, and puts in brackets what the name does not say", () => {
    const told = (word: string) => ({ allergen: "milk" as const, word, statement: word, asked: true });
    expect(listText([{ spans: namedSpans("buttermilk pudding", [told("milk")]) }])).toBe("butterMILK pudding");
    expect(listText([{ spans: namedSpans("ghee", [told("milk")]) }])).toBe("ghee (MILK)");
    expect(listText([{ spans: namedSpans("almonds", [told("almonds")]) }])).toBe("ALMONDS");
  });
  it("counts what is in brackets behind a thing, additives by number too", () => {
    expect(holdersIn("sugar, whole milk powder, lecithin (soya)").flatMap(({ allergens }) => allergens).sort()).toEqual(["milk", "soy"]); // prettier-ignore
    expect(holdersIn("raisins, E220").flatMap(({ allergens }) => allergens)).toEqual(["sulphites"]);
    expect(holdersIn("rice, salt")).toEqual([]);
  });
  it("added water: as it went in, as what is left, as it went in less what was lost; under five per cent not at all", () => {
    const batter = items([["sorghum-flour", 300], ["water", 200], ["egg", 100]]); // prettier-ignore
    const water = (region: keyof typeof regions, netG: number) => ingredientList(batter, exactly(netG), regions[region], builtInShelf).listed.find(({ ingredientId }) => ingredientId === "water")?.massG; // prettier-ignore
    expect(water("us", 540)).toBe(200);
    expect(water("eu", 540)).toBe(140);
    expect(water("au", 540)).toBe(140);
    // 5 % of 421 g are 21 g: 421 − 400.
    expect(water("eu", 422)).toBe(22);
    expect(water("eu", 420)).toBeUndefined();
    expect(ingredientList(batter, exactly(420), regions.eu, builtInShelf).waterLeftOut).toBe(true);
    expect(ingredientList(batter, exactly(420), regions.us, builtInShelf).waterLeftOut).toBe(false);
  });
  it("what the name names has its share of what is sold behind it, and never more than all", () => {
    const batter = items([["banana-ripe", 300], ["sorghum-flour", 200]]); // prettier-ignore
    const text = (netG: number, region: keyof typeof regions) => listText(ingredientList(batter, exactly(netG), regions[region], builtInShelf, new Map(), "Banana loaf").listed); // prettier-ignore
    expect(text(400, "eu")).toMatch(/banana[^,]* 75 %/i);
    expect(text(250, "eu")).toMatch(/banana[^,]* 100 %/i);
    expect(text(400, "us")).not.toMatch(/%/);
  });
});

describe("what bacteria grow in", () => {
  it("property: what grows where it is dry or sour grows where it is moister or less so; what was not baked is no safer", () =>
    fc.assert(
      fc.property(
        fc.double({ min: 0.8, max: 1, noNaN: true }),
        fc.double({ min: 3, max: 8, noNaN: true }),
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        (activity, ph, more) => {
          for (const baked of [true, false])
            if (grows(activity, ph, baked)) expect(grows(Math.min(1, activity + more), ph + 10 * more, baked)).toBe(true);
          if (grows(activity, ph, true)) expect(grows(activity, ph, false)).toBe(true);
        },
      ),
    ));
  it("pH by the water that each thing brings", () => {
    const [milk, juice] = [builtInShelf.get("whole-milk"), builtInShelf.get("lemon-juice")];
    const [m, j] = [milk?.per100g.water ?? NaN, juice?.per100g.water ?? NaN];
    expect(roughPh(items([["whole-milk", 100], ["lemon-juice", 50], ["water", 500]]))).toBeCloseTo((m * (milk?.ph ?? 6.3) + 0.5 * j * (juice?.ph ?? 6.3)) / (m + 0.5 * j), 6); // prettier-ignore
    expect(roughPh([])).toBe(6.3);
  });
  const reason = (lines: [string, number][], more: Partial<KeptPart> = {}, coreC = 96) =>
    coldReason(part(lines, more), 1000, coreC);
  it("meat and cheese in a moist crumb, egg in a middle that has not set", () => {
    const crumb: [string, number][] = [["sorghum-flour", 300], ["whole-milk", 250], ["egg", 50]]; // prettier-ignore
    expect(reason(crumb)).toBeNull();
    expect(reason([...crumb, ["cheddar", 25]])).toBeNull();
    expect(reason([...crumb, ["cheddar", 60]])).toMatch(/cheese/);
    expect(reason(crumb, {}, 74)).toMatch(/not baked through/);
    expect(reason(crumb, {}, 76)).toBeNull();
  });
  it("on top and not baked: cream and fresh fruit are cold, sugar is not; apart it is nobody's", () => {
    expect(reason([["double-cream", 200]], { place: "after" })).not.toBeNull();
    expect(reason([["strawberries", 200]], { place: "after" })).toMatch(/fruit/);
    expect(reason([["icing-sugar", 200], ["lemon-juice", 20]], { place: "after" })).toBeNull(); // prettier-ignore
    expect(reason([["double-cream", 200]], { place: "apart" })).toBeNull();
  });
  it("a wash is small, baked on and without cheese", () => {
    const wash = (g: number, more: Partial<KeptPart> = {}) =>
      isWash(part([["egg", g]], { role: "glaze", place: "top", ...more }), 400);
    expect(wash(60)).toBe(true);
    expect(wash(120)).toBe(false);
    expect(wash(60, { place: "after" })).toBe(false);
    expect(isWash(part([["egg", 40], ["cheddar", 20]], { role: "glaze", place: "top" }), 400)).toBe(false); // prettier-ignore
  });
});

describe("keeping", () => {
  it("property: a crumb that has lost more water does not mould sooner", () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 1, max: 40 }), (lost, more) => {
        const lines: [string, number][] = [["sorghum-flour", 300], ["water", 180], ["white-sugar", 60], ["sunflower-oil", 30]]; // prettier-ignore
        const at = (g: number) => keepingOf("loaf", [part(lines, { lostG: exactly(g) })]);
        expect(at(lost + more).waterActivity.mid).toBeLessThanOrEqual(at(lost).waterActivity.mid + 1e-9);
        expect(at(lost + more).counterDays?.mid ?? NaN).toBeGreaterThanOrEqual((at(lost).counterDays?.mid ?? NaN) - 1e-9);
      }),
      { numRuns: 12 },
    ));
  it("what stands on it fresh is not frozen, and its days are those of the cold", () => {
    const crumb = part([["sorghum-flour", 300], ["water", 150], ["egg", 100]]); // prettier-ignore
    const topped = keepingOf("loaf", [crumb, part([["double-cream", 150]], { place: "after", name: "Cream" })]);
    expect(topped.counterDays).toBeNull();
    expect(topped.freezerMonths).toBeNull();
    expect(topped.ends).toBe("filling");
    expect(topped.fridgeDays.high).toBeLessThanOrEqual(3);
    expect(keepingOf("loaf", [crumb]).freezerMonths).not.toBeNull();
  });
});

describe("cautions stand where they belong, and nowhere else", () => {
  const input = (lines: [string, number][], more: object = {}): Caution["id"][] => {
    const formula: Formula = { ...beginKind("loaf", "metric", 800), lines: lines.map(([ingredientId, grams], k) => ({ id: `l${k}`, ingredientId, grams: exactly(grams) })), ...more }; // prettier-ignore
    const opened = openFormula(formula, bareKitchen);
    const analysis = analyse(opened);
    return cautionsOf(items(lines), [part(lines)], analysis, { ends: "staling" }).map(({ id }) => id);
  };
  const plain: [string, number][] = [["sorghum-flour", 300], ["water", 250], ["sunflower-oil", 40], ["powder-aluminium-free", 10]]; // prettier-ignore
  it("raw flour without an egg, raw egg with one", () => {
    expect(input(plain)).toContain("raw-flour");
    expect(input([...plain, ["egg", 50]])).toContain("raw-egg");
    expect(input([...plain, ["egg", 50]])).not.toContain("raw-flour");
  });
  it("a batter with milk that stands two hours does, one minute longer is told", () => {
    const milky: [string, number][] = [...plain, ["whole-milk", 50]];
    expect(input(milky, { process: { restMinutes: 120 } })).not.toContain("warm-batter");
    expect(input(milky, { process: { restMinutes: 121 } })).toContain("warm-batter");
    expect(input(plain, { process: { restMinutes: 600 } })).not.toContain("warm-batter");
  });
  it("what fizzes, and what is for no infant", () => {
    expect(input([...plain, ["seltzer", 50]])).toContain("closed-bottle");
    expect(input([...plain, ["honey", 20]])).toContain("honey-infants");
    expect(input(plain)).toEqual(["raw-flour"]);
  });
});

test("the words of mass and storage: one piece, several, and what must be cold", () => {
  const made = (lines: [string, number][], kind: Formula["kind"]) => {
    const formula: Formula = { ...beginKind(kind, "metric", 800), lines: lines.map(([ingredientId, grams], k) => ({ id: `l${k}`, ingredientId, grams: exactly(grams) })) }; // prettier-ignore
    const opened = openFormula(formula, bareKitchen);
    return labelOf(opened, analyse(opened), kind, "eu", []);
  };
  const crumb: [string, number][] = [["sorghum-flour", 300], ["water", 200], ["egg", 100], ["sunflower-oil", 50], ["powder-aluminium-free", 12]]; // prettier-ignore
  expect(made(crumb, "loaf").netText).toMatch(/^about \d+ g, between \d+ g and \d+ g$/);
  expect(made(crumb, "muffin").netText).toMatch(/^\d+ pieces, each about/);
  expect(made(crumb, "loaf").storage).toMatch(/^Wrapped at room temperature .*; in the fridge .*; frozen /);
  expect(made([...crumb, ["cheddar", 120]], "loaf").storage).toMatch(/^Keep at 5 °C or colder/);
});
