import type { Analysis, BakedAnalysis } from "./readings";

/** Whether the oven is in a reading. */
export const isBaked = (analysis: Analysis): analysis is BakedAnalysis =>
  analysis.bake !== null && analysis.race !== null && analysis.fill.crownMm !== null;
