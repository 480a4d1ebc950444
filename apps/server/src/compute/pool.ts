import { availableParallelism } from "node:os";
import { CoreError } from "@uprise/core";
import { Piscina } from "piscina";
import { Refusal } from "../errors";
import { type Answer, type Asked, type KitchenData, perform, type TaskName } from "./tasks";
import { type Outcome, WATCHED } from "./worker";

/** Who waits for a long task: told the share that is done, and able to go. */
export interface Watch {
  onProgress: (done: number) => void;
  signal: AbortSignal;
}

/** Does the tasks of the wire away from the thread that answers it. Throws the core's errors, `busy`, `took-too-long`. */
export interface Computer {
  run<K extends TaskName>(name: K, asked: Asked[K], kitchen: KitchenData, watch?: Watch): Promise<Answer<K>>;
  close(): Promise<void>;
}

/** The longest that one task may take, ms. */
export const TASK_LIMIT_MS = 20_000;
const QUEUE = 200;

/** Where there is no bundle for a thread (tests of the server's own parts), the same functions run here. */
const here: Computer = {
  run: async (name, asked, kitchen, watch) =>
    perform(name, asked, kitchen, (done) => {
      watch?.onProgress(done);
      return watch?.signal.aborted === true;
    }),
  close: async () => undefined,
};

/** A pool of threads on the worker's bundle; one core is left for answering. */
export function openComputer(workerFile: string | null, limitMs = TASK_LIMIT_MS): Computer {
  if (workerFile === null) return here;
  const pool = new Piscina({
    filename: workerFile,
    minThreads: 1,
    maxThreads: Math.max(1, availableParallelism() - 1),
    idleTimeout: 60_000,
    maxQueue: QUEUE,
  });
  return {
    async run(name, asked, kitchen, watch) {
      const abort = new AbortController();
      const watched = watch ? new SharedArrayBuffer(8) : undefined;
      const ended = watch && watched ? look(new Int32Array(watched), watch) : undefined;
      let timer: NodeJS.Timeout | undefined;
      const waiting = Date.now();
      try {
        const run = pool.run({ name, asked, kitchen, watched }, { signal: abort.signal }) as Promise<Outcome>;
        timer = setTimeout(() => abort.abort(), limitMs);
        const outcome = await run;
        if ("refused" in outcome) throw new CoreError(outcome.refused.code, outcome.refused.message, outcome.refused.path);
        return outcome.answer as never;
      } catch (error) {
        if (abort.signal.aborted)
          throw new Refusal(
            "took-too-long",
            `This took longer than ${Math.round((Date.now() - waiting) / 1000)} s and was stopped; a smaller batch or a shorter text would be right.`,
          );
        if (error instanceof Error && /queue/i.test(error.message))
          throw new Refusal("busy", "Too much is being computed at once; try again in some seconds.");
        throw error;
      } finally {
        clearTimeout(timer);
        ended?.();
      }
    },
    close: () => pool.destroy(),
  };
}

/** How often the one who waits is told, ms. */
const LOOK_MS = 150;

/** Looks at what a thread has done and tells it; what it gives back ends that. */
function look(shared: Int32Array, { onProgress, signal }: Watch): () => void {
  const stop = (): void => void Atomics.store(shared, WATCHED.stop, 1);
  if (signal.aborted) stop();
  signal.addEventListener("abort", stop);
  let told = -1;
  const timer = setInterval(() => {
    const done = Atomics.load(shared, WATCHED.done);
    if (done !== told) onProgress((told = done) / 1000);
  }, LOOK_MS);
  return () => {
    clearInterval(timer);
    signal.removeEventListener("abort", stop);
  };
}
