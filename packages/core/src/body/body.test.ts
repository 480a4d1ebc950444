import fc from "fast-check";
import { resolve } from "../formula/resolve";
import { builtInShelf, catalogue } from "../pantry/catalogue";
import { ingredientOf } from "../pantry/shelf";
import { binderOf, binderPerGram } from "./binder";
import { bodyOf } from "./body";
import { consistencies, consistencyOf, stiffnessOf } from "./consistency";
import { batterDensity, condensedVolume } from "./density";
import { liquidFor, mainLiquid, nextClasses } from "./next-class";
import { settingOf } from "./setting";
import { batterSugar, capacityOf, drunkBy, freeWaterOf, waterGiven } from "./water";
import { isInclusion } from "../pantry/pieces";

type Lines = [id: string, grams: number][];
const items = (...lines: Lines) =>
  resolve(
    lines.map(([ingredientId, grams]) => ({ ingredientId, grams })),
    builtInShelf,
  );
const thing = (id: string) => ingredientOf(builtInShelf, id);
const water = thing("water");
const batter: Lines = [
  ["white-rice-flour", 200],
  ["tapioca-starch", 60],
  ["xanthan", 2],
  ["whole-milk", 220],
  ["egg", 100],
  ["sunflower-oil", 60],
  ["white-sugar", 90],
];

describe("water and what drinks it", () => {
  test("water counts by composition: 100 g of milk bring 88, of egg 76, of butter 16, within two", () => {
    for (const [id, grams] of [
      ["whole-milk", 88],
      ["egg", 76],
      ["egg-white", 88],
      ["butter", 16],
      ["honey", 17],
    ] as const)
      // prettier-ignore
      expect(Math.abs(freeWaterOf(items([id, 100])) - grams)).toBeLessThanOrEqual(2);
  });
  test("pieces keep their water at mixing, the same fruit as a purée gives all of it", () => {
    expect(isInclusion(thing("blueberries"))).toBe(true);
    expect(waterGiven(thing("blueberries"))).toBeLessThan(0.1);
    expect(waterGiven(thing("carrot"))).toBeGreaterThan(waterGiven(thing("apple")));
    expect(waterGiven(thing("apple-puree"))).toBeGreaterThan(0.8);
    expect(capacityOf(thing("walnuts"), 60)).toBe(0);
  });
  test("the quick drinkers are done in ten minutes, the slow ones go on for hours", () => {
    const gain = (id: string): number => capacityOf(thing(id), 480) / capacityOf(thing(id), 10);
    for (const id of ["rolled-oats", "coconut-flour", "psyllium-husk", "chia", "ground-flax"])
      expect(gain(id)).toBeGreaterThan(1.3);
    for (const id of ["tapioca-starch", "potato-starch"]) expect(gain(id)).toBeLessThan(1.2);
  });
  test("whatever stands never gives back what it has drunk, and never drinks more than its slow capacity", () => {
    fc.assert(
      fc.property(fc.constantFrom(...catalogue), fc.double({ min: 0, max: 600, noNaN: true }), (ingredient, minutes) => {
        const now = capacityOf(ingredient, minutes);
        expect(capacityOf(ingredient, minutes + 30)).toBeGreaterThanOrEqual(now - 1e-12);
        if (ingredient.absorbs && ingredient.holdsWater === undefined && !isInclusion(ingredient)) {
          expect(now).toBeGreaterThanOrEqual(ingredient.absorbs.fast - 1e-12);
          expect(now).toBeLessThanOrEqual(Math.max(ingredient.absorbs.slow, ingredient.absorbs.fast) + 1e-12);
        }
      }),
    );
  });
  test("coconut flour drinks three to four times what rice flour does", () => {
    const ratio = drunkBy(items(["coconut-flour", 100]), 10) / drunkBy(items(["white-rice-flour", 100]), 10);
    expect(ratio).toBeGreaterThan(3);
    expect(ratio).toBeLessThan(4);
  });
});

