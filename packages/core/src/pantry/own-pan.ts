import type { Vessel } from "./vessel-schema";

/** Shapes of a pan that one measures oneself. */
export const ownShapes = ["rectangular", "round", "ring", "muffin"] as const;
export type OwnShape = (typeof ownShapes)[number];

/** A usual tin of cups, where nothing is said. */
const USUAL_CUPS = 12;

const across = {
  flat: ["lengthMm", "widthMm", "baseLengthMm", "baseWidthMm"],
  round: ["diameterMm", "baseDiameterMm"],
} as const;

/** The measures that a pan of a shape must have to hold anything. */
export const neededMeasures = (shape: Vessel["shape"]): readonly ("lengthMm" | "diameterMm" | "heightMm")[] =>
  shape === "rectangular" ? ["lengthMm", "heightMm"] : shape === "free" || shape === "griddle" ? [] : ["diameterMm", "heightMm"];

/** The same pan as another shape: what both have stays (a length becomes a diameter), what only the old one had goes. */
export function vesselOfShape(vessel: Vessel, shape: OwnShape): Vessel {
  const round = shape !== "rectangular";
  const next: Vessel = { ...vessel, shape };
  for (const key of round ? across.flat : across.round) delete next[key];
  if (round && vessel.lengthMm !== undefined) next.diameterMm = vessel.lengthMm;
  if (!round && vessel.diameterMm !== undefined) next.lengthMm = vessel.diameterMm;
  if (shape === "muffin") next.pieces = vessel.pieces ?? USUAL_CUPS;
  else delete next.pieces;
  return next;
}
