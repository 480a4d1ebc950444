import type { Page } from "playwright-core";
import { type Kitchen, openKitchen, readingOf } from "./kitchen";

jest.setTimeout(240_000);

let kitchen: Kitchen;
beforeAll(async () => {
  kitchen = await openKitchen();
});
afterAll(() => kitchen.close());

/** The name of what has the focus, as it is told to those who hear the page. */
const focused = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const here = document.activeElement;
    const label = here?.getAttribute("aria-label") ?? "";
    const named = here?.getAttribute("aria-labelledby");
    const forIt = here?.id ? (document.querySelector(`label[for="${here.id}"]`)?.textContent ?? "") : "";
    const instrument = here?.closest("[data-testid^=instrument-]")?.getAttribute("data-testid") ?? "";
    return (
      instrument ||
      label ||
      (named ? (document.getElementById(named)?.textContent ?? "") : "") ||
      forIt ||
      (here?.textContent ?? "")
    );
  });

/** Goes on by the Tab key until what is wanted has the focus. */
async function tabTo(page: Page, wanted: RegExp, key: "Tab" | "Shift+Tab" = "Tab"): Promise<void> {
  const passed: string[] = [];
  for (let n = 0; n < 160; n++) {
    const name = await focused(page);
    if (wanted.test(name)) return;
    passed.push(name.slice(0, 40));
    await page.keyboard.press(key);
  }
  throw new Error(`Tab does not reach ${wanted}; it passes ${[...new Set(passed)].slice(-40).join(" | ")}`);
}

test("paste, answer, change, swap, bake and save, by the keyboard alone", async () => {
  const page = await kitchen.open("/read");
  await page.getByLabel("Recipe").waitFor();
  await tabTo(page, /^Recipe$/);
  await page.keyboard.insertText(
    "Keyboard muffins\n200 g sorghum flour\n60 g tapioca starch\n8 g baking powder\n120 g caster sugar\n2 large eggs\n180 ml milk\n80 g butter\n60 g walnuts or pecans\nBake at 190 °C for 20 minutes in a 12-hole muffin tin.",
  );
  await page.getByText(/Walnuts, or pecans/).waitFor();
  await tabTo(page, /^Pecans$/);
  await page.keyboard.press("Enter");
  await page.getByText(/Walnuts, or pecans/).waitFor({ state: "detached" });
  await tabTo(page, /^Put on the bench$/);
  await page.keyboard.press("Enter");
  await page.waitForURL(/\/bench\//);

  const amount = page.getByLabel("Amount of Pecans");
  await amount.waitFor();
  await tabTo(page, /^Amount of Pecans$/);
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type("90 g");
  await page.keyboard.press("Enter");
  expect(await amount.inputValue()).toMatch(/^90/);

  await tabTo(page, /^Pecans/, "Shift+Tab");
  if (/^Amount/.test(await focused(page))) await page.keyboard.press("Shift+Tab");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Swap it, and keep the rest" }).waitFor();
  await tabTo(page, /^Swap it, and keep the rest$/);
  await page.keyboard.press("Enter");
  await page.getByRole("region", { name: "Swap" }).waitFor();
  await tabTo(page, /^Close Swap$/, "Shift+Tab");
  await page.keyboard.press("Enter");

  await tabTo(page, /^instrument-bake$/, "Shift+Tab");
  await page.keyboard.press("Enter");
  await page.getByRole("region", { name: "Bake" }).waitFor();
  expect(await readingOf(page, "bake")).toMatch(/\d/);
  await tabTo(page, /^Save$/);
  await page.keyboard.press("Enter");
  await page.getByText(/^Saved, version 2/).waitFor();
  expect(kitchen.complaints).toEqual([]);
});
