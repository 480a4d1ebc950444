import type { Kind } from "../formula/kinds";
import type { Process } from "../formula/process-schema";
import { vesselOf } from "../pantry/vessel";
import type { Oven, Vessel } from "../pantry/vessel-schema";
import { profileOf } from "./bands";

/** What is dropped lies as it comes to rest, where nothing says how it is shaped; a sheet's own thickness is for what is patted out. */
export function asDropped(kind: Kind, vessel: Vessel): Vessel;
export function asDropped(kind: Kind, vessel: Vessel | undefined): Vessel | undefined;
export function asDropped(kind: Kind, vessel: Vessel | undefined): Vessel | undefined {
  if (!vessel || kind !== "drop" || vessel.shape !== "free" || vessel.piece !== undefined) return vessel;
  const { thicknessMm: _, ...rest } = vessel;
  return { ...rest, piece: "drop" };
}

/** What the kind of bake takes where nothing is said. */
export function defaultsOf(kind: Kind): { vessel: Vessel; oven: Oven; process: Process } {
  const profile = profileOf(kind);
  return {
    vessel: asDropped(kind, vesselOf(profile.vesselId)?.vessel) ?? {
      shape: "rectangular",
      lengthMm: 230,
      widthMm: 130,
      heightMm: 70,
    },
    oven: { celsius: profile.celsius, mode: profile.mode },
    process: { method: profile.method, restMinutes: 0 },
  };
}
