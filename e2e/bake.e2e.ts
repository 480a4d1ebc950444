import { baked } from "../packages/core/src/balance/analyse";
import type { Simulation } from "../packages/core/src/bake/simulation-schema";
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
])("on %s: the bake is watched, slid through, and compared with what it would be hotter", async (_, size) => {
  const page = await kitchen.open("/bench/pear-loaf", size);
  await page.getByTestId("instrument-bake").click();
  const moment = page.getByTestId("bake-moment");
  await moment.getByText(/in the oven: core 9[2-8] °C/).waitFor();
  const time = page.getByRole("slider", { name: "Time since the oven door" });
  await time.fill("600");
  await moment.getByText(/^After 10 min, in the oven: core \d\d °C.*of the crumb has set/).waitFor();
  await time.press("End");
  await moment.getByText(/on the rack/).waitFor();

  await page
    .getByTestId("many-runs")
    .getByText(/^32 bakes with all of that at once: four in five/)
    .waitFor();
  await page.getByRole("button", { name: "Play the bake" }).click();
  await page.getByRole("button", { name: "Pause the bake" }).click();
  await page.getByRole("button", { name: "Play the bake" }).waitFor();

  await page.getByRole("slider", { name: "Oven", exact: true }).fill("25");
  const table = page.getByRole("table", { name: "Now and what if" });
  const row = table.getByRole("row", { name: /^Done after/ });
  await row.waitFor();
  const [now, hotter] = ((await row.textContent()) ?? "").match(/\d+/g)?.map(Number) ?? [];
  expect(hotter).toBeLessThan((now ?? 0) - 5);
  expect(await faultsOf(page)).toEqual([]);

  const before = await readingOf(page, "bake");
  await page.getByRole("button", { name: "Take it onto the sheet" }).click();
  await page.getByText(/200 °C is 392 °F/).waitFor();
  await moment.waitFor();
  expect(await readingOf(page, "bake")).not.toBe(before);
  await page.getByRole("button", { name: "Undo" }).click();
  await page.getByText(/175 °C is 347 °F/).waitFor();
  await page.context().close();
  expect(kitchen.complaints).toEqual([]);
});

test("the hot oven of the kiosk bakes sooner; a measured one is no longer called unknown", async () => {
  const page = await kitchen.open("/bench/pear-loaf");
  await page.getByTestId("instrument-bake").click();
  await page.getByText(/^The oven is not measured/).waitFor();
  const middle = async (): Promise<number> => {
    const [low = 0, high = 0] = ((await readingOf(page, "bake")).match(/(\d+)–(\d+) min/) ?? []).slice(1).map(Number);
    return (low + high) / 2;
  };
  const unknown = await middle();
  await page.getByRole("radio", { name: "Kiosk oven, runs hot" }).click();
  await page
    .getByText(
      /^It runs 14 °C hotter inside than its dial says and swings by 8\. 2 of this pan stand on a rack with air around them, 3 racks\.$/,
    )
    .waitFor();
  await page.getByText(/^The oven is not measured/).waitFor({ state: "detached" });
  expect(await middle()).toBeLessThan(0.95 * unknown);
  await page.context().close();
});

test("an own pan is measured with water, shown with what it holds, and the batter moves into it", async () => {
  const page = await kitchen.open("/store");
  await page.getByRole("radio", { name: "Pans" }).click();
  await page.getByRole("button", { name: "Measure a pan of your own" }).click();
  await page.getByRole("button", { name: "Keep this pan" }).click();
  await page.getByText("A name by which you know it.").waitFor();
  await page.getByLabel("Its name").fill("The tin from the boat");
  await page.getByLabel("Length at the rim").fill("24");
  await page.getByRole("button", { name: "Keep this pan" }).click();
  await page.getByText("Measure the height inside, in millimetres; 7 cm is 70.").waitFor();
  await page.getByLabel("Length at the rim").fill("5");
  await page.getByText("From 10 to 900 mm would be right.").waitFor();
  await page.getByLabel("Length at the rim").fill("240");
  await page.getByLabel("Width at the rim").fill("120");
  await page.getByLabel("Height inside").fill("70");
  await page.getByText("It holds 2016 mL to the rim.").waitFor();
  await page.getByLabel("Water it holds").fill("1700");
  await page.getByText("It holds 1700 mL to the rim.").waitFor();
  expect(await faultsOf(page)).toEqual([]);
  await page.getByRole("button", { name: "Keep this pan" }).click();
  await page.getByText("240 × 120 × 70 mm, 1700 mL, light metal").waitFor();

  await page.goto(`${kitchen.url}/bench/pear-loaf`);
  await page.getByTestId("instrument-fill").click();
  await page.getByRole("button", { name: /^All \d+ pans/ }).click();
  await page.getByRole("button", { name: /^The tin from the boat/ }).click();
  await page
    .getByTestId("pan-chosen")
    .getByText(/At 175 °C: \d+–\d+ min, up to \d+ mm under a rim of 70/)
    .waitFor();
  await page.getByRole("button", { name: "Bake it in this" }).click();
  expect(await page.getByLabel("Length inside").inputValue()).toBe("240");
  await page.getByRole("radio", { name: "Balls" }).click();
  await page.getByLabel("A ball weighs").fill("100");
  await page.getByText(/balls of 100 g: \d+ mm across as a ball/).waitFor();
  await page.context().close();
});