describe("consistency", () => {
  test("words run from thin to stiff without a gap", () => {
    const read = Array.from({ length: 80 }, (_, i) => consistencies.indexOf(consistencyOf(i * 0.05)));
    read.slice(1).forEach((place, i) => expect(place).toBeGreaterThanOrEqual(read[i] ?? 0));
    expect(new Set(read).size).toBe(consistencies.length);
  });
  test("more liquid is never stiffer and more flour never thinner, whatever the batter", () => {
    const grams = fc.integer({ min: 20, max: 400 });
    fc.assert(
      fc.property(
        grams,
        grams,
        grams,
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 1, max: 80 }),
        (flour, milk, egg, sugar, more) => {
          const of = (f: number, m: number): number =>
            stiffnessOf(
              items(["sorghum-flour", f], ["whole-milk", m], ["egg", egg], ["white-sugar", sugar], ["sunflower-oil", 30]),
              "muffin",
            );
          expect(of(flour, milk + more)).toBeLessThanOrEqual(of(flour, milk) + 1e-6);
          expect(of(flour + more, milk)).toBeGreaterThanOrEqual(of(flour, milk) - 1e-6);
        },
      ),
    );
  });
  test("standing stiffens a batter of slow drinkers", () => {
    const { atMinutes } = bodyOf(items(["oat-flour", 150], ["coconut-flour", 40], ["whole-milk", 330], ["egg", 100]), {}, 0.6);
    atMinutes.slice(1).forEach((at, i) => expect(at.loading).toBeLessThanOrEqual((atMinutes[i]?.loading ?? 0) + 1e-9));
    const places = atMinutes.map((at) => consistencies.indexOf(at.consistency));
    expect(Math.max(...places)).toBeGreaterThan(places[0] ?? 9);
  });
  test("cold fat cut in is part of the solids, melted it is not", () => {
    const dough: Lines = [
      ["gf-blend-plain", 250],
      ["butter", 80],
      ["whole-milk", 150],
    ];
    expect(stiffnessOf(items(...dough), "cut-in")).toBeGreaterThan(stiffnessOf(items(...dough), "muffin"));
  });
  test("the liquid that leads to a neighbouring word leads there, to what a kitchen measures", () => {
    const now = consistencyOf(stiffnessOf(items(...batter), "muffin"));
    const next = nextClasses(items(...batter), water, {}, now);
    expect(next.length).toBeGreaterThan(0);
    for (const { consistency, ingredientId, toG } of next) {
      const changed = items(...batter.map(([id, grams]): [string, number] => [id, id === ingredientId ? toG : grams]));
      expect(consistencyOf(stiffnessOf(changed, "muffin"))).toBe(consistency);
      expect(Math.abs(toG * 10 - Math.round(toG * 10))).toBeLessThan(1e-6);
    }
  });
  test("egg is not the liquid one would change; without any, water is offered", () => {
    expect(mainLiquid(items(...batter))?.ingredient.id).toBe("whole-milk");
    const stiff = items(["white-rice-flour", 300], ["egg", 60]);
    const found = liquidFor(stiff, water, {}, "more", (word) => word === "spoonable");
    expect([found?.ingredient.id, found?.fromG]).toEqual(["water", 0]);
    expect(liquidFor(items(["white-rice-flour", 300]), water, {}, "less", (word) => word === "pourable")).toBeNull();
  });
});

