import { CoreError } from "../errors";

/** Ways to divide a dough or a baked slab. Lengths in mm. */
export type Division =
  | { way: "wedges"; diameterMm: number; pieces: number }
  | { way: "slices"; lengthMm: number; pieces: number }
  | { way: "squares"; lengthMm: number; widthMm: number; rows: number; columns: number }
  | { way: "scoops"; scoopMl: number }
  | { way: "balls"; pieceG: number };

export interface Divided {
  pieces: number;
  pieceG: number;
  /** Grams that do not make a whole piece. */
  leftG: number;
  /** What a piece measures, the telling sizes first. */
  sizes: { name: string; mm: number }[];
}

/** Scoops as they are sold, mL level. */
export const scoopsMl = [15, 20, 30, 40, 50, 60, 80, 100] as const;

const volumeMm3 = (grams: number, density: number): number => (grams / density) * 1000;
const whole = (value: number): number => Math.max(1, Math.round(value));

/** Diameter of a ball of so many mm³: (6 V/π)^⅓. */
export const ballMm = (mm3: number): number => Math.cbrt((6 * mm3) / Math.PI);

/** Divides so many grams at a density in g/mL. Throws `bad-amount` when there is nothing to divide or a measure is not above 0. */
export function divide(massG: number, density: number, division: Division): Divided {
  const measures = Object.values(division).filter((value) => typeof value === "number");
  if (!(massG > 0) || !(density > 0) || measures.some((value) => !(value > 0))) {
    throw new CoreError("bad-amount", `${massG} g cannot be divided so; amounts and measures above 0 would be right.`, "division");
  }
  const volume = volumeMm3(massG, density);
  switch (division.way) {
    case "wedges": {
      const pieces = whole(division.pieces);
      const radius = division.diameterMm / 2;
      return {
        pieces,
        pieceG: massG / pieces,
        leftG: 0,
        sizes: [
          { name: "thick", mm: volume / (Math.PI * radius * radius) },
          { name: "long", mm: radius },
          { name: "wide at the rim", mm: (2 * Math.PI * radius) / pieces },
        ],
      };
    }
    case "slices": {
      const pieces = whole(division.pieces);
      return {
        pieces,
        pieceG: massG / pieces,
        leftG: 0,
        sizes: [
          { name: "thick", mm: division.lengthMm / pieces },
          { name: "across", mm: Math.sqrt((4 * volume) / (Math.PI * division.lengthMm)) },
        ],
      };
    }
    case "squares": {
      const pieces = whole(division.rows) * whole(division.columns);
      return {
        pieces,
        pieceG: massG / pieces,
        leftG: 0,
        sizes: [
          { name: "long", mm: division.lengthMm / whole(division.columns) },
          { name: "wide", mm: division.widthMm / whole(division.rows) },
          { name: "thick", mm: volume / (division.lengthMm * division.widthMm) },
        ],
      };
    }
    case "scoops":
      return byMass(massG, density, division.scoopMl * density);
    case "balls":
      return byMass(massG, density, division.pieceG);
  }
}

function byMass(massG: number, density: number, pieceG: number): Divided {
  const pieces = Math.max(1, Math.floor(massG / pieceG + 1e-9));
  const each = Math.min(pieceG, massG);
  return {
    pieces,
    pieceG: each,
    leftG: Math.max(0, massG - pieces * each),
    sizes: [{ name: "across as a ball", mm: ballMm(volumeMm3(each, density)) }],
  };
}
