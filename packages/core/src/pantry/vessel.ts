import library from "./data/vessels.json";
import type { Vessel, Oven } from "./vessel-schema";

/** Fat melts and sizzles in a warm pan, °C. */
export const WARM_C = 100;
/** A vessel whose warmth was given in one word, with what that word means. */
export function withStart(vessel: Vessel): Vessel {
  const { start, ...rest } = vessel;
  if (start === undefined) return vessel;
  const { warmC, ...cold } = rest;
  return start === "warm" ? { ...cold, preheated: false, warmC: warmC ?? WARM_C } : { ...cold, preheated: start === "hot" };
}
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
