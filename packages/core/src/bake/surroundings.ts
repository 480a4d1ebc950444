import type { Oven, Vessel } from "../pantry/vessel-schema";
import materials from "./data/materials.json";
import modes from "./data/oven-modes.json";
import type { Model } from "./model";
import type { Around, Pan } from "./run";

interface PanMaterial {
  id: string;
  emissivity: number;
  /** J/m²K */
  capacity: number;
  /** m²K/W */
  resistance: number;
  /** How well bare metal beside the batter brings its heat under it: 1 for 1 mm of aluminium, 0 for glass and rubber. */
  fins: number;
  /** Share of its outside that sees the oven, where it stands on a sheet; 1 where it is absent. */
  shaded?: number;
}

const materialById = new Map((materials as PanMaterial[]).map((entry) => [entry.id, entry]));
const modeById = new Map(modes.map((entry) => [entry.id, entry]));

/** What a vessel is made of; free pieces stand on a baking sheet. */
export function panMaterial(vessel: Vessel): PanMaterial {
  const id =
    vessel.shape === "free" && (vessel.material ?? "light-metal") === "light-metal" ? "sheet" : (vessel.material ?? "light-metal");
  const found = materialById.get(id);
  if (!found) throw new Error(`materials.json has no entry for ${id}`);
  return found;
}

/** Pieces that touch leave so much less of the sheet bare. */
const CLOSE_BARE = 0.3;

/** Readings of the body between which a batter flows into every hollow of a plate, and a dough lies on its asperities. */
const POURS = 1.2;
const LIES = 2.2;

/** 0 for batter that is poured on a plate, 1 for dough that is laid on it. */
export const laidShare = (stiffness: number): number => Math.min(1, Math.max(0, (stiffness - POURS) / (LIES - POURS)));

/** Contact with a pan, W/m²K: between batter that is poured and dough that is laid on a plate as their logarithms go. */
function contactOf(vessel: Vessel, stiffness: number, model: Model): number {
  // Fat fills what air would under dough.
  const airy = vessel.shape === "griddle" && vessel.lining !== "greased";
  return airy ? model.contact * (model.laidContact / model.contact) ** laidShare(stiffness) : model.contact;
}

export function panOf(vessel: Vessel, stiffness: number, model: Model): Pan {
  const material = panMaterial(vessel);
  const paper = vessel.lining === "paper" || vessel.lining === "paper-cups";
  const contact = 1 / contactOf(vessel, stiffness, model);
  const bare =
    vessel.shape === "free"
      ? (vessel.touching ? CLOSE_BARE : 1) * model.sheetGathers
      : vessel.shape === "muffin"
        ? model.webGathers
        : 0;
  return {
    gathers: (material.shaded ?? 1) + material.fins * bare,
    emissivity: material.emissivity,
    resistance: contact + material.resistance + (paper ? model.paperResistance : 0),
    plateContact: model.griddleContact,
  };
}

/** Convection of an oven mode, W/m²K, with its range. */
export function convectionOf(mode: NonNullable<Oven["mode"]>): { h: number; low: number; high: number } {
  const found = modeById.get(mode);
  if (!found) throw new Error(`oven-modes.json has no entry for ${mode}`);
  return found;
}

/** Surroundings before the first stage is entered, changed in place as a bake goes on: the kitchen. */
export const aroundKitchen = (kitchenC: number, model: Model): Around => ({
  airC: kitchenC,
  h: model.roomH,
  vapourPa: model.roomVapourPa,
  plateC: null,
  onRack: false,
  tilt: 0,
  grill: 0,
  cover: 0,
  lets: 1,
});
