import { faultsOf, type Kitchen, openKitchen, phone, readingOf, wide } from "./kitchen";

jest.setTimeout(120_000);

let kitchen: Kitchen;
beforeAll(async () => {
  kitchen = await openKitchen();
});
afterAll(() => kitchen.close());

test.each([
  ["a phone", phone],
  ["a wide screen", wide],
])("on %s: a soapy formula is balanced: tried on, taken off, taken, undone", async (_, size) => {
  const page = await kitchen.open("/bench/soda-slip", size);
  await page.getByTestId("instrument-lift").waitFor();
  const soapy = await readingOf(page, "lift");
  await page.getByRole("button", { name: "Balance it for me" }).click();
  const room = page.getByRole("region", { name: "Balance" });
  await room
    .getByRole("button", { name: /^Try on/ })
    .first()
    .click();
  const balanced = await readingOf(page, "lift");
  expect(soapy).toMatch(/short of acid/);
  expect(balanced).toMatch(/balanced/);
  await page.getByText(/^Trying on: /).waitFor();
  await room.getByRole("table", { name: /^What/ }).getByText("Soda left").waitFor();
  expect(await faultsOf(page)).toEqual([]);

  await room.getByRole("button", { name: /^Take off/ }).click();
  expect(await readingOf(page, "lift")).toBe(soapy);
  await page.getByText("Saved, version 1").waitFor();

  await room
    .getByRole("button", { name: /^Try on/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Take it" }).click();
  await page.getByText("Not saved, from version 1").waitFor();
  expect(await readingOf(page, "lift")).toBe(balanced);
  await page.getByRole("button", { name: "Undo" }).click();
  expect(await readingOf(page, "lift")).toBe(soapy);
  await page.context().close();
  expect(kitchen.complaints).toEqual([]);
});

test("a line is swapped in place, a diet chosen there is respected", async () => {
  const page = await kitchen.open("/bench/pear-loaf");
  await page.getByRole("button", { name: /^Egg, whole/ }).click();
  await page.getByRole("button", { name: "Swap it, and keep the rest" }).click();
  const room = page.getByRole("region", { name: "Swap" });
  await room.getByText("Free of egg now.").first().waitFor();
  await room.getByText("Silken tofu for egg, whole").waitFor();
  await room.getByRole("checkbox", { name: "soy" }).click();
  await room.getByText("Silken tofu for egg, whole").waitFor({ state: "detached" });
  await room.getByRole("button", { name: /^Try on: Ground flaxseed/ }).click();
  await page.getByRole("button", { name: "Take it" }).click();
  await page.getByLabel("Amount of Ground flaxseed").waitFor();
  expect(await page.getByLabel("Amount of Egg, whole").count()).toBe(0);
  await page.context().close();
});
