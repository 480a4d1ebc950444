export * from "./problem";
export * from "./requests";
export * from "./resources";
export * from "./exchange";
export * from "./access";
export {
  analysisSchema,
  designsSchema,
  familySchema,
  wishSchema as designRequestSchema,
  planSchema,
  seasonDesignSchema,
  seasonNextSchema,
  seasonSchema,
  seasonStateSchema,
  diagnosisSchema,
  nextSchema,
  bakeEventSchema,
  slipAnswerSchema,
  proposalsSchema,
  readingSchema,
  simulationSchema,
  labelSchema,
  scaleUpSchema,
} from "@uprise/core";
