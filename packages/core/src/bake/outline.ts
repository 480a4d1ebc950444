import { CoreError } from "../errors";
import type { Vessel } from "../pantry/vessel-schema";
import { heapHeight, heapRadius, standsUpright } from "./heap";
import { baseArea, PEAK, type SectionShape, volumeTo } from "./section";

/** Walls of a muffin cup lean out: base over rim diameter, where nothing else is known. */
const CUP_TAPER = 0.78;
/** A ring's tube takes this share of its diameter. */
const RING_TUBE = 0.3;
const ASSUMED_HEIGHT_MM = { rectangular: 60, round: 50, ring: 90, muffin: 34 };
/** Mass of a free piece and a griddle cake where nothing says otherwise, g; their thickness, mm. */
const PIECE_G = { free: 85, griddle: 55 };
const THICKNESS_MM = { free: 26, griddle: 8 };
/** A pancake batter pours to that thickness, Pa; a thinner or thicker one as heaps at rest do, h ~ τ^(2/5), within these shares of it. */
const PANCAKE_PA = 1.7;
const POURS_TO = { least: 0.5, most: 1.5 };
const pouredMm = (yieldPa: number): number =>
  THICKNESS_MM.griddle * Math.min(POURS_TO.most, Math.max(POURS_TO.least, (yieldPa / PANCAKE_PA) ** 0.4));
/** Gas blows a free piece up sideways too: area ~ volume^0.15, a scone that doubles is 5 % wider (kitchen range: under 10 %). */
const SPREAD = 0.15;
/** Yield stress where nobody says otherwise, Pa: a soft dough. */
const DOUGH_PA = 250;

/** A vessel as so many equal outlines. */
export interface Outline {
  shape: SectionShape;
  pieces: number;
}

const m = (mm: number): number => mm / 1000;

/** The outline of one vessel, cup or piece, and how many there are; what has no walls stands by its yield stress, Pa. Throws `bad-vessel` when a needed measure is missing. */
export function outlineOf(vessel: Vessel, massG: number, batterMl: number, yieldPa = DOUGH_PA): Outline {
  switch (vessel.shape) {
    case "rectangular":
      return { shape: measuredByWater(vessel, rectangular(vessel)), pieces: vessel.pieces ?? 1 };
    case "round": {
      const rim = needed(vessel.diameterMm, "diameterMm", vessel.shape, 230);
      const height = vessel.heightMm ?? ASSUMED_HEIGHT_MM.round;
      return { shape: measuredByWater(vessel, axial(rim, vessel.baseDiameterMm ?? rim, height)), pieces: vessel.pieces ?? 1 };
    }
    case "muffin": {
      const rim = vessel.diameterMm ?? 70;
      const height = vessel.heightMm ?? ASSUMED_HEIGHT_MM.muffin;
      const pieces = vessel.pieces ?? (vessel.pieceG ? Math.max(1, Math.round(massG / vessel.pieceG)) : 12);
      return { shape: measuredByWater(vessel, axial(rim, vessel.baseDiameterMm ?? CUP_TAPER * rim, height)), pieces };
    }
    case "ring": {
      const d = needed(vessel.diameterMm, "diameterMm", vessel.shape, 240);
      const tube = RING_TUBE * d;
      const height = vessel.heightMm ?? ASSUMED_HEIGHT_MM.ring;
      const shape = plane((d - tube) / 2, (Math.PI * (d + tube)) / 2, height);
      return { shape: measuredByWater(vessel, { ...shape, ends: 0 }), pieces: vessel.pieces ?? 1 };
    }
    case "free":
    case "griddle":
      return loose(vessel, massG, batterMl, yieldPa);
  }
}

function needed(value: number | undefined, field: string, shape: string, example: number): number {
  if (value !== undefined) return value;
  throw new CoreError("bad-vessel", `A ${shape} vessel needs ${field}; ${example} would be a usual one.`, `vessel.${field}`);
}

function axial(rimMm: number, baseMm: number, heightMm: number): SectionShape {
  const base = Math.min(baseMm, rimMm);
  return {
    form: "axial",
    reach: m(base / 2),
    length: 0,
    ends: 0,
    flare: rimMm / base,
    rim: m(heightMm),
    spread: 0,
    covered: 0,
  };
}

function plane(widthMm: number, lengthMm: number, heightMm: number): SectionShape {
  return {
    form: "plane",
    reach: m(widthMm / 2),
    length: m(lengthMm),
    ends: widthMm / lengthMm,
    flare: 1,
    rim: m(heightMm),
    spread: 0,
    covered: 0,
  };
}

function rectangular(vessel: Vessel): SectionShape {
  const long = needed(vessel.lengthMm, "lengthMm", vessel.shape, 230);
  const wide = vessel.widthMm ?? long;
  const length = Math.max(long, wide);
  const width = Math.min(long, wide);
  const baseLength = Math.min(length, vessel.baseLengthMm ?? length);
  const baseWidth = Math.min(width, vessel.baseWidthMm ?? width);
  const shape = plane(baseWidth, baseLength, vessel.heightMm ?? ASSUMED_HEIGHT_MM.rectangular);
  return { ...shape, flare: (length * width) / (baseLength * baseWidth) };
}

