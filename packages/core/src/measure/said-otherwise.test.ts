import fc from "fast-check";
import { readRecipe } from "../read";
import { readStages, readStagesByDefault } from "./time-text";

/** What else a kitchen does for some minutes; written from cook's verbs, not from the reader's list. */
const otherThings = [
  "Let it rest for",
  "Chill the dough",
  "Soak the dates",
  "Whip the whites",
  "Simmer the pears",
  "Knead it",
  "Toast the nuts",
  "Leave it to stand",
  "Stir over a low heat for",
  "Cool in the tin for",
  "Marinate the fruit",
  "Prove somewhere warm for",
  "Wait",
  "It keeps its heat for",
];
const minutes = fc.integer({ min: 5, max: 90 });

test("property: minutes that something else is named for are no bake's", () =>
  fc.assert(
    fc.property(fc.constantFrom(...otherThings), minutes, (thing, time) => {
      expect(readStages(`${thing} ${time} minutes.`)).toEqual([]);
      expect(readStagesByDefault(`${thing} ${time} minutes.`)).toEqual([]);
    }),
  ));

test("property: minutes that nothing else is named for are the bake's, however they are said", () =>
  fc.assert(
    fc.property(
      minutes,
      fc.constantFrom(
        (n: number) => `${n} minutes should do it.`,
        (n: number) => `They need ${n} minutes.`,
        (n: number) => `It comes out after ${n} minutes.`,
        (n: number) => `${n} minutes, all told.`,
        (n: number) => `Give them ${n} minutes on the top shelf.`,
      ),
      (time, say) => {
        const text = say(time);
        const stages = readStages(text);
        expect((stages.length > 0 ? stages : readStagesByDefault(text)).map((stage) => stage.minutes)).toEqual([
          { low: time, high: time },
        ]);
      },
    ),
  ));

test("a bake that goes on adds up, by its parts or by what it says of all of it", () => {
  const sum = (text: string) => readStages(text).reduce((all, stage) => all + stage.minutes.low, 0);
  expect(sum("Bake 12 min., rotate, 6 min. more.")).toBe(18);
  expect(sum("Bake for 30, tent with foil, and bake 15 longer.")).toBe(45);
  expect(sum("Bake it without the lid for its last 10 minutes (45 in total).")).toBe(45);
  expect(sum("Dough rests 20 min, bakes 25.")).toBe(25);
  expect(sum("Fry 90 seconds a side.")).toBe(3);
});

/** The masses that a line of a list says, by what was read. */
const readOf = (line: string) =>
  readRecipe(`200 g white rice flour\n${line}\n1 tsp salt`).lines.filter(
    ({ role, source }) => role === "ingredient" && source === line,
  );
const gramsOf = (line: string) => readOf(line).map(({ grams }) => Math.round(grams?.mid ?? NaN));
const foods = fc.constantFrom("teff flour", "caster sugar", "ground almonds", "sunflower seeds", "butter");

test("property: so many lots of an amount are that many times as much", () =>
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 9 }),
      fc.integer({ min: 10, max: 90 }),
      foods,
      fc.constantFrom("lots of", "x", "times", "batches of"),
      (count, each, food, joint) => expect(gramsOf(`${count} ${joint} ${each} g ${food}`)).toEqual([count * each]),
    ),
    { numRuns: 40 },
  ));

test("property: all but a part is the whole less it, and what is left when it is made ready is what goes in", () =>
  fc.assert(
    fc.property(fc.integer({ min: 10, max: 60 }), fc.integer({ min: 100, max: 400 }), foods, (part, whole, food) => {
      expect(gramsOf(`all but ${part} g of ${whole} g ${food}`)).toEqual([whole - part]);
      expect(gramsOf(`${whole} g ${food} (after sieving: ${part} g)`)).toEqual([part]);
      expect(gramsOf(`${whole} g ${food}, you need ${part} g`)).toEqual([part]);
    }),
    { numRuns: 40 },
  ));

test("property: what a thing is free of is never read for it", () =>
  fc.assert(
    fc.property(
      fc.constantFrom("sugar", "egg", "nut", "milk", "soya", "wheat"),
      fc.constantFrom("marzipan", "mayonnaise", "granola", "cream cheese", "chocolate", "jam"),
      (without, thing) => {
        for (const { ingredientId, name } of readOf(`120 g ${without}-free ${thing}`))
          expect(`${ingredientId ?? ""} ${name}`).not.toMatch(new RegExp(`^(?:white-)?${without}(?:s|-milk)?\\b(?!.*free)`, "i"));
      },
    ),
  ));

