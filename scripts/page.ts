import { type Browser, type BrowserContext, type Page } from "playwright-core";

/** What a page costs, in Chromium: cold and again on a slow phone, and while one types. */
export type Row = [name: string, median: string, rest: string];

/** A quarter of this processor and 1.6 Mbit/s with 150 ms each way and back: a slow phone on 4G. */
const SLOW = { latency: 150, downloadThroughput: 200_000, uploadThroughput: 90_000 };
const SLOWER = 4;
const RUNS = 3;
const seconds = (ms: number): string => `${(ms / 1000).toFixed(2)} s`;
const mid = (all: number[]): number => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)] ?? NaN;

async function slowed(context: BrowserContext): Promise<Page> {
  const page = await context.newPage();
  const line = await context.newCDPSession(page);
  await line.send("Network.enable");
  await line.send("Network.emulateNetworkConditions", { offline: false, ...SLOW });
  await line.send("Emulation.setCPUThrottlingRate", { rate: SLOWER });
  return page;
}

interface Visit {
  paint: number;
  usable: number;
  scripts: Map<string, number>;
}

/** One visit: first paint and the moment at which the page can be used, ms since it was asked for, and what came over the line by then. The page itself notes that moment: to look from outside would slow it down. */
async function visit(context: BrowserContext, address: string, ready: string): Promise<Visit> {
  const page = await slowed(context);
  const line = await context.newCDPSession(page);
  await line.send("Network.enable");
  const names = new Map<string, string>();
  const scripts = new Map<string, number>();
  line.on("Network.responseReceived", ({ requestId, response, type }) => {
    if (type === "Script") names.set(requestId, new URL(response.url).pathname.split("/").pop() ?? "");
  });
  let counting = true;
  line.on("Network.loadingFinished", ({ requestId, encodedDataLength }) => {
    const name = names.get(requestId);
    if (counting && name !== undefined) scripts.set(name, encodedDataLength);
  });
  await page.addInitScript((sought) => {
    const watch = new MutationObserver(() => {
      if (!document.querySelector(sought)) return;
      watch.disconnect();
      requestAnimationFrame(() => setTimeout(() => performance.mark("usable")));
    });
    watch.observe(document, { childList: true, subtree: true, attributes: true, attributeFilter: ["aria-label"] });
  }, ready);
  await page.goto(address, { waitUntil: "commit" });
  await page.waitForFunction(() => performance.getEntriesByName("usable").length > 0, null, { polling: 250, timeout: 120_000 });
  counting = false;
  const { paint, usable } = await page.evaluate(() => ({
    paint: performance.getEntriesByName("first-contentful-paint")[0]?.startTime ?? NaN,
    usable: performance.getEntriesByName("usable")[0]?.startTime ?? NaN,
  }));
  return { paint, usable, scripts };
}

const places: [name: string, path: string, usable: string][] = [
  ["the list", "/formulas", "a[href='/bench/pear-loaf']"],
  ["a bench", "/bench/pear-loaf", "[data-testid=instrument-lift] [role=img]:not([aria-label*='nothing to read'])"],
  ["the reader", "/read", "[aria-label=Recipe]"],
];

async function visits(chrome: Browser, url: string): Promise<Row[]> {
  const rows: Row[] = [];
  for (const [name, path, ready] of places) {
    const cold: Visit[] = [];
    const again: Visit[] = [];
    for (let run = 0; run < RUNS; run++) {
      const context = await chrome.newContext({ viewport: { width: 390, height: 844 } });
      cold.push(await visit(context, url + path, ready));
      const [page] = context.pages();
      // The service worker keeps the parts while nothing else is going on.
      await page?.locator("html[data-parts=here]").waitFor({ timeout: 180_000 });
      await page?.close();
      again.push(await visit(context, url + path, ready));
      await context.close();
    }
    rows.push([`a slow phone, ${name}, first visit: painted (aim: 1.5 s)`, seconds(mid(cold.map(({ paint }) => paint))), ""]);
    rows.push([`a slow phone, ${name}, first visit: usable (aim: 4 s)`, seconds(mid(cold.map(({ usable }) => usable))), ""]);
    rows.push([`a slow phone, ${name}, second visit: usable (aim: 1 s)`, seconds(mid(again.map(({ usable }) => usable))), `painted ${seconds(mid(again.map(({ paint }) => paint)))}`]); // prettier-ignore
    const parts = [...(cold[0]?.scripts ?? [])].sort((a, b) => b[1] - a[1]);
    const said = parts.map(
      ([file, bytes]) => `${file.replace(/-[0-9a-f]{32}/, "").replace(/\.[0-9a-f]{12}/, "")} ${Math.round(bytes / 1000)}`,
    );
    rows.push([
      `script of ${name} before it can be used`,
      `${Math.round(parts.reduce((all, [, bytes]) => all + bytes, 0) / 1000)} kB`,
      said.join(", "),
    ]);
  }
  return rows;
}

