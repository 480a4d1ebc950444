import { fillVessel } from "../bake/geometry";
import { FULLEST, LIKED } from "../bake/liked-fill";
import type { Analysis } from "../balance/readings";
import type { Kind } from "../formula/kinds";
import { vesselLibrary } from "../pantry/vessel";
import type { Vessel } from "../pantry/vessel-schema";
import type { Wish } from "./wish-schema";

/** Pieces where nothing says how heavy, g. */
const FREE_PIECE_G = 80;

/** A batter as it is poured, g/mL, before it is known. */
const ABOUT = 1.02;
/** A baked piece over the batter that it is made of, where nothing is known of it yet. */
const BAKED = 0.92;

/** Where pieces of so much are wanted and no pan is named: the cups in which they stand nearest to how full they like to be. */
export function panFor({ pieceG }: Wish, usual: Vessel): Vessel {
  if (pieceG === undefined || usual.shape !== "muffin") return usual;
  const fullness = (vessel: Vessel): number => {
    const { pieces: _, ...cup } = vessel;
    const { capacityMl } = fillVessel({ ...cup, pieces: 1 }, 100, ABOUT);
    return pieceG / BAKED / ABOUT / capacityMl;
  };
  const off = (vessel: Vessel): number => Math.abs(fullness(vessel) - LIKED.mid);
  const cups = vesselLibrary.map(({ vessel }) => vessel).filter(({ shape }) => shape === "muffin");
  const fits = [usual, ...cups].filter((vessel) => fullness(vessel) <= FULLEST);
  // The usual pan where it does; else the one that comes nearest.
  return fullness(usual) <= FULLEST ? usual : ([...fits].sort((a, b) => off(a) - off(b))[0] ?? usual);
}

/** How deep a kind that is no tall one stands in its pan, mm; kitchen habit, confidence C. */
const FLAT_MM: Partial<Record<Kind, number>> = {
  "cornbread-plain": 27,
  "cornbread-sweet": 32,
  bar: 22,
  "tray-bread": 24,
  flatbread: 10,
};

/** The mass that is wanted: by pieces, or by how full (and for flat kinds how deep) this batter stands in its pan now. */
export function massFor({ kind, pieces, pieceG }: Wish, vessel: Vessel, now: Analysis, lossPercent: number, mass: number): number {
  if (pieceG !== undefined) return ((pieces ?? vessel.pieces ?? 1) * pieceG) / (1 - lossPercent / 100);
  if (vessel.shape === "free" || vessel.shape === "griddle")
    return (pieces ?? vessel.pieces ?? 8) * (vessel.pieceG ?? FREE_PIECE_G);
  const { fillFraction, depthMm } = now.fill;
  if (fillFraction <= 0) return mass;
  const deep = FLAT_MM[kind];
  const full = LIKED.mid / fillFraction;
  return now.batch.massG * (deep === undefined ? full : Math.min(full, deep / Math.max(depthMm, 0.1)));
}
