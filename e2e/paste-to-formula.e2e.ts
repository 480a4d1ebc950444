import { type Kitchen, openKitchen, phone, readingOf, wide } from "./kitchen";

jest.setTimeout(120_000);

const recipe = `Sorghum and apple loaf

Ingredients
1 1/2 cups sorghum flour
3/4 cup plus 2 tbsp tapioca starch
1 cup flour (80 g)
1 tsp xanthan gum
1 tbsp bicarbonate of soda
a pinch of salt
2 large eggs, at room temperature
1 cup (240 ml) oat milk
1/2 cup packed light brown sugar
1/3 cup sunflower oil
2 medium apples, diced
1 heaped tsp cinnamon
20 g harbour spice
juice of half a lemon
50 g walnuts (optional)

Method
Preheat the oven to 175 °C (300 °F). Grease a 23 x 13 cm loaf tin.
Mix, fill, and bake for 55-65 minutes.`;

let kitchen: Kitchen;
beforeAll(async () => {
  kitchen = await openKitchen();
});
afterAll(() => kitchen.close());

test.each([
  ["a phone", phone],
  ["a wide screen", wide],
])("on %s: paste, answer, mend, judge, change, save, reload, restart, find again", async (name, size) => {
  const page = await kitchen.open("/read", size);
  await page.getByLabel("Recipe").fill(recipe.replace("apple loaf", `apple loaf on ${name}`));
  await page.getByText("13 lines weighed, 4 questions").waitFor();

  await page
    .getByRole("group", { name: /80 g and 1 cup do not agree/ })
    .getByRole("button")
    .nth(1)
    .click();
  await page
    .getByRole("group", { name: /That name stands for different things/ })
    .getByRole("button", { name: "Gluten-free flour blend, no gum" })
    .click();
  await page
    .getByRole("group", { name: /175 °C is not 300 °F/ })
    .getByRole("button", { name: "175 °C", exact: true })
    .click();
  await page
    .getByRole("group", { name: /“harbour spice” is not known here/ })
    .getByRole("button", { name: "Something else" })
    .click();
  await page.getByLabel("It means").fill("mixed spice");
  await page.getByRole("option").first().click();
  await page.getByText("14 lines weighed", { exact: true }).waitFor();
  await page.getByRole("button", { name: "Take it" }).click();
  await page.getByText("15 lines weighed", { exact: true }).waitFor();
  await page.getByRole("button", { name: "Put on the bench" }).click();

  await page.waitForURL(/\/bench\//);
  await page.getByTestId("instrument-lift").waitFor();
  const before = await readingOf(page, "lift");
  expect(before).toMatch(/short of acid; .* of soda finds no acid/);
  expect(await readingOf(page, "fill")).toMatch(/per cent of the pan/);
  expect(await readingOf(page, "bake")).toMatch(/Bake: \d+–\d+ min at 175 degrees/);
  await page
    .getByRole("status", { name: "Findings" })
    .getByText(/of soda finds no acid/)
    .waitFor();

  const beam = page.getByTestId("instrument-lift").locator("svg");
  const tilted = await beam.innerHTML();
  await page.getByLabel("Amount of Baking soda").fill("1/4 tsp");
  await page.getByLabel("Amount of Baking soda").blur();
  await expect(readingOf(page, "lift")).resolves.not.toBe(before);
  expect(await beam.innerHTML()).not.toBe(tilted);
  expect(await readingOf(page, "lift")).not.toMatch(/short of acid/);

  await page.getByText("Not saved, from version 1").waitFor();
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await page.getByText("Saved, version 2").waitFor();
  const judged = await readingOf(page, "lift");
  await page.reload();
  await page.getByTestId("instrument-lift").waitFor();
  expect(await readingOf(page, "lift")).toBe(judged);

  await kitchen.crashAndRestart();
  await page.goto(`${kitchen.url}/formulas`);
  await page.getByLabel("Search by name").fill(`loaf on ${name}`);
  await page.getByRole("link", { name: new RegExp(`^Sorghum and apple loaf on ${name}`) }).click();
  await page.getByText("Saved, version 2").waitFor();
  expect(await readingOf(page, "lift")).toBe(judged);
  await page.context().close();
  expect(kitchen.complaints).toEqual([]);
});

test("an unread line can be written anew where it stands, and the text survives a reload", async () => {
  const page = await kitchen.open("/read");
  await page.getByLabel("Recipe").fill("Scones\n200 g zorblat\n100 g butter");
  await page.getByText("Not read: zorblat").waitFor();
  await page.reload();
  await page.getByLabel("Or write the line anew").fill("200 g rice flour");
  await page.getByRole("button", { name: "Read it again" }).click();
  await page.getByText("2 lines weighed", { exact: true }).waitFor();
  expect(await page.getByLabel("Recipe").inputValue()).toBe("Scones\n200 g rice flour\n100 g butter");
  await page.context().close();
});

test.each([
  ["a method without a list", "Harbour drop biscuits\nStir 200 g oat flour with 60 g tapioca starch, 10 g baking powder and 4 g salt.\nRub in 60 g cold butter. Pour in 150 ml kefir and rest the dough 15 minutes.\nDrop 9 heaps on a lined tray and bake at 220 °C for 14 minutes.", 6, /^Mixed by: cutting in/], // prettier-ignore
  ["a chat", "[09:12] Mo: what was in them??\n[09:13] Ines: 150g white chocolate, 120g butter\n[09:13] Ines: 2 eggs, 130 g sugar\n[09:14] Ines: 140 g rice flour + 40g ground almonds\n[09:15] Ines: 170 for 28 min, 20x20 tin", 6, /^Oven 170 °C/], // prettier-ignore
  ["German", "Hirse-Bananen-Brot\n200 g Hirsemehl\n60 g gemahlene Mandeln\n2 TL Backpulver\n2 Eier\n80 ml Sonnenblumenöl\n60 g brauner Zucker\nIn eine Kastenform (25 x 11 cm) füllen und bei 175 °C 50 Minuten backen.", 6, /^Read as German/], // prettier-ignore
  ["two columns", "Seed crackers\n120 g chickpea flour        60 ml water\n40 g sesame seeds           30 ml olive oil\n30 g sunflower seeds        4 g salt\nRoll 3 mm thin, cut into squares. 180 °C, 18 minutes.", 6, /^Shaped: 3 mm thick, cut in squares/], // prettier-ignore
  ["one breath", 'Skillet pear cake – 1 cup teff flour, 1/2 cup almond flour, 2 tsp baking powder, 1/4 tsp salt, 3 eggs, 1/2 cup maple syrup and 2 sliced pears; 10" skillet, 350F, 35 minutes', 7, /^Oven 177 °C \(350 °F\)/], // prettier-ignore
])("%s is read as a recipe, and what every line was taken for is said", async (_, text, weighed, said) => {
  const page = await kitchen.open("/read");
  await page.getByLabel("Recipe").fill(text);
  await page.getByText(new RegExp(`^${weighed} lines weighed`)).waitFor();
  await page.getByText(said).first().waitFor();
  await page.getByRole("button", { name: "Put on the bench" }).click();
  await page.waitForURL(/\/bench\//);
  await page.getByTestId("instrument-lift").waitFor();
  expect(await readingOf(page, "lift")).toMatch(/\w/);
  await page.context().close();
});
