import { rmSync } from "node:fs";
import { ended, startServer, TEMPLATE } from "./kitchen";

/** Fills the demo's kitchen once, and waits until its lists are told in full: each journey begins with a copy of it. */
export default async function fillTemplate(): Promise<void> {
  rmSync(TEMPLATE, { recursive: true, force: true });
  const { child, url } = await startServer(TEMPLATE, 0);
  try {
    for (const until = Date.now() + 180_000; ;) {
      const { items } = (await (await fetch(`${url}/api/formulas?limit=100&whole=true`)).json()) as {
        items: { glance?: unknown }[];
      };
      if (items.length > 0 && items.every(({ glance }) => glance !== undefined)) return;
      if (Date.now() > until) throw new Error("the demo's list is not told after three minutes");
      await new Promise((done) => setTimeout(done, 300));
    }
  } finally {
    await ended(child, "SIGTERM");
  }
}
