import type { Page } from "playwright-core";
import { faultsOf, type Kitchen, openKitchen, wide } from "./kitchen";

let kitchen: Kitchen;
beforeAll(async () => {
  kitchen = await openKitchen();
});
afterAll(() => kitchen.close());

const visible = async (page: Page, name: string | RegExp): Promise<boolean> => {
  const button = page.getByRole("button", { name, exact: typeof name === "string" }).first();
  return (await button.count()) > 0 && (await button.isVisible()) && (await button.isEnabled());
};
const press = (page: Page, name: string | RegExp): Promise<void> =>
  page
    .getByRole("button", { name, exact: typeof name === "string" })
    .first()
    .click();

/** Goes on at the counter until something is in sight, by spoon and by hand. */
async function goOnUntil(page: Page, there: () => Promise<boolean>, most = 160): Promise<void> {
  for (let k = 0; k < most; k++) {
    if (await there()) return;
    if (await visible(page, "Do that: Leave it")) await press(page, "Do that: Leave it");
    else if (await visible(page, "By spoon")) await press(page, "By spoon");
    else if (await visible(page, "Begun")) await press(page, "Begun");
    else if (await visible(page, "Done")) await press(page, "Done");
    else if (await visible(page, /^It (?:is hot|is soft|has soaked|has turned|has stood)$/)) await press(page, /^It (?:is|has) /);
    else await page.waitForTimeout(150);
    await page.waitForTimeout(60);
  }
  throw new Error(`it never came; the page says ${(await page.locator("body").innerText()).slice(0, 600)}`);
}

test("a day is planned, moved by hand and by keyboard, and told late with what would help", async () => {
  const page = await kitchen.open("/day", wide);
  await page.getByRole("link", { name: /Ready when the first boat lands/ }).click();
  await page.getByText(/Everything is ready by/).waitFor();
  expect(await faultsOf(page)).toEqual([]);
  const skillet = page.getByLabel(/^D .*Into the oven/);
  const before = await skillet.getAttribute("aria-label");
  await skillet.focus();
  await page.keyboard.press("Space");
  await page.getByText(/You have taken hold of Millet/).waitFor({ state: "attached" });
  await page.waitForTimeout(100);
  for (let k = 0; k < 4; k++) {
    await page.keyboard.press("ArrowDown");
    await page.waitForTimeout(120);
  }
  await page.keyboard.press("Space");
  await page.getByText(/put there by hand/).waitFor();
  await page.waitForFunction(
    (was) => ![...document.querySelectorAll("[aria-label]")].some((node) => node.getAttribute("aria-label") === was),
    before,
  );
  await press(page, "Take the last change back");
  await page.getByText(/put there by hand/).waitFor({ state: "detached" });
  await page.getByLabel("All ready by").fill("07:00");
  await page.getByText(/Too late:/).waitFor();
  await page
    .getByText(/saves \d+ min/)
    .first()
    .waitFor();
  await page.getByLabel("All ready by").fill("08:45");
  await page.getByText(/Everything is ready by/).waitFor();
  await page.reload();
  expect(await page.getByLabel("All ready by").inputValue()).toBe("08:45");
});

test("its prep sheet, shopping list and ribbon go on paper", async () => {
  const page = await kitchen.open("/print/day/first-boat");
  await page.getByRole("heading", { name: "To weigh" }).waitFor();
  await page.getByRole("heading", { name: "To buy" }).waitFor();
  const sheet = await page.locator("body").innerText();
  expect(sheet).toMatch(/Buckwheat flour/);
  expect(sheet).toMatch(/05:00/);
}, 30_000);

