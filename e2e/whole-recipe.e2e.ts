import type { Page } from "playwright-core";
import { faultsOf, type Kitchen, openKitchen, readingOf } from "./kitchen";

jest.setTimeout(240_000);

let kitchen: Kitchen;
beforeAll(async () => {
  kitchen = await openKitchen();
});
afterAll(() => kitchen.close());

/** Names of the lines under a heading, in their order. */
const linesOf = (page: Page, component: string): Promise<string[]> =>
  page
    .getByRole("list", { name: component === "Batter" ? "Lines of the formula" : `Lines of ${component}` })
    .locator("[data-testid^=line-]")
    .allInnerTexts()
    .then((texts) => texts.map((text) => text.split("\n")[0]?.trim() ?? ""));

test("a recipe with a filling and a line without an amount: it stays open in its place, is answered there, and is kept", async () => {
  const page = await kitchen.open("/read");
  await page.getByLabel("Recipe").fill(
    `Sill loaf
220 g sorghum flour
80 g potato starch
12 g baking powder
3 g xanthan gum
120 g caster sugar
2 eggs
milk
60 g sunflower oil
For the pear filling:
200 g pears, diced
20 g sugar
For the glaze:
50 g icing sugar
Bake in a 900 g loaf tin at 175 °C for 50 minutes.`,
  );
  await page.getByRole("button", { name: "Pear filling, fold" }).waitFor();
  await page.getByRole("button", { name: "Put on the bench" }).click();
  await page.waitForURL(/\/bench\//);
  await page.getByText(/^Without .*milk\. Nothing here is final yet\.$/i).waitFor();
  expect(await readingOf(page, "body")).toMatch(/Not final/);
  expect(await linesOf(page, "Pear filling")).toHaveLength(2);
  await page.getByRole("button", { name: /^Take \d+ g of .*milk.*, the batter spoons/i }).click();
  await page.getByText(/^Without/).waitFor({ state: "detached" });
  expect(await readingOf(page, "body")).toBe("Body: the batter spoons.");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await page.getByText(/^Saved, version 2/).waitFor();
  await page.reload();
  await page.getByRole("button", { name: "Pear filling, fold" }).waitFor();
  expect(await page.getByText(/^Without/).count()).toBe(0);
  // The recipe's word stands beside the bench's, and its text is kept.
  await page.getByRole("button", { name: "The text as pasted" }).click();
  await page
    .getByText(/200 g pears, diced/)
    .first()
    .waitFor();
  await page.context().close();
});

test("a line is moved into another component by hand, and back by the keyboard alone", async () => {
  const page = await kitchen.open("/bench/plum-loaf", { width: 1280, height: 1900 });
  await page.getByRole("button", { name: "Topping, fold" }).waitFor();
  const whole = await readingOf(page, "lift");
  const before = await linesOf(page, "Batter");
  const handle = page.getByRole("button", { name: "Move Plain yoghurt", exact: true });
  const target = page.getByRole("button", { name: "Move Rolled oats", exact: true });
  const [from, to] = [await handle.boundingBox(), await target.boundingBox()];
  if (!from || !to) throw new Error("the lines have no place on the screen");
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(from.x + 20, from.y + 60, { steps: 4 });
  await page.mouse.move(to.x + 20, to.y + 20, { steps: 12 });
  await page.mouse.up();
  await page.getByRole("list", { name: "Lines of Topping" }).getByText("Plain yoghurt").waitFor();
  expect(await linesOf(page, "Batter")).toEqual(before.filter((name) => name !== "Plain yoghurt"));
  expect(await readingOf(page, "lift")).not.toBe(whole);
  await page.getByRole("button", { name: "Undo" }).click();
  expect(await linesOf(page, "Batter")).toEqual(before);
  expect(await readingOf(page, "lift")).toBe(whole);

  // The last line of the batter, over its edge into the next component: an open line can be taken hold of.
  const line = page.getByTestId(/^line-/).filter({ hasText: /^Butter/ });
  await line.focus();
  await page.keyboard.press("Shift+Tab");
  expect(await page.evaluate(() => document.activeElement?.getAttribute("aria-label"))).toBe("Move Butter");
  await page.keyboard.press("Space");
  await page.getByText(/^Butter is at Butter/).waitFor({ state: "attached" });
  // One line further at a time: the next key waits until the last one was told.
  const told = (): Promise<string> => page.getByText(/^Butter is at /).innerText();
  for (let n = 0; n < 4 && !/^Butter is at (Plum filling|Plums)/.test(await told()); n++) {
    const before = await told();
    await page.keyboard.press("ArrowDown");
    for (let k = 0; k < 100 && (await told()) === before; k++) await page.waitForTimeout(50);
  }
  await page.keyboard.press("Space");
  await page
    .getByRole("list", { name: /^Lines of .*filling/i })
    .getByText("Butter")
    .waitFor();
  await page.context().close();
});

test("the recipe's minutes against this tin: said, with the tins that would keep them; nobody is scolded", async () => {
  const page = await kitchen.open("/bench/plum-loaf");
  await readingOf(page, "bake");
  await page.getByText(/^What to do/).click();
  await page.getByText(/The recipe says 45 min; this tin with \d+ g of batter takes \d+ to \d+ min\./).waitFor();
  await page.getByText(/Two tins would take about \d+ min\./).waitFor();
  expect(await readingOf(page, "bake")).toMatch(/The recipe says 45 min\./);
  expect(await faultsOf(page)).toEqual([]);
  // Its filling, its topping and its glaze print under their headings, and what is open has a place to write.
  await page.goto(`${kitchen.url}/print/formula/plum-loaf`);
  await page.getByText(/Plum filling, in the middle, cooked to 200 g/i).waitFor();
  await page.getByText("……… g").first().waitFor();
  expect(kitchen.complaints).toEqual([]);
  await page.context().close();
});
