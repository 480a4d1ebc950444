import { type Kitchen, openKitchen, readingOf, wide } from "./kitchen";

jest.setTimeout(120_000);

let kitchen: Kitchen;
beforeAll(async () => {
  kitchen = await openKitchen();
});
afterAll(() => kitchen.close());

test("every change of the sheet moves the readings in the browser, with the server gone; undo takes it back", async () => {
  const page = await kitchen.openKept(`/bench/${await kitchen.copyOf("pear-loaf")}`);
  await page.getByTestId("instrument-lift").waitFor();
  await page.context().setOffline(true);
  const start = { lift: await readingOf(page, "lift"), body: await readingOf(page, "body"), fill: await readingOf(page, "fill") };

  await page.getByLabel("Amount of Kefir").fill("700 g");
  await page.getByLabel("Amount of Kefir").blur();
  expect(await readingOf(page, "body")).not.toBe(start.body);
  expect(await readingOf(page, "fill")).not.toBe(start.fill);
  await page.getByRole("button", { name: "Undo" }).click();
  expect(await readingOf(page, "body")).toBe(start.body);

  await page.getByRole("button", { name: /^Kefir/ }).click();
  await page.getByLabel("Take another ingredient").fill("whole milk");
  await page.getByRole("option", { name: /^Whole milk/ }).click();
  expect(await readingOf(page, "lift")).not.toBe(start.lift);
  await page.getByRole("button", { name: "Undo" }).click();
  expect(await readingOf(page, "lift")).toBe(start.lift);

  await page.getByLabel("Add a line").fill("2 tbsp lemon juice");
  await page.getByRole("button", { name: /Add 30(\.\d)? g of lemon juice/ }).click();
  expect(await readingOf(page, "lift")).not.toBe(start.lift);

  await page.getByRole("button", { name: "Save", exact: true }).click();
  await page.getByText("Saved on this device; it goes out when the server answers").waitFor();
  await page.context().setOffline(false);
  await page.reload();
  await page.getByLabel("Amount of Lemon juice").waitFor();
  await page.getByText("Saved, version 2").waitFor();
  await page.context().close();
});

test("lines are moved, locked, renamed and removed; amounts stand in grams, spoons or per cent", async () => {
  const page = await kitchen.open("/bench/griddle-cakes", wide);
  const names = async (): Promise<string[]> =>
    page
      .getByRole("list", { name: "Lines of the formula" })
      .getByLabel(/^Amount of/)
      .evaluateAll((all) => all.map((e) => (e.getAttribute("aria-label") ?? "").replace("Amount of ", "")));
  await page.getByTestId("instrument-lift").waitFor();
  expect((await names())[0]).toBe("Oat flour");
  await page.getByRole("button", { name: /^Oat flour/ }).click();
  await page.getByRole("button", { name: "Move Oat flour down" }).click();
  expect((await names()).slice(0, 2)).toEqual(["White rice flour", "Oat flour"]);
  await page.getByRole("button", { name: "Lock Oat flour" }).click();
  await page.getByRole("button", { name: /^locked Oat flour/ }).waitFor();
  await page.getByLabel("Called here").fill("Pier oats, milled");
  expect(await names()).toContain("Pier oats, milled");
  await page.getByRole("button", { name: "Remove Pier oats, milled" }).click();
  expect(await names()).not.toContain("Pier oats, milled");

  await page.getByRole("radio", { name: "Spoons, cups" }).click();
  expect(await page.getByLabel("Amount of Egg, whole").inputValue()).toBe("2¼ medium");
  await page.getByRole("radio", { name: "% of flour" }).click();
  expect(await page.getByLabel("Amount of White rice flour").inputValue()).toBe("100");
  await page.getByLabel("Amount of White rice flour").fill("nonsense");
  await page.getByText(/“nonsense” is no amount; .* would be right/).waitFor();
  await page.context().close();
});