test("a bake from the day: a slip and its remedy, a reload, a dead server, the oven by its probe, cooling, judging", async () => {
  const page = await kitchen.open("/day/first-boat");
  await page.getByText(/Everything is ready by/).waitFor();
  await press(page, "Rehearse: Buckwheat, pear and ginger loaf");
  await page.getByText(/A rehearsal/).waitFor();
  expect(await faultsOf(page)).toEqual([]);
  // Flour from the scale, by the stand-in's hand.
  await goOnUntil(page, () => page.getByRole("heading", { name: "Buckwheat flour" }).isVisible());
  await press(page, "Let it pour");
  await page.getByRole("status", { name: /On the pan 1[34567]\d g/ }).waitFor();
  await press(page, /^Take it/);
  // Three times the soda.
  await goOnUntil(page, () => page.getByRole("heading", { name: "Baking soda" }).isVisible());
  await page.getByLabel("Or what your own scale shows").fill("6");
  await press(page, "Take that");
  await page.getByText(/soda finds no acid/).waitFor();
  await press(page, /^Do that: Take 4 g baking soda out/);
  await page.getByText("Remedy: Take 4 g baking soda out").waitFor();
  await page.reload();
  await page.getByText("Remedy: Take 4 g baking soda out").waitFor();
  // The server dies; what happens meanwhile is kept here and arrives once.
  await goOnUntil(page, () => visible(page, "It is in the oven"));
  const crash = kitchen.crashAndRestart();
  await press(page, "It is in the oven");
  await crash;
  await page.getByText(/works (about as thought|as if)/).waitFor({ timeout: 60_000 });
  const id = page.url().split("/").at(-1) ?? "";
  const stored = async (): Promise<{ events: { id: string; kind: string; stepId?: string }[] }> =>
    (await fetch(`${kitchen.url}/api/bakes/${id}`)).json() as never;
  for (let k = 0; k < 40 && !(await stored()).events.some(({ kind }) => kind === "probe"); k++) await page.waitForTimeout(250);
  expect((await stored()).events.filter(({ kind, stepId }) => kind === "step" && stepId === "bake").length).toBe(1);
  const second = await kitchen.open(`/counter/${id}`);
  await second.getByText(/works (about as thought|as if)/).waitFor();
  await page.getByRole("button", { name: "Out: the probe says done" }).click({ timeout: 90_000 });
  await page.getByText(/earliest clean cut/).waitFor();
  await second.getByText(/earliest clean cut/).waitFor();
  await press(page, "Top: domed");
  await press(page, "Keep it in the log");
  await page.getByText("Top: domed").waitFor();
  await second.getByText("Top: domed").waitFor();
  // It stands in the log with the minutes and the core, and is asked of nobody again.
  await page.getByText("In the log, with all that was measured: what it says").click();
  await page.waitForURL(/\/log\//);
  const kept = (await (await fetch(`${kitchen.url}/api/trials?pageSize=100`)).json()) as { items: { trial: { bakeId?: string; measured: { minutes?: number; coreC?: number } } }[] }; // prettier-ignore
  const trial = kept.items.find((one) => one.trial.bakeId === id)?.trial;
  expect(trial?.measured.minutes).toBeGreaterThan(5);
  expect(trial?.measured.coreC).toBeGreaterThan(85);
  const ids = (await stored()).events.map((one) => one.id);
  expect(new Set(ids).size).toBe(ids.length);
}, 240_000);

test("devices are tried in the store; one that sends nonsense does no harm", async () => {
  const page = await kitchen.open("/store/devices");
  await press(page, /Bench scale/);
  await page.getByText(/^-?[\d.]+ g$/).waitFor();
  await page.getByRole("radio", { name: "Nonsense" }).click();
  await page.getByText("It says nothing now.").waitFor({ timeout: 20_000 });
  await page.getByRole("radio", { name: "Sound" }).click();
  await page.getByText("It says nothing now.").waitFor({ state: "detached", timeout: 20_000 });
  expect(kitchen.complaints.filter((one) => !/ERR_CONNECTION|WebSocket|ERR_INCOMPLETE|ERR_EMPTY/.test(one))).toEqual([]);
});
