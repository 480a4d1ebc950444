import { neededMeasures, ownShapes, vesselOfShape } from "./own-pan";
import { vesselSchema } from "./vessel-schema";

const tin = { shape: "rectangular" as const, lengthMm: 230, widthMm: 130, heightMm: 70, baseLengthMm: 210, capacityMl: 1900 };

test("a box becomes round by its length and loses what only a box has; and back", () => {
  const round = vesselOfShape(tin, "round");
  expect(round).toEqual({ shape: "round", diameterMm: 230, heightMm: 70, capacityMl: 1900 });
  expect(vesselOfShape(round, "rectangular")).toEqual({ shape: "rectangular", lengthMm: 230, heightMm: 70, capacityMl: 1900 });
});

test("cups come with a usual number, which goes when they go", () => {
  expect(vesselOfShape(tin, "muffin").pieces).toBe(12);
  expect(vesselOfShape({ ...vesselOfShape(tin, "muffin"), pieces: 6 }, "ring").pieces).toBeUndefined();
});

test.each(ownShapes)("a %s made of any other passes the schema and knows what it needs", (shape) => {
  for (const from of ownShapes) expect(vesselSchema.safeParse(vesselOfShape(vesselOfShape(tin, from), shape)).success).toBe(true);
  expect(neededMeasures(shape)).toContain("heightMm");
});
