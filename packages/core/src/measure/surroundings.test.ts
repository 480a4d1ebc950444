import { readRecipe } from "../read";
import { readTemperatures } from "./oven-text";
import { readPan } from "./pan-text";
import { piecesIn } from "./pieces-text";
import { readMinutes, readStages } from "./time-text";

describe("temperatures", () => {
  test.each([
    ["160C (fan 140C, gas 3) for 1 hour", 160],
    ["Oven 200C / 180C fan / gas 6.", 200],
    ["bake in a moderate oven", 180],
    ["Preheat to three seventy-five oven", 190.6],
    ["Bake at 350 for an hour", 176.7],
    ["Set the oven to 180 and line the tin", 180],
    ["heat the oven to one hundred and eighty degrees", 180],
  ])("%s", (text, celsius) => expect(readTemperatures(text).celsius).toBeCloseTo(celsius, 0));

  test.each(["Chill at 4 °C.", "Boil the syrup to 105 °C.", "Serves 200", "Takes 180 g butter", "Keep under 20 °C"])(
    "“%s” is no oven",
    (text) => expect(readTemperatures(text).celsius).toBeUndefined(),
  );

  test("the core is told from the oven in one sentence", () => {
    expect(readTemperatures("Bake at 180 °C until the core reads 98 °C.")).toMatchObject({ celsius: 180, coreC: 98 });
    expect(readTemperatures("ready at ninety-seven degrees in the centre").coreC).toBe(97);
    expect(readTemperatures("middle shelf, 190 °C")).toMatchObject({ celsius: 190 });
    expect(readTemperatures("middle shelf, 190 °C").coreC).toBeUndefined();
  });

  test("an oven that blows says so, and its number stays its own", () => {
    expect(readTemperatures("Convection bake at 325°F")).toMatchObject({ mode: "fan", fahrenheit: true });
    expect(readTemperatures("200C (fan)").mode).toBe("fan");
    expect(readTemperatures("180C (160C fan)").mode).toBeUndefined();
    expect(readTemperatures("air fryer at 160 °C").mode).toBe("air-fryer");
  });

  test("between the scales a bare number is asked about, first in the scale of the country", () => {
    const asked = (measures: "us" | "metric") =>
      readRecipe("x\n200 g oats\nBake at 250 degrees.", measures).questions.find(({ kind }) => kind === "which-scale");
    expect(asked("us")?.choices[0]?.celsius).toBe(121);
    expect(asked("metric")?.choices[0]?.celsius).toBe(250);
  });
});

describe("times", () => {
  test.each([
    ["Bake 45 minutes to 1 hour.", 45, 60],
    ["bake an hour and a quarter", 75, 75],
    ["16-18 minutes. Cool 5 min in the pan.", 16, 18],
    ["Rest 10 minutes, then bake 20 minutes, then cool 10 minutes.", 20, 20],
    ["bake twenty two to twenty five minutes", 22, 25],
    ["190 °C, 35 min", 35, 35],
  ])("%s", (text, low, high) => expect(readMinutes(text)).toEqual({ low, high }));

  test.each(["Cool 20 minutes.", "Whisk for 5 minutes.", "Keeps 3 days.", "Prep 10 minutes", "Simmer about 10 minutes"])(
    "“%s” is no bake",
    (text) => expect(readMinutes(text)).toBeNull(),
  );

  test("stages stand in their order, covered and open, in the tin and free", () => {
    const covered = readStages("Bake 20 minutes covered, then 25 minutes uncovered.");
    expect(covered.map(({ minutes }) => minutes.low)).toEqual([20, 25]);
    expect(covered.map((stage) => stage.covered === true)).toEqual([true, false]);
    const free = readStages("Bake in the tin for 25 minutes, then 10 more without the tin.");
    expect(free.map(({ minutes }) => minutes.low)).toEqual([25, 10]);
    expect(free[1]?.free).toBe(true);
  });
  test.each([
    ["Bake at 220 C for 15 minutes, then reduce to 180 C and bake 30 minutes more.", [{ celsius: 220 }, { celsius: 180 }]],
    ["Bake 20 minutes at 400F, then lower the oven to 350 F for another 25 min.", [{ celsius: 204 }, { celsius: 177 }]],
    ["Start on the hob for 3 minutes, then bake at 200 C for 15 minutes.", [{ mode: "hob" }, {}]],
    ["Bake at 180 C for 35 minutes, cover with foil and bake 15 minutes more.", [{}, { covered: true }]],
    ["Bake covered for 30 minutes, then remove the lid and bake for 20 minutes at 190 C.", [{ covered: true }, {}]],
    ["Bake 25 minutes at 190 C, then grill for 2 minutes until golden.", [{}, { mode: "grill" }]],
    ["Line the tin with foil and bake the gluten-free loaf 30 minutes, then 10 more.", [{}, {}]],
  ])("%s", (text, wanted) => expect(readStages(text).map(({ minutes: _, ...rest }) => rest)).toEqual(wanted));
});