test("what ranges free is no thing free of something", () => {
  const { lines } = readRecipe("Mix 200 g white rice flour with 60 g butter, then beat in 3 large eggs free range and 50 g sugar.");
  expect(lines.map(({ ingredientId }) => ingredientId)).toContain("egg");
});

test("a thing in another language that is of something unknown stays as it is, and is asked about", () => {
  for (const line of ["200 g noci di brasile rosa", "100 g farine de perlimpinpin"])
    for (const { ingredientId, state } of readRecipe(`3 uova\n2 œufs\n${line}`).lines.filter(({ source }) => source === line)) {
      expect(ingredientId).toBeNull();
      expect(state).not.toBe("read");
    }
});

test("a first line of several sentences is one of the list where it begins with its first thing; a tale is none", () => {
  const ids = (text: string) =>
    readRecipe(text).lines.flatMap(({ role, ingredientId }) =>
      role === "ingredient" && ingredientId !== null ? [ingredientId] : [],
    );
  const list = "180 g teff flour\n2 eggs\n60 g tapioca starch";
  expect(ids(`Date loaf\nDates 200 g, chopped; 250 ml boiling water; 1 tsp bicarb. Leave 15 min.\n${list}`)).toEqual(
    expect.arrayContaining(["dates", "water", "soda"]),
  );
  expect(ids(`Apple loaf\nMy neighbour gave me 3 kg of apples last week. They were sour.\n${list}`)).not.toContain("apple");
});

test("a number that is part of a name makes no amount of a title, and a verb is no food", () => {
  expect(readRecipe("Two-tin chocolate cake\n225 g teff flour\n2 eggs").title).toBe("Two-tin chocolate cake");
  const { lines } = readRecipe("200 g oats\n100 g butter\nTip in the oats, squash it in the tin and bake 25 minutes.");
  expect(lines.map(({ ingredientId }) => ingredientId)).not.toContain("pumpkin-raw");
});

test("eggs without a unit are counted by the tray, other things weighed", () => {
  const read = readRecipe("muffins\nrice flour 500\nsorghum flour 300\nsugar 200\neggs 15\nbutter 250\nsalt 9");
  const grams = (id: RegExp) => read.lines.find(({ ingredientId }) => id.test(ingredientId ?? ""))?.grams?.mid ?? NaN;
  expect(grams(/^egg$/)).toBeGreaterThan(600);
  expect(grams(/butter/)).toBe(250);
});

test("what a thing is sifted or soaked with is no line of its own where the list holds it, and is asked about where it does not", () => {
  const ids = (text: string) => readRecipe(text).lines.filter(({ role }) => role === "ingredient").map(({ ingredientId }) => ingredientId); // prettier-ignore
  expect(ids("225 g teff flour\n30 g cocoa (sifted with the flour)\n2 eggs")).toEqual(["teff-flour", "cocoa-natural", "egg"]);
  expect(ids("225 g teff flour\n100 g raisins, soaked in the rum\n2 eggs")).toContain("rum");
});

test("flowers are no flour, but for a slip of the ear", () => {
  const ids = (line: string) => readOf(line).map(({ ingredientId }) => ingredientId ?? "");
  expect(ids("150 g rice flower").join()).toMatch(/rice-flour/);
  for (const line of ["a few flowers to decorate", "10 edible flowers"]) expect(ids(line).join()).not.toMatch(/flour|blend/);
});

test("a flesh that is mashed is a purée; only a zest is none where the flesh goes in as well", () => {
  expect(readOf("400 g pumpkin, flesh cooked and mashed").map(({ ingredientId }) => ingredientId)).toEqual(["butternut-puree"]);
  expect(readOf("1 orange: zest finely grated, flesh chopped").map(({ ingredientId }) => ingredientId)).toEqual(["orange"]);
});

test("behind a thing that is free of gluten another one begins", () => {
  const { lines } = readRecipe("mix gf flour sugar and 2 eggs, bake 180 25 min");
  expect(lines.flatMap(({ ingredientId }) => ingredientId ?? [])).toEqual(expect.arrayContaining(["white-sugar", "egg"]));
});
