import type { Simulation } from "@uprise/core";
import { useEffect, useId, useState } from "react";
import type { FrameDrawing } from "../../workers/isotherms";
import { ovenWorker } from "./oven-worker";

type Section = Simulation["section"];

/** The moments of a bake as areas to draw, from the worker; null until they are here for this very bake. */
export function useDrawings(section: Section): readonly FrameDrawing[] | null {
  const channel = useId();
  const [drawn, setDrawn] = useState<{ of: Section; frames: readonly FrameDrawing[] } | null>(null);
  useEffect(() => {
    ovenWorker.ask(
      channel,
      { do: "draw", section },
      (frames) => setDrawn({ of: section, frames }),
      () => setDrawn(null),
    );
  }, [channel, section]);
  useEffect(() => () => ovenWorker.cancel(channel), [channel]);
  return drawn && drawn.of === section ? drawn.frames : null;
}
