/** What the rooms of the bench take of the core besides `page`: pans, dividing, what is usual of a kind. */
export * from "./src/bake/geometry";
export * from "./src/bake/divide";
export * from "./src/bake/pan-swap";
export * from "./src/balance/bands";
export * from "./src/balance/colour-ways";
export * from "./src/balance/defaults";
export * from "./src/balance/new-part";
export * from "./src/formula/amount";
export * from "./src/pantry/own-pan";
export * from "./src/plan/own-steps";
export * from "./src/label/regions";
export * from "./src/design/to-formula";
export * from "./src/design/wish";
export * from "./src/balance/wish-words";
export { nutrients, type Nutrient } from "./src/pantry/printed-table";
