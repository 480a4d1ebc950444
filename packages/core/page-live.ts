/** What the counter and the day take of the core besides `page`: a bake that goes on is folded where it is looked at. */
export * from "./src/live/events";
export * from "./src/live/event-kinds";
export * from "./src/live/fold";
export * from "./src/live/spoken";
export * from "./src/live/tolerance";
export * from "./src/live/checks";
export * from "./src/live/remaining";
export * from "./src/plan/prep";
export * from "./src/plan/shopping";
export * from "./src/pantry/packet";
export * from "./src/pantry/on-hand";
export * from "./src/pantry/packet-gluten";
export * from "./src/pantry/oven-fit";
