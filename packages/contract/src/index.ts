export * from "./problem";
export * from "./requests";
export * from "./resources";
export { analysisSchema, proposalsSchema, readingSchema } from "@uprise/core";
