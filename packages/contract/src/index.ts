export * from "./problem";
export * from "./requests";
export * from "./resources";
export { analysisSchema, readingSchema } from "@uprise/core";
