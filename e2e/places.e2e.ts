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
  ["/begin", "What is on hand"],
  ["/log", "Pear loaf, for the first boat"],
  ["/log/new?formula=pear-loaf", "Colour underneath"],
  ["/store/packets", "Kefir"],
  ["/bench/pear-loaf/steps", "Heat the oven to 175 °C."],
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
      expect(await faultsOf(page, scheme === "dark" ? "colours" : "all")).toEqual([]);
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

test("a first visit says what this is, a recipe is judged in two presses; then the root lays the bench; a wrong address says so", async () => {
  const page = await kitchen.open("/");
  await page.getByRole("link", { name: "Try it with a recipe" }).waitFor();
  expect(await faultsOf(page)).toEqual([]);
  await page.getByRole("link", { name: "Try it with a recipe" }).click();
  await page.getByText(/10 lines weighed/).waitFor();
  await page.getByRole("button", { name: "Put on the bench" }).click();
  await page.waitForURL(/\/bench\//);
  await page
    .getByTestId("instrument-bake")
    .getByText(/\d+–\d+ min/)
    .waitFor();
  const mine = page.url();
  await page.goto(`${kitchen.url}/`);
  await page.waitForURL(mine);
  await page.goto(`${kitchen.url}/bench/no-such`);
  await page.getByText("There is no such formula.").waitFor();
  await page.getByRole("link", { name: "To the formulas" }).click();
  await page.waitForURL(/\/formulas/);
  for (const [path, said] of [
    ["/bench/pear-loaf/cellar", "There is no room “cellar”."],
    ["/store/attic", "The store has no “attic”."],
    ["/nowhere/at/all", "There is nothing here."],
  ] as const) {
    await page.goto(`${kitchen.url}${path}`);
    await page.getByText(said).waitFor();
  }
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

test("every room has an address; going back closes it, the sheet stays where it was, and a room opens at its top", async () => {
  const page = await kitchen.open("/bench/pear-loaf");
  await page.getByTestId("instrument-lift").waitFor();
  const sheet = page.getByTestId("sheet-scroll");
  await sheet.evaluate((e) => (e.scrollTop = 300));
  // The line that is read stays where it is on the screen, whatever has grown above it meanwhile.
  const line = page.getByLabel(/^Amount of/).nth(await page.getByLabel(/^Amount of/).evaluateAll((all, top) => all.findIndex((one) => one.getBoundingClientRect().top > top), (await sheet.boundingBox())?.y ?? 0)); // prettier-ignore
  const before = (await line.boundingBox())?.y ?? 0;
  await page.getByTestId("instrument-lift").click();
  await page.waitForURL(/\/bench\/pear-loaf\/lift$/);
  // Something comes above the line while nobody sees the sheet, as a finding does that is baked first.
  await sheet.evaluate((e) => {
    const late = document.createElement("div");
    late.style.height = "64px";
    e.firstElementChild?.prepend(late);
  });
  expect(await page.title()).toBe("Lift, Buckwheat, pear and ginger loaf – Uprise");
  await page.getByTestId("room-scroll").evaluate((e) => (e.scrollTop = 400));
  await page.getByTestId("instrument-body").click();
  await page.waitForURL(/\/body$/);
  await page.getByRole("region", { name: "Body" }).waitFor();
  expect(await page.getByTestId("room-scroll").evaluate((e) => e.scrollTop)).toBe(0);
  await page.goBack();
  await page.waitForURL(/\/bench\/pear-loaf$/);
  await page.getByLabel("Amount of Kefir").waitFor();
  expect(await sheet.evaluate((e) => e.scrollTop)).toBeGreaterThanOrEqual(300);
  expect(Math.abs(((await line.boundingBox())?.y ?? 0) - before)).toBeLessThan(3);
  await page.goto(`${kitchen.url}/bench/pear-loaf/swap?of=egg`);
  await page
    .getByRole("region", { name: "Swap" })
    .getByText(/What may stand in for egg/)
    .waitFor();
  await page.getByRole("button", { name: "Close Swap" }).click();
  await page.waitForURL(/\/bench\/pear-loaf$/);
  await page.context().close();
});

test("a link is a link, and the page for paper flows and is black on white", async () => {
  const page = await kitchen.open("/formulas", wide);
  expect(await page.getByRole("link", { name: /^Millet cornbread/ }).getAttribute("href")).toBe("/bench/millet-skillet");
  await page.getByRole("link", { name: /^Millet cornbread/ }).hover();
  await page.getByRole("region", { name: /^Millet cornbread/ }).waitFor();
  await page.getByRole("link", { name: /^Millet cornbread/ }).click();
  await page.waitForURL(/millet-skillet/);
  await page.emulateMedia({ colorScheme: "dark" });
  await page.goto(`${kitchen.url}/print/formula/pear-loaf`);
  await page.getByText("Buckwheat flour", { exact: true }).waitFor();
  expect(await page.evaluate(() => getComputedStyle(document.body).overflow)).toBe("visible");
  await page.emulateMedia({ media: "print" });
  expect(await page.getByRole("button", { name: "Print" }).isVisible()).toBe(false);
  await page.context().close();
});

test("after one visit every place and room opens without a network", async () => {
  const page = await kitchen.openKept("/bench/pear-loaf");
  await page.getByTestId("instrument-lift").waitFor();
  await page.locator("html[data-parts=here]").waitFor({ timeout: 60_000 });
  await page.context().setOffline(true);
  for (const room of ["lift", "body", "fill", "bake"] as const) {
    await page.getByTestId(`instrument-${room}`).click();
    await page.getByRole("region").first().waitFor();
  }
  await page.getByRole("button", { name: "Play the bake" }).waitFor();
  await page.getByRole("link", { name: "Store" }).click();
  await page.getByText("Almond butter").first().waitFor();
  await page.getByRole("link", { name: "Formulas" }).click();
  await page.getByRole("heading", { name: "Formulas" }).waitFor();
  await page.context().close();
});
