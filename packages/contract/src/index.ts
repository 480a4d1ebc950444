export * from "./problem";
export * from "./requests";
export * from "./resources";
export {
  analysisSchema,
  designsSchema,
  familySchema,
  wishSchema as designRequestSchema,
  planSchema,
  bakeEventSchema,
  slipAnswerSchema,
  proposalsSchema,
  readingSchema,
  simulationSchema,
} from "@uprise/core";
