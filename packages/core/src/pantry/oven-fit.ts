import type { Vessel } from "./vessel-schema";

/** What is known of an oven's inside. */
export interface OvenInside {
  racks?: number | undefined;
  widthMm?: number | undefined;
  depthMm?: number | undefined;
}

/** Air must pass between vessels and along the walls, mm; a rim or handle stands out so far on each side, mm. */
const GAP_MM = 25;
const RIM_MM = 10;
/** A tin of cups: columns and rows of the usual numbers, and the web between two cups, mm. */
const CUP_ROWS: Record<number, number> = { 6: 2, 12: 3, 24: 4 };
const CUP_WEB_MM = 18;

/** What a vessel covers on a rack, mm: the longer side first; null where it has no outline of its own. */
export function outerMm(vessel: Vessel): { long: number; wide: number } | null {
  const sides = (a: number, b: number): { long: number; wide: number } => ({
    long: Math.max(a, b) + 2 * RIM_MM,
    wide: Math.min(a, b) + 2 * RIM_MM,
  });
  switch (vessel.shape) {
    case "rectangular":
      return vessel.lengthMm === undefined ? null : sides(vessel.lengthMm, vessel.widthMm ?? vessel.lengthMm);
    case "round":
    case "ring":
      return vessel.diameterMm === undefined ? null : sides(vessel.diameterMm, vessel.diameterMm);
    case "muffin": {
      const cups = vessel.pieces ?? 12;
      const rows = CUP_ROWS[cups] ?? Math.max(1, Math.round(Math.sqrt((cups * 3) / 4)));
      const pitch = (vessel.diameterMm ?? 70) + CUP_WEB_MM;
      return sides(Math.ceil(cups / rows) * pitch, rows * pitch);
    }
    case "free":
    case "griddle":
      return null;
  }
}

/** How many of a vessel stand on one rack, the better of two ways round; null where oven or vessel is not measured. */
export function perRack(oven: OvenInside, vessel: Vessel): number | null {
  const outer = outerMm(vessel);
  if (!outer || oven.widthMm === undefined || oven.depthMm === undefined) return null;
  const along = (room: number, size: number): number => Math.max(0, Math.floor((room - GAP_MM) / (size + GAP_MM)));
  const { widthMm, depthMm } = oven;
  return Math.max(along(widthMm, outer.long) * along(depthMm, outer.wide), along(widthMm, outer.wide) * along(depthMm, outer.long));
}
