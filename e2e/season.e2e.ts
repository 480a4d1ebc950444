import type { StoredSeason, StoredTrial } from "@uprise/contract";
import type { SeasonState } from "@uprise/core";
import { faultsOf, type Kitchen, openKitchen, phone, wide } from "./kitchen";

jest.setTimeout(240_000);

let kitchen: Kitchen;
beforeAll(async () => {
  kitchen = await openKitchen();
});
afterAll(() => kitchen.close());

const json = async <T>(path: string, body?: unknown): Promise<T> =>
  (await (await fetch(`${kitchen.url}${path}`, body === undefined ? {} : { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) })).json()) as T; // prettier-ignore

test.each([
  ["a phone", phone],
  ["a wide screen", wide],
])(
  "the demo's season on %s: the next bake first, what was baked, what it tells; without serious faults, on paper too",
  async (_, size) => {
    const page = await kitchen.open("/log", size);
    await page.getByRole("button", { name: "Seasons of trials" }).click();
    await page.getByRole("link", { name: /A taller pear loaf/ }).click();
    await page.getByText("Next: bake 6 of 8").waitFor({ timeout: 60_000 });
    await page.getByText(/Promises most: height \d+ to \d+ mm/).waitFor();
    expect(await page.getByRole("list", { name: "The season's bakes" }).getByRole("listitem").count()).toBe(6);
    expect(await page.getByRole("list", { name: "What was learnt" }).getByRole("listitem").count()).toBe(3);
    await page.getByRole("table", { name: "The bakes of the season" }).waitFor();
    expect(await faultsOf(page)).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(size.width);
    const [file] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "As CSV" }).click()]);
    expect(file.suggestedFilename()).toBe("taller-pear-loaf.csv");
    await page.getByRole("button", { name: "On paper" }).click();
    await page.getByRole("table", { name: "What is weighed" }).waitFor({ timeout: 60_000 });
    await page.getByText("The key, to be kept back").waitFor();
    await page.context().close();
    expect(kitchen.complaints).toEqual([]);
  },
);

test("a season is begun, its first bakes are taken, one is judged in the log and is told by itself, and the next one is asked", async () => {
  const page = await kitchen.open("/log/season/new", phone);
  await page.getByRole("button", { name: "Marmalade scones" }).click();
  await page.getByLabel("Name of the season").fill("Scones that stand");
  await page.getByRole("checkbox", { name: /^Marmalade|^Jam|^Orange/ }).first().click(); // prettier-ignore
  await page.getByRole("checkbox", { name: /^Margarine/ }).click();
  await page.getByLabel("Bakes there is time for").fill("6");
  expect(await faultsOf(page)).toEqual([]);
  await page.getByRole("button", { name: "Choose the bakes" }).click();
  await page.waitForURL(/\/log\/season\/[0-9a-f-]{36}/);
  await page.getByRole("button", { name: /^Take these \d bakes$/ }).click({ timeout: 60_000 });
  await page.getByText("Next: bake 1 of 6").waitFor({ timeout: 60_000 });
  const id = page.url().split("/").at(-1) ?? "";
  const { season } = await json<StoredSeason>(`/api/seasons/${id}`);
  expect(season.title).toBe("Scones that stand");
  expect(season.runs.length).toBeGreaterThanOrEqual(3);

  // Baked elsewhere and judged in the log: nothing is typed here.
  const state = await json<SeasonState>("/api/season", season);
  const run = state.next?.run;
  const judged = { title: "Scones, bake 1", formulaId: season.formulaId, formula: run?.formula, at: new Date().toISOString(), measured: { heightMm: 41 }, seen: [], scores: { moistness: 3 }, notes: "", photos: [], tags: [] }; // prettier-ignore
  const trial = await json<StoredTrial>("/api/trials", judged);
  await page.getByText("Next: bake 2 of 6").waitFor({ timeout: 60_000 });
  await page.getByRole("table", { name: "The bakes of the season" }).getByText("41", { exact: true }).waitFor(); // prettier-ignore
  expect((await json<SeasonState>("/api/season", season)).runs.find(({ id: of }) => of === run?.id)?.trialId).toBe(trial.id);

  // Another was written down in a table.
  await page.getByLabel("Results from CSV").setInputFiles({ name: "scones.csv", mimeType: "text/csv", buffer: Buffer.from("bake,height,moistness\nrun-2,38,moist\n") }); // prettier-ignore
  await page.getByText("1 bake is in the log now.").waitFor();
  await page.getByText("Next: bake 3 of 6").waitFor({ timeout: 60_000 });
  // The next one is baked from here: its own amounts lie on the counter.
  await page.getByRole("button", { name: /^Rehearse: .*bake 3$/ }).click();
  await page.waitForURL(/\/counter\//);
  await page.context().close();
  expect(kitchen.complaints).toEqual([]);
});

test("without a network a season is told all the same: the bakes are chosen in the worker beside the page", async () => {
  const page = await kitchen.openKept("/log/seasons", phone);
  await page.getByRole("link", { name: /A taller pear loaf/ }).click();
  await page.getByText("Next: bake 6 of 8").waitFor({ timeout: 60_000 });
  await page.waitForFunction(() => document.documentElement.dataset["parts"] === "here");
  await page.goto(`${kitchen.url}/log`);
  await page.getByRole("button", { name: "Seasons of trials" }).waitFor();
  // What came is kept on the device, some seconds later.
  await page.waitForTimeout(5000);
  await page.context().setOffline(true);
  await page.getByRole("button", { name: "Seasons of trials" }).click();
  await page.getByRole("link", { name: /A taller pear loaf/ }).click();
  await page.getByText("Next: bake 6 of 8").waitFor({ timeout: 60_000 });
  await page.getByText(/Promises most: height \d+ to \d+ mm/).waitFor();
  await page.context().close();
});
