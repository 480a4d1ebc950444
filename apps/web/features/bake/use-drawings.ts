import type { Simulation } from "@uprise/core";
import { useAsked } from "../../device/use-asked";
import type { FrameDrawing } from "../../workers/isotherms";

/** The moments of a bake as areas to draw, from the worker; null until they are here for this very bake. */
export function useDrawings(section: Simulation["section"]): readonly FrameDrawing[] | null {
  const { data, current } = useAsked("draw", [section]);
  return current ? data : null;
}