test("pan and oven are changed in their rooms, and the readings follow", async () => {
  const page = await kitchen.open("/bench/pear-loaf");
  const fill = await readingOf(page, "fill");
  await page.getByTestId("instrument-fill").click();
  await page.getByRole("button", { name: /^All \d+ pans/ }).click();
  await page.getByRole("button", { name: /^Loaf tin 1 lb \(UK\)/ }).click();
  await page
    .getByTestId("pan-chosen")
    .getByText(/At 175 °C: \d+–\d+ min/)
    .waitFor();
  await page.getByRole("button", { name: "Bake it in this" }).click();
  expect(await readingOf(page, "fill")).not.toBe(fill);
  expect(await readingOf(page, "fill")).toMatch(/runs over|per cent/);
  await page.getByLabel("Height inside").fill("9000");
  await page.getByText("From 5 to 300 mm would be right.").waitFor();
  await page.getByTestId("instrument-bake").click();
  const bake = await readingOf(page, "bake");
  await page.getByRole("textbox", { name: "Oven", exact: true }).fill("220");
  expect(await readingOf(page, "bake")).not.toBe(bake);
  await page.getByRole("button", { name: /^Minutes in the oven/ }).click();
  await page.getByText(/heat, water and gas in every part/).waitFor();
  await page.context().close();
});

test("two tabs change one formula: the second is told, and loses nothing", async () => {
  const context = await kitchen.browser.newContext();
  const one = await kitchen.open("/bench/beet-muffins", wide, context);
  const two = await kitchen.open("/bench/beet-muffins", wide, await kitchen.browser.newContext());
  await one.getByLabel("Amount of Baking soda").fill("2");
  await two.getByLabel("Amount of Teff flour").fill("140");
  await one.getByRole("button", { name: "Save", exact: true }).click();
  await one.getByText("Saved, version 2").waitFor();
  await two.getByRole("button", { name: "Save", exact: true }).click();
  await two.getByText(/Version 2 was saved elsewhere while you worked/).waitFor();
  await two.getByText("Baking soda: theirs 2 g, yours 1.2 g").waitFor();
  expect(await two.getByLabel("Amount of Teff flour").inputValue()).toBe("140");
  await two.getByRole("button", { name: "Save mine on top" }).click();
  await two.getByText("Saved, version 3").waitFor();

  await two.getByRole("button", { name: /Versions$/ }).click();
  await two.getByRole("button", { name: /^Version 2/ }).click();
  const changed = two.getByRole("table", { name: "What changed since" });
  await changed.getByRole("columnheader", { name: "the bench" }).waitFor();
  await two.getByRole("radio", { name: "Version 1" }).click();
  await changed.getByRole("columnheader", { name: "version 1" }).waitFor();
  await changed.getByRole("row", { name: /^Baking soda\s*2 g\s*1.2 g/ }).waitFor();
  await two.getByRole("button", { name: "Take this one up again" }).click();
  expect(await two.getByLabel("Amount of Baking soda").inputValue()).toBe("2");
  expect(kitchen.complaints.filter((c) => !/412/.test(c) && !/ERR_INTERNET_DISCONNECTED/.test(c))).toEqual([]);
});

test("a formula is begun from a kind, taken off the list and brought back", async () => {
  const page = await kitchen.open("/formulas");
  await page.getByRole("button", { name: "Begin from a kind" }).click();
  await page.getByRole("button", { name: "Scones", exact: true }).click();
  await page.waitForURL(/\/bench\//);
  await page.getByText("Saved, version 1").waitFor();
  await page.getByRole("link", { name: "Formulas" }).click();
  await page.getByRole("button", { name: "Take New scone off the list" }).click();
  await page.getByText("“New scone” is off the list.").waitFor();
  await page.getByRole("link", { name: /^New scone/ }).waitFor({ state: "detached" });
  await page.getByRole("button", { name: "Bring it back" }).click();
  await page.getByRole("link", { name: /^New scone/ }).waitFor();
  await page.context().close();
});
