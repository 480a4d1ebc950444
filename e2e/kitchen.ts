import { type ChildProcess, spawn } from "node:child_process";
import { randomUUID } from "node:crypto";
import { cpSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { type Browser, type BrowserContext, chromium, type Page } from "playwright-core";

const root = resolve(__dirname, "..");
const flags = [
  "--headless",
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  // The browser draws the menu of its address bar ahead for every window, in a process of its own, although there is none to be seen.
  "--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup,WebUIOmniboxFullPopup,HttpsUpgrades,PaintHolding,OptimizationHints,MediaRouter",
];

export interface Size {
  width: number;
  height: number;
}

export const phone = { width: 390, height: 844 };
export const wide = { width: 1280, height: 800 };

/** A server of its own on a folder of its own, and a browser before it. */
export interface Kitchen {
  url: string;
  browser: Browser;
  /** A page in a context of its own; what its console complains of is collected. It is not kept on the device, which would cost every page a second. */
  open: (path: string, size?: Size, context?: BrowserContext) => Promise<Page>;
  /** The same with the service worker: a page that opens without a network once it was there. */
  openKept: (path: string, size?: Size) => Promise<Page>;
  complaints: string[];
  /** A formula of the demo once more, under an id of its own: a journey that changes one finds it new at its second try too. */
  copyOf: (id: string) => Promise<string>;
  /** Kills the server without a word and starts it again on the same port and folder. */
  crashAndRestart: () => Promise<void>;
  /** Kills the server, and starts it again on the same port and folder. */
  down: () => Promise<void>;
  up: () => Promise<void>;
  close: () => Promise<void>;
}

/** The demo's kitchen with what its lists show, filled once for all journeys by `template.ts`. */
export const TEMPLATE = join(root, "node_modules/.uprise/e2e-kitchen");

export async function startServer(data: string, port: number): Promise<{ child: ChildProcess; url: string }> {
  const child = spawn(process.execPath, ["apps/server/dist/main.mjs"], {
    cwd: root,
    env: { ...process.env, PORT: String(port), UPRISE_DATA: data, UPRISE_DEMO: "1" },
    stdio: ["ignore", "pipe", "inherit"],
  });
  const url = await new Promise<string>((done, fail) => {
    child.stdout?.on("data", (chunk: Buffer) => {
      const found = /http:\/\/\S+/.exec(chunk.toString())?.[0];
      if (found) done(found);
    });
    child.once("exit", (code) => fail(new Error(`the server ended with ${code}`)));
  });
  return { child, url };
}

export const ended = (child: ChildProcess, signal: NodeJS.Signals): Promise<void> =>
  new Promise((done) => {
    // One that has ended already ends no more.
    if (child.exitCode !== null || child.signalCode !== null) return done();
    child.once("exit", () => done());
    child.kill(signal);
  });

export async function openKitchen(): Promise<Kitchen> {
  const data = mkdtempSync(join(tmpdir(), "uprise-e2e-"));
  cpSync(TEMPLATE, data, { recursive: true });
  const first = await startServer(data, 0);
  const { url } = first;
  let child = first.child;
  const browser = await chromium
    .launch({ executablePath: process.env["UPRISE_CHROMIUM"] ?? "/usr/bin/chromium", args: flags })
    .catch((error: unknown) => {
      // Without a browser there is no journey, and no server is left behind.
      child.kill("SIGKILL");
      throw error;
    });
  const complaints: string[] = [];
  let killed = false;
  let isDown = false;
  const up = async (): Promise<void> => {
    isDown = false;
    ({ child } = await startServer(data, Number(new URL(url).port)));
  };
  /** A journey that ended while its server was down leaves it so for the next try. */
  const contextOf = async (size: Size, serviceWorkers: "allow" | "block"): Promise<BrowserContext> => {
    if (isDown) await up();
    return browser.newContext({ viewport: size, serviceWorkers });
  };
  const kitchen: Kitchen = {
    url,
    browser,
    complaints,
    openKept: async (path, size = phone) => kitchen.open(path, size, await contextOf(size, "allow")),
    async open(path, size = phone, context) {
      const page = await (context ?? (await contextOf(size, "block"))).newPage();
      await page.setViewportSize(size);
      page.on("console", (message) => {
        // What a killed server leaves open or does not answer is no fault of the page.
        // Nor is it one that a page was left while it still called a device, or that a busy machine came to a room's script
        // later than the browser thinks usual (first-load holds that each script asked for ahead is one that the page runs).
        const cut =
          (killed && /ERR_(?:CONNECTION|INCOMPLETE_CHUNKED|EMPTY_RESPONSE)/.test(message.text())) ||
          /Service Worker registration blocked|WebSocket is closed before the connection is established|preloaded using link preload but not used within/.test(
            message.text(),
          );
        if (!cut && (message.type() === "error" || message.type() === "warning"))
          complaints.push(`${message.type()}: ${message.text()} (${message.location().url})`);
      });
      page.on("pageerror", (error) => complaints.push(`page error: ${error.message}`));
      await page.goto(`${url}${path}`);
      return page;
    },
    async copyOf(id) {
      if (isDown) await up();
      const { formula } = (await (await fetch(`${url}/api/formulas/${id}`)).json()) as { formula: object };
      const body = JSON.stringify({ ...formula, id: randomUUID() });
      const made = await fetch(`${url}/api/formulas`, { method: "POST", headers: { "content-type": "application/json" }, body });
      if (made.status !== 201) throw new Error(`no copy of ${id}: ${await made.text()}`);
      return ((await made.json()) as { id: string }).id;
    },
    async crashAndRestart() {
      killed = true;
      await ended(child, "SIGKILL");
      ({ child } = await startServer(data, Number(new URL(url).port)));
    },
    down() {
      killed = true;
      isDown = true;
      return ended(child, "SIGKILL");
    },
    up,
    async close() {
      await browser.close();
      await ended(child, "SIGTERM");
      rmSync(data, { recursive: true, force: true });
    },
  };
  return kitchen;
}

const axe = readFileSync(require.resolve("axe-core/axe.min.js"), "utf8");

/** Serious and critical faults that axe-core finds on a page, as short lines; of its colours alone where the rest of it was looked at before. */
export async function faultsOf(page: Page, of: "all" | "colours" = "all"): Promise<string[]> {
  await page.evaluate(axe);
  const violations = await page.evaluate(
    async (rules) => {
      const run = (
        globalThis as unknown as {
          axe: {
            run: (
              options: object,
            ) => Promise<{ violations: { id: string; impact: string; nodes: { html: string; failureSummary?: string }[] }[] }>;
          };
        }
      ).axe;
      const found = await run.run({ resultTypes: ["violations"], ...(rules && { runOnly: { type: "rule", values: rules } }) });
      return found.violations.filter((v) => v.impact === "serious" || v.impact === "critical");
    },
    of === "colours" ? ["color-contrast", "link-in-text-block"] : null,
  );
  return violations.flatMap((v) =>
    v.nodes.map((node) => `${v.id}: ${node.html.slice(0, 160)} ${node.failureSummary?.slice(0, 200) ?? ""}`),
  );
}

/** What the text alternative of an instrument says now. */
export const readingOf = async (page: Page, name: "lift" | "body" | "fill" | "bake"): Promise<string> => {
  const instrument = page.getByTestId(`instrument-${name}`);
  await instrument.waitFor();
  await page.locator("[aria-label='Instruments'][aria-busy='true']").waitFor({ state: "detached" });
  return (await instrument.getByRole("img").getAttribute("aria-label")) ?? "";
};
