import type { Vessel } from "../pantry/vessel-schema";
import { outlineOf } from "./outline";
import { baseArea, depthOf, volumeTo, wideningAt } from "./section";

/** A vessel as filled with a batter: lengths in mm, areas in mm², volumes in mL (1000 mm³). */
export interface FilledVessel {
  /** Batter volume over the vessel's volume to the rim; for free pieces 0. */
  fillFraction: number;
  depthMm: number;
  pieces: number;
  pieceG: number;
  /** Inner volume to the rim, mL; Infinity for pieces without a wall. */
  capacityMl: number;
  batterMl: number;
  /** Wetted and open surface of all pieces together, mm². */
  surfaceMm2: number;
  /** Area that the crown stands on, mm², all pieces together. */
  footprintMm2: number;
  heightMm: number | null;
  /** Width of one piece or of the vessel, mm: the narrower side. */
  widthMm: number;
}

const MM2 = 1e6;

/** Fills a vessel with so many grams of batter at a density in g/mL. Throws `bad-vessel` when a needed measure is missing. */
export function fillVessel(vessel: Vessel, massG: number, densityGPerMl: number): FilledVessel {
  const batterMl = massG / densityGPerMl;
  const { shape, pieces } = outlineOf(vessel, massG, batterMl);
  const each = batterMl / pieces / 1e6;
  const depth = depthOf(shape, each);
  const walled = shape.rim > 0;
  const capacity = walled ? volumeTo(shape, shape.rim) : Infinity;
  const base = baseArea(shape);
  const top = base * wideningAt(shape, depth);
  const rim = base * wideningAt(shape, shape.rim);
  return {
    fillFraction: walled ? each / capacity : 0,
    depthMm: depth * 1000,
    pieces,
    pieceG: massG / pieces,
    capacityMl: capacity * pieces * 1e6,
    batterMl,
    surfaceMm2: pieces * (base + top + (1 - shape.covered) * sideArea(shape, depth, top / base)) * MM2,
    footprintMm2: pieces * rim * MM2,
    heightMm: walled ? shape.rim * 1000 : null,
    widthMm: 2000 * shape.reach * (shape.form === "axial" ? shape.flare : Math.sqrt(shape.flare)),
  };
}

/** Wetted wall of one outline, m². */
function sideArea(shape: ReturnType<typeof outlineOf>["shape"], depth: number, widening: number): number {
  if (shape.form === "plane") return 2 * (shape.length + shape.ends * shape.length) * depth * (1 + Math.sqrt(widening)) * 0.5;
  const upper = shape.reach * Math.sqrt(widening);
  return Math.PI * (shape.reach + upper) * Math.hypot(depth, upper - shape.reach);
}
