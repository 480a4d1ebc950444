import { inputFrom } from "../begin";
import { readRecipe } from "../read";

const dough =
  "250 g gluten-free self-raising flour\n60 g butter\n40 g caster sugar\n1 egg\n4 tbsp milk\n\nMethod\nRub the butter into the flour, bind with egg and milk.\n";
const batter = "200 g gluten-free flour\n250 ml milk\n2 eggs\n10 g baking powder\n\nMethod\nWhisk it all together.\n";
const flat = "250 g gluten-free flour\n8 g psyllium husk\n200 g plain yoghurt\n9 g baking powder\n\nMethod\nKnead briefly.\n";

/** How people tell what is cooked on the hob: what lies on a plate, greased or dry, and for how long with both sides. */
const plates: [text: string, lining: "greased" | "none" | undefined, minutes: [number, number] | null][] = [
  [
    `Girdle scones\n\n${dough}Pat out to 12 mm, cut into 8 rounds of 6 cm. Grease a hot griddle and cook over a medium heat, 5 minutes a side, until golden.`,
    "greased",
    [10, 10],
  ],
  [
    `Welsh cakes\n\n${dough}Roll to 8 mm and cut 12 rounds with a 6 cm cutter. Cook on a buttered bakestone for 3-4 minutes each side.`,
    "greased",
    [6, 8],
  ],
  [
    `Pancakes\n\n${batter}Heat a little oil in a frying pan over medium heat. Ladle in 60 ml of batter per pancake, cook 2 minutes, flip, cook 1 minute more.`,
    "greased",
    [3, 3],
  ],
  [
    `Flatbreads\n\n${flat}Divide in 6, roll each to 4 mm. Cook in a dry cast-iron skillet over high heat, 2 minutes per side.`,
    "none",
    [4, 4],
  ],
  [
    `Farls\n\n${flat}Pat into a round 2 cm thick, cut into four and bake on a dry frying pan over low heat, 7 minutes each side.`,
    "none",
    [14, 14],
  ],
  [`Tortillas\n\n250 g masa harina\n360 ml water\n\nPress 16 balls flat. Cook on a comal, 1 minute each side.`, undefined, [2, 2]],
  [
    `Potato cakes\n\n400 g mashed potato\n100 g gluten-free flour\n40 g butter\n\nPat 1 cm thick, fry in butter in a pan for 4 minutes per side.`,
    "greased",
    [8, 8],
  ],
];

test.each(plates)("%s", (text, lining, minutes) => {
  const reading = readRecipe(text, "us");
  expect(reading.pan?.shape).toBe("griddle");
  expect(reading.pan?.lining).toBe(lining);
  expect(reading.minutes ? [reading.minutes.low, reading.minutes.high] : null).toEqual(minutes);
  const { oven, vessel } = inputFrom({ text });
  expect(oven?.mode).toBe("hob");
  expect(vessel?.shape).toBe("griddle");
});

test("how thick it is patted and how many are cut are the cakes on the plate; a cutter is no tin", () => {
  const { vessel } = inputFrom({ text: plates[0]?.[0] ?? "" });
  expect(vessel).toMatchObject({ shape: "griddle", pieces: 8, thicknessMm: 12, lining: "greased" });
  expect(vessel?.pieceG).toBeUndefined();
  expect(vessel?.diameterMm).toBeUndefined();
});

test.each([
  `Cornbread\n\n280 g cornmeal\n420 g buttermilk\n2 eggs\n\nHeat a 25 cm skillet over medium heat with the butter, pour in the batter and bake in the oven for 22 minutes.`,
  `Loaf\n\n${batter}Melt the butter in a pan over low heat. Pour into a loaf tin and bake 50 minutes.`,
  `Scones\n\n${dough}Cut into 8 rounds. Bake on a tray at 210 °C for 15 minutes, turning the tray after 8 minutes.`,
  `Bars\n\n${dough}Melt butter and sugar in a pan over medium heat, press into a 20 cm square tin and bake 20 minutes.`,
  `Bars\n\n${dough}Melt butter and sugar in a pan over medium heat, press flat and bake for 20 minutes.`,
])("what goes into an oven or a tin lies on no plate: %s", (text) => {
  expect(readRecipe(text, "us").pan?.shape).not.toBe("griddle");
});
