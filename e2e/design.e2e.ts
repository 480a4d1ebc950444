import { faultsOf, type Kitchen, openKitchen, phone, wide } from "./kitchen";

jest.setTimeout(180_000);

let kitchen: Kitchen;
beforeAll(async () => {
  kitchen = await openKitchen();
});
afterAll(() => kitchen.close());

test("from the list to a kind, a shelf and designs; a slider moves one, and it goes to the bench as it was shown", async () => {
  const page = await kitchen.open("/formulas", phone);
  await page.getByRole("button", { name: "Design one" }).click();
  await page.getByRole("button", { name: "Scones" }).click();
  await page.getByTestId("design").click();
  const mild = page.getByRole("region", { name: "Design: Mild and even" });
  await mild.waitFor();
  expect(await page.getByRole("region", { name: /^Design: / }).count()).toBeGreaterThanOrEqual(2);
  await mild.getByRole("button", { name: "Why these flours" }).click();
  await mild
    .getByText(/^\d+ % .*: .*\./)
    .first()
    .waitFor();
  expect(await faultsOf(page)).toEqual([]);

  const butter = mild.getByRole("listitem").filter({ hasText: "Butter" });
  const grams = async (): Promise<number> => Number.parseFloat((await butter.innerText()).replace(/^\D+/, ""));
  const before = await grams();
  await mild.getByRole("slider", { name: "Rich" }).fill("90");
  await mild.getByText("Weighed out for the sliders; it is baked when you take it.").waitFor();
  for (let n = 0; n < 50 && (await grams()) <= before; n++) await page.waitForTimeout(100);
  const shown = await grams();
  expect(shown).toBeGreaterThan(before);
  await mild.getByRole("button", { name: "Take Mild and even to the bench" }).click();
  await page.waitForURL(/\/bench\//);
  await page.getByText(/^Saved, version 1/).waitFor();
  const onBench = Number.parseFloat(await page.getByLabel("Amount of Butter").inputValue());
  expect(onBench).toBeCloseTo(shown, 0);
  await page.context().close();
  expect(kitchen.complaints).toEqual([]);
});

test("on a wide screen: what the shelf lacks is named, put on it with one press, and kept on this device", async () => {
  const page = await kitchen.open("/begin", wide);
  // The packets of the store are what is on hand; one that was used up is not.
  await page.getByRole("checkbox", { name: "Buckwheat flour", checked: true }).waitFor();
  expect(await page.getByRole("checkbox", { name: "Cheddar", checked: true }).count()).toBe(0);
  const lifts = ["Baking soda", "Baking powder, aluminium-free", "Baking powder, double-acting"];
  for (const name of lifts) await page.getByRole("checkbox", { name }).click();
  await page.getByTestId("design").click();
  await page.getByText(/^Nothing sound comes of this shelf\. With .*baking powder/i).waitFor();
  await page.getByRole("button", { name: /^Put Baking powder/ }).click();
  await page
    .getByRole("region", { name: /^Design: / })
    .first()
    .waitFor();
  expect(await faultsOf(page)).toEqual([]);
  await page.reload();
  await page.getByRole("checkbox", { name: "Baking powder, aluminium-free", checked: true }).waitFor();
  await page.getByRole("checkbox", { name: "Baking soda", checked: false }).waitFor();
  await page.context().close();
  expect(kitchen.complaints).toEqual([]);
});
