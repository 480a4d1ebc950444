import { type Packet, packetSchema, type Trial } from "@uprise/core";
import type { DeviceInput, OvenProfile, PlanRequest } from "@uprise/contract";
import type { Store } from "../store/store";
import { demoFormulas } from "./formulas";
import packets from "./packets.json";
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

/** Fills an empty store with the demo, the oldest first so that the pear loaf is on top of the list. */
export async function fillDemo(store: Store): Promise<void> {
  for (const { id, formula } of [...demoFormulas].reverse()) await store.formulas.create(formula, "as baked for the kiosk", id);
  const ovens = store.things<OvenProfile>("ovens");
  await ovens.create("kiosk-oven", kioskOven);
  await ovens.create("home-oven", {
    name: "Home oven",
    modes: ["still", "fan"],
    biasK: 0,
    swingK: 6,
    warmMinutes: 12,
    racks: 2,
    widthMm: 450,
    depthMm: 380,
  });
  await store
    .things<{ title: string; day: PlanRequest }>("plans")
    .create("first-boat", { title: "Ready when the first boat lands", day: demoDay(new Date()) });
  const shelf = store.things<Packet>("packets");
  for (const { id, ...packet } of packets) await shelf.create(id, packetSchema.parse(packet));
  const trials = store.things<Trial>("trials");
  for (const { id, trial } of demoTrials(new Date())) await trials.create(id, trial);
  const devices = store.things<Pick<DeviceInput, "name" | "kind" | "simulated">>("devices");
  for (const [id, kind, name] of [
    ["scale", "scale", "Bench scale"],
    ["probe", "probe", "Long probe"],
    ["oven-eye", "oven", "Oven thermometer"],
    ["ph", "ph", "pH pen"],
  ] as const)
    await devices.create(id, { name, kind, simulated: true });
}
