import { faultsOf, type Kitchen, openKitchen, readingOf } from "./kitchen";

jest.setTimeout(120_000);

let kitchen: Kitchen;
beforeAll(async () => {
  kitchen = await openKitchen();
});
afterAll(() => kitchen.close());

test("a bought blend is described by its packet and stands on the shelf", async () => {
  const page = await kitchen.open("/store");
  await page.getByRole("button", { name: "Describe a bought blend" }).click();
  await page.getByLabel("Name").fill("Harbour mill flour");
  for (const [label, name] of [
    ["First on the label", "White rice flour"],
    ["Next on the label", "Potato starch"],
    ["Next on the label", "Xanthan gum"],
  ] as const) {
    await page.getByLabel(label).fill(name);
    await page
      .getByRole("option", { name: new RegExp(`^${name}`) })
      .first()
      .click();
  }
  await page.getByLabel("Gum, %").fill("lots");
  await page.getByRole("button", { name: "Put it in the store" }).click();
  await page.getByText("From 0 to 10 % would be right.").waitFor();
  expect(await faultsOf(page)).toEqual([]);
  await page.getByLabel("Gum, %").fill("0.8");
  await page.getByRole("button", { name: "Put it in the store" }).click();
  await page.getByLabel(/^Search \d+ ingredients$/).fill("harbour");
  await page.getByRole("button", { name: /^Harbour mill flour/ }).waitFor();

  await page.goto(`${kitchen.url}/read`);
  await page.getByLabel("Recipe").fill("Loaf\n200 g harbour mill flour\n200 g kefir");
  await page.getByText("2 lines weighed", { exact: true }).waitFor();
  await page.context().close();
});

test("a formula is an ingredient of another; a batter is split into parts that are judged by themselves", async () => {
  const page = await kitchen.open("/bench/pear-loaf");
  await page.getByLabel("Add a line").fill("red-lentil sk");
  await page.getByRole("option", { name: /^Red-lentil skillet bread/ }).click();
  await page.getByLabel("Amount of Red-lentil skillet bread").fill("150 g");
  const fill = await readingOf(page, "fill");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await page.getByText("Saved, version 2").waitFor();
  await page.reload();
  await page.getByLabel("Amount of Red-lentil skillet bread").waitFor();
  expect(await readingOf(page, "fill")).toBe(fill);

  await page.getByRole("button", { name: "Split this batter" }).click();
  const room = page.getByRole("region", { name: "Parts" });
  await room.getByRole("button", { name: "Add a part" }).click();
  await room.getByRole("button", { name: "Add a part" }).click();
  await room.getByText("All of the batter is shared out.").waitFor();
  const first = room.getByRole("group", { name: "First part" });
  await first.getByLabel("Share of the batter").fill("30");
  await room.getByText("20 % of the batter is left.").waitFor();
  // Two muffin pans alike share alike; what was said by hand is put right in one press.
  await room.getByRole("button", { name: "Fill the tins alike: First part 50 %, Another part 50 %" }).click();
  await room.getByText("All of the batter is shared out.").waitFor();
  await first.getByLabel("Add to First part").fill("40 g raisins");
  await first.getByRole("button", { name: /^Add 40 g of raisins/ }).click();
  await first.getByText("Raisins, 40 g").waitFor();
  expect(
    await first
      .getByRole("img", { name: /^Fill:/ })
      .first()
      .getAttribute("aria-label"),
  ).toMatch(/per cent of the pan/);
  expect(await faultsOf(page)).toEqual([]);
  await page.context().close();
  expect(kitchen.complaints).toEqual([]);
});

test("a formula that would hold itself is refused with its path, and what was typed stays", async () => {
  const page = await kitchen.open("/bench/beet-muffins");
  await page.getByLabel("Add a line").fill("orange and oat");
  await page.getByRole("option", { name: /^Orange and oat griddle cakes/ }).click();
  // By its name alone a line is open; weighed it counts.
  await page.getByLabel("Amount of Orange and oat griddle cakes").fill("20 g");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await page.getByText("Saved, version 2").waitFor();
  await page.goto(`${kitchen.url}/bench/griddle-cakes`);
  await page.getByLabel("Add a line").fill("teff, cocoa");
  await page.getByRole("option", { name: /^Teff, cocoa and beetroot muffins/ }).click();
  await page.getByLabel("Amount of Teff, cocoa and beetroot muffins").fill("20 g");
  await page
    .getByText(
      /A formula cannot hold itself: “Orange and oat griddle cakes” → “Teff, cocoa and beetroot muffins” → “Orange and oat griddle cakes”/,
    )
    .waitFor();
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await page.getByText("Not saved, from version 1").waitFor({ state: "detached" });
  await page.reload();
  await page.getByLabel("Amount of Teff, cocoa and beetroot muffins").waitFor();
  await page.getByText("Not saved, from version 1").waitFor();
  await page.context().close();
});
