import { type Formula, upgradedFormula } from "@uprise/core";

/**
 * The shapes of stored bodies. A body is written in the newest shape and upgraded when it is read, so that a version saved years ago opens
 * like one saved today. An entry brings a body from the shape before it to its own; an old entry is never changed.
 */
type Upgrade = (body: Record<string, unknown>) => Record<string, unknown>;

/** From shape n to n + 1, in order; those of formulas are in the core, since a draft on a device needs them too. */
const thingUpgrades: Upgrade[] = [];

export const THING_SHAPE = thingUpgrades.length + 1;

function upgraded(body: unknown, shape: number, upgrades: readonly Upgrade[]): Record<string, unknown> {
  if (typeof body !== "object" || body === null) throw new Error("A stored body is no object; the database is damaged.");
  return upgrades.slice(shape - 1).reduce((now, upgrade) => upgrade(now), body as Record<string, unknown>);
}

export function readFormula(body: unknown): Formula {
  if (typeof body !== "object" || body === null) throw new Error("A stored body is no object; the database is damaged.");
  return upgradedFormula(body) as Formula;
}

export const readThing = <B>(body: unknown, shape: number): B => upgraded(body, shape, thingUpgrades) as unknown as B;
