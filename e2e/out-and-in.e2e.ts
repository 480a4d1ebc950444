import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Download, Page } from "playwright-core";
import { faultsOf, type Kitchen, openKitchen, wide } from "./kitchen";

let kitchen: Kitchen;
let folder: string;
beforeAll(async () => {
  kitchen = await openKitchen();
  folder = mkdtempSync(join(tmpdir(), "uprise-out-"));
});
afterAll(async () => {
  await kitchen.close();
  rmSync(folder, { recursive: true, force: true });
});

const keptFrom = async (page: Page, press: () => Promise<void>): Promise<{ path: string; name: string }> => {
  const [file] = await Promise.all([page.waitForEvent("download") as Promise<Download>, press()]);
  const path = join(folder, file.suggestedFilename());
  await file.saveAs(path);
  return { path, name: file.suggestedFilename() };
};
const openFile = async (page: Page, button: string, path: string): Promise<void> => {
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByRole("button", { name: button }).click()]);
  await chooser.setFiles(path);
};

/** What stands on the paper: the page printed to PDF and read back, page by page. */
async function onPaper(page: Page, path: string, ready: string): Promise<string[]> {
  await page.goto(`${kitchen.url}${path}`);
  await page.getByText(ready).first().waitFor();
  const file = join(folder, "page.pdf");
  writeFileSync(file, await page.pdf({ preferCSSPageSize: true }));
  return execFileSync("pdftotext", ["-layout", file, "-"]).toString().split("\f").slice(0, -1);
}

