import fc from "fast-check";
import { readRecipe } from "./read";

const pasted = `Millet skillet bread

Ingredients
1 1/2 cups millet flour
½ cup cornmeal (80 g)
2 tsp baking powder
1 cup flour (100 g)
2 medium eggs
1 cup oat milk
4 tbsp melted coconut oil
pinch of salt
10 g moon dust
Salt to taste

Method
Preheat the oven to 220 °C (425 °F) with a 10-inch cast-iron skillet in it.
Mix 2 tbsp of the oil in. Bake for 20 to 25 minutes.`;

test("a pasted recipe comes back line by line with its surroundings", () => {
  const reading = readRecipe(pasted);
  expect(reading.title).toBe("Millet skillet bread");
  expect(reading.lines.map((line) => line.source)).toEqual(pasted.split("\n").filter((line) => line.trim() !== ""));
  expect(reading.oven).toEqual({ celsius: 220 });
  expect(reading.minutes).toEqual({ low: 20, high: 25 });
  expect(reading.pan).toMatchObject({ shape: "round", diameterMm: 254, material: "cast-iron" });
  const of = (word: string) => reading.lines.find((line) => line.source.includes(word));
  expect(of("cornmeal")).toMatchObject({ ingredientId: "cornmeal", grams: { mid: 80 }, state: "read" });
  expect(of("moon dust")).toMatchObject({ ingredientId: null, grams: { mid: 10 }, state: "unread" });
  expect(of("flour (100 g)")).toMatchObject({ state: "asked", grams: { mid: 100 } });
  expect(of("to taste")).toMatchObject({ ingredientId: "salt", grams: null, optional: true });
  expect(of("Mix 2 tbsp")).toMatchObject({ role: "step" });
});

test("a volume and a weight apart by more than a fifth are asked about, a near pair is not", () => {
  const kindsOf = (text: string) => readRecipe(`Loaf\n${text}`).questions.map((q) => q.kind);
  expect(kindsOf("1 cup water (240 g)")).toEqual([]);
  expect(kindsOf("1 cup water (180 g)")).toEqual(["amounts-disagree"]);
  expect(kindsOf("2 cups sorghum flour (130 g)")).toEqual(["amounts-disagree"]);
  expect(kindsOf("1 cup sorghum flour (130 g)")).toEqual([]);
});

test("a temperature pair that is not one is asked about with both readings", () => {
  const [question] = readRecipe("Loaf\n200 g rice flour\nBake at 175 °C (300 °F) for 1 hour").questions;
  expect(question?.kind).toBe("temperatures-disagree");
  expect(question?.choices.map((c) => c.celsius)).toEqual([175, 149]);
});

test("the same cup weighs more in Australia's spoon and the metric cup", () => {
  const grams = (measures: "us" | "au" | "metric", line: string) => readRecipe(`x\n${line}`, measures).lines[1]?.grams?.mid ?? 0;
  expect(grams("au", "1 tbsp water") / grams("us", "1 tbsp water")).toBeCloseTo(20 / 14.787, 2);
  expect(grams("metric", "1 cup water")).toBeCloseTo(250, 0);
  expect(grams("us", "1 large egg")).toBe(50);
  expect(grams("metric", "1 large egg")).toBe(55);
});

test("no line is ever lost, whatever is pasted, and ranges are in order", () => {
  const words = fc.constantFrom(
    "1",
    "½",
    "cup",
    "200 g",
    "flour",
    "of",
    "(",
    ")",
    "eggs",
    "plus",
    ",",
    "-",
    "°C",
    "350",
    "bake",
    "Method",
    "Notes:",
    "•",
    "²",
    "to taste",
    "a",
    "/",
    "x",
    "💥",
    "juice of",
  );
  const line = fc.oneof(
    fc.string({ maxLength: 60 }),
    fc.array(words, { maxLength: 9 }).map((all) => all.join(" ")),
  );
  fc.assert(
    fc.property(fc.array(line, { maxLength: 12 }), (lines) => {
      const text = lines.join("\n");
      const reading = readRecipe(text);
      // A line that holds several things comes back once for each of them.
      expect(reading.lines.filter((l) => (l.item ?? 0) === 0).map((l) => l.source)).toEqual(
        text.split(/\r\n|\r|\n/).filter((l) => l.trim() !== ""),
      );
      for (const { grams } of reading.lines) {
        if (grams)
          expect(Number.isFinite(grams.mid) && grams.low <= grams.mid && grams.mid <= grams.high && grams.low >= 0).toBe(true);
      }
      return JSON.parse(JSON.stringify(reading)) !== null;
    }),
    { numRuns: 300 },
  );
});

