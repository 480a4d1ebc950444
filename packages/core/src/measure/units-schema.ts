import { z } from "zod";
import { measureSystems, unitIds } from "./units";

export const measuresSchema = z.enum(measureSystems);
export const unitSchema = z.enum(unitIds);
