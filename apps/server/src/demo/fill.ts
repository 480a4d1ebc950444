import { packetSchema } from "@uprise/core";
import type { OvenProfile, PlanRequest } from "@uprise/contract";
import { digestOf } from "../store/pages";
import type { Store, WholeThing } from "../store/store";
import { demoFormulas } from "./formulas";
import packets from "./packets.json";
import { demoSeason } from "./seasons";
import { demoTrials } from "./trials";

const kioskOven: OvenProfile = {
  name: "Kiosk oven, runs hot",
  modes: ["still", "fan"],
  biasK: 14,
  swingK: 8,
  warmMinutes: 18,
  racks: 3,
  widthMm: 520,
  depthMm: 400,
};

const homeOven: OvenProfile = {
  name: "Home oven",
  modes: ["still", "fan"],
  biasK: 0,
  swingK: 6,
  warmMinutes: 12,
  racks: 2,
  widthMm: 450,
  depthMm: 380,
};

const demoDevices = [
  ["scale", "scale", "Bench scale"],
  ["probe", "probe", "Long probe"],
  ["oven-eye", "oven", "Oven thermometer"],
  ["ph", "ph", "pH pen"],
] as const;

const SATURDAY = 6;

/** The next Saturday, on which everything must be ready when the first boat lands at half past eight; the pier's clock is an hour ahead of UTC. */
export function demoDay(today: Date): PlanRequest {
  const days = (SATURDAY - today.getUTCDay() + 7) % 7;
  const saturday = new Date(today.getTime() + days * 86_400_000).toISOString().slice(0, 10);
  const readyBy = `${saturday}T08:30:00+01:00`;
  return {
    start: `${saturday}T05:00:00+01:00`,
    bakes: [
      { id: "loaf", formulaId: "pear-loaf", batches: 1, readyBy },
      { id: "biscuits", formulaId: "chive-biscuits", pieces: 16, readyBy },
      { id: "muffins", formulaId: "beet-muffins", pieces: 24, vessels: 1, readyBy },
      { id: "skillet", formulaId: "millet-skillet", batches: 1, readyBy },
    ],
    ovens: [{ id: "kiosk-oven", ...kioskOven, racks: 3 }],
    hands: 1,
    mixers: 1,
  };
}

/** Fills an empty store with the demo at once, the oldest first so that the pear loaf is on top of the list. */
export async function fillDemo(store: Store): Promise<void> {
  const today = new Date();
  const { season, trials } = demoSeason(today);
  const things: [table: WholeThing["table"], id: string, body: unknown][] = [
    ...[...demoFormulas].reverse().map(({ id, formula }): [WholeThing["table"], string, unknown] => ["formulas", id, formula]),
    ["ovens", "kiosk-oven", kioskOven],
    ["ovens", "home-oven", homeOven],
    ["plans", "first-boat", { title: "Ready when the first boat lands", day: demoDay(today) }],
    ...packets.map(({ id, ...packet }): [WholeThing["table"], string, unknown] => ["packets", id, packetSchema.parse(packet)]),
    ...demoTrials(today).map(({ id, trial }): [WholeThing["table"], string, unknown] => ["trials", id, trial]),
    ...trials.map(({ id, trial }): [WholeThing["table"], string, unknown] => ["trials", id, trial]),
    ["seasons", "taller-pear-loaf", season],
    ...demoDevices.map(([id, kind, name]): [WholeThing["table"], string, unknown] => ["devices", id, { name, kind, simulated: true }]),
  ]; // prettier-ignore
  await store.whole.inOne(async (hand) => {
    for (const [k, [table, id, body]] of things.entries()) {
      const at = new Date(today.getTime() - things.length + k).toISOString();
      await hand.put({ table, id, version: 1, shape: 1, createdAt: at, updatedAt: at, body, made: digestOf(body) });
      if (table === "formulas") await hand.addVersions(id, [{ number: 1, reason: "as baked for the kiosk", savedAt: at, body }]);
    }
  });
}
