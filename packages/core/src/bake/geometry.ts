import { CoreError } from "../errors";
import type { Vessel } from "../pantry/vessel";

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

/** Walls of a muffin cup lean out: base over rim diameter. */
const CUP_TAPER = 0.78;
/** A ring's tube takes this share of its diameter. */
const RING_TUBE = 0.3;
const ASSUMED_HEIGHT = { rectangular: 60, round: 50, ring: 90, muffin: 34 };
/** Mass of a free piece and a griddle cake where nothing says otherwise, g. */
const PIECE_G = { free: 85, griddle: 55 };

/** Fills a vessel with so many grams of batter at a density in g/mL. Throws `bad-vessel` when a needed measure is missing. */
export function fillVessel(vessel: Vessel, massG: number, densityGPerMl: number): FilledVessel {
  const batterMl = massG / densityGPerMl;
  switch (vessel.shape) {
    case "rectangular": {
      const length = needed(vessel.lengthMm, "lengthMm", vessel.shape, 230);
      const width = vessel.widthMm ?? length;
      return walled(
        vessel,
        massG,
        batterMl,
        length * width,
        2 * (length + width),
        Math.min(length, width),
        vessel.heightMm ?? ASSUMED_HEIGHT.rectangular,
      );
    }
    case "round": {
      const d = needed(vessel.diameterMm, "diameterMm", vessel.shape, 230);
      return walled(vessel, massG, batterMl, (Math.PI / 4) * d * d, Math.PI * d, d, vessel.heightMm ?? ASSUMED_HEIGHT.round);
    }
    case "ring": {
      const d = needed(vessel.diameterMm, "diameterMm", vessel.shape, 240);
      const tube = RING_TUBE * d;
      return walled(
        vessel,
        massG,
        batterMl,
        (Math.PI / 4) * (d * d - tube * tube),
        Math.PI * (d + tube),
        (d - tube) / 2,
        vessel.heightMm ?? ASSUMED_HEIGHT.ring,
      );
    }
    case "muffin":
      return cups(vessel, massG, batterMl);
    case "free":
    case "griddle":
      return loosePieces(vessel, massG, batterMl);
  }
}

function needed(value: number | undefined, field: string, shape: string, example: number): number {
  if (value !== undefined) return value;
  throw new CoreError("bad-vessel", `A ${shape} vessel needs ${field}; ${example} would be a usual one.`, `vessel.${field}`);
}

function walled(
  vessel: Vessel,
  massG: number,
  batterMl: number,
  area: number,
  rim: number,
  width: number,
  height: number,
): FilledVessel {
  const count = vessel.pieces ?? 1;
  const depth = (batterMl * 1000) / (area * count);
  return {
    fillFraction: depth / height,
    depthMm: depth,
    pieces: count,
    pieceG: massG / count,
    capacityMl: (area * height * count) / 1000,
    batterMl,
    surfaceMm2: count * (2 * area + rim * depth),
    footprintMm2: area * count,
    heightMm: height,
    widthMm: width,
  };
}

/** Volume of a cup filled to a depth, mm³: a cone cut off, wider at the rim. */
const cupVolume = (rim: number, height: number, depth: number): number => {
  const base = CUP_TAPER * rim;
  const top = base + (rim - base) * (depth / height);
  return (Math.PI * depth * (base * base + base * top + top * top)) / 12;
};

function cups(vessel: Vessel, massG: number, batterMl: number): FilledVessel {
  const rim = vessel.diameterMm ?? 70;
  const height = vessel.heightMm ?? ASSUMED_HEIGHT.muffin;
  const pieces = vessel.pieces ?? (vessel.pieceG ? Math.max(1, Math.round(massG / vessel.pieceG)) : 12);
  const each = (batterMl * 1000) / pieces;
  let low = 0;
  let high = height * 4;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (cupVolume(rim, height, middle) < each) low = middle;
    else high = middle;
  }
  const depth = (low + high) / 2;
  const base = CUP_TAPER * rim;
  const top = base + (rim - base) * (depth / height);
  const slant = Math.hypot(depth, (top - base) / 2);
  const surface = (Math.PI / 4) * (base * base + top * top) + (Math.PI * (base + top) * slant) / 2;
  const capacity = cupVolume(rim, height, height);
  return {
    fillFraction: each / capacity,
    depthMm: depth,
    pieces,
    pieceG: massG / pieces,
    capacityMl: (capacity * pieces) / 1000,
    batterMl,
    surfaceMm2: surface * pieces,
    footprintMm2: (Math.PI / 4) * rim * rim * pieces,
    heightMm: height,
    widthMm: rim,
  };
}

function loosePieces(vessel: Vessel, massG: number, batterMl: number): FilledVessel {
  const usual = vessel.shape === "griddle" ? PIECE_G.griddle : PIECE_G.free;
  const pieces = vessel.pieceG
    ? Math.max(1, Math.round(massG / vessel.pieceG))
    : (vessel.pieces ?? Math.max(1, Math.round(massG / usual)));
  const each = (batterMl * 1000) / pieces;
  const thickness = vessel.thicknessMm ?? (vessel.shape === "griddle" ? 8 : 26);
  const area = each / thickness;
  const diameter = Math.sqrt((4 * area) / Math.PI);
  const wall = vessel.touching ? 0 : Math.PI * diameter * thickness;
  return {
    fillFraction: 0,
    depthMm: thickness,
    pieces,
    pieceG: massG / pieces,
    capacityMl: Infinity,
    batterMl,
    surfaceMm2: pieces * (2 * area + wall),
    footprintMm2: pieces * area,
    heightMm: null,
    widthMm: diameter,
  };
}