test("a text is read in the language that it is said to be in, whatever it looks like", () => {
  const short = "Kuchen\n250 g Mandeln\n3 Eier\n150 g Zucker\n1 Prise Salz";
  const found = readRecipe(short, "metric");
  expect(found.language).toBe("de");
  expect(readRecipe(short, "metric", undefined, undefined, undefined, { language: "de" })).toEqual(found);
  const english = readRecipe(short, "metric", undefined, undefined, undefined, { language: "en" });
  expect(english.language).toBeUndefined();
  // Two words that are both “rice” to a finder: of one line alone it could be any language; said to be Spanish it is flour of rice.
  const line = "200 g harina de arroz";
  const spanish = readRecipe(line, "metric", undefined, undefined, undefined, { language: "es" });
  expect(spanish.lines[0]).toMatchObject({ ingredientId: "white-rice-flour", grams: { mid: 200 } });
});

test("figures without a unit are one question for all of them, and one answer", () => {
  const sheet = "Thursday loaf\n\nsorghum flour 160\ntapioca starch 60\npsyllium husk 5, baking powder 9, salt 4\nwater 230\n1 egg";
  const read = (figures?: "g" | "unknown") => readRecipe(sheet, "metric", undefined, undefined, undefined, { figures });
  const weighed = ({ lines }: ReturnType<typeof readRecipe>): [string | null, number][] =>
    lines.flatMap(({ ingredientId, grams, unit }) => (grams && unit === "g" ? [[ingredientId, grams.mid]] : []));
  const grams = [["sorghum-flour", 160], ["tapioca-starch", 60], ["psyllium-husk", 5], ["powder-aluminium-free", 9], ["salt", 4], ["water", 230]]; // prettier-ignore
  const open = read();
  expect(weighed(open)).toEqual(grams);
  expect(open.questions.map(({ kind, message }) => [kind, message])).toEqual([["figures", "6 figures without a unit were read as grams. Is that right?"]]); // prettier-ignore
  expect(open.lines.filter(({ unit }) => unit === "g").every(({ state }) => state === "asked")).toBe(true);
  const told = read("g");
  expect([weighed(told), told.questions, told.lines.every(({ state }) => state === "read")]).toEqual([grams, [], true]);
  // What a bracket says beside a figure costs nothing of it.
  const beside = readRecipe("Loaf\n\nflour (rice/tapioca 2:1) 240\ncocoa 50\nsalt 3\nwater (cold) 200", "metric");
  expect(weighed(beside).map(([, g]) => g)).toEqual([240, 50, 3, 200]);
  const denied = read("unknown");
  expect(weighed(denied)).toEqual([]);
  expect(denied.questions.length).toBeGreaterThanOrEqual(6);
});

test.each([
  ["80 ml milk, plus 1 tbsp to brush", [["whole-milk", 82, ""], ["whole-milk", 15, "glaze"]]],
  ["100 g butter plus 10 g for the tin", [["butter", 100, ""], ["butter", 10, "pan"]]],
  ["250 ml water minus 50 ml", [["water", 200, ""]]],
  ["200 ml oat or soya drink", [["oat-milk", 206, ""]]],
  ["40 ml lemon or lime juice", [["lemon-juice", 41, ""]]],
  ["200 g mashed mango", [["mango-puree", 200, ""]]],
  ["150 g mashed chickpeas", [["chickpeas-cooked", 150, ""]]],
  ["6 g psy husk", [["psyllium-husk", 6, ""]]],
  ["a teacup of water (about 180 ml)", [["water", 180, ""]]],
] as const)("“%s”", (line, wanted) => {
  const { lines } = readRecipe(line, "metric", "Bake");
  const held = lines.flatMap(({ ingredientId, grams, component }) => (grams ? [[ingredientId, Math.round(grams.mid), component?.replace(/-\d+$/, "") ?? ""]] : []));
  expect(held.map(([id, , part]) => [id, part])).toEqual(wanted.map(([id, , part]) => [id, part]));
  for (const [k, [, grams]] of wanted.entries()) expect(Math.abs(Number(held[k]?.[1]) - grams)).toBeLessThanOrEqual(Math.max(1, 0.03 * grams));
}); // prettier-ignore
