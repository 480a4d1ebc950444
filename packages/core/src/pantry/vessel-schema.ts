import { z } from "zod";
import { shapes, materials, linings, pieceForms, ovenShelves, ovenModes, ovenLimits } from "./vessel-words";

const millimetres = (what: string, least: number, most: number): z.ZodOptional<z.ZodNumber> =>
  z
    .number({ error: `${what} must be a number of millimetres, such as ${Math.round((least + most) / 4)}.` })
    .min(least, { error: `${what} is in millimetres; from ${least} to ${most} would be right. Did you mean centimetres?` })
    .max(most, { error: `${what} is in millimetres; from ${least} to ${most} would be right.` })
    .optional();
/** A vessel by its inner measures in millimetres; for `muffin` the diameter is that of a cup at its rim. */
export const vesselSchema = z.object({
  shape: z.enum(shapes),
  lengthMm: millimetres("Length", 20, 900),
  widthMm: millimetres("Width", 20, 900),
  heightMm: millimetres("Height", 5, 300),
  diameterMm: millimetres("Diameter", 15, 900),
  /** Inner measures at the base, where the walls lean out. */
  baseLengthMm: millimetres("Length of the base", 15, 900),
  baseWidthMm: millimetres("Width of the base", 15, 900),
  baseDiameterMm: millimetres("Diameter of the base", 10, 900),
  /** What it holds to the rim, measured with water; for cups of one cup. */
  capacityMl: z
    .number()
    .min(5, { error: "What it holds is in millilitres; from 5 to 50 000 would be right." })
    .max(50_000, { error: "What it holds is in millilitres; from 5 to 50 000 would be right." })
    .optional(),
  pieces: z.number().int().min(1).max(500).optional(),
  pieceG: z.number().positive().max(5000).optional(),
  thicknessMm: millimetres("Thickness", 1, 120),
  material: z.enum(materials).optional(),
  lining: z.enum(linings).optional(),
  preheated: z.boolean().optional(),
  /** How warm it is when the batter goes in, °C, where it is neither cold nor as hot as the oven: fat was melted in it. */
  warmC: z
    .number()
    .min(30, { error: "A warm pan is given in °C; from 30 to 250 would be right." })
    .max(250, { error: "A warm pan is given in °C; from 30 to 250 would be right." })
    .optional(),
  /** In one word how warm it goes in: `hot` as the oven, `warm` with fat melted in it. What it means stands in `preheated` and `warmC`. */
  start: z.enum(["cold", "warm", "hot"]).optional(),
  /** What a piece without walls is. */
  piece: z.enum(pieceForms).optional(),
  touching: z.boolean().optional(),
});
export type Vessel = z.infer<typeof vesselSchema>;
/** Metres above the sea where people bake. */
export const altitudeSchema = z.number().min(-430).max(5500);
export const ovenSchema = z.object({
  celsius: z
    .number()
    .min(ovenLimits.least, { error: "Oven temperature is in °C; from 60 to 320 would be right." })
    .max(ovenLimits.most, { error: "Oven temperature is in °C; from 60 to 320 would be right. Is this °F? 350 °F is 177 °C." }),
  /** The baker's dial is in °F: the same number comes back as it was said. */
  dial: z.enum(["C", "F"]).optional(),
  mode: z.enum(ovenModes).optional(),
  altitudeM: altitudeSchema.optional(),
  /** Where it stands; absent, in the middle. */
  shelf: z.enum(ovenShelves).optional(),
  ovenId: z.string().max(64).optional(),
  /** How much hotter than its dial the oven is inside, and how far it swings, K: from the oven's profile. */
  biasK: z.number().min(-60).max(60).optional(),
  swingK: z.number().min(0).max(60).optional(),
});
export type Oven = z.infer<typeof ovenSchema>;