interface Typed {
  frame: number;
  readings: number;
  coarse: number;
  fine: number;
  longest: number;
}

/** An amount typed into a formula with findings: the next frame, readings, coarse and fine bake, and the longest task of the page, ms. */
const typed = (page: Page, label: string, grams: number): Promise<Typed> =>
  page.evaluate(
    async ({ label, grams }) => {
      const field = document.querySelector<HTMLInputElement>(`input[aria-label='${label}']`);
      if (!field) throw new Error(`no field ${label}`);
      const says = (name: string): string => document.querySelector(`[data-testid=instrument-${name}]`)?.innerHTML ?? "";
      const bake = (): string => document.querySelector("[data-testid=instrument-bake]")?.textContent ?? "";
      let longest = 0;
      const watch = new PerformanceObserver((list) => {
        for (const { duration } of list.getEntries()) longest = Math.max(longest, duration);
      });
      watch.observe({ type: "longtask" });
      const before = { lift: says("lift") };
      const begun = performance.now();
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(field, `${grams}`);
      field.dispatchEvent(new Event("input", { bubbles: true }));
      const out = { frame: NaN, readings: NaN, coarse: NaN, fine: NaN, longest: 0 };
      const next = (): Promise<unknown> => new Promise((done) => requestAnimationFrame(done));
      await next();
      out.frame = performance.now() - begun;
      while (performance.now() - begun < 4000 && Number.isNaN(out.fine)) {
        await next();
        const now = performance.now() - begun;
        if (Number.isNaN(out.readings) && says("lift") !== before.lift) out.readings = now;
        if (Number.isNaN(out.coarse) && bake().includes("≈")) out.coarse = now;
        if (!Number.isNaN(out.coarse) && !bake().includes("≈")) out.fine = now;
      }
      await new Promise((done) => setTimeout(done, 300));
      watch.disconnect();
      return { ...out, longest };
    },
    { label, grams },
  );

async function typing(chrome: Browser, url: string): Promise<Row[]> {
  const demo = (await (await fetch(`${url}/api/formulas/beet-muffins`)).json()) as {
    formula: { lines: { ingredientId?: string }[] };
  };
  const soda = { id: "too-much", ingredientId: "soda", grams: { low: 12, mid: 12, high: 12 } };
  const lines = [...demo.formula.lines.filter(({ ingredientId }) => ingredientId !== "soda"), soda];
  const made = await fetch(`${url}/api/formulas`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ ...demo.formula, title: "Soapy", lines }),
  });
  const { id } = (await made.json()) as { id: string };
  const page = await chrome.newPage({ viewport: { width: 390, height: 844 } });
  await page.goto(`${url}/bench/${id}`);
  await page.getByTestId("instrument-lift").waitFor();
  await page.waitForTimeout(6000);
  const all: Typed[] = [];
  for (let i = 0; i < 20; i++) all.push(await typed(page, "Amount of Baking soda", 12 - 0.3 * (i + 1)));
  await page.close();
  const row = (name: string, of: keyof Typed): Row => {
    const sorted = all.map((one) => one[of]).sort((a, b) => a - b);
    return [name, `${Math.round(mid(sorted))} ms`, `${Math.round(sorted[17] ?? NaN)} ms`];
  };
  return [
    row("an amount typed into a faulty formula: the next frame", "frame"),
    row("its readings drawn (aim: 50)", "readings"),
    row("its coarse bake drawn (aim: 150)", "coarse"),
    row("its fine bake drawn (aim: 500)", "fine"),
    row("the page's longest task meanwhile; 0 where none is over 50 ms (aim: 0)", "longest"),
  ];
}

export const pageRows = async (chrome: Browser, url: string): Promise<Row[]> => [
  ...(await typing(chrome, url)),
  ...(await visits(chrome, url)),
];
