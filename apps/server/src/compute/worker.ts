import { CoreError, type CoreErrorCode } from "@uprise/core";
import { type Asked, type KitchenData, perform, type TaskName } from "./tasks";

/** What comes back from a thread: an answer, or the core's own refusal, whose class does not survive the way. */
export type Outcome = { answer: unknown } | { refused: { code: CoreErrorCode; message: string; path: string } };

/** What a thread and the one who waits for it both see: thousandths done, and whether nobody waits any more. */
export const WATCHED = { done: 0, stop: 1 } as const;

interface Work {
  name: TaskName;
  asked: Asked[TaskName];
  kitchen: KitchenData;
  watched?: SharedArrayBuffer | undefined;
}

/** One task in a thread of the pool. */
export default function work({ name, asked, kitchen, watched }: Work): Outcome {
  const shared = watched ? new Int32Array(watched) : null;
  const tell = (done: number): boolean => {
    if (!shared) return false;
    Atomics.store(shared, WATCHED.done, Math.round(1000 * done));
    return Atomics.load(shared, WATCHED.stop) === 1;
  };
  try {
    return { answer: perform(name, asked, kitchen, tell) };
  } catch (error) {
    if (error instanceof CoreError) return { refused: { code: error.code, message: error.message, path: error.path } };
    throw error;
  }
}
