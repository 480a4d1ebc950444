export * from "./problem";
export * from "./requests";
export * from "./resources";
export {
  analysisSchema,
  designsSchema,
  familySchema,
  wishSchema as designRequestSchema,
  planSchema,
  diagnosisSchema,
  nextSchema,
  bakeEventSchema,
  slipAnswerSchema,
  proposalsSchema,
  readingSchema,
  simulationSchema,
} from "@uprise/core";
