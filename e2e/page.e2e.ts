import type { StoredFormula } from "@uprise/contract";
import { faultsOf, type Kitchen, openKitchen, phone, wide } from "./kitchen";

jest.setTimeout(240_000);

let kitchen: Kitchen;
beforeAll(async () => {
  kitchen = await openKitchen();
});
afterAll(() => kitchen.close());

const list = [
  "200 g buckwheat flour",
  "1½ tsp baking powder",
  "¾ cup tapioca starch",
  "2 large eggs",
  "240 ml buttermilk",
  "¼ tsp fine salt",
];
const html = `<style>body{font:25px/1.7 Georgia,serif;margin:60px;width:640px;background:#fdfaf2;color:#222}</style><h2>Harvest pear loaf</h2>${list.map((line) => `<div>${line}</div>`).join("")}<p>Bake at 180°C for 45 minutes in a loaf tin.</p>`;

/** A page as print: a picture of it and a PDF, drawn by the browser that the tests drive. */
async function printed(): Promise<{ picture: Buffer; pdf: Buffer }> {
  const page = await kitchen.open("/page", wide);
  await page.setContent(html);
  const [picture, pdf] = [await page.screenshot({ type: "jpeg", quality: 85 }), await page.pdf()];
  await page.context().close();
  return { picture, pdf };
}
const lines = "[role=list][aria-label='Lines as read'] input";

test("a photograph from the camera is read on the device, looked at beside its picture, weighed, and stays with its formula", async () => {
  const { picture } = await printed();
  const page = await kitchen.open("/read", phone);
  await page.getByRole("button", { name: "Photograph a page, or open a picture" }).click();
  await page.getByText(/fetches \d\.\d MB from the kitchen's server/).waitFor();
  // The camera's stand-in: what the phone would hand over.
  await page.getByLabel("Take a photograph").setInputFiles({ name: "page.jpg", mimeType: "image/jpeg", buffer: picture });
  await page.getByRole("list", { name: "Lines as read" }).waitFor({ timeout: 120_000 });
  const open = page.getByRole("button", { name: /^It is: / });
  while ((await open.count()) > 0) await open.first().click();
  const read = await page.locator(lines).evaluateAll((fields) => fields.map((field) => (field as HTMLInputElement).value));
  expect(list.filter((line) => read.includes(line)).length).toBeGreaterThanOrEqual(list.length - 1);
  expect(await faultsOf(page)).toEqual([]);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(phone.width);
  await page.getByRole("button", { name: "Line 2: 200 g buckwheat flour" }).click();
  expect(await page.evaluate(() => (document.activeElement as HTMLInputElement).value)).toBe("200 g buckwheat flour");
  await page.getByRole("button", { name: "Weigh these lines" }).click();
  await page.getByText(/[56] lines weighed/).waitFor();
  await page.getByRole("button", { name: "Put on the bench" }).click();
  await page.waitForURL(/\/bench\/[0-9a-f-]{36}/);
  const id = page.url().split("/").at(-1) ?? "";
  const { formula } = (await (await fetch(`${kitchen.url}/api/formulas/${id}`)).json()) as StoredFormula;
  expect(formula.pasted?.pages).toHaveLength(1);
  const kept = await fetch(`${kitchen.url}/api/photos/${formula.pasted?.pages?.[0]}`);
  expect([kept.status, kept.headers.get("content-type")]).toEqual([200, "image/jpeg"]);
  await page.context().close();
  expect(kitchen.complaints).toEqual([]);
});

test("a PDF gives the text that it holds, on a wide screen; its corners are none", async () => {
  const { pdf } = await printed();
  const page = await kitchen.open("/page", wide);
  await page.getByLabel("Open a picture or PDF").setInputFiles({ name: "page.pdf", mimeType: "application/pdf", buffer: pdf });
  await page.getByRole("list", { name: "Lines as read" }).waitFor({ timeout: 120_000 });
  const read = await page.locator(lines).evaluateAll((fields) => fields.map((field) => (field as HTMLInputElement).value));
  expect(read).toEqual(expect.arrayContaining(["Harvest pear loaf", ...list]));
  expect(await page.getByRole("button", { name: "Set its corners" }).count()).toBe(0);
  expect(await faultsOf(page)).toEqual([]);
  await page.context().close();
  expect(kitchen.complaints).toEqual([]);
});

test.each([
  ["a text that is called a picture", "image/jpeg", Buffer.from("no picture at all"), /no picture that can be opened/],
  ["a drawing with a script in it", "image/png", Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'), /no picture that can be opened/],
  ["a picture that ends early", "image/png", Buffer.from("89504e470d0a1a0a0000000d49484452", "hex"), /no picture that can be opened/],
  ["a PDF that is none", "application/pdf", Buffer.from("%PDF-1.7\n1 0 obj << /Type /Catalog /Pages 2 0 R >>\ngarbage"), /no PDF that can be opened|could not be read/],
  ["an empty file", "image/jpeg", Buffer.alloc(0), /no picture that can be opened/],
])("%s is refused with a sentence, and another can be opened", async (_, mimeType, buffer, words) => {
  const page = await kitchen.open("/page", phone);
  await page.getByLabel("Open a picture or PDF").setInputFiles({ name: "strange", mimeType, buffer });
  await page.getByText(words).waitFor({ timeout: 60_000 });
  await page.getByText("Open a picture or PDF").waitFor();
  await page.context().close();
  expect(kitchen.complaints).toEqual([]);
}); // prettier-ignore
