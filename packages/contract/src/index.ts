export * from "./problem";
export * from "./requests";
export * from "./resources";
export { analysisSchema, proposalsSchema, readingSchema, simulationSchema } from "@uprise/core";
