import { mkdtempSync, rmSync } from "node:fs";
import { networkInterfaces, tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { faultsOf, type Kitchen, openKitchen, phone, readingOf, wide } from "./kitchen";

describe("an application on the phone", () => {
  let kitchen: Kitchen;
  beforeAll(async () => {
    kitchen = await openKitchen();
  });
  afterAll(() => kitchen.close());

  test("it can be installed: manifest, icons of their sizes, a service worker that keeps no answer of the kitchen", async () => {
    const manifest = (await (await fetch(`${kitchen.url}/manifest.webmanifest`)).json()) as { icons: { src: string; sizes: string; purpose?: string }[]; display: string; start_url: string }; // prettier-ignore
    expect(manifest).toMatchObject({ display: "standalone", start_url: "/" });
    expect(manifest.icons.map(({ purpose }) => purpose)).toContain("maskable");
    for (const { src, sizes } of manifest.icons) {
      const bytes = Buffer.from(await (await fetch(`${kitchen.url}${src}`)).arrayBuffer());
      // Width and height stand in the head of a PNG.
      expect(`${bytes.readUInt32BE(16)}x${bytes.readUInt32BE(20)}`).toBe(sizes);
    }
    const page = await kitchen.openKept("/bench/pear-loaf");
    await page.locator("html[data-parts=here]").waitFor({ timeout: 60_000 });
    await page.getByTestId("instrument-lift").waitFor();
    const kept = await page.evaluate(async () => {
      const urls: string[] = [];
      for (const name of await caches.keys())
        for (const request of await (await caches.open(name)).keys()) urls.push(new URL(request.url).pathname);
      return urls;
    });
    expect(kept.length).toBeGreaterThan(30);
    expect(kept.filter((path) => path.startsWith("/api"))).toEqual([]);
    await page.context().close();
  });

  test("with the server killed it opens, reads, weighs, judges; what was saved goes out in order when it is back", async () => {
    const page = await kitchen.openKept("/formulas");
    await page.locator("html[data-parts=here]").waitFor({ timeout: 60_000 });
    await page.getByText("Teff, cocoa and beetroot muffins").waitFor();
    await page.goto(`${kitchen.url}/log`);
    await page.getByRole("link", { name: /Pear loaf/ }).first().waitFor(); // prettier-ignore
    await page.goto(`${kitchen.url}/counter`);
    await page.getByRole("heading").first().waitFor();
    // What is asked ahead has been kept on the device.
    await page.waitForTimeout(9000);
    await kitchen.down();
    await page.goto(`${kitchen.url}/bench/beet-muffins`);
    expect(await readingOf(page, "lift")).toMatch(/soda|powder|balanced|acid/i);
    await page.getByLabel("Name of the formula").fill("Muffins, saved at sea");
    await page.getByRole("button", { name: "Save", exact: true }).click();
    await page.getByText("Saved on this device; it goes out when the server answers").waitFor();
    await page.getByLabel("Name of the formula").fill("Muffins, saved at sea twice");
    await page.getByRole("button", { name: "Save", exact: true }).click();
    // Left before it is on the device, it would still be a draft.
    await page.getByText("Saved on this device; it goes out when the server answers").waitFor();
    await page.goto(`${kitchen.url}/read`);
    await page
      .getByLabel("Recipe")
      .fill("Sea bread\n\n200 g rice flour\n180 g water\n8 g baking powder\n\nBake at 200 °C for 30 minutes.");
    await page.getByRole("button", { name: "Put on the bench" }).click();
    await page.waitForURL(/\/bench\/[0-9a-f-]{36}/);
    await page.getByTestId("instrument-lift").waitFor();
    const bread = page.url().split("/bench/")[1]?.slice(0, 36) ?? "";
    await page.goto(`${kitchen.url}/store`);
    await page.getByText("Almond butter").first().waitFor();
    await page.goto(`${kitchen.url}/log/new`);
    await page.getByRole("heading").first().waitFor();
    await page.getByRole("button", { name: /2 things are saved here/ }).waitFor();
    await kitchen.up();
    await page.getByRole("region", { name: "Waiting for the server" }).waitFor({ state: "detached", timeout: 30_000 });
    const muffins = (await (await fetch(`${kitchen.url}/api/formulas/beet-muffins`)).json()) as {
      version: number;
      formula: { title: string };
    };
    expect(muffins).toMatchObject({ version: 2, formula: { title: "Muffins, saved at sea twice" } });
    expect(await (await fetch(`${kitchen.url}/api/formulas/${bread}`)).json()).toMatchObject({
      version: 1,
      formula: { title: "Sea bread" },
    });
    await page.context().close();
  });

  test("a bake begins without a server: what is weighed is kept over a reload, and all of it stands at the server when it is back", async () => {
    const page = await kitchen.openKept("/counter");
    await page.locator("html[data-parts=here]").waitFor({ timeout: 60_000 });
    await page.getByRole("button", { name: "Bake it: Sorghum, cheddar and chive biscuits" }).waitFor();
    // A shelf that was never looked at is asked for ahead.
    await page.waitForTimeout(9000);
    await kitchen.down();
    await page.getByRole("button", { name: "Bake it: Sorghum, cheddar and chive biscuits" }).click();
    await page.waitForURL(/\/counter\/[0-9a-f-]{36}/, { timeout: 60_000 });
    const id = page.url().split("/counter/")[1] ?? "";
    await page.getByRole("button", { name: /^It is 140/ }).click();
    // Read again from the device, it stands as it was laid out, with what was done.
    await page.waitForTimeout(3000);
    await page.reload();
    await page.getByRole("heading", { name: /Sorghum, cheddar/ }).first().waitFor(); // prettier-ignore
    expect(await faultsOf(page)).toEqual([]);
    await kitchen.up();
    await page.getByRole("region", { name: "Waiting for the server" }).waitFor({ state: "detached", timeout: 60_000 });
    const there = async (): Promise<{ events?: { kind: string }[]; record?: { formulaId: string; formulaVersion: number } }> => (await fetch(`${kitchen.url}/api/bakes/${id}`)).json() as never; // prettier-ignore
    for (let k = 0; k < 40 && !(await there()).events?.some(({ kind }) => kind === "weighed"); k++) await page.waitForTimeout(500);
    expect(await there()).toMatchObject({ record: { formulaId: "chive-biscuits", formulaVersion: 1 }, events: expect.arrayContaining([expect.objectContaining({ kind: "weighed" })]) as object }); // prettier-ignore
    await page.context().close();
  });

  test("saved at sea while somebody else saved: both are shown, and it is mended on the screen", async () => {
    const page = await kitchen.openKept("/bench/lentil-skillet");
    await page.getByTestId("instrument-lift").waitFor();
    await page.locator("html[data-parts=here]").waitFor({ timeout: 60_000 });
    await page.context().setOffline(true);
    await page.getByLabel("Name of the formula").fill("Mine");
    await page.getByRole("button", { name: "Save", exact: true }).click();
    await page.getByText(/Saved on this device/).waitFor();
    const there = (await (await fetch(`${kitchen.url}/api/formulas/lentil-skillet`)).json()) as {
      version: number;
      formula: object;
    };
    await fetch(`${kitchen.url}/api/formulas/lentil-skillet`, { method: "PUT", headers: { "content-type": "application/json", "if-match": `"${there.version}"` }, body: JSON.stringify({ ...there.formula, notes: "Theirs" }) }); // prettier-ignore
    await page.context().setOffline(false);
    const region = page.getByRole("region", { name: "Waiting for the server" });
    await region.getByText(/was not taken; nothing is lost/).waitFor({ timeout: 20_000 });
    await region.getByRole("button").first().click();
    await region.getByText(/Somebody saved a newer one/).waitFor();
    expect(await faultsOf(page)).toEqual([]);
    await page.getByRole("button", { name: "Put my changes on it" }).click();
    await page.getByRole("button", { name: "Save", exact: true }).click();
    await page.getByText("Saved, version 3").waitFor();
    expect(await (await fetch(`${kitchen.url}/api/formulas/lentil-skillet`)).json()).toMatchObject({ formula: { title: "Mine", notes: "Theirs" } }); // prettier-ignore
    await page.context().close();
  });

  test("two devices on one kitchen: what one saves stands on the other without being asked for", async () => {
    const id = await kitchen.copyOf("chive-biscuits");
    const desk = await kitchen.open(`/bench/${id}`, wide);
    const counter = await kitchen.open(`/bench/${id}`, phone);
    await counter.getByTestId("instrument-lift").waitFor();
    await desk.getByTestId("instrument-lift").waitFor();
    await desk.getByLabel("Name of the formula").fill("Biscuits from the desk");
    await desk.getByRole("button", { name: "Save", exact: true }).click();
    await desk.getByText("Saved, version 2").waitFor();
    await counter.waitForFunction(() => document.querySelector<HTMLInputElement>("[aria-label='Name of the formula']")?.value === "Biscuits from the desk"); // prettier-ignore
    await counter.getByLabel("Name of the formula").fill("Biscuits from the counter");
    await desk.getByLabel("Name of the formula").fill("Biscuits, second");
    await desk.getByRole("button", { name: "Save", exact: true }).click();
    await counter.getByText("Biscuits, second").first().waitFor();
    await desk.context().close();
    await counter.context().close();
  });
});

describe("a kitchen's own network", () => {
  const root = resolve(__dirname, "..");
  let data: string;
  let child: ChildProcess;
  let kitchen: Kitchen;
  let url: string;
  beforeAll(async () => {
    data = mkdtempSync(join(tmpdir(), "uprise-net-"));
    execFileSync(process.execPath, ["scripts/bundled.mjs", "passcode"], { cwd: root, env: { ...process.env, UPRISE_DATA: data }, input: "boats land at eight\n" }); // prettier-ignore
    kitchen = await openKitchen();
    child = spawn(process.execPath, ["apps/server/dist/main.mjs"], { cwd: root, env: { ...process.env, PORT: "0", HOST: "0.0.0.0", UPRISE_DATA: data, UPRISE_DEMO: "1" }, stdio: ["ignore", "pipe", "inherit"] }); // prettier-ignore
    const said = await new Promise<string>((done) => child.stdout?.on("data", (chunk: Buffer) => done(chunk.toString())));
    const address = Object.values(networkInterfaces()).flat().find((one) => one && !one.internal && one.family === "IPv4")?.address ?? "127.0.0.1"; // prettier-ignore
    url = `http://${address}:${/:(\d+)/.exec(said.replace("http:", ""))?.[1] ?? ""}`;
  });
  afterAll(async () => {
    child.kill("SIGTERM");
    await kitchen.close();
    rmSync(data, { recursive: true, force: true });
  });

  test("by the machine's address: the passcode first, the same place after; a device that is let go stands before the door", async () => {
    const page = await kitchen.open("/formulas");
    await page.goto(`${url}/bench/pear-loaf`);
    await page.getByText("This kitchen asks who comes in.").waitFor();
    expect(await faultsOf(page)).toEqual([]);
    await page.getByLabel("This device").fill("Counter phone");
    await page.getByLabel("Passcode").fill("boats land at nine");
    await page.getByRole("button", { name: "Come in" }).click();
    await page.getByText(/That is not it/).waitFor();
    await page.getByLabel("Passcode").fill("boats land at eight");
    await page.getByLabel("Passcode").press("Enter");
    await page.getByTestId("instrument-lift").waitFor();
    const other = await kitchen.open("/formulas", wide);
    await other.goto(`${url}/store/access`);
    await other.getByLabel("This device").fill("Desk");
    await other.getByLabel("Passcode").fill("boats land at eight");
    await other.getByRole("button", { name: "Come in" }).click();
    await other.getByText("Desk, this one").waitFor();
    expect(await faultsOf(other)).toEqual([]);
    await other.getByRole("button", { name: "Let it go: Counter phone" }).click();
    await other.getByRole("button", { name: "Let it go: Counter phone" }).waitFor({ state: "detached" });
    await page.getByRole("link", { name: "Log" }).click();
    await page.getByText("This kitchen asks who comes in.").waitFor({ timeout: 15_000 });
    // What it kept of the kitchen went with it: answers, drafts, what waited to be sent.
    const left = (): Promise<number> =>
      page.evaluate(async () => {
        let rows = 0;
        for (const { name = "" } of await indexedDB.databases()) {
          if (!name.startsWith("uprise")) continue;
          const database = await new Promise<IDBDatabase>((done) => {
            const opening = indexedDB.open(name);
            opening.onsuccess = () => done(opening.result);
          });
          for (const store of database.objectStoreNames) {
            const counting = database.transaction(store).objectStore(store).count();
            rows += await new Promise<number>((done) => (counting.onsuccess = () => done(counting.result)));
          }
          database.close();
        }
        return rows;
      });
    for (let n = 0; n < 40 && (await left()) > 0; n++) await page.waitForTimeout(100);
    expect(await left()).toBe(0);
    await page.context().close();
    await other.context().close();
  });
});
