/** What the log takes of the core besides `page`: scales, symptoms, what was measured, trials side by side. */
export * from "./src/trial/symptoms";
export * from "./src/trial/measured";
export * from "./src/trial/scales";
export * from "./src/trial/causes";
export * from "./src/trial/goals";
export * from "./src/trial/compare";
export * from "./src/trial/experiments";
export * from "./src/trial/tasting";
export * from "./src/trial/from-bake";
export * from "./src/trial/from-shelf";
export { correctedAt, evennessWord } from "./src/trial/cut-face";
export { qualities, type Quality, qualityOf, qualityText } from "./src/season/qualities";
export { changesBetween, factorName, optionsOf, valueText } from "./src/season/space";
export { STILL_GOOD, toScale, usualRange, MOST_TRIALS } from "./src/season/usual";
