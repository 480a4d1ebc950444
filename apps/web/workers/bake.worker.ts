import { type SimulateOptions, simulateStart } from "@uprise/core/src/bake/simulate";
import type { Start } from "@uprise/core/src/bake/start";

/** Typed by hand: the libraries of the page and of a worker clash. */
const scope = self as unknown as {
  onmessage: ((event: { data: { job: number; start: Start; massSpread: number; options: SimulateOptions } }) => void) | null;
  postMessage: (message: unknown) => void;
};

scope.onmessage = ({ data: { job, start, massSpread, options } }) => {
  try {
    scope.postMessage({ job, simulation: simulateStart(start, massSpread, options) });
  } catch (error) {
    scope.postMessage({ job, error: error instanceof Error ? error.message : String(error) });
  }
};
