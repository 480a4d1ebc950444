import { readings } from "../balance/analyse";
import { inputFrom } from "../begin";
import { readRecipe } from "../read";

const list = "120 g gluten-free self-raising flour\n120 g butter\n120 g brown sugar\n2 eggs\n60 ml milk\n\nMethod\n";

test.each([
  ["microwave", "Stir in a mug. Microwave on high for 90 seconds."],
  ["steam", "Spoon into a buttered 900 ml pudding basin, cover with foil and steam for 1 hour 30 minutes."],
  ["steam", "Set the bowls in a bamboo steamer and steam for 20 minutes."],
  ["slow-cooker", "Pour into a lined slow cooker, a tea towel under the lid, high for 2 hours."],
  ["waffle-iron", "Cook in a hot waffle iron until golden, 4 to 5 minutes."],
  ["deep-fry", "Roll to 1.5 cm, cut rings. Fry in oil at 175 °C for 2 minutes each side."],
  ["deep-fry", "Deep-fry in batches until brown."],
  ["simmer", "Drop spoonfuls onto the simmering stew, cover, 20 minutes."],
  ["bread-machine", "Gluten-free programme of the bread machine, 1 hour 54."],
  ["fire", "In a cast iron pan on the barbecue, lid down, about 25 minutes."],
] as const)("%s: “%s” is told, and nothing of it is taken for an oven", (heat, method) => {
  const reading = readRecipe(list + method, "us");
  expect(reading.process?.elsewhere).toBe(heat);
  expect(reading.oven).toBeUndefined();
  expect(reading.pan?.shape).not.toBe("griddle");
  const found = readings(inputFrom({ text: list + method })).findings;
  expect(found.find(({ id }) => id === "heat-elsewhere")).toMatchObject({ severity: "caution" });
  // Nothing of the same gravity stands before it.
  expect(found.filter(({ severity }) => severity === "caution")[0]?.id).toBe("heat-elsewhere");
});

test.each([
  "Melt the butter in the microwave for 40 seconds. Beat it all together and bake at 180 °C for 30 minutes.",
  "Put a tray of water in the oven for steam. Bake at 200 °C for 40 minutes.",
  "Bake at 190 °C for 25 minutes; let the steam escape before slicing.",
  "Fry 100 ml batter in a little oil in a frying pan, 2 minutes each side.",
  "Soak the dates in boiling water for 10 minutes. Bake in a loaf tin at 170 °C, 55 minutes.",
  "Cook on a greased griddle over medium heat, 2 minutes a side.",
  "Boil the milk, pour over the flour, simmer 2 minutes until thick; cool. Bake at 190 °C for 20 minutes.",
  "Air fry at 180 °C for 10 minutes.",
  "Warm the milk until it is steaming, stir in the flour. Bake 30 minutes.",
])("an oven, a plate or what is made ready beside it is nothing else: %s", (method) => {
  expect(readRecipe(list + method, "us").process?.elsewhere).toBeUndefined();
});

test.each([
  ["microwave", "150 g Reismehl\n80 g Zucker\n2 Eier\n60 ml Milch\n6 g Backpulver\n\nIn der Mikrowelle 3 Minuten garen."],
  [
    "microwave",
    "150 g de farine de riz\n80 g de sucre\n2 œufs\n60 ml de lait\n6 g de levure chimique\n\nCuire au micro-ondes 3 minutes.",
  ],
  [
    "steam",
    "150 g di farina di riso\n80 g di zucchero\n2 uova\n60 ml di latte\n6 g di lievito per dolci\n\nCuocere al vapore per 30 minuti.",
  ],
  [
    "waffle-iron",
    "150 g de harina de arroz\n80 g de azúcar\n2 huevos\n60 ml de leche\n6 g de levadura química\n\nCocinar en la gofrera caliente 4 minutos.",
  ],
] as const)("%s in another language: %s", (heat, text) => {
  expect(readRecipe(text, "metric").process?.elsewhere).toBe(heat);
});

test.each([
  "150 g Reismehl\n2 Eier\n200 ml Milch\n6 g Backpulver\n\nIn einer Bratpfanne bei mittlerer Hitze 2 Minuten pro Seite braten.",
  "150 g de farine de riz\n2 œufs\n200 ml de lait\n6 g de levure chimique\n\nCuire dans une poêle à feu moyen, 2 minutes de chaque côté.",
  "150 g di farina di riso\n2 uova\n200 ml di latte\n6 g di lievito per dolci\n\nCuocere in padella a fuoco medio, 2 minuti per lato.",
  "150 g de harina de arroz\n2 huevos\n200 ml de leche\n6 g de levadura química\n\nCocinar en una sartén a fuego medio, 2 minutos por cada lado.",
])("on a plate in another language: %s", (text) => {
  expect(readRecipe(text, "metric").pan?.shape).toBe("griddle");
});