/** What hands know: dry things and liquid by mass, and the words that a baker would give the dough. */
const doughs: [name: string, words: string, method: "muffin" | "cut-in" | "creaming", lines: Record<string, number>][] = [
  ["scone", "soft-dough", "cut-in", { "gf-blend-plain": 250, butter: 80, "whole-milk": 130, egg: 50, "white-sugar": 40 }],
  ["scone without egg", "soft-dough", "cut-in", { "gf-blend-gum": 250, butter: 70, buttermilk: 180, "white-sugar": 30 }],
  ["oat scone", "soft-dough", "cut-in", { "oat-flour": 250, butter: 70, "whole-milk": 130, "white-sugar": 40 }],
  ["drop biscuit", "scoopable", "cut-in", { "gf-blend-plain": 250, xanthan: 1.3, butter: 70, "whole-milk": 220, egg: 50 }],
  ["psyllium bun", "soft-dough", "muffin", { "brown-rice-flour": 150, "tapioca-starch": 150, "psyllium-husk": 18, water: 300 }],
  ["rolled flatbread", "soft-dough firm-dough", "muffin", { "sorghum-flour": 120, "tapioca-starch": 80, "psyllium-husk": 8, water: 150 }],
  ["noodle dough", "firm-dough", "muffin", { "buckwheat-flour": 200, water: 95 }],
  ["chickpea cracker", "firm-dough soft-dough", "muffin", { "chickpea-flour": 200, water: 85, "olive-oil": 20 }],
  ["chewy rice dough", "soft-dough", "muffin", { "sweet-rice-flour": 200, water: 165 }],
  ["steamed rice dough", "soft-dough firm-dough", "muffin", { "white-rice-flour": 200, water: 170 }],
  ["oat bannock", "soft-dough firm-dough", "muffin", { "rolled-oats": 200, water: 110, butter: 25 }],
  ["pie crust with too little water", "crumbly", "cut-in", { "white-rice-flour": 130, "tapioca-starch": 70, butter: 60, water: 15 }],
  ["damp rice flour", "crumbly", "muffin", { "white-rice-flour": 250, water: 60 }],
  ["teff round", "soft-dough firm-dough", "muffin", { "teff-flour": 200, water: 170, "psyllium-husk": 6 }],
  ["creamed biscuit", "soft-dough scoopable", "creaming", { "gf-blend-gum": 220, butter: 120, "light-brown-sugar": 150, egg: 50 }],
  ["bread batter", "scoopable spoonable", "muffin", { "brown-rice-flour": 200, "tapioca-starch": 100, "psyllium-husk": 12, water: 330, egg: 100 }],
  ["pulse batter", "pourable", "muffin", { "chickpea-flour": 200, water: 400, "olive-oil": 30 }],
  ["thick pulse batter", "spoonable scoopable", "muffin", { "chickpea-flour": 200, water: 220 }],
  ["thin cake batter", "pourable", "muffin", { "white-rice-flour": 150, "corn-starch": 60, "whole-milk": 380, egg: 100, butter: 20 }],
]; // prettier-ignore

describe("doughs that are shaped by hand", () => {
  const of = (lines: Record<string, number>, method: "muffin" | "cut-in" | "creaming"): number =>
    stiffnessOf(items(...Object.entries(lines)), method);
  test.each(doughs)("%s reads as %s", (_, words, method, lines) => {
    expect(words.split(" ")).toContain(consistencyOf(of(lines, method)));
  });
  test("less water never reads softer, on any of them, down to dry flour", () => {
    for (const [, , method, lines] of doughs) {
      const liquid = Object.keys(lines).find((id) => /^water$|milk$/.test(id)) ?? "egg";
      let last = Infinity;
      for (let grams = 2; grams < 700; grams += 6) {
        const now = of({ ...lines, [liquid]: grams }, method);
        expect(now).toBeLessThanOrEqual(last + 1e-9);
        last = now;
      }
    }
  });
  test("dusting flour stiffens, and cold fat is stiffer than the same fat melted", () => {
    for (const [, , method, lines] of doughs)
      expect(of({ ...lines, "white-rice-flour": (lines["white-rice-flour"] ?? 0) + 20 }, method)).toBeGreaterThan(
        of(lines, method) - 1e-9,
      );
  });
});

