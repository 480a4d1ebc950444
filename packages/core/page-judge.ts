/** What the counter takes of the log: the few questions after a bake, and the trial that they become. */
export * from "./src/trial/scales";
export * from "./src/trial/from-bake";
