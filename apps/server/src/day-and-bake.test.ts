import { execFileSync, type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import type { Problem, StoredBake, StoredDevice, StoredPlan } from "@uprise/contract";
import { foldBake, type Formula, type Plan, type SlipAnswer } from "@uprise/core";
import ICAL from "ical.js";
import { buildApp } from "./app";
import { DeviceHub } from "./devices/hub";
import type { App } from "./wire";

let folder: string;
let app: App;
let base: string;

async function call<T>(method: string, path: string, body?: unknown): Promise<{ status: number; body: T; text: string }> {
  const response = await fetch(`${base}${path}`, {
    method,
    ...(body === undefined ? {} : { headers: { "content-type": "application/json" }, body: JSON.stringify(body) }),
  });
  const text = await response.text();
  const json = /json/.test(response.headers.get("content-type") ?? "") ? (JSON.parse(text) as T) : (null as T);
  return { status: response.status, body: json, text };
}

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "uprise-day-"));
  app = await buildApp({ port: 0, host: "127.0.0.1", dataFolder: folder, demo: true, webFolder: null });
  base = await app.listen({ port: 0, host: "127.0.0.1" });
});
afterEach(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

describe("a day", () => {
  test("the demo's Saturday is planned without being late; its calendar is read back by a library, with alarms and ids that stay", async () => {
    const { body: stored } = await call<StoredPlan>("GET", "/api/plans/first-boat");
    const { body: plan, status } = await call<Plan>("POST", "/api/plan", stored.day);
    expect(status).toBe(200);
    expect(plan.late).toEqual([]);
    expect(plan.bakes.map(({ batches }) => batches)).toEqual([1, 2, 2, 1]);
    const { text } = await call("GET", "/api/plans/first-boat/calendar.ics");
    const events = new ICAL.Component(ICAL.parse(text) as never[]).getAllSubcomponents("vevent");
    const read = new Map(events.map((event) => [new ICAL.Event(event).uid, new ICAL.Event(event)]));
    expect(read.size).toBe(plan.steps.length);
    for (const { id, start, end } of plan.steps) {
      const event = read.get(`first-boat.${id}@uprise.invalid`);
      expect(event?.startDate.toJSDate().getTime()).toBe(Date.parse(start));
      expect(event?.endDate.toJSDate().getTime()).toBe(Date.parse(end));
    }
    const rings = events.filter((event) => event.getFirstSubcomponent("valarm") !== null);
    expect(rings.length).toBeGreaterThanOrEqual(plan.steps.filter(({ kind }) => kind === "bake" || kind === "out").length);
    expect((await call("GET", "/api/plans/first-boat/calendar.ics")).text.replace(/DTSTAMP.*/g, "")).toBe(
      text.replace(/DTSTAMP.*/g, ""),
    );
  });
  test("lines of one's own are planned too; what is wrong is told at its place", async () => {
    const lines = [["sorghum-flour", 200], ["whole-milk", 180], ["egg", 100], ["powder-aluminium-free", 10]].map(([ingredientId, grams]) => ({ ingredientId, grams }));
    const day = { start: "2026-11-28T06:00:00Z", hands: 1, ovens: [{ id: "o", racks: 2 }], bakes: [{ id: "a", kind: "muffin", lines }] };
    const { status, body } = await call<Plan>("POST", "/api/plan", day);
    expect({ status, kinds: body.steps.some(({ kind }) => kind === "bake") }).toEqual({ status: 200, kinds: true });
    const wrong = async (change: object): Promise<string> => JSON.stringify((await call<Problem>("POST", "/api/plan", { ...day, ...change })).body);
    expect(await wrong({ start: "tomorrow" })).toMatch(/would be right/);
    expect(await wrong({ bakes: [] })).toMatch(/At least one bake/);
    expect(await wrong({ bakes: [{ id: "a", formulaId: "nobody" }] })).toMatch(/No formula has the id/);
    expect(await wrong({ bakes: [day.bakes[0], day.bakes[0]] })).toMatch(/id of its own/);
  }); // prettier-ignore
  test("asked for as a stream it tells how far it is, then the plan or what is wrong", async () => {
    const { body: stored } = await call<StoredPlan>("GET", "/api/plans/first-boat");
    const told = async (day: unknown): Promise<{ progress?: number; plan?: Plan; problem?: Problem }[]> => {
      const response = await fetch(`${base}/api/plan`, {
        method: "POST",
        headers: { "content-type": "application/json", accept: "text/event-stream" },
        body: JSON.stringify(day),
      });
      const text = await response.text();
      return [...text.matchAll(/^data: (.*)$/gm)].map(([, data = ""]) => JSON.parse(data) as object);
    };
    const events = await told(stored.day);
    const progress = events.flatMap((event) => event.progress ?? []);
    expect(progress.length).toBeGreaterThan(5);
    expect([...progress].sort((a, b) => a - b)).toEqual(progress);
    expect(events.at(-1)?.plan).toEqual((await call<Plan>("POST", "/api/plan", stored.day)).body);
    expect((await told({ ...stored.day, ovens: [] })).at(-1)?.problem?.detail).toMatch(/no oven of this day does that/);
  });
  test("steps that the baker changed are those of the plan and of the counter", async () => {
    const { body: stored } = await call<{ formula: Formula; version: number }>("GET", "/api/formulas/pear-loaf");
    const steps = [
      { own: "own-1", follows: "portion", words: "Lay pear slices along it", minutes: 4, needs: "hands" },
      { step: "wrap", off: true },
    ];
    const formula = { ...stored.formula, process: { ...stored.formula.process, steps } };
    const changed = await fetch(`${base}/api/formulas/pear-loaf`, {
      method: "PUT",
      headers: { "content-type": "application/json", "if-match": `"${stored.version}"` },
      body: JSON.stringify(formula),
    });
    expect(changed.status).toBe(200);
    const day = { start: "2026-11-28T06:00:00Z", hands: 1, ovens: [{ id: "o", racks: 2 }], bakes: [{ id: "a", formulaId: "pear-loaf" }] };
    const { body: plan } = await call<Plan>("POST", "/api/plan", day);
    const own = plan.steps.find(({ stepId }) => stepId === "own-1");
    expect(own).toMatchObject({ words: "Lay pear slices along it", resources: ["hands"] });
    expect(plan.steps.some(({ kind }) => kind === "wrap")).toBe(false);
    const { body: bake } = await call<StoredBake>("POST", "/api/bakes", { id: "b9", formulaId: "pear-loaf" });
    expect(bake.record.steps.map(({ id }) => id)).toContain("own-1");
  }); // prettier-ignore
});

const event = (id: string, minute: number, more: object): object => ({
  id,
  at: new Date(Date.UTC(2026, 10, 28, 5, minute)).toISOString(),
  ...more,
});

describe("a bake", () => {
  const layOut = async (): Promise<StoredBake> =>
    (await call<StoredBake>("POST", "/api/bakes", { id: "b1", formulaId: "pear-loaf" })).body;
  const append = (events: object[], id = "b1") => call<{ fresh: string[] }>("POST", `/api/bakes/${id}/events`, { events });
  test("is laid out once however often it is sent, with steps and what is expected", async () => {
    const one = await layOut();
    expect(one.record.steps.map(({ kind }) => kind)).toEqual(expect.arrayContaining(["dry", "combine", "bake", "out"]));
    expect(one.record.expected.ovens.length).toBeGreaterThan(4);
    expect((await layOut()).createdAt).toBe(one.createdAt);
    expect((await call<{ total: number }>("GET", "/api/bakes")).body.total).toBe(1);
  });
  test("an event that is sent twice counts once; two bakes may have events of one id; the order is that of time", async () => {
    await layOut();
    await call("POST", "/api/bakes", { id: "b2", formulaId: "beet-muffins" });
    const late = event("x", 20, { kind: "step", stepId: "bake", done: false });
    const early = event("y", 4, { kind: "weighed", lineId: "dry:salt", grams: 4, by: "scale" });
    expect((await append([late])).body.fresh).toEqual(["x"]);
    expect((await append([early, late])).body.fresh).toEqual(["y"]);
    expect((await append([late], "b2")).body.fresh).toEqual(["x"]);
    const { body } = await call<StoredBake>("GET", "/api/bakes/b1");
    expect(body.events.map(({ id }) => id)).toEqual(["y", "x"]);
    expect(body.phase).toBe("baking");
  });
  test("an event that is none is refused by itself, with what would be right; what came with it is kept", async () => {
    await layOut();
    const bad = event("b", 2, { kind: "oven", celsius: 900 });
    const sent = { events: [event("a", 1, { kind: "started" }), bad, "no event", event("c", 3, { kind: "looked" })] };
    const { status, body } = await call<{ fresh: string[]; refused: { id: string; message: string }[] }>("POST", "/api/bakes/b1/events", sent); // prettier-ignore
    expect(status).toBe(200);
    expect(body.fresh).toEqual(["a", "c"]);
    expect(body.refused.map(({ id }) => id)).toEqual(["b", ""]);
    expect(body.refused[0]?.message).toMatch(/in °C; up to 400 would be right/);
    expect((await call<StoredBake>("GET", "/api/bakes/b1")).body.events.map(({ id }) => id)).toEqual(["a", "c"]);
    const alone = await call<Problem>("POST", "/api/bakes/b1/events", { events: [bad] });
    expect([alone.status, alone.body.errors?.[0]?.path]).toEqual([400, "events.0"]);
  });
  test("out of the oven it has used up what went in: counted packets go down once, a rehearsal eats nothing", async () => {
    const packet = async (id: string): Promise<{ version: number; leftG?: number }> => {
      const { body } = await call<{ version: number; packet: { leftG?: number } }>("GET", `/api/packets/${id}`);
      return { version: body.version, ...body.packet };
    };
    const flour = { ingredientId: "buckwheat-flour", name: "Buckwheat, the sack", sizeG: 5000, leftG: 4000 };
    await call("POST", "/api/packets", { id: "sack", ...flour });
    const { record } = await layOut();
    const wanted = record.steps.flatMap(({ lines }) => lines).filter(({ ingredientId }) => ingredientId === "buckwheat-flour").reduce((sum, { grams }) => sum + grams, 0); // prettier-ignore
    expect(wanted).toBeGreaterThan(50);
    await append([event("in", 10, { kind: "step", stepId: "bake", done: false })]);
    expect((await packet("sack")).leftG).toBe(4000);
    await append([event("out", 70, { kind: "out" })]);
    const { leftG, version } = await packet("sack");
    expect(leftG).toBeCloseTo(4000 - wanted, 0);
    // Said again, by another phone as well: it was taken once.
    await append([event("out", 70, { kind: "out" }), event("out-2", 71, { kind: "out" })]);
    expect(await packet("sack")).toMatchObject({ leftG, version });
    const { events } = (await call<StoredBake>("GET", "/api/bakes/b1")).body;
    expect(events.find(({ kind }) => kind === "used")).toMatchObject({ packets: expect.arrayContaining([expect.objectContaining({ packetId: "sack", grams: expect.closeTo(wanted, 0) as number })]) as object }); // prettier-ignore
    await call("POST", "/api/bakes", { id: "b3", formulaId: "pear-loaf", rehearsal: { factor: 60 } });
    await append([event("in", 10, { kind: "step", stepId: "bake", done: false }), event("out", 70, { kind: "out" })], "b3");
    expect((await packet("sack")).leftG).toBe(leftG);
  });
  test("a split batter is laid out part by part: the first mixes it for all, the others begin with their share", async () => {
    const { body: stored } = await call<{ formula: Formula }>("GET", "/api/formulas/pear-loaf");
    const cups = { shape: "muffin", diameterMm: 70, heightMm: 35, pieces: 6 };
    const part = { kind: "muffin", vessel: cups, oven: { celsius: 190 }, additions: [{ id: "r", ingredientId: "raisins", grams: { low: 50, mid: 50, high: 50 } }] };
    const parts = [{ id: "p", name: "plain", share: 0.6, ...part, additions: [] }, { id: "q", name: "with raisins", share: 0.4, ...part }];
    await call("POST", "/api/formulas", { ...stored.formula, id: "split", title: "Split pear", parts });
    const { body: first } = await call<StoredBake>("POST", "/api/bakes", { id: "s1", formulaId: "split" });
    expect(first.record.title).toBe("Split pear, plain");
    expect(first.record.part).toMatchObject({ id: "p", others: [{ id: "q", name: "with raisins" }], whole: { title: "Split pear" } });
    const { body: second } = await call<StoredBake>("POST", "/api/bakes", { id: "s2", formulaId: "split", partId: "q" });
    expect(second.record.part).toEqual({ id: "q", others: [] });
    expect(second.record.formula.lines.some(({ ingredientId }) => ingredientId === "raisins")).toBe(true);
    const flour = (record: StoredBake["record"]): number => record.steps.flatMap(({ lines }) => lines).filter(({ ingredientId }) => ingredientId === "buckwheat-flour").reduce((sum, { grams }) => sum + grams, 0);
    expect([flour(first.record), flour(second.record)]).toEqual([stored.formula.lines.find(({ ingredientId }) => ingredientId === "buckwheat-flour")?.grams?.mid, 0]);
    expect(second.record.steps.map(({ kind }) => kind)).toEqual(expect.arrayContaining(["portion", "bake", "out"]));
    const wrong = await call<Problem>("POST", "/api/bakes", { id: "s3", formulaId: "split", partId: "z" });
    expect([wrong.status, wrong.body.detail]).toEqual([422, expect.stringMatching(/one of p, q would be right/)]);
    const { body: plan } = await call<Plan>("POST", "/api/plan", { start: "2026-11-28T06:00:00Z", hands: 1, mixers: 1, ovens: [{ id: "o", racks: 2 }], bakes: [{ id: "a", formulaId: "split" }] });
    expect(plan.steps.filter(({ kind }) => kind === "bake").map(({ stepId }) => stepId).sort()).toEqual(["p:bake", "q:bake"]);
    expect(plan.steps.filter(({ kind }) => kind === "combine")).toHaveLength(1);
  }); // prettier-ignore
  test("a bake that was taken off keeps what still arrives, and can be brought back with it", async () => {
    await layOut();
    await append([event("a", 1, { kind: "started" })]);
    const { version } = (await call<StoredBake>("GET", "/api/bakes/b1")).body;
    const removed = await fetch(`${base}/api/bakes/b1`, { method: "DELETE", headers: { "if-match": `"${version}"` } });
    expect(removed.status).toBe(204);
    expect((await call("GET", "/api/bakes/b1")).status).toBe(404);
    expect((await append([event("late", 2, { kind: "looked" })])).status).toBe(200);
    expect((await call("POST", "/api/bakes/b1/restore")).status).toBe(200);
    expect((await call<StoredBake>("GET", "/api/bakes/b1")).body.events.map(({ id }) => id)).toEqual(["a", "late"]);
  });
  test("whoever listens hears what happens, and goes on where the line broke", async () => {
    await layOut();
    await append([event("a", 1, { kind: "started" })]);
    const heard = async (headers: Record<string, string>, many: number, meanwhile?: () => Promise<unknown>): Promise<{ ids: string[]; last: string }> => {
      const stop = new AbortController();
      const response = await fetch(`${base}/api/bakes/b1/stream`, { headers, signal: stop.signal });
      const reader = response.body?.getReader();
      let text = "";
      await meanwhile?.();
      while ((text.match(/^data: /gm) ?? []).length < many) text += new TextDecoder().decode((await reader?.read())?.value);
      stop.abort();
      return { ids: [...text.matchAll(/^data: (.*)$/gm)].map(([, data = "{}"]) => (JSON.parse(data) as { id: string }).id), last: [...text.matchAll(/^id: (\d+)$/gm)].at(-1)?.[1] ?? "" };
    };
    const first = await heard({}, 2, () => append([event("b", 2, { kind: "looked" })]));
    expect(first.ids).toEqual(["a", "b"]);
    await append([event("c", 3, { kind: "turned" })]);
    expect((await heard({ "last-event-id": first.last }, 1)).ids).toEqual(["c"]);
  }); // prettier-ignore
  test("a slip is answered", async () => {
    const { body } = await call<SlipAnswer>("POST", "/api/slip", {
      kind: "muffin",
      batchG: 700,
      slip: { what: "forgotten", ingredientId: "salt" },
    });
    expect(body.remedies.map(({ id }) => id)).toContain("add");
  });
});

describe("devices", () => {
  test("the demo has four stand-ins; one is named anew, tried, unplugged", async () => {
    const { body } = await call<{ items: StoredDevice[] }>("GET", "/api/devices");
    expect(body.items.map(({ kind }) => kind).sort()).toEqual(["oven", "ph", "probe", "scale"]);
    const message = await new Promise<{ device: string; value: number }>((done, fail) => {
      const socket = new WebSocketClient(`${base.replace("http", "ws")}/api/devices/scale/stream`);
      socket.onmessage = ({ data }: { data: unknown }) => {
        socket.close();
        done(JSON.parse(String(data)) as never);
      };
      socket.onerror = () => fail(new Error("no line"));
    });
    expect(message).toMatchObject({ device: "scale", kind: "scale", unit: "g" });
    expect((await call("POST", "/api/devices/scale/command", { command: "boil" })).status).toBe(400);
    const stored = body.items.find(({ id }) => id === "ph") as StoredDevice;
    const gone = await fetch(`${base}/api/devices/ph`, { method: "DELETE", headers: { "if-match": `"${stored.version}"` } });
    expect(gone.status).toBe(204);
    expect((await call("GET", "/api/devices/ph")).status).toBe(404);
  });
  test("nonsense, another's words and too much are dropped and counted, and what is sound still comes through", () => {
    const hub = new DeviceHub(async () => null);
    hub.pair("s", { kind: "scale", simulated: false });
    const sound = { device: "s", kind: "scale", at: "2026-11-28T05:00:00Z", value: 12, unit: "g" };
    let now = 1000;
    expect(hub.hear("s", JSON.stringify(sound), now)).toBe(true);
    for (const bad of ["{", "", 7, null, { ...sound, value: "much" }, { ...sound, device: "t" }, { ...sound, kind: "probe" }, { ...sound, at: "now" }]) expect(hub.hear("s", bad, now)).toBe(false);
    expect(hub.state("s")).toMatchObject({ dropped: 8, last: { value: 12 } });
    for (let k = 0; k < 500; k++) hub.hear("s", sound, now);
    expect(hub.state("s").dropped).toBeGreaterThan(480);
    now += 2000;
    expect(hub.hear("s", { ...sound, value: 13 }, now)).toBe(true);
    hub.close();
  }); // prettier-ignore
});

/** The browser's own socket, as Node 20 has it behind a flag: the one that the server's own plugin brings. */
// eslint-disable-next-line @typescript-eslint/no-require-imports
const WebSocketClient = require("ws") as new (url: string) => {
  onmessage: (event: { data: unknown }) => void;
  onerror: () => void;
  close(): void;
};

describe("a killed process", () => {
  const root = resolve(__dirname, "../../..");
  const start = (data: string): Promise<{ child: ChildProcess; url: string }> =>
    new Promise((done, fail) => {
      const child = spawn(process.execPath, ["apps/server/dist/main.mjs"], { cwd: root, env: { ...process.env, PORT: "0", UPRISE_DATA: data, UPRISE_DEMO: "1" }, stdio: ["ignore", "pipe", "inherit"] }); // prettier-ignore
      child.stdout?.on("data", (chunk: Buffer) => {
        const url = /http:\/\/\S+/.exec(chunk.toString())?.[0];
        if (url) done({ child, url });
      });
      child.once("exit", (code) => fail(new Error(`server ended with ${code}`)));
    });
  const end = (child: ChildProcess, signal: NodeJS.Signals): Promise<unknown> => {
    child.removeAllListeners("exit");
    const over = new Promise((done) => child.on("exit", done));
    child.kill(signal);
    return over;
  };
  test("between events finds every one that it took, and the queue that is sent again counts once", async () => {
    execFileSync(process.execPath, ["scripts/build-server.mjs"], { cwd: root });
    const data = mkdtempSync(join(tmpdir(), "uprise-killed-"));
    const queue = Array.from({ length: 12 }, (_, k) => event(`q${k}`, k, k === 5 ? { kind: "step", stepId: "bake", done: false } : { kind: "probe", celsius: 20 + k })); // prettier-ignore
    let server = await start(data);
    base = server.url;
    await call("POST", "/api/bakes", { id: "b1", formulaId: "pear-loaf" });
    for (const one of queue.slice(0, 9)) {
      await call("POST", "/api/bakes/b1/events", { events: [one] });
      if (one === queue[3] || one === queue[8]) {
        await end(server.child, "SIGKILL");
        server = await start(data);
        base = server.url;
      }
    }
    // The phone does not know what arrived: it sends all of it.
    const { body } = await call<{ fresh: string[] }>("POST", "/api/bakes/b1/events", { events: queue });
    expect(body.fresh).toEqual(["q9", "q10", "q11"]);
    const { body: bake } = await call<StoredBake>("GET", "/api/bakes/b1");
    expect(bake.events.map(({ id }) => id)).toEqual(queue.map((one) => (one as { id: string }).id));
    expect(foldBake(bake.record, bake.events).probe.length).toBe(6);
    await end(server.child, "SIGTERM");
    rmSync(data, { recursive: true, force: true });
  }, 60_000);
});
