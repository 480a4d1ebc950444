import { perform, type Task } from "./tasks";

/** Typed by hand: the libraries of the page and of a worker clash. */
const scope = self as unknown as {
  onmessage: ((event: { data: { job: number; task: Task } }) => void) | null;
  postMessage: (message: unknown) => void;
};

scope.onmessage = ({ data: { job, task } }) => {
  try {
    scope.postMessage({ job, result: perform(task) });
  } catch (error) {
    scope.postMessage({ job, error: error instanceof Error ? error.message : String(error) });
  }
};
