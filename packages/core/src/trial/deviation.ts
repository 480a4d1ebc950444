import type { Opened } from "../formula/open";
import type { BakeStage } from "../formula/stage-schema";
import { SODA_MMOL_PER_G } from "../lift/acids";
import type { Shelf } from "../pantry/shelf";
import type { Oven, Vessel } from "../pantry/vessel-schema";
import type { DeviationKind } from "./causes";
import { gramsIn, groups, scaledGroup, withMore } from "./groups";

/** A bake as it went in another kitchen: what was mixed and where it was baked, and for which share of the minutes. */
export interface Deviated {
  input: Opened;
  /** Of the planned minutes. */
  minutes: number;
}

/** g of cream of tartar that meet a mmol of soda. */
const TARTAR_G_PER_MMOL = 0.188;
/** What soda without acid is added where the formula has none, as a share of the batter (a spoon for a loaf). */
const STRAY_SODA = 0.004;
/** K that an oven which is still warming up is short of, and that a door lets out. */
const COLD_START_K = 70;
const DOOR_K = 60;
const DOOR_AT = 0.4;

const scaledPan = (vessel: Vessel, factor: number): Vessel => {
  const out: Record<string, unknown> = { ...vessel };
  for (const key of ["lengthMm", "widthMm", "diameterMm", "baseLengthMm", "baseWidthMm", "baseDiameterMm"] as const)
    if (vessel[key] !== undefined) out[key] = vessel[key] * factor;
  if (vessel.capacityMl !== undefined) out["capacityMl"] = vessel.capacityMl * factor * factor;
  return out as Vessel;
};

/** Takes the acids away or adds to them; what was sour milk is plain milk then, what was vinegar is water. */
function otherAcid(input: Opened, by: number, shelf: Shelf): Opened {
  if (by >= 1) {
    const soda = gramsIn(input, "soda", shelf) * SODA_MMOL_PER_G + gramsIn(input, "powder", shelf) * 0.28 * SODA_MMOL_PER_G;
    return withMore(input, "cream-of-tartar", Math.max(1, soda * TARTAR_G_PER_MMOL * (by - 1)));
  }
  return {
    ...input,
    lines: input.lines.map((line) => {
      const ingredient = shelf.get(line.ingredientId ?? "");
      if (!ingredient || line.component !== undefined || !groups.acid(ingredient)) return line;
      const plain = ingredient.family === "cultured" || ingredient.family === "dairy" ? "whole-milk" : "water";
      return ingredient.family === "acid" ? { ...line, grams: 0.01 } : { ...line, ingredientId: plain };
    }),
  };
}

const inOven = (input: Opened, set: Partial<Oven>): Opened => ({
  ...input,
  ...(input.oven ? { oven: { ...input.oven, ...set } } : {}),
});

function staged(input: Opened, first: BakeStage[]): Opened {
  // A course that the baker has laid out is the bake's own; it is not cut up.
  if (input.process?.stages || !input.oven) return input;
  return { ...input, process: { ...input.process, stages: [...first, {}] } };
}

/**
 * A bake in which one thing went otherwise than planned; `severity` 1 is as the table says, 0 nothing. `minutes` is what it takes as planned. Null
 * where this formula has nothing of the kind (no soda to double, no oven).
 */
export function deviated(input: Opened, { what, by, of }: DeviationKind, shelf: Shelf, minutes: number, severity = 1): Deviated | null {
  const factor = Math.max(0, 1 + (by - 1) * severity);
  const plain = (next: Opened | null): Deviated | null => (next ? { input: next, minutes: 1 } : null);
  const { oven } = input;
  switch (what) {
    case "soda": {
      const soda = gramsIn(input, "soda", shelf);
      const all = input.lines.reduce((sum, line) => sum + (typeof line.grams === "number" ? line.grams : (line.grams?.mid ?? 0)), 0);
      return plain(soda > 0 ? scaledGroup(input, "soda", factor, shelf) : withMore(input, "soda", STRAY_SODA * all * severity));
    }
    case "acid":
      return plain(by < 1 && gramsIn(input, "acid", shelf) === 0 ? null : otherAcid(input, by < 1 ? 0 : factor, shelf));
    case "leavening":
    case "powder":
    case "water":
    case "fat":
    case "sugar":
    case "egg":
    case "flour":
    case "salt":
      return plain(gramsIn(input, what, shelf) === 0 ? null : scaledGroup(input, what, factor, shelf));
    case "binder":
      if (gramsIn(input, "binder", shelf) === 0) return by > 1 ? plain(withMore(input, "xanthan", 0.012 * gramsIn(input, "flour", shelf) * severity)) : null;
      return plain(scaledGroup(input, "binder", factor, shelf));
    case "stood":
      return plain({ ...input, process: { ...input.process, restMinutes: (input.process?.restMinutes ?? 0) + by * severity } });
    case "batterC":
      return plain({ ...input, process: { ...input.process, batterC: by } });
    case "pan":
      return plain(input.vessel && input.vessel.shape !== "free" && input.vessel.shape !== "griddle" ? { ...input, vessel: scaledPan(input.vessel, factor) } : null);
    case "panMaterial":
      return plain(input.vessel && input.vessel.material !== of ? { ...input, vessel: { ...input.vessel, material: of as NonNullable<Vessel["material"]> } } : null);
    case "ovenK":
      return plain(oven ? inOven(input, { biasK: (oven.biasK ?? 0) + by * severity, swingK: oven.swingK ?? 6 }) : null);
    case "shelf":
      return plain(oven && oven.mode !== "hob" && oven.shelf !== of ? inOven(input, { shelf: of as NonNullable<Oven["shelf"]> }) : null);
    case "coldStart":
      return plain(oven && oven.mode !== "hob" ? staged(input, [{ celsius: Math.max(60, oven.celsius - COLD_START_K), minutes: by * severity }]) : null);
    case "door":
      return plain(
        oven && oven.mode !== "hob" && minutes > 8
          ? staged(input, [{ celsius: oven.celsius, minutes: DOOR_AT * minutes }, { celsius: Math.max(60, oven.celsius - DOOR_K), minutes: Math.max(0.5, by * severity) }])
          : null,
      );
    case "minutes":
      return { input, minutes: factor };
  }
} // prettier-ignore

export { scaledPan };
