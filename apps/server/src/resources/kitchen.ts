import {
  ingredientInputSchema,
  ovenInputSchema,
  type ovenProfileSchema,
  packetInputSchema,
  storedIngredientSchema,
  type StoredPacket,
  storedPacketSchema,
  storedOvenSchema,
  type StoredVessel,
  storedVesselSchema,
  type StoredIngredient,
  vesselInputSchema,
} from "@uprise/contract";
import { catalogue, type Ingredient, type Packet, type Vessel, searchIngredients, shelfWith, vesselLibrary } from "@uprise/core";
import type { z } from "zod";
import type { Store, StoredThing } from "../store/store";
import type { App } from "../wire";
import { resource, withoutBody } from "./resource";

const builtInTimes = { version: 1, createdAt: "2026-01-01T00:00:00.000Z", updatedAt: "2026-01-01T00:00:00.000Z" };

export function kitchenRoutes(app: App, store: Store): void {
  ingredientRoutes(app, store);
  vesselRoutes(app, store);
  packetRoutes(app, store);
  const ovens = store.things<z.infer<typeof ovenProfileSchema>>("ovens");
  const ovenFrom = (row: StoredThing<z.infer<typeof ovenProfileSchema>>) => ({ ...withoutBody(row), oven: row.body });
  resource(app, {
    path: "/api/ovens",
    what: "oven",
    input: ovenInputSchema,
    answer: storedOvenSchema,
    list: async () => (await ovens.list()).map(ovenFrom),
    read: async (id) => ovens.read(id).then((row) => (row ? ovenFrom(row) : null)),
    create: async ({ id, ...oven }) => ovenFrom(await ovens.create(id, oven)),
    change: async (id, version, { id: _, ...oven }) => ovenFrom(await ovens.change(id, version, oven)),
    remove: (id, version) => ovens.remove(id, version),
    restore: async (id) => ovenFrom(await ovens.restore(id)),
    isBuiltIn: () => false,
  });
}

function packetRoutes(app: App, store: Store): void {
  const rows = store.things<Packet>("packets");
  const from = (row: StoredThing<Packet>): StoredPacket => ({ ...withoutBody(row), packet: row.body });
  resource(app, {
    path: "/api/packets",
    what: "packet",
    input: packetInputSchema,
    answer: storedPacketSchema,
    list: async ({ q }) =>
      (await rows.list()).map(from).filter(({ packet }) => !q || `${packet.name} ${packet.ingredientId}`.toLowerCase().includes(q.toLowerCase())), // prettier-ignore
    read: async (id) => rows.read(id).then((row) => (row ? from(row) : null)),
    create: async ({ id, ...packet }) => from(await rows.create(id, packet)),
    change: async (id, version, { id: _, ...packet }) => from(await rows.change(id, version, packet)),
    remove: (id, version) => rows.remove(id, version),
    restore: async (id) => from(await rows.restore(id)),
    isBuiltIn: () => false,
  });
}

function ingredientRoutes(app: App, store: Store): void {
  const rows = store.things<Ingredient>("ingredients");
  const own = (row: StoredThing<Ingredient>): StoredIngredient => ({ ...withoutBody(row), own: true, ingredient: row.body });
  const builtIn = (ingredient: Ingredient): StoredIngredient => ({ id: ingredient.id, ...builtInTimes, own: false, ingredient });
  const ids = new Set(catalogue.map((entry) => entry.id));
  resource(app, {
    path: "/api/ingredients",
    what: "ingredient",
    input: ingredientInputSchema,
    answer: storedIngredientSchema,
    list: async ({ q }) => {
      const mine = await rows.list();
      const byId = new Map(mine.map((row) => [row.id, own(row)]));
      const shelf = shelfWith(mine.map((row) => row.body));
      const found = q ? searchIngredients(q, shelf, 500) : shelf.all();
      return found.map((entry) => byId.get(entry.id) ?? builtIn(entry));
    },
    read: async (id) => {
      const row = await rows.read(id);
      const shipped = catalogue.find((entry) => entry.id === id);
      return row ? own(row) : shipped ? builtIn(shipped) : null;
    },
    create: async (body) => own(await rows.create(body.id, body)),
    change: async (id, version, body) => own(await rows.change(id, version, { ...body, id })),
    remove: (id, version) => rows.remove(id, version),
    restore: async (id) => own(await rows.restore(id)),
    isBuiltIn: (id) => ids.has(id),
  });
}

function vesselRoutes(app: App, store: Store): void {
  const rows = store.things<{ name: string; vessel: Vessel }>("vessels");
  const own = (row: StoredThing<{ name: string; vessel: Vessel }>): StoredVessel => ({
    ...withoutBody(row),
    own: true,
    ...row.body,
  });
  const builtIn = vesselLibrary.map((entry): StoredVessel => ({ ...entry, ...builtInTimes, own: false }));
  const fits = (name: string, q: string | undefined): boolean => !q || name.toLowerCase().includes(q.toLowerCase());
  resource(app, {
    path: "/api/vessels",
    what: "vessel",
    input: vesselInputSchema,
    answer: storedVesselSchema,
    list: async ({ q }) => [...(await rows.list()).map(own), ...builtIn].filter((entry) => fits(entry.name, q)),
    read: async (id) => {
      const row = await rows.read(id);
      return row ? own(row) : (builtIn.find((entry) => entry.id === id) ?? null);
    },
    create: async ({ id, name, vessel }) => own(await rows.create(id, { name, vessel })),
    change: async (id, version, { name, vessel }) => own(await rows.change(id, version, { name, vessel })),
    remove: (id, version) => rows.remove(id, version),
    restore: async (id) => own(await rows.restore(id)),
    isBuiltIn: (id) => builtIn.some((entry) => entry.id === id),
  });
}