/** No wall leans in further than this, base over rim; a pan that holds less is lower. */
const LEAST_LEAN = 0.5;

/** Sets the lean of the walls so that the volume to the rim is what was measured with water; height where even walls cannot do it. */
function measuredByWater(vessel: Vessel, shape: SectionShape): SectionShape {
  if (vessel.capacityMl === undefined) return shape;
  const wanted = vessel.capacityMl / 1e6;
  const rimArea = baseArea(shape) * (shape.form === "axial" ? shape.flare ** 2 : shape.flare);
  const straight = rimArea * shape.rim;
  if (wanted >= straight) return { ...shape, ...straightened(shape), rim: wanted / rimArea };
  let low = LEAST_LEAN;
  let high = 1;
  const leaning = (ratio: number): SectionShape => {
    const upright = { ...shape, ...straightened(shape) };
    return { ...upright, reach: upright.reach * ratio, flare: 1 / ratio };
  };
  const most = leaning(LEAST_LEAN);
  if (volumeTo(most, shape.rim) > wanted) return { ...most, rim: (shape.rim * wanted) / volumeTo(most, shape.rim) };
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (volumeTo(leaning(middle), shape.rim) < wanted) low = middle;
    else high = middle;
  }
  return leaning((low + high) / 2);
}

/** The same outline with upright walls at the rim's measures. */
const straightened = (shape: SectionShape): { reach: number; length: number; flare: number } =>
  shape.form === "axial"
    ? { reach: shape.reach * shape.flare, length: 0, flare: 1 }
    : { reach: shape.reach * Math.sqrt(shape.flare), length: shape.length * Math.sqrt(shape.flare), flare: 1 };

function loose(vessel: Vessel, massG: number, batterMl: number, yieldPa: number): Outline {
  const kind = vessel.shape === "griddle" ? "griddle" : "free";
  const pieces = vessel.pieceG
    ? Math.max(1, Math.round(massG / vessel.pieceG))
    : (vessel.pieces ?? Math.max(1, Math.round(massG / PIECE_G[kind])));
  const volume = batterMl / pieces / 1e6;
  return { shape: pieceOf(vessel, volume, massG / pieces / 1000 / volume, yieldPa), pieces };
}

/** Set close, neighbours cover so much of a side: all of it in the middle of a sheet, less at its rim, where a third of all sides stand. */
const COVERED = 0.8;
/** Discs meet at points, and only where they have grown does one cover the other. */
const DISCS_COVERED = 0.5;

/** Perimeter of a wedge of an eighth over that of a circle of its area, and length over width of a log. */
const WEDGE_SIDES = 1.25;
const LOG_LENGTHS = 4;

/**
 * The outline of one piece without walls, of so many m³ and kg/m³. As thick in the middle as the vessel says and its stuff can stand; a drop, and
 * what cannot stand so high, is a heap at rest. Set close, neighbours cover its sides and it grows upward only.
 */
export function pieceOf(vessel: Vessel, volume: number, density: number, yieldPa: number): SectionShape {
  const kind = vessel.shape === "griddle" ? "griddle" : "free";
  const form = vessel.piece ?? "disc";
  const heaped = heapRadius(volume, yieldPa, density);
  const resting = heapHeight(heaped, yieldPa, density);
  const usual = kind === "griddle" ? m(pouredMm(yieldPa)) : form === "drop" ? resting : m(THICKNESS_MM.free);
  const said = vessel.thicknessMm === undefined ? usual : m(vessel.thicknessMm);
  const upright = Math.max(resting, standsUpright(yieldPa, density));
  const high = vessel.touching || kind === "griddle" ? said : Math.min(said, upright);
  // What somebody shaped or measured is rounder than a heap that has come to rest by itself; so is one that leans on others.
  const shaped = vessel.touching === true || (vessel.thicknessMm !== undefined && said <= upright);
  const profile = form === "drop" ? (shaped ? "dome" : "heap") : form === "ball" ? "dome" : undefined;
  const free =
    vessel.touching === true ? { spread: 0, covered: form === "disc" ? DISCS_COVERED : COVERED } : { spread: SPREAD, covered: 0 };
  if (form === "log") {
    // A flattened half round: its section is π/4 of width times height.
    const width = Math.sqrt(volume / (LOG_LENGTHS * high * (Math.PI / 4)));
    const shape = { ...plane(0, 1, 0), reach: width / 2, length: LOG_LENGTHS * width, ends: 1 / LOG_LENGTHS };
    return { ...shape, ...free, profile: "dome" };
  }
  return {
    form: "axial",
    reach: Math.sqrt(volume / (high / (profile ? PEAK[profile] : 1)) / Math.PI),
    length: 0,
    ends: form === "wedge" ? WEDGE_SIDES - 1 : 0,
    flare: 1,
    rim: 0,
    ...free,
    // Between neighbours it has no rounded side.
    ...(profile && !vessel.touching ? { profile } : {}),
  };
}
