import { defaultsOf } from "./balance/defaults";
import type { Kind } from "./formula/kinds";
import { piecesIn } from "./measure/pieces-text";
import type { Reading } from "./measure/reading-schema";
import { vesselLibrary } from "./pantry/vessel";
import type { Vessel } from "./pantry/vessel-schema";

/** More pieces than this are smaller ones, or baked in several goes: the pan stays as it is, and the difference is told. */
const MOST_CUPS = 24;

/** "Makes 2 loaves", "loaf x4": so many tins; a loaf cut into so many slices is one. */
function loavesIn({ title = "", lines, yield: made }: Reading): number | undefined {
  const pieces = made?.pieces;
  const loaves = /\bloaves\b|\bloaf\s*[x×]\s*\d/i;
  return pieces !== undefined && [title, ...lines.filter(({ role }) => role !== "ingredient").map(({ source }) => source)].some((one) => loaves.test(one) && piecesIn(one) === pieces) ? pieces : undefined; // prettier-ignore
}

/** The vessel a reading names, filled up from the library where the text gives no measures. */
export function vesselFrom(reading: Reading, kind: Kind): Vessel {
  const { pan } = reading;
  const usual = defaultsOf(kind).vessel;
  const baked = usual.shape === "rectangular" ? loavesIn(reading) : usual.shape === "griddle" ? undefined : reading.yield?.pieces;
  if (!pan) return baked !== undefined && baked <= MOST_CUPS ? { ...usual, pieces: baked } : usual;
  const like = vesselLibrary.find((entry) => entry.vessel.shape === pan.shape)?.vessel;
  const pieces = pan.pieces ?? (pan.shape === "muffin" || pan.shape === "free" || pan.shape === "griddle" ? reading.yield?.pieces : pan.shape === "rectangular" ? loavesIn(reading) : undefined); // prettier-ignore
  // What is patted out is as thick as it is said to be.
  const { thicknessMm } = reading.process?.shape ?? {};
  const loose = pan.shape === "free" || pan.shape === "griddle";
  const thick = loose && thicknessMm !== undefined && thicknessMm >= 3 && thicknessMm <= 80 ? { thicknessMm } : {};
  // A pan brings its own measures; what it does not say is that of a usual one of its shape.
  const base = usual.shape === pan.shape ? usual : like;
  const across = pan.diameterMm !== undefined || pan.lengthMm !== undefined;
  const {
    lengthMm: _l,
    widthMm: _w,
    diameterMm: _d,
    baseLengthMm: _bl,
    baseWidthMm: _bw,
    baseDiameterMm: _bd,
    capacityMl: _c,
    ...rest
  } = base ?? {};
  // So many cakes are told: how heavy one is follows.
  if (pan.shape === "griddle") {
    const { pieceG: _g, thicknessMm: _t, ...plate } = rest as Partial<Vessel>;
    return { ...(pieces === undefined ? rest : plate), ...pan, ...thick, ...(pieces === undefined ? {} : { pieces }) };
  }
  return { ...(across ? rest : base), ...pan, ...thick, ...(pieces === undefined ? {} : { pieces }) };
}
