import { faultsOf, type Kitchen, openKitchen, phone, wide } from "./kitchen";

jest.setTimeout(120_000);

let kitchen: Kitchen;
beforeAll(async () => {
  kitchen = await openKitchen();
});
afterAll(() => kitchen.close());

const places: [path: string, landmark: string][] = [
  ["/bench/soda-slip", "Baking soda"],
  ["/read", "Bring a recipe"],
  ["/formulas", "Buckwheat, pear and ginger loaf"],
  ["/store", "Almond butter"],
  ["/look", "States of a screen"],
];

describe.each([
  ["a phone", phone],
  ["a wide screen", wide],
])("on %s", (_, size) => {
  test.each(places)("%s stands, without serious faults, in light and dark, and nothing sticks out", async (path, landmark) => {
    const page = await kitchen.open(path, size);
    await page.getByText(landmark).first().waitFor();
    for (const scheme of ["light", "dark"] as const) {
      await page.emulateMedia({ colorScheme: scheme });
      await page.waitForTimeout(150);
      expect(await faultsOf(page)).toEqual([]);
    }
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(size.width);
    await page.context().close();
    expect(kitchen.complaints).toEqual([]);
  });

  test.each(["lift", "body", "fill", "bake"] as const)("the room of %s has no serious fault", async (name) => {
    const page = await kitchen.open("/bench/pear-loaf", size);
    await page.getByTestId(`instrument-${name}`).click();
    await page.getByRole("region").first().waitFor();
    expect(await faultsOf(page)).toEqual([]);
    await page.context().close();
  });
});

test("the root lays the bench with the newest formula, a wrong address says so", async () => {
  const page = await kitchen.open("/");
  await page.waitForURL(/\/bench\/pear-loaf/);
  await page.goto(`${kitchen.url}/bench/no-such`);
  await page.getByText(/No formula has the id "no-such"/).waitFor();
  await page.context().close();
});

test("the sheet is worked by keyboard alone, and focus is seen", async () => {
  const page = await kitchen.open("/bench/marmalade-scones");
  await page.getByLabel("Amount of Baking powder, all phosphate").waitFor();
  await page.getByTestId("instrument-lift").focus();
  await page.keyboard.press("Enter");
  await page.getByRole("region", { name: "Lift" }).waitFor();
  const outline = await page.getByTestId("instrument-lift").evaluate((e) => getComputedStyle(e).outlineWidth);
  expect(parseFloat(outline)).toBeGreaterThanOrEqual(2);
  await page.keyboard.press("Enter");
  await page.getByLabel("Amount of Margarine").focus();
  await page.keyboard.press("Tab");
  expect(await page.evaluate(() => document.activeElement?.textContent)).toMatch(/^Caster sugar/);
  await page.context().close();
});

test("the description of the wire is a page that works without a network", async () => {
  const page = await kitchen.open("/api/docs/", wide);
  await page.getByText("/api/analyse").first().waitFor();
  await page.context().close();
});
