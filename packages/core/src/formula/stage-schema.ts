import { z } from "zod";
import { ovenLimits } from "../pantry/vessel-words";
import { heats, untils, celsiusWords, MOST_STAGES } from "./stage-kinds";

const minute = z
  .number({ error: "A stage's minutes are a number, such as 15." })
  .min(0.5, { error: "A stage lasts from half a minute to 600 minutes." })
  .max(600, { error: "A stage lasts from half a minute to 600 minutes." });
/** One stage of a bake. What is left out is as in the oven of the formula; the last one without minutes goes on until it is done. */
export const bakeStageSchema = z.object({
  mode: z.enum(heats).optional(),
  celsius: z.number().min(ovenLimits.least, { error: celsiusWords }).max(ovenLimits.most, { error: celsiusWords }).optional(),
  minutes: z
    .union([minute, z.object({ low: minute, high: minute })], { error: "A stage's minutes are a number, or {low, high}." })
    .optional(),
  until: z.enum(untils).optional(),
  /** Under a lid or foil. */
  covered: z.boolean().optional(),
  /** Out of its tin, on the rack. */
  free: z.boolean().optional(),
  /** Turned over when it begins. */
  turned: z.boolean().optional(),
  /** What lies on top is put on when it begins; before it the bake stands without. */
  topped: z.boolean().optional(),
});
export type BakeStage = z.infer<typeof bakeStageSchema>;
/** Every stage but the last needs an end. */
export const bakeStagesSchema = z
  .array(bakeStageSchema)
  .min(1)
  .max(MOST_STAGES, { error: `A bake has up to ${MOST_STAGES} stages.` })
  .superRefine((stages, context) => {
    stages.slice(0, -1).forEach(({ minutes, until }, k) => {
      if (minutes === undefined && until === undefined)
        context.addIssue({
          code: "custom",
          path: [k, "minutes"],
          message: `Stage ${k + 1} needs its minutes, or what it waits for: ${untils.join(", ")}.`,
        });
    });
  });
/**
 * Stages as a text says them, as a bake takes them: each with its minutes, the last until it is done. Under a grill nothing is waited for: its minutes
 * stand, and what comes before it goes on until it is set.
 */
export function stagesFromText(
  said: readonly {
    celsius?: number | undefined;
    mode?: string | undefined;
    minutes: { low: number; high: number };
    covered?: boolean | undefined;
    free?: boolean | undefined;
  }[],
): BakeStage[] | null {
  if (said.length < 2 || said.length > MOST_STAGES) return null;
  const grilled = said.at(-1)?.mode === "grill";
  const stages = said.map(({ celsius, mode, minutes, covered, free }, k) => ({
    ...(mode === undefined ? {} : { mode }),
    ...(celsius === undefined ? {} : { celsius }),
    ...(grilled && k === said.length - 2
      ? { until: "set" }
      : k < said.length - 1 || grilled
        ? { minutes: (minutes.low + minutes.high) / 2 }
        : {}),
    ...(covered ? { covered } : {}),
    ...(free ? { free } : {}),
  }));
  return bakeStagesSchema.safeParse(stages).data ?? null;
}
