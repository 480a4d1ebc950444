import { z } from "zod";
import { scales, scaleIds } from "./scales";

/** Scores by scale: the index of the step. */
export const scoresSchema = z
  .record(z.string(), z.number().int().min(0))
  .refine((scores) => Object.keys(scores).every((id) => scaleIds.includes(id)), {
    error: `A scale is one of: ${scaleIds.join(", ")}.`,
  })
  .refine((scores) => scales.every(({ id, steps }) => (scores[id] ?? 0) < steps.length), {
    error: "A score is the number of one of the scale's steps, from 0.",
  });
