import type { SimulateOptions, Simulation, Start } from "@uprise/core";
import type { FrameDrawing } from "./isotherms";

/** What the worker is asked to do. */
export type Task =
  { do: "bake"; start: Start; massSpread: number; options: SimulateOptions } | { do: "draw"; section: Simulation["section"] };

export type Result<T extends Task> = T extends { do: "bake" } ? Simulation : FrameDrawing[];