test("an oven is measured in the store and a faulty figure is told", async () => {
  const page = await kitchen.open("/store", wide);
  await page.getByRole("radio", { name: "Ovens" }).click();
  await page.getByRole("button", { name: "Another oven" }).click();
  await page.getByLabel("Its name").fill("Deck oven");
  await page.getByLabel("Hotter than its dial").fill("900");
  await page.getByText("From -60 to 60 K would be right.").waitFor();
  await page.getByLabel("Hotter than its dial").fill("-8");
  await page.getByRole("button", { name: "Keep this oven" }).click();
  await page.getByText(/^8 °C cooler than its dial, swings by 6 °C/).waitFor();
  expect(await faultsOf(page)).toEqual([]);
  await page.context().close();
});

test("the worker in the browser and the core in Node give the same bake to 1e-9", async () => {
  const input = { kind: "loaf" as const, batchG: 950 };
  const here = baked(input).simulation;
  const page = await kitchen.open("/store");
  const kept = await (await fetch(`${kitchen.url}/service-worker.js`)).text();
  const file = /\/kitchen-worker\.[0-9a-f]{12}\.js/.exec(kept)?.[0] ?? "";
  const there = await page.evaluate(
    ({ args, from }) =>
      new Promise<Simulation>((done, fail) => {
        const worker = new Worker(from);
        // A call as the page's library makes it.
        worker.onmessage = ({
          data,
        }: MessageEvent<{ value: { result?: { simulation: Simulation }; fault?: { message: string } } }>) =>
          data.value.result ? done(data.value.result.simulation) : fail(new Error(data.value.fault?.message));
        const argumentList = ["bake", args].map((value) => ({ type: "RAW", value }));
        worker.postMessage({ id: "1", type: "APPLY", path: ["perform"], argumentList });
      }),
    { args: [input, [], "fine"], from: file },
  );
  expect(there.fidelity).toBe("fine");
  const numbers = (s: Simulation): number[] =>
    [s.coreC, s.crownMm, s.gas, s.set, s.lossPercent, s.surfaceC, [s.done.low, s.done.mid, s.done.high]].flat();
  const pairs = numbers(there).map((value, i) => Math.abs(value - (numbers(here)[i] ?? NaN)) / Math.max(1, Math.abs(value)));
  expect(Math.max(...pairs)).toBeLessThan(1e-9);
  expect(there.section.frames.at(-1)?.celsius).toEqual(here.section.frames.at(-1)?.celsius);
  await page.context().close();
});

test("stages are laid out, moved by drag and by keyboard, saved and there again", async () => {
  const page = await kitchen.open("/bench/pear-loaf/bake");
  const whole = await readingOf(page, "bake");
  await page.getByRole("button", { name: "Covered, then open" }).click();
  const list = page.getByRole("list", { name: "Stages of the bake" });
  await list.getByRole("listitem").nth(1).waitFor();
  await page.getByRole("row", { name: /^Cover off \(stage 2\)/ }).waitFor();
  expect(await readingOf(page, "bake")).not.toBe(whole);

  await page.getByTestId("stage-0").click();
  await page.getByRole("checkbox", { name: "Out of its tin" }).waitFor();
  await page.getByTestId("stage-0").click();
  const names = (): Promise<string[]> => list.getByRole("listitem").allInnerTexts();
  expect((await names())[0]).toMatch(/covered/);
  const handle = page.getByRole("button", { name: "Move stage 1" });
  await handle.focus();
  await handle.press("Space");
  await page.getByText(/^stage 1, .* is at stage 1/).waitFor({ state: "attached" });
  await page.keyboard.press("ArrowDown");
  await page.getByText(/^stage 1, .* is at stage 2/).waitFor({ state: "attached" });
  await page.keyboard.press("Space");
  await page.getByText(/^2\. .*covered/).waitFor();
  expect((await names())[0]).not.toMatch(/covered/);

  await list.scrollIntoViewIfNeeded();
  const from = await page.getByRole("button", { name: "Move stage 2" }).boundingBox();
  const to = await page.getByRole("button", { name: "Move stage 1" }).boundingBox();
  if (!from || !to) throw new Error("the handles are not to be seen");
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(from.x + 20, from.y - 10, { steps: 4 });
  await page.mouse.move(to.x + 20, to.y + 10, { steps: 10 });
  await page.mouse.up();
  await page.getByText(/^1\. .*covered/).waitFor();
  expect(await faultsOf(page)).toEqual([]);

  await page.getByRole("button", { name: "Save", exact: true }).click();
  await page.getByText(/^Saved, version 2/).waitFor();
  await page.reload();
  await page.getByText(/^1\. .*covered/).waitFor();
  await page.context().close();
  expect(kitchen.complaints).toEqual([]);
});
