import { availableParallelism } from "node:os";
import { CoreError } from "@uprise/core";
import { Piscina } from "piscina";
import { Refusal } from "../errors";
import { type Answer, type Asked, type KitchenData, perform, type TaskName } from "./tasks";
import type { Outcome } from "./worker";

/** Does the tasks of the wire away from the thread that answers it. Throws the core's errors, `busy`, `took-too-long`. */
export interface Computer {
  run<K extends TaskName>(name: K, asked: Asked[K], kitchen: KitchenData): Promise<Answer<K>>;
  close(): Promise<void>;
}

/** The longest that one task may take, ms. */
export const TASK_LIMIT_MS = 20_000;
const QUEUE = 200;

/** Where there is no bundle for a thread (tests of the server's own parts), the same functions run here. */
const here: Computer = {
  run: async (name, asked, kitchen) => perform(name, asked, kitchen),
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
    async run(name, asked, kitchen) {
      const abort = new AbortController();
      let timer: NodeJS.Timeout | undefined;
      const waiting = Date.now();
      try {
        const run = pool.run({ name, asked, kitchen }, { signal: abort.signal }) as Promise<Outcome>;
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
      }
    },
    close: () => pool.destroy(),
  };
}
