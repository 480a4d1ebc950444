import library from "./data/vessels.json";
import type { Vessel, Oven } from "./vessel-schema";

export const shapes = ["rectangular", "round", "muffin", "ring", "free", "griddle"] as const;
export const materials = ["light-metal", "dark-steel", "cast-iron", "glass", "ceramic", "silicone", "paper"] as const;
export const linings = ["none", "greased", "greased-base", "paper", "paper-cups"] as const;
/** What a piece that stands by itself is: rolled or rounded, dropped, patted, cut; `sheet` is rolled thin. */
export const pieceForms = ["ball", "drop", "disc", "wedge", "log", "slice", "sheet"] as const;
export type PieceForm = (typeof pieceForms)[number];
/** Fat melts and sizzles in a warm pan, °C. */
export const WARM_C = 100;
/** A vessel whose warmth was given in one word, with what that word means. */
export function withStart(vessel: Vessel): Vessel {
  const { start, ...rest } = vessel;
  if (start === undefined) return vessel;
  const { warmC, ...cold } = rest;
  return start === "warm" ? { ...cold, preheated: false, warmC: warmC ?? WARM_C } : { ...cold, preheated: start === "hot" };
}
/** Racks of an oven, from below. */
export const ovenShelves = ["low", "middle", "high"] as const;
export const ovenModes = ["still", "fan", "air-fryer", "hob"] as const;
/** What a kitchen oven does, °C. */
export const ovenLimits = { least: 60, most: 320 } as const;
/** The oven as asked for, with what is known of that very oven. */
export const withProfile = (oven: Oven, profile: { biasK: number; swingK: number } | undefined): Oven =>
  profile ? { ...oven, biasK: profile.biasK, swingK: profile.swingK } : oven;
export interface NamedVessel {
  id: string;
  name: string;
  vessel: Vessel;
}
export const vesselLibrary = library as NamedVessel[];
export const vesselOf = (id: string): NamedVessel | undefined => vesselLibrary.find((entry) => entry.id === id);