test("a formula goes out as Markdown and comes back from the file, line by line and as it is", async () => {
  const page = await kitchen.open("/bench/pear-loaf");
  await page.getByRole("button", { name: "Send it or print it" }).click();
  const { path, name } = await keptFrom(page, () => page.getByRole("button", { name: "Keep as Markdown" }).click());
  expect(name).toBe("buckwheat-pear-and-ginger-loaf.md");
  expect(readFileSync(path, "utf8")).toMatch(/^# Buckwheat, pear and ginger loaf\n/);
  expect(await faultsOf(page)).toEqual([]);
  await page.goto(`${kitchen.url}/read`);
  await openFile(page, "Open a file", path);
  await page.getByRole("region", { name: "What was found" }).getByText("16 lines weighed, 1130 g.").waitFor();
  expect(await faultsOf(page)).toEqual([]);
  await page.getByRole("button", { name: "Keep it as it is read" }).click();
  await page.waitForURL(/\/bench\/[0-9a-f-]{36}/);
  await page.getByLabel("Amount of Kefir").waitFor();
  expect(await page.getByLabel("Amount of Kefir").inputValue()).toBe("230");
  await page.context().close();
});

test("a table with strange heads: the columns are said once, and remembered", async () => {
  const path = join(folder, "sheet.csv");
  writeFileSync(path, "Was;Wieviel;Dazu\nbuckwheat flour;200;sifted\nwater;180;\negg;2;\nbaking powder;10;\n");
  const page = await kitchen.open("/read");
  await openFile(page, "Open a file", path);
  const found = page.getByRole("region", { name: "What was found" });
  await found.getByText(/Which column names the ingredients/).waitFor();
  await found.getByRole("radiogroup", { name: "What Was holds" }).getByRole("radio", { name: "ingredient" }).click();
  await found.getByText(/Which column says how much/).waitFor();
  await found.getByRole("radiogroup", { name: "What Wieviel holds" }).getByRole("radio", { name: "grams" }).click();
  await found.getByText(/4 lines weighed/).waitFor();
  await page.reload();
  await openFile(page, "Open a file", path);
  await page.getByText(/4 lines weighed/).waitFor();
  await page.getByRole("button", { name: /^Look at it line by line/ }).click();
  await page.getByRole("list", { name: "Lines as read" }).getByText(/buckwheat/i).first().waitFor(); // prettier-ignore
  await page.context().close();
});

test("a saved page and a text with two recipes: each is shown before anything is kept", async () => {
  const saved = join(folder, "saved.html");
  writeFileSync(saved, `<html><script type="application/ld+json">{"@type":"Recipe","name":"Jetty bars","recipeIngredient":["120 g rolled oats","60 g honey"]}</script></html>`); // prettier-ignore
  const page = await kitchen.open("/read");
  await openFile(page, "Open a file", saved);
  await page.getByRole("heading", { name: "Jetty bars" }).waitFor();
  const both = join(folder, "both.txt");
  writeFileSync(
    both,
    "Net scones\n\nIngredients\n200 g rice flour\n80 g butter\n\nOar bread\n\nIngredients\n300 g millet flour\n250 g water\n",
  );
  await openFile(page, "Open a file", both);
  await page.getByRole("heading", { name: "Oar bread" }).waitFor();
  await page.getByRole("checkbox", { name: "Keep Net scones" }).click();
  await page.getByRole("button", { name: "Keep 1 as they are read" }).click();
  await page.waitForURL(/\/bench\//);
  expect(await page.getByLabel("Name of the formula").inputValue()).toBe("Oar bread");
  await page.context().close();
});

test("the whole kitchen goes out, comes back where it changed nothing, brings back what was taken off, and that is undone", async () => {
  const page = await kitchen.open("/store/copies", wide);
  const { path, name } = await keptFrom(page, () => page.getByRole("button", { name: "Keep the whole kitchen" }).click());
  expect(name).toMatch(/^uprise-\d{4}-\d{2}-\d{2}\.zip$/);
  // On the server's own machine it is brought in by a command, and that is undone by the line it ends with.
  const restore = (...args: string[]): string => execFileSync(process.execPath, ["scripts/bundled.mjs", "restore", ...args], { cwd: join(__dirname, ".."), env: { ...process.env, UPRISE_DATA: join(folder, "other") } }).toString(); // prettier-ignore
  expect(restore(path)).toMatch(/\d\d would be added: .*Nothing was written/s);
  const undo = /--undo (\S+)/.exec(restore(path, "--take"))?.[1] ?? "";
  expect(restore("--undo", undo)).toMatch(/^\d\d things are as they were/);
  await openFile(page, "Open an archive", path);
  await page.getByText("All of it is here already.").waitFor();
  await page.goto(`${kitchen.url}/store/packets`);
  await page.getByRole("button", { name: /^Cocoa/ }).click();
  await page.getByRole("button", { name: "Remove Cocoa" }).click();
  await page.getByText("“Cocoa” is off the shelf.").waitFor();
  await page.goto(`${kitchen.url}/store/copies`);
  await openFile(page, "Open an archive", path);
  await page.getByText("Removed here, and in the archive: 1").waitFor();
  await page.getByText("Cocoa, packet").waitFor();
  expect(await faultsOf(page)).toEqual([]);
  await page.getByRole("button", { name: "Bring it in" }).click();
  await page.getByText("Back on their list: 1").waitFor();
  await page.getByRole("button", { name: "Undo it" }).click();
  await page.getByText("1 things are as they were.").waitFor();
  const bad = join(folder, "bad.zip");
  writeFileSync(bad, readFileSync(path).subarray(0, 900));
  await openFile(page, "Open an archive", bad);
  await page.getByText(/no ZIP file.*Nothing was changed/).waitFor();
  await page.context().close();
});

test("label, keeping and cost follow the sheet; gluten-free asks and never promises", async () => {
  const page = await kitchen.open("/bench/millet-skillet/label");
  await page.getByRole("radio", { name: "European Union" }).click();
  const packet = page.getByRole("group", { name: "On the packet" });
  await packet.getByText(/^Ingredients: hemp drink, cornmeal, millet flour \d+ %, EGG/).waitFor();
  await packet.getByText(/Milled where oats are milled too/).waitFor();
  await page.getByText("As this shelf is, the words may not stand on it.").waitFor();
  await page
    .getByText(/the pan is at 220/i)
    .first()
    .waitFor();
  expect((await page.getByTestId("room-scroll").innerText()).toLowerCase()).not.toMatch(/\bsafe\b/);
  expect(await faultsOf(page)).toEqual([]);
  await page.getByRole("radio", { name: "United States" }).click();
  await packet.getByText("Contains: egg.").waitFor();
  await page.context().close();
});

test("many of it: batches, loads, and what does not grow in proportion", async () => {
  const page = await kitchen.open("/bench/pear-loaf/many");
  await page.getByLabel("Pieces wanted").fill("40");
  await page.getByText(/\d+ batches of/).waitFor();
  await page.getByText(/^Oven: \d+ loads/).waitFor();
  await page.getByText(/^Standing: /).waitFor();
  expect(await faultsOf(page)).toEqual([]);
  await page.context().close();
});

test("on paper: card on A4 and A6, labels, a day over pages with the head of its table on each, comparison, record", async () => {
  const page = await kitchen.open("/print/formula/pear-loaf", wide);
  const card = await onPaper(page, "/print/formula/pear-loaf", "Steps");
  expect(card.join("\n")).toMatch(/230 g\s+Kefir/);
  expect(card.join("\n")).not.toMatch(/\bPrint\b/);
  const wall = await onPaper(page, "/print/formula/pear-loaf?size=a6", "Buckwheat flour");
  expect(wall).toHaveLength(1);
  expect(wall[0]).toMatch(/150 g\s+Buckwheat flour/);
  await page.goto(`${kitchen.url}/print/label/beet-muffins`);
  await page.getByRole("radio", { name: "European Union" }).click();
  await page.getByLabel("A label is wide").fill("60");
  const labels = await onPaper(page, "/print/label/beet-muffins", "Nutrition, reckoned");
  expect(labels).toHaveLength(1);
  expect(labels[0]?.match(/Teff, cocoa and beetroot muffins/g)?.length).toBe(await page.getByTestId("one-label").count());
  expect(labels[0]).toMatch(/EGG/);
  const day = await onPaper(page, "/print/day/first-boat", "By the clock");
  expect(day.length).toBeGreaterThan(1);
  // The steps by the clock end before the ribbon; on every page that they reach, their head stands.
  const clock = day.slice(day.findIndex((text) => /By the clock/.test(text)), day.findIndex((text) => /The ribbon/.test(text)) + 1); // prettier-ignore
  expect(clock.length).toBeGreaterThan(1);
  for (const text of clock.slice(0, -1)) expect(text).toMatch(/at\s+for\s+what/);
  const beside = await onPaper(page, "/print/compare?ids=pear-1,pear-2", "What was changed");
  expect(beside.join("\n")).toMatch(/from\s+what\s+was\s+is/);
  const record = await onPaper(page, "/print/trial/pear-1", "Causes it may have");
  expect(record.join("\n")).toMatch(/of 100\s+cause/);
  // The damaged archive was refused on purpose.
  expect(kitchen.complaints.filter((complaint) => !complaint.includes("/api/restore"))).toEqual([]);
  await page.context().close();
});
