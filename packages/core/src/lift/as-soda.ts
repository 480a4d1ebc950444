import { gramsText } from "../measure/amounts";

/** A gram of soda is so many millimoles: 84.007 g are one mole. */
const SODA_G_PER_MMOL = 0.084007;
/** Soda, or the acid that meets it, as grams of soda: what a baker weighs. */
export const asSodaG = (mmol: number): number => mmol * SODA_G_PER_MMOL;
export const asSodaText = (mmol: number): string => gramsText(asSodaG(mmol));