describe("pans", () => {
  test.each([
    ["Tin of 20 x 10 cm, papered.", { shape: "rectangular", lengthMm: 200, widthMm: 100 }],
    ["two 8-inch round pans", { shape: "round", diameterMm: 203, pieces: 2 }],
    ["a nine by thirteen baking pan", { shape: "rectangular", lengthMm: 330, widthMm: 229 }],
    ["12-cup muffin tin with paper cases", { shape: "muffin", pieces: 12, lining: "paper-cups" }],
    ["400F. Muffin pan, 12 cups, greased.", { shape: "muffin", pieces: 12 }],
    ["a 2 lb loaf tin", { shape: "rectangular", lengthMm: 215 }],
    ["Put a 10-inch cast-iron skillet in the oven", { shape: "round", material: "cast-iron", preheated: true }],
    ["on a lined baking tray", { shape: "free", lining: "paper" }],
    ["a dry griddle, medium heat", { shape: "griddle" }],
    ["a bundt pan", { shape: "ring" }],
  ])("%s", (text, pan) => expect(readPan(text)).toMatchObject(pan));

  test("the mass of a tin is no count, and brings no measures that are not its own", () => {
    expect(readPan("a 2 lb loaf tin")?.pieces).toBeUndefined();
    expect(readPan("a 900 g loaf tin")?.pieces).toBeUndefined();
    expect(readPan("23 cm round tin")?.heightMm).toBeUndefined();
  });

  test.each(["1 tin of tomatoes", "Keeps in a tin for 3 days", "flatten into a round 20cm across, 2cm thick", "Cool in the tin"])(
    "“%s” is no pan",
    (text) => expect(readPan(text)).toBeNull(),
  );

  test.each([
    ["Makes 8", 8],
    ["Makes 12 muffins", 12],
    ["cut into eight wedges", 8],
    ["Drop 12 rough heaps on a lined baking tray", 12],
    ["Yield: 10", 10],
  ])("%s", (text, pieces) => expect(piecesIn(text)).toBe(pieces));

  test.each(["Makes it easy", "Serves a crowd", "into the tin"])("“%s” counts nothing", (text) =>
    expect(piecesIn(text)).toBeNull(),
  );
});

test("what stands around is put together: the bake outranks the preheating, a tray is counted by the yield", () => {
  const reading = readRecipe(
    "Pier rolls\nMakes 8\n200 g oats\nPreheat to 230 °C.\nSet on a lined baking tray.\nBake at 200 °C for 20 minutes.",
    "metric",
  );
  expect(reading).toMatchObject({
    oven: { celsius: 200 },
    minutes: { low: 20, high: 20 },
    yield: { pieces: 8 },
    pan: { shape: "free", pieces: 8 },
  });
});

test.each([
  ["Pat out 1 in. thick, cut 2½ in. rounds, brush with milk.", null],
  ["Add two eggs, one by one.", null],
  ["Into a buttered 8x8, 400F, 22-25 mins.", { shape: "rectangular", lengthMm: 203, widthMm: 203, lining: "greased" }],
  ["Spread on a baking tray and bake.", { shape: "rectangular" }],
  ["Drop 12 mounds on a lined baking sheet.", { shape: "free", pieces: 12, lining: "paper" }],
  ["Divide between 4 silicone cases.", { shape: "muffin", pieces: 4, material: "silicone" }],
  ["Two buttered 1 lb tins, covered.", { shape: "rectangular", lengthMm: 155, widthMm: 90, heightMm: 65, pieces: 2, lining: "greased" }],
  ["Makes 16 | 8in square tin", { shape: "rectangular", lengthMm: 203, widthMm: 203 }],
  ["Makes 16 in one 20 cm square tin", { shape: "rectangular", lengthMm: 200, widthMm: 200 }],
  ["175 fan 45'  23cm round", { shape: "round", diameterMm: 230 }],
  ["tin 450g, 185 / 42 min", { shape: "rectangular", lengthMm: 155, widthMm: 90, heightMm: 65 }],
])("the pan of “%s”", (text, pan) => expect(readPan(text)).toEqual(pan)); // prettier-ignore

test.each([
  ["tin 450g, 185 / 42 min, core 97", 42],
  ["gas four for about forty five minutes", 45],
  ["Lined tin, 160 fan, an hour and ten. Keeps a week.", 70],
  ["12-hole tin, 18min at 190 (170 fan).", 18],
])("the minutes of “%s”, and none of its keeping", (text, minutes) =>
  expect(readMinutes(text)).toEqual({ low: minutes, high: minutes }),
);
