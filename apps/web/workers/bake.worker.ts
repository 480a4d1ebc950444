import { simulateStart } from "@uprise/core/src/bake/simulate";
import { drawingsOf } from "./isotherms";
import type { Task } from "./tasks";

/** Typed by hand: the libraries of the page and of a worker clash. */
const scope = self as unknown as {
  onmessage: ((event: { data: { job: number; task: Task } }) => void) | null;
  postMessage: (message: unknown) => void;
};

scope.onmessage = ({ data: { job, task } }) => {
  try {
    const result = task.do === "bake" ? simulateStart(task.start, task.massSpread, task.options) : drawingsOf(task.section);
    scope.postMessage({ job, result });
  } catch (error) {
    scope.postMessage({ job, error: error instanceof Error ? error.message : String(error) });
  }
};
