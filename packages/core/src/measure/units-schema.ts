import { z } from "zod";
import { measureSystems, unitIds } from "./units";

export const measuresSchema = z.enum(measureSystems);
export type Measures = z.infer<typeof measuresSchema>;
// prettier-ignore
export const unitSchema = z.enum(unitIds);
export type UnitId = z.infer<typeof unitSchema>;
