import { z } from "zod";

const number = (what: string, least: number, most: number) =>
  z
    .number({ error: `${what} is a number; from ${least} to ${most} would be right.` })
    .min(least, { error: `${what}: from ${least} to ${most} would be right.` })
    .max(most, { error: `${what}: from ${least} to ${most} would be right.` })
    .optional();
/** What was measured of a trial: g, mm, °C, minutes. Heights stand at five points across, edge to edge, or as one in the middle. */
export const measuredSchema = z.object({
  massInG: number("Mass into the oven, g", 1, 1_000_000),
  massOutG: number("Mass out of the oven, g", 1, 1_000_000),
  heightsMm: z
    .array(
      z
        .number()
        .min(0, { error: "A height of 0 mm or more would be right." })
        .max(400, { error: "Heights are in mm; up to 400 would be right." }),
    )
    .length(5, { error: "Five heights across would be right: edge, quarter, middle, quarter, edge." })
    .optional(),
  heightMm: number("Height, mm", 0, 400),
  coreC: number("Core, °C", -20, 130),
  minutes: number("Minutes in the oven", 0.5, 600),
  crumbPh: number("pH of the crumb", 3, 12),
  densityGPerMl: number("Density, g/mL", 0.1, 2),
  batterDensityGPerMl: number("Density of the batter, g/mL", 0.2, 1.6),
  batterC: number("Batter, °C", -10, 60),
  stoodMinutes: number("Minutes standing", 0, 2880),
  inPanMinutes: number("Minutes in the pan", 0, 1440),
  cutAfterMinutes: number("Minutes until the cut", 0, 10_080),
  /** What a thermometer in the oven said, °C. */
  ovenC: number("Oven, °C", 20, 400),
  /** How long the door stood open before the crumb had set, s. */
  doorSeconds: number("Seconds with the door open", 0, 3600),
});
// prettier-ignore
export type Measured = z.infer<typeof measuredSchema>;
