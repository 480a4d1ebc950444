/**
 * What of the core a page may take besides types: edits, words, units, ranges, and arithmetic that is done before the next frame. Nothing here
 * reaches the catalogue, a schema, a reader or a bake; those are asked of the workers.
 */
export * from "./src/errors";
export * from "./src/measure/range";
export * from "./src/measure/units";
export * from "./src/measure/amounts";
export * from "./src/measure/list-words";
export * from "./src/measure/number-text";
export * from "./src/measure/reading";
export * from "./src/measure/mending";
export * from "./src/pantry/ingredient";
export * from "./src/pantry/ingredient-words";
export * from "./src/pantry/shelf";
export * from "./src/pantry/vessel";
export * from "./src/pantry/vessel-words";
export * from "./src/pantry/pan-text";
export * from "./src/formula/kinds";
export * from "./src/formula/shapes";
export * from "./src/formula/most-pages";
export * from "./src/formula/process";
export * from "./src/formula/stage";
export * from "./src/formula/stage-kinds";
export * from "./src/formula/stage-words";
export * from "./src/formula/step-change";
export * from "./src/formula/what-if";
export * from "./src/formula/components";
export * from "./src/formula/nested";
export * from "./src/formula/dividable";
export * from "./src/lift/pulls";
export * from "./src/formula/open";
export * from "./src/formula/open-part";
export * from "./src/formula/edits";
export * from "./src/formula/edit-words";
export * from "./src/formula/history";
export * from "./src/formula/differences";
export * from "./src/body/consistency";
export * from "./src/bake/browning";
export { isOfTheOven } from "./src/balance/finding";
export { isFault } from "./src/balance/faults";
export { isBaked } from "./src/balance/is-baked";
export { BATTER } from "./src/formula/component-mass";
export * from "./src/lift/as-soda";
export { languages, type Language } from "./src/measure/languages/names";
