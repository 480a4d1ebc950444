import type { CutFace, CutFaceResult, SimulateOptions, Simulation, Start } from "@uprise/core";
import { sampleStart, simulateStart } from "@uprise/core/src/bake/simulate";
import { measureCutFace, type Picture, readCutFace } from "@uprise/core/src/trial/cut-face";
import { drawingsOf, type FrameDrawing } from "./isotherms";

/** What the worker is asked to do. */
export type Task =
  | { do: "bake"; start: Start; massSpread: number; options: SimulateOptions }
  /** The runs from one number to another, as factors of the minutes. */
  | { do: "sample"; start: Start; massSpread: number; from: number; to: number }
  | { do: "draw"; section: Simulation["section"] }
  | { do: "slice"; picture: Picture; mmAcross: number | undefined }
  | { do: "measure-slice"; kinds: Uint8Array; width: number; height: number; mmAcross: number | undefined };

interface Results {
  bake: Simulation;
  sample: number[] | null;
  draw: FrameDrawing[];
  slice: CutFaceResult;
  "measure-slice": CutFace;
}
export type Result<T extends Task> = Results[T["do"]];

/** Does one task, in the worker or, where there is none, here. */
export function perform(task: Task): Results[Task["do"]] {
  switch (task.do) {
    case "bake":
      return simulateStart(task.start, task.massSpread, task.options);
    case "sample":
      return sampleStart(task.start, task.massSpread, task.from, task.to);
    case "draw":
      return drawingsOf(task.section);
    case "slice":
      return readCutFace(task.picture, task.mmAcross);
    case "measure-slice":
      return measureCutFace(task.kinds, task.width, task.height, task.mmAcross);
  }
}