describe("density", () => {
  test("a syrup of half sugar weighs 1.23 g/mL as tables say, without air", () => {
    const syrup = items(["white-sugar", 100], ["water", 100]);
    expect(200 / condensedVolume(syrup)).toBeCloseTo(1.23, 2);
  });
  test("air lightens by its share of the volume: whisked is lighter than creamed, creamed than stirred", () => {
    const foamed = items(...batter, ["egg", 60]);
    const [stirred, creamed, whisked] = (["muffin", "creaming", "whisked"] as const).map((method) => batterDensity(foamed, method));
    expect((stirred ?? 0) > (creamed ?? 0) && (creamed ?? 0) > (whisked ?? 0)).toBe(true);
    expect((whisked ?? 0) / (stirred ?? 1)).toBeCloseTo(0.6 / 0.92, 6);
  });
  test("where nothing foams whisking leaves no more air than stirring; what holds its air only by egg and sugar has as much as creamed batter", () => {
    const bare = items(["white-rice-flour", 200], ["water", 200]);
    expect(batterDensity(bare, "whisked")).toBeCloseTo(batterDensity(bare, "one-bowl"), 9);
    const sponge = items(["egg", 150], ["white-sugar", 160], ["gf-blend-plain", 90]);
    expect(batterDensity(sponge, "muffin")).toBeCloseTo(batterDensity(sponge, "creaming"), 9);
  });
});

describe("binding", () => {
  test("an egg to 125 g of flour binds like about 0.4 % xanthan", () => {
    expect(binderOf(items(["white-rice-flour", 125], ["egg", 50]), 0.6).percent).toBeGreaterThan(0.3);
    expect(binderOf(items(["white-rice-flour", 125], ["egg", 50]), 0.6).percent).toBeLessThan(0.5);
  });
  test("adequacy is linear in the binder and names the strongest first", () => {
    const once = binderOf(items(["sorghum-flour", 200], ["xanthan", 1], ["psyllium-husk", 6]), 0.8);
    const twice = binderOf(items(["sorghum-flour", 200], ["xanthan", 2], ["psyllium-husk", 12]), 0.8);
    expect(twice.adequacy / once.adequacy).toBeCloseTo(2, 9);
    expect(once.kind).toMatch(/psyllium|xanthan/);
    expect(binderOf(items(["sorghum-flour", 200]), 0.8)).toMatchObject({ kind: "none", adequacy: 0 });
  });
  test("a bought blend's own gum counts, and wheat's gluten is a binder", () => {
    expect(binderPerGram(thing("gf-blend-gum"))).toBeGreaterThan(0);
    expect(binderPerGram(thing("gf-blend-plain"))).toBe(0);
    expect(binderOf(items(["wheat-flour", 200]), 0.6).kind).toBe("gluten");
  });
});

describe("setting", () => {
  test("waxy rice sets under rice, rice under nothing but sugar's shift", () => {
    expect(settingOf(items(["sweet-rice-flour", 100], ["water", 100])).mid).toBeLessThan(
      settingOf(items(["white-rice-flour", 100], ["water", 100])).mid,
    );
  });
  test("sugar raises it by 20 K times its share of the syrup; dryness raises it too; egg holds it under 90", () => {
    const plain = settingOf(items(["corn-starch", 100], ["water", 100])).mid;
    expect(
      Math.abs(settingOf(items(["corn-starch", 100], ["water", 100], ["white-sugar", 100])).mid - plain - 10) * -1,
    ).toBeGreaterThan(-1);
    expect(settingOf(items(["corn-starch", 100], ["water", 20])).mid).toBeGreaterThan(plain);
    expect(settingOf(items(["corn-starch", 60], ["water", 30], ["white-sugar", 400])).mid).toBeLessThanOrEqual(90);
  });
  test("sugar in pieces does not count as syrup", () => {
    expect(batterSugar(items(["raisins", 100]))).toBe(0);
    expect(batterSugar(items(["honey", 100]))).toBeGreaterThan(75);
  });
});
